from django.apps import AppConfig


class ProductsConfig(AppConfig):
    name = "yenzo.apps.products"
    # As its tables are called since before materials, stock and the editor were apps of their own (decision 13).
    label = "catalogue"

    def ready(self) -> None:
        """Say what is kept, and how a change of who uses a kit is taken back."""
        from yenzo.apps.products.registrations import register

        register()
