"""The workshop's mark: a file comes in; a small picture or drawing that the shop shows is kept."""

import hashlib
import io
from datetime import timedelta
from pathlib import Path

from django.utils import timezone
from PIL import Image

from yenzo.apps.accounts.rights import Actor, service
from yenzo.apps.workshop.models import Mark, Workshop
from yenzo.apps.workshop.services.workshop import WHO
from yenzo.core.artwork.facts import ArtworkLimits, Preparation
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.render.pictures import mime_type

LIMITS = ArtworkLimits(kinds=("svg", "png", "jpeg", "webp", "pdf"), most_bytes=5_000_000)
# Twice as high as it is shown at most, and never so wide that a phone has no room for the basket beside it.
BOX_PX = (640, 160)
# Every page of the shop loads it: a drawing heavier than that is a picture.
MOST_DRAWN_BYTES = 40_000
TRIED_FOR = timedelta(days=1)


@service(*WHO)
def add_mark(actor: Actor, path: Path, name: str) -> Mark:  # noqa: ARG001 - the roles decide
    """Prepare a file as a mark and keep it beside the one in use; return it. Raises ArtworkError."""
    made = inspect_artwork(path, name, LIMITS, Preparation(trim=True))
    data = made.prepared
    if mime_type(data) == "image/svg+xml" and len(data) > MOST_DRAWN_BYTES:
        data = inspect_artwork(path, name, LIMITS, Preparation(trim=True, as_picture=True)).prepared
    size = made.facts.width_px, made.facts.height_px
    if mime_type(data) != "image/svg+xml":
        data, size = _small(data)
    now = timezone.now()
    mark, _ = Mark.objects.update_or_create(
        sha256=hashlib.sha256(data).hexdigest(),
        defaults={
            "media_type": mime_type(data),
            "width_px": size[0],
            "height_px": size[1],
            "data": data,
            "made_at": now,
        },
    )
    # What was tried out long ago and isn't used goes; somebody else may be about to keep theirs.
    used = Workshop.objects.filter(mark__isnull=False).values("mark")
    Mark.objects.filter(made_at__lt=now - TRIED_FOR).exclude(pk__in=used).delete()
    return mark


def _small(data: bytes) -> tuple[bytes, tuple[int, int]]:
    with Image.open(io.BytesIO(data)) as opened:
        picture = opened.convert("RGBA")
    picture.thumbnail(BOX_PX, Image.Resampling.LANCZOS)
    output = io.BytesIO()
    picture.save(output, "PNG", optimize=True)
    return output.getvalue(), picture.size
