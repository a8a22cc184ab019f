"""Files: artwork uploads."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import Around, Given, Kind, Raw, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.fields import ArtworkField, FieldBase
from yenzo.core.documents.setup import Setup


class ArtworkKind(Kind[ArtworkField]):
    """A picture or drawing of the customer's own."""

    def value(self, field: ArtworkField, given: Given) -> Value:
        return given.upload or ""

    def problems(self, field: ArtworkField, value: Value, around: Around) -> Iterator[Problem]:
        if not isinstance(value, UploadedFile):
            return
        if value.kind not in field.kinds:
            kinds = ", ".join(kind.upper() for kind in field.kinds)
            message = f"“{value.name}” is a {value.kind.upper()} file. What can be used for “{field.label}”: {kinds}."
            yield problem(field, "wrong_kind", message)
        if value.size_bytes > field.most_megabytes * 1e6:
            message = (
                f"“{value.name}” has {value.size_bytes / 1e6:.1f} MB; for “{field.label}” there is room for "
                f"{field.most_megabytes:g} MB. Please save it smaller, for example as a JPEG."
            )
            yield problem(field, "too_many_bytes", message)
        if field.one_color is not None and not value.one_color:
            message = f"“{value.name}” hasn't been made into one color yet. Please send it again."
            yield problem(field, "not_one_color", message)
        shorter = min(value.width_px, value.height_px)
        if field.least_pixels is not None and value.form == "picture" and shorter < field.least_pixels:
            message = (
                f"“{value.name}” has {value.width_px} × {value.height_px} pixels; at least {field.least_pixels} on the "
                "shorter edge are needed. Please pick a larger picture."
            )
            yield problem(field, "too_few_pixels", message)

    def please(self, field: ArtworkField) -> str:
        return f"Please add a picture for “{field.label}”."

    def words(self, field: ArtworkField, value: Value, around: Around) -> str:
        return value.name if isinstance(value, UploadedFile) else ""

    def sample(self, field: ArtworkField, setup: Setup) -> str:
        return ""

    def worst(self, field: ArtworkField, setup: Setup) -> tuple[Raw, ...]:
        return ("",)


KINDS: dict[type[FieldBase], Kind[Any]] = {ArtworkField: ArtworkKind()}
