"""The price helper: what goods cost comes in; a price with the wanted margin, and margins, go out."""

from decimal import ROUND_HALF_UP, Decimal
from typing import Annotated, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Frozen, Key, Money

Share = Annotated[Decimal, Field(ge=0, lt=100, max_digits=6, decimal_places=3)]
Minutes = Annotated[Decimal, Field(ge=0, le=10_000, max_digits=8, decimal_places=2)]
NONE = Decimal(0)
CENT = Decimal("0.01")


class ExtraCost(Frozen):
    """What a charge stands for costs: minutes of work, and materials."""

    minutes: Minutes = NONE
    materials: Money = NONE


class Costs(Frozen):
    """What one piece costs the workshop, without its extras, and what it is to earn.

    Shares are in percent: fees of the price paid, discount of the price asked, spoilt of the pieces made, margin of the
    price after discount.
    """

    blank: Money = NONE
    minutes: Minutes = NONE
    hourly_rate: Money = NONE
    materials: Money = NONE
    postage: Money = NONE
    marketing: Money = NONE
    fee_fixed: Money = NONE
    fee_percent: Share = NONE
    discount_percent: Share = NONE
    spoilt_percent: Share = NONE
    margin_percent: Share = NONE
    extras: dict[Key, ExtraCost] = {}

    @model_validator(mode="after")
    def _possible(self) -> Self:
        if self.fee_percent + self.margin_percent >= 100:
            raise ValueError("fees and margin together take the whole price; no price can give both")
        return self

    def work(self, minutes: Decimal) -> Decimal:
        """Return what so many minutes cost."""
        return minutes / 60 * self.hourly_rate

    @property
    def cost(self) -> Decimal:
        """What one good piece costs: what is spoilt is made again, at the cost of blank, materials and time."""
        made = self.blank + self.materials + self.work(self.minutes)
        return made / (1 - self.spoilt_percent / 100) + self.postage + self.marketing + self.fee_fixed

    @property
    def price(self) -> Decimal:
        """The price to ask: 17.10 with a margin of 43 % is 30.00."""
        paid = self.cost / (1 - (self.fee_percent + self.margin_percent) / 100)
        return (paid / (1 - self.discount_percent / 100)).quantize(CENT, ROUND_HALF_UP)


class Margin(Frozen):
    """What is left of a price after fees and costs, and its share of that price in percent."""

    price: Decimal
    cost: Decimal
    left: Decimal
    percent: Decimal | None

    @property
    def is_loss(self) -> bool:
        """Whether it costs more than it earns."""
        return self.left < 0


def margin_of(costs: Costs, price: Decimal) -> Margin:
    """Return the margin of the piece at a price asked."""
    return _margin(costs, price, costs.cost)


def margin_of_extra(costs: Costs, charge_key: str, amount: Decimal) -> Margin:
    """Return the margin of what a charge stands for, at the amount it comes to."""
    extra = costs.extras.get(charge_key, ExtraCost())
    made = (extra.materials + costs.work(extra.minutes)) / (1 - costs.spoilt_percent / 100)
    return _margin(costs, amount, made)


def _margin(costs: Costs, price: Decimal, cost: Decimal) -> Margin:
    paid = price * (1 - costs.discount_percent / 100)
    left = paid * (1 - costs.fee_percent / 100) - cost
    percent = (100 * left / paid).quantize(Decimal("0.1"), ROUND_HALF_UP) if paid > 0 else None
    return Margin(price=price, cost=cost.quantize(CENT), left=left.quantize(CENT, ROUND_HALF_UP), percent=percent)
