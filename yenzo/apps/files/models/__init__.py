from yenzo.apps.files.models.stored import FileTrouble, NightlyRun, StoredFile

__all__ = ["FileTrouble", "NightlyRun", "StoredFile"]
