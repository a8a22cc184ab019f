"""Pictures of whole sides for lists, mails and pages: a side of a scene comes in, a PNG goes out."""

from django.core.cache import cache
from django.http import HttpResponse, HttpResponseBase, HttpResponseRedirect
from django.templatetags.static import static

from yenzo.apps.designs.options import picture_address
from yenzo.core.documents.assets import Assets
from yenzo.core.measure import MM_PER_INCH
from yenzo.core.render.page import side_page
from yenzo.core.render.png import render_png
from yenzo.core.scene.nodes import SideScene
from yenzo.core.spine import Walked

WIDTH_PX, MOST_HEIGHT_PX = 720, 720
KEPT_SECONDS = 3600


def first_picture(walked: Walked, assets: Assets) -> HttpResponseBase:
    """Answer with what shows a piece in a list: its first side, else the goods' own picture, else an order slip."""
    if walked.scene.sides:
        return HttpResponse(side_picture(walked.scene.sides[0], assets), content_type="image/png")
    picture = walked.setup.offer.picture
    return HttpResponseRedirect(picture_address(picture.asset) if picture else static("slip.svg"))


def side_picture(side: SideScene, assets: Assets) -> bytes:
    """Return the side with its goods as a PNG of at most 720 x 720 pixels, kept for a while by its digest."""
    name = f"side-{side.digest}"
    kept: bytes | None = cache.get(name)
    if kept is None:
        dpi = min(WIDTH_PX / side.width_mm, MOST_HEIGHT_PX / side.height_mm) * MM_PER_INCH
        kept = render_png(side_page(side, with_goods=True), assets, dpi)
        cache.set(name, kept, KEPT_SECONDS)
    return kept
