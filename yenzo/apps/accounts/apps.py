from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "yenzo.apps.accounts"
    label = "accounts"
