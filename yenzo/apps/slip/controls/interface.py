"""What every control of the order slip is: how a field is asked for, what was sent, and what it is drawn with."""

from dataclasses import dataclass
from typing import ClassVar, Generic, TypeVar

from django.http import QueryDict

from yenzo.apps.designs.models import Upload
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.evaluation import Evaluation

F = TypeVar("F", bound=FieldBase)
MOST_TEXT = 20_000


@dataclass(frozen=True)
class Details:
    """What a control is drawn with beside its field and entry; each kind has its own."""

    @property
    def beside(self) -> str:
        """What tells apart what stands beside the control and may change with each key; empty where nothing does."""
        return ""


@dataclass(frozen=True)
class Drawn:
    """What a control may look at when it is drawn: the evaluation, what stands in it, and the field's files."""

    evaluation: Evaluation
    value: Raw
    uploads: tuple[Upload, ...] = ()
    pending: tuple[Upload, ...] = ()


class Control(Generic[F]):
    """How a kind of field is asked for. `input_mode` are the keys that phones show."""

    template: ClassVar[str]
    input_mode: ClassVar[str] = ""

    def sent(self, field: F, form: QueryDict) -> Raw | None:
        """Return what the control was sent with, or None when it wasn't there. Nothing in it is trusted."""
        sent = form.getlist(name_of(field))
        return sent[-1][:MOST_TEXT] if sent else None

    def value(self, field: F, entries: Entries) -> Raw:
        """Return what stands in the control: just what was typed, or what the form begins with."""
        typed = entries.values.get(field.key)
        begins: Raw = getattr(field, "default", None) or ""
        return begins if typed is None else typed

    def details(self, field: F, drawn: Drawn) -> Details:  # noqa: ARG002 - many need no more than field and entry
        """Return what it is drawn with."""
        return Details()

    def shape(self, field: F, value: Raw, details: Details) -> str:  # noqa: ARG002 - most look the same whatever is in
        """Return what must be the same for the line to stay as it is laid out, beside being asked at all."""
        return ""


def name_of(field: FieldBase) -> str:
    """Return the name that a field's control is sent under."""
    return f"entry-{field.key}"
