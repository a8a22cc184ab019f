from django.apps import AppConfig


class HistoryConfig(AppConfig):
    name = "yenzo.apps.history"
    label = "history"

    def ready(self) -> None:
        """Say what is kept."""
        from yenzo.apps.history.registrations import register

        register()
