"""Extras: other products that go with the piece."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import ExtraField
from yenzo.core.documents.rules import read_number
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import translate


class ExtraKind(Kind[ExtraField]):
    """So many of another product; none is as if nothing was entered."""

    def value(self, field: ExtraField, entry: RawEntry) -> str:
        """Return the number as documents write it; none is as if nothing was entered."""
        typed = str(entry.raw or "").strip()
        number = read_number(typed)
        if number is None:
            return typed
        return f"{number.normalize():f}" if number else ""

    def problems(self, field: ExtraField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what is no number of pieces, more than go with a piece, or more than are left."""
        number = read_number(str(value))
        if number is None or number != int(number) or number < 0:
            yield problem(
                field,
                "no_count",
                translate("“{value}” is no number of pieces for “{label}”.", value=value, label=field.label),
            )
            return
        if number > field.most:
            yield problem(
                field,
                "too_many",
                translate("Of “{label}” at most {most} go with a piece.", label=field.label, most=field.most),
            )
        left = context.stock.get(field.sku)
        wanted = int(number) * context.pieces
        if field.sku and left is not None and wanted > left:
            some = translate(
                "Of “{label}” {left} are left; {wanted} are wanted. Please take fewer.",
                label=field.label,
                left=left,
                wanted=wanted,
            )
            yield problem(
                field,
                "out_of_stock",
                some if left else translate("“{label}” is sold out. Please do without.", label=field.label),
            )

    def please(self, field: ExtraField) -> str:
        """Ask how many are wanted."""
        return translate("Please say how many of “{label}” you want.", label=field.label)

    def words(self, field: ExtraField, value: Value, context: EntryContext) -> str:
        """Return how many, as a multiple."""
        return f"{value} ×" if value else ""

    def sample(self, field: ExtraField, setup: Setup) -> Raw:
        """Return nothing: the goods are shown without."""
        return ""

    def worst(self, field: ExtraField, setup: Setup) -> tuple[Raw, ...]:
        """Return one, and the most that go with a piece."""
        return "1", str(field.most)


KINDS: dict[type[FieldBase], Kind[Any]] = {ExtraField: ExtraKind()}
