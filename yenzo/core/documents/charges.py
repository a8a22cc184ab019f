"""Charges: what an entry adds to the price, one model a kind, told apart by `kind`."""

from typing import Annotated, Literal

from pydantic import Field

from yenzo.core.documents.values import Frozen, Key, Money


class FixedCharge(Frozen):
    """An amount that is added when the field is filled (or answered with yes)."""

    kind: Literal["fixed"] = "fixed"
    key: Key
    field: Key
    amount: Money


class ChoiceCharge(Frozen):
    """An amount for each possibility of a choice, typeface or color field; one not named adds nothing."""

    kind: Literal["per_choice"] = "per_choice"
    key: Key
    field: Key
    amounts: dict[Key, Money]


class CharacterCharge(Frozen):
    """An amount for each character beyond the first ones; spaces count only when said so."""

    kind: Literal["per_character"] = "per_character"
    key: Key
    field: Key
    amount: Money
    beyond: int = Field(default=0, ge=0, le=10_000)
    count_spaces: bool = False


AnyCharge = Annotated[FixedCharge | ChoiceCharge | CharacterCharge, Field(discriminator="kind")]
