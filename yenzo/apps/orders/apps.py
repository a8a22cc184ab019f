from django.apps import AppConfig


class OrdersConfig(AppConfig):
    name = "yenzo.apps.orders"
    label = "orders"

    def ready(self) -> None:
        """Say who writes the mails, and which files are kept."""
        from yenzo.apps.orders import mails, registrations

        mails.register()
        registrations.register()
