"""Placing and cancelling orders."""

import uuid
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from decimal import Decimal

from django.conf import settings
from django.db import transaction
from django.utils import timezone
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import ALL_ROLES, DESK, SYSTEM, Actor, service
from yenzo.apps.designs.models import NameList
from yenzo.apps.designs.personalized import Personalized
from yenzo.apps.designs.services.personalizations import keep_as_asked
from yenzo.apps.orders.mails import want_order_mails
from yenzo.apps.orders.models import Line, Order, OrderEvent, Piece
from yenzo.apps.orders.orderable import obstacles
from yenzo.apps.orders.to_core import taken_by
from yenzo.apps.pages.addresses import mail_identity
from yenzo.apps.pages.errors import AppError
from yenzo.apps.stock.services.stock import OutOfStockError, return_stock, take_stock
from yenzo.core.pricing.order import quote_of_list
from yenzo.core.pricing.quote import Quote
from yenzo.core.speaking import reader


class OrderError(AppError):
    """What was wanted of an order can't be done; the message says why, for whoever wanted it."""


@dataclass(frozen=True)
class Customer:
    """Who orders and where to. `proven_mail` is the address that they have signed in with, if so."""

    visitor: uuid.UUID
    name: str
    mail: str
    address: str
    proven_mail: str = ""

    @property
    def is_mail_proven(self) -> bool:
        """Whether they have signed in with the address that they give."""
        return bool(self.proven_mail) and mail_identity(self.proven_mail) == mail_identity(self.mail)


@dataclass(frozen=True)
class IntakeLine:
    """What is to be ordered as one line: one piece, however many times, or the rows of a list of names."""

    pieces: tuple[Personalized, ...]
    names: NameList | None = None

    @property
    def quote(self) -> Quote:
        """What all of it costs."""
        quotes = [one.quote for one in self.pieces]
        return quotes[0] if self.names is None else quote_of_list(quotes)


@dataclass(frozen=True)
class Intake:
    """What comes in to be ordered, wherever from: its lines, priced together, and whose they are.

    The same key makes one order only. `outside_number` is what the order is called where it came from.
    """

    key: uuid.UUID
    customer: Customer
    lines: tuple[IntakeLine, ...]
    channel: str = Order.Channel.SHOP
    outside_number: str = ""


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def place_order(actor: Actor, intake: Intake) -> Order:
    """Make an order of what comes in; raises OrderError when any of it can't be ordered."""
    with transaction.atomic():
        made = Order.objects.filter(checkout_key=intake.key).first()
        if made is not None:
            return _own(made, intake.customer)
        if not intake.lines:
            raise OrderError(gettext("There is nothing to be ordered."))
        pieces = [piece for line in intake.lines for piece in line.pieces]
        for piece in pieces:
            for obstacle in obstacles(piece):
                raise OrderError(f"“{piece.setup.offer.name}”: {obstacle}")
        try:
            take_stock(actor, _sum(piece.asked.taken(piece.setup) for piece in pieces))
        except OutOfStockError as error:
            raise OrderError(gettext("{why} Please look at your basket again.").format(why=error)) from error
        order = _insert_order(actor, intake)
        want_order_mails(actor, order, "placed")
    return order


def _own(order: Order, customer: Customer) -> Order:
    """Return an order that was made by the same checkout of the same visitor."""
    if order.visitor != customer.visitor:
        raise OrderError(gettext("This checkout is somebody else's. Please go back to your basket and order anew."))
    return order


@service(*DESK)
def cancel_order(actor: Actor, order_id: int) -> Order:
    """Cancel an order that waits for payment or is paid; raises OrderError while nobody knows whether it is paid.

    What was paid is paid back by hand: the workshop is told how much.
    """
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        if order.is_cancelled:
            return order
        if not order.is_cancellable:
            raise OrderError(
                f"Whether order {order.number} is paid isn't known yet; please cancel it as soon as that is settled."
            )
        was_paid = order.is_paid
        lines = order.lines.select_related("revision", "personalization")
        return_stock(actor, _sum(taken_by(line) for line in lines))
        order.state = Order.State.CANCELLED
        if was_paid:
            order.payment_state = Order.PaymentState.OWED_BACK
        order.save(update_fields=["state", "payment_state"])
        kind = OrderEvent.Kind.CANCELLED_PAID if was_paid else OrderEvent.Kind.CANCELLED
        OrderEvent.objects.create(order=order, who=actor.name, kind=kind)
        if was_paid:
            want_order_mails(actor, order, "cancelled")
    return order


def _sum(counts: Iterable[dict[str, int]]) -> dict[str, int]:
    total: Counter[str] = Counter()
    for count in counts:
        total.update(count)
    return dict(total)


def _insert_order(actor: Actor, intake: Intake) -> Order:
    customer = intake.customer
    order = Order.objects.create(
        channel=intake.channel,
        outside_number=intake.outside_number,
        checkout_key=intake.key,
        visitor=customer.visitor,
        customer_name=customer.name,
        customer_mail=customer.mail,
        customer_identity=mail_identity(customer.mail),
        is_mail_proven=customer.is_mail_proven,
        address=customer.address,
        language=reader(),
        currency=settings.CURRENCY,
        total=sum((line.quote.total for line in intake.lines), Decimal(0)),
        spelling_checked_at=timezone.now(),
    )
    for number, line in enumerate(intake.lines, 1):
        _insert_line(order, number, line)
    who = "Customer" if actor.person is None else actor.name
    OrderEvent.objects.create(order=order, who=who, kind=OrderEvent.Kind.PLACED)
    return order


def _insert_line(order: Order, number: int, ordered: IntakeLine) -> Line:
    kept = [keep_as_asked(piece) for piece in ordered.pieces]
    first = ordered.pieces[0]
    line = Line.objects.create(
        order=order,
        number=number,
        product=first.revision.product,
        revision=first.revision,
        personalization=kept[0],
        quantity=sum(piece.asked.pieces for piece in ordered.pieces),
        rows=len(ordered.pieces),
        names=ordered.names,
        quote=ordered.quote.model_dump(mode="json"),
        search_text="\n".join(dict.fromkeys(text for piece in ordered.pieces for text in _texts(piece))),
    )
    each = (one for piece, one in zip(ordered.pieces, kept, strict=True) for _ in range(piece.asked.pieces))
    Piece.objects.bulk_create(
        (Piece(line=line, index=index, personalization=one) for index, one in enumerate(each, 1)), batch_size=2000
    )
    return line


def _texts(piece: Personalized) -> Iterator[str]:
    return (text.text for area in piece.recorded.areas for text in area.texts)
