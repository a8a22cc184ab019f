from django.apps import AppConfig


class ShopConfig(AppConfig):
    name = "yenzo.apps.shop"
    label = "shop"

    def ready(self) -> None:
        """Say what is kept, and for how long."""
        from yenzo.apps.shop.keeping import register

        register()
