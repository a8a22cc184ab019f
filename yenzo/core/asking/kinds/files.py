"""Files: artwork uploads."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import Around, Given, Kind, Raw, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.fields import ArtworkField, FieldBase
from yenzo.core.documents.setup import Setup
from yenzo.core.speaking import decimal, say


class ArtworkKind(Kind[ArtworkField]):
    """A picture or drawing of the customer's own."""

    def value(self, field: ArtworkField, given: Given) -> Value:
        return given.upload or ""

    def problems(self, field: ArtworkField, value: Value, around: Around) -> Iterator[Problem]:
        if not isinstance(value, UploadedFile):
            return
        if value.kind not in field.kinds:
            kinds = ", ".join(kind.upper() for kind in field.kinds)
            message = say(
                "“{name}” is a {kind} file. What can be used for “{label}”: {kinds}.",
                name=value.name,
                kind=value.kind.upper(),
                label=field.label,
                kinds=kinds,
            )
            yield problem(field, "wrong_kind", message)
        if value.size_bytes > field.most_megabytes * 1e6:
            message = say(
                "“{name}” has {size_bytes} MB; for “{label}” there is room for {most_megabytes} "
                "MB. Please save it smaller, for example as a JPEG.",
                name=value.name,
                size_bytes=decimal(value.size_bytes / 1000000.0, 1),
                label=field.label,
                most_megabytes=decimal(field.most_megabytes),
            )
            yield problem(field, "too_many_bytes", message)
        if field.one_color is not None and not value.one_color:
            message = say("“{name}” hasn't been made into one color yet. Please send it again.", name=value.name)
            yield problem(field, "not_one_color", message)
        shorter = min(value.width_px, value.height_px)
        if field.least_pixels is not None and value.form == "picture" and shorter < field.least_pixels:
            message = say(
                "“{name}” has {width_px} × {height_px} pixels; at least {least_pixels} on the "
                "shorter edge are needed. Please pick a larger picture.",
                name=value.name,
                width_px=value.width_px,
                height_px=value.height_px,
                least_pixels=field.least_pixels,
            )
            yield problem(field, "too_few_pixels", message)

    def please(self, field: ArtworkField) -> str:
        return say("Please add a picture for “{label}”.", label=field.label)

    def words(self, field: ArtworkField, value: Value, around: Around) -> str:
        return value.name if isinstance(value, UploadedFile) else ""

    def sample(self, field: ArtworkField, setup: Setup) -> str:
        return ""

    def worst(self, field: ArtworkField, setup: Setup) -> tuple[Raw, ...]:
        return ("",)


KINDS: dict[type[FieldBase], Kind[Any]] = {ArtworkField: ArtworkKind()}
