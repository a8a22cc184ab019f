"""Reading documents: bytes or JSON values come in, typed documents or errors in words go out."""

import json
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from yenzo.core.documents.entries import Entries
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import DocumentError

Model = TypeVar("Model", bound=BaseModel)
MOST_FAULTS_NAMED = 5


def read_setup(data: bytes | str | dict[str, Any]) -> Setup:
    """Read a set-up document; raises DocumentError."""
    return _read(Setup, data, "set-up document")


def read_entries(data: bytes | str | dict[str, Any]) -> Entries:
    """Read an entries document; raises DocumentError."""
    return _read(Entries, data, "entries document")


def dump_document(document: BaseModel) -> dict[str, Any]:
    """Return a document as JSON values, without what equals its default."""
    values: dict[str, Any] = document.model_dump(mode="json", by_alias=True, exclude_defaults=True)
    return {"schema": document.model_dump(by_alias=True)["schema"], **_with_kinds(document, values)}


def explain(error: ValidationError) -> str:
    """Return what a document got wrong in words: where, and what is the matter."""
    faults = []
    for detail in error.errors(include_url=False)[:MOST_FAULTS_NAMED]:
        place = " / ".join(str(step) for step in detail["loc"])
        said = detail["msg"].removeprefix("Value error, ")
        faults.append(f"{place}: {said}" if place else said)
    more = error.error_count() - len(faults)
    return "; ".join(faults) + (f" (and {more} more)" if more > 0 else "")


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


def _with_kinds(document: BaseModel, values: dict[str, Any]) -> dict[str, Any]:
    # `kind` is the default of its own model, so leaving defaults out would lose what tells the kinds apart.
    for name in ("fields", "charges", "placements"):
        for model, dumped in zip(getattr(document, name, ()), values.get(name, ()), strict=True):
            dumped["kind"] = model.kind
    return values
