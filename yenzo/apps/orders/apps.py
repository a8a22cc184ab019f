from django.apps import AppConfig


class OrdersConfig(AppConfig):
    name = "yenzo.apps.orders"
    label = "orders"
