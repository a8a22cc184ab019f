"""The price helper: cost, price and margins."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from yenzo.core.pricing.helper import Costs, margin_of, margin_of_extra


def test_price_leaves_the_wanted_share_of_itself():
    assert Costs(blank="17.10", margin_percent="43").price == Decimal("30.00")


def test_every_cost_counts_once():
    costs = Costs(
        blank="10",
        minutes="30",
        hourly_rate="40",
        materials="2",
        postage="3",
        marketing="1",
        fee_fixed="0.5",
        fee_percent="10",
        spoilt_percent="20",
        margin_percent="40",
    )
    assert costs.cost == (10 + 2 + 20) / Decimal("0.8") + 3 + 1 + Decimal("0.5")
    assert costs.price == Decimal("89.00")
    assert margin_of(costs, costs.price).percent == Decimal("40.0")


def test_discount_is_given_of_the_price_that_is_asked():
    assert Costs(blank="10", discount_percent="50").price == Decimal("20.00")


def test_extra_that_costs_more_than_it_earns_is_a_loss():
    costs = Costs(hourly_rate="60", fee_percent="10", extras={"letters": {"minutes": "2", "materials": "0.5"}})
    assert margin_of_extra(costs, "letters", Decimal("2.00")).is_loss
    earned = margin_of_extra(costs, "letters", Decimal(5))
    assert (earned.left, earned.percent) == (Decimal("2.00"), Decimal("40.0"))
    assert margin_of_extra(costs, "other", Decimal(0)).percent is None


def test_margin_that_no_price_can_give_is_refused():
    with pytest.raises(ValidationError, match="no price can give both"):
        Costs(fee_percent="50", margin_percent="50")


share = st.decimals(0, 45, places=1)


@given(st.decimals(1, 900, places=2), share, share, share, share)
def test_suggested_price_has_the_wanted_margin(blank, fee, spoilt, discount, margin):
    costs = Costs(blank=blank, fee_percent=fee, spoilt_percent=spoilt, discount_percent=discount, margin_percent=margin)
    found = margin_of(costs, costs.price)
    assert abs(found.left - costs.price * (1 - discount / 100) * margin / 100) <= Decimal("0.02")
