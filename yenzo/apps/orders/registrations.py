"""Which files orders point to beside what their pieces do."""

from collections.abc import Iterator

from yenzo.apps.files.interface import register_references
from yenzo.apps.orders.models import OrderNote


def _hashes() -> Iterator[str]:
    yield from OrderNote.objects.exclude(file=None).values_list("file_id", flat=True)


def register() -> None:
    """Say so."""
    register_references("messages about orders", _hashes)
