from django.urls import path

from yenzo.apps.workshop.views import workshop

app_name = "workshop"
urlpatterns = [
    path("settings/", workshop.settings_page, name="settings"),
    path("theme/<str:token>.css", workshop.theme, name="theme"),
    path("settings/<slug:part>/", workshop.change, name="change"),
]
