"""Materials: what a workshop has at hand (methods, palettes, typefaces), as a published set-up carries it."""

from typing import Annotated, Literal

from pydantic import Field

from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.values import Frozen, Key, Label, Length, Money, Picture, ScreenColor, Sha256, Text

Share = Annotated[float, Field(ge=0, le=100)]
FileFormat = Literal["svg", "png", "pdf", "dxf"]


class Method(Frozen):
    """A decoration method with its limits. `done` is the participle that sentences use ("carved")."""

    name: Label
    done: Label
    least_letter_mm: Length = 1.0
    least_small_mm: Length | None = Field(
        default=None, description="of small letters and small capitals; none: the least letter height counts for them"
    )
    least_stroke_mm: float | None = Field(default=None, gt=0, le=50, description="of a letter's strokes")
    least_gap_mm: float | None = Field(default=None, gt=0, le=50, description="of gaps and counters in letters")
    closes_gaps: bool = Field(
        default=False,
        description="whether narrower gaps in a text's edge, plate or shadow are closed instead of refused",
    )
    tool_mm: float = Field(default=0.3, gt=0, le=20, description="the line of a tool, for typefaces of single lines")
    least_dpi: float = Field(default=72, gt=0, le=4800, description="coarser artwork is refused")
    good_dpi: float = Field(default=150, gt=0, le=4800, description="coarser artwork gets advice")
    most_colors: int | None = Field(default=None, ge=1, le=100, description="of texts in one area; none: any number")
    files: tuple[FileFormat, ...] = Field(default=("svg", "png", "pdf"), min_length=1)
    mirrored: bool = Field(default=False, description="whether files are mirrored, as for transfers")
    one_color: bool = Field(default=False, description="whether all that shows becomes one black plate")
    separations: bool = Field(default=False, description="whether each color gets files of its own, too")
    underbase_mm: float | None = Field(
        default=None, ge=-5, le=5, description="a white plate under all colors, grown by this (narrower below zero)"
    )
    registration: bool = Field(default=False, description="whether marks stand around the bleed")
    spot_colors: bool = Field(default=False, description="whether PDFs name their colors as spot colors")
    relief: bool = Field(default=False, description="whether it shows by its depth, whatever its color")
    transparency: bool = Field(default=True, description="whether see-through parts of pictures stay so in PDFs")
    cmyk: bool = Field(default=False, description="whether PDFs have the process colors that palettes give")
    gradients: bool = Field(default=True, description="whether a color can go over into another one")
    setup_minutes: float = Field(default=5, ge=0, le=600, description="before the first piece")
    piece_minutes: float = Field(default=3, ge=0, le=600, description="for each piece")
    letter_minutes: float = Field(default=0.1, ge=0, le=60, description="for each letter on it")
    cm2_minutes: float = Field(default=0.01, ge=0, le=60, description="for each cm2 of the boxes round its ink")
    hour_cost: Money = Field(default="30", ge=0, validate_default=True, description="what an hour of it costs")
    order: int = Field(default=50, ge=0, le=100, description="of several methods on a piece, the lower is made first")

    @property
    def least_of_small_mm(self) -> float:
        """How high small letters and small capitals are at least."""
        return self.least_letter_mm if self.least_small_mm is None else self.least_small_mm

    @property
    def knocks_out(self) -> bool:
        """Whether what lies under another color is cut out of its plate."""
        return self.separations or self.spot_colors

    @property
    def is_plates(self) -> bool:
        """Whether pictures and gradients can't be made: every plate has one color."""
        return self.one_color or self.separations or self.spot_colors or self.underbase_mm is not None


class PaletteColor(Frozen):
    """A color: how a screen shows it, what the workshop calls the ink, thread or spot, and the tool that makes it.

    `cmyk` is how it is printed in process colors, each in percent.
    """

    key: Key
    name: Label
    screen: ScreenColor
    reference: Text = ""
    tool: Text = ""
    cmyk: tuple[Share, Share, Share, Share] | None = None


class Palette(Frozen):
    """Colors that customers or the seller choose from."""

    name: Label
    colors: tuple[PaletteColor, ...] = Field(min_length=1)

    def color(self, key: str) -> PaletteColor | None:
        """Return the color with this key, if the palette has it."""
        return next((color for color in self.colors if color.key == key), None)


class Typeface(Frozen):
    """A typeface as customers see it, and the font file that draws it; of a variable one, a named instance."""

    name: Label
    font: Sha256
    instance: Text = ""
    family: Text = ""
    licence: Text = ""


class WordList(Frozen):
    """Words that nobody may have made here, and what is said to whoever types one."""

    name: Label
    words: tuple[Label, ...] = Field(min_length=1, max_length=5000)
    message: Text = ""


class ReadyDrawing(Frozen):
    """A piece of ready-made artwork, found by its name and tags."""

    key: Key
    name: Label
    tags: tuple[Label, ...] = Field(default=(), max_length=20)
    artwork: UploadedFile
    picture: Picture | None = Field(default=None, description="how lists show it")


class Collection(Frozen):
    """Ready-made artwork that customers pick from."""

    name: Label
    drawings: tuple[ReadyDrawing, ...] = Field(min_length=1, max_length=500)

    def drawing(self, key: str) -> ReadyDrawing | None:
        """Return the drawing with this key, if the collection has it."""
        return next((one for one in self.drawings if one.key == key), None)


class Materials(Frozen):
    """Everything a set-up refers to outside itself, by key."""

    methods: dict[Key, Method] = {}
    palettes: dict[Key, Palette] = {}
    typefaces: dict[Key, Typeface] = {}
    word_lists: dict[Key, WordList] = {}
    collections: dict[Key, Collection] = {}

    def kin_of(self, typeface: str) -> tuple[str, ...]:
        """Return the keys of the typefaces of the same family, in order; none where the family has no name."""
        family = self.typefaces[typeface].family if typeface in self.typefaces else ""
        return tuple(key for key, one in self.typefaces.items() if family and one.family == family)
