from django.apps import AppConfig


class OutboxConfig(AppConfig):
    name = "yenzo.apps.outbox"
    label = "outbox"

    def ready(self) -> None:
        """Say how long mails are kept."""
        from yenzo.apps.outbox.registrations import register

        register()
