from django.apps import AppConfig


class PagesConfig(AppConfig):
    name = "yenzo.apps.pages"
    label = "pages"
