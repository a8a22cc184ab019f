"""Placing and cancelling orders."""

import uuid
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from decimal import Decimal

from django.conf import settings
from django.db import transaction
from django.utils import timezone
from django.utils.translation import gettext, gettext_noop

from yenzo.apps.accounts.addresses import mail_identity
from yenzo.apps.accounts.rights import ALL_ROLES, DESK, SYSTEM, Actor, service
from yenzo.apps.catalogue.services.stock import OutOfStockError, return_stock, take_stock
from yenzo.apps.catalogue.to_core import setup_of_revision, shop_setup
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.to_core import walk_designs
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.orders.mails import want_order_mails
from yenzo.apps.orders.models import Order, OrderEvent, Piece
from yenzo.core.asking.ask import Asked
from yenzo.core.speaking import reader
from yenzo.core.spine import Walked, quoted_together


class OrderError(Exception):
    """What was wanted of an order can't be done; the message says why, for whoever wanted it."""


@dataclass(frozen=True)
class Checkout:
    """What a customer sends to order: who and where to, which basket was seen, and which checkout this is.

    `proven_mail` is the address that the customer has signed in with, if so.
    """

    key: uuid.UUID
    visitor: uuid.UUID
    basket_seen: str
    name: str
    mail: str
    address: str
    proven_mail: str = ""

    @property
    def signed_in(self) -> bool:
        """Whether the customer is signed in."""
        return bool(self.proven_mail)


def basket_digest(designs: list[Design]) -> str:
    """Return what tells one state of a basket from another."""
    return ",".join(f"{design.pk.hex[:12]}{design.changed_at.timestamp():.6f}" for design in designs)


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def place_order(actor: Actor, checkout: Checkout) -> Order:
    """Make an order of all that lies in the basket; raises OrderError. The same checkout makes one order only."""
    with transaction.atomic():
        # Whoever comes second waits here for the first, and then finds its order.
        locked = Design.objects.select_for_update(of=("self",)).in_basket_of(checkout.visitor)
        designs = list(locked)
        made = Order.objects.filter(checkout_key=checkout.key, visitor=checkout.visitor).first()
        if made is not None:
            return made
        if not designs:
            raise OrderError(gettext("The basket is empty. It may have been ordered in another window already."))
        if Order.objects.filter(checkout_key=checkout.key).exists():
            raise OrderError(gettext("This checkout is somebody else's. Please go back to your basket and order anew."))
        if basket_digest(designs) != checkout.basket_seen:
            raise OrderError(
                gettext("The basket was changed in another window. Please look through it again before ordering.")
            )
        _refuse_changed(designs)
        alone = walk_designs(designs, StoredAssets(), signed_in=checkout.signed_in)
        pairs = list(zip(designs, alone, strict=True))
        walked = quoted_together([(design.product_key, _orderable(design, one)) for design, one in pairs])
        try:
            take_stock(actor, _taken(walked))
        except OutOfStockError as error:
            raise OrderError(gettext("{why} Please look at your basket again.").format(why=error)) from error
        order = _insert_order(actor, checkout, list(zip(designs, walked, strict=True)))
        Design.objects.filter(pk__in=[design.pk for design in designs]).update(in_basket=False)
        want_order_mails(actor, order, "placed")
    return order


@service(*DESK)
def cancel_order(actor: Actor, order_id: int) -> Order:
    """Cancel an order that waits for payment or is paid; raises OrderError while nobody knows whether it is paid.

    What was paid is paid back by hand: the workshop is told how much.
    """
    with transaction.atomic():
        order = Order.objects.select_for_update().get(pk=order_id)
        if order.state == Order.State.CANCELLED:
            return order
        if not order.is_cancellable:
            raise OrderError(
                f"Whether order {order.number} is paid isn't known yet; please cancel it as soon as that is settled."
            )
        was_paid = order.state == Order.State.PAID
        pieces = order.pieces.select_related("revision")
        taken = (Asked.model_validate(piece.asked).taken(setup_of_revision(piece.revision)) for piece in pieces)
        return_stock(actor, _sum(taken))
        order.state = Order.State.CANCELLED
        order.save(update_fields=["state"])
        what = gettext_noop("Cancelled; what was paid is paid back") if was_paid else gettext_noop("Cancelled")
        OrderEvent.objects.create(order=order, who=actor.name, what=what)
        if was_paid:
            want_order_mails(actor, order, "cancelled")
    return order


def _taken(pieces: list[Walked]) -> dict[str, int]:
    return _sum(piece.asked.taken(piece.setup) for piece in pieces)


def _sum(counts: Iterable[dict[str, int]]) -> dict[str, int]:
    total: Counter[str] = Counter()
    for count in counts:
        total.update(count)
    return dict(total)


def _refuse_changed(designs: list[Design]) -> None:
    """Raise OrderError for what is no longer sold, or not as it was."""
    for design in designs:
        product = design.revision.product
        name = shop_setup(design.revision).offer.name
        if product.live_id != design.revision_id:
            raise OrderError(
                gettext("“{name}” has changed since. Please look at it again in the basket.").format(name=name)
            )
        if product.is_resting:
            raise OrderError(
                gettext("“{name}” isn't sold at the moment. Please take it out of the basket.").format(name=name)
            )


def _orderable(design: Design, walked: Walked) -> Walked:
    """Return a piece that can be ordered; raises OrderError for any other."""
    name = shop_setup(design.revision).offer.name
    if walked.verdict.blocked:
        raise OrderError(f"“{name}”: {walked.verdict.blocking[0].message}")
    if walked.quote.total < 0:
        raise OrderError(gettext("“{name}” would cost less than nothing. Please tell the workshop.").format(name=name))
    if walked.quote.currency != settings.CURRENCY:
        raise OrderError(
            gettext("“{name}” is priced in {currency}; the shop sells in {other}.").format(
                name=name, currency=walked.quote.currency, other=settings.CURRENCY
            )
        )
    return walked


def _insert_order(actor: Actor, checkout: Checkout, pieces: list[tuple[Design, Walked]]) -> Order:
    order = Order.objects.create(
        checkout_key=checkout.key,
        visitor=checkout.visitor,
        customer_name=checkout.name,
        customer_mail=checkout.mail,
        customer_identity=mail_identity(checkout.mail),
        is_mail_proven=checkout.signed_in and mail_identity(checkout.proven_mail) == mail_identity(checkout.mail),
        address=checkout.address,
        language=reader(),
        currency=pieces[0][1].quote.currency,
        total=sum((walked.quote.total for _, walked in pieces), Decimal(0)),
        spelling_checked_at=timezone.now(),
    )
    for number, (design, walked) in enumerate(pieces, 1):
        piece = Piece.objects.create(
            order=order,
            number=number,
            revision=design.revision,
            asked=walked.asked.model_dump(mode="json"),
            quote=walked.quote.model_dump(mode="json"),
            search_text="\n".join(text.text for area in walked.scene.areas for text in area.letterings),
        )
        piece.uploads.set(design.uploads.all())
    who = "Customer" if actor.person is None else actor.name
    OrderEvent.objects.create(order=order, who=who, what=gettext_noop("Ordered; the spelling was checked"))
    return order
