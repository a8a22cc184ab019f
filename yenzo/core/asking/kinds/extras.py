"""Extras: other products that go with the piece."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import Around, Given, Kind, Raw, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.fields import ExtraField, FieldBase
from yenzo.core.documents.rules import read_number
from yenzo.core.documents.setup import Setup


class ExtraKind(Kind[ExtraField]):
    """So many of another product; none is as if nothing was entered."""

    def value(self, field: ExtraField, given: Given) -> str:
        typed = str(given.raw or "").strip()
        number = read_number(typed)
        if number is None:
            return typed
        return f"{number.normalize():f}" if number else ""

    def problems(self, field: ExtraField, value: Value, around: Around) -> Iterator[Problem]:
        number = read_number(str(value))
        if number is None or number != int(number) or number < 0:
            yield problem(field, "no_count", f"“{value}” is no number of pieces for “{field.label}”.")
            return
        if number > field.most:
            yield problem(field, "too_many", f"Of “{field.label}” at most {field.most} go with a piece.")
        left = around.stock.get(field.sku)
        wanted = int(number) * around.pieces
        if field.sku and left is not None and wanted > left:
            some = f"Of “{field.label}” {left} are left; {wanted} are wanted. Please take fewer."
            yield problem(field, "out_of_stock", some if left else f"“{field.label}” is sold out. Please do without.")

    def please(self, field: ExtraField) -> str:
        return f"Please say how many of “{field.label}” you want."

    def words(self, field: ExtraField, value: Value, around: Around) -> str:
        return f"{value} ×" if value else ""

    def sample(self, field: ExtraField, setup: Setup) -> Raw:
        return ""

    def worst(self, field: ExtraField, setup: Setup) -> tuple[Raw, ...]:
        return "1", str(field.most)


KINDS: dict[type[FieldBase], Kind[Any]] = {ExtraField: ExtraKind()}
