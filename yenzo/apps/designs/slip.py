"""The slip: a set-up and entries come in; all that the order form and the goods beside it show goes out."""

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from decimal import Decimal
from urllib.parse import urlencode

from django.urls import reverse

from yenzo.apps.designs.controls import CONTROLS, INPUT_MODES
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.now import context_now
from yenzo.core.asking.check import is_needed
from yenzo.core.asking.kinds.choices import offered_colors
from yenzo.core.asking.kinds.measured import earliest, latest
from yenzo.core.asking.texts import room_left, words
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.charges import ChoiceCharge, CountedCharge, FixedCharge, PercentCharge
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.fields import (
    AnyField,
    ArtworkField,
    ChoiceField,
    ColorField,
    DateField,
    NoteField,
    TextField,
    TypefaceField,
)
from yenzo.core.documents.materials import Typeface
from yenzo.core.documents.setup import Setup
from yenzo.core.preflight.verdict import Verdict
from yenzo.core.pricing.quote import COUNTED, Quote
from yenzo.core.render.page import side_page
from yenzo.core.render.svg import ink_markup
from yenzo.core.scene.nodes import Lettering, Node, PlacedDrawing
from yenzo.core.spine import Walked, walk

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
# A drawing of more points goes to the browser once, as a picture file of its own, and not with every key.
MOST_DRAWN_POINTS = 1500


@dataclass(frozen=True)
class SlipOption:
    """One possibility of a choice, as a button of the slip."""

    key: str
    label: str
    is_chosen: bool
    amount: Decimal | None = None
    swatch: str | None = None
    typeface: str | None = None


@dataclass(frozen=True)
class Rate:
    """What a field adds for each of something beyond the first ones, as it stands beside the field."""

    amount: Decimal
    what: str
    beyond: int


@dataclass(frozen=True)
class SlipLine:
    """One numbered line of the slip."""

    number: int
    field: AnyField
    is_asked: bool
    is_needed: bool
    value: str | bool
    options: tuple[SlipOption, ...] = ()
    upload: Upload | None = None
    room: int | None = None
    word_room: int | None = None
    amount: Decimal | None = None
    share: str = ""
    rates: tuple[Rate, ...] = ()
    made: tuple[str, ...] = ()
    problems: tuple[str, ...] = ()
    advice: tuple[str, ...] = ()
    goes_to: str = ""
    first_day: date | None = None
    last_day: date | None = None

    @property
    def control(self) -> str:
        """The template of the control that asks for it."""
        return CONTROLS[self.field.kind]

    @property
    def input_mode(self) -> str:
        """The keys that phones show."""
        return INPUT_MODES.get(self.field.kind, "")

    @property
    def accept(self) -> str:
        """The kinds of file that a browser offers to pick."""
        kinds = self.field.kinds if isinstance(self.field, ArtworkField) else ()
        return ",".join(PICKED[kind] for kind in kinds)

    @property
    def words_over(self) -> int:
        """By how many words the entry is too long."""
        return -self.word_room if self.word_room is not None and self.word_room < 0 else 0

    @property
    def over(self) -> int:
        """By how many characters the entry is too long."""
        return -self.room if self.room is not None and self.room < 0 else 0


@dataclass(frozen=True)
class SlipSide:
    """One side of the goods with the ink on it; `under` is what shows through its windows."""

    key: str
    name: str
    picture: str
    width_mm: float
    height_mm: float
    digest: str
    ink: str
    under: str


@dataclass(frozen=True)
class Slip:
    """Everything that a product page or a try-out shows of one customer's entries."""

    setup: Setup
    entries: Entries
    walked: Walked
    lines: tuple[SlipLine, ...]
    sides: tuple[SlipSide, ...]
    variants: tuple[SlipOption, ...]
    uploads: dict[str, Upload] = field(default_factory=dict)

    @property
    def quote(self) -> Quote:
        """The price as it has built up."""
        return self.walked.quote

    @property
    def verdict(self) -> Verdict:
        """What blocks, and what is advice."""
        return self.walked.verdict

    @property
    def shown(self) -> str:
        """The digests of the sides shown, as the next request carries them."""
        return " ".join(f"{side.key}:{side.digest}" for side in self.sides)

    @property
    def asked(self) -> str:
        """The keys of what is asked, as the next request carries them."""
        return " ".join(line.field.key for line in self.lines if line.is_asked)


def picture_address(asset: str) -> str:
    """Return where a picture of goods is served."""
    return reverse("designs:goods_picture", args=[asset])


def specimen_address(typeface: Typeface) -> str:
    """Return where a typeface's name is shown set in it."""
    instance = f"?{urlencode({'instance': typeface.instance})}" if typeface.instance else ""
    return reverse("designs:specimen", args=[typeface.font]) + instance


def build_slip(
    setup: Setup, entries: Entries, assets: Assets, uploads: dict[str, Upload], *, tells_missing: bool = False
) -> Slip:
    """Walk the spine once and lay out what shows. What is still empty is told only when asked for."""
    walked = walk(setup, entries, assets, context_now())
    addresses = {upload.prepared_id: reverse("designs:upload_picture", args=[upload.pk]) for upload in uploads.values()}
    sides = tuple(
        SlipSide(
            key=side.key,
            name=side.name,
            picture=picture_address(side.picture),
            width_mm=side.width_mm,
            height_mm=side.height_mm,
            digest=side.digest,
            ink=ink_markup(side_page(side, with_goods=False, under=False), addresses.__getitem__, MOST_DRAWN_POINTS),
            under=ink_markup(side_page(side, with_goods=False, under=True), addresses.__getitem__, MOST_DRAWN_POINTS),
        )
        for side in walked.scene.sides
    )
    said = _told(walked.verdict, tells_missing=tells_missing)
    nodes = [node for area in walked.scene.areas for node in area.nodes]
    lines = tuple(
        _line(number, setup_field, walked, entries, uploads, said, nodes)
        for number, setup_field in enumerate(setup.fields, 1)
    )
    return Slip(setup, entries, walked, lines, sides, _variants(setup, walked), uploads)


Told = Callable[[str], tuple[tuple[str, ...], tuple[str, ...]]]


def _told(verdict: Verdict, *, tells_missing: bool) -> Told:
    def said(key: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
        blocking = dict.fromkeys(
            item.message
            for item in verdict.blocking
            if item.field == key and (tells_missing or item.code != "required")
        )
        return tuple(blocking), verdict.advice_of(key)

    return said


def _line(
    number: int,
    setup_field: AnyField,
    walked: Walked,
    entries: Entries,
    uploads: dict[str, Upload],
    said: Told,
    nodes: list[Node],
) -> SlipLine:
    setup, key = walked.setup, setup_field.key
    value = _shown_value(setup_field, entries)
    problems, advice = said(key)
    amount, share, rates = _at_field(setup, key)
    first_day = last_day = None
    if isinstance(setup_field, DateField) and walked.asked.today is not None:
        first_day, last_day = (bound(setup_field, walked.asked.today) for bound in (earliest, latest))
    return SlipLine(
        number=number,
        field=setup_field,
        is_asked=key in walked.asked.values,
        is_needed=is_needed(setup_field, walked.asked),
        value=value,
        options=_options(setup, setup_field, value),
        upload=uploads.get(key) if isinstance(setup_field, ArtworkField) else None,
        room=room_left(setup_field, walked.asked.text(key)) if isinstance(setup_field, TextField | NoteField) else None,
        word_room=_word_room(setup_field, walked),
        first_day=first_day,
        last_day=last_day,
        amount=amount,
        share=share,
        rates=rates,
        made=tuple(_made(node) for node in nodes if key in node.fields),
        problems=problems,
        advice=advice,
        goes_to=next((placement.side for placement in setup.placements_of(key)), ""),
    )


def _word_room(setup_field: AnyField, walked: Walked) -> int | None:
    """Return how many words still fit, below zero when there are too many; None without a limit."""
    if not isinstance(setup_field, TextField) or setup_field.most_words is None:
        return None
    return setup_field.most_words - len(words(walked.asked.text(setup_field.key), walked.asked.language))


def _shown_value(setup_field: AnyField, entries: Entries) -> str | bool:
    """Return what stands in the control: just what was typed, or what the form begins with."""
    if isinstance(setup_field, ArtworkField):
        return ""
    return entries.values.get(setup_field.key, setup_field.default or "")


def _made(node: Node) -> str:
    if isinstance(node, Lettering):
        return f"Letters now {node.letter_height_mm:.0f} mm high"
    width, height = node.size_mm
    if isinstance(node, PlacedDrawing):
        return f"Drawn in outlines, {width:.0f} × {height:.0f} mm"
    return f"{node.dpi:.0f} dpi at {width:.0f} × {height:.0f} mm"


def _at_field(setup: Setup, key: str) -> tuple[Decimal | None, str, tuple[Rate, ...]]:
    """Return what a field's charges say beside it: an amount, a percentage, and rates by what is counted."""
    amount, share, rates = Decimal(0), Decimal(0), []
    for charge in setup.charges_of(key):
        if isinstance(charge, FixedCharge):
            amount += charge.amount
        elif isinstance(charge, PercentCharge):
            share += charge.percent
        elif isinstance(charge, CountedCharge):
            rates.append(Rate(charge.amount, COUNTED[type(charge)][0], charge.beyond))
    return amount or None, f"{share.normalize():+f} %" if share else "", tuple(rates)


def _options(setup: Setup, setup_field: AnyField, value: str | bool) -> tuple[SlipOption, ...]:
    amounts: dict[str, Decimal] = {}
    for charge in setup.charges_of(setup_field.key):
        if isinstance(charge, ChoiceCharge):
            amounts |= charge.amounts
    if isinstance(setup_field, ChoiceField):
        return tuple(
            SlipOption(option.key, option.label, option.key == value, amounts.get(option.key))
            for option in setup_field.options
        )
    if isinstance(setup_field, TypefaceField):
        have = setup.materials.typefaces
        return tuple(
            SlipOption(key, have[key].name, key == value, amounts.get(key), typeface=specimen_address(have[key]))
            for key in setup_field.typefaces
            if key in have
        )
    if isinstance(setup_field, ColorField):
        return tuple(_colors(setup, setup_field, value, amounts))
    return ()


def _colors(setup: Setup, setup_field: ColorField, value: str | bool, amounts: dict[str, Decimal]) -> list[SlipOption]:
    palette = setup.materials.palettes.get(setup_field.palette)
    colors = [palette.color(key) for key in offered_colors(setup, setup_field)] if palette else []
    return [
        SlipOption(color.key, color.name, color.key == value, amounts.get(color.key), swatch=color.screen)
        for color in colors
        if color
    ]


def _variants(setup: Setup, walked: Walked) -> tuple[SlipOption, ...]:
    return tuple(
        SlipOption(
            variant.key,
            variant.name,
            variant.key == walked.asked.variant,
            variant.price_difference or None,
            swatch=variant.swatch,
        )
        for variant in setup.offer.variants
    )
