"""Which files production points to."""

from collections.abc import Iterator

from yenzo.apps.files.interface import hold_files
from yenzo.apps.production.models import Pack


def _hashes() -> Iterator[str]:
    yield from Pack.objects.exclude(file=None).values_list("file_id", flat=True)


def register() -> None:
    """Say so."""
    hold_files("packs", _hashes)
