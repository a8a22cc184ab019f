"""Entries in words: a set-up and what is asked come in, what each entry is called and says goes out."""

from decimal import Decimal

from yenzo.core.asking.ask import Asked, Value
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.fields import AnyField, ChoiceField, ColorField, TextField, TypefaceField, YesNoField
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen


class SaidEntry(Frozen):
    """One entry as people read it; `is_exact` when each of its characters counts."""

    field: str
    label: str
    workshop_label: str
    words: str
    is_exact: bool


def say_amount(amount: Decimal) -> str:
    """Return an amount as the workshop writes it in sentences, with at least two decimals and no currency."""
    return f"{amount:.2f}" if amount == round(amount, 2) else f"{amount.normalize():f}"


def value_name(setup: Setup, field: AnyField, key: str) -> str:
    """Return what a customer calls the chosen possibility of a field."""
    if isinstance(field, ChoiceField):
        option = field.option(key)
        return option.label if option else key
    if isinstance(field, ColorField):
        palette = setup.materials.palettes.get(field.palette)
        color = palette.color(key) if palette else None
        return color.name if color else key
    typeface = setup.materials.typefaces.get(key) if isinstance(field, TypefaceField) else None
    return typeface.name if typeface else key


def say_entries(setup: Setup, asked: Asked) -> tuple[SaidEntry, ...]:
    """Return every entry that is asked and filled, in the order of the form."""
    return tuple(
        SaidEntry(
            field=field.key,
            label=field.label,
            workshop_label=field.workshop_name or field.label,
            words=_words(setup, field, asked.values[field.key]),
            is_exact=isinstance(field, TextField),
        )
        for field in setup.fields
        if asked.is_filled(field.key)
    )


def _words(setup: Setup, field: AnyField, value: Value) -> str:
    if isinstance(value, UploadedFile):
        return value.name
    return "yes" if isinstance(field, YesNoField) else value_name(setup, field, str(value))
