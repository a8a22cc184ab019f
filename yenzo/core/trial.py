"""Tries: a set-up comes in; what keeps its own sample, or its shortest and longest entries, from being made goes out.

A set-up may contradict nothing and still be one that nobody could order. So it is tried as customers would: with
entries, through check, preflight and price.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal
from functools import lru_cache

from yenzo.core.artwork.drawing import Drawing, DrawnPart, write_drawing
from yenzo.core.asking.ask import Asked, ask
from yenzo.core.asking.check import is_needed
from yenzo.core.asking.kinds import kind_of
from yenzo.core.asking.kinds.measured import is_closed, read_day
from yenzo.core.asking.kinds.own_items import example_items
from yenzo.core.asking.texts import not_allowed
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.charges import ChoiceCharge
from yenzo.core.documents.entries import Entries, Files, RawValue
from yenzo.core.documents.fields import (
    AnyField,
    ArtworkField,
    DateField,
    ParagraphField,
    SeveralField,
    TextField,
    YesNoField,
)
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen
from yenzo.core.evaluation import Evaluation, evaluate
from yenzo.core.pricing.charging import Charged
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.outline import Outline

# The stand-ins for what customers send: a picture that is sharp at any size in use, and a plain drawing.
PICTURE_PX = (12_000, 9_000)
PICTURE_ASSET, DRAWING_ASSET = "0" * 64, "1" * 64
DRAWN_KINDS = frozenset({"svg", "pdf"})
# An ordinary text, as long as need be: worst cases of wide letters would refuse what people never write.
ORDINARY = "The quick tern glides over calm waters and home again "
SAMPLE, SHORT, LONG = "sample", "short", "long"
MOST_VARIANTS, MOST_TRIED_CHARACTERS, PIECES = 12, 400, 1000


class Trouble(Frozen):
    """What keeps entries from being made: which they were, what is wrong in words, and whether it blocks publishing."""

    case: str
    message: str
    blocks: bool = True


@dataclass(frozen=True)
class Case:
    """Entries that are tried: what they are called, and whether a product must be orderable with them."""

    name: str
    entries: Entries
    must_do: bool = True


def find_troubles(setup: Setup, assets: Assets) -> tuple[Trouble, ...]:
    """Return what keeps a set-up from being ordered, each once, found by trying; raises AssetError."""
    stood_in = _StandIns(assets)
    found: dict[str, Trouble] = {}
    for case in cases(setup):
        evaluation = evaluate(setup, case.entries, stood_in)
        # A sample that has no room beside its margin leaves customers none either, whatever they type.
        squeezed = [item for item in evaluation.verdict.advice if item.code == "near_edge"]
        for item in (*evaluation.verdict.blocking, *squeezed):
            found.setdefault(item.message, Trouble(case=case.name, message=item.message, blocks=case.must_do))
        for message in _without_price(evaluation):
            found.setdefault(message, Trouble(case=case.name, message=message))
    return tuple(found.values())


def least_price(setup: Setup, assets: Assets) -> Decimal:
    """Return what a piece costs at least: in its cheapest variant, with nothing that needn't be, as short as may be."""
    stood_in = _StandIns(assets)
    cheapest = min(setup.offer.variants, key=lambda one: one.price_difference, default=None)
    entries = _entries(setup, SHORT, cheapest.key if cheapest else None)
    needed = ask(setup, entries)
    values = {
        field.key: value
        for field in setup.fields
        if (value := entries.values.get(field.key)) is not None and _is_kept(setup, field, needed)
    }
    values |= _cheapest_choices(setup)
    return evaluate(setup, entries.model_copy(update={"values": values}), stood_in).quote.each


def _cheapest_choices(setup: Setup) -> dict[str, RawValue]:
    """Return what costs least of each choice that its possibilities are charged for."""
    found: dict[str, RawValue] = {}
    for charge in setup.charges:
        field = setup.field(charge.field or "") if isinstance(charge, ChoiceCharge) else None
        if field is None or isinstance(field, SeveralField) or not isinstance(charge, ChoiceCharge):
            continue
        offered = [key for key in kind_of(field).worst(field, setup) if isinstance(key, str)]
        if offered:
            found[field.key] = _cheapest(charge, offered)
    return found


def _cheapest(charge: ChoiceCharge, offered: list[str]) -> str:
    return min(offered, key=lambda key: charge.amounts.get(key, Decimal(0)))


def _is_kept(setup: Setup, field: AnyField, asked: Asked) -> bool:
    """Tell whether a field is filled even by who wants as little as can be: it must be, or begins so."""
    return is_needed(setup, field, asked) or isinstance(field, YesNoField)


def cases(setup: Setup) -> Iterator[Case]:
    """Yield the entries to try: the sample as it opens and with every yes, each variant, the shortest, the longest."""
    variants: list[str | None] = [variant.key for variant in setup.offer.variants[:MOST_VARIANTS]] or [None]
    yield Case("the sample", _entries(setup, SAMPLE, variants[0]))
    if any(isinstance(field, YesNoField) for field in setup.fields):
        yield Case("the sample with every yes", _entries(setup, SAMPLE, variants[0], every_yes=True))
    for variant in setup.offer.variants[1:MOST_VARIANTS]:
        yield Case(f"the sample as “{variant.name}”", _entries(setup, SAMPLE, variant.key))
    yield Case("the shortest entries", _entries(setup, SHORT, variants[0], every_yes=True))
    yield Case("the longest entries", _entries(setup, LONG, variants[0], every_yes=True), must_do=False)


def _entries(setup: Setup, length: str, variant: str | None, *, every_yes: bool = False) -> Entries:
    values: dict[str, RawValue] = {}
    uploads: dict[str, Files] = {}
    for field in setup.fields:
        if isinstance(field, ArtworkField):
            count = field.least_files or 1
            files = tuple(_stand_in(field) for _ in range(count))
            uploads[field.key] = files if field.most_files > 1 else files[0]
        elif isinstance(field, YesNoField) and every_yes:
            values[field.key] = True
        else:
            values[field.key] = _value(setup, field, length)
    items = {
        field.key: example_items(field, setup, text=_own_text(field, length))
        for field in setup.fields
        if isinstance(field, OwnItemsField)
    }
    given = Entries(values=values, uploads=uploads, items=items, variant=variant, language=setup.language)
    # What need not be sent is tried without: a file that nobody must send keeps nobody from ordering.
    asked = ask(setup, given)
    kept = {key: files for key, files in uploads.items() if _is_tried(setup, key, asked, every_yes=every_yes)}
    return given.model_copy(update={"uploads": kept})


def _own_text(field: OwnItemsField, length: str) -> str:
    """Return what is tried as a text of customers' own: nothing where the seller's arrangement is tried."""
    longest = field.texts.most_characters if field.texts else 0
    return {SHORT: "I", LONG: "W" * longest}.get(length, "")


def _is_tried(setup: Setup, key: str, asked: Asked, *, every_yes: bool) -> bool:
    field = setup.field(key)
    return field is not None and (every_yes or is_needed(setup, field, asked))


def _value(setup: Setup, field: AnyField, length: str) -> RawValue:
    kind = kind_of(field)
    sample: RawValue = kind.sample(field, setup)
    if isinstance(field, YesNoField):
        return sample or field.required
    if isinstance(field, DateField):
        day = read_day(str(sample))
        # Samples of days don't know which ones are closed.
        is_good = day is not None and not is_closed(field, day)
        return sample if is_good and length != LONG else next(iter(kind.worst(field, setup)), sample)
    if isinstance(field, TextField) and field.pattern is None and (length != SAMPLE or not sample):
        return _long(field) if length == LONG else _short(field)
    return sample or next((worst for worst in kind.worst(field, setup) if worst), "")


def _short(field: TextField) -> str:
    """Return a text as short as may be, but for single letters, which few write."""
    words = ["i"] * max(field.least_words or 1, 1)
    words[-1] = "Hi" if field.most_characters != 1 else "i"
    text = " ".join(words)
    return _allowed(field, text + "i" * ((field.least_characters or 0) - len(text)))


def _long(field: TextField) -> str:
    most = min(field.most_characters or len(ORDINARY), MOST_TRIED_CHARACTERS)
    words = _allowed(field, ORDINARY * (most // len(ORDINARY) + 2))[:most].split()
    text = " ".join(words[: field.most_words])
    if isinstance(field, ParagraphField) and field.most_lines and field.most_lines > 1:
        return text.replace(" and ", "\n", field.most_lines - 1)
    return text


def _allowed(field: TextField, text: str) -> str:
    """Return a text of what may be typed: in capitals, or of digits, where nothing else can be."""
    if field.allowed is None:
        return text
    for tried in (text, text.upper(), "1234567890" * (len(text) // 10 + 1)):
        wrong = set(not_allowed(field.allowed, tried))
        kept = "".join(char for char in tried if char not in wrong)
        if len(kept) * 2 > len(tried):
            return kept[: len(text)]
    return "".join(field.allowed.others)[: len(text)]


def _stand_in(field: ArtworkField) -> UploadedFile:
    """Return a file as a customer would send it: a picture if any may be, else a drawing."""
    kind = next((kind for kind in field.kinds if kind not in DRAWN_KINDS), None)
    is_drawing = kind is None or field.one_color is not None
    asset = DRAWING_ASSET if is_drawing else PICTURE_ASSET
    width, height = (7500, 5625) if is_drawing else PICTURE_PX
    return UploadedFile(
        name=f"picture.{kind or field.kinds[0]}",
        original=asset,
        prepared=asset,
        kind=kind or field.kinds[0],
        form="drawing" if is_drawing else "picture",
        one_color=field.one_color is not None,
        width_px=width,
        height_px=height,
        size_bytes=1,
    )


class _StandIns:
    """The assets of a set-up, and the drawing that stands in for customers' own."""

    def __init__(self, assets: Assets) -> None:
        self._assets = assets

    def read(self, sha256: str) -> bytes:
        """Return an asset's bytes, for an upload those of the stand-in; raises AssetError."""
        return _drawing() if sha256 == DRAWING_ASSET else self._assets.read(sha256)


@lru_cache(maxsize=1)
def _drawing() -> bytes:
    part = DrawnPart(Outline.rectangle(Box(750, 750, 6750, 4875)), "#000000")
    return write_drawing(Drawing(7500, 5625, (part,)))


def _without_price(evaluation: Evaluation) -> Iterator[str]:
    """Yield what can't be priced for some number of pieces, and for how many."""
    setup = evaluation.setup
    pieces = range(1, PIECES + 1)
    named = [charge for charge in setup.charges if charge.kind == "formula" and "pieces" in charge.formula]
    if not named:
        return
    for count in pieces:
        asked = evaluation.asked.model_copy(update={"pieces": count})
        for problem in Charged(setup, asked, evaluation.amounts).problems():
            yield f"For {count} {'piece' if count == 1 else 'pieces'}: {problem.message}"
            return
