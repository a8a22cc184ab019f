"""Effects that customers may give their own texts: the forms of a placement's effects, kept with the field."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.effects import EffectAspect, PlateAspect, SecondColorAspect, ShadowAspect, StrokeAspect
from yenzo.apps.editor.aspects.interface import FormLine
from yenzo.apps.editor.aspects.own_items import own_items_of
from yenzo.apps.editor.aspects.swatches import swatches
from yenzo.core.documents.effects import Effects


class _OwnEffect(EffectAspect):
    """An effect of a field of own items: each text can have it or not."""

    def effects_of(self, line: FormLine) -> Effects:
        texts = own_items_of(line).texts
        return texts.effects if texts else Effects()

    def kept(self, line: FormLine, effects: dict[str, Any]) -> dict[str, Any]:
        texts = own_items_of(line).texts
        assert texts is not None
        return line.set("texts", {**texts.model_dump(exclude_defaults=True), "effects": effects})

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        fields = super().form_fields(line)
        color = fields["color"]
        assert isinstance(color, forms.ChoiceField)
        # Customers' own texts know nothing of other entries.
        color.choices = swatches()
        return fields


class OwnStrokeAspect(_OwnEffect, StrokeAspect):
    key, heading = "own-stroke", "May own texts have a line along their letters' edge?"


class OwnShadowAspect(_OwnEffect, ShadowAspect):
    key, heading = "own-shadow", "May own texts throw a shadow?"


class OwnPlateAspect(_OwnEffect, PlateAspect):
    key, heading = "own-plate", "May own texts stand on a plate?"


class OwnSecondColorAspect(_OwnEffect, SecondColorAspect):
    key, heading = "own-second-color", "May own texts have a second color?"
