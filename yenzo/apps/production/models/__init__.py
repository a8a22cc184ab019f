from yenzo.apps.production.models.jobs import Job, Parcel, Station
from yenzo.apps.production.models.packs import Pack

__all__ = ["Job", "Pack", "Parcel", "Station"]
