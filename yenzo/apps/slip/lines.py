"""Lines of the slip: a field and what follows from the entries come in; all that its line shows goes out."""

import hashlib
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from django.utils.translation import gettext, gettext_noop

from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.picture_addresses import MIDDLE, SMALL, picture_address
from yenzo.apps.designs.to_core import Uploads
from yenzo.apps.pages.templatetags.writing import rate
from yenzo.apps.slip.controls import CONTROLS, INPUT_MODES
from yenzo.apps.slip.options import SlipOption, options_of
from yenzo.core.asking.check import is_needed
from yenzo.core.asking.kinds.addresses import countries, parts_of
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.asking.kinds.measured import earliest, latest
from yenzo.core.asking.texts import room_left, words
from yenzo.core.asking.words import value_name
from yenzo.core.documents.charges import ChoiceCharge, FixedCharge, FormulaCharge
from yenzo.core.documents.entries import Address, Entries
from yenzo.core.documents.fields import (
    AddressField,
    AnyField,
    ArtworkField,
    ChoiceField,
    ComputedField,
    DateField,
    ExtraField,
    NoteField,
    OptionsField,
    ReadyMadeField,
    TextField,
)
from yenzo.core.documents.mixing import own_color
from yenzo.core.documents.setup import Setup
from yenzo.core.preflight.verdict import Verdict
from yenzo.core.pricing.words import charge_words
from yenzo.core.scene.nodes import Lettering, Node, PlacedDrawing
from yenzo.core.speaking import decimal, locale_of, reader
from yenzo.core.spine import Walked

# What browsers know each kind of file by; some know HEIC and TIFF by their endings only.
PICKED = {
    "png": "image/png",
    "jpeg": "image/jpeg",
    "webp": "image/webp",
    "tiff": "image/tiff,.tif,.tiff",
    "heic": "image/heic,.heic,.heif",
    "svg": "image/svg+xml",
    "pdf": "application/pdf",
}
PART_NAMES = {
    "name": (gettext_noop("Name"), "name"),
    "company": (gettext_noop("Company"), "organization"),
    "street": (gettext_noop("Street and number"), "street-address"),
    "district": (gettext_noop("District"), "address-level3"),
    "postcode": (gettext_noop("Postcode"), "postal-code"),
    "town": (gettext_noop("Town"), "address-level2"),
    "region": (gettext_noop("Region"), "address-level1"),
}
Told = Callable[[str], tuple[tuple[str, ...], tuple[str, ...]]]


@dataclass(frozen=True)
class SlipPart:
    """One part of an address."""

    name: str
    label: str
    autocomplete: str
    value: str
    is_needed: bool


@dataclass(frozen=True)
class SlipLine:
    """One line of the slip."""

    field: AnyField
    is_asked: bool
    is_needed: bool
    value: Raw
    options: tuple[SlipOption, ...] = ()
    is_ruled: bool = False
    parts: tuple[SlipPart, ...] = ()
    countries: tuple[tuple[str, str], ...] = ()
    uploads: tuple[Upload, ...] = ()
    room: int | None = None
    word_room: int | None = None
    amount: Decimal | None = None
    charges: tuple[str, ...] = ()
    words: str = ""
    left: int | None = None
    made: tuple[str, ...] = ()
    problems: tuple[str, ...] = ()
    advice: tuple[str, ...] = ()
    goes_to: str = ""
    first_day: date | None = None
    last_day: date | None = None
    pending: tuple[Upload, ...] = ()

    @property
    def control(self) -> str:
        """The template of the control that asks for it."""
        return CONTROLS[self.field.kind]

    @property
    def input_mode(self) -> str:
        """The keys that phones show."""
        return INPUT_MODES.get(self.field.kind, "")

    @property
    def direction(self) -> str:
        """Which way the writing runs in the control."""
        wanted = self.field.direction if isinstance(self.field, TextField) else "auto"
        return {"right_to_left": "rtl", "left_to_right": "ltr"}.get(wanted, "auto")

    @property
    def may_be_empty(self) -> bool:
        """Whether what was picked can be taken back: one of a choice that needn't be made."""
        return isinstance(self.field, ChoiceField | ReadyMadeField) and not self.field.required

    @property
    def own_color(self) -> str:
        """The color that the customer mixed, if one is."""
        return own_color(self.value) or ""

    @property
    def picture(self) -> str:
        """Where the picture of the explanation is."""
        return picture_address(self.field.picture.asset, MIDDLE) if self.field.picture else ""

    @property
    def sample(self) -> str:
        """Where the sample picture is that stands in until the customer's own is there."""
        sample = self.field.sample if isinstance(self.field, ArtworkField) else None
        return picture_address(sample.prepared, SMALL) if sample and self.is_needed else ""

    @property
    def explained(self) -> bool:
        """Whether the picture belongs to the explanation; an extra shows its own beside its number."""
        return bool(self.picture) and not isinstance(self.field, ExtraField)

    @property
    def accept(self) -> str:
        """The kinds of file that a browser offers to pick."""
        kinds = self.field.kinds if isinstance(self.field, ArtworkField) else ()
        return ",".join(PICKED[kind] for kind in kinds)

    @property
    def most_bytes(self) -> int:
        """The size of the largest file that can be taken."""
        return int(self.field.most_megabytes * 1_000_000) if isinstance(self.field, ArtworkField) else 0

    @property
    def shape(self) -> str:
        """What tells, with the next request, whether the line must be laid out anew: which options and parts it has."""
        if not self.is_asked:
            return ""
        if isinstance(self.value, Address):
            return f"{self.field.key}:{self.value.country}"
        if self.is_ruled:
            return f"{self.field.key}:{','.join(option.key for option in self.options)}"
        return self.field.key

    @property
    def says_something(self) -> bool:
        """Whether anything stands under its control."""
        return bool(self.problems or self.advice or self.made)

    @property
    def told(self) -> str:
        """Its key and a digest of what is said under its control: what is said already isn't said again."""
        said = repr((self.problems, self.advice, self.made)).encode()
        return f"{self.field.key}:{hashlib.blake2s(said, digest_size=4).hexdigest()}"

    @property
    def words_over(self) -> int:
        """By how many words the entry is too long."""
        return -self.word_room if self.word_room is not None and self.word_room < 0 else 0

    @property
    def over(self) -> int:
        """By how many characters the entry is too long."""
        return -self.room if self.room is not None and self.room < 0 else 0


def told_of(verdict: Verdict, tells_missing: Callable[[str], bool]) -> Told:
    """Return what finds the problems and the advice of a field; what is empty is told of some fields only."""

    def told(key: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
        blocking = dict.fromkeys(
            item.message
            for item in verdict.blocking
            if item.field == key and (item.code != "required" or tells_missing(key))
        )
        return tuple(blocking), verdict.advice_of(key)

    return told


def line_of(
    field: AnyField, walked: Walked, entries: Entries, uploads: Uploads, told: Told, nodes: list[Node]
) -> SlipLine:
    """Return the line of a field."""
    setup, key = walked.setup, field.key
    value = _shown_value(field, entries)
    problems, advice = told(key)
    amount, charges = _at_field(setup, key)
    first_day = last_day = None
    is_computed = isinstance(field, ComputedField)
    if isinstance(field, DateField) and walked.asked.today is not None:
        first_day, last_day = (bound(field, walked.asked.today) for bound in (earliest, latest))
    return SlipLine(
        field=field,
        is_asked=key in walked.asked.values and is_shown(field),
        is_needed=is_needed(setup, field, walked.asked),
        value=value,
        options=options_of(setup, field, value, walked.asked),
        is_ruled=isinstance(field, OptionsField) and any(option.ask_when for option in field.options),
        parts=_parts(value) if isinstance(value, Address) else (),
        countries=_countries(field) if isinstance(field, AddressField) else (),
        uploads=uploads.get(key, ()),
        room=room_left(field, walked.asked.text(key)) if isinstance(field, TextField | NoteField) else None,
        word_room=_word_room(field, walked),
        left=walked.asked.stock.get(field.sku) if isinstance(field, ExtraField) else None,
        first_day=first_day,
        last_day=last_day,
        amount=amount,
        charges=charges,
        words=value_name(setup, field, walked.asked.text(key)) if is_computed else "",
        made=tuple(_made(node) for node in nodes if key in node.fields),
        problems=problems,
        advice=advice,
        goes_to=next((placement.side for placement in setup.placements_of(key)), ""),
    )


def is_shown(field: AnyField) -> bool:
    """Tell whether customers see a field; what the workshop puts on by itself and some computed values are its own."""
    return field.is_asked and (not isinstance(field, ComputedField) or field.shown)


def _word_room(field: AnyField, walked: Walked) -> int | None:
    """Return how many words still fit, below zero when there are too many; None without a limit."""
    if not isinstance(field, TextField) or field.most_words is None:
        return None
    return field.most_words - len(words(walked.asked.text(field.key), walked.asked.language))


def _shown_value(field: AnyField, entries: Entries) -> Raw:
    """Return what stands in the control: just what was typed, or what the form begins with."""
    typed = entries.values.get(field.key)
    if isinstance(field, AddressField):
        return typed if isinstance(typed, Address) else Address(country=field.country)
    begins: Raw = getattr(field, "default", None) or ""
    return begins if typed is None else typed


def _parts(value: Address) -> tuple[SlipPart, ...]:
    return tuple(
        SlipPart(part, gettext(PART_NAMES[part][0]), PART_NAMES[part][1], getattr(value, part), needed)
        for part, needed in parts_of(value.country)
    )


def _countries(field: AddressField) -> tuple[tuple[str, str], ...]:
    names = locale_of(reader()).territories
    offered = [(code, names.get(code, code)) for code in field.countries or countries()]
    return tuple(sorted(offered, key=lambda country: country[1]))


def _made(node: Node) -> str:
    if isinstance(node, Lettering):
        return gettext("Letters now {height} mm high").format(height=decimal(node.letter_height_mm, 0))
    size = {name: decimal(length, 0) for name, length in zip(("width", "height"), node.size_mm, strict=True)}
    if isinstance(node, PlacedDrawing):
        return gettext("Drawn in outlines, {width} × {height} mm").format(**size)
    return gettext("{dpi} dpi at {width} × {height} mm").format(dpi=decimal(node.dpi, 0), **size)


def _at_field(setup: Setup, key: str) -> tuple[Decimal | None, tuple[str, ...]]:
    """Return what a field's charges say beside it: one amount, and the others in words."""
    amount, charges = Decimal(0), []
    for charge in setup.charges_of(key):
        if not charge.shown or isinstance(charge, ChoiceCharge):
            continue  # Amounts of choices stand at each of them.
        if isinstance(charge, FixedCharge) and charge.per == "piece":
            amount += charge.amount
        elif isinstance(charge, FormulaCharge):
            charges.append(gettext("The price depends on it"))
        else:
            charges += charge_words(setup, charge, lambda one: rate(one, setup.offer.currency))
    return amount or None, tuple(charges)
