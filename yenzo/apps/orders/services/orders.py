"""Placing and cancelling orders."""

import uuid
from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from typing import Any

from django.conf import settings
from django.db import transaction
from django.db.models import Q
from django.utils import timezone
from django.utils.translation import gettext
from procrastinate.contrib.django import app

from yenzo.apps.accounts.rights import ALL_ROLES, DESK, SYSTEM, Actor, service
from yenzo.apps.designs.models import NameList, Personalization
from yenzo.apps.designs.personalized import Personalized
from yenzo.apps.designs.services.personalizations import keep_as_asked
from yenzo.apps.orders.delivering import OfferedWay, promise_for
from yenzo.apps.orders.interface import order_cancelled, order_changed
from yenzo.apps.orders.mails import want_order_mails
from yenzo.apps.orders.models import Agreement, Difference, Line, Order, OrderEvent, Piece
from yenzo.apps.orders.models.orders import NUMBER_OR_TICKET
from yenzo.apps.orders.orderable import obstacles
from yenzo.apps.orders.services.differences import note_difference, paid_so_far
from yenzo.apps.orders.to_core import taken_by
from yenzo.apps.pages.addresses import mail_identity
from yenzo.apps.pages.errors import AppError
from yenzo.apps.stock.services.stock import OutOfStockError, return_stock, take_stock
from yenzo.core.documents.entries import Address
from yenzo.core.pricing.order import quote_of_list
from yenzo.core.pricing.quote import Quote
from yenzo.core.translation import current_language

DRAWING = "orders.draw_proofs"


class OrderError(AppError):
    """What was wanted of an order can't be done; the message says why, for whoever wanted it."""


@dataclass(frozen=True)
class Customer:
    """Who orders and where to. `proven_mail` is the address that they have signed in with, if so.

    `address` is as it is written on a parcel, without the name; the same in its parts, and the invoice's if that goes
    elsewhere, where these are known.
    """

    visitor: uuid.UUID
    name: str
    mail: str
    address: str
    proven_mail: str = ""
    delivery_address: Address | None = None
    invoice_address: Address | None = None

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
class Wishes:
    """What is said of an order beside its pieces: how it goes, for when, and what stands on its papers."""

    offered: OfferedWay | None = None
    wished_for: date | None = None
    note: str = ""
    purchase_number: str = ""
    repeats: str = ""


NO_WISHES = Wishes()


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
    wishes: Wishes = NO_WISHES


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
        app.configure_task(DRAWING, lock=f"proofs-{order.pk}").defer(order_id=order.pk)
    return order


def _own(order: Order, customer: Customer) -> Order:
    """Return an order that was made by the same checkout of the same visitor."""
    if order.visitor != customer.visitor:
        raise OrderError(gettext("This checkout is somebody else's. Please go back to your basket and order anew."))
    return order


@service(*DESK)
def cancel_order(actor: Actor, order_id: int) -> Order:
    """Cancel an order that waits for payment or is paid; raises OrderError while nobody knows whether it is paid.

    What was paid is given back.
    """
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        if not order.is_cancelled and not order.is_cancellable:
            raise OrderError(
                f"Whether order {order.number} is paid isn't known yet; please cancel it as soon as that is settled."
            )
        return order if order.is_cancelled else _cancelled(actor, order)


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def cancel_own_order(actor: Actor, order_id: int) -> Order:
    """Cancel an order for its customer; raises OrderError as soon as anything of it is begun."""
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        if not order.is_cancelled and not order.is_cancellable_by_customer:
            raise OrderError(gettext("It can't be cancelled here any more: it is begun. Please write to the workshop."))
        return order if order.is_cancelled else _cancelled(actor, order)


def _cancelled(actor: Actor, order: Order) -> Order:
    was_paid = order.is_paid
    lines = order.lines.select_related("revision", "personalization")
    return_stock(actor, _sum(taken_by(line) for line in lines))
    order.state = Order.State.CANCELLED
    owed = paid_so_far(order)
    if was_paid:
        order.payment_state = Order.PaymentState.OWED_BACK if owed else Order.PaymentState.PAID_BACK
    order.save(update_fields=["state", "payment_state"])
    kind = OrderEvent.Kind.CANCELLED_PAID if was_paid else OrderEvent.Kind.CANCELLED
    OrderEvent.objects.create(order=order, who=actor.name, kind=kind)
    for difference in order.differences.to_pay():
        difference.state = Difference.State.WAIVED
        difference.save(update_fields=["state"])
    if was_paid:
        note_difference(actor, order, -owed, "Cancelled")
        want_order_mails(actor, order, "cancelled")
    order_cancelled.send(Order, order=order)
    order_changed.send(Order, order=order)
    return order


def _sum(counts: Iterable[dict[str, int]]) -> dict[str, int]:
    total: Counter[str] = Counter()
    for count in counts:
        total.update(count)
    return dict(total)


def _insert_order(actor: Actor, intake: Intake) -> Order:
    customer, wishes = intake.customer, intake.wishes
    offered = wishes.offered
    promise = promise_for(offered, wishes.wished_for) if offered else None
    goods = sum((line.quote.total for line in intake.lines), Decimal(0))
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
        language=current_language(),
        currency=settings.CURRENCY,
        total=goods + (offered.price if offered else 0),
        spelling_checked_at=timezone.now(),
        delivery_address=_parts(customer.delivery_address),
        invoice_address=_parts(customer.invoice_address),
        delivery=offered.way.model_dump(mode="json") if offered else None,
        delivery_price=offered.price if offered else 0,
        leaves_on=promise.leaves_on if promise else None,
        arrives_on=promise.arrives_on if promise else None,
        wished_for=wishes.wished_for,
        note=wishes.note,
        purchase_number=wishes.purchase_number,
        repeats=wishes.repeats,
        again_of=_meant_by(wishes.repeats, customer),
    )
    for number, line in enumerate(intake.lines, 1):
        _insert_line(order, number, line)
    who = "Customer" if actor.person is None else actor.name
    OrderEvent.objects.create(order=order, who=who, kind=OrderEvent.Kind.PLACED)
    return order


def _parts(address: Address | None) -> dict[str, Any] | None:
    return None if address is None else address.model_dump(mode="json")


def _meant_by(repeats: str, customer: Customer) -> Order | None:
    """Return the order that a customer says theirs is like, where that is one of their own."""
    named = NUMBER_OR_TICKET.fullmatch(repeats.strip())
    if not named:
        return None
    own = Q(visitor=customer.visitor)
    if customer.is_mail_proven:
        own |= Q(customer_identity=mail_identity(customer.mail))
    return Order.objects.filter(own, number=int(named["number"])).first()


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
    agreed = zip(ordered.pieces, kept, strict=True)
    Agreement.objects.bulk_create(
        (_agreement(line, piece, one, order.spelling_checked_at) for piece, one in agreed), batch_size=500
    )
    return line


def _agreement(line: Line, piece: Personalized, kept: Personalization, at: datetime) -> Agreement:
    return Agreement(
        line=line,
        personalization=kept,
        how=Agreement.How.CHECKOUT,
        digests={side.key: side.digest for side in piece.recorded.sides},
        texts=[text.made.words for text in piece.in_words.texts],
        agreed_at=at,
    )


def _texts(piece: Personalized) -> Iterator[str]:
    return (text.text for area in piece.recorded.areas for text in area.texts)
