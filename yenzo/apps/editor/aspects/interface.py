"""What every aspect is."""

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import Any, ClassVar, Generic

from django import forms
from django.http import QueryDict
from typing_extensions import TypeVar

from yenzo.core.documents.charges import AnyCharge
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.placements import AnyPlacement
from yenzo.core.documents.setup import Section, Setup

Operations = list[dict[str, Any]]


@dataclass(frozen=True)
class FormLine:
    """A line of the order slip in its set-up, or in a kit; `placement` or `charge` when an aspect of one is meant."""

    setup: Setup
    field: AnyField
    placement: AnyPlacement | None = None
    charge: AnyCharge | None = None
    is_of_kit: bool = False

    @property
    def key(self) -> str:
        """The key of its field."""
        return self.field.key

    @property
    def name(self) -> str:
        """What the workshop calls the line."""
        return self.field.workshop_name or self.field.label

    def set(self, name: str, value: Any) -> dict[str, Any]:
        """Return the operation that sets a value of the field."""
        return {"do": "set", "path": ["fields", self.field.key, name], "value": value}

    def set_placement(self, name: str, value: Any) -> dict[str, Any]:
        """Return the operation that sets a value of the placement."""
        assert self.placement is not None
        return {"do": "set", "path": ["placements", self.placement.key, name], "value": value}


@dataclass(frozen=True)
class SectionLine:
    """A section of the order slip in its set-up."""

    setup: Setup
    section: Section

    @property
    def key(self) -> str:
        """The key of the section."""
        return self.section.key

    @property
    def name(self) -> str:
        """What the section is called."""
        return self.section.title

    def set(self, name: str, value: Any) -> dict[str, Any]:
        """Return the operation that sets a value of the section."""
        return {"do": "set", "path": ["sections", self.section.key, name], "value": value}


@dataclass(frozen=True)
class WholeForm:
    """The order slip as a whole; `charge` when an aspect of one is meant."""

    setup: Setup
    charge: AnyCharge | None = None
    key: str = ""
    name: str = "The form"


L = TypeVar("L", bound=FormLine | SectionLine | WholeForm, default=FormLine)


class Aspect(ABC, Generic[L]):
    """One underlined value: its words, its form, and what saving the form does."""

    key: ClassVar[str]
    heading: ClassVar[str]
    # What the value is called where it is as plain as it gets and a sentence needn't say it.
    offer: ClassVar[str] = ""

    @abstractmethod
    def words(self, line: L) -> str:
        """Return the underlined words."""

    def is_plain(self, line: L) -> bool:  # noqa: ARG002 - most values are always said
        """Tell whether the sentence reads well without this value."""
        return False

    @abstractmethod
    def form_fields(self, line: L) -> dict[str, forms.Field]:
        """Return the fields of the form, with what the set-up has as their initial values."""

    def losses(self, line: L, given: dict[str, Any]) -> list[str]:  # noqa: ARG002 - most values take nothing along
        """Return what would be lost with what was given, each as a part of a sentence; it is asked before."""
        return []

    @abstractmethod
    def operations(self, line: L, given: dict[str, Any]) -> Operations:
        """Return the operations that make the set-up say what was given."""

    def form(self, line: L, data: QueryDict | None = None, files: Any = None) -> forms.Form:
        """Return the form, bound when there is data."""
        form = forms.Form(data, files, auto_id=f"{self.key}-%s")
        form.fields.update(self.form_fields(line))
        return form


def shown_for(way: str, field: forms.Field) -> forms.Field:
    """Return the field, to be shown only while this way of the form's radio buttons is chosen."""
    field.only_for = way  # type: ignore[attr-defined]
    return field


def bounded_number(
    label: str, initial: float | None, least: float, most: float, help_text: str = ""
) -> forms.FloatField:
    """Return a field for a number between two others, of any fineness; it may be left empty."""
    return forms.FloatField(
        required=False,
        initial=initial,
        min_value=least,
        max_value=most,
        widget=forms.NumberInput(attrs={"step": "any"}),
        label=label,
        help_text=help_text,
    )


def points_in(text: str, message: str) -> list[list[float]]:
    """Return points written as "across down, across down"; raises ValidationError with the message."""
    try:
        points = [[float(number) for number in point.split()] for point in text.split(",")]
    except ValueError:
        raise forms.ValidationError(message) from None
    if any(len(point) != 2 for point in points):
        raise forms.ValidationError(message)
    return points
