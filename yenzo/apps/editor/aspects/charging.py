"""What a line, or the piece as a whole, adds to the price: each charge by itself."""

from decimal import Decimal, InvalidOperation
from typing import Any

from django import forms

from yenzo.apps.editor.aspects.choosing import possibilities
from yenzo.apps.editor.aspects.interface import Aspect, FormLine, L, Operations, WholeForm, shown_for
from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.phrases import joined, plain_decimal
from yenzo.core.asking.words import say_amount
from yenzo.core.documents.charges import AnyCharge, Band, BandCharge, ChoiceCharge
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.named import MEASURED, formula_fault, known_names
from yenzo.core.documents.setup import Setup
from yenzo.core.pricing.words import charge_words

WAYS = {
    "fixed": "an amount",
    "percent": "a share of the base price",
    "per_choice": "an amount for each choice",
    "per_character": "an amount a character",
    "per_word": "an amount a word",
    "per_line": "an amount a line",
    "per_upload": "an amount a file",
    "per_color": "an amount a color",
    "per_side": "an amount for each side used",
    "per_placed": "an amount for each item placed",
    "per_cm2": "an amount a square centimetre",
    "bands": "an amount by bands",
    "formula": "what a formula comes to",
}
COUNTED = ("per_character", "per_word", "per_line", "per_upload", "per_color", "per_side", "per_placed", "per_cm2")
PER = (("piece", "for each piece"), ("line", "once for all pieces of a line"), ("order", "once an order"))
ROUNDINGS = (("nearest", "to the nearest step"), ("up", "up"), ("down", "down"))
BANDS_OF = {
    "pieces": "how many pieces of one design are ordered",
    "product_pieces": "how many pieces of the product are ordered, whatever is on them",
    "entry": "the number that is entered",
    "cm2": "decorated cm²",
}


# Charges that count what is entered in some kinds of field only.
OF_ENTRIES = ("per_choice", "per_character", "per_word", "per_line", "per_upload")


def ways_of(field: AnyField | None) -> list[str]:
    """Return the kinds of charge that a field, or the piece as a whole, can have."""
    counted = field.charged_by if field else ()
    return [way for way in WAYS if way not in OF_ENTRIES or way in counted]


class ChargeAspect(Aspect[L]):
    """One charge; a line that means none of its charges means a new one."""

    key, heading = "charge", "What does it add to the price?"

    def words(self, line: L) -> str:
        charge = _charge(line)
        return joined((charge and charge_words(line.setup, charge, say_amount)) or ["nothing"])

    def form_fields(self, line: L) -> dict[str, forms.Field]:
        charge, field = _charge(line), _field(line)
        ways = ways_of(field)
        fields: dict[str, forms.Field] = {
            "way": forms.ChoiceField(
                choices=[(way, WAYS[way].capitalize()) for way in ways],
                initial=charge.kind if charge else ways[0],
                label="It adds",
            )
        }
        fields |= _kind_fields(line.setup, field, charge)
        fields |= _common_fields(charge)
        if charge is not None:
            fields["remove"] = forms.BooleanField(required=False, label="Take this charge away")
        return fields

    def operations(self, line: L, given: dict[str, Any]) -> Operations:
        charge, field = _charge(line), _field(line)
        keys = [one.key for one in line.setup.charges]
        removed: Operations = [{"do": "remove", "path": ["charges"], "key": charge.key}] if charge else []
        if given.get("remove"):
            return removed
        if given["least"] is not None and given["most"] is not None and given["least"] > given["most"]:
            raise forms.ValidationError("The least that it comes to is above the most.")
        wanted = field.key if field else "piece"
        key = charge.key if charge else free_key({"charges": [{"key": key} for key in keys]}, ("charges",), wanted)
        item: dict[str, Any] = {
            "kind": given["way"],
            "key": key,
            **({"field": field.key} if field else {}),
            **_kind_values(line.setup, given),
            **_common_values(given),
        }
        position = keys.index(charge.key) if charge else len(keys)
        return [*removed, {"do": "add", "path": ["charges"], "item": item, "position": position}]


def _charge(line: FormLine | WholeForm | Any) -> AnyCharge | None:
    charge: AnyCharge | None = line.charge
    return charge


def _field(line: FormLine | WholeForm | Any) -> AnyField | None:
    return line.field if isinstance(line, FormLine) else None


def _kind_fields(setup: Setup, field: AnyField | None, charge: AnyCharge | None) -> dict[str, forms.Field]:
    counted = " ".join(COUNTED)
    fields = {
        "amount": shown_for(
            f"fixed {counted}", _amount(getattr(charge, "amount", None), "Amount", "Below zero it takes off.")
        ),
        "percent": shown_for("percent", _percent(getattr(charge, "percent", None))),
        "beyond": shown_for(
            counted,
            forms.IntegerField(
                required=False,
                min_value=0,
                max_value=10_000,
                initial=getattr(charge, "beyond", 0),
                label="So many are free of charge",
            ),
        ),
        "count_spaces": shown_for("per_character", _tick(getattr(charge, "count_spaces", False), "Spaces count too")),
        "measured": shown_for(
            "per_cm2",
            forms.ChoiceField(
                required=False,
                choices=[("ink", "the box around the ink"), ("area", "the whole imprint area")],
                initial=getattr(charge, "measured", "ink"),
                label="Measured by",
            ),
        ),
    }
    for key, name in possibilities(setup, field) if field else []:
        amount = charge.amounts.get(key) if isinstance(charge, ChoiceCharge) else None
        fields[f"choice-{key}"] = shown_for("per_choice", _amount(amount, f"For {name}"))
    return fields | _band_fields(field, charge) | _formula_fields(setup, charge)


def _band_fields(field: AnyField | None, charge: AnyCharge | None) -> dict[str, forms.Field]:
    is_numbered = field is not None and field.is_number
    offered = [(of, words) for of, words in BANDS_OF.items() if of != "entry" or is_numbered]
    bands = charge.bands if isinstance(charge, BandCharge) else ()
    return {
        "of": shown_for(
            "bands",
            forms.ChoiceField(
                required=False, choices=offered, initial=getattr(charge, "of", offered[0][0]), label="Bands of"
            ),
        ),
        "bands": shown_for(
            "bands",
            LinesField(
                required=False,
                widget=forms.Textarea(attrs={"rows": 4, "placeholder": "1 = 4.00\n10 = -5 %"}),
                initial="\n".join(_written(band) for band in bands),
                label="One band a line: from how much on = amount, or share of the base price",
            ),
        ),
    }


def _formula_fields(setup: Setup, charge: AnyCharge | None) -> dict[str, forms.Field]:
    names = "; ".join(f"{name}: {words}" for name, words in known_names(setup).items())
    return {
        "formula": shown_for(
            "formula",
            LineField(
                required=False,
                max_length=1000,
                initial=getattr(charge, "formula", ""),
                label="Formula",
                help_text=f"It may name: {names}; and {', '.join(MEASURED)} of what lands on the goods. "
                "Functions: round, up, down, min, max, abs, root, count.",
            ),
        )
    }


def _common_fields(charge: AnyCharge | None) -> dict[str, forms.Field]:
    rounding = charge.rounding if charge else None
    return {
        "label": LineField(
            required=False, max_length=200, initial=charge.label if charge else "", label="What the price row says"
        ),
        "per": forms.ChoiceField(choices=PER, initial=charge.per if charge else "piece", label="Charged"),
        "is_summed": _tick(charge is not None and not charge.shown, "Customers see it only in one sum"),
        "least": _amount(charge.least if charge else None, "It comes to at least"),
        "most": _amount(charge.most if charge else None, "It comes to at most"),
        "step": _amount(rounding.step if rounding else None, "Rounded to steps of"),
        "round_way": forms.ChoiceField(
            required=False, choices=ROUNDINGS, initial=rounding.way if rounding else "nearest", label="Rounded"
        ),
    }


def _common_values(given: dict[str, Any]) -> dict[str, Any]:
    values = {name: str(given[name]) for name in ("least", "most") if given[name] is not None}
    if given["label"]:
        values["label"] = given["label"]
    if given["per"] != "piece":
        values["per"] = given["per"]
    rounding = {"step": str(given["step"]), "way": given["round_way"] or "nearest"} if given["step"] else None
    shown = {"shown": False} if given["is_summed"] else {}
    return {**values, **shown, **({"rounding": rounding} if rounding else {})}


def _kind_values(setup: Setup, given: dict[str, Any]) -> dict[str, Any]:
    way = given["way"]
    if way == "per_choice":
        amounts = {name[7:]: str(amount) for name, amount in given.items() if name.startswith("choice-") and amount}
        return {"amounts": _wanted(amounts, "Write an amount for at least one of the choices.")}
    if way == "bands":
        rows = [row for row in given["bands"].splitlines() if row.strip()]
        bands = [_band(row) for row in _wanted(rows, "Write at least one band: 10 = 4.00.")]
        return {"of": given["of"] or "pieces", "bands": bands}
    if way == "formula":
        formula = _wanted(given["formula"], "Write a formula.")
        fault = formula_fault(setup, formula, *MEASURED)
        if fault:
            raise forms.ValidationError(fault)
        return {"formula": formula}
    if way == "percent":
        return {"percent": str(_wanted(given["percent"], "Write how many percent it adds."))}
    values: dict[str, Any] = {"amount": str(_wanted(given["amount"], "Write what it adds."))}
    if way != "fixed" and given["beyond"]:
        values["beyond"] = given["beyond"]
    if way == "per_character" and given["count_spaces"]:
        values["count_spaces"] = True
    return values | ({"measured": given["measured"] or "ink"} if way == "per_cm2" else {})


def _wanted(value: Any, words: str) -> Any:
    if not value:
        raise forms.ValidationError(words)
    return value


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


def _tick(initial: bool, label: str) -> forms.BooleanField:
    return forms.BooleanField(required=False, initial=initial, label=label)


def _percent(initial: Decimal | None) -> forms.DecimalField:
    return forms.DecimalField(
        required=False,
        min_value=-100,
        max_value=1000,
        max_digits=8,
        decimal_places=4,
        initial=plain_decimal(initial),
        label="Percent of the base price",
    )


def _amount(initial: Decimal | None, label: str, help_text: str = "") -> forms.DecimalField:
    return forms.DecimalField(
        initial=initial, label=label, help_text=help_text, max_digits=10, decimal_places=3, required=False
    )
