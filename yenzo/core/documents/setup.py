"""The set-up document `yenzo-setup/1`: everything a seller sets up for one product."""

from collections.abc import Iterable, Mapping
from decimal import Decimal
from functools import lru_cache
from typing import Annotated, Any, Literal

from pydantic import Field

from yenzo.core.documents.areas import Area
from yenzo.core.documents.axes import Axis
from yenzo.core.documents.charges import AnyCharge
from yenzo.core.documents.fields import AnyField, ColorField, OptionsField
from yenzo.core.documents.materials import Materials
from yenzo.core.documents.placements import AnyPlacement
from yenzo.core.documents.rules import Rule
from yenzo.core.documents.values import (
    Frozen,
    Key,
    Label,
    Language,
    Length,
    Money,
    Picture,
    Text,
    Words,
)
from yenzo.core.documents.variants import Properties, Scale, Variant


class SizeBy(Frozen):
    """An entry that says how wide, or how high, the goods are; the picture shows them this large."""

    field: Key
    shown_mm: Length


class Side(Frozen):
    """A side of the goods: a picture with a known scale, and the imprint areas on it."""

    key: Key
    name: Label
    picture: Picture
    scale: Scale | None = None
    areas: tuple[Area, ...] = ()
    width_by: SizeBy | None = None
    height_by: SizeBy | None = None

    def size_mm(self) -> tuple[float, float] | None:
        """Width and height of the picture on the goods, or None while no scale is marked."""
        if self.scale is None:
            return None
        return self.picture.width_px / self.scale.px_per_mm, self.picture.height_px / self.scale.px_per_mm

    def area(self, key: str) -> Area | None:
        """Return the imprint area with this key, if the side has it."""
        return next((area for area in self.areas if area.key == key), None)


class Offer(Frozen):
    """The product itself, before anything is personalized."""

    name: Label
    story: Text = ""
    sku: Text = ""
    category: Text = ""
    picture: Picture | None = Field(default=None, description="what shows the goods where no side does; never produced")
    currency: str = Field(default="GBP", pattern=r"^[A-Z]{3}$")
    base_price: Money = Field(ge=0)
    taxes_included: bool = True
    tax_percent: Annotated[Decimal, Field(ge=0, le=100, max_digits=6, decimal_places=3)] = Decimal(0)
    lead_days: int | None = Field(
        default=None,
        ge=0,
        le=365,
        description="working days that it takes to make; none where the workshop's own count",
    )
    properties: Properties = Field(default={}, description="numbers that formulas can use: weight_g, thickness_mm")
    axes: tuple[Axis, ...] = Field(default=(), max_length=4)
    variants: tuple[Variant, ...] = ()

    def variant(self, key: str | None) -> Variant | None:
        """Return the variant with this key, if there is one."""
        return next((variant for variant in self.variants if variant.key == key), None)

    def axis(self, key: str) -> Axis | None:
        """Return the axis with this key, if there is one."""
        return next((axis for axis in self.axes if axis.key == key), None)


@lru_cache(maxsize=256)
def _indexed(by_identity: "_Identity") -> dict[str, Any]:
    return {part.key: part for part in by_identity.parts}


class _Identity:
    """Parts of a set-up told apart by being the very same tuple: comparing them would take longer than searching."""

    def __init__(self, parts: tuple[Any, ...]) -> None:
        self.parts = parts

    def __hash__(self) -> int:
        return id(self.parts)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Identity) and self.parts is other.parts


def index_of(parts: tuple[AnyField, ...]) -> dict[str, AnyField]:
    """Return the parts of a set-up by their keys, made once for each tuple of them."""
    return _indexed(_Identity(parts))


class Section(Frozen):
    """Fields under a title of their own, with an introduction; a section that isn't asked asks none of its fields."""

    key: Key
    title: Label
    introduction: Text = ""
    ask_when: Rule | None = None


class Form(Frozen):
    """How the order slip is laid out: all of it together, sections folded, or one page after another."""

    shown: Literal["together", "folded", "pages"] = "together"
    finish_pages: bool = Field(default=False, description="whether a page must be complete before the next one")
    extras: Literal["rows", "sum", "none"] = Field(
        default="rows", description="whether customers see each charge, what is added in one sum, or the total alone"
    )
    by_list: bool = Field(default=True, description="whether many may be ordered at once from a list of names")


class Setup(Frozen):
    """A whole set-up. A draft has no `materials`; a published one carries all that it refers to."""

    schema_: Literal["yenzo-setup/1"] = Field(default="yenzo-setup/1", alias="schema")
    offer: Offer
    sides: tuple[Side, ...] = ()
    form: Form = Form()
    sections: tuple[Section, ...] = ()
    fields: tuple[AnyField, ...] = ()
    charges: tuple[AnyCharge, ...] = ()
    placements: tuple[AnyPlacement, ...] = ()
    materials: Materials = Materials()
    language: Language = Field(default="en", description="of all words that have no other")
    wording: dict[Language, dict[Words, Words]] = Field(
        default={}, description="by language (BCP 47): what customers read, by the words that it translates"
    )

    def field(self, key: str) -> AnyField | None:
        """Return the field with this key, if there is one."""
        return index_of(self.fields).get(key)

    def offered_of(self, field: AnyField) -> tuple[str, ...]:
        """Return the keys of all that a field offers to choose from, in order; none where anything can be entered."""
        palette = self.materials.palettes.get(field.palette) if isinstance(field, ColorField) else None
        if palette is not None and field.offered is None:
            return tuple(color.key for color in palette.colors)
        return field.offered or ()

    def sku_of(self, variant_key: str | None) -> str:
        """Return what the goods' stock is counted by: the variant's SKU, or the product's own; empty for none."""
        variant = self.offer.variant(variant_key)
        return (variant.sku if variant else "") or self.offer.sku

    def section(self, key: str | None) -> Section | None:
        """Return the section with this key, if there is one."""
        return next((section for section in self.sections if section.key == key), None)

    def fields_of(self, section_key: str | None) -> tuple[AnyField, ...]:
        """Return the fields of a section, or those that stand before all sections."""
        return tuple(field for field in self.fields if field.section == section_key)

    @property
    def form_order(self) -> Iterable[tuple[Section | None, tuple[AnyField, ...]]]:
        """The fields in the order of the form: those before all sections, then each section's."""
        yield None, self.fields_of(None)
        for section in self.sections:
            yield section, self.fields_of(section.key)

    def side(self, key: str) -> Side | None:
        """Return the side with this key, if there is one."""
        return next((side for side in self.sides if side.key == key), None)

    def placement(self, key: str) -> AnyPlacement | None:
        """Return the placement with this key, if there is one."""
        return next((placement for placement in self.placements if placement.key == key), None)

    def placements_of(self, field_key: str) -> Iterable[AnyPlacement]:
        """Yield the placements that belong to a field's line of the form."""
        return (placement for placement in self.placements if placement.field == field_key)

    def landings_of(self, field_key: str) -> Iterable[AnyPlacement]:
        """Yield the placements that the entry of a field lands in, joined to others or not."""
        return (placement for placement in self.placements if field_key in placement.fields)

    def charges_of(self, field_key: str | None) -> Iterable[AnyCharge]:
        """Yield the charges that hang on a field, or those of the piece as a whole."""
        return (charge for charge in self.charges if charge.field == field_key)

    def picture_of(self, side: Side, variant_key: str | None, chosen: Mapping[str, object] | None = None) -> Picture:
        """Return the goods' picture of a side as the chosen variant shows it, and choices by field key after it."""
        variant = self.offer.variant(variant_key)
        picture = variant.pictures.get(side.key, side.picture) if variant else side.picture
        for field in self.fields if chosen else ():
            if isinstance(field, OptionsField) and chosen:
                option = field.option(chosen.get(field.key))
                picture = option.goods.get(side.key, picture) if option else picture
        return picture

    def overlays_of(self, side: Side, chosen: Mapping[str, object]) -> tuple[Picture, ...]:
        """Return what choices by field key lay over a side's picture, in the order of the form."""
        found = []
        for field in self.fields:
            if isinstance(field, OptionsField):
                value = chosen.get(field.key)
                options = [field.option(key) for key in (value if isinstance(value, tuple) else (value,))]
                found += [option.overlays[side.key] for option in options if option and side.key in option.overlays]
        return tuple(found)
