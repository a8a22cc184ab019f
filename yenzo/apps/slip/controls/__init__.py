"""Controls of the order slip, one class a kind of field. `control_of` finds the one that asks for a field."""

from typing import Any

from yenzo.apps.slip.controls import addresses, choices, others, own_items, texts, uploads
from yenzo.apps.slip.controls.interface import Control, Details, Drawn
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import AnyField

CONTROLS: dict[type[FieldBase], Control[Any]] = {
    **texts.CONTROLS,
    **choices.CONTROLS,
    **addresses.CONTROLS,
    **others.CONTROLS,
    **uploads.CONTROLS,
    **own_items.CONTROLS,
}

__all__ = ["CONTROLS", "Control", "Details", "Drawn", "control_of"]


def control_of(field: AnyField) -> Control[Any]:
    """Return the control that asks for a field."""
    return CONTROLS[type(field)]
