"""Kinds of field: what each can do, one module a family. `kind_of` finds the kind of a field."""

from typing import Any

from yenzo.core.asking.kinds import (
    addresses,
    choices,
    contacts,
    extras,
    files,
    fixed,
    headings,
    measured,
    own_items,
    texts,
)
from yenzo.core.asking.kinds.interface import EntryContext, Kind, RawEntry, Value
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import AnyField

KINDS: dict[type[FieldBase], Kind[Any]] = {
    **texts.KINDS,
    **measured.KINDS,
    **contacts.KINDS,
    **addresses.KINDS,
    **choices.KINDS,
    **files.KINDS,
    **fixed.KINDS,
    **extras.KINDS,
    **headings.KINDS,
    **own_items.KINDS,
}

__all__ = ["KINDS", "EntryContext", "Kind", "RawEntry", "Value", "kind_of"]


def kind_of(field: AnyField) -> Kind[Any]:
    """Return what the field's kind can do."""
    return KINDS[type(field)]
