"""Ordering what lies in a basket."""

import hashlib
import uuid
from collections.abc import Sequence
from dataclasses import dataclass

from django.db import transaction
from django.utils import timezone
from django.utils.translation import gettext

from yenzo.apps.accounts.rights import ALL_ROLES, SYSTEM, Actor, service
from yenzo.apps.designs.models import Design, NameList
from yenzo.apps.designs.personalized import read_designs
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.services.orders import NO_WISHES, Customer, Intake, OrderError, Wishes, place_order
from yenzo.apps.shop.basket import intake_lines


@dataclass(frozen=True)
class Checkout:
    """What a customer sends to order: which checkout this is, who and where to, and which basket was seen."""

    key: uuid.UUID
    customer: Customer
    basket_seen: str
    wishes: Wishes = NO_WISHES


def basket_digest(lying: Sequence[Design | NameList]) -> str:
    """Return what tells one state of a basket from another."""
    told = ",".join(f"{one.pk.hex}{one.changed_at.timestamp():.6f}" for one in lying)
    return hashlib.sha256(told.encode()).hexdigest()


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
        lists = list(NameList.objects.select_for_update(of=("self",)).in_basket_of(customer.visitor))
        if not designs and not lists:
            raise OrderError(gettext("The basket is empty. It may have been ordered in another window already."))
        if basket_digest([*designs, *lists]) != checkout.basket_seen:
            raise OrderError(
                gettext("The basket was changed in another window. Please look through it again before ordering.")
            )
        signed_in = bool(customer.proven_mail)
        lines = intake_lines(read_designs(designs, signed_in=signed_in), lists, signed_in=signed_in)
        order = place_order(actor, Intake(checkout.key, customer, tuple(lines), wishes=checkout.wishes))
        Design.objects.filter(pk__in=[design.pk for design in designs]).update(
            in_basket=False, ordered_at=timezone.now()
        )
        NameList.objects.filter(pk__in=[one.pk for one in lists]).update(in_basket=False, ordered_at=timezone.now())
    return order
