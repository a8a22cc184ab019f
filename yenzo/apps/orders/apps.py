from django.apps import AppConfig


class OrdersConfig(AppConfig):
    name = "yenzo.apps.orders"
    label = "orders"

    def ready(self) -> None:
        """Say what is kept, and who writes the mails."""
        from yenzo.apps.orders import keeping, mails

        keeping.register()
        mails.register()
