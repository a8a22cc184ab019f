"""Whether a set-up can be published: what is missing or makes no sense, and what comes of it when somebody tries it."""

from functools import lru_cache

from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.linked import not_in_shop
from yenzo.core.documents.faults import find_nonsense, missing_materials
from yenzo.core.documents.reading import read_trusted
from yenzo.core.documents.setup import Setup
from yenzo.core.shapes.areas import box_on_side
from yenzo.core.shapes.box import Box
from yenzo.core.trial import Trouble, find_troubles

TRIES_KEPT = 50
# An area drawn up to the edge may lie a rounding beyond it.
TOUCHING_MM = 0.05


def faults_of(setup: Setup) -> list[str]:
    """Return all that keeps a set-up from being published, each as a sentence; it is tried once nothing is missing."""
    return unready(setup) or [trouble.message for trouble in tried(setup) if trouble.blocks]


def tried(setup: Setup) -> tuple[Trouble, ...]:
    """Return what comes of a set-up when somebody orders by it as customers would; nothing it needs may be missing."""
    return _tried(setup.model_dump_json(by_alias=True))


@lru_cache(maxsize=TRIES_KEPT)
def _tried(document: str) -> tuple[Trouble, ...]:
    # The page of a set-up asks after each change, and again when it is published.
    return find_troubles(read_trusted(document), StoredAssets())


def unready(setup: Setup, *, is_priced: bool = True) -> list[str]:
    """Return what keeps a draft from being published, each as a sentence."""
    faults = [*missing_materials(setup), *find_nonsense(setup, is_priced=is_priced), *not_in_shop(setup)]
    for side in setup.sides:
        if side.scale is None:
            faults.append(f"Mark the scale of “{side.name}” first: nothing on it has a size yet.")
            continue
        width, height = side.size_mm() or (0, 0)
        faults += [
            f"“{area.name}” reaches beyond the picture of “{side.name}”."
            for area in side.areas
            if box_on_side(area).excess_over(Box(0, 0, width, height)) > TOUCHING_MM
        ]
    if not setup.fields:
        faults.append("Nothing is asked yet: add a line to the order slip.")
    return faults
