from django.apps import AppConfig


class SlipConfig(AppConfig):
    name = "yenzo.apps.slip"
    label = "slip"
