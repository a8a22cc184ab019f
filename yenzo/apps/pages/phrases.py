"""Small phrases of the workshop's pages: numbers with their nouns, words as lists."""

from decimal import Decimal


def joined(words: list[str], last: str = "and") -> str:
    """Return words as a list in a sentence."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} {last} {words[-1]}"


def counted(number: int, one: str, many: str | None = None) -> str:
    """Return a number with its noun."""
    return f"{number} {one if number == 1 else many or one + 's'}"


def plain_decimal(number: Decimal | None) -> str:
    """Return a number without zeros at its end; empty for none."""
    if number is None:
        return ""
    written = f"{number:f}"
    return written.rstrip("0").rstrip(".") if "." in written else written
