from django.apps import AppConfig


class CatalogueConfig(AppConfig):
    name = "yenzo.apps.catalogue"
    label = "catalogue"
