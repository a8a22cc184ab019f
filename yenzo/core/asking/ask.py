"""The one function that decides what is asked (D4): set-up, entries and context come in, `Asked` goes out."""

from typing import assert_never

import icu

from yenzo.core.asking.rules import holds
from yenzo.core.documents.entries import Adjustment, Entries, UploadedFile
from yenzo.core.documents.fields import (
    AnyField,
    ArtworkField,
    ChoiceField,
    ColorField,
    LineField,
    ParagraphField,
    TextField,
    TypefaceField,
    YesNoField,
)
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen, Key

Value = str | bool | UploadedFile


class Context(Frozen):
    """What the core may not fetch itself: the language of produced text (casing, shaping), unless the entries say."""

    language: str = "en"


class Asked(Frozen):
    """Only what is asked now, normalised, in the order of the set-up. All later steps take this, never the raw form."""

    values: dict[Key, str | bool | UploadedFile]
    adjustments: dict[Key, Adjustment] = {}
    variant: Key | None = None
    pieces: int = 1
    language: str = "en"

    def text(self, field_key: str) -> str:
        """Return the entry of a field as text; empty when it isn't asked, isn't filled or isn't a text."""
        value = self.values.get(field_key, "")
        return value if isinstance(value, str) else ""

    def is_filled(self, field_key: str) -> bool:
        """Tell whether a field is asked and has an entry; yes counts as filled, no doesn't."""
        return bool(self.values.get(field_key))


def ask(setup: Setup, entries: Entries, context: Context | None = None) -> Asked:
    """Return what is asked of this customer now. What isn't asked is left out, whatever was typed before."""
    language = entries.language if "language" in entries.model_fields_set else (context or Context()).language
    decided = _Decisions(setup, entries, language)
    values = {field.key: decided.value(field) for field in setup.fields if decided.is_asked(field)}
    variants = setup.offer.variants
    variant = setup.offer.variant(entries.variant) or (variants[0] if variants else None)
    landing = {placement.key for placement in setup.placements if any(key in values for key in placement.fields)}
    return Asked(
        values=values,
        adjustments={key: moved for key, moved in entries.adjustments.items() if key in landing},
        variant=variant.key if variant else None,
        pieces=entries.pieces,
        language=language,
    )


class _Decisions:
    """Decides each field once; a rule may look at fields that come later in the form."""

    def __init__(self, setup: Setup, entries: Entries, language: str) -> None:
        self._setup = setup
        self._entries = entries
        self._language = language
        self._asked: dict[str, bool] = {}

    def is_asked(self, field: AnyField) -> bool:
        if field.key not in self._asked:
            self._asked[field.key] = field.ask_when is None or holds(field.ask_when, self._value_now)
        return self._asked[field.key]

    def value(self, field: AnyField) -> Value:
        raw = self._entries.values.get(field.key)
        match field:
            case ArtworkField():
                return self._entries.uploads.get(field.key, "")
            case YesNoField():
                return field.default if raw is None else raw is True or raw == "yes"
            case LineField() | ParagraphField():
                return _text(field, field.default if raw is None else str(raw), self._language)
            case ChoiceField() | TypefaceField() | ColorField():
                return (field.default or "") if raw is None else str(raw)
            case _:
                assert_never(field)

    def _value_now(self, key: str) -> Value:
        field = self._setup.field(key)
        return self.value(field) if field is not None and self.is_asked(field) else ""


def _text(field: TextField, raw: str, language: str) -> str:
    if isinstance(field, ParagraphField):
        text = "\n".join(" ".join(line.split()) for line in raw.splitlines()).strip("\n")
    else:
        text = " ".join(raw.split())
    if field.capitals:
        # Unicode's full case mapping by language (the Standard, section 3.13): ß becomes SS, Turkish i keeps its dot.
        text = str(icu.UnicodeString(text).toUpper(icu.Locale(language)))
    return text
