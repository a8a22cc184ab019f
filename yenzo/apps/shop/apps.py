from django.apps import AppConfig


class ShopConfig(AppConfig):
    name = "yenzo.apps.shop"
    label = "shop"

    def ready(self) -> None:
        """Say what is kept, for how long, and who writes the mails."""
        from yenzo.apps.shop import mails, registrations

        registrations.register()
        mails.register()
