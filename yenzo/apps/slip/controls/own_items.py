"""The control of own items: what is on the goods already, and what can be added."""

from dataclasses import dataclass
from typing import Any

from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.picture_addresses import SMALL, picture_address
from yenzo.apps.slip.controls.interface import Control, Details, Drawn
from yenzo.apps.slip.controls.others import UnsentControl
from yenzo.apps.slip.controls.uploads import PICKED
from yenzo.core.asking.gestures import Begin
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.asking.kinds.own_items import item_words, own_items_of
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.own_items import OwnItem, OwnPicture, item_id


@dataclass(frozen=True)
class ItemRow:
    """An item that is there: its name on the goods, its kind, its words and what they can be at most, its file."""

    id: str
    kind: str
    words: str
    most_characters: int
    is_locked: bool
    typed: bool
    upload: Upload | None = None


@dataclass(frozen=True)
class OfferedDrawing:
    """A piece of ready-made artwork to pick, and the words that it is found by."""

    collection: str
    key: str
    name: str
    found_by: str
    picture: str


@dataclass(frozen=True)
class OfferedBeginning:
    """An arrangement to begin from, and the gesture that takes it."""

    name: str
    gesture: str


@dataclass(frozen=True)
class OwnItemsDetails(Details):
    """The items, what can still be added, drawings to pick from, arrangements, and the files that were sent."""

    rows: tuple[ItemRow, ...] = ()
    can_add: frozenset[str] = frozenset()
    drawings: tuple[OfferedDrawing, ...] = ()
    tags: tuple[str, ...] = ()
    beginnings: tuple[OfferedBeginning, ...] = ()
    uploads: tuple[Upload, ...] = ()
    pending: tuple[Upload, ...] = ()
    accept: str = ""
    most_bytes: int = 0


class OwnItemsControl(UnsentControl[OwnItemsField]):
    """Own items: they are added, changed and taken off by gestures, and their words are typed."""

    template = "slip/_own_items_control.html"

    def details(self, field: OwnItemsField, drawn: Drawn) -> OwnItemsDetails:
        """Return what is there and what can be added."""
        setup = drawn.evaluation.setup
        items = own_items_of(drawn.evaluation.asked.values.get(field.key))
        offered = _drawings(field, drawn)
        is_full = len(items) >= field.most
        counts = {kind: sum(item.kind == kind for item in items) for kind in ("text", "picture", "drawing", "code")}
        return OwnItemsDetails(
            rows=tuple(_row(field, item, item_words(item, setup), drawn.uploads) for item in items),
            can_add=frozenset(kind for kind, count in counts.items() if not is_full and count < field.most_of(kind)),
            drawings=offered,
            tags=tuple(sorted({tag for one in _ready_drawings(field, drawn) for tag in one.tags})),
            beginnings=tuple(
                OfferedBeginning(one.name, Begin(field=field.key, items=one.items).model_dump_json(exclude_none=True))
                for one in field.beginnings
            ),
            uploads=drawn.uploads,
            pending=drawn.pending,
            accept=",".join(PICKED[kind] for kind in field.kinds),
            most_bytes=int(field.most_megabytes * 1_000_000),
        )

    def shape(self, field: OwnItemsField, value: Raw, details: Details) -> str:  # noqa: ARG002 - items have no value
        """Return which items there are, in order: what is typed for them changes nothing."""
        assert isinstance(details, OwnItemsDetails)
        return ",".join((*map(_row_shape, details.rows), *sorted(details.can_add)))


def _row_shape(row: ItemRow) -> str:
    return f"{row.id}{'!' if row.is_locked else ''}{row.upload.pk.hex[:6] if row.upload else ''}"


def _row(field: OwnItemsField, item: OwnItem, words: str, uploads: tuple[Upload, ...]) -> ItemRow:
    upload = None
    if isinstance(item, OwnPicture):
        upload = next((one for one in uploads if one.prepared_id == item.file), None)
        words = upload.name if upload else words
    is_typed = item.kind in {"text", "code"}
    most = field.texts.most_characters if field.texts and item.kind == "text" else 300
    typed = getattr(item, "text", words)
    return ItemRow(item_id(field.key, item.key), item.kind, typed, most, item.locked, is_typed, upload)


def _ready_drawings(field: OwnItemsField, drawn: Drawn) -> list[Any]:
    collections = drawn.evaluation.setup.materials.collections
    keys = field.drawings.collections if field.drawings else ()
    return [one for key in keys if key in collections for one in collections[key].drawings]


def _drawings(field: OwnItemsField, drawn: Drawn) -> tuple[OfferedDrawing, ...]:
    collections = drawn.evaluation.setup.materials.collections
    keys = field.drawings.collections if field.drawings else ()
    return tuple(
        OfferedDrawing(
            key,
            one.key,
            one.name,
            f"{one.name} {' '.join(one.tags)}".lower(),
            picture_address(one.picture.asset if one.picture else one.artwork.prepared, SMALL),
        )
        for key in keys
        if key in collections
        for one in collections[key].drawings
    )


CONTROLS: dict[type[FieldBase], Control[Any]] = {OwnItemsField: OwnItemsControl()}
