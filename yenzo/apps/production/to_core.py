"""Pieces as they were made in records come in; by method what lands on them, and how long that takes, go out."""

from collections import defaultdict

from yenzo.core.documents.materials import Method
from yenzo.core.planning.estimate import Content, Estimate, estimate
from yenzo.core.pricing.amounts import MM2_PER_CM2
from yenzo.core.record import Recorded, RecordedArea

UNDECORATED = ""
# What is picked and packed as it is.
BY_HAND = Method(name="Without decoration", done="as it is", setup_minutes=0, piece_minutes=2)


def method_of(recorded: Recorded, area: RecordedArea) -> str:
    """Return the method of an area: that which the customer chose, where the seller leaves it open."""
    chosen = recorded.asked.text(area.area.method_field) if area.area.method_field else ""
    return chosen if chosen in recorded.setup.materials.methods else area.area.method


def contents_of(recorded: Recorded) -> dict[str, Content]:
    """Return by method what it puts on one piece, in the order in which they are made."""
    letters: dict[str, int] = defaultdict(int)
    ink_cm2: dict[str, float] = defaultdict(float)
    for area in recorded.areas:
        method = method_of(recorded, area)
        for text in area.texts:
            letters[method] += sum(not char.isspace() for char in text.text)
            ink_cm2[method] += text.ink_mm[0] * text.ink_mm[1] / MM2_PER_CM2 if text.ink_mm else 0
        for artwork in area.artworks:
            ink_cm2[method] += artwork.shown_mm[0] * artwork.shown_mm[1] / MM2_PER_CM2
    found = {key: Content(letters[key], ink_cm2[key]) for key in {**letters, **ink_cm2}}
    if not found:
        return {UNDECORATED: Content()}
    methods = recorded.setup.materials.methods
    return dict(sorted(found.items(), key=lambda one: (methods[one[0]].order, one[0])))


def method_in(recorded: Recorded, key: str) -> Method:
    """Return a method as the revision has it."""
    return recorded.setup.materials.methods.get(key, BY_HAND)


def estimate_of(recorded: Recorded, key: str, content: Content, pieces: int) -> Estimate:
    """Return how long a method takes for pieces that are alike."""
    return estimate(method_in(recorded, key), content, pieces)
