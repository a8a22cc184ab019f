"""A file that arrives part by part: begun or gone on with, added to, and taken as an upload once all of it is here."""

import os
import uuid
from dataclasses import dataclass

from django.conf import settings
from django.db import transaction
from django.db.models import Sum
from django.shortcuts import get_object_or_404
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import Actor, service
from yenzo.apps.designs.models import ArrivingFile
from yenzo.apps.designs.services.uploads import ANYBODY, name_shown, receive_upload, refuse_too_many
from yenzo.core.artwork.facts import Preparation
from yenzo.core.artwork.identify import too_many_bytes
from yenzo.core.errors import ArtworkError


@dataclass(frozen=True)
class SentFile:
    """A file as its browser names it: `key` is of this sending, the rest tells it when it is picked anew."""

    key: uuid.UUID
    name: str
    size_bytes: int
    modified: int


def arriving_file(visitor: uuid.UUID, sent: SentFile) -> ArrivingFile | None:
    """Return what is here of a file: by this sending of it, else what an earlier one left unfinished."""
    own = ArrivingFile.objects.filter(visitor=visitor)
    known = own.filter(key=sent.key).first()
    return (
        known
        or own.filter(upload=None, name=sent.name, size_bytes=sent.size_bytes, modified=sent.modified)
        .order_by("-changed_at")
        .first()
    )


@service(*ANYBODY)
def begin_file(actor: Actor, visitor: uuid.UUID, sent: SentFile) -> ArrivingFile:  # noqa: ARG001 - anybody may
    """Begin to receive a file; raises ArtworkError for what there is no room for."""
    name = name_shown(sent.name)
    if sent.size_bytes > settings.MOST_UPLOAD_BYTES:
        raise too_many_bytes(name, sent.size_bytes, settings.MOST_UPLOAD_BYTES)
    begun = ArrivingFile.objects.filter(visitor=visitor, upload=None)
    if begun.count() >= settings.MOST_WAITING_UPLOADS:
        why = gettext("Several of your files have arrived in part only. Please wait a day, or send them to the end.")
        raise ArtworkError("too_many_waiting", name, why)
    refuse_too_many(visitor, sent.size_bytes + (begun.aggregate(bytes=Sum("size_bytes"))["bytes"] or 0), name)
    return ArrivingFile.objects.create(
        visitor=visitor, key=sent.key, name=sent.name, size_bytes=sent.size_bytes, modified=sent.modified
    )


@service(*ANYBODY)
def add_part(actor: Actor, visitor: uuid.UUID, file_id: uuid.UUID, *, at: int, part: bytes) -> ArrivingFile:  # noqa: ARG001
    """Add a part that begins `at` so many bytes; one that doesn't follow what is here changes nothing."""
    with transaction.atomic():
        arriving = _held(visitor, file_id)
        if at == arriving.received_bytes and arriving.upload_id is None:
            if at + len(part) > arriving.size_bytes:
                raise ArtworkError("longer", arriving.name, gettext("The file has changed. Please pick it again."))
            _write(arriving, part)
            arriving.received_bytes += len(part)
            arriving.save(update_fields=["received_bytes", "changed_at"])
    return arriving


@service(*ANYBODY)
def take_file(
    actor: Actor, visitor: uuid.UUID, file_id: uuid.UUID, *, wanted: Preparation, kinds: tuple[str, ...]
) -> ArrivingFile:
    """Take a file that is all here as an upload, once; raises ArtworkError for what is refused at sight."""
    with transaction.atomic():
        arriving = _held(visitor, file_id)
        if arriving.is_complete and arriving.upload_id is None:
            arriving.upload = receive_upload(
                actor, arriving.path, arriving.name, visitor=visitor, wanted=wanted, kinds=kinds
            )
            arriving.save(update_fields=["upload", "changed_at"])
            transaction.on_commit(lambda: arriving.path.unlink(missing_ok=True))
    return arriving


def _held(visitor: uuid.UUID, file_id: uuid.UUID) -> ArrivingFile:
    """Return a file that arrives, for one request at a time; what its row says is here lies in its path."""
    arriving = get_object_or_404(ArrivingFile.objects.select_for_update(), visitor=visitor, pk=file_id)
    if arriving.upload_id is None:
        here = arriving.path.stat().st_size if arriving.path.exists() else 0
        # The parts were cleared, or a disk forgot them: it begins anew.
        arriving.received_bytes = arriving.received_bytes if here >= arriving.received_bytes else 0
    return arriving


def _write(arriving: ArrivingFile, part: bytes) -> None:
    """Write a part behind what has arrived; what a broken off request left behind that goes."""
    with arriving.path.open("ab") as stream:
        stream.truncate(arriving.received_bytes)
        stream.write(part)
        stream.flush()
        os.fsync(stream.fileno())
