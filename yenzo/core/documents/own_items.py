"""Own items: what customers put on the goods freely, and what of it a set-up allows.

Each lies with its middle at a point of its area, in mm; what isn't said of it yet is found when it is laid out.
"""

from typing import Annotated, Literal, Self

from pydantic import BeforeValidator, Field, model_validator

from yenzo.core.documents.artwork import ArtworkKind, UploadedFile
from yenzo.core.documents.effects import Effects
from yenzo.core.documents.freedoms import LetterHeights
from yenzo.core.documents.values import Angle, Frozen, Key, Label, Length, Offset, Sha256, Text

MOST_OWN_ITEMS = 100
MOST_CODE_CHARACTERS = 300
Count = Annotated[int, Field(ge=1, le=MOST_OWN_ITEMS)]
OwnLayout = Literal["straight", "wrapped", "arched", "round"]
OwnAlign = Literal["left", "center", "right"]
EffectName = Literal["stroke", "shadow", "plate", "fill"]
# Between a field's key and an item's, where both name one thing on the goods: no key has it.
JOIN = "--"
# Of two keys so joined.
MOST_NAME = 122


class OwnItemBase(Frozen):
    """What every item has: its place (a placement of its field), its middle, how it is turned, whether it is locked."""

    key: Key
    place: Key | None = None
    x_mm: Offset | None = None
    y_mm: Offset | None = None
    turn_deg: Angle = 0
    locked: bool = False


class OwnText(OwnItemBase):
    """A text: on a straight line, wrapped at a width, or on a circle of a radius (arched over it, or all round)."""

    kind: Literal["text"] = "text"
    text: Annotated[Text, Field(max_length=500)] = ""
    layout: OwnLayout = "straight"
    align: OwnAlign = "center"
    letter_mm: Length | None = None
    width_mm: Length | None = None
    radius_mm: Length | None = None
    typeface: Key | None = None
    color: Key | None = None
    effects: tuple[EffectName, ...] = Field(default=(), max_length=4)


class OwnPicture(OwnItemBase):
    """A file that was sent for the field, by its prepared content; what that is stands with it once it is asked."""

    kind: Literal["picture"] = "picture"
    file: Sha256
    width_mm: Length | None = None
    made: UploadedFile | None = None


class OwnDrawing(OwnItemBase):
    """A piece of the workshop's ready-made artwork."""

    kind: Literal["drawing"] = "drawing"
    collection: Key
    drawing: Key
    width_mm: Length | None = None
    color: Key | None = None


class OwnCode(OwnItemBase):
    """A QR code of a text or link (ISO/IEC 18004)."""

    kind: Literal["code"] = "code"
    text: Annotated[Text, Field(max_length=MOST_CODE_CHARACTERS)] = ""
    width_mm: Length | None = None
    color: Key | None = None


OwnItem = Annotated[OwnText | OwnPicture | OwnDrawing | OwnCode, Field(discriminator="kind")]
OwnItems = Annotated[tuple[OwnItem, ...], Field(max_length=MOST_OWN_ITEMS)]
# Without a key yet.
NEW_KEY = "new"


def _with_key(value: object) -> object:
    return {**value, "key": NEW_KEY} if isinstance(value, dict) else value


NewItem = Annotated[OwnItem, BeforeValidator(_with_key)]


class OwnTexts(Frozen):
    """Which texts customers may add; `effects` are those that each text may have, all or some, or none of them."""

    most: Count = 5
    most_characters: Annotated[int, Field(ge=1, le=500)] = 60
    letters: LetterHeights
    typefaces: tuple[Key, ...] = Field(min_length=1, max_length=100)
    palette: Key
    layouts: tuple[OwnLayout, ...] = Field(default=("straight", "wrapped", "arched", "round"), min_length=1)
    effects: Effects = Effects()

    @model_validator(mode="after")
    def _colors_are_fixed(self) -> Self:
        if any(source.field for source in self.effects.colors):
            raise ValueError("effects of customers' own texts have colors of a palette")
        return self


class OwnPictures(Frozen):
    """Which pictures customers may send."""

    most: Count = 3
    kinds: tuple[ArtworkKind, ...] = Field(default=("png", "jpeg", "webp"), min_length=1)
    most_megabytes: float = Field(default=25, gt=0, le=50)


class OwnDrawings(Frozen):
    """From which collections customers may pick, and whether they may color what they pick."""

    most: Count = 5
    collections: tuple[Key, ...] = Field(min_length=1, max_length=50)
    palette: Key | None = None


class OwnCodes(Frozen):
    """Which codes customers may add, in colors of a palette."""

    most: Count = 1
    palette: Key


class Beginning(Frozen):
    """Items that a seller arranged for customers to begin from."""

    key: Key
    name: Label
    items: OwnItems = Field(min_length=1, max_length=MOST_OWN_ITEMS)


def item_id(field_key: str, item_key: str) -> str:
    """Return what an item is called on the goods: no placement is called like that."""
    return f"{field_key}{JOIN}{item_key}"


def split_id(item: str) -> tuple[str, str] | None:
    """Return the field and the item of what an item is called on the goods; None for a placement."""
    field, join, key = item.rpartition(JOIN)
    return (field, key) if join and field and key else None
