from django.apps import AppConfig


class ProductionConfig(AppConfig):
    name = "yenzo.apps.production"
    label = "production"
