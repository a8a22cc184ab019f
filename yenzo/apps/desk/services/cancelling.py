"""Cancelling some pieces of an order: what they cost is given back, their blanks come back, the rest is made."""

from collections import Counter
from decimal import Decimal

from django.db import transaction
from django.db.models import F

from yenzo.apps.accounts.rights import DESK, Actor, service
from yenzo.apps.designs.to_core import asked_of
from yenzo.apps.desk.interface import pieces_changed
from yenzo.apps.desk.mails import want_cancelled_mail
from yenzo.apps.desk.models import Preflight, Question
from yenzo.apps.desk.pricing import cost_of_pieces
from yenzo.apps.desk.services.changes import begun_of, refuse_packed
from yenzo.apps.desk.services.preflights import DeskError, note_event, open_locked, place_of
from yenzo.apps.desk.waiting import update_waits_for
from yenzo.apps.orders.models import Difference, Order, OrderEvent
from yenzo.apps.orders.services.differences import note_difference
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.apps.stock.services.stock import return_stock


@service(*DESK)
def cancel_pieces(actor: Actor, preflight_id: int, why: str, amount: Decimal | None = None) -> Preflight:
    """Cancel pieces that are alike, of an order that has others; their customer gets a mail. A reason is needed.

    So much is given back, or what they cost. Raises DeskError for the last pieces of an order, for more than they
    cost, and once any of them is sent.
    """
    with transaction.atomic():
        order, preflight = open_locked(preflight_id)
        if preflight.is_cancelled:
            return preflight
        if not why.strip():
            raise DeskError("Please say why it is cancelled: its customer reads that.")
        count = _count(preflight)
        if count >= order.pieces:
            raise DeskError("These are all pieces of the order. Please cancel the order itself.")
        refuse_packed(preflight)
        _drop_unpaid(preflight)
        cost = cost_of_pieces(preflight)
        back = cost if amount is None else amount
        if not 0 <= back <= cost:
            raise DeskError("More than it cost can't be given back.")
        if not begun_of(preflight):
            setup = setup_of_revision(preflight.line.revision)
            return_stock(actor, dict(Counter(asked_of(preflight.personalization).taken(setup))))
        preflight.state, preflight.held_why, preflight.held_by = Preflight.State.CANCELLED, "", None
        preflight.save(update_fields=["state", "held_why", "held_by"])
        type(preflight.line).objects.filter(pk=preflight.line_id).update(cancelled=F("cancelled") + count)
        preflight.questions.filter(state=Question.State.OPEN).update(state=Question.State.WITHDRAWN)
        note_event(actor, preflight, OrderEvent.Kind.PIECE_CANCELLED, reason=why.strip()[:200])
        note_difference(actor, order, -back, f"{preflight.piece}: {why.strip()}", line=preflight.line)
        pieces_changed.send(Preflight, order=order, place=place_of(preflight))
        want_cancelled_mail(actor, preflight)
        update_waits_for(Order.objects.get(pk=order.pk))
    return preflight


def _drop_unpaid(preflight: Preflight) -> None:
    """Let what changes of pieces cost more be, as they aren't made; raises DeskError while it is being paid."""
    for change in preflight.changes.exclude(difference=None).select_related("difference"):
        difference = change.difference
        if difference is not None and difference.is_to_pay:
            if not difference.is_payable:
                raise DeskError("What it costs more is being paid just now. Please try again in a minute.")
            difference.state = Difference.State.WAIVED
            difference.save(update_fields=["state"])


def _count(preflight: Preflight) -> int:
    line = preflight.line
    if not line.is_list:
        return line.quantity
    return line.pieces.filter(personalization=preflight.personalization).count()
