"""Which files designs point to, and how long designs and uploads are kept that were never ordered."""

from collections.abc import Iterator
from datetime import datetime

from django.db.models import QuerySet

from yenzo.apps.designs.models import Design, Upload
from yenzo.apps.files.interface import Kept, hashes_in, hold_files, keep_for_a_while


def _hashes() -> Iterator[str]:
    for one in ("original_id", "prepared_id", "shown_id"):
        yield from Upload.objects.exclude(**{one: None}).values_list(one, flat=True).distinct()
    yield from hashes_in(Design, "entries")


def _old_designs(before: datetime) -> QuerySet[Design]:
    # What was ordered has its own record; the design was only the way there.
    return Design.objects.filter(changed_at__lt=before)


def _old_uploads(before: datetime) -> QuerySet[Upload]:
    return Upload.objects.unused().filter(sent_at__lt=before)


def register() -> None:
    """Say so."""
    hold_files("baskets and uploads", _hashes)
    keep_for_a_while(
        Kept(
            "designs",
            "Designs that nobody changed since, in baskets and out of them",
            lambda before: _old_designs(before).count(),
            lambda before: _old_designs(before).delete()[1].get("designs.Design", 0),
        ),
        Kept(
            "uploads",
            "Uploads and their prepared versions that no design and no order uses",
            lambda before: _old_uploads(before).count(),
            lambda before: _old_uploads(before).delete()[1].get("designs.Upload", 0),
        ),
    )
