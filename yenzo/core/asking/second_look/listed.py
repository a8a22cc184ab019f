"""The same name twice in a list: what each row says comes in; the rows that say what an earlier one says go out."""

from collections.abc import Iterable

from yenzo.core.asking.second_look.interface import Doubt
from yenzo.core.translation import translate

CODE = "twice_in_list"


def twice_in_list(rows: Iterable[tuple[int, tuple[str, ...]]]) -> dict[int, Doubt]:
    """Return a doubt, by number of row, for each that has the same cells as an earlier one. Empty rows are no names."""
    first: dict[tuple[str, ...], int] = {}
    found: dict[int, Doubt] = {}
    for number, cells in rows:
        said = tuple(cell.casefold() for cell in cells)
        if not any(said):
            continue
        if said in first:
            message = translate("This row says the same as row {number}. Is it wanted twice?", number=first[said])
            found[number] = Doubt(CODE, message)
        else:
            first[said] = number
    return found
