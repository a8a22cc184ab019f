from django.apps import AppConfig
from django.forms import EmailField, Field
from django.utils.translation import gettext_lazy


class AccountsConfig(AppConfig):
    name = "yenzo.apps.accounts"
    label = "accounts"

    def ready(self) -> None:
        """Say in our own words what Django's forms say in theirs."""
        Field.default_error_messages["required"] = gettext_lazy("Please fill this in.")
        EmailField.default_error_messages = {
            "invalid": gettext_lazy("This is no mail address as it stands. One looks like name@post.example.")
        }
