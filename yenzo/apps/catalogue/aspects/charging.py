"""What a line adds to the price."""

from decimal import Decimal
from typing import Any

from django import forms

from yenzo.apps.catalogue.aspects.choosing import possibilities
from yenzo.apps.catalogue.aspects.interface import Aspect, FormLine, Operations, joined
from yenzo.core.asking.words import say_amount, value_name
from yenzo.core.documents.charges import AnyCharge, CharacterCharge, ChoiceCharge, FixedCharge
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import TextField

AMOUNT: dict[str, Any] = {"max_digits": 10, "decimal_places": 3, "required": False}


class ChargeAspect(Aspect):
    key, heading = "charge", "What does it add to the price?"

    def words(self, line: FormLine) -> str:
        said = [words for charge in line.setup.charges_of(line.field.key) for words in self._charge_words(line, charge)]
        return joined(said) if said else "nothing"

    def _charge_words(self, line: FormLine, charge: AnyCharge) -> list[str]:
        if isinstance(charge, FixedCharge):
            return [say_amount(charge.amount)]
        if isinstance(charge, CharacterCharge):
            beyond = f" beyond the first {charge.beyond}" if charge.beyond else ""
            spaces = ", spaces too" if charge.count_spaces else ""
            return [f"{say_amount(charge.amount)} a character{beyond}{spaces}"]
        return [
            f"{say_amount(amount)} for {value_name(line.setup, line.field, key)}"
            for key, amount in charge.amounts.items()
            if amount
        ]

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        charges: dict[str, AnyCharge] = {charge.kind: charge for charge in line.setup.charges_of(line.field.key)}
        fixed, by_character, by_choice = charges.get("fixed"), charges.get("per_character"), charges.get("per_choice")
        what = "when it is yes" if line.field.kind == "yes_no" else "when it is filled"
        fields: dict[str, forms.Field] = {
            "fixed": forms.DecimalField(initial=getattr(fixed, "amount", None), label=f"Amount {what}", **AMOUNT)
        }
        if isinstance(line.field, TextField):
            fields |= {
                "a_character": forms.DecimalField(
                    initial=getattr(by_character, "amount", None), label="Amount a character", **AMOUNT
                ),
                "beyond": forms.IntegerField(
                    initial=getattr(by_character, "beyond", 0), min_value=0, required=False, label="Beyond the first"
                ),
                "count_spaces": forms.BooleanField(
                    initial=getattr(by_character, "count_spaces", False), required=False, label="Spaces count too"
                ),
            }
        for key, name in possibilities(line.setup, line.field):
            amount = by_choice.amounts.get(key) if isinstance(by_choice, ChoiceCharge) else None
            fields[f"choice-{key}"] = forms.DecimalField(initial=amount, label=f"For {name}", **AMOUNT)
        return fields

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        have: dict[str, str] = {charge.kind: charge.key for charge in line.setup.charges_of(line.field.key)}
        amounts = {name[7:]: str(amount) for name, amount in given.items() if name.startswith("choice-") and amount}
        wanted: dict[str, dict[str, Any] | None] = {
            "fixed": {"amount": str(given["fixed"])} if given["fixed"] else None,
            "per_character": _by_character(given) if given.get("a_character") else None,
            "per_choice": {"amounts": amounts} if amounts else None,
        }
        removed = [{"do": "remove", "path": ["charges"], "key": key} for key in have.values()]
        taken = [{"key": charge.key} for charge in line.setup.charges if charge.key not in have.values()]
        added: Operations = []
        for kind, values in wanted.items():
            if values is not None:
                key = have.get(kind) or free_key({"charges": taken}, ("charges",), line.field.key)
                taken.append({"key": key})
                item = {"kind": kind, "key": key, "field": line.field.key, **values}
                added.append({"do": "add", "path": ["charges"], "item": item})
        return [*removed, *added]


def _by_character(given: dict[str, Any]) -> dict[str, Any]:
    amount: Decimal = given["a_character"]
    return {"amount": str(amount), "beyond": given["beyond"] or 0, "count_spaces": given["count_spaces"]}
