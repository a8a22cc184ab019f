"""Which files the catalogue points to: published set-ups, drafts and their steps, materials and theirs."""

from collections.abc import Iterator

from yenzo.apps.catalogue.models import DraftEdit, Material, Product, Revision, RevisionFile, SharedChange
from yenzo.apps.files.interface import hashes_in, hold_files


def _hashes() -> Iterator[str]:
    yield from RevisionFile.objects.values_list("file_id", flat=True).distinct()
    yield from hashes_in(Revision, "document", "own")
    yield from hashes_in(Product, "draft")
    yield from hashes_in(DraftEdit, "operations", "back")
    yield from hashes_in(Material, "document")
    yield from hashes_in(SharedChange, "before", "after")


def register() -> None:
    """Say so."""
    hold_files("products and materials", _hashes)
