"""The one function that decides what is asked (D4): set-up, entries and context come in, `Asked` goes out."""

from datetime import date

from yenzo.core.asking.kinds import Given, Value, kind_of
from yenzo.core.documents.entries import Adjustment, Entries, UploadedFile
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.rules import holds
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen, Key


class Context(Frozen):
    """What the core may not fetch itself: today, and the language of produced text, unless the entries say."""

    language: str = "en"
    today: date | None = None


class Asked(Frozen):
    """Only what is asked now, normalised, in the order of the set-up. All later steps take this, never the raw form.

    `today` is the day it was asked, which bounds of days count from; it is not known of old orders.
    """

    values: dict[Key, str | bool | UploadedFile]
    adjustments: dict[Key, Adjustment] = {}
    variant: Key | None = None
    pieces: int = 1
    language: str = "en"
    today: date | None = None

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
        today=context.today if context else None,
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
        entries = self._entries
        given = Given(entries.values.get(field.key), entries.uploads.get(field.key), self._language)
        value: Value = kind_of(field).value(field, given)
        return value

    def _value_now(self, key: str) -> Value:
        field = self._setup.field(key)
        return self.value(field) if field is not None and self.is_asked(field) else ""
