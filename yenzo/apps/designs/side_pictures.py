"""Pictures of whole sides for lists, mails and pages: a side of a scene comes in, a PNG goes out."""

from collections.abc import Callable
from contextlib import suppress

from django.core.cache import cache, caches
from django.http import HttpResponse, HttpResponseBase, HttpResponseRedirect
from django.templatetags.static import static

from yenzo.apps.designs.picture_addresses import MIDDLE, picture_address
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.setup import Setup
from yenzo.core.measure import MM_PER_INCH
from yenzo.core.render.page import side_page
from yenzo.core.render.png import render_png
from yenzo.core.render.smaller import SmallerAssets, smaller
from yenzo.core.scene.nodes import SideScene

WIDTH_PX, MOST_HEIGHT_PX = 720, 720
KEPT_SECONDS = 3600


def list_picture(
    setup: Setup, digest: str | None, draw: Callable[[], bytes], width_px: int = WIDTH_PX
) -> HttpResponseBase:
    """Answer with what shows a piece in a list: its first side (drawn where its digest isn't known here yet).

    Goods without sides are shown by their own picture, or by an order slip.
    """
    if digest is not None:
        shown = screen_picture(f"{digest}-{width_px}", draw, width_px)
        return HttpResponse(shown, content_type="image/webp")
    picture = setup.offer.picture
    return HttpResponseRedirect(picture_address(picture.asset, MIDDLE) if picture else static("slip.svg"))


def screen_picture(name: str, read: Callable[[], bytes], width_px: int) -> bytes:
    """Return a picture as a WebP of at most this width, kept under a name that tells its content; drawings as read."""
    kept: bytes | None = None
    # What can't be kept, for a full disk, is made again the next time.
    with suppress(OSError):
        kept = caches["pictures"].get(name)
    if kept is None:
        data = read()
        kept = data if data.startswith(b"<svg") else smaller(data, name, width_px)
        with suppress(OSError):
            caches["pictures"].set(name, kept)
    return kept


def small_picture(side: SideScene, assets: Assets, width_px: int) -> bytes:
    """Return the side with its goods as a small PNG, as many of which are shown together; its pictures are smaller."""
    dpi = width_px / side.width_mm * MM_PER_INCH
    return render_png(side_page(side, with_goods=True), SmallerAssets(assets, 2 * width_px), dpi)


def side_picture(side: SideScene, assets: Assets) -> bytes:
    """Return the side with its goods as a PNG of at most 720 x 720 pixels, kept for a while by its digest."""
    name = f"side-{side.digest}"
    kept: bytes | None = cache.get(name)
    if kept is None:
        dpi = min(WIDTH_PX / side.width_mm, MOST_HEIGHT_PX / side.height_mm) * MM_PER_INCH
        kept = render_png(side_page(side, with_goods=True), assets, dpi)
        cache.set(name, kept, KEPT_SECONDS)
    return kept
