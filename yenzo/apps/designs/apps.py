from django.apps import AppConfig


class DesignsConfig(AppConfig):
    name = "yenzo.apps.designs"
    label = "designs"

    def ready(self) -> None:
        """Say what is kept, and for how long."""
        from yenzo.apps.designs.registrations import register

        register()
