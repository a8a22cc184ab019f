"""Work in pieces: outlines of very many contours come in; what they cover together goes out, worked on bit by bit.

Curves become straight edges (within 4 µm), and neighbours only are worked on together (GEOS): what Skia's operations,
which keep curves, would take minutes for takes milliseconds here.
"""

from typing import Literal

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.flattening import Geometries, covered_by, flattened, outline_from, signed_rings
from yenzo.core.shapes.outline import Outline

# Points are put on a grid of this, in mm (10 nm): so GEOS's overlays never fail (snap rounding).
GRID = 1e-5


def covered_parts(outline: Outline) -> list[BaseGeometry]:
    """Return what an outline covers (nonzero) as polygons that don't overlap."""
    solids = [solid for solid in _solids(outline) if not solid.is_empty]
    return [part for part in shapely.get_parts(shapely.union_all(solids, grid_size=GRID)) if part.area > 0]


def united(outline: Outline) -> Outline:
    """Return what an outline covers, without overlaps."""
    return outline_from(shapely.MultiPolygon(covered_parts(outline)))


def combined(first: Outline, second: Outline, how: Literal["both", "first_only"]) -> Outline:
    """Return what both outlines cover, or what the first one does and the second doesn't."""
    ours, theirs = (np.array(covered_parts(outline), dtype=object) for outline in (first, second))
    if not len(ours) or not len(theirs):
        return outline_from(shapely.MultiPolygon(list(ours))) if how == "first_only" else Outline.empty()
    at, other = shapely.STRtree(theirs).query(ours, predicate="intersects")
    if how == "both":
        made: Geometries = shapely.intersection(ours[at], theirs[other], grid_size=GRID)
    else:
        made = ours.copy()
        for index in np.unique(at):
            taken = shapely.union_all(theirs[other[at == index]], grid_size=GRID)
            made[index] = shapely.difference(ours[index], taken, grid_size=GRID)
    parts = [part for part in shapely.get_parts(made) if part.geom_type == "Polygon" and part.area > 0]
    return outline_from(shapely.MultiPolygon(parts))


def cut_to(tiles: Geometries, outline: Outline) -> Outline:
    """Return those parts of tiles, polygons that don't overlap, that lie within an outline."""
    parts = np.array(covered_parts(outline), dtype=object)
    if not len(parts):
        return Outline.empty()
    at, other = shapely.STRtree(parts).query(tiles, predicate="intersects")
    made = shapely.get_parts(shapely.intersection(tiles[at], parts[other], grid_size=GRID))
    return outline_from(shapely.MultiPolygon([one for one in made if one.geom_type == "Polygon" and one.area > 0]))


def _solids(outline: Outline) -> list[BaseGeometry]:
    """Return each contour that adds ink as a polygon, without the holes that lie in it.

    A hole is a contour that runs the other way round; it belongs to the smallest one around it.
    """
    rings = [ring for ring in flattened(outline) if len(ring) > 2]
    if not rings:
        return []
    lines, turns = signed_rings(rings)
    polygons = shapely.polygons(lines)
    for index in np.flatnonzero(~shapely.is_valid(polygons)):
        # A contour that crosses itself is asked what it covers.
        ring = rings[index]
        polygons[index] = covered_by(Outline("M" + "L" * (len(ring) - 1) + "Z", ring.copy()))
    areas = shapely.area(polygons)
    way = np.sign(turns[np.argmax(areas)])
    solid, hole = np.flatnonzero(turns * way > 0), np.flatnonzero(turns * way < 0)
    taken: dict[int, list[int]] = {}
    at, around = shapely.STRtree(polygons[solid]).query(polygons[hole], predicate="covered_by")
    for index in np.unique(at):
        owners = solid[around[at == index]]
        taken.setdefault(int(owners[np.argmin(areas[owners])]), []).append(int(hole[index]))
    return [
        shapely.difference(polygons[index], shapely.union_all(polygons[taken[index]], grid_size=GRID), grid_size=GRID)
        if index in taken
        else polygons[index]
        for index in solid.tolist()
    ]
