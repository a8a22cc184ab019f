from django.apps import AppConfig


class ShopConfig(AppConfig):
    name = "yenzo.apps.shop"
    label = "shop"
