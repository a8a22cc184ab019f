"""Carrying a design over to other goods: what was asked of one product comes in; entries for another one go out.

Texts go to fields that take texts, files to fields that take files, lettering and colors to choices that offer them.
What finds no place is named; whether what found one can be made there is for the other product's own checks to say.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from yenzo.core.asking.ask import Asked, ask
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.entries import Entries, Files, files_of
from yenzo.core.documents.fields import AnyField, ArtworkField, ColorField, TextField, TypefaceField, YesNoField
from yenzo.core.documents.own_field import OwnItemsField
from yenzo.core.documents.own_items import OwnItems, OwnPicture, OwnText
from yenzo.core.documents.setup import Setup


@dataclass(frozen=True)
class Carried:
    """Entries for another product, and what of the design found no place there, as people call it."""

    entries: Entries
    left_out: tuple[str, ...]


@dataclass
class _Target:
    """The other product's entries while they are filled."""

    setup: Setup
    values: dict[str, Any] = field(default_factory=dict)
    uploads: dict[str, Files] = field(default_factory=dict)
    items: dict[str, OwnItems] = field(default_factory=dict)

    def put_text(self, label: str, text: str) -> bool:
        """Put a text where one goes that is called the same, or where none is yet; tell whether it found a place."""
        free = [one for one in self.setup.fields if isinstance(one, TextField) and one.key not in self.values]
        # A line has no room for several.
        fits = [one for one in free if one.kind == "paragraph" or "\n" not in text]
        named = [one for one in fits if one.label.casefold() == label.casefold()]
        for found in (*named, *fits):
            if self._is_asked(found):
                self.values[found.key] = text
                return True
        return self._add(lambda own: own.texts, lambda key: OwnText(key=key, text=text))

    def put_file(self, file: UploadedFile) -> bool:
        """Put a file where one of its kind goes and there is room; tell whether it found a place."""
        for one in self.setup.fields:
            if isinstance(one, ArtworkField) and file.kind in one.kinds:
                there = files_of(self.uploads.get(one.key))
                if len(there) < one.most_files and self._is_asked(one):
                    self.uploads[one.key] = (*there, file) if there else file
                    return True
        own = next((one for one in self.setup.fields if isinstance(one, OwnItemsField)), None)
        if own is None or not own.pictures or file.kind not in own.pictures.kinds:
            return False
        if not self._add(lambda one: one.pictures, lambda key: OwnPicture(key=key, file=file.prepared)):
            return False
        there = files_of(self.uploads.get(own.key))
        self.uploads[own.key] = (*there, file) if there else file
        return True

    def put_pick(self, kind: type[AnyField], key: str) -> None:
        """Choose what was chosen before wherever it is offered."""
        for one in self.setup.fields:
            if isinstance(one, kind) and one.key not in self.values and key in self.setup.offered_of(one):
                self.values[one.key] = key

    def _add(self, offer: Any, made: Any) -> bool:
        """Add an own item if the product takes one of its kind and has room."""
        own = next((one for one in self.setup.fields if isinstance(one, OwnItemsField)), None)
        if own is None or offer(own) is None:
            return False
        there = self.items.get(own.key, ())
        item = made(f"i{len(there) + 1}")
        if len(there) >= own.most or sum(one.kind == item.kind for one in there) >= own.most_of(item.kind):
            return False
        self.items[own.key] = (*there, item)
        return True

    def _is_asked(self, found: AnyField) -> bool:
        """Tell whether a field is asked, by a yes to what must be wanted for it if need be: that is said then."""
        rules = [one.ask_when for one in (found, self.setup.section(found.section)) if one and one.ask_when]
        wanted = (self.setup.field(condition.field) for rule in rules for condition in rule.all_conditions)
        yes = {one.key: True for one in wanted if isinstance(one, YesNoField)}
        for values in (self.values, {**self.values, **yes}):
            if found.key in ask(self.setup, Entries(values=values)).values:
                self.values = values
                return True
        return False


def carry(setup: Setup, asked: Asked, entries: Entries, other: Setup) -> Carried:
    """Return what was asked of one set-up, as it was typed and sent, as entries for another one."""
    target = _Target(other)
    left_out = [text for label, text in _texts(setup, asked, entries) if not target.put_text(label, text)]
    left_out += [file.name for file in _files(setup, asked, entries) if not target.put_file(file)]
    for one in setup.fields:
        for kind in (TypefaceField, ColorField):
            if isinstance(one, kind) and asked.text(one.key):
                target.put_pick(kind, asked.text(one.key))
    carried = Entries(values=target.values, uploads=target.uploads, items=target.items, language=asked.language)
    return Carried(carried, tuple(left_out))


def _texts(setup: Setup, asked: Asked, entries: Entries) -> Iterator[tuple[str, str]]:
    """Yield the texts that were asked as they were typed, in the order of the form, with what each is called."""
    for one in setup.fields:
        value, typed = asked.values.get(one.key), entries.values.get(one.key)
        if isinstance(one, TextField) and isinstance(value, str) and value:
            yield one.label, typed if isinstance(typed, str) else value
        elif isinstance(one, OwnItemsField) and isinstance(value, tuple):
            yield from ((one.label, item.text) for item in value if isinstance(item, OwnText) and item.text)


def _files(setup: Setup, asked: Asked, entries: Entries) -> Iterator[UploadedFile]:
    """Yield the files that were asked, in the order of the form; none that was taken off the goods."""
    for one in setup.fields:
        landed = {file.prepared for file in files_of(asked.values.get(one.key))}
        yield from (file for file in files_of(entries.uploads.get(one.key)) if file.prepared in landed)
