from django.apps import AppConfig


class OrdersConfig(AppConfig):
    name = "yenzo.apps.orders"
    label = "orders"

    def ready(self) -> None:
        """Say what is kept, and for how long."""
        from yenzo.apps.orders.keeping import register

        register()
