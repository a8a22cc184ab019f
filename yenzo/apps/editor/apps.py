from django.apps import AppConfig


class EditorConfig(AppConfig):
    name = "yenzo.apps.editor"
    label = "editor"
