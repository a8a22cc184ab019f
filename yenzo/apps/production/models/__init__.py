from yenzo.apps.production.models.packs import Pack

__all__ = ["Pack"]
