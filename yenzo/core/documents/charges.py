"""Charges: what an entry adds to the price (or, below zero, takes off), one model a kind, told apart by `kind`."""

from decimal import ROUND_CEILING, ROUND_FLOOR, ROUND_HALF_UP, Decimal
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Frozen, Key, Money, Text

Beyond = Annotated[int, Field(ge=0, le=10_000)]
Percent = Annotated[Decimal, Field(ge=-100, le=1000, max_digits=8, decimal_places=4)]
Formula = Annotated[str, Field(min_length=1, max_length=1000)]
# What an amount is charged for: each piece, each line of an order however many pieces it has, or each order.
Per = Literal["piece", "line", "order"]

ROUNDED = {"nearest": ROUND_HALF_UP, "up": ROUND_CEILING, "down": ROUND_FLOOR}


class Rounding(Frozen):
    """To which step an amount is rounded, and which way."""

    step: Annotated[Money, Field(gt=0)]
    way: Literal["nearest", "up", "down"] = "nearest"


class ChargeBase(Frozen):
    """What every charge has: whose entry it hangs on (none: the piece as a whole), what for, and its bounds.

    `label` stands in the quote in place of the field's own. What isn't `shown` appears in one sum with the others.
    """

    key: Key
    field: Key | None = None
    label: Text = ""
    per: Per = "piece"
    shown: bool = True
    rounding: Rounding | None = None
    least: Money | None = None
    most: Money | None = None

    def bounded(self, amount: Decimal) -> Decimal:
        """Return an amount rounded, and no less and no more than this charge may come to."""
        if self.rounding is not None:
            steps = (amount / self.rounding.step).to_integral_value(ROUNDED[self.rounding.way])
            amount = steps * self.rounding.step
        if self.least is not None:
            amount = max(amount, self.least)
        return amount if self.most is None else min(amount, self.most)

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


class UploadCharge(CountedCharge):
    """An amount for each file that is sent."""

    kind: Literal["per_upload"] = "per_upload"


class ItemCharge(CountedCharge):
    """An amount for each item that customers put on the goods themselves, of one kind or of any."""

    kind: Literal["per_item"] = "per_item"
    of: Literal["any", "text", "picture", "drawing", "code"] = "any"


class ColorCharge(CountedCharge):
    """An amount for each color that is used."""

    kind: Literal["per_color"] = "per_color"


class SideCharge(CountedCharge):
    """An amount for each side of the goods that something lands on."""

    kind: Literal["per_side"] = "per_side"


class PlacedCharge(CountedCharge):
    """An amount for each text and each artwork that lands somewhere."""

    kind: Literal["per_placed"] = "per_placed"


class SquareCharge(CountedCharge):
    """An amount for each square centimetre: of the box around the ink, or of the whole areas that it lands in."""

    kind: Literal["per_cm2"] = "per_cm2"
    measured: Literal["ink", "area"] = "ink"


class Band(Frozen):
    """From how much on an amount or a share of the base price is added."""

    begins: Annotated[Decimal, Field(ge=0, max_digits=12, decimal_places=3)]
    amount: Money = Field(default="0", validate_default=True)
    percent: Percent = Field(default=0, validate_default=True)


class BandCharge(ChargeBase):
    """An amount by bands: of pieces ordered, of a number that is entered, or of decorated cm2.

    `pieces` counts those of one design, `product_pieces` all of the product in an order, whatever is on them.
    """

    kind: Literal["bands"] = "bands"
    of: Literal["pieces", "product_pieces", "entry", "cm2"] = "pieces"
    bands: tuple[Band, ...] = Field(min_length=1, max_length=50)

    @model_validator(mode="after")
    def _rising(self) -> Self:
        begins = [band.begins for band in self.bands]
        if begins != sorted(set(begins)):
            raise ValueError("each band must begin above the one before it")
        return self


class FormulaCharge(ChargeBase):
    """What a formula over entries, prices, sizes and the product's own properties comes to."""

    kind: Literal["formula"] = "formula"
    formula: Formula


AnyCharge = Annotated[
    FixedCharge
    | PercentCharge
    | ChoiceCharge
    | CharacterCharge
    | WordCharge
    | LineCharge
    | UploadCharge
    | ItemCharge
    | ColorCharge
    | SideCharge
    | PlacedCharge
    | SquareCharge
    | BandCharge
    | FormulaCharge,
    Field(discriminator="kind"),
]
# What only a field can be charged by.
OF_A_FIELD = (ChoiceCharge, CharacterCharge, WordCharge, LineCharge, UploadCharge, ItemCharge)
