"""What the workshop itself puts on the goods: nobody is asked for it, whatever is sent."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import Around, Given, Kind, Raw, Value
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.documents.fields import FieldBase, FixedArtworkField, FixedTextField
from yenzo.core.documents.setup import Setup


class FixedTextKind(Kind[FixedTextField]):
    """A text of the workshop's own."""

    def value(self, field: FixedTextField, given: Given) -> str:
        return field.text

    def problems(self, field: FixedTextField, value: Value, around: Around) -> Iterator[Problem]:
        yield from ()

    def sample(self, field: FixedTextField, setup: Setup) -> Raw:
        return field.text

    def worst(self, field: FixedTextField, setup: Setup) -> tuple[Raw, ...]:
        return (field.text,)


class FixedArtworkKind(Kind[FixedArtworkField]):
    """Artwork of the workshop's own."""

    def value(self, field: FixedArtworkField, given: Given) -> Value:
        return field.artwork or ""

    def problems(self, field: FixedArtworkField, value: Value, around: Around) -> Iterator[Problem]:
        yield from ()

    def words(self, field: FixedArtworkField, value: Value, around: Around) -> str:
        return value.name if isinstance(value, UploadedFile) else ""

    def sample(self, field: FixedArtworkField, setup: Setup) -> Raw:
        return ""

    def worst(self, field: FixedArtworkField, setup: Setup) -> tuple[Raw, ...]:
        return ("",)


KINDS: dict[type[FieldBase], Kind[Any]] = {FixedTextField: FixedTextKind(), FixedArtworkField: FixedArtworkKind()}
