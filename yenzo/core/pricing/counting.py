"""What charges count: a charge, its field and what is asked come in, a number and its noun go out."""

from decimal import Decimal

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.kinds.own_items import own_items_of
from yenzo.core.asking.texts import characters, words
from yenzo.core.documents.charges import (
    Band,
    CharacterCharge,
    ColorCharge,
    CountedCharge,
    ItemCharge,
    LineCharge,
    PlacedCharge,
    SideCharge,
    SquareCharge,
    UploadCharge,
    WordCharge,
)
from yenzo.core.documents.entries import files_of
from yenzo.core.pricing.amounts import Amount
from yenzo.core.translation import decimal, translate, translate_plural


def counted_words(charge: CountedCharge, count: Decimal | int) -> str:
    """Return so many of what a charge counts: "1 character", "2.5 cm²"."""
    match charge:
        case CharacterCharge():
            return translate_plural("{count} character", "{count} characters", count)
        case WordCharge():
            return translate_plural("{count} word", "{count} words", count)
        case LineCharge():
            return translate_plural("{count} line", "{count} lines", count)
        case UploadCharge():
            return translate_plural("{count} file", "{count} files", count)
        case ItemCharge(of="text"):
            return translate_plural("{count} own text", "{count} own texts", count)
        case ItemCharge(of="picture"):
            return translate_plural("{count} picture", "{count} pictures", count)
        case ItemCharge(of="drawing"):
            return translate_plural("{count} drawing", "{count} drawings", count)
        case ItemCharge(of="code"):
            return translate_plural("{count} code", "{count} codes", count)
        case ItemCharge():
            return translate_plural("{count} item", "{count} items", count)
        case ColorCharge():
            return translate_plural("{count} color", "{count} colors", count)
        case SideCharge():
            return translate_plural("{count} side", "{count} sides", count)
        case PlacedCharge():
            return translate_plural("{count} item placed", "{count} items placed", count)
        case _:
            return translate("{number} cm²", number=decimal(count))


def rate_words(charge: CountedCharge, amount: str) -> str:
    """Return what one of what a charge counts costs: "£0.50 a character"."""
    match charge:
        case CharacterCharge():
            return translate("{amount} a character", amount=amount)
        case WordCharge():
            return translate("{amount} a word", amount=amount)
        case LineCharge():
            return translate("{amount} a line", amount=amount)
        case UploadCharge():
            return translate("{amount} a file", amount=amount)
        case ItemCharge(of="text"):
            return translate("{amount} a text", amount=amount)
        case ItemCharge(of="picture"):
            return translate("{amount} a picture", amount=amount)
        case ItemCharge(of="drawing"):
            return translate("{amount} a drawing", amount=amount)
        case ItemCharge(of="code"):
            return translate("{amount} a code", amount=amount)
        case ItemCharge():
            return translate("{amount} an item", amount=amount)
        case ColorCharge():
            return translate("{amount} a color", amount=amount)
        case SideCharge():
            return translate("{amount} a side", amount=amount)
        case PlacedCharge():
            return translate("{amount} an item placed", amount=amount)
        case _:
            return translate("{amount} a cm²", amount=amount)


def beyond_words(beyond: int) -> str:
    """Return what is free of charge, as it is said after what is counted; empty for nothing."""
    return " " + translate_plural("beyond the first one", "beyond the first {count}", beyond) if beyond else ""


def from_words(band: Band, of: str) -> str:
    """Return where a band begins: "from 10 pieces on"."""
    if of == "pieces":
        return translate_plural("from {count} piece on", "from {count} pieces on", band.begins)
    if of == "product_pieces":
        return translate_plural(
            "from {count} piece in the order on", "from {count} pieces in the order on", band.begins
        )
    number = decimal(band.begins)
    return (
        translate("from {number} cm² on", number=number)
        if of == "cm2"
        else translate("from {number} on", number=number)
    )


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
            return len(files_of(asked.values.get(charge.field or "")))
        case ItemCharge():
            items = own_items_of(asked.values.get(charge.field or ""))
            return sum(charge.of in ("any", item.kind) for item in items)
        case ColorCharge():
            return amount.colors
        case SideCharge():
            return amount.sides
        case PlacedCharge():
            return amount.placed
    raise TypeError(charge)
