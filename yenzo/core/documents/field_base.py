"""What all kinds of field have, and what those have that are typed in."""

from decimal import Decimal
from typing import Annotated, ClassVar, Literal

from pydantic import Field, JsonValue

from yenzo.core.documents.rules import Rule, Test
from yenzo.core.documents.values import Frozen, Key, Label, Picture, Text

Country = Annotated[str, Field(pattern=r"^[A-Z]{2}$")]
Width = Literal["full", "half", "third"]
# What a unit of length is in millimetres.
UNITS_MM = {"mm": 1, "cm": 10, "m": 1000, "in": 25.4, "ft": 304.8}
Number = Annotated[Decimal, Field(max_digits=15, decimal_places=6, allow_inf_nan=False)]
Count = Annotated[int, Field(ge=1, le=10_000)]


class FieldBase(Frozen):
    """What every kind of field has: two names, help, its place, when it needed and when it is asked.

    What a kind is to rules, charges and placements stands with the kind, so that nothing else lists kinds:
    `is_asked` tells whether customers are asked, `has_entry` whether it can hold one, `is_number` whether that counts,
    `lands_as` what it can be on the goods, `takes_files` whether files are sent for it, `tests` which comparisons rules
    make beside filled and empty, `charged_by`
    which charges count what is entered.
    """

    is_asked: ClassVar[bool] = True
    has_entry: ClassVar[bool] = True
    is_number: ClassVar[bool] = False
    lands_as: ClassVar[Literal["text", "artwork", "items"] | None] = None
    takes_files: ClassVar[bool] = False
    tests: ClassVar[tuple[Test, ...]] = ("is", "is_not")
    charged_by: ClassVar[tuple[str, ...]] = ()

    key: Key
    label: Label
    workshop_name: Text = ""
    help: Text = ""
    explanation: Text = Field(default="", description="a longer help, on demand")
    picture: Picture | None = Field(default=None, description="shown with the explanation")
    section: Key | None = None
    width: Width = "full"
    lands_on: Text = Field(default="", description="in a kit: what imprint areas are called that it lands on")
    kept: dict[str, JsonValue] = Field(default={}, description="what another kind had, for the way back; drafts only")
    required: bool = False
    required_when: Rule | None = None
    ask_when: Rule | None = None

    @property
    def offered(self) -> tuple[str, ...] | None:
        """The keys of what can be chosen, or None where anything can be entered."""
        return None


class TypedField(FieldBase):
    """What everything that is typed has. Hint and sample are never produced; a default is an entry like any other."""

    tests: ClassVar[tuple[Test, ...]] = ("is", "is_not", "contains", "one_of")

    hint: Text = ""
    sample: Text = ""
    default: Text = ""
