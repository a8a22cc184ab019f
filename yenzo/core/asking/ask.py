"""The one function that decides what is asked (D4): set-up, entries and context come in, `Asked` goes out."""

from collections import Counter
from datetime import date

from yenzo.core.asking.by_hand import allowed_adjustments, freedoms_of
from yenzo.core.asking.invisible import without_invisible
from yenzo.core.asking.kinds import RawEntry, Value, kind_of
from yenzo.core.documents.entries import Adjustment, Entries, Meant, files_of
from yenzo.core.documents.fields import AnyField, ExtraField, NoteField, Option, OptionsField, TextField
from yenzo.core.documents.named import Names, fields_by_name, product_names
from yenzo.core.documents.placements import AnyPlacement
from yenzo.core.documents.rules import AXIS, CATEGORY, SIGNED_IN, SKU, VARIANT, Rule, holds, read_number
from yenzo.core.documents.setup import Setup, index_of
from yenzo.core.documents.values import Frozen, Key


class Context(Frozen):
    """What the core may not fetch itself: today, stock by SKU, and the language unless the entries say."""

    language: str = "en"
    today: date | None = None
    stock: dict[str, int] = {}
    signed_in: bool = False


class Asked(Frozen):
    """Only what is asked now, normalised, in the order of the set-up. All later steps take this, never the raw form.

    `today` is the day it was asked, which bounds of days count from; it is not known of old orders. `stock` is what was
    left, by SKU, of what is counted and could be wanted. `left_out` are characters that showed nothing, by field.
    `meant` are answers to questions of the second look. `in_typed_order` keeps texts of mixed directions as they were
    set before their order was mended, for orders of that time; so does `old_setting` with letters along a bend, which
    were bent along until the end of November 2026, and with ligatures of letters that are set apart.
    """

    values: dict[Key, Value]
    adjustments: dict[Key, Adjustment] = {}
    variant: Key | None = None
    pieces: int = 1
    language: str = "en"
    today: date | None = None
    stock: dict[str, int] = {}
    signed_in: bool = False
    left_out: dict[Key, tuple[str, ...]] = {}
    in_typed_order: bool = False
    old_setting: bool = False
    meant: dict[Key, tuple[Meant, ...]] = {}

    def taken(self, setup: Setup) -> dict[str, int]:
        """Return how many of what, by SKU, all pieces take: of the goods themselves and of their extras."""
        taken: Counter[str] = Counter({setup.sku_of(self.variant): self.pieces})
        for field in setup.fields:
            if isinstance(field, ExtraField) and self.is_filled(field.key):
                taken[field.sku] += int(read_number(self.text(field.key)) or 0) * self.pieces
        return {sku: count for sku, count in taken.items() if sku}

    def subject(self, setup: Setup, key: str) -> Value:
        """Return what a rule looks at: an entry (empty when it isn't asked), the variant, or what the product is."""
        if key in self.values or not key.startswith("@"):
            return self.values.get(key, "")
        if key == SIGNED_IN:
            return self.signed_in
        return product_itself(setup, self.variant, key)

    def names(self, setup: Setup) -> Names:
        """Return what a formula over these entries may look at."""
        product = product_names(setup, self.variant, self.pieces)
        return Names(product, fields_by_name(setup), lambda key: self.values.get(key, ""))

    def lands(self, placement: AnyPlacement) -> bool:
        """Tell whether anything lands by a placement: only while its own line is asked, whatever else it joins."""
        return placement.field in self.values and any(self.is_filled(key) for key in placement.fields)

    def text(self, field_key: str) -> str:
        """Return the entry of a field as text; empty when it isn't asked, isn't filled or isn't a text."""
        value = self.values.get(field_key, "")
        return value if isinstance(value, str) else ""

    def is_filled(self, field_key: str) -> bool:
        """Tell whether a field is asked and has an entry; yes counts as filled, no doesn't."""
        return bool(self.values.get(field_key))


def product_itself(setup: Setup, variant: str | None, key: str) -> str:
    """Return the chosen variant, where it stands on an axis, the category or the SKU of a product."""
    if key.startswith(AXIS):
        chosen = setup.offer.variant(variant)
        return chosen.at.get(key.removeprefix(AXIS), "") if chosen else ""
    return {VARIANT: variant or "", CATEGORY: setup.offer.category, SKU: setup.offer.sku}[key]


def is_offered(setup: Setup, option: Option, asked: Asked) -> bool:
    """Tell whether one possibility of a choice can be had now."""
    return option.ask_when is None or holds(option.ask_when, lambda key: asked.subject(setup, key))


def ask(setup: Setup, entries: Entries, context: Context | None = None) -> Asked:
    """Return what is asked of this customer now. What isn't asked is left out, whatever was typed before."""
    language = entries.language if "language" in entries.model_fields_set else (context or Context()).language
    variants = setup.offer.variants
    variant = setup.offer.variant(entries.variant) or (variants[0] if variants else None)
    signed_in = bool(context and context.signed_in)
    decided = _Decisions(setup, entries, language, variant.key if variant else None, signed_in=signed_in)
    values = {field.key: decided.value(field) for field in setup.fields if decided.is_asked(field)}
    return Asked(
        values=values,
        adjustments=allowed_adjustments(setup, entries.adjustments, values),
        variant=variant.key if variant else None,
        pieces=entries.pieces,
        language=language,
        today=context.today if context else None,
        stock=_known_stock(setup, context) if context else {},
        signed_in=signed_in,
        left_out=_left_out(setup, entries, values),
        meant={key: answers for key, answers in entries.meant.items() if key in values},
    )


def _left_out(setup: Setup, entries: Entries, values: dict[str, Value]) -> dict[str, tuple[str, ...]]:
    typed = {
        field.key: entries.values[field.key]
        for field in setup.fields
        if isinstance(field, TextField | NoteField) and field.key in values and field.key in entries.values
    }
    found = ((key, without_invisible(text)[1]) for key, text in typed.items() if isinstance(text, str))
    return {key: dropped for key, dropped in found if dropped}


def stock_skus(setup: Setup) -> set[str]:
    """Return the SKUs that pieces of a set-up may take from stock: of the goods, their variants, and extras."""
    skus = {setup.sku_of(variant.key) for variant in setup.offer.variants} | {setup.sku_of(None)}
    skus |= {field.sku for field in setup.fields if isinstance(field, ExtraField)}
    return {sku for sku in skus if sku}


def _known_stock(setup: Setup, context: Context) -> dict[str, int]:
    return {sku: context.stock[sku] for sku in sorted(stock_skus(setup)) if sku in context.stock}


class _Decisions:
    """Decides each field once; a rule may look at fields that come later in the form."""

    def __init__(self, setup: Setup, entries: Entries, language: str, variant: str | None, *, signed_in: bool) -> None:
        self._setup = setup
        self._entries = entries
        self._language = language
        self._variant = variant
        self._signed_in = signed_in
        self._fields = index_of(setup.fields)
        self._sections: dict[str | None, bool] = {None: True}
        self._asked: dict[str, bool] = {}
        self._values: dict[str, Value] = {}
        product = product_names(setup, variant, entries.pieces)
        self._names = Names(product, fields_by_name(setup), self._value_now)

    def is_asked(self, field: AnyField) -> bool:
        """Tell whether its section is there and its condition holds; found once."""
        if field.key not in self._asked:
            self._asked[field.key] = self._has_section(field.section) and self._holds(field.ask_when)
        return self._asked[field.key]

    def value(self, field: AnyField) -> Value:
        """Return what was entered for a field, as its kind reads it; found once."""
        if field.key not in self._values:
            entries = self._entries
            files = files_of(entries.uploads.get(field.key))
            items = entries.items.get(field.key, ())
            # Nothing can be put into an area that is locked.
            places = tuple(
                one.key for one in self._setup.placements_of(field.key) if items and freedoms_of(self._setup, one)
            )
            given = RawEntry(entries.values.get(field.key), files, self._language, self._names, items, places)
            self._values[field.key] = self._offered(field, kind_of(field).value(field, given))
        return self._values[field.key]

    def _offered(self, field: AnyField, value: Value) -> Value:
        """Leave out what can't be had now; what was chosen before stays in the entries."""
        if not isinstance(field, OptionsField) or all(option.ask_when is None for option in field.options):
            return value
        withheld = {option.key for option in field.options if not self._holds(option.ask_when)}
        if isinstance(value, tuple):
            return tuple(str(key) for key in value if key not in withheld)
        return "" if value in withheld else value

    def _has_section(self, key: str | None) -> bool:
        if key not in self._sections:
            section = self._setup.section(key)
            self._sections[key] = section is None or self._holds(section.ask_when)
        return self._sections[key]

    def _holds(self, rule: Rule | None) -> bool:
        return rule is None or holds(rule, self._value_now)

    def _value_now(self, key: str) -> Value:
        if key in self._fields:
            field = self._fields[key]
            return self.value(field) if self.is_asked(field) else ""
        if key == SIGNED_IN:
            return self._signed_in
        return product_itself(self._setup, self._variant, key)
