"""Edits of a draft: a set-up as JSON values and small operations come in, the new values and the way back go out.

A path is a tuple of steps; a step into a list is the key of the item meant, so that a path keeps its meaning
while others add, remove and move items.
"""

from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter

from yenzo.core.documents.values import Frozen
from yenzo.core.errors import DocumentError

Path = tuple[str, ...]
Step = Annotated[str, Field(min_length=1, max_length=80)]


class SetValue(Frozen):
    """Put a value at a path; None takes it away, so that the default holds."""

    do: Literal["set"] = "set"
    path: tuple[Step, ...] = Field(min_length=1)
    value: Any = None


class AddItem(Frozen):
    """Add an item (with a key of its own) to the list at a path, at a position."""

    do: Literal["add"] = "add"
    path: tuple[Step, ...] = Field(min_length=1)
    item: dict[str, Any]
    position: int | None = Field(default=None, ge=0)


class RemoveItem(Frozen):
    """Remove the item with this key from the list at a path."""

    do: Literal["remove"] = "remove"
    path: tuple[Step, ...] = Field(min_length=1)
    key: str


class MoveItem(Frozen):
    """Move the item with this key to another position of its list."""

    do: Literal["move"] = "move"
    path: tuple[Step, ...] = Field(min_length=1)
    key: str
    position: int = Field(ge=0)


Operation = Annotated[SetValue | AddItem | RemoveItem | MoveItem, Field(discriminator="do")]
OPERATIONS: TypeAdapter[tuple[Operation, ...]] = TypeAdapter(tuple[Operation, ...])


def apply_operations(
    document: dict[str, Any], operations: tuple[Operation, ...]
) -> tuple[dict[str, Any], tuple[Operation, ...]]:
    """Return a changed copy of the document and the operations that lead back; raises DocumentError."""
    changed = _copied(document)
    back: list[Operation] = []
    for operation in operations:
        back.insert(0, _APPLY[operation.do](changed, operation))
    return changed, tuple(back)


def value_at(document: dict[str, Any], path: Path) -> Any:
    """Return what stands at a path, or None when nothing does; raises DocumentError when the way there is gone."""
    return _holder(document, path).get(path[-1])


def free_key(document: dict[str, Any], path: Path, wanted: str) -> str:
    """Return a key like the wanted one that no item of the list at a path has."""
    stem = "".join(char if char.isascii() and char.isalnum() else "-" for char in wanted.lower()).strip("-")[:40]
    stem = stem or "item"
    taken = {item.get("key") for item in value_at(document, path) or []}
    return next(key for key in (stem, *(f"{stem}-{count}" for count in range(2, 10_000))) if key not in taken)


def _copied(value: Any) -> Any:
    """Return a copy of JSON values that shares nothing: faster than what must copy anything."""
    if isinstance(value, dict):
        return {key: _copied(item) for key, item in value.items()}
    return [_copied(item) for item in value] if isinstance(value, list | tuple) else value


def _set(document: dict[str, Any], operation: Any) -> Operation:
    holder = _holder(document, operation.path)
    back = SetValue(path=operation.path, value=_copied(holder.get(operation.path[-1])))
    if operation.value is None:
        holder.pop(operation.path[-1], None)
    else:
        holder[operation.path[-1]] = _copied(operation.value)
    return back


def _add(document: dict[str, Any], operation: Any) -> Operation:
    items = _list(document, operation.path)
    key = operation.item.get("key", "")
    if any(item.get("key") == key for item in items):
        raise DocumentError("taken", key, f"There is already a “{key}” here; give it another key.")
    position = len(items) if operation.position is None else operation.position
    items.insert(position, _copied(operation.item))
    return RemoveItem(path=operation.path, key=key)


def _remove(document: dict[str, Any], operation: Any) -> Operation:
    items = _list(document, operation.path)
    position = _position(items, operation.key)
    return AddItem(path=operation.path, item=items.pop(position), position=position)


def _move(document: dict[str, Any], operation: Any) -> Operation:
    items = _list(document, operation.path)
    position = _position(items, operation.key)
    items.insert(operation.position, items.pop(position))
    return MoveItem(path=operation.path, key=operation.key, position=position)


_APPLY = {"set": _set, "add": _add, "remove": _remove, "move": _move}


def _holder(document: dict[str, Any], path: Path) -> dict[str, Any]:
    place: Any = document
    for step in path[:-1]:
        if isinstance(place, list):
            place = next((item for item in place if item.get("key") == step), None)
        elif isinstance(place, dict):
            place = place.get(step)
        if place is None:
            raise DocumentError("gone", "/".join(path), f"“{step}” is no longer there; somebody may have removed it.")
    if not isinstance(place, dict):
        raise DocumentError("no_place", "/".join(path), f"Nothing can be put at “{' / '.join(path)}”.")
    return place


def _list(document: dict[str, Any], path: Path) -> list[dict[str, Any]]:
    items = _holder(document, path).setdefault(path[-1], [])
    if not isinstance(items, list):
        raise DocumentError("no_list", "/".join(path), f"“{' / '.join(path)}” is no list.")
    return items


def _position(items: list[dict[str, Any]], key: str) -> int:
    for position, item in enumerate(items):
        if item.get("key") == key:
            return position
    raise DocumentError("gone", key, f"“{key}” is no longer there; somebody may have removed it.")
