"""The answer to a key: what it brings when something differs from what shows, and for which products there is one."""

import re

import pytest
from cachetools import TTLCache, cached
from django.test import Client

from demo.installation import ROOT
from yenzo.apps.products.models import Product
from yenzo.apps.shop import preview_cache

PREVIEW = "/goods/board/preview/"


def test_price_and_what_is_said_of_the_goods_are_sent_when_they_differ_from_what_shows(product):
    def answer(**changed):
        form = {"entry-name": "Tern", "entry-wood": "cedar", "asked": "name lettering with_photo wood finish"}
        return Client().post(PREVIEW, {**form, **changed}).content.decode()

    first = answer()
    [shown] = re.findall(r'name="shown" value="([^"]+)"', first)
    price, goods_said = 'data-part="price"', 'data-part="said-variant"'
    assert price in first
    assert goods_said in first
    same = answer(shown=shown, **{"entry-name": "Whelk"})
    assert "WHELK" in same
    assert price not in same
    assert goods_said not in same
    dearer = answer(shown=shown, **{"entry-wood": "oak"})
    assert price in dearer
    assert 'data-total="119.50"' in dearer


@pytest.mark.parametrize("change", [{"is_resting": True}, {"is_kit": True}, {"live": None}, {"key": "other"}])
def test_preview_of_what_the_shop_does_not_sell_is_not_found(product, change):
    assert Client().post(PREVIEW, {"entry-name": "Otter"}).status_code == 200
    Product.objects.filter(pk=product.pk).update(**change)
    assert Client().post(PREVIEW, {"entry-name": "Otter"}).status_code == 404


def test_customers_who_type_at_once_share_what_was_read_and_no_longer_than_a_moment(
    product, monkeypatch, django_assert_num_queries
):
    moment = Moment()
    for what in ("live_revision", "stock"):
        read = getattr(preview_cache, what)
        kept = TTLCache(preview_cache.MOST_KEPT, preview_cache.SECONDS, timer=moment)
        monkeypatch.setattr(preview_cache, what, cached(kept)(read))
    first, second = (Client(headers={"Page-Language": "en-gb"}) for _ in range(2))
    form = {"entry-name": "Tern", "entry-wood": "cedar"}
    assert first.post(PREVIEW, form).status_code == 200
    with django_assert_num_queries(0):
        assert "WHELK" in second.post(PREVIEW, {**form, "entry-name": "Whelk"}).content.decode()
    Product.objects.filter(pk=product.pk).update(is_resting=True)
    moment.now += preview_cache.SECONDS + 0.01
    assert first.post(PREVIEW, form).status_code == 404


class Moment:
    """A clock that stands still until it is set on."""

    now = 0.0

    def __call__(self):
        return self.now


def test_what_is_kept_reads_anew_what_previews_share():
    # `preview_cache` is for previews alone: a basket or an order that looked there could sell what is gone.
    users = [path.name for path in (ROOT / "yenzo").rglob("*.py") if "import preview_cache" in path.read_text()]
    assert users == ["product_slips.py"]


def test_what_stands_beside_controls_is_sent_where_it_differs(product):
    form = {"entry-name": "Tern", "entry-wood": "cedar", "asked": "name lettering with_photo wood finish"}
    first = Client().post(PREVIEW, form).content.decode()
    assert 'data-part="room-name"' in first
    [shown] = re.findall(r'name="shown" value="([^"]+)"', first)
    longer = Client().post(PREVIEW, {**form, "shown": shown, "entry-name": "Terns"}).content.decode()
    assert 'data-part="room-name"' in longer
    as_long = Client().post(PREVIEW, {**form, "shown": shown, "entry-name": "Gull"}).content.decode()
    assert "GULL" in as_long
    assert 'data-part="room-name"' not in as_long
