"""Freedoms: what customers may change by hand of what lands on the goods. Nothing is free unless it is named."""

from typing import Annotated, Self

from pydantic import Field, model_validator

from yenzo.core.documents.values import Frozen, Key, Length

Times = Annotated[float, Field(gt=0, le=20)]


class Scaling(Frozen):
    """From how many times the size that a placement gives, to how many."""

    least: Times = 1
    most: Times = 4

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        if self.least > self.most:
            raise ValueError(f"the least size, {self.least:g} times, is above the most, {self.most:g} times")
        return self


class LetterHeights(Frozen):
    """The letter heights, in mm, that customers may choose between."""

    least_mm: Length
    most_mm: Length

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        if self.least_mm > self.most_mm:
            raise ValueError(f"the least letter height, {self.least_mm:g} mm, is above the most, {self.most_mm:g} mm")
        return self


class Freedoms(Frozen):
    """What is free of one placement, each with its bounds; letters, typeface and alignment are those of a text."""

    move: bool = False
    turn_deg: float = Field(default=0, ge=0, le=180, description="the most to either side; 180 is all round")
    scale: Scaling | None = None
    letters: LetterHeights | None = None
    typefaces: tuple[Key, ...] = Field(default=(), max_length=100)
    styles: bool = Field(default=False, description="bold, italic and whatever else the typeface's family has")
    palette: Key | None = Field(default=None, description="whose colors it can have")
    align: bool = False
    order: bool = Field(default=False, description="whether it can be put above or below what lies beside it")

    def __bool__(self) -> bool:
        """Tell whether anything is free."""
        return self != HELD_FAST

    @property
    def has_typefaces(self) -> bool:
        """Whether the typeface can be changed."""
        return bool(self.typefaces) or self.styles


HELD_FAST = Freedoms()
# Of what customers put there themselves.
ALL_FREE = Freedoms(move=True, turn_deg=180, scale=Scaling(least=0.02, most=20), align=True, order=True)
