"""Controls of days, extras, computed values, headings, and of what nobody is asked for."""

from dataclasses import dataclass
from datetime import date
from typing import Any

from django.http import QueryDict

from yenzo.apps.slip.controls.interface import Control, Details, Drawn, F
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.asking.kinds.measured import earliest, latest
from yenzo.core.asking.words import value_name
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import (
    ComputedField,
    DateField,
    ExtraField,
    FixedArtworkField,
    FixedTextField,
    HeadingField,
)


@dataclass(frozen=True)
class DateDetails(Details):
    """The first and the last day that can be picked."""

    first: date | None = None
    last: date | None = None


class DateControl(Control[DateField]):
    """A day."""

    template = "slip/_date_control.html"

    def details(self, field: DateField, drawn: Drawn) -> DateDetails:
        """Return the days that it lies between, as far as today is known."""
        today = drawn.evaluation.asked.today
        return DateDetails(earliest(field, today), latest(field, today)) if today is not None else DateDetails()


@dataclass(frozen=True)
class ExtraDetails(Details):
    """How many are left, where that is counted."""

    left: int | None = None


class ExtraControl(Control[ExtraField]):
    """So many of another product."""

    template = "slip/_extra_control.html"
    input_mode = "numeric"

    def details(self, field: ExtraField, drawn: Drawn) -> ExtraDetails:
        """Return how many are left."""
        return ExtraDetails(drawn.evaluation.asked.stock.get(field.sku))


@dataclass(frozen=True)
class ComputedDetails(Details):
    """What the formula comes to, in words."""

    words: str = ""

    @property
    def beside(self) -> str:
        """The words, which may be none."""
        return f"={self.words}"


class UnsentControl(Control[F]):
    """A control that is never sent, whatever a form says."""

    def sent(self, field: F, form: QueryDict) -> Raw | None:  # noqa: ARG002 - the interface says what there is
        """Return None."""
        return None


class ComputedControl(UnsentControl[ComputedField]):
    """A number that nobody types."""

    template = "slip/_computed_control.html"

    def details(self, field: ComputedField, drawn: Drawn) -> ComputedDetails:
        """Return what the formula comes to."""
        return ComputedDetails(value_name(drawn.evaluation.setup, field, drawn.evaluation.asked.text(field.key)))


class HeadingControl(UnsentControl[HeadingField]):
    """A heading."""

    template = "slip/_heading_control.html"


class NothingControl(UnsentControl[F]):
    """What the workshop puts on by itself: nobody is asked."""

    template = "slip/_nothing_control.html"


CONTROLS: dict[type[FieldBase], Control[Any]] = {
    DateField: DateControl(),
    ExtraField: ExtraControl(),
    ComputedField: ComputedControl(),
    HeadingField: HeadingControl(),
    FixedTextField: NothingControl[FixedTextField](),
    FixedArtworkField: NothingControl[FixedArtworkField](),
}
