from django.urls import path

from yenzo.apps.production.views import packs

app_name = "production"
urlpatterns = [
    path("packs/<int:line_id>/", packs.pack_state, name="pack"),
    path("packs/<int:line_id>/again/", packs.make_again, name="make_again"),
    path("packs/<int:line_id>/file/", packs.pack_file, name="pack_file"),
    path("packs/<int:line_id>/file/<int:index>/", packs.pack_file, name="pack_file"),
    path("packs/<int:line_id>/all/", packs.all_packs, name="all_packs"),
]
