"""What other apps say of things that all products share: how each kind is read and put back."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Keeper:
    """How one kind of thing is read and put back, as JSON values; None for what isn't there.

    What is read stays locked until the transaction ends: sales and other people change some of it too.
    """

    read: Callable[[str], Any]
    write: Callable[[str, Any], None]


# By kind of thing. What is taken back goes through these.
KEEPERS: dict[str, Keeper] = {}


def keep_history(kind: str, keeper: Keeper) -> None:
    """Say how a kind of thing is read and put back."""
    KEEPERS[kind] = keeper
