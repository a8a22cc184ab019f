"""The answer to a key: what it brings when something differs from what shows, and for which products there is one."""

import re

import pytest
from django.test import Client

from yenzo.apps.products.models import Product

PREVIEW = "/goods/board/preview/"


def test_price_and_what_is_said_of_the_goods_are_sent_when_they_differ_from_what_shows(product):
    def answer(**changed):
        form = {"entry-name": "Tern", "entry-wood": "cedar", "asked": "name lettering with_photo wood finish"}
        return Client().post(PREVIEW, {**form, **changed}).content.decode()

    first = answer()
    [shown] = re.findall(r'name="shown" value="([^"]+)"', first)
    price, goods_said = 'id="price" hx-swap-oob', 'id="said-variant" class="said" hx-swap-oob'
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
