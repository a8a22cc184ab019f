"""Sentences: a line of the order slip comes in, words and underlined values go out."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from yenzo.apps.editor.aspects.asking import AskWhenAspect, LandsWhenAspect, RequiredWhenAspect
from yenzo.apps.editor.aspects.beginning import BeginningsAspect
from yenzo.apps.editor.aspects.charging import ChargeAspect
from yenzo.apps.editor.aspects.choosing import ColorsAspect, DefaultAspect, FacesAspect, MethodsAspect
from yenzo.apps.editor.aspects.effects import PlateAspect, SecondColorAspect, ShadowAspect, StrokeAspect
from yenzo.apps.editor.aspects.freeing import FreeAspect
from yenzo.apps.editor.aspects.interface import Aspect, FormLine, WholeForm
from yenzo.apps.editor.aspects.layout import JoinedAspect, LayoutAspect, LettersAspect, OverlapAspect
from yenzo.apps.editor.aspects.line_settings import CountriesAspect, ExplanationAspect, KindAspect, StandsAspect
from yenzo.apps.editor.aspects.measuring import (
    DaysAspect,
    ExtraAspect,
    FormulaAspect,
    NoteLimitAspect,
    RangeAspect,
    RegionAspect,
)
from yenzo.apps.editor.aspects.options import HowManyAspect, LooksAspect, OfferedWhenAspect, OptionsAspect
from yenzo.apps.editor.aspects.own_effects import (
    OwnPlateAspect,
    OwnSecondColorAspect,
    OwnShadowAspect,
    OwnStrokeAspect,
)
from yenzo.apps.editor.aspects.own_items import OwnItemsAspect
from yenzo.apps.editor.aspects.placing import (
    AlignAspect,
    ArtworkPaintAspect,
    FaceAspect,
    FitAspect,
    HeightAspect,
    PaintAspect,
    PlacesAspect,
    area_names,
)
from yenzo.apps.editor.aspects.texts import (
    AllowedAspect,
    CaseAspect,
    LimitAspect,
    LinesAspect,
    PatternAspect,
    WordListsAspect,
)
from yenzo.apps.editor.aspects.wording import (
    KindsAspect,
    LabelAspect,
    NthAspect,
    OneColorAspect,
    RequiredAspect,
    SampleAspect,
)
from yenzo.apps.editor.aspects.workshop_artwork import (
    FixedArtworkAspect,
    FixedTextAspect,
    GoodsAspect,
    ReadyMadeAspect,
    StandInAspect,
)
from yenzo.core.documents.charges import AnyCharge
from yenzo.core.documents.fields import ArtworkField, OptionsField, TextField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.placements import ArtworkPlacement, OwnItemsPlacement

CHARGE: ChargeAspect[Any] = ChargeAspect()
ASPECTS: dict[str, Aspect[Any]] = {
    aspect.key: aspect
    for aspect in (
        LabelAspect(),
        KindAspect(),
        StandsAspect(),
        ExplanationAspect(),
        RequiredAspect(),
        LimitAspect(),
        AllowedAspect(),
        LinesAspect(),
        CaseAspect(),
        PatternAspect(),
        WordListsAspect(),
        SampleAspect(),
        KindsAspect(),
        OneColorAspect(),
        RangeAspect(),
        FormulaAspect(),
        ExtraAspect(),
        DaysAspect(),
        RegionAspect(),
        NoteLimitAspect(),
        OptionsAspect(),
        LooksAspect(),
        GoodsAspect(),
        ReadyMadeAspect(),
        FixedTextAspect(),
        FixedArtworkAspect(),
        StandInAspect(),
        MethodsAspect(),
        OfferedWhenAspect(),
        HowManyAspect(),
        CountriesAspect(),
        FacesAspect(),
        ColorsAspect(),
        DefaultAspect(),
        PlacesAspect(),
        LayoutAspect(),
        HeightAspect(),
        AlignAspect(),
        FaceAspect(),
        PaintAspect(),
        LettersAspect(),
        StrokeAspect(),
        ShadowAspect(),
        PlateAspect(),
        SecondColorAspect(),
        JoinedAspect(),
        OverlapAspect(),
        LandsWhenAspect(),
        FitAspect(),
        ArtworkPaintAspect(),
        NthAspect(),
        FreeAspect(),
        OwnItemsAspect(),
        BeginningsAspect(),
        OwnStrokeAspect(),
        OwnShadowAspect(),
        OwnPlateAspect(),
        OwnSecondColorAspect(),
        CHARGE,
        AskWhenAspect(),
        RequiredWhenAspect(),
    )
}
# The sentence of each kind, up to where its entry lands. In braces: aspects.
PATTERNS = {
    "line": ", {required}, {limit}, {allowed}, {case}, {sample}. Goes on {places}",
    "paragraph": ", {required}, {limit}, {lines}, {allowed}, {case}, {sample}. Goes on {places}",
    "choice": ", {required}: {options}; at first {default}. Goes on {places}",
    "several": ", {required}: {how-many} {options}; at first {default}. Goes on {places}",
    "address": ", {required}, {countries}. Goes on {places}",
    "extra": ", {required}, {extra}",
    "computed": ", {formula}. Goes on {places}",
    "ready_made": ", {required}: {options}, {ready-made}; at first {default}. Goes on {places}",
    "method": ", {required}: {methods}; at first {default}",
    "fixed_text": ": {fixed-text}. Goes on {places}",
    "fixed_artwork": ": {fixed-artwork}. Goes on {places}",
    "own_items": ", {required}, {own-items}. Goes on {places}",
    "heading": "",
    "number": ", {required}, {range}, {sample}. Goes on {places}",
    "date": ", {required}, {days}. Goes on {places}",
    "email": ", {required}, {sample}. Goes on {places}",
    "phone": ", {required}, {region}, {sample}. Goes on {places}",
    "link": ", {required}, {sample}. Goes on {places}",
    "note": ", {required}, {note-limit}, {sample}",
    "yes_no": ", {required}, at first {default}",
    "typeface": ", {required}, among {faces}; at first {default}",
    "color": ", {required}: {colors}; at first {default}",
    "artwork": ", {required}, {kinds}, {one-color}. Goes on {places}",
}
PLACED_TEXT = ", {layout}, {height}, {align}, in {face}, in {paint}"
PLACED_ARTWORK = ", {fit}, {artwork-paint}"
# What is said only where it isn't plain, and offered behind the sentence else.
MORE_TEXT = ("letters", "stroke", "shadow", "plate", "second-color", "joined", "overlap", "free", "lands-when")
MORE_ARTWORK = ("free", "lands-when")
# Own items are free by themselves.
MORE_OWN = ("lands-when",)
MORE_OPTIONS = ("looks", "goods", "offered-when")
MORE_WORDING = ("pattern", "word-lists")
MORE_UPLOAD = ("sample-picture",)
MORE_OWN_ITEMS = ("beginnings",)
MORE_OWN_TEXTS = ("own-stroke", "own-shadow", "own-plate", "own-second-color", "beginnings")
MORE_HEADING = ("stands", "explanation")
MORE_LINE = ("required-when", *MORE_HEADING)
ASKED = ". Asked {ask-when}."
# How a value that isn't plain is said after the sentence; one of a placement goes on with it.
SAID_AFTER = {
    "free": "; customers may {}",
    "pattern": " It has the shape of {}.",
    "word-lists": " It has {}.",
    "sample-picture": " Until it is sent, {} stands in.",
    **{f"own-{name}": " A text may have {}." for name in ("stroke", "shadow")},
    "own-plate": " A text may stand {}.",
    "own-second-color": " A text may be {}.",
    "beginnings": " Customers can begin from {}.",
    "looks": " Shown {}.",
    "goods": " It has {}.",
    "offered-when": " Offered: {}.",
    "required-when": " Needed when {}.",
    "stands": " It is {}.",
    "explanation": " Explained by {}.",
}


@dataclass(frozen=True)
class Part:
    """A piece of a sentence: plain words, or an underlined value with the aspect that edits it."""

    words: str
    aspect: str = ""
    placement: str = ""
    charge: str = ""
    is_offer: bool = False

    @property
    def of(self) -> str:
        """The placement or charge that the value is of."""
        return self.placement or self.charge

    @property
    def query(self) -> str:
        """What the address of its form ends with."""
        return f"?placement={self.placement}" if self.placement else f"?charge={self.charge}" if self.charge else ""


def sentence_of(line: FormLine) -> list[Part]:
    """Return the sentence of a line after its name."""
    kind = line.field.kind
    parts = [Part(" — "), *_filled(line, f"{{kind}}{PATTERNS[kind]}")]
    placements = list(line.setup.placements_of(line.field.key))
    names = area_names(line.setup)
    for placement in placements:
        if len(placements) > 1:
            parts.append(Part(f"; on {names[f'{placement.side}/{placement.area}']}"))
        parts.extend(_placed(replace(line, placement=placement)))
    if kind != "heading":
        parts.extend(charge_parts(line, list(line.setup.charges_of(line.field.key))))
    parts.extend(_filled(line, ASKED if line.field.ask_when is None else ASKED.replace("sked {", "sked when {")))
    more = MORE_LINE if line.field.has_entry and line.field.is_asked else MORE_HEADING
    own: tuple[str, ...] = MORE_OPTIONS if isinstance(line.field, OptionsField) else ()
    own = MORE_WORDING if isinstance(line.field, TextField) else own
    own = MORE_UPLOAD if isinstance(line.field, ArtworkField) else own
    if isinstance(line.field, OwnItemsField):
        own = MORE_OWN_TEXTS if line.field.texts else MORE_OWN_ITEMS
    return [*parts, *_more(line, (*own, *more))]


def charge_parts(line: FormLine | WholeForm, charges: list[AnyCharge]) -> Iterator[Part]:
    """Yield what a line, or the piece as a whole, adds to the price."""
    yield Part(". Adds ")
    for at, charge in enumerate(charges):
        if at:
            yield Part(" and " if at == len(charges) - 1 else ", ")
        yield Part(CHARGE.words(replace(line, charge=charge)), CHARGE.key, charge=charge.key)
    if charges:
        yield Part("+ charge", CHARGE.key, is_offer=True)
    else:
        yield Part("nothing", CHARGE.key)


def _more(line: FormLine, names: tuple[str, ...]) -> Iterator[Part]:
    """Yield what is said only where it isn't plain, and what is offered where it is; all offers come last."""
    aspects = [ASPECTS[name] for name in names]
    for aspect in aspects:
        if not aspect.is_plain(line):
            yield from _filled(line, SAID_AFTER.get(aspect.key, ", {}").replace("{}", f"{{{aspect.key}}}"))
    for aspect in aspects:
        if aspect.is_plain(line):
            yield Part(f"+ {aspect.offer}", aspect.key, line.placement.key if line.placement else "", is_offer=True)


def _placed(line: FormLine) -> Iterator[Part]:
    match line.placement:
        case OwnItemsPlacement():
            yield from _more(line, MORE_OWN)
        case ArtworkPlacement():
            yield from _filled(line, PLACED_ARTWORK)
            is_many = isinstance(line.field, ArtworkField) and line.field.most_files > 1
            yield from _more(line, ("nth", *MORE_ARTWORK) if is_many else MORE_ARTWORK)
        case _:
            yield from _filled(line, PLACED_TEXT)
            yield from _more(line, MORE_TEXT)


def _filled(line: FormLine, pattern: str) -> Iterator[Part]:
    for piece in pattern.split("{"):
        name, brace, rest = piece.partition("}")
        if not brace:
            yield Part(piece)
            continue
        yield Part(ASPECTS[name].words(line), name, line.placement.key if line.placement else "")
        yield Part(rest)
