"""What two do at once, one after the other: rows are locked before they are read (real threads, real transactions)."""

import pytest

from tests.apps.conftest import GUEST
from tests.apps.products.test_races import both
from yenzo.apps.orders.models import Order, Payment
from yenzo.apps.orders.services.orders import OrderError
from yenzo.apps.orders.services.payments import start_payment
from yenzo.apps.products.services.drafts import StaleEditError, edit_draft
from yenzo.apps.stock.models import StockItem
from yenzo.apps.stock.services.stock import OutOfStockError, take_stock

pytestmark = pytest.mark.django_db(transaction=True)


def one_in_the_middle_of_the_other(first, second):
    """Do the second thing before the first is committed; return what came of the second, an error even."""

    def attempt():
        try:
            return second()
        except (OrderError, OutOfStockError, StaleEditError) as error:
            return error

    return both(first, attempt)[1]


def test_stock_that_two_take_at_once_is_taken_twice():
    StockItem.objects.create(sku="NB-1", pieces=5)
    outcome = one_in_the_middle_of_the_other(
        lambda: take_stock(GUEST, {"NB-1": 2}), lambda: take_stock(GUEST, {"NB-1": 2})
    )
    assert outcome is None
    assert StockItem.objects.get().pieces == 1


def test_last_piece_goes_to_one_of_two():
    StockItem.objects.create(sku="NB-1", pieces=1)
    outcome = one_in_the_middle_of_the_other(
        lambda: take_stock(GUEST, {"NB-1": 1}), lambda: take_stock(GUEST, {"NB-1": 1})
    )
    assert isinstance(outcome, OutOfStockError)
    assert StockItem.objects.get().pieces == 0


def test_payment_that_two_begin_at_once_is_begun_once_and_the_other_told(order):
    outcome = one_in_the_middle_of_the_other(
        lambda: start_payment(GUEST, order.pk, "approves"), lambda: start_payment(GUEST, order.pk, "approves")
    )
    assert isinstance(outcome, OrderError)
    assert Payment.objects.filter(order=order).count() == 1
    assert Order.objects.get(pk=order.pk).payment_state == Order.PaymentState.UNKNOWN


def test_value_that_two_set_at_once_is_shown_to_who_comes_second(owner, actors, product):
    def setting(actor, value):
        operation = {"do": "set", "path": ["fields", "name", "label"], "value": value}
        return lambda: edit_draft(actor, product.pk, [operation], seen_version=product.draft_version, label=value)

    outcome = one_in_the_middle_of_the_other(setting(owner, "Ship"), setting(actors["seller"], "Vessel"))
    assert isinstance(outcome, StaleEditError)
    assert "There now: “Ship”. Yours: “Vessel”." in outcome.message
    product.refresh_from_db()
    assert product.draft["fields"][0]["label"] == "Ship"
