"""Taking a customer's file."""

import uuid
from pathlib import Path

from django.conf import settings
from django.db import transaction

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.catalogue.files import store_file
from yenzo.apps.designs.models import Upload
from yenzo.core.artwork.facts import ArtworkLimits
from yenzo.core.artwork.inspect import inspect_artwork
from yenzo.core.documents.values import clean_text


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def take_upload(actor: Actor, path: Path, name: str, *, visitor: uuid.UUID) -> Upload:  # noqa: ARG001 - anybody may
    """Keep a file as received, with the pictures made from it; raises ArtworkError when it is refused."""
    shown_name = clean_text(name).replace("\n", " ").strip()[-120:] or "file"
    made = inspect_artwork(path, shown_name, ArtworkLimits(most_bytes=settings.MOST_UPLOAD_BYTES))
    with transaction.atomic():
        return Upload.objects.create(
            visitor=visitor,
            name=shown_name,
            kind=made.facts.kind,
            width_px=made.facts.width_px,
            height_px=made.facts.height_px,
            notes=list(made.facts.notes),
            original=store_file(path.read_bytes()),
            prepared=store_file(made.prepared),
            shown=store_file(made.shown),
        )
