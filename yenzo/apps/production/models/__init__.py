from yenzo.apps.production.models.jobs import Job, Station
from yenzo.apps.production.models.packing import Parcel, ParcelItem, RackPlace
from yenzo.apps.production.models.packs import Pack

__all__ = ["Job", "Pack", "Parcel", "ParcelItem", "RackPlace", "Station"]
