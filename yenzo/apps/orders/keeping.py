"""Which files orders point to."""

from collections.abc import Iterator

from yenzo.apps.files.interface import hashes_in, hold_files
from yenzo.apps.orders.models import Piece


def _hashes() -> Iterator[str]:
    yield from hashes_in(Piece, "asked")


def register() -> None:
    """Say so."""
    hold_files("orders", _hashes)
