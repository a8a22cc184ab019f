"""Entries in words: a set-up and what is asked come in, what each entry is called and says goes out."""

from decimal import Decimal

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.kinds import EntryContext, kind_of
from yenzo.core.documents.field_base import TypedField
from yenzo.core.documents.fields import AnyField, OptionsField
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen
from yenzo.core.translation import current_language, decimal


class EntryInWords(Frozen):
    """One entry as people read it; `is_exact` when each character counts, not `is_asked` what is always made."""

    field: str
    label: str
    workshop_label: str
    words: str
    is_exact: bool
    is_asked: bool = True


def say_amount(amount: Decimal) -> str:
    """Return an amount as its reader writes it in sentences, with at least two decimals and no currency."""
    return decimal(amount, 2) if amount == round(amount, 2) else decimal(amount)


def value_name(setup: Setup, field: AnyField, key: str) -> str:
    """Return what a customer calls the entry of a field, or one of several."""
    if isinstance(field, OptionsField):
        option = field.option(key)
        return option.label if option else key
    return str(kind_of(field).words(field, key, EntryContext(setup, current_language(), None)))


def entries_in_words(setup: Setup, asked: Asked) -> tuple[EntryInWords, ...]:
    """Return every entry that is asked and filled, in the order of the form."""
    context = EntryContext(setup, asked.language, asked.today)
    return tuple(
        EntryInWords(
            field=field.key,
            label=field.label,
            workshop_label=field.workshop_name or field.label,
            words=kind_of(field).words(field, asked.values[field.key], context),
            is_exact=isinstance(field, TypedField),
            is_asked=field.is_asked,
        )
        for field in setup.fields
        if asked.is_filled(field.key)
    )
