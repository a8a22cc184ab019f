from yenzo.apps.catalogue.models.history import SharedChange
from yenzo.apps.catalogue.models.kits import KitMember, KitScope
from yenzo.apps.catalogue.models.materials import Material
from yenzo.apps.catalogue.models.products import DraftEdit, Product, Revision, RevisionFile
from yenzo.apps.catalogue.models.stock import StockItem

__all__ = [
    "DraftEdit",
    "KitMember",
    "KitScope",
    "Material",
    "Product",
    "Revision",
    "RevisionFile",
    "SharedChange",
    "StockItem",
]
