"""The small types that documents are made of: raw JSON values come in, checked and normalised ones go out."""

import re
import unicodedata
from decimal import Decimal
from typing import Annotated, Any, Self

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, PlainSerializer


class Frozen(BaseModel):
    """A value of a document: never changed in place, no unknown keys, no infinite numbers."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    def but(self, **changes: Any) -> Self:
        """Return this with some values changed, unchecked; itself where none of them differs."""
        changed = {name: value for name, value in changes.items() if getattr(self, name) != value}
        return self.model_copy(update=changed) if changed else self


# What some systems break lines with besides the line feed: VT, FF, NEL, LINE SEPARATOR, PARAGRAPH SEPARATOR.
OTHER_BREAKS = re.compile("\r\n|[\r\x0b\x0c\x85\u2028\u2029]")


def clean_text(value: str) -> str:
    """Return the text in NFC without control characters; line breaks of any kind become line feeds, tabs stay."""
    if value.isascii() and value.isprintable():
        return value
    text = unicodedata.normalize("NFC", OTHER_BREAKS.sub("\n", value))
    return "".join(char for char in text if char in "\n\t" or unicodedata.category(char) not in {"Cc", "Cs"})


def clean_line(value: str) -> str:
    """Return the text as one line: cleaned, with a single space for each run of breaks, tabs and spaces."""
    return " ".join(clean_text(value).split())


def _only_plain_amounts(value: object) -> object:
    if isinstance(value, float):
        raise ValueError('write amounts of money as text, like "12.50"')
    return value


Text = Annotated[str, AfterValidator(clean_text), Field(max_length=20_000)]
Label = Annotated[str, AfterValidator(clean_text), Field(min_length=1, max_length=200)]
Words = Annotated[str, AfterValidator(clean_text), Field(min_length=1, max_length=20_000)]
Language = Annotated[str, Field(pattern=r"^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$")]
Key = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9_-]{0,59}$")]
Sha256 = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
ScreenColor = Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")]
Money = Annotated[
    Decimal,
    BeforeValidator(_only_plain_amounts),
    Field(max_digits=12, decimal_places=3, allow_inf_nan=False),
    PlainSerializer(str, return_type=str),
]
Length = Annotated[float, Field(gt=0, le=20_000)]
Offset = Annotated[float, Field(ge=-20_000, le=20_000)]
Margin = Annotated[float, Field(ge=0, le=500)]
Angle = Annotated[float, Field(ge=-360, le=360)]


class Picture(Frozen):
    """A picture by its content's SHA-256, with its size in pixels."""

    asset: Sha256
    width_px: int = Field(gt=0, le=20_000)
    height_px: int = Field(gt=0, le=20_000)


# The key of a method, color or typeface that nobody has picked yet: such a draft isn't ready.
UNDECIDED = "undecided"
