from django.apps import AppConfig


class MaterialsConfig(AppConfig):
    name = "yenzo.apps.materials"
    label = "materials"

    def ready(self) -> None:
        """Say what is kept, and how a change of it is taken back."""
        from yenzo.apps.materials import registrations

        registrations.register()
