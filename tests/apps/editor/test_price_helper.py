"""The price helper's page."""

from decimal import Decimal

from yenzo.apps.products.models import Product
from yenzo.core.pricing.helper import Costs

PAGE = "/workshop/products/board/price/"


def test_costs_are_kept_and_give_a_price_that_can_be_taken(sign_in, product):
    seller = sign_in("seller")
    assert "For a margin of 0 % ask" in seller.get(PAGE).content.decode()
    given = {"blank": "17.10", "margin_percent": "43", "hourly_rate": "60", "finish.minutes": "30"}
    assert seller.post(PAGE, given).url == PAGE
    page = seller.get(PAGE).content.decode()
    assert "£30.00" in page
    assert "costs more than it earns" in page
    assert "not in the sample entries" in page
    seller.post(f"{PAGE}use/")
    product.refresh_from_db()
    assert product.draft["offer"]["base_price"] == "30.00"
    assert Costs.model_validate(product.costs).extras["finish"].minutes == Decimal(30)
    assert "costs" not in product.draft


def test_margin_that_no_price_can_give_is_refused_in_the_form(sign_in, product):
    refused = sign_in("seller").post(PAGE, {"fee_percent": "60", "margin_percent": "40"})
    assert (refused.status_code, "no price can give both" in refused.content.decode()) == (422, True)
    assert Product.objects.get(pk=product.pk).costs == {}


def test_more_minutes_than_anybody_has_are_refused_in_the_form(sign_in, product):
    refused = sign_in("seller").post(PAGE, {"minutes": "20000", "finish.minutes": "20000", "blank": "-1"})
    assert (refused.status_code, Product.objects.get(pk=product.pk).costs) == (422, {})
