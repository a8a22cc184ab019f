from django.apps import AppConfig


class CatalogueConfig(AppConfig):
    name = "yenzo.apps.catalogue"
    label = "catalogue"

    def ready(self) -> None:
        """Say what is kept, and for how long."""
        from yenzo.apps.catalogue.keeping import register

        register()
