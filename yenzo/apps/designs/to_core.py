"""Forms and rows of designs come in, entries documents of the core go out."""

import uuid
from collections.abc import Iterable

from django.http import QueryDict
from pydantic import TypeAdapter

from yenzo.apps.designs.models import NameRow, Personalization, Upload
from yenzo.apps.designs.request_context import request_context
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.models import Revision
from yenzo.apps.products.to_core import shop_setup
from yenzo.core.artwork.facts import Preparation
from yenzo.core.asking.ask import Asked
from yenzo.core.documents.entries import Entries, Meant, files_of
from yenzo.core.documents.reading import read_entries
from yenzo.core.documents.setup import Setup
from yenzo.core.evaluation import Evaluation, evaluate
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.record import Record

MOST_NAMED = 200
AMOUNTS = TypeAdapter(Amounts)
# What is asked about a row as a whole is kept under this.
ROW = "@row"
# By field; of most fields there is one.
Uploads = dict[str, tuple[Upload, ...]]


def entries_of(personalization: Personalization) -> Entries:
    """Return the entries of a personalization; those of orders of before were not kept."""
    assert personalization.entries is not None
    return read_entries(personalization.entries)


def asked_of(personalization: Personalization) -> Asked:
    """Return what was asked of a personalization when it was kept."""
    return Asked.model_validate(personalization.asked)


def record_kept(personalization: Personalization) -> Record | None:
    """Return what followed from a personalization when it was kept, or None if it is from before that was kept."""
    return None if personalization.record is None else Record.model_validate(personalization.record)


def amounts_of(personalization: Personalization) -> Amounts:
    """Return what a personalization that has a record puts on the goods: all that its price is worked out from."""
    assert personalization.record is not None
    return AMOUNTS.validate_python(personalization.record["amounts"])


def meant_of(row: NameRow) -> dict[str, tuple[Meant, ...]]:
    """Return by field the answers to questions about a row of a list."""
    return {
        field: tuple(Meant.model_validate(one) for one in answers)
        for field, answers in row.meant.items()
        if field != ROW
    }


def wanted_of(upload: Upload) -> Preparation:
    """Return how a file was wanted to be prepared."""
    return Preparation.model_validate(upload.preparation)


def uploads_of_form(setup: Setup, form: QueryDict, visitor: uuid.UUID | None, also: Iterable[Upload] = ()) -> Uploads:
    """Return the uploads that a slip names, by field. Only the visitor's own are found: never a bare hash.

    Those that a piece has already (`also`) may be anybody's.
    """
    named = {
        field.key: [pk for sent in form.getlist(f"upload-{field.key}")[:MOST_NAMED] if (pk := as_uuid(sent))]
        for field in setup.fields
        if field.takes_files
    }
    wanted = {pk for keys in named.values() for pk in keys}
    own = {one.pk: one for one in also}
    if wanted - own.keys() and visitor is not None:
        own |= Upload.objects.of_visitor(visitor).ready().in_bulk(wanted)
    found = {key: tuple(own[pk] for pk in dict.fromkeys(keys) if pk in own) for key, keys in named.items()}
    return {key: uploads for key, uploads in found.items() if uploads}


def as_uuid(sent: str) -> uuid.UUID | None:
    """Return what was sent as an id, or None if it is none."""
    try:
        return uuid.UUID(sent)
    except ValueError:
        return None


def uploads_of_entries(entries: Entries, uploads: Iterable[Upload]) -> Uploads:
    """Return by field which of a design's uploads its entries use."""
    by_content = {(upload.original_id, upload.prepared_id, upload.name): upload for upload in uploads}
    named = {
        key: tuple((file.original, file.prepared, file.name) for file in files_of(value))
        for key, value in entries.uploads.items()
    }
    found = {key: tuple(by_content[name] for name in names if name in by_content) for key, names in named.items()}
    return {key: own for key, own in found.items() if own}


def evaluate_entries(revision: Revision, entries: Entries, *, signed_in: bool = False) -> Evaluation:
    """Return what follows now from entries for a revision."""
    setup = shop_setup(revision)
    return evaluate(setup, entries, StoredAssets(), request_context([setup], signed_in=signed_in))
