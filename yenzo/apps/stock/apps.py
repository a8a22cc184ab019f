from django.apps import AppConfig


class StockConfig(AppConfig):
    name = "yenzo.apps.stock"
    label = "stock"

    def ready(self) -> None:
        """Say how a change of it is taken back."""
        from yenzo.apps.stock.registrations import register

        register()
