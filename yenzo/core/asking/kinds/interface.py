"""What every kind of field can do; one class a kind, found by `kind_of`."""

from abc import ABC, abstractmethod
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import date
from typing import Generic, TypeVar

from yenzo.core.asking.problems import Problem
from yenzo.core.documents.artwork import UploadedFile
from yenzo.core.documents.entries import Address, Files
from yenzo.core.documents.field_base import FieldBase
from yenzo.core.documents.own_items import OwnItems
from yenzo.core.documents.setup import Setup
from yenzo.core.formulas.evaluate import Named
from yenzo.core.translation import translate

Value = str | bool | Files | tuple[str, ...] | Address | OwnItems
# What a program may fill in by itself.
Raw = str | bool | tuple[str, ...] | Address
F = TypeVar("F", bound=FieldBase)


@dataclass(frozen=True)
class RawEntry:
    """What was given for a field: what was typed or chosen (None where nothing was sent), files, the language.

    `names` are what formulas may look at; `items` are own items, `places` the placements that they may lie in.
    """

    raw: Raw | None
    files: tuple[UploadedFile, ...]
    language: str
    names: Mapping[str, Named]
    items: OwnItems = ()
    places: tuple[str, ...] = ()


@dataclass(frozen=True)
class EntryContext:
    """What a value is looked at with: the set-up, the language of the words, today, the stock as far as it is known."""

    setup: Setup
    language: str
    today: date | None
    stock: Mapping[str, int] = field(default_factory=dict)
    pieces: int = 1


class Kind(ABC, Generic[F]):
    """A kind of field."""

    @abstractmethod
    def value(self, field: F, entry: RawEntry) -> Value:
        """Return the entry in its one normal form; empty when there is none."""

    @abstractmethod
    def problems(self, field: F, value: Value, context: EntryContext) -> Iterator[Problem]:
        """Yield what is the matter with an entry that is filled."""

    @abstractmethod
    def sample(self, field: F, setup: Setup) -> Raw:
        """Return an entry that shows the goods off."""

    @abstractmethod
    def worst(self, field: F, setup: Setup) -> tuple[Raw, ...]:
        """Return entries that are allowed and hard to make."""

    def of_cell(self, field: F, cell: str, context: EntryContext) -> Raw | None:
        """Return what a cell of a list, where people write words, stands for; None where no check could tell."""
        return cell

    def please(self, field: F) -> str:
        """Return the words that ask for an entry that is missing."""
        return translate("Please fill in “{label}”.", label=field.label)

    def words(self, field: F, value: Value, context: EntryContext) -> str:
        """Return the entry as people read it."""
        return value if isinstance(value, str) else ""

    def produced(self, field: F, value: Value, context: EntryContext) -> str:
        """Return the text that lands on the goods."""
        return self.words(field, value, context)


def problem(field: FieldBase, code: str, message: str) -> Problem:
    """Return a problem of a field."""
    return Problem(code=code, field=field.key, message=message)
