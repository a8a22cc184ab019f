"""Which files the history points to: what was before a change may come back."""

from collections.abc import Iterator

from yenzo.apps.files.interface import hashes_in, register_references
from yenzo.apps.history.models import SharedChange


def _hashes() -> Iterator[str]:
    yield from hashes_in(SharedChange, "before", "after")


def register() -> None:
    """Say so."""
    register_references("shared history", _hashes)
