from django.apps import AppConfig


class DesignsConfig(AppConfig):
    name = "yenzo.apps.designs"
    label = "designs"
