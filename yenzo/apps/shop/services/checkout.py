"""Ordering what lies in a basket."""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass

from django.db import transaction
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.personalized import quoted_together, read_designs
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.services.orders import Customer, Intake, OrderError, place_order


@dataclass(frozen=True)
class Checkout:
    """What a customer sends to order: which checkout this is, who and where to, and which basket was seen."""

    key: uuid.UUID
    customer: Customer
    basket_seen: str


def basket_digest(designs: Sequence[Design]) -> str:
    """Return what tells one state of a basket from another."""
    return ",".join(f"{design.pk.hex[:12]}{design.changed_at.timestamp():.6f}" for design in designs)


@service(*(role for role in ALL_ROLES if role != SYSTEM))
def order_basket(actor: Actor, checkout: Checkout) -> Order:
    """Make an order of all that lies in the basket; raises OrderError. The same checkout makes one order only."""
    customer = checkout.customer
    with transaction.atomic():
        # Whoever comes second waits here for the first, and then finds its order.
        locked = Design.objects.select_for_update(of=("self",)).in_basket_of(customer.visitor)
        designs = list(locked)
        made = Order.objects.filter(checkout_key=checkout.key, visitor=customer.visitor).first()
        if made is not None:
            return made
        if not designs:
            raise OrderError(gettext("The basket is empty. It may have been ordered in another window already."))
        if basket_digest(designs) != checkout.basket_seen:
            raise OrderError(
                gettext("The basket was changed in another window. Please look through it again before ordering.")
            )
        alone = read_designs(designs, signed_in=bool(customer.proven_mail))
        order = place_order(actor, Intake(checkout.key, customer, tuple(quoted_together(alone))))
        Design.objects.filter(pk__in=[design.pk for design in designs]).update(in_basket=False)
    return order
