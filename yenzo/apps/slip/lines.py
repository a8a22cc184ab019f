"""Lines of the slip: a field and what follows from the entries come in; all that its line shows goes out."""

import hashlib
from collections.abc import Callable
from dataclasses import dataclass
from decimal import Decimal
from functools import partial
from typing import Any

from django.utils.translation import get_language, gettext

from yenzo.apps.designs.answers import Asking, still_asked
from yenzo.apps.designs.picture_addresses import MIDDLE, picture_address
from yenzo.apps.designs.to_core import Uploads
from yenzo.apps.pages.templatetags.writing import rate
from yenzo.apps.slip.controls import Control, Details, Drawn, control_of
from yenzo.core.asking.check import is_needed
from yenzo.core.asking.kinds.interface import Raw
from yenzo.core.caching import cached_on
from yenzo.core.documents.charges import ChoiceCharge, FixedCharge, FormulaCharge
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.fields import AnyField, ComputedField, ExtraField
from yenzo.core.documents.setup import Setup
from yenzo.core.evaluation import Evaluation
from yenzo.core.pricing.words import charge_words
from yenzo.core.scene.nodes import Lettering, Node, PlacedDrawing
from yenzo.core.translation import decimal


@dataclass(frozen=True)
class Messages:
    """What is said under a control: what keeps the piece from being made, advice, its size as made, what is asked."""

    problems: tuple[str, ...] = ()
    advice: tuple[str, ...] = ()
    made: tuple[str, ...] = ()
    questions: tuple[Asking, ...] = ()

    def __bool__(self) -> bool:
        """Tell whether anything is said."""
        return bool(self.problems or self.advice or self.made or self.questions)

    @property
    def digest(self) -> str:
        """What tells other messages from these."""
        said = repr((self.problems, self.advice, self.made, self.questions)).encode()
        return hashlib.blake2s(said, digest_size=4).hexdigest()


@dataclass(frozen=True)
class SlipLine:
    """One line of the slip: a field, its control with what that is drawn with, its price, and what is said of it."""

    field: AnyField
    control: Control[Any]
    value: Raw
    details: Details
    is_asked: bool
    is_needed: bool
    messages: Messages = Messages()
    amount: Decimal | None = None
    charges: tuple[str, ...] = ()
    goes_to: str = ""

    @property
    def picture(self) -> str:
        """Where the picture of the explanation is."""
        return picture_address(self.field.picture.asset, MIDDLE) if self.field.picture else ""

    @property
    def explained(self) -> bool:
        """Whether the picture belongs to the explanation; an extra shows its own beside its number."""
        return bool(self.picture) and not isinstance(self.field, ExtraField)

    @property
    def shape(self) -> str:
        """What tells, with the next request, whether the line must be laid out anew: which options and parts it has."""
        if not self.is_asked:
            return ""
        own = self.control.shape(self.field, self.value, self.details)
        return f"{self.field.key}:{own}" if own else self.field.key

    @property
    def beside(self) -> str:
        """What tells apart what stands beside its control, and may change with each key; empty where nothing does."""
        needed = str(self.is_needed) if self.field.required_when else ""
        return needed + self.details.beside

    @property
    def problems(self) -> tuple[str, ...]:
        """What keeps the piece from being made."""
        return self.messages.problems

    @property
    def message_digest(self) -> str:
        """Its key and a digest of what is said under its control: what is said already isn't said again."""
        return f"{self.field.key}:{self.messages.digest}"


@dataclass(frozen=True)
class LineDrawing:
    """What lines are drawn from. `shows_missing` tells of a field whether it is said that its entry is missing."""

    evaluation: Evaluation
    entries: Entries
    uploads: Uploads
    pending: Uploads
    shows_missing: Callable[[str], bool]

    def line(self, field: AnyField) -> SlipLine:
        """Return the line of a field."""
        evaluation, key, control = self.evaluation, field.key, control_of(field)
        value = control.value(field, self.entries)
        drawn = Drawn(evaluation, value, self.uploads.get(key, ()), self.pending.get(key, ()))
        amount, charges = _charges_at(evaluation.setup, key)
        return SlipLine(
            field=field,
            control=control,
            value=value,
            details=control.details(field, drawn),
            is_asked=key in evaluation.asked.values and is_shown(field),
            is_needed=is_needed(evaluation.setup, field, evaluation.asked),
            messages=self._messages(key),
            amount=amount,
            charges=charges,
            goes_to=next((placement.side for placement in evaluation.setup.placements_of(key)), ""),
        )

    def _messages(self, key: str) -> Messages:
        verdict = self.evaluation.verdict
        blocking = dict.fromkeys(
            item.message
            for item in verdict.blocking
            if item.field == key and (item.code != "required" or self.shows_missing(key))
        )
        landed = (node for area in self.evaluation.scene.areas for node in area.nodes if key in node.fields)
        asked = still_asked(one for one in self.evaluation.questions if one.field == key)
        language = get_language()
        made = tuple(cached_on(node, "size", language, partial(_size_words, node)) for node in landed)
        return Messages(tuple(blocking), verdict.advice_of(key), made, asked)


def is_shown(field: AnyField) -> bool:
    """Tell whether customers see a field; what the workshop puts on by itself and some computed values are its own."""
    return field.is_asked and (not isinstance(field, ComputedField) or field.shown)


def _size_words(node: Node) -> str:
    if isinstance(node, Lettering):
        return gettext("Letters now {height} mm high").format(height=decimal(node.letter_height_mm, 0))
    size = {name: decimal(length, 0) for name, length in zip(("width", "height"), node.size_mm, strict=True)}
    if isinstance(node, PlacedDrawing):
        return gettext("Drawn in outlines, {width} × {height} mm").format(**size)
    return gettext("{dpi} dpi at {width} × {height} mm").format(dpi=decimal(node.dpi, 0), **size)


def _charges_at(setup: Setup, key: str) -> tuple[Decimal | None, tuple[str, ...]]:
    """Return what a field's charges say beside it: one amount, and the others in words."""
    amount, charges = Decimal(0), []
    for charge in setup.charges_of(key):
        if not charge.shown or isinstance(charge, ChoiceCharge):
            continue  # Amounts of choices stand at each of them.
        if isinstance(charge, FixedCharge) and charge.per == "piece":
            amount += charge.amount
        elif isinstance(charge, FormulaCharge):
            charges.append(gettext("The price depends on it"))
        else:
            charges += charge_words(setup, charge, lambda one: rate(one, setup.offer.currency))
    return amount or None, tuple(charges)
