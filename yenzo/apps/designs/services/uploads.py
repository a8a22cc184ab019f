"""Taking a customer's file: received at once, looked at by a worker; and made anew as the customer wants it."""

import tempfile
import uuid
from datetime import datetime
from pathlib import Path

from django.conf import settings
from django.db import transaction
from django.db.models import Sum
from django.shortcuts import get_object_or_404
from django.utils.translation import gettext
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.to_core import wanted_of
from yenzo.apps.files.disk_space import disk_space
from yenzo.apps.files.store import read_stored, store_file
from yenzo.apps.outbox.orphaned_jobs import without_job
from yenzo.core.artwork.facts import ArtworkLimits, Preparation, PreparedArtwork
from yenzo.core.artwork.inspect import inspect_artwork, refuse_at_sight
from yenzo.core.asking.invisible import REORDERING, without_invisible
from yenzo.core.documents.values import clean_line
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import current_language

ANYBODY = tuple(role for role in ALL_ROLES if role != SYSTEM)
MOST_NAME = 120
LOOKING = "designs.look_at_upload"


@service(*ANYBODY)
def receive_upload(
    actor: Actor,  # noqa: ARG001 - anybody may
    path: Path,
    name: str,
    *,
    visitor: uuid.UUID,
    wanted: Preparation | None = None,
    kinds: tuple[str, ...] = (),
) -> Upload:
    """Keep a file as received and have a worker look at it; raises ArtworkError for what is refused at sight.

    `kinds` are the ones that the field takes; all if none is named.
    """
    shown_name = name_shown(name)
    refuse_at_sight(path, shown_name, _limits().model_copy(update={"kinds": kinds}))
    refuse_too_many(visitor, path.stat().st_size, shown_name)
    with transaction.atomic():
        upload = Upload.objects.create(
            state=Upload.State.WAITING,
            visitor=visitor,
            name=shown_name,
            language=current_language(),
            preparation=(wanted or Preparation()).model_dump(),
            original=store_file(path.read_bytes()),
        )
        _hand_to_worker(upload)
    return upload


def name_shown(name: str) -> str:
    """Return a file's name as pages show it: its end, on one line, without what isn't seen."""
    seen = "".join(char for char in without_invisible(clean_line(name))[0] if char not in REORDERING)
    return seen[-MOST_NAME:] or "file"


@service(*ANYBODY)
def prepare_upload(
    actor: Actor,  # noqa: ARG001
    upload_id: uuid.UUID,
    *,
    visitor: uuid.UUID,
    wanted: Preparation,
    is_lent: bool = False,
) -> Upload:
    """Have a visitor's file, or one that is lent to them, made anew as wanted, beside what was made before."""
    theirs = Upload.objects.all() if is_lent else Upload.objects.of_visitor(visitor)
    upload = get_object_or_404(theirs.ready(), pk=upload_id)
    refuse_too_many(visitor, 0, upload.name)
    with transaction.atomic():
        anew = Upload.objects.create(
            state=Upload.State.WAITING,
            visitor=visitor,
            name=upload.name,
            language=current_language(),
            preparation=wanted.model_dump(),
            original=upload.original,
        )
        _hand_to_worker(anew)
    return anew


@service(SYSTEM)
def look_at_upload(actor: Actor, upload_id: uuid.UUID) -> Upload:  # noqa: ARG001
    """Decode a file that waits, and accept or refuse it. It is read in the language of who sent it."""
    upload = Upload.objects.select_related("original").get(pk=upload_id)
    if upload.state != Upload.State.WAITING:
        return upload
    try:
        made = _inspected(upload)
    except ArtworkError as error:
        upload.state, upload.refusal = Upload.State.REFUSED, error.message
        upload.save(update_fields=["state", "refusal"])
        return upload
    facts = made.facts
    with transaction.atomic():
        upload.state = Upload.State.READY
        upload.kind, upload.form, upload.pages = facts.kind, facts.form, facts.pages
        upload.width_px, upload.height_px, upload.see_through = facts.width_px, facts.height_px, facts.see_through
        upload.wishes, upload.notes = list(facts.wishes), list(facts.notes)
        upload.prepared, upload.shown = store_file(made.prepared), store_file(made.shown)
        upload.save()
    return upload


@service(SYSTEM)
def give_up_upload(actor: Actor, upload_id: uuid.UUID, why: str) -> None:  # noqa: ARG001
    """Refuse a file that could not be looked at for a fault of ours."""
    waiting = Upload.objects.waiting().filter(pk=upload_id)
    waiting.update(state=Upload.State.REFUSED, refusal=why)


@service(SYSTEM)
def look_after_uploads(actor: Actor, before: datetime) -> None:  # noqa: ARG001
    """Hand files to the worker that have waited since before a moment and have no job any more."""
    waiting = {str(one.pk): one for one in Upload.objects.waiting().filter(sent_at__lt=before)}
    for key in without_job(LOOKING, "upload_id", waiting):
        _hand_to_worker(waiting[key])


def _inspected(upload: Upload) -> PreparedArtwork:
    with tempfile.NamedTemporaryFile(prefix="original-") as copy:
        copy.write(read_stored(upload.original))
        copy.flush()
        wanted = wanted_of(upload)
        return inspect_artwork(Path(copy.name), upload.name, _limits(), wanted)


def _limits() -> ArtworkLimits:
    return ArtworkLimits(most_bytes=settings.MOST_UPLOAD_BYTES)


def refuse_too_many(visitor: uuid.UUID, more_bytes: int, name: str) -> None:
    """Raise ArtworkError when a visitor, or everybody together, has sent all that there is room for."""
    own = Upload.objects.filter(visitor=visitor)
    if own.waiting().count() >= settings.MOST_WAITING_UPLOADS:
        why = gettext("Several of your files are still being looked at. Please wait until they are done.")
        raise ArtworkError("too_many_waiting", name, why)
    kept = own.aggregate(bytes=Sum("original__size_bytes"))["bytes"] or 0
    if kept + more_bytes > settings.MOST_VISITOR_BYTES or own.count() >= settings.MOST_VISITOR_UPLOADS:
        why = gettext("You have sent as many files as can be kept for you. Please order, or tell the workshop.")
        raise ArtworkError("too_many_files", name, why)
    if more_bytes and not disk_space().takes_more:
        why = gettext("The workshop has no room for more files just now. Please try again later, or tell it.")
        raise ArtworkError("no_room", name, why)


def _hand_to_worker(upload: Upload) -> None:
    # One file of a visitor after another, and whoever has fewer waiting comes first: many files of one visitor don't
    # hold up another's only one.
    waiting = Upload.objects.waiting().filter(visitor=upload.visitor).count()
    task = app.configure_task(LOOKING, lock=f"uploads-{upload.visitor}", priority=-waiting)
    task.defer(upload_id=str(upload.pk))
