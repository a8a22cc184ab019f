"""Files: artwork uploads."""

from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.entries import files_of
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.fields import ArtworkField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import decimal, translate, translate_plural


class ArtworkKind(Kind[ArtworkField]):
    """Pictures or drawings of the customer's own: one file by itself, several as a tuple."""

    def value(self, field: ArtworkField, entry: RawEntry) -> Value:
        """Return the file, several as a tuple, or nothing."""
        return entry.files[0] if len(entry.files) == 1 else entry.files or ""

    def problems(self, field: ArtworkField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield too many or too few files, and of each what keeps it from being used."""
        files = files_of(value)
        if len(files) > field.most_files:
            message = translate_plural(
                "For “{label}” there is room for one file; {given} are here. Please remove some.",
                "For “{label}” there is room for {count} files; {given} are here. Please remove some.",
                field.most_files,
                label=field.label,
                given=len(files),
            )
            yield problem(field, "too_many_files", message)
        if field.least_files is not None and len(files) < field.least_files:
            message = translate_plural(
                "For “{label}” {least} files are needed; one is missing.",
                "For “{label}” {least} files are needed; {count} are missing.",
                field.least_files - len(files),
                label=field.label,
                least=field.least_files,
            )
            yield problem(field, "too_few_files", message)
        for file in files:
            yield from file_problems(field, file)

    def please(self, field: ArtworkField) -> str:
        """Ask for a picture."""
        return translate("Please add a picture for “{label}”.", label=field.label)

    def words(self, field: ArtworkField, value: Value, context: EntryContext) -> str:
        """Return the files' names."""
        return ", ".join(file.name for file in files_of(value))

    def sample(self, field: ArtworkField, setup: Setup) -> str:
        """Return nothing: a sample picture stands in by itself."""
        return ""

    def worst(self, field: ArtworkField, setup: Setup) -> tuple[Raw, ...]:
        """Return nothing: files are tried by their samples."""
        return ("",)


def file_problems(field: ArtworkField | OwnItemsField, file: UploadedFile) -> Iterator[Problem]:
    """Yield what keeps a file from being used for a field."""
    if file.kind not in field.kinds:
        kinds = ", ".join(kind.upper() for kind in field.kinds)
        message = translate(
            "“{name}” is a {kind} file. What can be used for “{label}”: {kinds}.",
            name=file.name,
            kind=file.kind.upper(),
            label=field.label,
            kinds=kinds,
        )
        yield problem(field, "wrong_kind", message)
    if file.size_bytes > field.most_megabytes * 1e6:
        message = translate(
            "“{name}” has {size_bytes} MB; for “{label}” there is room for {most_megabytes} "
            "MB. Please save it smaller, for example as a JPEG.",
            name=file.name,
            size_bytes=decimal(file.size_bytes / 1000000.0, 1),
            label=field.label,
            most_megabytes=decimal(field.most_megabytes),
        )
        yield problem(field, "too_many_bytes", message)
    if field.one_color is not None and not file.one_color:
        message = translate("“{name}” hasn't been made into one color yet. Please send it again.", name=file.name)
        yield problem(field, "not_one_color", message)
    shorter = min(file.width_px, file.height_px)
    if field.least_pixels is not None and file.form == "picture" and shorter < field.least_pixels:
        message = translate(
            "“{name}” has {width_px} × {height_px} pixels; at least {least_pixels} on the "
            "shorter edge are needed. Please pick a larger picture.",
            name=file.name,
            width_px=file.width_px,
            height_px=file.height_px,
            least_pixels=field.least_pixels,
        )
        yield problem(field, "too_few_pixels", message)


KINDS: dict[type[FieldBase], Kind[Any]] = {ArtworkField: ArtworkKind()}
