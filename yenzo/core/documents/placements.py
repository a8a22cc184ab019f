"""Placements: how an entry lands in an imprint area, one model a kind, told apart by `kind`."""

import re
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.effects import ColorSource, Effects
from yenzo.core.documents.entries import MOST_FILES
from yenzo.core.documents.freedoms import ALL_FREE, HELD_FAST, Freedoms
from yenzo.core.documents.rules import Rule
from yenzo.core.documents.values import Angle, Frozen, Key, Length, Offset, Text

# OpenType features that a seller may ask for, where the font has them.
Feature = Literal["small_capitals", "old_style_figures", "swashes", "discretionary_ligatures"]
JOINED_FIELD = re.compile(r"\{([a-z0-9][a-z0-9_-]{0,59})\}")


class TypefaceSource(Frozen):
    """A typeface that is either fixed by the seller or the entry of a typeface field."""

    fixed: Key | None = None
    field: Key | None = None

    @model_validator(mode="after")
    def _exactly_one(self) -> Self:
        if (self.fixed is None) == (self.field is None):
            raise ValueError('name either "fixed" or "field"')
        return self


class PlacementBase(Frozen):
    """What every placement has: its entry's field, the area of a side where it lands, and perhaps when it does."""

    key: Key
    field: Key
    side: Key
    area: Key
    when: Rule | None = None
    free: Freedoms = Field(default=HELD_FAST, description="what customers may change by hand")

    @property
    def fields(self) -> tuple[str, ...]:
        """The fields whose entries land here; the first one is the line of the form that this placement belongs to."""
        return (self.field,)


class TextPlacement(PlacementBase):
    """What every text has: letter heights, typeface, color, spacing, and perhaps other entries in the same text.

    `joined` is the text with the fields' keys in braces ("{first} & {second}"); an empty entry takes its joiner along.
    Letter spacing is added between letters, in hundredths of the em. A text that `may_overlap` may lie over others.
    """

    least_mm: Length
    most_mm: Length
    typeface: TypefaceSource
    color: ColorSource
    joined: Annotated[Text, Field(max_length=500)] = ""
    letter_spacing: float = Field(default=0, ge=-10, le=200)
    features: tuple[Feature, ...] = ()
    effects: Effects = Effects()
    may_overlap: bool = False

    @property
    def colors(self) -> tuple[ColorSource, ...]:
        """The sources of all colors that the text uses."""
        return (self.color, *self.effects.colors)

    @property
    def fields(self) -> tuple[str, ...]:
        """The fields whose entries make the text: its own, or all that `joined` names."""
        named = tuple(dict.fromkeys(JOINED_FIELD.findall(self.joined)))
        return (self.field, *(key for key in named if key != self.field))

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        if self.least_mm > self.most_mm:
            raise ValueError(f"the least letter height, {self.least_mm:g} mm, is above the most, {self.most_mm:g} mm")
        if self.joined and self.field not in JOINED_FIELD.findall(self.joined):
            raise ValueError(f"the joined text “{self.joined}” doesn't name its own field, {{{self.field}}}")
        return self


class AlignedText(TextPlacement):
    """A text that stands at one end of its room or in its middle."""

    align: Literal["left", "center", "right"] = "center"


class BaseLine(Frozen):
    """A straight base line in mm of its area: where it starts, how long it is, and its angle (clockwise)."""

    x_mm: Offset
    y_mm: Offset
    length_mm: Length
    angle_deg: Angle = 0


class LinePlacement(AlignedText):
    """A text on a straight line, as large as fits between two letter heights, inside the safe margin.

    With a base line of its own it stands on that, as large as its length allows. Aligned by its capitals, texts of one
    size have their base line at one height, as pieces of a set need it.
    """

    kind: Literal["line"] = "line"
    vertical: Literal["top", "middle", "bottom", "capitals"] = "middle"
    base_line: BaseLine | None = None


class BlockPlacement(TextPlacement):
    """A text that wraps inside the safe margin. Line spacing is from base line to base line, in letter heights.

    The least spacings say how far a text that is too long may be tightened; without them it isn't.
    """

    kind: Literal["block"] = "block"
    align: Literal["left", "center", "right", "justified"] = "center"
    vertical: Literal["top", "middle", "bottom"] = "middle"
    line_spacing: float = Field(default=1.7, ge=1, le=6)
    least_line_spacing: float | None = Field(default=None, ge=1, le=6)
    least_letter_spacing: float | None = Field(default=None, ge=-10, le=200)


class ArcPlacement(AlignedText):
    """A text on a circle in mm of its area. `middle_deg` is where its middle stands: 0 right, 90 below, 270 on top.

    Letters stand `over` the circle (outside, read at the top), `under` it (outside, tops to the circle, read at the
    bottom), `inside` it (tops to the circle, read at the top) or `inside_under` (on the circle, read at the bottom).
    Spread is the most of the circle that it takes.
    """

    kind: Literal["arc"] = "arc"
    x_mm: Offset
    y_mm: Offset
    radius_mm: Length
    middle_deg: Angle = 270
    spread_deg: float = Field(default=180, gt=0, le=360)
    stand: Literal["over", "under", "inside", "inside_under"] = "over"


class CurvePlacement(AlignedText):
    """A text along cubic curves in mm of its area: an end, then two controls and an end for each curve."""

    kind: Literal["curve"] = "curve"
    points: tuple[tuple[Offset, Offset], ...] = Field(min_length=4, max_length=61)

    @model_validator(mode="after")
    def _whole_curves(self) -> Self:
        if len(self.points) % 3 != 1:
            raise ValueError("a curve has an end, then two controls and an end for each part: 4, 7, 10 … points")
        if len(set(self.points)) < 2:
            raise ValueError("the points of the curve lie on each other; put them apart")
        return self


class EdgePlacement(AlignedText):
    """A text that follows its area's edge inside the safe margin, round its corners.

    `middle_deg` is where its middle stands, seen from the area's: 0 right, 90 below, 270 on top. Tops of letters point
    out to the edge, or in from it.
    """

    kind: Literal["edge"] = "edge"
    middle_deg: Angle = 270
    tops: Literal["out", "in"] = "out"


class StackPlacement(AlignedText):
    """A text whose characters stand below each other, as large as fits inside the safe margin."""

    kind: Literal["stack"] = "stack"
    vertical: Literal["top", "middle", "bottom"] = "middle"


class ArtworkPlacement(PlacementBase):
    """A picture or drawing that covers its area (bleed included) or fits into it (inside the safe margin).

    With a color all outlines of a drawing are painted in that one.
    """

    kind: Literal["artwork"] = "artwork"
    fit: Literal["cover", "contain"] = "cover"
    nth: int = Field(default=1, ge=1, le=MOST_FILES, description="which one of several files lands here")
    color: ColorSource | None = None

    @property
    def colors(self) -> tuple[ColorSource, ...]:
        """The sources of all colors that the artwork is painted in."""
        return (self.color,) if self.color else ()


AnyText = LinePlacement | BlockPlacement | ArcPlacement | CurvePlacement | EdgePlacement | StackPlacement


class OwnItemsPlacement(PlacementBase):
    """An area that customers put own items in, unless it is locked: these are theirs to move, turn and size."""

    kind: Literal["own_items"] = "own_items"
    free: Freedoms = Field(default=ALL_FREE, description="all of it: a document needn't say so")

    @model_validator(mode="after")
    def _all_free(self) -> Self:
        if self.free != ALL_FREE:
            raise ValueError("own items are the customers' to move; lock the area instead")
        return self

    @property
    def colors(self) -> tuple[ColorSource, ...]:
        """None: items bring their own."""
        return ()


AnyPlacement = Annotated[AnyText | ArtworkPlacement | OwnItemsPlacement, Field(discriminator="kind")]
