"""Coordinates as files have them: an outline in mm comes in, whole micrometres as text go out."""

import numpy as np
from pydantic_core import to_json

from yenzo.core.shapes.outline import Outline

PER_MM = 1000


def micrometres(outline: Outline) -> list[str]:
    """Return the coordinates of an outline, x and y in turn: short, canonical, the same in every file."""
    whole = np.rint(outline.points * PER_MM).astype(np.int64).ravel().tolist()
    # As JSON they are written at once, in half the time of each by itself.
    return to_json(whole)[1:-1].decode().split(",") if whole else []
