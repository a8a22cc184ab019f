"""What a line offers: choices, typefaces, colors, and what is chosen at first."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.editor.aspects.swatches import swatches
from yenzo.apps.materials.to_core import materials
from yenzo.apps.pages.phrases import joined
from yenzo.core.asking.words import say_amount, value_name
from yenzo.core.documents.charges import ChoiceCharge
from yenzo.core.documents.fields import AnyField, ColorField, MethodField, SeveralField, TypefaceField, YesNoField
from yenzo.core.documents.setup import Setup

MOST_NAMED = 6


def possibilities(setup: Setup, field: AnyField) -> list[tuple[str, str]]:
    """Return what a field offers as (key, name)."""
    return [(key, value_name(setup, field, key)) for key in setup.offered_of(field)]


def lost_amounts(line: FormLine, left: set[str]) -> list[str]:
    """Return which charges go with possibilities that are no longer offered, in words."""
    names = dict(possibilities(line.setup, line.field))
    return [
        f"the {say_amount(amount)} that “{names.get(key, key)}” adds"
        for charge in line.setup.charges_of(line.field.key)
        if isinstance(charge, ChoiceCharge)
        for key, amount in charge.amounts.items()
        if key not in left
    ]


def dropped_amounts(line: FormLine, left: set[str]) -> Operations:
    """Return operations that take the charges of possibilities away that are no longer offered."""
    operations: Operations = []
    for charge in line.setup.charges_of(line.field.key):
        if not isinstance(charge, ChoiceCharge) or set(charge.amounts) <= left:
            continue
        amounts = {key: str(amount) for key, amount in charge.amounts.items() if key in left}
        if amounts:
            operations.append({"do": "set", "path": ["charges", charge.key, "amounts"], "value": amounts})
        else:
            operations.append({"do": "remove", "path": ["charges"], "key": charge.key})
    return operations


class FacesAspect(Aspect):
    key, heading = "faces", "Which typefaces may be chosen?"

    def words(self, line: FormLine) -> str:
        return joined([name for _, name in possibilities(line.setup, line.field)], "or")

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, TypefaceField)
        choices = [(key, typeface.name) for key, typeface in materials().typefaces.items()]
        return {
            "typefaces": forms.MultipleChoiceField(
                choices=choices,
                initial=line.field.typefaces,
                widget=forms.CheckboxSelectMultiple,
                label="Typefaces",
                error_messages={"required": "Leave at least one typeface."},
            )
        }

    def losses(self, line: FormLine, given: dict[str, Any]) -> list[str]:
        return lost_amounts(line, set(given["typefaces"]))

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        assert isinstance(line.field, TypefaceField)
        left = set(given["typefaces"])
        default = [line.set("default", None)] if line.field.default not in left else []
        return [line.set("typefaces", given["typefaces"]), *default, *dropped_amounts(line, left)]


class MethodsAspect(Aspect):
    key, heading = "methods", "Which decoration methods may be chosen?"

    def words(self, line: FormLine) -> str:
        return joined([name for _, name in possibilities(line.setup, line.field)], "or")

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, MethodField)
        return {
            "methods": forms.MultipleChoiceField(
                choices=[(key, method.name) for key, method in materials().methods.items()],
                initial=line.field.methods,
                widget=forms.CheckboxSelectMultiple,
                label="Methods",
                help_text="Limits, files and the ticket follow the one that is chosen, in areas that say so.",
                error_messages={"required": "Leave at least one method."},
            )
        }

    def losses(self, line: FormLine, given: dict[str, Any]) -> list[str]:
        return lost_amounts(line, set(given["methods"]))

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        assert isinstance(line.field, MethodField)
        left = set(given["methods"])
        default = [line.set("default", None)] if line.field.default not in left else []
        return [line.set("methods", given["methods"]), *default, *dropped_amounts(line, left)]


class ColorsAspect(Aspect):
    key, heading = "colors", "Which colors may be chosen?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, ColorField)
        palette = line.setup.materials.palettes.get(line.field.palette)
        names = [name for _, name in possibilities(line.setup, line.field)]
        more = len(names) - MOST_NAMED
        said = joined(names, "or") if more <= 0 else f"{', '.join(names[:MOST_NAMED])} and {more} more"
        own = f", or a color of their own within {line.field.reach:g} of one" if line.field.reach else ""
        return f"{said} of {palette.name if palette else line.field.palette}{own}" if names else "no colors"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ColorField)
        chosen = [f"{line.field.palette}/{key}" for key in line.setup.offered_of(line.field)]
        return {
            "colors": forms.MultipleChoiceField(
                choices=swatches(), initial=chosen, widget=forms.CheckboxSelectMultiple, label="Colors of one palette"
            ),
            "reach": forms.FloatField(
                required=False,
                min_value=0.5,
                max_value=100,
                initial=line.field.reach,
                widget=forms.NumberInput(attrs={"step": "any"}),
                label="Customers may mix their own, as far from one of these",
                help_text="As eyes see it (CIEDE2000): 2 is hardly told apart, 10 is another shade. Empty: they can't.",
            ),
        }

    def losses(self, line: FormLine, given: dict[str, Any]) -> list[str]:
        return lost_amounts(line, {choice.split("/", 1)[1] for choice in given["colors"]})

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        assert isinstance(line.field, ColorField)
        picked = [choice.split("/", 1) for choice in given["colors"]]
        palettes = {palette for palette, _ in picked}
        if len(palettes) != 1:
            raise forms.ValidationError("Pick colors of one palette only.")
        palette = palettes.pop()
        colors = [color for _, color in picked]
        default = [line.set("default", None)] if line.field.default not in colors else []
        whole = {color.key for color in materials().palettes[palette].colors}
        # All of them means the whole palette, with what is added to it later.
        changes = [
            line.set("palette", palette),
            line.set("colors", None if whole <= set(colors) else colors),
            line.set("reach", given["reach"]),
        ]
        return [*changes, *default, *dropped_amounts(line, set(colors))]


class DefaultAspect(Aspect):
    key, heading = "default", "What is chosen at first?"

    def words(self, line: FormLine) -> str:
        if isinstance(line.field, YesNoField):
            return "yes" if line.field.default else "no"
        if isinstance(line.field, SeveralField):
            names = dict(possibilities(line.setup, line.field))
            return joined([names[key] for key in line.field.default if key in names]) if line.field.default else "none"
        default = getattr(line.field, "default", None)
        return value_name(line.setup, line.field, default) if default else "nothing"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        if isinstance(line.field, YesNoField):
            choices, initial = [("no", "No"), ("yes", "Yes")], "yes" if line.field.default else "no"
        elif isinstance(line.field, SeveralField):
            several = forms.MultipleChoiceField(
                required=False,
                choices=possibilities(line.setup, line.field),
                initial=line.field.default,
                widget=forms.CheckboxSelectMultiple,
                label="At first",
            )
            return {"default": several}
        else:
            choices = [("", "Nothing"), *possibilities(line.setup, line.field)]
            initial = getattr(line.field, "default", None) or ""
        return {"default": forms.ChoiceField(required=False, choices=choices, initial=initial, label="At first")}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if isinstance(line.field, YesNoField):
            return [line.set("default", given["default"] == "yes" or None)]
        return [line.set("default", given["default"] or None)]
