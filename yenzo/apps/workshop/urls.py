from django.urls import path

from yenzo.apps.workshop.views import mark, wording, workshop

app_name = "workshop"
urlpatterns = [
    path("settings/", workshop.settings_page, name="settings"),
    path("theme/<str:token>.css", workshop.theme, name="theme"),
    path("mark/<str:sha256>/", mark.mark, name="mark"),
    path("settings/mark/", mark.change_mark, name="change_mark"),
    path("settings/wording/", wording.wording, name="wording"),
    path("settings/<slug:part>/", workshop.change, name="change"),
]
