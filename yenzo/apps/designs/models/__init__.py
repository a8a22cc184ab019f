from yenzo.apps.designs.models.designs import Design
from yenzo.apps.designs.models.personalizations import Personalization, Proof
from yenzo.apps.designs.models.unfinished import UnfinishedEntries
from yenzo.apps.designs.models.uploads import Upload

__all__ = ["Design", "Personalization", "Proof", "UnfinishedEntries", "Upload"]
