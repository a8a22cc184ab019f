"""What formulas may name: a set-up and what each entry is come in, values by name go out."""

from collections.abc import Callable, Iterator, Mapping
from decimal import Decimal

from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.entries import Address, files_of
from yenzo.core.documents.fields import AnyField, ArtworkField, ComputedField, ExtraField, NumberField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.rules import Entry, read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import FormulaError
from yenzo.core.formulas.evaluate import Named, names_in

BASE_PRICE, PIECES = "base_price", "pieces"
# What a formula of a charge may name beside.
MEASURED = ("ink_cm2", "area_cm2", "colors", "sides", "placed")


def name_of(field_key: str) -> str:
    """Return what a formula calls a field."""
    return field_key.replace("-", "_")


def known_names(setup: Setup) -> dict[str, str]:
    """Return what a formula of this set-up may name, and what each is, in words."""
    named = {BASE_PRICE: "the price without extras, with its variant", PIECES: "how many pieces are ordered"}
    properties = {*setup.offer.properties, *(name for one in setup.offer.variants for name in one.properties)}
    named |= dict.fromkeys(sorted(properties), "a property of the product")
    for field in setup.fields:
        if field.has_entry:
            unit = field.unit if isinstance(field, NumberField | ComputedField) else ""
            named[name_of(field.key)] = f"{field.label} ({unit})" if unit else field.label
    return named


def product_names(setup: Setup, variant_key: str | None, pieces: int) -> dict[str, Named]:
    """Return the product's own values by name."""
    variant = setup.offer.variant(variant_key)
    price = setup.offer.base_price + (variant.price_difference if variant else 0)
    properties = setup.offer.properties | (variant.properties if variant else {})
    return {**properties, BASE_PRICE: price, PIECES: Decimal(pieces)}


def named_value(field: AnyField, value: Entry) -> Named:
    """Return an entry as formulas take it: a number, a text, yes or no, keys of several choices; of files, how many."""
    if isinstance(field, NumberField | ComputedField | ExtraField):
        return read_number(str(value)) or Decimal(0)
    if isinstance(field, ArtworkField):
        return Decimal(len(files_of(value)))
    if isinstance(value, UploadedFile | Address):
        return bool(value)
    if isinstance(field, OwnItemsField):
        return Decimal(len(value) if isinstance(value, tuple) else 0)
    # Nothing but files has files.
    return tuple(str(key) for key in value) if isinstance(value, tuple) else value


class Names(Mapping[str, Named]):
    """Names that are looked up only when a formula asks for them."""

    def __init__(
        self, fixed: Mapping[str, Named], fields: Mapping[str, AnyField], value_of: Callable[[str], Entry]
    ) -> None:
        self._fixed = fixed
        self._fields = fields
        self._value_of = value_of

    def __getitem__(self, name: str) -> Named:
        if name in self._fixed:
            return self._fixed[name]
        field = self._fields[name]
        return named_value(field, self._value_of(field.key))

    def __iter__(self) -> Iterator[str]:
        yield from self._fixed
        yield from self._fields

    def __len__(self) -> int:
        return len(self._fixed) + len(self._fields)


def fields_by_name(setup: Setup) -> dict[str, AnyField]:
    """Return the fields that a formula may name."""
    return {name_of(field.key): field for field in setup.fields if field.has_entry}


def readable_names(formula: str) -> tuple[str, ...]:
    """Return the names in a formula; none when it can't be read, which is told elsewhere."""
    try:
        return names_in(formula)
    except FormulaError:
        return ()


def formula_fault(setup: Setup, formula: str, *also: str) -> str | None:
    """Return what is the matter with a formula, in words: it can't be read, or names what isn't there."""
    try:
        names = names_in(formula)
    except FormulaError as error:
        return error.message
    known = {*known_names(setup), *also}
    unknown = [name for name in names if name not in known]
    return f"“{formula}” names “{unknown[0]}”, which isn't there." if unknown else None
