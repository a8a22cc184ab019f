"""Bounds of numbers and days, where a telephone number belongs, and how long a note may be."""

from datetime import date
from typing import Any

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations
from yenzo.apps.pages.fields import LineField
from yenzo.apps.pages.phrases import counted, joined, plain_decimal
from yenzo.apps.products.models import Product
from yenzo.core.asking.words import say_amount
from yenzo.core.documents.fields import ComputedField, DateField, ExtraField, NoteField, NumberField, PhoneField
from yenzo.core.documents.named import formula_fault, known_names

WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")


class RangeAspect(Aspect):
    key, heading = "range", "Which numbers may it be?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, NumberField)
        least, most, step = line.field.least, line.field.most, line.field.step
        unit = f" {line.field.unit}" if line.field.unit else ""
        said = (
            f"{plain_decimal(least)} to {plain_decimal(most)}{unit}" if least is not None and most is not None else ""
        )
        if not said:
            bounds = [
                f"{word} {plain_decimal(bound)}"
                for word, bound in (("from", least), ("up to", most))
                if bound is not None
            ]
            said = f"{bounds[0]}{unit}" if bounds else f"any number{f' of{unit}' if unit else ''}"
        return f"{said}, in steps of {plain_decimal(step)}" if step is not None else said

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, NumberField)
        labels = {"least": "Least", "most": "Most", "step": "Step, counted from the least"}
        return {
            "unit": LineField(required=False, max_length=20, initial=line.field.unit, label="Unit, as mm or years"),
            **{
                name: forms.DecimalField(
                    required=False,
                    max_digits=15,
                    decimal_places=6,
                    initial=plain_decimal(getattr(line.field, name)),
                    widget=forms.TextInput(attrs={"inputmode": "decimal"}),
                    label=label,
                )
                for name, label in labels.items()
            },
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if given["least"] is not None and given["most"] is not None and given["least"] > given["most"]:
            raise forms.ValidationError("The least is above the most.")
        if given["step"] is not None and given["step"] <= 0:
            raise forms.ValidationError("A step is more than nothing; leave it empty for any number.")
        numbers = {name: plain_decimal(given[name]) or None for name in ("least", "most", "step")}
        return [line.set("unit", given["unit"] or None), *(line.set(name, value) for name, value in numbers.items())]


class FormulaAspect(Aspect):
    key, heading = "formula", "What is it worked out from?"
    WAYS = (("nearest", "to the nearest"), ("up", "up"), ("down", "down"))

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, ComputedField)
        unit = f" {line.field.unit}" if line.field.unit else ""
        hidden = "" if line.field.shown else ", not shown to customers"
        way = "" if line.field.way == "nearest" else f" {line.field.way}"
        places = f"rounded{way} to {counted(line.field.decimals, 'decimal')}"
        return f"what “{line.field.formula}” comes to{unit and ' in'}{unit}, {places}{hidden}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ComputedField)
        names = "; ".join(f"{name}: {words}" for name, words in known_names(line.setup).items())
        return {
            "formula": LineField(
                max_length=1000,
                initial=line.field.formula,
                label="Formula",
                help_text=f"It may name: {names}. Functions: round, up, down, min, max, abs, root, count.",
            ),
            "unit": LineField(required=False, max_length=20, initial=line.field.unit, label="Unit, as mm or m²"),
            "decimals": forms.IntegerField(min_value=0, max_value=6, initial=line.field.decimals, label="Decimals"),
            "way": forms.ChoiceField(choices=self.WAYS, initial=line.field.way, label="Rounded"),
            "shown": forms.BooleanField(required=False, initial=line.field.shown, label="Customers see it"),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        fault = formula_fault(line.setup, given["formula"])
        if fault:
            raise forms.ValidationError(fault)
        return [line.set(name, given[name]) for name in ("formula", "unit", "decimals", "way", "shown")]


class DaysAspect(Aspect):
    key, heading = "days", "Which days may it be?"
    WRITTEN = (("long", "14 June 2031"), ("medium", "14 Jun 2031"), ("short", "14/06/2031"))

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, DateField)
        field, said = line.field, []
        if field.after_working_days is not None:
            said.append(f"{counted(field.after_working_days, 'working day')} ahead or later")
        if field.within_days is not None:
            said.append(f"within {counted(field.within_days, 'day')}")
        if field.closed_weekdays:
            said.append(f"never on {joined([f'{WEEKDAYS[number]}s' for number in field.closed_weekdays], 'or')}")
        if field.closed_days:
            said.append(f"not on {counted(len(field.closed_days), 'closed day')}")
        return ", ".join(said) or "any day"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, DateField)
        field = line.field
        return {
            "after_working_days": forms.IntegerField(
                required=False,
                min_value=0,
                max_value=1000,
                initial=field.after_working_days,
                label="Working days ahead",
            ),
            "within_days": forms.IntegerField(
                required=False, min_value=1, max_value=10_000, initial=field.within_days, label="Within so many days"
            ),
            "closed_weekdays": forms.MultipleChoiceField(
                required=False,
                choices=[(str(number), name) for number, name in enumerate(WEEKDAYS)],
                initial=[str(number) for number in field.closed_weekdays],
                widget=forms.CheckboxSelectMultiple,
                label="Closed on",
            ),
            "closed_days": LineField(
                required=False,
                max_length=6000,
                initial=", ".join(day.isoformat() for day in field.closed_days),
                label="Closed days, as 2031-12-25, with commas between",
            ),
            "written": forms.ChoiceField(
                choices=self.WRITTEN, initial=field.written, label="Written, where it lands, like"
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if len(given["closed_weekdays"]) == len(WEEKDAYS):
            raise forms.ValidationError("Closed on every day of the week, no day is left.")
        try:
            days = [date.fromisoformat(day).isoformat() for day in given["closed_days"].replace(",", " ").split()]
        except ValueError:
            raise forms.ValidationError("Write closed days as year, month and day: 2031-12-25.") from None
        return [
            line.set("after_working_days", given["after_working_days"]),
            line.set("within_days", given["within_days"]),
            line.set("closed_weekdays", [int(number) for number in given["closed_weekdays"]] or None),
            line.set("closed_days", days or None),
            line.set("written", given["written"]),
        ]


class ExtraAspect(Aspect):
    key, heading = "extra", "What does it cost, and how many may it be?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, ExtraField)
        field = line.field
        sku = f", counted as {field.sku}" if field.sku else ", its stock not counted"
        name = _product_name(field.product) if field.product else ""
        of = f"“{name}” of the shop, " if name else ""
        return f"{of}{say_amount(field.price)} each, up to {field.most}{sku}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, ExtraField)
        products = dict(Product.objects.live().values_list("key", "name"))
        if line.field.product and line.field.product not in products:
            # It stays linked until somebody says otherwise.
            products[line.field.product] = f"{_product_name(line.field.product)} (not in the shop now)"
        return {
            "product": forms.ChoiceField(
                required=False,
                choices=[("", "none: what is typed here"), *products.items()],
                initial=line.field.product or "",
                label="Product of the shop",
                help_text="Its price before anything is personalized, its SKU and its picture count, and follow it.",
            ),
            "price": forms.DecimalField(
                required=False,
                min_value=0,
                max_digits=10,
                decimal_places=3,
                initial=line.field.price,
                label="Price of one, if it is no product of the shop",
            ),
            "most": forms.IntegerField(
                min_value=1, max_value=10_000, initial=line.field.most, label="At most so many with a piece"
            ),
            "sku": LineField(
                required=False, max_length=60, initial=line.field.sku, label="SKU of its stock, if it is none"
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        if given["product"]:
            return [line.set("product", given["product"]), line.set("most", given["most"])]
        if given["price"] is None:
            raise forms.ValidationError("Say what one costs, or pick a product of the shop.")
        return [
            line.set("product", None),
            line.set("price", str(given["price"])),
            line.set("most", given["most"]),
            line.set("sku", given["sku"] or None),
        ]


def _product_name(key: str) -> str:
    name: str | None = Product.objects.filter(key=key).values_list("name", flat=True).first()
    return name or "a product that is gone"


class RegionAspect(Aspect):
    key, heading = "region", "Where are numbers without a country?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, PhoneField)
        return f"of {line.field.region} when no country is written"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, PhoneField)
        return {
            "region": forms.RegexField(r"^[A-Z]{2}$", initial=line.field.region, label="Country, two letters (GB, DE)")
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("region", given["region"])]


class NoteLimitAspect(Aspect):
    key, heading = "note-limit", "How long may the note be?"

    def words(self, line: FormLine) -> str:
        assert isinstance(line.field, NoteField)
        return f"up to {counted(line.field.most_characters, 'character')}"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        assert isinstance(line.field, NoteField)
        return {
            "most": forms.IntegerField(
                min_value=1, max_value=5000, initial=line.field.most_characters, label="Most characters"
            )
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set("most_characters", given["most"])]
