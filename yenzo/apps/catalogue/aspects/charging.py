"""What a line adds to the price."""

from decimal import Decimal
from typing import Any

from django import forms

from yenzo.apps.catalogue.aspects.choosing import possibilities
from yenzo.apps.catalogue.aspects.interface import Aspect, FormLine, Operations, joined, plain_decimal
from yenzo.core.asking.words import say_amount, value_name
from yenzo.core.documents.charges import AnyCharge, CharacterCharge, ChoiceCharge, FixedCharge, PercentCharge
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import AnyField, ParagraphField, TextField
from yenzo.core.pricing.quote import COUNTED


class ChargeAspect(Aspect):
    key, heading = "charge", "What does it add to the price?"

    def words(self, line: FormLine) -> str:
        said = [words for charge in line.setup.charges_of(line.field.key) for words in self._charge_words(line, charge)]
        return joined(said) if said else "nothing"

    def _charge_words(self, line: FormLine, charge: AnyCharge) -> list[str]:
        if isinstance(charge, FixedCharge):
            said = [say_amount(charge.amount)]
        elif isinstance(charge, PercentCharge):
            said = [f"{plain_decimal(charge.percent)} % of the base price"]
        elif isinstance(charge, ChoiceCharge):
            named = ((value_name(line.setup, line.field, key), amount) for key, amount in charge.amounts.items())
            said = [f"{say_amount(amount)} for {name}" for name, amount in named if amount]
        else:
            beyond = f" beyond the first {charge.beyond}" if charge.beyond else ""
            spaces = ", spaces too" if isinstance(charge, CharacterCharge) and charge.count_spaces else ""
            said = [f"{say_amount(charge.amount)} a {COUNTED[type(charge)][0]}{beyond}{spaces}"]
        known = [
            (word, bound) for word, bound in (("at least", charge.least), ("at most", charge.most)) if bound is not None
        ]
        bounds = [f"{word} {say_amount(bound)}" for word, bound in known]
        return [*said[:-1], f"{said[-1]} ({joined(bounds)})"] if bounds and said else said

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        charges: dict[str, AnyCharge] = {charge.kind: charge for charge in line.setup.charges_of(line.field.key)}
        what = "when it is yes" if line.field.kind == "yes_no" else "when it is filled"
        fields: dict[str, forms.Field] = {
            "fixed": _amount(getattr(charges.get("fixed"), "amount", None), f"Amount {what}"),
            "percent": forms.DecimalField(
                required=False,
                min_value=-100,
                max_value=1000,
                max_digits=8,
                decimal_places=4,
                initial=getattr(charges.get("percent"), "percent", None),
                label=f"Percent of the base price {what}",
            ),
        }
        for kind, one in _counted(line.field):
            charge = charges.get(kind)
            fields[f"{kind}-amount"] = _amount(getattr(charge, "amount", None), f"Amount a {one}")
            fields[f"{kind}-beyond"] = forms.IntegerField(
                initial=getattr(charge, "beyond", 0),
                min_value=0,
                max_value=10_000,
                required=False,
                label=f"{one.capitalize()}s free of charge",
            )
            if kind == "per_character":
                fields["count_spaces"] = forms.BooleanField(
                    initial=getattr(charge, "count_spaces", False), required=False, label="Spaces count too"
                )
        by_choice = charges.get("per_choice")
        for key, name in possibilities(line.setup, line.field):
            amount = by_choice.amounts.get(key) if isinstance(by_choice, ChoiceCharge) else None
            fields[f"choice-{key}"] = _amount(amount, f"For {name}")
        bounds = [(charge.least, charge.most) for charge in charges.values()]
        least, most = next((both for both in bounds if both != (None, None)), (None, None))
        fields["least"] = _amount(least, "Each comes to at least")
        fields["most"] = _amount(most, "Each comes to at most")
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if given["least"] is not None and given["most"] is not None and given["least"] > given["most"]:
            raise forms.ValidationError("The least that it comes to is above the most.")
        have: dict[str, str] = {charge.kind: charge.key for charge in line.setup.charges_of(line.field.key)}
        amounts = {name[7:]: str(amount) for name, amount in given.items() if name.startswith("choice-") and amount}
        wanted: dict[str, dict[str, Any] | None] = {
            "fixed": {"amount": str(given["fixed"])} if given["fixed"] else None,
            "percent": {"percent": str(given["percent"])} if given["percent"] else None,
            "per_choice": {"amounts": amounts} if amounts else None,
        }
        for kind, _ in _counted(line.field):
            if given[f"{kind}-amount"]:
                wanted[kind] = {"amount": str(given[f"{kind}-amount"]), "beyond": given[f"{kind}-beyond"] or 0}
        if wanted.get("per_character"):
            wanted["per_character"] = {**(wanted["per_character"] or {}), "count_spaces": given["count_spaces"]}
        bounds = {name: str(given[name]) for name in ("least", "most") if given[name] is not None}
        removed = [{"do": "remove", "path": ["charges"], "key": key} for key in have.values()]
        taken = [{"key": charge.key} for charge in line.setup.charges if charge.key not in have.values()]
        added: Operations = []
        for kind, values in wanted.items():
            if values is not None:
                key = have.get(kind) or free_key({"charges": taken}, ("charges",), line.field.key)
                taken.append({"key": key})
                item = {"kind": kind, "key": key, "field": line.field.key, **values, **bounds}
                added.append({"do": "add", "path": ["charges"], "item": item})
        return [*removed, *added]


def _counted(field: AnyField) -> list[tuple[str, str]]:
    """Return the kinds of charge that count something of a field, with what they count."""
    if not isinstance(field, TextField):
        return []
    kinds = [("per_character", "character"), ("per_word", "word")]
    return [*kinds, ("per_line", "line")] if isinstance(field, ParagraphField) else kinds


def _amount(initial: Decimal | None, label: str) -> forms.DecimalField:
    return forms.DecimalField(initial=initial, label=label, max_digits=10, decimal_places=3, required=False)
