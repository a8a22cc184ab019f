"""The entries document `yenzo-entries/1`: what one customer gave for one piece."""

from typing import Annotated, Literal

from pydantic import Field

from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.own_items import OwnItems, OwnPicture
from yenzo.core.documents.values import Frozen, Key, Length, Offset, Text

# Of one field: each is looked at by itself, and shown.
MOST_FILES = 40
MOST_LEVELS = 100
MOST_PIECES = 10_000
MOST_MEANT = 40
Align = Literal["left", "center", "right", "justified"]


class Adjustment(Frozen):
    """What the customer changed by hand, relative to where the placement puts it; turning and scaling keep the middle.

    `level` is how many steps it lies above (below zero: below) where it would.
    """

    shift_mm: tuple[Offset, Offset] = (0, 0)
    turn_deg: float = Field(default=0, ge=-360, le=360)
    scale: float = Field(default=1, gt=0, le=20)
    letter_mm: Length | None = None
    typeface: Key | None = None
    color: Key | None = None
    align: Align | None = None
    level: int = Field(default=0, ge=-MOST_LEVELS, le=MOST_LEVELS)

    def __bool__(self) -> bool:
        """Tell whether anything was changed."""
        return self != UNTOUCHED


UNTOUCHED = Adjustment()


Files = UploadedFile | tuple[UploadedFile, ...]


def files_of(value: object) -> tuple[UploadedFile, ...]:
    """Return the files of an entry, in order; none of what is no file."""
    if isinstance(value, UploadedFile):
        return (value,)
    if not isinstance(value, tuple):
        return ()
    # What was doubled on the goods is one file.
    made = dict.fromkeys(one.made for one in value if isinstance(one, OwnPicture) and one.made)
    return (*(one for one in value if isinstance(one, UploadedFile)), *made)


class Address(Frozen):
    """A postal address in its parts; `street` may have several lines."""

    name: Text = ""
    company: Text = ""
    street: Text = ""
    district: Text = ""
    postcode: Text = ""
    town: Text = ""
    region: Text = ""
    country: str = Field(pattern=r"^[A-Z]{2}$")

    def __bool__(self) -> bool:
        """Tell whether anything but the country is filled in."""
        return any(value for name, value in self if name != "country")


class Meant(Frozen):
    """An answer to a question of the second look: so it is meant. It holds for this doubt about this text only."""

    code: Key
    text: Text


RawValue = Text | bool | tuple[Key, ...] | Address


class Entries(Frozen):
    """Values, uploads, own items and answers to questions by field key, adjustments by placement key."""

    schema_: Literal["yenzo-entries/1"] = Field(default="yenzo-entries/1", alias="schema")
    values: dict[Key, RawValue] = {}
    uploads: dict[Key, Files] = {}
    adjustments: dict[Key, Adjustment] = {}
    items: dict[Key, OwnItems] = {}
    meant: dict[Key, Annotated[tuple[Meant, ...], Field(max_length=MOST_MEANT)]] = {}
    variant: Key | None = None
    pieces: int = Field(default=1, ge=1, le=MOST_PIECES)
    language: str = Field(default="en", pattern=r"^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$")
