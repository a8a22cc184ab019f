"""Coordinates as files have them: an outline in mm comes in, lengths to the micrometre as text go out."""

from functools import lru_cache

import numpy as np
import numpy.typing as npt
from pydantic_core import to_json

from yenzo.core.measure import plain_number
from yenzo.core.shapes.cubics import MOVE, POINT_COUNTS
from yenzo.core.shapes.outline import Outline

PER_MM = 1000
# How many lengths are kept as text: most edges of letters are as long as others have been.
KEPT_LENGTHS = 50_000


def micrometres(outline: Outline) -> list[str]:
    """Return the coordinates of an outline, x and y in turn: short, canonical, the same in every file."""
    whole = _whole(outline).ravel().tolist()
    # As JSON they are written at once, in half the time of each by itself.
    return to_json(whole)[1:-1].decode().split(",") if whole else []


def absolute_mm(outline: Outline) -> list[str]:
    """Return what `micrometres` does in mm."""
    return list(map(_in_mm, _whole(outline).ravel().tolist()))


def relative_mm(outline: Outline) -> list[str]:
    """Return the coordinates in mm; all but the starts of contours as distances from where their edge begins.

    As these are differences of whole micrometres, they add up to the same, however long a contour is.
    """
    whole, verbs = _whole(outline), np.frombuffer(outline.verbs.encode(), dtype=np.uint8)
    counts = POINT_COUNTS[verbs]
    begins = whole[np.cumsum(counts) - counts - 1] if len(whole) else whole
    begins[verbs == MOVE] = 0
    return list(map(_in_mm, (whole - begins.repeat(counts, axis=0)).ravel().tolist()))


def _whole(outline: Outline) -> npt.NDArray[np.int64]:
    return np.rint(outline.points * PER_MM).astype(np.int64)


@lru_cache(KEPT_LENGTHS)
def _in_mm(whole: int) -> str:
    """Return whole micrometres as mm in the shortest form, which has no zero before its point."""
    text = plain_number(whole / PER_MM, 3)
    return text.replace("0.", ".", 1) if text.startswith(("0.", "-0.")) else text
