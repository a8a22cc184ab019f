"""Sentences: a line of the order form comes in, words and underlined values go out."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from yenzo.apps.catalogue.aspects.asking import AskWhenAspect
from yenzo.apps.catalogue.aspects.charging import ChargeAspect
from yenzo.apps.catalogue.aspects.choosing import ColorsAspect, DefaultAspect, FacesAspect, OptionsAspect
from yenzo.apps.catalogue.aspects.interface import Aspect, FormLine
from yenzo.apps.catalogue.aspects.placing import (
    AlignAspect,
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
        CapitalsAspect(),
        SampleAspect(),
        KindsAspect(),
        OptionsAspect(),
        FacesAspect(),
        ColorsAspect(),
        DefaultAspect(),
        PlacesAspect(),
        HeightAspect(),
        AlignAspect(),
        FaceAspect(),
        PaintAspect(),
        FitAspect(),
        ChargeAspect(),
        AskWhenAspect(),
    )
}
KIND_WORDS = {
    "line": "a line of text",
    "choice": "a choice",
    "yes_no": "yes or no",
    "typeface": "a choice of typeface",
    "color": "a color",
    "artwork": "an upload",
}
# The sentence of each kind, up to where its entry lands. In braces: aspects.
PATTERNS = {
    "line": ", {required}, {limit}, {allowed}, {capitals}, {sample}. Goes on {places}",
    "choice": ", {required}: {options}; at first {default}. Goes on {places}",
    "yes_no": ", {required}, at first {default}",
    "typeface": ", {required}, among {faces}; at first {default}",
    "color": ", {required}: {colors}; at first {default}",
    "artwork": ", {required}, {kinds}. Goes on {places}",
}
PLACED = {"line": ", {height}, {align}, in {face}, in {paint}", "artwork": ", {fit}"}
ENDING = ". Adds {charge}. Asked {ask-when}."


@dataclass(frozen=True)
class Part:
    """A piece of a sentence: plain words, or an underlined value with the aspect that edits it."""

    words: str
    aspect: str = ""
    placement: str = ""


def sentence_of(line: FormLine) -> list[Part]:
    """Return the sentence of a line after its name."""
    kind = line.field.kind
    parts = [Part(f" — {KIND_WORDS[kind]}"), *_filled(line, PATTERNS[kind])]
    placements = list(line.setup.placements_of(line.field.key))
    names = area_names(line.setup)
    for placement in placements:
        if len(placements) > 1:
            parts.append(Part(f"; on {names[f'{placement.side}/{placement.area}']}"))
        parts.extend(_filled(replace(line, placement=placement), PLACED[placement.kind]))
    ending = ENDING if line.field.ask_when is None else ENDING.replace("Asked {", "Asked when {")
    return [*parts, *_filled(line, ending)]


def _filled(line: FormLine, pattern: str) -> Iterator[Part]:
    for piece in pattern.split("{"):
        name, brace, rest = piece.partition("}")
        if not brace:
            yield Part(piece)
            continue
        yield Part(ASPECTS[name].words(line), name, line.placement.key if line.placement else "")
        yield Part(rest)
