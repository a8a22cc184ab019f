"""Forms of the order slip come in, entries documents of the core go out."""

from django.http import QueryDict

from yenzo.apps.designs.answers import meant_of_form, taken_of_form
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.to_core import Uploads
from yenzo.apps.pages.numbers import whole_number
from yenzo.apps.slip.controls import control_of
from yenzo.apps.slip.hands import hands_of_form
from yenzo.core.documents.axes import variant_at
from yenzo.core.documents.entries import Entries, Files
from yenzo.core.documents.own_items import item_id
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.wording import language_read
from yenzo.core.translation import current_language


def entries_of_form(setup: Setup, form: QueryDict, uploads: Uploads) -> Entries:
    """Return the entries that a slip was sent with. Nothing in it is trusted; whatever is typed is kept."""
    form = _with_suggestions(form)
    sent = ((field.key, control_of(field).sent(field, form)) for field in setup.fields)
    values = {key: value for key, value in sent if value is not None}
    files: dict[str, Files] = {key: _files(sent) for key, sent in uploads.items()}
    hands = hands_of_form(form)
    return Entries(
        values=values,
        uploads=files,
        adjustments=hands.adjustments,
        items=hands.items,
        meant=meant_of_form(setup, form),
        variant=_variant(setup, form),
        pieces=_pieces(form.get("pieces", "1")),
        language=language_read(setup, current_language()),
    )


def _with_suggestions(form: QueryDict) -> QueryDict:
    """Return a form as if the suggestions that were taken had been typed."""
    if "takes" not in form:
        return form
    typed = form.copy()
    for field, item, text in taken_of_form(form):
        typed[f"own-{item_id(field, item)}" if item else f"entry-{field}"] = text
    return typed


def _variant(setup: Setup, form: QueryDict) -> str | None:
    """Return the variant that is picked, by itself or along its axes."""
    offer, sent = setup.offer, setup.offer.variant(form.get("variant"))
    wanted = {axis.key: form.get(f"axis-{axis.key}", "") for axis in offer.axes}
    if not any(wanted.values()):
        return sent.key if sent else None
    found = variant_at(offer.variants, wanted, sent)
    return found.key if found else None


def _files(sent: tuple[Upload, ...]) -> Files:
    return sent[0].for_entries if len(sent) == 1 else tuple(one.for_entries for one in sent)


def _pieces(sent: str) -> int:
    number = whole_number(sent)
    return 1 if number is None else min(max(number, 1), 10_000)
