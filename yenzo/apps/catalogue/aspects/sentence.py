"""Sentences: a line of the order form comes in, words and underlined values go out."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from yenzo.apps.catalogue.aspects.asking import AskWhenAspect, LandsWhenAspect, RequiredWhenAspect
from yenzo.apps.catalogue.aspects.charging import ChargeAspect
from yenzo.apps.catalogue.aspects.choosing import ColorsAspect, DefaultAspect, FacesAspect, OptionsAspect
from yenzo.apps.catalogue.aspects.effects import PlateAspect, SecondColorAspect, ShadowAspect, StrokeAspect
from yenzo.apps.catalogue.aspects.interface import Aspect, FormLine
from yenzo.apps.catalogue.aspects.layout import JoinedAspect, LayoutAspect, LettersAspect
from yenzo.apps.catalogue.aspects.measuring import DaysAspect, NoteLimitAspect, RangeAspect, RegionAspect
from yenzo.apps.catalogue.aspects.placing import (
    AlignAspect,
    ArtworkPaintAspect,
    FaceAspect,
    FitAspect,
    HeightAspect,
    PaintAspect,
    PlacesAspect,
    area_names,
)
from yenzo.apps.catalogue.aspects.wording import (
    AllowedAspect,
    CapitalsAspect,
    KindsAspect,
    LabelAspect,
    LimitAspect,
    LinesAspect,
    OneColorAspect,
    RequiredAspect,
    SampleAspect,
)

ASPECTS: dict[str, Aspect] = {
    aspect.key: aspect
    for aspect in (
        LabelAspect(),
        RequiredAspect(),
        LimitAspect(),
        AllowedAspect(),
        LinesAspect(),
        CapitalsAspect(),
        SampleAspect(),
        KindsAspect(),
        OneColorAspect(),
        RangeAspect(),
        DaysAspect(),
        RegionAspect(),
        NoteLimitAspect(),
        OptionsAspect(),
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
        LandsWhenAspect(),
        FitAspect(),
        ArtworkPaintAspect(),
        ChargeAspect(),
        AskWhenAspect(),
        RequiredWhenAspect(),
    )
}
KIND_WORDS = {
    "line": "a line of text",
    "paragraph": "a paragraph",
    "choice": "a choice",
    "number": "a number",
    "date": "a day",
    "email": "a mail address",
    "phone": "a telephone number",
    "link": "an address in the web",
    "note": "a note to the workshop",
    "yes_no": "yes or no",
    "typeface": "a choice of typeface",
    "color": "a color",
    "artwork": "an upload",
}
# The sentence of each kind, up to where its entry lands. In braces: aspects.
PATTERNS = {
    "line": ", {required}, {limit}, {allowed}, {capitals}, {sample}. Goes on {places}",
    "paragraph": ", {required}, {limit}, {lines}, {allowed}, {capitals}, {sample}. Goes on {places}",
    "choice": ", {required}: {options}; at first {default}. Goes on {places}",
    "number": ", {required}, {range}, {sample}. Goes on {places}",
    "date": ", {required}, {days}. Goes on {places}",
    "email": ", {required}, {sample}",
    "phone": ", {required}, {region}, {sample}",
    "link": ", {required}, {sample}",
    "note": ", {required}, {note-limit}, {sample}",
    "yes_no": ", {required}, at first {default}",
    "typeface": ", {required}, among {faces}; at first {default}",
    "color": ", {required}: {colors}; at first {default}",
    "artwork": ", {required}, {kinds}, {one-color}. Goes on {places}",
}
PLACED_TEXT = ", {layout}, {height}, {align}, in {face}, in {paint}"
PLACED_ARTWORK = ", {fit}, {artwork-paint}"
# What is said only where it isn't plain, and offered behind the sentence else.
MORE_TEXT = ("letters", "stroke", "shadow", "plate", "second-color", "joined", "lands-when")
MORE_ARTWORK = ("lands-when",)
ENDING = ". Adds {charge}. Asked {ask-when}."


@dataclass(frozen=True)
class Part:
    """A piece of a sentence: plain words, or an underlined value with the aspect that edits it."""

    words: str
    aspect: str = ""
    placement: str = ""
    is_offer: bool = False


def sentence_of(line: FormLine) -> list[Part]:
    """Return the sentence of a line after its name."""
    kind = line.field.kind
    parts = [Part(f" — {KIND_WORDS[kind]}"), *_filled(line, PATTERNS[kind])]
    placements = list(line.setup.placements_of(line.field.key))
    names = area_names(line.setup)
    for placement in placements:
        if len(placements) > 1:
            parts.append(Part(f"; on {names[f'{placement.side}/{placement.area}']}"))
        parts.extend(_placed(replace(line, placement=placement), is_artwork=placement.kind == "artwork"))
    ending = ENDING if line.field.ask_when is None else ENDING.replace("Asked {", "Asked when {")
    parts.extend(_filled(line, ending))
    needed = ASPECTS["required-when"]
    if not needed.is_plain(line):
        return [*parts, *_filled(line, f" Must be filled when {{{needed.key}}}.")]
    return [*parts, Part(f"+ {needed.offer}", needed.key, is_offer=True)]


def _placed(line: FormLine, *, is_artwork: bool) -> Iterator[Part]:
    assert line.placement is not None
    yield from _filled(line, PLACED_ARTWORK if is_artwork else PLACED_TEXT)
    more = [ASPECTS[name] for name in (MORE_ARTWORK if is_artwork else MORE_TEXT)]
    for aspect in more:
        if not aspect.is_plain(line):
            yield from _filled(line, f", {{{aspect.key}}}")
    for aspect in more:
        if aspect.is_plain(line):
            yield Part(f"+ {aspect.offer}", aspect.key, line.placement.key, is_offer=True)


def _filled(line: FormLine, pattern: str) -> Iterator[Part]:
    for piece in pattern.split("{"):
        name, brace, rest = piece.partition("}")
        if not brace:
            yield Part(piece)
            continue
        yield Part(ASPECTS[name].words(line), name, line.placement.key if line.placement else "")
        yield Part(rest)
