"""Sections of the order slip, and how it is shown as a whole."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.asking import SectionAskWhenAspect
from yenzo.apps.editor.aspects.interface import Aspect, Operations, SectionLine, WholeForm
from yenzo.apps.editor.aspects.sentence import CHARGE, Part, charge_parts
from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.phrases import counted, plain_decimal
from yenzo.core.documents.setup import Setup

SHOWN = {
    "together": "all of it at once",
    "folded": "its sections folded",
    "pages": "page by page",
}


class TitleAspect(Aspect[SectionLine]):
    key, heading = "title", "What is this section called?"

    def words(self, line: SectionLine) -> str:
        return line.section.title

    def form_fields(self, line: SectionLine) -> dict[str, forms.Field]:
        return {
            "title": LineField(max_length=200, initial=line.section.title, label="Title"),
            "introduction": LinesField(
                required=False,
                max_length=2000,
                initial=line.section.introduction,
                widget=forms.Textarea(attrs={"rows": 3}),
                label="Introduction under it",
            ),
        }

    def operations(self, line: SectionLine, given: dict[str, Any]) -> Operations:
        return [line.set("title", given["title"]), line.set("introduction", given["introduction"] or None)]


class ShownAspect(Aspect[WholeForm]):
    key, heading = "shown", "How is the form shown?"

    def words(self, line: WholeForm) -> str:
        form = line.setup.form
        finished = ", each to be finished first" if form.shown == "pages" and form.finish_pages else ""
        return f"{SHOWN[form.shown]}{finished}"

    def form_fields(self, line: WholeForm) -> dict[str, forms.Field]:
        form = line.setup.form
        return {
            "shown": forms.ChoiceField(choices=list(SHOWN.items()), initial=form.shown, label="Shown"),
            "finish_pages": forms.BooleanField(
                required=False, initial=form.finish_pages, label="A page must be complete before the next one"
            ),
        }

    def operations(self, line: WholeForm, given: dict[str, Any]) -> Operations:
        return [_form_with(line, given)]


class ExtrasAspect(Aspect[WholeForm]):
    key, heading = "extras", "What do customers see of the price?"
    WAYS = (("rows", "each charge by itself"), ("sum", "what is added in one sum"), ("none", "the total alone"))

    def words(self, line: WholeForm) -> str:
        return dict(self.WAYS)[line.setup.form.extras]

    def form_fields(self, line: WholeForm) -> dict[str, forms.Field]:
        choices = [(way, words.capitalize()) for way, words in self.WAYS]
        return {"extras": forms.ChoiceField(choices=choices, initial=line.setup.form.extras, label="Customers see")}

    def operations(self, line: WholeForm, given: dict[str, Any]) -> Operations:
        return [_form_with(line, given)]


class TaxAspect(Aspect[WholeForm]):
    key, heading = "tax", "Which taxes?"

    def words(self, line: WholeForm) -> str:
        offer = line.setup.offer
        if not offer.tax_percent:
            return "without taxes of their own"
        how = "included" if offer.taxes_included else "on top"
        return f"with {plain_decimal(offer.tax_percent)} % tax {how}"

    def form_fields(self, line: WholeForm) -> dict[str, forms.Field]:
        offer = line.setup.offer
        return {
            "tax_percent": forms.DecimalField(
                required=False,
                min_value=0,
                max_value=100,
                max_digits=6,
                decimal_places=3,
                initial=plain_decimal(offer.tax_percent),
                label="Percent; zero where taxes aren't said",
            ),
            "taxes_included": forms.BooleanField(
                required=False, initial=offer.taxes_included, label="They are in the prices already"
            ),
        }

    def operations(self, line: WholeForm, given: dict[str, Any]) -> Operations:  # noqa: ARG002 - there is one offer
        percent = str(given["tax_percent"]) if given["tax_percent"] else None
        return [
            {"do": "set", "path": ["offer", "tax_percent"], "value": percent},
            {"do": "set", "path": ["offer", "taxes_included"], "value": given["taxes_included"]},
        ]


class LeadAspect(Aspect[WholeForm]):
    key, heading = "lead", "How long does it take to make one?"

    def words(self, line: WholeForm) -> str:
        days = line.setup.offer.lead_days
        return "the workshop's usual time" if days is None else counted(days, "working day")

    def form_fields(self, line: WholeForm) -> dict[str, forms.Field]:
        return {
            "lead_days": forms.IntegerField(
                required=False,
                min_value=0,
                max_value=365,
                initial=line.setup.offer.lead_days,
                label="Working days; empty for the workshop's usual time (see Settings)",
            )
        }

    def operations(self, line: WholeForm, given: dict[str, Any]) -> Operations:  # noqa: ARG002 - there is one offer
        return [{"do": "set", "path": ["offer", "lead_days"], "value": given["lead_days"]}]


class ByListAspect(Aspect[WholeForm]):
    key, heading = "by_list", "Can many be ordered at once?"

    def words(self, line: WholeForm) -> str:
        return "from a list of names, too" if line.setup.form.by_list else "one by one only"

    def form_fields(self, line: WholeForm) -> dict[str, forms.Field]:
        return {
            "by_list": forms.BooleanField(
                required=False,
                initial=line.setup.form.by_list,
                label="Customers can send a list: many pieces, each with entries of its own",
            )
        }

    def operations(self, line: WholeForm, given: dict[str, Any]) -> Operations:
        return [_form_with(line, given)]


def _form_with(line: WholeForm, given: dict[str, Any]) -> dict[str, Any]:
    value = {**line.setup.form.model_dump(mode="json"), **given}
    return {"do": "set", "path": ["form"], "value": value}


SECTION_ASPECTS: dict[str, Aspect[SectionLine]] = {
    aspect.key: aspect for aspect in (TitleAspect(), SectionAskWhenAspect())
}
FORM_ASPECTS: dict[str, Aspect[Any]] = {
    aspect.key: aspect for aspect in (ShownAspect(), ExtrasAspect(), TaxAspect(), ByListAspect(), LeadAspect(), CHARGE)
}


def form_sentence(setup: Setup) -> list[Part]:
    """Return what is said of the form as a whole: how it shows, and what the piece adds by itself."""
    form = WholeForm(setup)

    def value(key: str) -> Part:
        return Part(FORM_ASPECTS[key].words(form), key)

    return [
        Part("The form shows "),
        value("shown"),
        Part(", and pieces are ordered "),
        value("by_list"),
        Part("; one takes "),
        value("lead"),
        Part(". Prices are "),
        value("tax"),
        Part(", and customers see "),
        value("extras"),
        *charge_parts(form, list(setup.charges_of(None))),
        Part(" beside what the lines add."),
    ]
