from yenzo.apps.designs.models.designs import Design
from yenzo.apps.designs.models.groups import Group
from yenzo.apps.designs.models.lists import NameList, NameRow
from yenzo.apps.designs.models.looks import Look
from yenzo.apps.designs.models.personalizations import Personalization, Proof
from yenzo.apps.designs.models.unfinished import UnfinishedEntries
from yenzo.apps.designs.models.uploads import ArrivingFile, Upload

__all__ = [
    "ArrivingFile",
    "Design",
    "Group",
    "Look",
    "NameList",
    "NameRow",
    "Personalization",
    "Proof",
    "UnfinishedEntries",
    "Upload",
]
