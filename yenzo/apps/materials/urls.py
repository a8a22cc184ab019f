from django.urls import path

from yenzo.apps.materials import views

app_name = "materials"
urlpatterns = [
    path("", views.material_list, name="materials"),
    path("methods/new/", views.edit_method, name="new_method"),
    path("methods/<slug:key>/", views.edit_method, name="method"),
    path("palettes/new/", views.edit_palette, name="new_palette"),
    path("palettes/<slug:key>/", views.edit_palette, name="palette"),
    path("typefaces/new/", views.edit_typeface, name="new_typeface"),
    path("typefaces/<slug:key>/", views.edit_typeface, name="typeface"),
    path("word-lists/new/", views.edit_word_list, name="new_word_list"),
    path("word-lists/<slug:key>/", views.edit_word_list, name="word_list"),
    path("collections/new/", views.edit_collection, name="new_collection"),
    path("collections/<slug:key>/", views.edit_collection, name="collection"),
]
