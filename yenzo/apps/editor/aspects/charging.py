"""What a line, or the piece as a whole, adds to the price: each charge by itself."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.charge_ways import WAYS, amount_field, fields_of_ways, tick_field, ways_of
from yenzo.apps.editor.aspects.interface import Aspect, FormLine, L, Operations, WholeForm
from yenzo.apps.pages.fields import LineField
from yenzo.apps.pages.phrases import joined
from yenzo.core.asking.words import say_amount
from yenzo.core.documents.charges import AnyCharge
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import AnyField
from yenzo.core.pricing.words import charge_words

PER = (("piece", "for each piece"), ("line", "once for all pieces of a line"), ("order", "once an order"))
ROUNDINGS = (("nearest", "to the nearest step"), ("up", "up"), ("down", "down"))


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
                choices=[(way.kind, way.words.capitalize()) for way in ways],
                initial=charge.kind if charge else ways[0].kind,
                label="It adds",
            )
        }
        fields |= fields_of_ways(line.setup, field, charge)
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
            **WAYS[given["way"]].values(line.setup, given),
            **_common_values(given),
        }
        position = keys.index(charge.key) if charge else len(keys)
        return [*removed, {"do": "add", "path": ["charges"], "item": item, "position": position}]


def _charge(line: FormLine | WholeForm | Any) -> AnyCharge | None:
    charge: AnyCharge | None = line.charge
    return charge


def _field(line: FormLine | WholeForm | Any) -> AnyField | None:
    return line.field if isinstance(line, FormLine) else None


def _common_fields(charge: AnyCharge | None) -> dict[str, forms.Field]:
    rounding = charge.rounding if charge else None
    return {
        "label": LineField(
            required=False, max_length=200, initial=charge.label if charge else "", label="What the price row says"
        ),
        "per": forms.ChoiceField(choices=PER, initial=charge.per if charge else "piece", label="Charged"),
        "is_summed": tick_field("Customers see it only in one sum", is_ticked=charge is not None and not charge.shown),
        "least": amount_field(charge.least if charge else None, "It comes to at least"),
        "most": amount_field(charge.most if charge else None, "It comes to at most"),
        "step": amount_field(rounding.step if rounding else None, "Rounded to steps of"),
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
