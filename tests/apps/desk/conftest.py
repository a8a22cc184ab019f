"""Builders for the desk's tests: a paid order that was looked at, one with a coarse photo, forms of its slip."""

import uuid

import pytest

from tests.apps.conftest import GUEST
from yenzo.apps.designs.to_core import evaluate_entries
from yenzo.apps.desk.models import Preflight
from yenzo.apps.desk.services.changes import Wanted
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.shop.services.checkout import order_basket
from yenzo.core.documents.reading import read_entries


def paid_and_looked_at(order):
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    order.refresh_from_db()
    return order


@pytest.fixture
def paid(order):
    """An order of one board that nothing is found of."""
    return paid_and_looked_at(order)


@pytest.fixture
def preflight(paid):
    return Preflight.objects.get()


@pytest.fixture
def held(visitor, put_in_basket, checkout_of):
    """A board that is held, as its name is doubted: a digit stands in it for a letter."""
    return doubted(visitor, put_in_basket, checkout_of)


def doubted(visitor, put_in_basket, checkout_of, **others):
    design = put_in_basket(visitor, name="L0ve", **others)
    paid_and_looked_at(order_basket(GUEST, checkout_of(visitor, [design])))
    return Preflight.objects.latest("pk")


@pytest.fixture
def wanted(product):
    """What a board is to be from now on."""

    def made(sent_as=None, **values):
        entries = read_entries({"values": {"name": "Wind & Whey", **values}})
        return Wanted(entries, evaluate_entries(product.live, entries), (), sent_as or uuid.uuid4())

    return made
