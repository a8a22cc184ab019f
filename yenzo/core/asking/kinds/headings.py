"""Headings: words between fields, which ask nothing."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import HeadingField
from yenzo.core.documents.setup import Setup


class HeadingKind(Kind[HeadingField]):
    """A heading: its entry is always empty, whatever is sent."""

    def value(self, field: HeadingField, entry: RawEntry) -> str:
        """Return nothing, whatever is sent."""
        return ""

    def problems(self, field: HeadingField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield nothing."""
        yield from ()

    def sample(self, field: HeadingField, setup: Setup) -> Raw:
        """Return nothing."""
        return ""

    def worst(self, field: HeadingField, setup: Setup) -> tuple[Raw, ...]:
        """Return nothing."""
        return ("",)


KINDS: dict[type[FieldBase], Kind[Any]] = {HeadingField: HeadingKind()}
