"""Wording of a product in other languages: a set-up and a language come in, rows to fill in go out."""

import hashlib
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from django.conf import settings

from yenzo.apps.products.models import Product
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.wording import missing_words, read_words, translations
from yenzo.core.translation import base_language

# What each text is, by the name it has in the document.
WHAT = {
    "name": "name",
    "story": "story",
    "title": "title",
    "introduction": "introduction",
    "label": "what customers read",
    "help": "help",
    "explanation": "longer help",
    "hint": "hint in the box",
    "unit": "unit",
    "words": "shape in words",
    "done": "as in “can't be …”",
    "message": "what is said",
}
MATERIALS = {"methods": "Method", "palettes": "Palette", "word_lists": "List of words"}
LONG = 70


@dataclass(frozen=True)
class WordsRow:
    """A text that customers read, and what it is in another language; `key` names its control."""

    key: str
    words: str
    what: str
    translated: str

    @property
    def is_long(self) -> bool:
        """Whether it needs a box of several lines."""
        return len(self.words) > LONG or "\n" in self.words


@dataclass(frozen=True)
class WordsGroup:
    """The texts of one part of a set-up."""

    title: str
    rows: tuple[WordsRow, ...]


@dataclass(frozen=True)
class OtherLanguage:
    """A language that the shop speaks beside the set-up's own, and how many texts lack it."""

    key: str
    name: str
    missing: int


def own_languages() -> list[tuple[str, str]]:
    """Return the languages that a set-up can be written in: "en" for "en-gb", so that words count everywhere."""
    return [(base_language(code), name) for code, name in settings.LANGUAGES]


def other_languages(setup: Setup) -> list[OtherLanguage]:
    """Return the languages that a set-up can be translated into."""
    return [
        OtherLanguage(key, name, len(missing_words(setup, key)))
        for key, name in own_languages()
        if key != base_language(setup.language)
    ]


def groups_of(setup: Setup, language: str, typed: Mapping[str, str], *, only_missing: bool = False) -> list[WordsGroup]:
    """Return all texts by where they stand, with what was typed instead of what is kept."""
    known = translations(setup, language)
    found: dict[str, list[WordsRow]] = {}
    for one in read_words(setup):
        key = key_of(one.words)
        translated = typed.get(key, known.get(one.words, ""))
        if not only_missing or one.words not in known or key in typed:
            row = WordsRow(key, one.words, WHAT[one.place[-1]], translated)
            found.setdefault(_title(setup, one.place), []).append(row)
    return [WordsGroup(title, tuple(rows)) for title, rows in found.items()]


def key_of(words: str) -> str:
    """Return the name of the control of a text."""
    return f"words-{hashlib.sha256(words.encode()).hexdigest()[:16]}"


def operations_for(product: Product, setup: Setup, language: str, sent: Mapping[str, str]) -> list[dict[str, Any]]:
    """Return the operations that put what was sent into the draft; none if nothing is different."""
    known = translations(setup, language)
    kept: dict[str, str] = dict(product.draft.get("wording", {}).get(language, {}))
    changed = dict(kept)
    for one in read_words(setup):
        translated = sent.get(key_of(one.words))
        if translated is None or translated == known.get(one.words, ""):
            continue
        if translated:
            changed[one.words] = translated
        else:
            changed.pop(one.words, None)
    return _set(product, language, changed) if changed != kept else []


def lent_words(product: Product, setup: Setup, language: str) -> dict[str, str]:
    """Return what other products have for texts that this one lacks."""
    lacking = {one.words for one in missing_words(setup, language)}
    found: dict[str, str] = {}
    for wording in Product.objects.exclude(pk=product.pk).order_by("pk").values_list("draft__wording", flat=True):
        known = (wording or {}).get(language, {})
        found |= {words: known[words] for words in lacking & known.keys()}
    return found


def lending_operations(product: Product, language: str, lent: Mapping[str, str]) -> list[dict[str, Any]]:
    """Return the operations that take over what other products have."""
    kept = product.draft.get("wording", {}).get(language, {})
    return _set(product, language, {**kept, **lent}) if lent else []


def incomplete_languages(setup: Setup) -> Iterable[str]:
    """Yield a piece of advice for each language that is begun and lacks something."""
    if not setup.wording:
        return
    for language in other_languages(setup):
        if language.missing and setup.wording.get(language.key):
            total = len(read_words(setup))
            yield f"{language.name}: {language.missing} of {total} texts have no translation yet; see “Wording”."


def _set(product: Product, language: str, words: dict[str, str]) -> list[dict[str, Any]]:
    if "wording" not in product.draft:
        return [{"do": "set", "path": ["wording"], "value": {language: words}}]
    return [{"do": "set", "path": ["wording", language], "value": words or None}]


def _title(setup: Setup, place: tuple[str, ...]) -> str:
    kind, key = place[0], place[1]
    if kind == "offer":
        return "Variants" if key in {"variants", "axes"} else "The product"
    if kind == "materials":
        material: Any = getattr(setup.materials, key)[place[2]]
        return f"{MATERIALS[key]} “{material.name}”"
    if kind == "sections":
        section = setup.section(key)
        return f"Section “{section.title if section else key}”"
    if kind == "sides":
        side = setup.side(key)
        return f"Side “{side.name if side else key}”"
    field = setup.field(key)
    if kind == "fields":
        return f"“{field.label if field else key}”"
    return "Charges"
