"""Fields: what a set-up asks, one model a kind, told apart by `kind`."""

from typing import Annotated, Literal

from pydantic import Field

from yenzo.core.documents.values import Frozen, Key, Label, Text

ArtworkKind = Literal["png", "jpeg", "webp", "tiff", "heic", "svg", "pdf"]
Count = Annotated[int, Field(ge=1, le=10_000)]


class Condition(Frozen):
    """One comparison with the entry of another field. An entry that is not asked is as if empty."""

    field: Key
    test: Literal["is", "is_not"] = "is"
    value: str | bool


class Rule(Frozen):
    """When a field is asked: when all, or any, of its conditions hold."""

    match: Literal["all", "any"] = "all"
    conditions: tuple[Condition, ...] = Field(min_length=1, max_length=20)


class FieldBase(Frozen):
    """What every kind of field has: two names, help, whether it must be filled and when it is asked."""

    key: Key
    label: Label
    workshop_name: Text = ""
    help: Text = ""
    required: bool = False
    ask_when: Rule | None = None


class Allowed(Frozen):
    """Which characters a text may have; `others` lists single characters beside the named sets."""

    letters: bool = True
    digits: bool = True
    space: bool = True
    others: Text = ""


class TextField(FieldBase):
    """What every text has. Hint and sample are never produced; a default is an entry like any other."""

    hint: Text = ""
    sample: Text = ""
    default: Text = ""
    least_characters: Count | None = None
    most_characters: Count | None = None
    allowed: Allowed | None = None
    capitals: bool = False


class LineField(TextField):
    """A line of text."""

    kind: Literal["line"] = "line"


class ParagraphField(TextField):
    """A text of several lines, as many as there are unless there is a limit."""

    kind: Literal["paragraph"] = "paragraph"
    most_lines: Count | None = None


class Option(Frozen):
    """One possibility of a choice: the customer's title and, apart from it, the text that gets produced."""

    key: Key
    label: Label
    produced: Text = ""


class ChoiceField(FieldBase):
    """A choice of one among options; without a default it begins with nothing chosen."""

    kind: Literal["choice"] = "choice"
    options: tuple[Option, ...] = Field(min_length=1, max_length=200)
    default: Key | None = None

    def option(self, key: object) -> Option | None:
        """Return the option with this key, if there is one."""
        return next((option for option in self.options if option.key == key), None)


class YesNoField(FieldBase):
    """A question answered by yes or no; required means that only yes will do."""

    kind: Literal["yes_no"] = "yes_no"
    default: bool = False


class TypefaceField(FieldBase):
    """A choice of typeface among some of the materials."""

    kind: Literal["typeface"] = "typeface"
    typefaces: tuple[Key, ...] = Field(min_length=1, max_length=100)
    default: Key | None = None


class ColorField(FieldBase):
    """A color of a palette; an empty list of colors means the whole palette."""

    kind: Literal["color"] = "color"
    palette: Key
    colors: tuple[Key, ...] = ()
    default: Key | None = None


class OneColor(Frozen):
    """How a file becomes outlines of one color: how dark is ink (0 to 100), and how smooth its edges get, in pixels."""

    threshold: float = Field(default=50, gt=0, lt=100)
    smoothness: float = Field(default=1, ge=0, le=20)


class ArtworkField(FieldBase):
    """A picture or drawing of the customer's own; with `one_color` it becomes outlines of one color."""

    kind: Literal["artwork"] = "artwork"
    kinds: tuple[ArtworkKind, ...] = Field(default=("png", "jpeg", "webp"), min_length=1)
    most_megabytes: float = Field(default=25, gt=0, le=50)
    least_pixels: Count | None = Field(default=None, description="least length of a picture's shorter edge")
    one_color: OneColor | None = None


AnyField = Annotated[
    LineField | ParagraphField | ChoiceField | YesNoField | TypefaceField | ColorField | ArtworkField,
    Field(discriminator="kind"),
]
