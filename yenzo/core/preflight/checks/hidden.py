"""What nobody would see: artwork that lies beside its area, and texts that lie under a picture."""

from collections.abc import Iterator

import shapely

from yenzo.core.documents.materials import Method
from yenzo.core.preflight.findings import Finding, found
from yenzo.core.scene.nodes import AreaScene, Lettering, PlacedDrawing, PlacedPicture
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.polygons import polygon_of
from yenzo.core.translation import translate

# Of a text that shows less than this share nobody reads it; of artwork this share is none.
READ_SHARE, SHOWN_SHARE = 0.5, 0.005


def find_nothing_shown(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for each picture and drawing of which nothing lies in its area."""
    artworks: list[PlacedPicture | PlacedDrawing] = [*area.pictures, *area.drawings]
    if area.area.is_frame:
        # Most lie inside.
        artworks = [node for node in artworks if node.bounds.excess_over(area.trim)]
    if not artworks:
        return
    trim = polygon_of(area.trim_outline)
    for node in artworks:
        whole = _square(node.matrix if isinstance(node, PlacedPicture) else node.whole)
        if shapely.intersection(whole, trim).area < SHOWN_SHARE * min(whole.area, trim.area):
            message = translate(
                "Nothing of “{name}” would be made: it lies beside “{area}”. Please move it back or leave it out.",
                name=node.name,
                area=area.name,
            )
            yield found("prints_nothing", area, node, message)


def find_under_pictures(area: AreaScene, _method: Method) -> Iterator[Finding]:
    """Yield a finding for each text or drawing that a picture lies over, without see-through parts."""
    for at, node in enumerate(area.nodes):
        ink = node.bounds
        if isinstance(node, PlacedPicture) or ink is None or (isinstance(node, Lettering) and node.may_overlap):
            continue
        above = [one for one in area.nodes[at + 1 :] if isinstance(one, PlacedPicture) and not one.see_through]
        box = shapely.box(*ink)
        for picture in above:
            if box.area and shapely.intersection(_square(picture.matrix), box).area > (1 - READ_SHARE) * box.area:
                message = translate(
                    "“{text}” lies under “{name}” on “{area}”, so that it can't be read. Please move one of them.",
                    text=node.name if isinstance(node, PlacedDrawing) else node.text,
                    name=picture.name,
                    area=area.name,
                )
                yield found("hidden", area, node, message)
                break


def _square(matrix: Matrix) -> shapely.Polygon:
    """Return the unit square under an affine map."""
    return shapely.Polygon([matrix.apply(x, y) for x, y in ((0, 0), (1, 0), (1, 1), (0, 1))])
