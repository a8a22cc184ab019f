"""Sections of the order form, and how it is shown as a whole."""

from typing import Any

from django import forms

from yenzo.apps.catalogue.aspects.asking import SectionAskWhenAspect
from yenzo.apps.catalogue.aspects.interface import Aspect, Operations, SectionLine, WholeForm

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
            "title": forms.CharField(max_length=200, initial=line.section.title, label="Title"),
            "introduction": forms.CharField(
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

    def operations(self, line: WholeForm, given: dict[str, Any]) -> Operations:  # noqa: ARG002 - there is one form
        return [{"do": "set", "path": ["form"], "value": given}]


SECTION_ASPECTS: dict[str, Aspect[SectionLine]] = {
    aspect.key: aspect for aspect in (TitleAspect(), SectionAskWhenAspect())
}
SHOWN_ASPECT = ShownAspect()
