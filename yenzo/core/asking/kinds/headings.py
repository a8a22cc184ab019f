"""Headings: words between fields, which ask nothing."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import Around, Given, Kind, Raw, Value
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.fields import FieldBase, HeadingField
from yenzo.core.documents.setup import Setup


class HeadingKind(Kind[HeadingField]):
    """A heading: its entry is always empty, whatever is sent."""

    def value(self, field: HeadingField, given: Given) -> str:
        return ""

    def problems(self, field: HeadingField, value: Value, around: Around) -> Iterator[Problem]:
        yield from ()

    def sample(self, field: HeadingField, setup: Setup) -> Raw:
        return ""

    def worst(self, field: HeadingField, setup: Setup) -> tuple[Raw, ...]:
        return ("",)


KINDS: dict[type[FieldBase], Kind[Any]] = {HeadingField: HeadingKind()}
