"""Union, difference and intersection of outlines; curves stay curves (Skia's path operations).

Skia counts in single precision, so it works on hundredths of a millimetre; results are exact to about a micrometre for
pieces up to a metre. Where it gives up, polygons within 4 µm take over.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

import numpy as np
import pathops
import shapely

from yenzo.core.errors import ShapeError
from yenzo.core.shapes.flattening import covered_by, flattened, outline_from
from yenzo.core.shapes.outline import Outline, Points, contours_of
from yenzo.core.shapes.overlay import combined, united

UNITS_PER_MM = 100.0
TANGLED_WORDS = "These outlines run through each other far too often to be made."
# In units: a hundredth of a micrometre would be noise, a micrometre can't be seen.
CONIC_TOLERANCE = 0.05
# Outlines of fewer points are quick however they cross; what has more than the most points is worked on in pieces. What
# hangs together in texts that can be read crosses itself some dozen times, and a few times for each letter.
SURELY_PLAIN, MOST_POINTS, MOST_CROSSINGS, CROSSINGS_EACH, TANGLE_FLATNESS_MM = 600, 5000, 150, 8, 0.1


def union(outlines: Iterable[Outline]) -> Outline:
    """Return what any of the outlines covers (nonzero), without overlaps."""
    return Outline.joined(_simplified(group) for group in _apart(Outline.joined(outlines)))


def _simplified(outline: Outline) -> Outline:
    _refuse_tangles(outline)
    if len(outline.points) > MOST_POINTS:
        return united(outline)
    path = _to_path(outline)
    try:
        path.simplify(fix_winding=True, keep_starting_points=False)
    except pathops.PathOpsError:
        return outline_from(covered_by(outline))
    return _from_path(path)


def _refuse_tangles(outline: Outline) -> None:
    """Raise ShapeError for contours that cross each other so often that working on them would take minutes."""
    if _is_tangled(outline):
        raise ShapeError("tangled", "outline", TANGLED_WORDS)


def _is_tangled(outline: Outline) -> bool:
    """Tell whether contours cross each other so often that work on their curves would take minutes."""
    if len(outline.points) < SURELY_PLAIN:
        return False
    rings = flattened(outline, TANGLE_FLATNESS_MM)
    starts = np.concatenate(rings)
    ends = np.concatenate([np.roll(ring, -1, axis=0) for ring in rings])
    edges = shapely.linestrings(np.stack([starts, ends], axis=1))
    pairs = shapely.STRtree(edges).query(edges, predicate="crosses")
    return bool(pairs.shape[1] > 2 * max(MOST_CROSSINGS, CROSSINGS_EACH * len(rings)))


def _apart(outline: Outline) -> Iterator[Outline]:
    """Yield groups of contours that can't touch each other: each is worked on by itself, which keeps texts fast."""
    contours = list(contours_of(outline))
    if len(contours) < 2:
        yield from contours
        return
    corners = np.array([(*part.points.min(axis=0), *part.points.max(axis=0)) for part in contours])
    boxes = shapely.box(*corners.T)
    group = list(range(len(contours)))

    def leader(index: int) -> int:
        """Return the contour that stands for a contour's group, and shorten the way to it."""
        while group[index] != index:
            group[index] = group[group[index]]
            index = group[index]
        return index

    for first, second in shapely.STRtree(boxes).query(boxes, predicate="intersects").T.tolist():
        group[leader(first)] = leader(second)
    together: dict[int, list[Outline]] = {}
    for index, contour in enumerate(contours):
        together.setdefault(leader(index), []).append(contour)
    for parts in together.values():
        yield Outline.joined(parts)


def difference(outline: Outline, taken_away: Outline) -> Outline:
    """Return what the first outline covers and the second doesn't."""
    return _operation(outline, taken_away, pathops.PathOp.DIFFERENCE)


def intersection(first: Outline, second: Outline) -> Outline:
    """Return what both outlines cover."""
    return _operation(first, second, pathops.PathOp.INTERSECTION)


def _operation(first: Outline, second: Outline, operation: pathops.PathOp) -> Outline:
    if not first or not second:
        return first if operation == pathops.PathOp.DIFFERENCE else Outline.empty()
    _refuse_tangles(first)
    _refuse_tangles(second)
    if max(len(first.points), len(second.points)) > MOST_POINTS:
        return combined(first, second, "first_only" if operation == pathops.PathOp.DIFFERENCE else "both")
    try:
        path = pathops.op(_to_path(first), _to_path(second), operation, fix_winding=True, keep_starting_points=False)
    except pathops.PathOpsError:
        one, two = covered_by(first), covered_by(second)
        return outline_from(one - two if operation == pathops.PathOp.DIFFERENCE else one & two)
    return _from_path(path)


def _to_path(outline: Outline) -> pathops.Path:
    path = pathops.Path()
    scaled = outline.points * UNITS_PER_MM
    flat = Outline(outline.verbs, scaled)
    draw = {"M": path.moveTo, "L": path.lineTo, "C": path.cubicTo}
    for verb, numbers in flat.steps():
        if verb == "Z":
            path.close()
        else:
            draw[verb](*numbers)
    return path


def _from_path(path: pathops.Path) -> Outline:
    path.convertConicsToQuads(CONIC_TOLERANCE)
    verbs: list[str] = []
    points: list[tuple[float, float]] = []
    for verb, coordinates in path:
        match verb:
            case pathops.PathVerb.MOVE | pathops.PathVerb.LINE | pathops.PathVerb.CUBIC:
                verbs.append({1: "L", 3: "C"}[len(coordinates)] if verb != pathops.PathVerb.MOVE else "M")
                points.extend(coordinates)
            case pathops.PathVerb.QUAD:
                (cx, cy), (x, y) = coordinates
                x0, y0 = points[-1]
                verbs.append("C")
                points += [(x0 + (cx - x0) * 2 / 3, y0 + (cy - y0) * 2 / 3)]
                points += [(x + (cx - x) * 2 / 3, y + (cy - y) * 2 / 3), (x, y)]
            case pathops.PathVerb.CLOSE:
                verbs.append("Z")
    return Outline("".join(verbs), np.array(points, dtype=np.float64).reshape(-1, 2) / UNITS_PER_MM)


def even_odd(outline: Outline) -> Outline:
    """Return what an outline covers when every second layer of it is a hole, as an outline that is filled nonzero."""
    _refuse_tangles(outline)
    if len(outline.points) > MOST_POINTS:
        raise ShapeError("tangled", "outline", TANGLED_WORDS)
    path = _to_path(outline)
    path.fillType = pathops.FillType.EVEN_ODD
    try:
        path.simplify(fix_winding=True, keep_starting_points=False)
    except pathops.PathOpsError as error:
        raise ShapeError("tangled", "outline", TANGLED_WORDS) from error
    return _from_path(path)


@dataclass(frozen=True)
class Pen:
    """How a line is drawn: width and miter in the outline's units, ends and joins by their SVG names."""

    width: float
    cap: str = "butt"
    join: str = "miter"
    miter_limit: float = 4.0
    dashes: tuple[float, ...] = ()
    dash_offset: float = 0.0


def stroked(verbs: str, points: Points, pen: Pen) -> Outline:
    """Return what a pen covers that is drawn along contours, open ones (without Z) included."""
    lines = []
    for contour in contours_of(Outline(verbs, points.copy())):
        path = _to_path(contour)
        path.stroke(
            pen.width * UNITS_PER_MM,
            getattr(pathops.LineCap, f"{pen.cap.upper()}_CAP"),
            getattr(pathops.LineJoin, f"{pen.join.upper()}_JOIN"),
            pen.miter_limit,
            [dash * UNITS_PER_MM for dash in pen.dashes] or None,
            pen.dash_offset * UNITS_PER_MM,
        )
        lines.append(_from_path(path))
    return union(lines)
