"""Builders for production's tests: a station, who works there, a paid order and its job."""

import pytest

from tests.apps.conftest import GUEST
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.production.models import Job
from yenzo.apps.production.services.jobs import save_station


@pytest.fixture
def bench(owner):
    return save_station(owner, "bench", name="Bench", methods=["carving"], hours=[8.0] * 7)


@pytest.fixture
def decorator(actors):
    return actors["decorator"]


@pytest.fixture
def paid(order):
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    order.refresh_from_db()
    return order


@pytest.fixture
def job(paid, bench):
    return Job.objects.get()
