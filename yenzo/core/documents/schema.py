"""The published JSON Schemas of the documents: a name comes in, a schema goes out."""

from typing import Any

from yenzo.core.documents.entries import Entries
from yenzo.core.documents.setup import Setup


def setup_schema() -> dict[str, Any]:
    """Return the JSON Schema of the set-up document."""
    return Setup.model_json_schema(by_alias=True)


def entries_schema() -> dict[str, Any]:
    """Return the JSON Schema of the entries document."""
    return Entries.model_json_schema(by_alias=True)
