"""Estimates: what a method puts on a piece comes in; minutes and cost, with their reasons, go out."""

from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal

from yenzo.core.documents.materials import Method
from yenzo.core.translation import decimal

CENT = Decimal("0.01")


@dataclass(frozen=True)
class Content:
    """What a method puts on one piece: letters, and the boxes round its ink in cm2."""

    letters: int = 0
    ink_cm2: float = 0.0


@dataclass(frozen=True)
class Estimate:
    """How long work takes, in minutes, and what it costs; with its reasons in the workshop's words."""

    minutes: float
    cost: Decimal
    reasons: tuple[str, ...]


def estimate(method: Method, content: Content, pieces: int) -> Estimate:
    """Return what so many pieces that are alike take."""
    each = method.piece_minutes + content.letters * method.letter_minutes + content.ink_cm2 * method.cm2_minutes
    minutes = method.setup_minutes + pieces * each
    cost = cost_of(method.hour_cost, minutes)
    content_words = f"{content.letters} letters, {decimal(round(content.ink_cm2, 1))} cm² of ink"
    reasons = (
        f"{_minutes(method.setup_minutes)} to set up",
        f"{pieces} × {_minutes(each)} for {content_words}",
    )
    return Estimate(round(minutes, 2), cost, reasons)


def cost_of(hour_cost: Decimal, minutes: float) -> Decimal:
    """Return what minutes cost by the hour."""
    return (hour_cost * Decimal(str(round(minutes, 3))) / 60).quantize(CENT, ROUND_HALF_UP)


def _minutes(value: float) -> str:
    return f"{decimal(round(value, 2))} min"
