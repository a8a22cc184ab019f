"""Fields: what a set-up asks, one model a kind, told apart by `kind`."""

from datetime import date
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from yenzo.core.documents.artwork import ArtworkKind, OneColor, UploadedFile
from yenzo.core.documents.entries import MOST_FILES
from yenzo.core.documents.field_base import Count, Country, FieldBase, Number, TypedField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.rules import Rule
from yenzo.core.documents.values import Frozen, Key, Label, Money, Picture, ScreenColor, Text

Case = Literal["typed", "upper", "lower", "words", "first"]


class Allowed(Frozen):
    """Which characters a text may have; `others` lists single characters beside the named sets."""

    letters: bool = True
    digits: bool = True
    space: bool = True
    others: Text = ""


class Pattern(Frozen):
    """Which shapes a text may have, what that means in words, and an example of what passes and of what doesn't.

    In a shape A is a letter, 9 a digit, * any character; what is in brackets may be missing.
    """

    shapes: tuple[
        Annotated[str, Field(pattern=r"^[^\[\]]*(\[[^\[\]]+\][^\[\]]*)*$", min_length=1, max_length=60)], ...
    ] = Field(min_length=1, max_length=10)
    words: Text = ""
    passes: Label
    fails: Label


class TextField(TypedField):
    """What every text has."""

    lands_as = "text"
    charged_by: ClassVar[tuple[str, ...]] = ("per_character", "per_word")

    least_characters: Count | None = None
    most_characters: Count | None = None
    least_words: Count | None = None
    most_words: Count | None = None
    emoji: bool = Field(default=True, description="whether emoji may be typed at all")
    allowed: Allowed | None = None
    pattern: Pattern | None = None
    word_lists: bool = Field(default=True, description="whether the workshop's lists of words are kept out")
    case: Case = Field(default="typed", description="forced by Unicode's full mapping in the language of the text")
    direction: Literal["auto", "right_to_left", "left_to_right"] = "auto"

    @model_validator(mode="before")
    @classmethod
    def _older(cls, values: object) -> object:
        """Read what older documents say: capitals or not."""
        if isinstance(values, dict) and "capitals" in values:
            rest = {name: value for name, value in values.items() if name != "capitals"}
            return {"case": "upper", **rest} if values["capitals"] else rest
        return values


class LineField(TextField):
    """A line of text."""

    kind: Literal["line"] = "line"


class ParagraphField(TextField):
    """A text of several lines, as many as there are unless there is a limit."""

    charged_by = (*TextField.charged_by, "per_line")

    kind: Literal["paragraph"] = "paragraph"
    most_lines: Count | None = None


class Option(Frozen):
    """One possibility of a choice: the customer's title and, apart from it, the text that gets produced."""

    key: Key
    label: Label
    produced: Text = ""
    swatch: ScreenColor | None = None
    picture: Picture | None = None
    artwork: UploadedFile | None = Field(default=None, description="of ready-made artwork: what is made")
    goods: dict[Key, Picture] = Field(default={}, description="by side: what the goods look like when it is chosen")
    overlays: dict[Key, Picture] = Field(
        default={}, description="by side: what lies over the goods' picture when it is chosen, as a part in its color"
    )
    ask_when: Rule | None = Field(default=None, description="offered only when this holds")


class OptionsField(FieldBase):
    """What every choice among options has."""

    charged_by = ("per_choice",)

    options: tuple[Option, ...] = Field(min_length=1, max_length=200)
    shown: Literal["buttons", "list", "pictures"] = "buttons"

    @property
    def offered(self) -> tuple[str, ...]:
        """The keys of its options."""
        return tuple(option.key for option in self.options)

    def option(self, key: object) -> Option | None:
        """Return the option with this key, if there is one."""
        return next((option for option in self.options if option.key == key), None)


class ChoiceField(OptionsField):
    """A choice of one among options; without a default it begins with nothing chosen, and perhaps words of its own."""

    lands_as = "text"

    kind: Literal["choice"] = "choice"
    default: Key | None = None
    prompt: Annotated[Text, Field(max_length=120)] = ""


class SeveralField(OptionsField):
    """A choice of several among options, at least and at most so many."""

    lands_as = "text"
    tests = ("has", "has_not")

    kind: Literal["several"] = "several"
    default: tuple[Key, ...] = ()
    least: Count | None = None
    most: Count | None = None

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        most = len(self.options) if self.most is None else self.most
        if self.least is not None and self.least > most:
            raise ValueError(f"at least {self.least} are wanted, but at most {most} can be chosen")
        return self


class ReadyMadeField(OptionsField):
    """A choice of one among the workshop's own pieces of artwork."""

    lands_as = "artwork"

    kind: Literal["ready_made"] = "ready_made"
    shown: Literal["buttons", "list", "pictures"] = "pictures"
    default: Key | None = None


class MethodField(FieldBase):
    """A choice of decoration method, for the imprint areas that follow it."""

    charged_by = ("per_choice",)

    kind: Literal["method"] = "method"
    methods: tuple[Key, ...] = Field(min_length=1, max_length=50)
    default: Key | None = None

    @property
    def offered(self) -> tuple[str, ...]:
        """The keys of its methods."""
        return self.methods


class FixedTextField(FieldBase):
    """A text of the workshop's own that is made with the customer's; nobody is asked for it."""

    is_asked = False
    lands_as = "text"
    tests = ()

    kind: Literal["fixed_text"] = "fixed_text"
    text: Label


class FixedArtworkField(FieldBase):
    """Artwork of the workshop's own that is made with the customer's; without a file nothing is."""

    is_asked = False
    lands_as = "artwork"
    tests = ()

    kind: Literal["fixed_artwork"] = "fixed_artwork"
    artwork: UploadedFile | None = None


class YesNoField(FieldBase):
    """A question answered by yes or no; required means that only yes will do."""

    tests = ("is",)

    kind: Literal["yes_no"] = "yes_no"
    default: bool = False


class TypefaceField(FieldBase):
    """A choice of typeface among some of the materials."""

    charged_by = ("per_choice",)

    kind: Literal["typeface"] = "typeface"
    typefaces: tuple[Key, ...] = Field(min_length=1, max_length=100)
    default: Key | None = None

    @property
    def offered(self) -> tuple[str, ...]:
        """The keys of its typefaces."""
        return self.typefaces


class ColorField(FieldBase):
    """A color of a palette; an empty list of colors means the whole palette.

    With a reach it may also be a color of the customer's own, as far from one of these (CIEDE2000).
    """

    charged_by = ("per_choice",)

    kind: Literal["color"] = "color"
    palette: Key
    colors: tuple[Key, ...] = ()
    default: Key | None = None
    reach: Annotated[float, Field(gt=0, le=100)] | None = None

    @property
    def offered(self) -> tuple[str, ...] | None:
        """The keys of its colors, or None where it is the whole palette: which that is the set-up's materials know."""
        return self.colors or None


class ArtworkField(FieldBase):
    """Pictures or drawings of the customer's own; with `one_color` they become outlines of one color."""

    lands_as = "artwork"
    takes_files = True
    tests = ()
    charged_by = ("per_upload",)

    kind: Literal["artwork"] = "artwork"
    kinds: tuple[ArtworkKind, ...] = Field(default=("png", "jpeg", "webp"), min_length=1)
    most_megabytes: float = Field(default=25, gt=0, le=50)
    least_files: Annotated[int, Field(ge=1, le=MOST_FILES)] | None = None
    most_files: int = Field(default=1, ge=1, le=MOST_FILES)
    least_pixels: Count | None = Field(default=None, description="least length of a picture's shorter edge")
    one_color: OneColor | None = None
    sample: UploadedFile | None = Field(
        default=None, description="stands on the goods, faint, until the customer's own is there; never produced"
    )


class NumberField(TypedField):
    """A number, written with a point or a comma; `step` counts from the least, or from zero."""

    is_number = True
    lands_as = "text"
    tests = ("is", "is_not", "more", "less")

    kind: Literal["number"] = "number"
    unit: Text = ""
    least: Number | None = None
    most: Number | None = None
    step: Annotated[Number, Field(gt=0)] | None = None

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        if self.least is not None and self.most is not None and self.least > self.most:
            raise ValueError(f"the least, {self.least}, is above the most, {self.most}")
        return self


class DateField(TypedField):
    """A day, kept as YYYY-MM-DD. The earliest is so many working days from today on; Monday is 0."""

    lands_as = "text"
    tests = ("is", "is_not", "more", "less")

    kind: Literal["date"] = "date"
    after_working_days: int | None = Field(default=None, ge=0, le=1000)
    within_days: int | None = Field(default=None, ge=1, le=10_000)
    closed_weekdays: tuple[Annotated[int, Field(ge=0, le=6)], ...] = Field(default=(), max_length=6)
    closed_days: tuple[date, ...] = Field(default=(), max_length=500)
    written: Literal["long", "medium", "short"] = "long"

    @property
    def is_wanted(self) -> bool:
        """Whether it is the day that the goods are wanted by: such days are counted in the workshop's working days."""
        return self.after_working_days is not None


class EmailField(TypedField):
    """A mail address."""

    lands_as = "text"

    kind: Literal["email"] = "email"


class PhoneField(TypedField):
    """A telephone number; numbers without a country belong to this one."""

    lands_as = "text"

    kind: Literal["phone"] = "phone"
    region: Country = "GB"


class LinkField(TypedField):
    """An address in the web."""

    lands_as = "text"

    kind: Literal["link"] = "link"


class AddressField(FieldBase):
    """A postal address, asked and written as its country does; without `countries` any can be chosen."""

    lands_as = "text"
    tests = ()

    kind: Literal["address"] = "address"
    country: Country = Field(default="GB", description="the one that stands there at first")
    countries: tuple[Country, ...] = Field(default=(), max_length=300)


class HeadingField(FieldBase):
    """A heading with words under it, and a picture: it asks nothing."""

    has_entry = False
    tests = ()

    kind: Literal["heading"] = "heading"


class ComputedField(FieldBase):
    """A number that nobody types: what a formula over other entries comes to, rounded; `shown` to customers or not."""

    is_number = True
    lands_as = "text"
    tests = ("more", "less")

    kind: Literal["computed"] = "computed"
    formula: str = Field(min_length=1, max_length=1000)
    unit: Text = ""
    decimals: int = Field(default=0, ge=0, le=6)
    way: Literal["nearest", "up", "down"] = "nearest"
    shown: bool = True


class ExtraField(FieldBase):
    """Another product that goes with the piece: so many of it, at a price of its own, counted in stock by its SKU."""

    tests = ("more", "less")

    kind: Literal["extra"] = "extra"
    price: Money = Field(ge=0)
    sku: Text = ""
    most: Count = 10
    product: Key | None = Field(default=None, description="which product of the shop it is: its price and SKU count")


class NoteField(TypedField):
    """A note to the workshop: it is never produced."""

    kind: Literal["note"] = "note"
    most_characters: Count = 500


AnyField = Annotated[
    LineField
    | ParagraphField
    | NumberField
    | DateField
    | EmailField
    | PhoneField
    | LinkField
    | ComputedField
    | ExtraField
    | AddressField
    | NoteField
    | ChoiceField
    | SeveralField
    | ReadyMadeField
    | MethodField
    | YesNoField
    | TypefaceField
    | ColorField
    | ArtworkField
    | FixedTextField
    | FixedArtworkField
    | OwnItemsField
    | HeadingField,
    Field(discriminator="kind"),
]
