"""Charges: what an entry adds to the price (or, below zero, takes off), one model a kind, told apart by `kind`."""

from decimal import Decimal
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Frozen, Key, Money

Beyond = Annotated[int, Field(ge=0, le=10_000)]
Percent = Annotated[Decimal, Field(ge=-100, le=1000, max_digits=8, decimal_places=4)]


class ChargeBase(Frozen):
    """What every charge has: whose entry it hangs on, and the least and most that it comes to."""

    key: Key
    field: Key
    least: Money | None = None
    most: Money | None = None

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        if self.least is not None and self.most is not None and self.least > self.most:
            raise ValueError(f"the least that it comes to, {self.least}, is above the most, {self.most}")
        return self


class FixedCharge(ChargeBase):
    """An amount that is added when the field is filled (or answered with yes)."""

    kind: Literal["fixed"] = "fixed"
    amount: Money


class PercentCharge(ChargeBase):
    """A share of the base price (its variant included) that is added when the field is filled."""

    kind: Literal["percent"] = "percent"
    percent: Percent


class ChoiceCharge(ChargeBase):
    """An amount for each possibility of a choice, typeface or color field; one not named adds nothing."""

    kind: Literal["per_choice"] = "per_choice"
    amounts: dict[Key, Money]


class CountedCharge(ChargeBase):
    """An amount for each of something beyond the first ones."""

    amount: Money
    beyond: Beyond = 0


class CharacterCharge(CountedCharge):
    """An amount a character; spaces count only when said so."""

    kind: Literal["per_character"] = "per_character"
    count_spaces: bool = False


class WordCharge(CountedCharge):
    """An amount a word, as the words of its language are told apart."""

    kind: Literal["per_word"] = "per_word"


class LineCharge(CountedCharge):
    """An amount a line that is filled, of a paragraph."""

    kind: Literal["per_line"] = "per_line"


AnyCharge = Annotated[
    FixedCharge | PercentCharge | ChoiceCharge | CharacterCharge | WordCharge | LineCharge, Field(discriminator="kind")
]
