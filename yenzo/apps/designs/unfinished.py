"""A slip's form as it stands: what a browser sent comes in; what is kept of it, and the files it waits for, go out."""

import uuid
from collections.abc import Mapping

from django.http import HttpRequest, QueryDict

from yenzo.apps.designs.models import Design, UnfinishedEntries, Upload
from yenzo.apps.designs.receiving import received, refuse_too_often
from yenzo.apps.designs.to_core import MOST_NAMED, Uploads, as_uuid
from yenzo.apps.products.models import Product
from yenzo.core.artwork.facts import Preparation
from yenzo.core.documents.fields import ArtworkField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import ArtworkError

KEPT_BEGINNINGS = ("entry-", "own-", "axis-", "upload-", "waits-")
KEPT_NAMES = {"variant", "pieces", "page", "go", "hands", "gestures", "means", "takes"}
MOST_KEPT_CHARACTERS = 100_000


def kept_form(form: QueryDict) -> str:
    """Return what is kept of a form: what customers enter, not what the page carries along; as browsers encode it.

    Empty if that is more than is kept of anybody.
    """
    kept = QueryDict(mutable=True)
    for name, values in form.lists():
        if name in KEPT_NAMES or name.startswith(KEPT_BEGINNINGS):
            kept.setlist(name, values)
    encoded = kept.urlencode()
    return encoded if len(encoded) <= MOST_KEPT_CHARACTERS else ""


def unfinished_form(visitor: uuid.UUID | None, product: Product, design: Design | None) -> QueryDict | None:
    """Return the form as a visitor left it, of a piece that is begun or of one in the basket that is changed."""
    if visitor is None:
        return None
    kept = UnfinishedEntries.objects.filter(visitor=visitor, product=product, design=design).first()
    return QueryDict(kept.form) if kept else None


def with_arrived(setup: Setup, form: QueryDict, visitor: uuid.UUID | None) -> tuple[QueryDict, Uploads]:
    """Return a form in which files that it waited for stand as uploads; by field, those still to be looked at.

    Files that were refused meanwhile are among these, to be told once; the form waits for them no longer.
    """
    fields = [field for field in setup.fields if isinstance(field, ArtworkField | OwnItemsField)]
    waits = {
        field.key: [pk for sent in form.getlist(f"waits-{field.key}")[:MOST_NAMED] if (pk := as_uuid(sent))]
        for field in fields
    }
    wanted = {pk for keys in waits.values() for pk in keys}
    if not wanted or visitor is None:
        return form, {}
    own = Upload.objects.of_visitor(visitor).in_bulk(wanted)
    form, pending = form.copy(), {}
    for field in fields:
        sent = [own[pk] for pk in waits[field.key] if pk in own]
        ready = [str(one.pk) for one in sent if one.state == Upload.State.READY]
        if ready:
            before = form.getlist(f"upload-{field.key}") if field.most_files > 1 else []
            form.setlist(f"upload-{field.key}", [*before, *ready])
        form.setlist(f"waits-{field.key}", [str(one.pk) for one in sent if one.state == Upload.State.WAITING])
        pending[field.key] = tuple(one for one in sent if one.state != Upload.State.READY)
    return form, {key: uploads for key, uploads in pending.items() if uploads}


def is_waiting(pending: Mapping[str, tuple[Upload, ...]]) -> bool:
    """Tell whether any file is still to be looked at."""
    return any(one.state == Upload.State.WAITING for uploads in pending.values() for one in uploads)


def receive_sent_files(request: HttpRequest, setup: Setup) -> tuple[QueryDict, list[str]]:
    """Receive the files that came with a form, as from browsers without scripts.

    Return the form, which waits for them to be looked at, and in words what was refused at sight.
    """
    form, refusals = request.POST.copy(), []
    for field in setup.fields:
        if not isinstance(field, ArtworkField | OwnItemsField):
            continue
        for sent in request.FILES.getlist(f"file-{field.key}")[: field.most_files]:
            try:
                refuse_too_often(request, sent.name or "file")
                upload = received(request, sent, wanted=Preparation(one_color=field.one_color), kinds=field.kinds)
                form.appendlist(f"waits-{field.key}", str(upload.pk))
            except ArtworkError as error:
                refusals.append(f"{field.label}: {error.message}")
    return form, refusals
