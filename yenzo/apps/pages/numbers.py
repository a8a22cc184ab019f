"""Whole numbers in what forms and addresses send: words come in; a number that tables can hold, or None, goes out."""

# What fits into a column of the database, and into a reader's patience.
MOST_DIGITS = 9


def whole_number(sent: str) -> int | None:
    """Return the whole number that is written in figures 0 to 9, spaces around them aside; None for anything else."""
    figures = sent.strip()
    return int(figures) if figures.isascii() and figures.isdecimal() and len(figures) <= MOST_DIGITS else None


def whole_numbers(sent: list[str]) -> list[int]:
    """Return those of what was sent that are whole numbers."""
    return [number for one in sent if (number := whole_number(one)) is not None]
