from django.apps import AppConfig


class WorkshopConfig(AppConfig):
    name = "yenzo.apps.workshop"
    label = "workshop"
