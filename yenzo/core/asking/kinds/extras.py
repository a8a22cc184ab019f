"""Extras: other products that go with the piece."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import Around, Given, Kind, Raw, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.fields import ExtraField, FieldBase
from yenzo.core.documents.rules import read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.speaking import say


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
            yield problem(
                field,
                "no_count",
                say("“{value}” is no number of pieces for “{label}”.", value=value, label=field.label),
            )
            return
        if number > field.most:
            yield problem(
                field,
                "too_many",
                say("Of “{label}” at most {most} go with a piece.", label=field.label, most=field.most),
            )
        left = around.stock.get(field.sku)
        wanted = int(number) * around.pieces
        if field.sku and left is not None and wanted > left:
            some = say(
                "Of “{label}” {left} are left; {wanted} are wanted. Please take fewer.",
                label=field.label,
                left=left,
                wanted=wanted,
            )
            yield problem(
                field,
                "out_of_stock",
                some if left else say("“{label}” is sold out. Please do without.", label=field.label),
            )

    def please(self, field: ExtraField) -> str:
        return say("Please say how many of “{label}” you want.", label=field.label)

    def words(self, field: ExtraField, value: Value, around: Around) -> str:
        return f"{value} ×" if value else ""

    def sample(self, field: ExtraField, setup: Setup) -> Raw:
        return ""

    def worst(self, field: ExtraField, setup: Setup) -> tuple[Raw, ...]:
        return "1", str(field.most)


KINDS: dict[type[FieldBase], Kind[Any]] = {ExtraField: ExtraKind()}
