"""How one product uses a kit: for whom, and what is otherwise there."""

from typing import Annotated

from pydantic import Field

from yenzo.core.documents.effects import ColorSource
from yenzo.core.documents.placements import TypefaceSource
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen, Key, Length, Text

Place = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9_-]{0,59}/[a-z0-9][a-z0-9_-]{0,59}$")]


class Override(Frozen):
    """What one product has otherwise than the kit: a line left out, or called, needed and landing differently.

    `areas` are "side/area" keys; None leaves it to the areas' names. What isn't said of a text is as for a new line.
    """

    field: Key
    left_out: bool = False
    label: Text = ""
    help: Text = ""
    required: bool | None = None
    areas: tuple[Place, ...] | None = None
    typeface: TypefaceSource | None = None
    color: ColorSource | None = None
    most_mm: Length | None = None


class KitUse(Frozen):
    """A kit as one product uses it: for which variants (all, if none is named) and customers, and what is
    otherwise here.
    """

    key: Key
    name: Text
    setup: Setup
    variants: tuple[Key, ...] = ()
    only_signed_in: bool = False
    overrides: tuple[Override, ...] = ()
