"""Own items: texts, pictures, drawings and codes that customers put on the goods themselves."""

from collections import Counter
from collections.abc import Iterator
from typing import Any

from yenzo.core.asking.invisible import without_invisible
from yenzo.core.asking.kinds.files import file_problems
from yenzo.core.asking.kinds.interface import EntryContext, Kind, Raw, RawEntry, Value, problem
from yenzo.core.asking.problems import Problem
from yenzo.core.asking.texts import characters
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.own_items import OwnCode, OwnDrawing, OwnItem, OwnItems, OwnPicture, OwnText, OwnTexts
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import translate, translate_noop, translate_plural

# Letters begin this far from the least to the most height.
FIRST_SHARE = 0.4
EXAMPLE = "Ahoy"


class OwnItemsKind(Kind[OwnItemsField]):
    """Items in painting order; what isn't offered is left out, and how each is made is within what is offered."""

    def value(self, field: OwnItemsField, entry: RawEntry) -> OwnItems:
        """Return the items that count, each once, with the files that were sent for the field.

        Of too many only one more than there is room for: it is told of, and the others cost nobody any time.
        """
        files = {file.prepared: file for file in entry.files}
        kept: dict[str, OwnItem] = {}
        counts: Counter[str] = Counter()
        for item in entry.items:
            is_full = len(kept) > field.most or counts[item.kind] > field.most_of(item.kind)
            allowed = None if is_full or item.key in kept else _allowed(field, item, files)
            if allowed is not None and entry.places:
                counts[item.kind] += 1
                place = item.place if item.place in entry.places else entry.places[0]
                kept[item.key] = allowed.but(place=place)
        return tuple(kept.values())

    def problems(self, field: OwnItemsField, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield too many items, of all and of each kind, and what is the matter with each by itself."""
        items = own_items_of(value)
        if len(items) > field.most:
            message = translate_plural(
                "“{label}” has room for one item; {given} are there. Please take some off.",
                "“{label}” has room for {count} items; {given} are there. Please take some off.",
                field.most,
                label=field.label,
                given=len(items),
            )
            yield problem(field, "too_many_items", message)
        counts = Counter(item.kind for item in items)
        for kind, count in counts.items():
            most = field.most_of(kind)
            if count > most:
                message = translate(
                    "“{label}” takes {most} of these: {kind}. Please take some off.",
                    label=field.label,
                    most=most,
                    kind=translate(_KIND_WORDS[kind]),
                )
                yield problem(field, "too_many_items", message)
        yield from _full_areas(field, items, context.setup)
        for item in items:
            yield from _item_problems(field, item, context)

    def please(self, field: OwnItemsField) -> str:
        """Ask for an item."""
        return translate("Please put something on “{label}”.", label=field.label)

    def words(self, field: OwnItemsField, value: Value, context: EntryContext) -> str:
        """Return the items in words, one after another."""
        return "; ".join(item_words(item, context.setup) for item in own_items_of(value))

    def produced(self, field: OwnItemsField, value: Value, context: EntryContext) -> str:
        """Return the texts that land on the goods."""
        return "\n".join(item.text for item in own_items_of(value) if isinstance(item, OwnText))

    def sample(self, field: OwnItemsField, setup: Setup) -> Raw:
        """Return nothing that is typed: items show by themselves."""
        return ""

    def worst(self, field: OwnItemsField, setup: Setup) -> tuple[Raw, ...]:
        """Return nothing that is typed."""
        return ("",)


def own_items_of(value: object) -> OwnItems:
    """Return the items of an entry; none of what has none."""
    kinds = (OwnText, OwnPicture, OwnDrawing, OwnCode)
    return tuple(one for one in value if isinstance(one, kinds)) if isinstance(value, tuple) else ()


def item_words(item: OwnItem, setup: Setup) -> str:
    """Return what people call an item: its text, or what it shows."""
    match item:
        case OwnText() | OwnCode():
            return item.text.replace("\n", " / ") or translate(_KIND_WORDS[item.kind])
        case OwnDrawing():
            collection = setup.materials.collections.get(item.collection)
            drawing = collection.drawing(item.drawing) if collection else None
            return drawing.name if drawing else item.drawing
        case OwnPicture():
            return item.made.name if item.made else translate(_KIND_WORDS["picture"])


def example_items(field: OwnItemsField, setup: Setup, *, text: str = "") -> OwnItems:
    """Return items that show the goods off: the seller's first arrangement, or one of what can be added.

    With a text it is that, as far as texts can be added.
    """
    if field.texts and (text or not field.beginnings):
        return (OwnText(key="i1", text=text or EXAMPLE, effects=field.texts.effects.names if text else ()),)
    if field.beginnings:
        return field.beginnings[0].items
    for key in field.drawings.collections if field.drawings else ():
        collection = setup.materials.collections.get(key)
        if collection:
            return (OwnDrawing(key="i1", collection=key, drawing=collection.drawings[0].key),)
    return (OwnCode(key="i1", text=EXAMPLE),) if field.codes else ()


_KIND_WORDS = {
    "text": translate_noop("texts"),
    "picture": translate_noop("pictures"),
    "drawing": translate_noop("drawings"),
    "code": translate_noop("codes"),
}


def _allowed(field: OwnItemsField, item: OwnItem, files: dict[str, UploadedFile]) -> OwnItem | None:
    """Return an item as the field allows it, or None where it can't be added at all."""
    match item:
        case OwnText() if field.texts:
            return _allowed_text(field.texts, item)
        case OwnPicture() if field.pictures:
            return item.model_copy(update={"made": files[item.file]}) if item.file in files else None
        case OwnDrawing() if field.drawings:
            return item if item.collection in field.drawings.collections else None
        case OwnCode() if field.codes:
            return item.but(text=item.text.strip())
        case _:
            return None


def _allowed_text(texts: OwnTexts, item: OwnText) -> OwnText:
    least, most = texts.letters.least_mm, texts.letters.most_mm
    begins = least + (most - least) * FIRST_SHARE
    text = without_invisible(item.text)[0]
    return item.but(
        text=text if item.layout == "wrapped" else " ".join(text.split()),
        layout=item.layout if item.layout in texts.layouts else texts.layouts[0],
        letter_mm=min(max(item.letter_mm or begins, least), most),
        typeface=item.typeface if item.typeface in texts.typefaces else texts.typefaces[0],
        effects=tuple(name for name in texts.effects.names if name in item.effects),
    )


def _full_areas(field: OwnItemsField, items: OwnItems, setup: Setup) -> Iterator[Problem]:
    counts = Counter(item.place for item in items)
    for placement in setup.placements_of(field.key):
        side = setup.side(placement.side)
        area = side.area(placement.area) if side else None
        given = counts[placement.key]
        if area is not None and area.most_items is not None and given > area.most_items:
            message = translate_plural(
                "“{area}” has room for one item; {given} are there. Please take some off.",
                "“{area}” has room for {count} items; {given} are there. Please take some off.",
                area.most_items,
                area=area.name,
                given=given,
            )
            yield problem(field, "too_many_items", message)


def _item_problems(field: OwnItemsField, item: OwnItem, context: EntryContext) -> Iterator[Problem]:
    if isinstance(item, OwnText | OwnCode) and not item.text:
        message = translate("One of your texts or codes is still empty. Please write something, or take it off.")
        yield problem(field, "required", message)
    elif isinstance(item, OwnText) and field.texts and len(characters(item.text)) > field.texts.most_characters:
        message = translate_plural(
            "“{text}” is too long: one character fits.",
            "“{text}” is too long: {count} characters fit.",
            field.texts.most_characters,
            text=item.text,
        )
        yield problem(field, "too_long", message)
    elif isinstance(item, OwnDrawing) and item_words(item, context.setup) == item.drawing:
        message = translate("One of the drawings is no longer offered. Please take it off or pick another one.")
        yield problem(field, "not_offered", message)
    elif isinstance(item, OwnPicture) and item.made:
        yield from file_problems(field, item.made)


KINDS: dict[type[FieldBase], Kind[Any]] = {OwnItemsField: OwnItemsKind()}
