"""Reading documents: bytes or JSON values come in, typed documents or errors in words go out."""

import json
from collections.abc import Iterator
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from yenzo.core.documents.entries import Entries
from yenzo.core.documents.faults import find_faults
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import DocumentError

Model = TypeVar("Model", bound=BaseModel)
MOST_FAULTS_NAMED = 5
SETUP = "set-up document"


def read_setup(data: bytes | str | dict[str, Any]) -> Setup:
    """Read a set-up document; raises DocumentError, also for one that contradicts itself."""
    setup = read_trusted(data)
    faults = find_faults(setup)
    if faults:
        raise DocumentError("faulty", SETUP, f"The {SETUP} can't be used. {' '.join(faults)}")
    return setup


def read_trusted(data: bytes | str | dict[str, Any]) -> Setup:
    """Read a set-up that was looked at before, as a revision was when it was published; raises DocumentError.

    So what was right then stays readable, whatever else is asked of documents since.
    """
    return _read(Setup, data, SETUP)


def read_entries(data: bytes | str | dict[str, Any]) -> Entries:
    """Read an entries document; raises DocumentError."""
    return _read(Entries, data, "entries document")


def dump_document(document: BaseModel) -> dict[str, Any]:
    """Return a document as JSON values, without what equals its default."""
    values = dump_part(document)
    return {"schema": document.model_dump(by_alias=True)["schema"], **values}


def dump_part(part: BaseModel) -> dict[str, Any]:
    """Return a part of a document as JSON values, without what equals its default but for what tells it apart."""
    values: dict[str, Any] = part.model_dump(mode="json", by_alias=True, exclude_defaults=True)
    _add_kinds(part, values)
    return values


# What people call a part of a document.
NAMED_BY = ("label", "name", "title")


def explain(error: ValidationError) -> str:
    """Return what a document got wrong in words: where, and what is the matter."""
    faults = []
    for detail in error.errors(include_url=False)[:MOST_FAULTS_NAMED]:
        place = " / ".join(str(step) for step in detail["loc"])
        said = detail["msg"].removeprefix("Value error, ")
        faults.append(f"{place}: {said}" if place else said)
    more = error.error_count() - len(faults)
    return "; ".join(faults) + (f" (and {more} more)" if more > 0 else "")


def in_words(error: DocumentError, document: dict[str, Any]) -> str:
    """Return why a document can't be used as its seller would say it, its parts by the names that they were given."""
    if error.code == "faulty":
        return error.message.removeprefix(f"The {SETUP} can't be used. ")
    cause = error.__cause__
    if not isinstance(cause, ValidationError):
        return error.message
    said = []
    for detail in cause.errors(include_url=False)[:MOST_FAULTS_NAMED]:
        named = " / ".join(_named(document, detail["loc"]))
        words = detail["msg"].removeprefix("Value error, ")
        said.append(f"{named}: {words}" if named else words)
    return " ".join(word if word.endswith((".", "!", "?")) else f"{word}." for word in said)


def _named(document: Any, place: tuple[str | int, ...]) -> Iterator[str]:
    """Yield the names of the parts on the way to a place; what has none is told by what it is."""
    part = document
    for step in place:
        if isinstance(part, list) and isinstance(step, int) and step < len(part):
            part = part[step]
            names = [part[key] for key in NAMED_BY if part.get(key)] if isinstance(part, dict) else []
            yield from names[:1]
        elif isinstance(part, dict) and step in part:
            part = part[step]
            if not isinstance(part, list | dict):
                yield str(step).replace("_mm", "").replace("_", " ")


def _read(model: type[Model], data: bytes | str | dict[str, Any], what: str) -> Model:
    if not isinstance(data, dict):
        try:
            data = json.loads(data)
        except (ValueError, RecursionError) as error:
            raise DocumentError("not_json", what, f"The {what} is not readable JSON: {error}.") from error
    try:
        return model.model_validate(data)
    except ValidationError as error:
        raise DocumentError("invalid", what, f"The {what} can't be used. {explain(error)}") from error


def _add_kinds(value: object, dumped: Any) -> None:
    """Put back what tells kinds apart: it is the default of its own model, so leaving defaults out would lose it."""
    if isinstance(value, BaseModel):
        if "kind" in type(value).model_fields:
            dumped["kind"] = value.kind  # type: ignore[attr-defined]
        for name in type(value).model_fields:
            if isinstance(dumped.get(name), dict | list):
                _add_kinds(getattr(value, name), dumped[name])
    elif isinstance(value, dict):
        for key, item in value.items():
            _add_kinds(item, dumped[key])
    elif isinstance(value, tuple):
        for item, item_dumped in zip(value, dumped, strict=True):
            _add_kinds(item, item_dumped)
