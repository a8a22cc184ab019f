"""Which files production points to."""

from collections.abc import Iterator

from yenzo.apps.files.interface import register_references
from yenzo.apps.production.models import Pack, Parcel


def _hashes() -> Iterator[str]:
    yield from Parcel.objects.exclude(label=None).values_list("label_id", flat=True)
    yield from Pack.objects.exclude(file=None).values_list("file_id", flat=True)


def register() -> None:
    """Say so."""
    register_references("packs", _hashes)
