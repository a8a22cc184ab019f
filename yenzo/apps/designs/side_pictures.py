"""Pictures of whole sides for lists, mails and pages: a side of a scene comes in, a PNG goes out."""

from django.core.cache import cache

from yenzo.core.documents.assets import Assets
from yenzo.core.measure import MM_PER_INCH
from yenzo.core.render.page import side_page
from yenzo.core.render.png import render_png
from yenzo.core.scene.nodes import SideScene

WIDTH_PX, MOST_HEIGHT_PX = 720, 720
KEPT_SECONDS = 3600


def side_picture(side: SideScene, assets: Assets) -> bytes:
    """Return the side with its goods as a PNG of at most 720 x 720 pixels, kept for a while by its digest."""
    name = f"side-{side.digest}"
    kept: bytes | None = cache.get(name)
    if kept is None:
        dpi = min(WIDTH_PX / side.width_mm, MOST_HEIGHT_PX / side.height_mm) * MM_PER_INCH
        kept = render_png(side_page(side, with_goods=True), assets, dpi)
        cache.set(name, kept, KEPT_SECONDS)
    return kept
