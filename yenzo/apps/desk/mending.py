"""The slip of pieces that are ordered: a request and a form come in; the slip as of when they were ordered goes out."""

import uuid
from collections import Counter
from dataclasses import dataclass

from django.http import HttpRequest, QueryDict
from django.utils import timezone

from yenzo.apps.designs.request_context import request_context
from yenzo.apps.designs.to_core import Uploads, as_uuid, asked_of, entries_of, uploads_of_entries, uploads_of_form
from yenzo.apps.designs.unfinished import is_waiting, with_arrived
from yenzo.apps.designs.visitors import known_visitor
from yenzo.apps.desk.models import Preflight
from yenzo.apps.desk.services.changes import Wanted
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.slip.hands import selected_in_form
from yenzo.apps.slip.refreshing import turn_of_form
from yenzo.apps.slip.slip import Slip, build_slip
from yenzo.apps.slip.to_core import entries_of_form
from yenzo.core.asking.ask import Context
from yenzo.core.documents.setup import Setup


@dataclass(frozen=True)
class OrderedSlip:
    """A slip of ordered pieces, the files that it names, and whether it waits for others."""

    slip: Slip
    uploads: Uploads
    is_waiting: bool = False

    def wanted(self, sent_as: uuid.UUID) -> Wanted:
        """Return what the pieces are to be by it."""
        files = tuple(one for own in self.uploads.values() for one in own)
        return Wanted(self.slip.entries, self.slip.evaluation, files, sent_as)


def ordered_slip(
    request: HttpRequest, preflight: Preflight, form: QueryDict | None = None, *, shows_missing: bool = False
) -> OrderedSlip:
    """Return the slip of pieces as they are, or as a form has them.

    It is asked as of the day that they were ordered, by its set-up of then, with the blanks that are theirs already;
    how many they are stays.
    """
    personalization = preflight.personalization
    setup, before = shop_setup(personalization.revision), entries_of(personalization)
    theirs = list(personalization.uploads.all())
    context = _context(preflight, setup)
    if form is None:
        uploads = uploads_of_entries(before, theirs)
        return OrderedSlip(build_slip(setup, before, StoredAssets(), uploads, context=context), uploads)
    form, pending = with_arrived(setup, form, known_visitor(request))
    uploads = uploads_of_form(setup, form, known_visitor(request), also=theirs)
    fixed = {"pieces": before.pieces, "language": before.language}
    slip = build_slip(
        setup,
        entries_of_form(setup, form, uploads).model_copy(update=fixed),
        StoredAssets(),
        uploads,
        pending=pending,
        shows_missing=shows_missing,
        keeps_page=True,
        turn=turn_of_form(form),
        selected=selected_in_form(form),
        context=context,
    )
    return OrderedSlip(slip, uploads, is_waiting(pending))


def _context(preflight: Preflight, setup: Setup) -> Context:
    now = request_context([setup], signed_in=True)
    asked = asked_of(preflight.personalization)
    theirs = Counter(asked.taken(setup))
    stock = {sku: left + theirs[sku] for sku, left in now.stock.items()}
    ordered_on = asked.today or timezone.localdate(preflight.line.order.placed_at)
    return now.model_copy(update={"today": ordered_on, "stock": stock})


def sent_as_of(form: QueryDict) -> uuid.UUID:
    """Return what a form is sent as, so that it counts once."""
    return as_uuid(form.get("sent-as", "")) or uuid.uuid4()
