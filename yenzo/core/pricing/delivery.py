"""Ways to deliver: an order's destination and sum come in; the ways that go there, with their prices, go out."""

from collections.abc import Iterable
from decimal import Decimal
from typing import Annotated

from pydantic import Field

from yenzo.core.documents.values import Frozen, Key, Label, Money


class DeliveryWay(Frozen):
    """A way to deliver: its price, free from an order's sum on where that is said, and how long it takes.

    `countries` (ISO 3166-1 alpha-2) are those it goes to, all where none are named; `days` working days on the way.
    """

    key: Key
    name: Label
    price: Money = Field(default=Decimal(0), ge=0)
    free_from: Money | None = Field(default=None, ge=0)
    countries: tuple[Annotated[str, Field(pattern=r"^[A-Z]{2}$")], ...] = ()
    days: int = Field(default=1, ge=0, le=90)
    is_pickup: bool = False
    tax_percent: Annotated[Decimal, Field(ge=0, le=100, max_digits=6, decimal_places=3)] = Decimal(0)

    def goes_to(self, country: str) -> bool:
        """Tell whether it goes to a country."""
        return not self.countries or country in self.countries

    def price_for(self, total: Decimal) -> Decimal:
        """Return what it costs for an order of this sum."""
        return Decimal(0) if self.free_from is not None and total >= self.free_from else self.price


def ways_to(ways: Iterable[DeliveryWay], country: str) -> tuple[DeliveryWay, ...]:
    """Return the ways that go to a country; picking up is always one."""
    return tuple(way for way in ways if way.is_pickup or way.goes_to(country))
