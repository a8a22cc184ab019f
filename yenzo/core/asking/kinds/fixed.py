"""What the workshop itself puts on the goods: nobody is asked for it, whatever is sent."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import FixedArtworkField, FixedTextField
from yenzo.core.documents.setup import Setup


class FixedTextKind(Kind[FixedTextField]):
    """A text of the workshop's own."""

    def value(self, field: FixedTextField, entry: RawEntry) -> str:
        """Return the workshop's text, whatever is sent."""
        return field.text

    def problems(self, field: FixedTextField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield nothing: nobody entered it."""
        yield from ()

    def sample(self, field: FixedTextField, setup: Setup) -> Raw:
        """Return the workshop's text."""
        return field.text

    def worst(self, field: FixedTextField, setup: Setup) -> tuple[Raw, ...]:
        """Return the workshop's text."""
        return (field.text,)


class FixedArtworkKind(Kind[FixedArtworkField]):
    """Artwork of the workshop's own."""

    def value(self, field: FixedArtworkField, entry: RawEntry) -> Value:
        """Return the workshop's file, whatever is sent; empty without one."""
        return field.artwork or ""

    def problems(self, field: FixedArtworkField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield nothing: nobody entered it."""
        yield from ()

    def words(self, field: FixedArtworkField, value: Value, context: EntryContext) -> str:
        """Return the file's name."""
        return value.name if isinstance(value, UploadedFile) else ""

    def sample(self, field: FixedArtworkField, setup: Setup) -> Raw:
        """Return nothing: the set-up has it."""
        return ""

    def worst(self, field: FixedArtworkField, setup: Setup) -> tuple[Raw, ...]:
        """Return nothing: the set-up has it."""
        return ("",)


KINDS: dict[type[FieldBase], Kind[Any]] = {FixedTextField: FixedTextKind(), FixedArtworkField: FixedArtworkKind()}
