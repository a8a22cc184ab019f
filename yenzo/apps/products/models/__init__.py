from yenzo.apps.products.models.kits import KitMember, KitScope
from yenzo.apps.products.models.products import DraftEdit, Product, Revision, RevisionFile

__all__ = ["DraftEdit", "KitMember", "KitScope", "Product", "Revision", "RevisionFile"]
