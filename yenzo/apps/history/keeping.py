"""Which files the history points to: what was before a change may come back."""

from collections.abc import Iterator

from yenzo.apps.files.interface import hashes_in, hold_files
from yenzo.apps.history.models import SharedChange


def _hashes() -> Iterator[str]:
    yield from hashes_in(SharedChange, "before", "after")


def register() -> None:
    """Say so."""
    hold_files("shared history", _hashes)
