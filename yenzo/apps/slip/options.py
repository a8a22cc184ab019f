"""One possibility of a choice, of an axis or among variants, as the order slip shows it."""

from dataclasses import dataclass
from decimal import Decimal


@dataclass(frozen=True)
class SlipOption:
    """What is shown of it: its name, whether it is chosen, what it adds to the price, and how it looks."""

    key: str
    label: str
    is_chosen: bool
    amount: Decimal | None = None
    swatch: str | None = None
    typeface: str | None = None
    typeface_px: int = 0
    picture: str | None = None
    moves_others: bool = False
