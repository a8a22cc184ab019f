"""Two at once, each in a connection of its own: what one does is never lost to the other."""

from concurrent.futures import ThreadPoolExecutor
from threading import Event

import pytest
from django.db import connection, transaction

from demo.installation import wait_until
from tests.apps.conftest import GUEST
from yenzo.apps.history.services.changes import step_shared
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.kits import attach_kit, create_kit, publish_kit
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.stock.models import StockItem
from yenzo.apps.stock.services.stock import count_stock, take_stock
from yenzo.core.errors import DocumentError

pytestmark = pytest.mark.django_db(transaction=True)


def somebody_waits():
    with connection.cursor() as cursor:
        cursor.execute("SELECT count(*) FROM pg_locks WHERE NOT granted")
        return cursor.fetchone()[0]


def both(first, second):
    """Run the second while the first has done its work and not yet committed; return what each gave."""
    is_done = Event()

    def begin():
        try:
            with transaction.atomic():
                made = first()
                is_done.set()
                wait_until(somebody_waits, seconds=30, what="the other to wait")
            return made
        finally:
            connection.close()

    def follow():
        try:
            assert is_done.wait(30)
            return second()
        finally:
            connection.close()

    with ThreadPoolExecutor(2) as pool:
        return [task.result() for task in (pool.submit(begin), pool.submit(follow))]


@pytest.fixture
def kit(owner, product):
    made = create_kit(owner, name="Gift", currency="GBP")
    line = {"do": "add", "path": ["fields"], "item": {"key": "card", "kind": "line", "label": "Words on the card"}}
    edit_draft(owner, made.pk, [line], seen_version=0, label="Line")
    return made


def test_product_that_is_just_being_published_gets_the_kit_that_is_published_meanwhile(owner, product, kit):
    other = import_product(owner, product.draft, key="second")
    attach_kit(owner, kit.pk, [other.pk])
    publish_kit(owner, kit.pk, seen_version=1)
    relabel = [{"do": "set", "path": ["fields", "card", "label"], "value": "Greeting"}]
    edit_draft(owner, kit.pk, relabel, seen_version=1, label="Label")
    both(
        lambda: publish_setup(owner, other.pk, seen_version=other.draft_version),
        lambda: publish_kit(owner, kit.pk, seen_version=2),
    )
    live = Product.objects.select_related("live").get(pk=other.pk).live.document
    assert [field["label"] for field in live["fields"] if field["key"] == "gift-card"] == ["Greeting"]


def test_undone_count_during_a_sale_is_refused_or_counts_the_sale(owner, product):
    count_stock(owner, {"BOARD": 5})
    count_stock(owner, {"BOARD": 8})

    def undo():
        try:
            return step_shared(owner, "undo")
        except DocumentError as error:
            return error

    _, undone = both(lambda: take_stock(GUEST, {"BOARD": 2}), undo)
    assert "has changed since" in str(undone)
    assert StockItem.objects.get(sku="BOARD").pieces == 6
