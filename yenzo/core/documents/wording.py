"""What customers read of a set-up, in other languages: a set-up and a language come in, the same set-up goes out.

Translations stand in the document by the words that they translate. So what is said twice is translated once, and what
is worded anew is missing until somebody looks at it again. Only words change: what is asked, charged and made does not.
"""

from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import Any

from pydantic import BaseModel

from yenzo.core.documents.areas import Area
from yenzo.core.documents.axes import Axis, AxisValue
from yenzo.core.documents.charges import ChargeBase
from yenzo.core.documents.field_base import UNITS_MM, FieldBase, TypedField
from yenzo.core.documents.fields import (
    ChoiceField,
    ComputedField,
    FixedArtworkField,
    FixedTextField,
    NumberField,
    Option,
    Pattern,
)
from yenzo.core.documents.materials import Method, PaletteColor, ReadyDrawing, WordList
from yenzo.core.documents.own_items import Beginning
from yenzo.core.documents.setup import Offer, Section, Setup, Side
from yenzo.core.documents.used import used_materials
from yenzo.core.documents.values import Frozen
from yenzo.core.documents.variants import Variant
from yenzo.core.translation import base_language

Translate = Callable[[str], str]
Place = tuple[str, ...]

# What customers read, by model; subclasses have what their parents have.
READ: dict[type[BaseModel], tuple[str, ...]] = {
    Offer: ("name", "story"),
    Variant: ("name",),
    Axis: ("name",),
    AxisValue: ("name",),
    Side: ("name",),
    Area: ("name",),
    Section: ("title", "introduction"),
    FieldBase: ("label", "help", "explanation"),
    TypedField: ("hint",),
    NumberField: ("unit",),
    ComputedField: ("unit",),
    Pattern: ("words",),
    ChoiceField: ("prompt",),
    Option: ("label",),
    ChargeBase: ("label",),
    Method: ("name", "done"),
    PaletteColor: ("name",),
    WordList: ("message",),
    Beginning: ("name",),
    ReadyDrawing: ("name", "tags"),
}
UNREAD = (FixedTextField, FixedArtworkField)
WORDINGS_KEPT = 100


class ReadWords(Frozen):
    """Words that customers read, and where they stand: the names and keys that lead there."""

    words: str
    place: Place


def read_words(setup: Setup) -> tuple[ReadWords, ...]:
    """Return all that customers read of a set-up, each text once, in the order of the document."""
    used = setup.model_copy(update={"materials": used_materials(setup)})
    found: dict[str, Place] = {}
    for words, place in _walked(used, ()):
        found.setdefault(words, place)
    return tuple(ReadWords(words=words, place=place) for words, place in found.items())


def placed_words(setup: Setup) -> dict[Place, str]:
    """Return all that customers read of a set-up itself, by where it stands."""
    own = setup.model_copy(update={"materials": setup.materials.model_copy(update={"methods": {}, "palettes": {}})})
    return {place: words for words, place in _walked(own, ())}


def missing_words(setup: Setup, language: str) -> tuple[ReadWords, ...]:
    """Return what customers who read this language get in the set-up's own language."""
    if base_language(language) == base_language(setup.language):
        return ()
    known = translations(setup, language)
    return tuple(one for one in read_words(setup) if one.words not in known)


def translations(setup: Setup, language: str) -> dict[str, str]:
    """Return the words of a language by those that they translate; those of "de" count for "de-AT" too."""
    return {**setup.wording.get(base_language(language), {}), **setup.wording.get(language, {})}


def in_language(setup: Setup, language: str) -> Setup:
    """Return the set-up as customers read it who know this language; what has no translation stays as it is.

    What choices have made on the goods stays in the words of the set-up's own language.
    """
    if base_language(language) == base_language(setup.language) or language_read(setup, language) != language:
        return setup
    return _worded(_Same(setup), language)


def used_wording(setup: Setup) -> dict[str, dict[str, str]]:
    """Return the translations of what the set-up still says."""
    said = {one.words for one in read_words(setup)}
    kept = {
        language: {words: known for words, known in translated.items() if words in said}
        for language, translated in setup.wording.items()
    }
    return {language: translated for language, translated in kept.items() if translated}


def language_read(setup: Setup, language: str) -> str:
    """Return the language that customers read a set-up in: theirs if it has words in it, else its own.

    What they write is taken to be of that language: capitals, shapes of letters and numbers follow it.
    """
    base = base_language(language)
    is_spoken = base == base_language(setup.language) or bool(setup.wording.keys() & {language, base})
    return language if is_spoken else setup.language


class _Same:
    """A set-up told apart by being the very same: to compare whole documents would take longer than to word them."""

    def __init__(self, setup: Setup) -> None:
        self.setup = setup

    def __hash__(self) -> int:
        return id(self.setup)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Same) and self.setup is other.setup


@lru_cache(maxsize=WORDINGS_KEPT)
def _worded(same: _Same, language: str) -> Setup:
    known = translations(same.setup, language)
    worded = _translated(same.setup, lambda words: known.get(words, words))
    assert isinstance(worded, Setup)
    return worded


def _translated(value: Any, translate: Translate) -> Any:
    if isinstance(value, tuple):
        return tuple(_translated(item, translate) for item in value)
    if isinstance(value, dict):
        return {key: _translated(item, translate) for key, item in value.items()}
    if not isinstance(value, BaseModel) or isinstance(value, UNREAD):
        return value
    changed: dict[str, Any] = {}
    read = _read_of(type(value))
    for name in type(value).model_fields:
        now = getattr(value, name)
        new = _said(now, translate) if now and _is_read(name, now, read) else _translated(now, translate)
        if new is not now:
            changed[name] = new
    if isinstance(value, Option) and "label" in changed and not value.produced:
        changed["produced"] = value.label
    # Nothing but words has changed: what was checked needs no checking again.
    return value.model_copy(update=changed) if changed else value


def _said(words: Any, translate: Translate) -> Any:
    """Return words, or each of several, in another language."""
    if not isinstance(words, tuple):
        return translate(words)
    said = tuple(map(translate, words))
    return words if said == words else said


def _walked(value: Any, place: Place) -> Iterator[tuple[str, Place]]:
    if isinstance(value, tuple):
        for item in value:
            yield from _walked(item, (*place, getattr(item, "key", "")))
    elif isinstance(value, dict):
        for key, item in value.items():
            yield from _walked(item, (*place, str(key)))
    elif isinstance(value, BaseModel) and not isinstance(value, UNREAD):
        read = _read_of(type(value))
        for name in type(value).model_fields:
            now = getattr(value, name)
            if not _is_read(name, now, read):
                yield from _walked(now, (*place, name))
            elif isinstance(now, tuple):
                yield from ((words, (*place, name, words)) for words in now)
            elif now:
                yield now, (*place, name)


def _is_read(name: str, value: object, read: tuple[str, ...]) -> bool:
    """Tell whether a value is words. A unit of length is none: sizes are worked out by it, in whichever language."""
    return name in read and not (name == "unit" and value in UNITS_MM)


@lru_cache(maxsize=200)
def _read_of(model: type[BaseModel]) -> tuple[str, ...]:
    return tuple(name for known, names in READ.items() if issubclass(model, known) for name in names)
