"""The ways in which something is charged: each with what its form asks, and what that means in a document."""

from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from typing import Any

from django import forms

from yenzo.apps.editor.aspects.choosing import possibilities
from yenzo.apps.editor.aspects.interface import shown_for
from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.phrases import plain_decimal
from yenzo.core.asking.words import say_amount
from yenzo.core.documents.charges import AnyCharge, Band, BandCharge, ChoiceCharge, ItemCharge
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.named import MEASURED, formula_fault, known_names
from yenzo.core.documents.setup import Setup

Fields = dict[str, forms.Field]
Given = dict[str, Any]
BANDS_OF = {
    "pieces": "how many pieces of one design are ordered",
    "product_pieces": "how many pieces of the product are ordered, whatever is on them",
    "entry": "the number that is entered",
    "cm2": "decorated cm²",
}

ITEMS = {
    "any": "all items",
    "text": "texts",
    "picture": "pictures",
    "drawing": "drawings",
    "code": "codes",
}


@dataclass(frozen=True)
class Way:
    """One way of charging, by the kind of charge it makes; this one is an amount, whatever is entered.

    `of_entries` tells that only some kinds of field have what it counts.
    """

    kind: str
    words: str
    of_entries: bool = False

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:  # noqa: ARG002
        """Return what its form asks beside what all ask; what several ask by the same name is asked once."""
        return {"amount": amount_field(getattr(charge, "amount", None), "Amount", "Below zero it takes off.")}

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:  # noqa: ARG002 - formulas look at the set-up
        """Return what a charge has of what was given; raises ValidationError."""
        return {"amount": str(wanted(given["amount"], "Write what it adds."))}


class PercentWay(Way):
    """A share of the base price."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:  # noqa: ARG002
        """Ask how many percent."""
        return {
            "percent": forms.DecimalField(
                required=False,
                min_value=-100,
                max_value=1000,
                max_digits=8,
                decimal_places=4,
                initial=plain_decimal(getattr(charge, "percent", None)),
                label="Percent of the base price",
            )
        }

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:  # noqa: ARG002
        """Return the share."""
        return {"percent": str(wanted(given["percent"], "Write how many percent it adds."))}


class ChoiceWay(Way):
    """An amount for each choice."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:
        """Ask for an amount for each possibility."""
        amounts = charge.amounts if isinstance(charge, ChoiceCharge) else {}
        offered = possibilities(setup, field) if field else []
        return {f"choice-{key}": amount_field(amounts.get(key), f"For {name}") for key, name in offered}

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:  # noqa: ARG002
        """Return the amounts by key."""
        named = {name.removeprefix("choice-"): given[name] for name in given if name.startswith("choice-")}
        amounts = {key: str(amount) for key, amount in named.items() if amount}
        return {"amounts": wanted(amounts, "Write an amount for at least one of the choices.")}


class CountedWay(Way):
    """An amount for each of what is counted, some of them free."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:
        """Ask for the amount, and how many are free."""
        beyond = forms.IntegerField(
            required=False,
            min_value=0,
            max_value=10_000,
            initial=getattr(charge, "beyond", 0),
            label="So many are free of charge",
        )
        return {**super().fields(setup, field, charge), "beyond": beyond}

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:
        """Return the amount, and how many are free."""
        return super().values(setup, given) | ({"beyond": given["beyond"]} if given["beyond"] else {})


class ItemWay(CountedWay):
    """An amount for each item that customers put on the goods themselves."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:
        """Ask which items count."""
        of = forms.ChoiceField(
            choices=list(ITEMS.items()),
            required=False,
            initial=charge.of if isinstance(charge, ItemCharge) else "any",
            label="Counted are",
        )
        return {**super().fields(setup, field, charge), "items_of": of}

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:
        """Return which items count."""
        of = given["items_of"] or "any"
        return super().values(setup, given) | ({} if of == "any" else {"of": of})


class CharacterWay(CountedWay):
    """An amount a character."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:
        """Ask whether spaces count."""
        return {
            **super().fields(setup, field, charge),
            "count_spaces": tick_field("Spaces count too", is_ticked=getattr(charge, "count_spaces", False)),
        }

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:
        """Return whether spaces count."""
        return super().values(setup, given) | ({"count_spaces": True} if given["count_spaces"] else {})


class SquareWay(CountedWay):
    """An amount a square centimetre."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:
        """Ask what is measured."""
        measured = forms.ChoiceField(
            required=False,
            choices=[("ink", "the box around the ink"), ("area", "the whole imprint area")],
            initial=getattr(charge, "measured", "ink"),
            label="Measured by",
        )
        return {**super().fields(setup, field, charge), "measured": measured}

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:
        """Return what is measured."""
        return super().values(setup, given) | {"measured": given["measured"] or "ink"}


class BandWay(Way):
    """An amount by bands of a number."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:  # noqa: ARG002
        """Ask for the bands and what they are of."""
        is_numbered = field is not None and field.is_number
        offered = [(of, words) for of, words in BANDS_OF.items() if of != "entry" or is_numbered]
        bands = charge.bands if isinstance(charge, BandCharge) else ()
        return {
            "of": forms.ChoiceField(
                required=False, choices=offered, initial=getattr(charge, "of", offered[0][0]), label="Bands of"
            ),
            "bands": LinesField(
                required=False,
                widget=forms.Textarea(attrs={"rows": 4, "placeholder": "1 = 4.00\n10 = -5 %"}),
                initial="\n".join(_written(band) for band in bands),
                label="One band a line: from how much on = amount, or share of the base price",
            ),
        }

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:  # noqa: ARG002
        """Return the bands and what they are of."""
        rows = [row for row in given["bands"].splitlines() if row.strip()]
        bands = [_band(row) for row in wanted(rows, "Write at least one band: 10 = 4.00.")]
        return {"of": given["of"] or "pieces", "bands": bands}


class FormulaWay(Way):
    """What a formula comes to."""

    def fields(self, setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:  # noqa: ARG002
        """Ask for the formula, and say what it may name."""
        names = "; ".join(f"{name}: {words}" for name, words in known_names(setup).items())
        help_text = (
            f"It may name: {names}; and {', '.join(MEASURED)} of what lands on the goods. "
            "Functions: round, up, down, min, max, abs, root, count."
        )
        initial = getattr(charge, "formula", "")
        return {
            "formula": LineField(required=False, max_length=1000, initial=initial, label="Formula", help_text=help_text)
        }

    def values(self, setup: Setup, given: Given) -> dict[str, Any]:
        """Return the formula, if it can be worked out."""
        formula = wanted(given["formula"], "Write a formula.")
        fault = formula_fault(setup, formula, *MEASURED)
        if fault:
            raise forms.ValidationError(fault)
        return {"formula": formula}


# In the order in which they are offered.
WAYS = {
    way.kind: way
    for way in (
        Way("fixed", "an amount"),
        PercentWay("percent", "a share of the base price"),
        ChoiceWay("per_choice", "an amount for each choice", of_entries=True),
        CharacterWay("per_character", "an amount a character", of_entries=True),
        CountedWay("per_word", "an amount a word", of_entries=True),
        CountedWay("per_line", "an amount a line", of_entries=True),
        CountedWay("per_upload", "an amount a file", of_entries=True),
        ItemWay("per_item", "an amount an item of their own", of_entries=True),
        CountedWay("per_color", "an amount a color"),
        CountedWay("per_side", "an amount for each side used"),
        CountedWay("per_placed", "an amount for each item placed"),
        SquareWay("per_cm2", "an amount a square centimetre"),
        BandWay("bands", "an amount by bands"),
        FormulaWay("formula", "what a formula comes to"),
    )
}


def ways_of(field: AnyField | None) -> list[Way]:
    """Return the ways in which a field, or the piece as a whole, can be charged."""
    counted = field.charged_by if field else ()
    return [way for way in WAYS.values() if not way.of_entries or way.kind in counted]


def fields_of_ways(setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> Fields:
    """Return what the forms of all ways ask, each shown only while a way is chosen that asks it."""
    asked: Fields = {}
    shown: dict[str, list[str]] = {}
    for way in WAYS.values():
        for name, form_field in way.fields(setup, field, charge).items():
            asked.setdefault(name, form_field)
            shown.setdefault(name, []).append(way.kind)
    return {name: shown_for(" ".join(shown[name]), form_field) for name, form_field in asked.items()}


def wanted(value: Any, words: str) -> Any:
    """Return what was given; raises ValidationError with the words when nothing was."""
    if not value:
        raise forms.ValidationError(words)
    return value


def amount_field(initial: Decimal | None, label: str, help_text: str = "") -> forms.DecimalField:
    """Return a field for an amount of money that may be left out."""
    return forms.DecimalField(
        initial=initial, label=label, help_text=help_text, max_digits=10, decimal_places=3, required=False
    )


def tick_field(label: str, *, is_ticked: bool) -> forms.BooleanField:
    """Return a box to tick."""
    return forms.BooleanField(required=False, initial=is_ticked, label=label)


def _band(row: str) -> dict[str, Any]:
    begins, _, adds = (part.strip() for part in row.partition("="))
    is_share = adds.endswith("%")
    try:
        numbers = [Decimal(begins), Decimal(adds.removesuffix("%").strip())]
    except InvalidOperation:
        numbers = []
    if len(numbers) != len(("begins", "adds")) or not all(number.is_finite() for number in numbers):
        raise forms.ValidationError(f"“{row.strip()}” is no band. Write it like 10 = 4.00 or 10 = -5 %.")
    return {"begins": str(numbers[0]), ("percent" if is_share else "amount"): str(numbers[1])}


def _written(band: Band) -> str:
    adds = f"{plain_decimal(band.percent)} %" if band.percent else say_amount(band.amount)
    return f"{plain_decimal(band.begins)} = {adds}"
