from django.apps import AppConfig


class FilesConfig(AppConfig):
    name = "yenzo.apps.files"
    label = "files"

    def ready(self) -> None:
        """Say what is kept for a while."""
        from yenzo.apps.files.registrations import register

        register()
