"""Taking a customer's file, and making it anew as the customer wants it."""

import tempfile
import uuid
from pathlib import Path

from django.conf import settings
from django.db import transaction
from django.shortcuts import get_object_or_404

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.models import Upload
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import StoredAssets, store_file
from yenzo.core.artwork.facts import ArtworkLimits, Preparation, PreparedArtwork
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.documents.values import clean_text

ANYBODY = tuple(role for role in ALL_ROLES if role != SYSTEM)


@service(*ANYBODY)
def take_upload(
    actor: Actor,  # noqa: ARG001 - anybody may
    path: Path,
    name: str,
    *,
    visitor: uuid.UUID,
    wanted: Preparation | None = None,
) -> Upload:
    """Keep a file as received, with what was made from it as wanted; raises ArtworkError when it is refused."""
    shown_name = clean_text(name).replace("\n", " ").strip()[-120:] or "file"
    made = _inspected(path, shown_name, wanted)
    with transaction.atomic():
        return _insert(made, wanted, visitor, shown_name, store_file(path.read_bytes()))


@service(*ANYBODY)
def prepare_upload(actor: Actor, upload_id: uuid.UUID, *, visitor: uuid.UUID, wanted: Preparation) -> Upload:  # noqa: ARG001
    """Make a visitor's file anew as wanted, beside what was made before; raises ArtworkError."""
    upload = get_object_or_404(Upload.objects.of_visitor(visitor), pk=upload_id)
    with tempfile.NamedTemporaryFile(prefix="original-") as copy:
        copy.write(StoredAssets().read(upload.original_id))
        copy.flush()
        made = _inspected(Path(copy.name), upload.name, wanted)
    with transaction.atomic():
        return _insert(made, wanted, visitor, upload.name, upload.original)


def _inspected(path: Path, name: str, wanted: Preparation | None) -> PreparedArtwork:
    return inspect_artwork(path, name, ArtworkLimits(most_bytes=settings.MOST_UPLOAD_BYTES), wanted)


def _insert(
    made: PreparedArtwork, wanted: Preparation | None, visitor: uuid.UUID, name: str, original: StoredFile
) -> Upload:
    facts = made.facts
    return Upload.objects.create(
        visitor=visitor,
        name=name,
        kind=facts.kind,
        form=facts.form,
        pages=facts.pages,
        see_through=facts.see_through,
        wishes=list(facts.wishes),
        preparation=(wanted or Preparation()).model_dump(),
        width_px=facts.width_px,
        height_px=facts.height_px,
        notes=list(facts.notes),
        original=original,
        prepared=store_file(made.prepared),
        shown=store_file(made.shown),
    )
