"""Center lines: contours that go there and back again on themselves come in, the lines that they follow go out.

Typefaces for engraving tools are drawn so, as the formats of fonts know closed contours only.
"""

import numpy as np
import shapely

from yenzo.core.shapes.cubics import Cubics
from yenzo.core.shapes.flattening import flattened
from yenzo.core.shapes.outline import Outline, Points

# What a letter of lines covers at most, as a share of its box; a hair line of a real letter covers far more.
MOST_COVERED = 1e-4
PLACES = 5
SAME = 10.0**-PLACES


def is_single_line(outline: Outline) -> bool:
    """Tell whether an outline covers nothing but is somewhere: a line, there and back."""
    bounds = outline.bounds
    if bounds is None:
        return False
    size = max(bounds.width, bounds.height)
    # A straight line and back has two points only.
    covered = sum(shapely.Polygon(ring).area for ring in flattened(outline, size / 500) if len(ring) > 2)
    return bool(covered < MOST_COVERED * size * size)


def center_lines(outline: Outline) -> Outline:
    """Return each line once, as an open path: edges that an earlier one has gone along already are left out."""
    cubics = Cubics.of(outline)
    seen: set[tuple[float, ...]] = set()
    verbs: list[str] = []
    points: list[Points] = []
    last: Points | None = None
    for curve, rounded in zip(cubics.points, np.round(cubics.points, PLACES), strict=True):
        there, back = tuple(rounded.ravel().tolist()), tuple(rounded[::-1].ravel().tolist())
        if there in seen or there[:2] == there[-2:]:
            last = None
            continue
        seen |= {there, back}
        if last is None or np.abs(last - curve[0]).max() > SAME:
            verbs.append("M")
            points.append(curve[:1])
        bends = _bends(curve)
        verbs.append("C" if bends else "L")
        points.append(curve[1:] if bends else curve[3:])
        last = curve[3]
    return Outline("".join(verbs), np.concatenate(points)) if points else Outline.empty()


def _bends(curve: Points) -> bool:
    straight = np.stack([curve[0] + (curve[3] - curve[0]) * share for share in (1 / 3, 2 / 3)])
    return bool(np.abs(curve[1:3] - straight).max() > SAME)
