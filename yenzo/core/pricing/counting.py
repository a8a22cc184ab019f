"""What charges count: a charge, its field and what is asked come in, a number and its noun go out."""

from decimal import Decimal

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.texts import characters, words
from yenzo.core.documents.charges import (
    Band,
    CharacterCharge,
    ColorCharge,
    CountedCharge,
    LineCharge,
    PlacedCharge,
    SideCharge,
    SquareCharge,
    UploadCharge,
    WordCharge,
)
from yenzo.core.documents.entries import UploadedFile
from yenzo.core.pricing.amounts import Amount

COUNTED: dict[type[CountedCharge], tuple[str, str]] = {
    CharacterCharge: ("character", "characters"),
    WordCharge: ("word", "words"),
    LineCharge: ("line", "lines"),
    UploadCharge: ("file", "files"),
    ColorCharge: ("color", "colors"),
    SideCharge: ("side", "sides"),
    PlacedCharge: ("item placed", "items placed"),
    SquareCharge: ("cm²", "cm²"),
}


def a_noun(charge: CountedCharge) -> str:
    """Return one of what a charge counts, with its article: "a character", "an item placed"."""
    one = COUNTED[type(charge)][0]
    return f"{'an' if one[0] in 'aeiou' else 'a'} {one}"


def beyond_words(beyond: int) -> str:
    """Return what is free of charge, as it is said after what is counted; empty for nothing."""
    return f" beyond the first{f' {beyond}' if beyond > 1 else ' one'}" if beyond else ""


def from_words(band: Band, of: str) -> str:
    """Return where a band begins: "from 10 pieces on"."""
    noun = {"pieces": " piece" if band.begins == 1 else " pieces", "cm2": " cm²", "entry": ""}[of]
    return f"from {band.begins.normalize():f}{noun} on"


def count_of(charge: CountedCharge, asked: Asked, amount: Amount) -> Decimal:
    """Return how much there is of what a charge counts."""
    if isinstance(charge, SquareCharge):
        return amount.ink_cm2 if charge.measured == "ink" else amount.area_cm2
    return Decimal(_number(charge, asked, amount))


def _number(charge: CountedCharge, asked: Asked, amount: Amount) -> int:
    text = asked.text(charge.field or "")
    match charge:
        case CharacterCharge():
            return sum(charge.count_spaces or not char.isspace() for char in characters(text))
        case WordCharge():
            return len(words(text, asked.language))
        case LineCharge():
            return sum(bool(line.strip()) for line in text.split("\n"))
        case UploadCharge():
            return isinstance(asked.values.get(charge.field or ""), UploadedFile)
        case ColorCharge():
            return amount.colors
        case SideCharge():
            return amount.sides
        case PlacedCharge():
            return amount.placed
    raise TypeError(charge)
