"""What a text is set by, and what comes of it."""

from dataclasses import dataclass, field
from typing import Literal

from yenzo.core.shapes.outline import Outline

Align = Literal["left", "center", "right", "justified"]
Vertical = Literal["top", "middle", "bottom", "capitals"]


@dataclass(frozen=True)
class TextStyle:
    """How letters are set, whatever they are laid along. Spacing is added between letters, in em.

    Up and down they are aligned by their ink, or by the middle of `capitals`, whatever the text has.

    `in_typed_order` leaves runs of mixed directions in the order in which they were typed: so orders were set that were
    placed before that was mended. `old_setting` bends all letters along their line, draws those together that are set
    apart, sets each bracket in the script before it, and leaves a tool's line out of the height of single lines: so
    orders were set until the end of November 2026.
    """

    least_mm: float
    most_mm: float
    align: Align = "center"
    vertical: Vertical = "middle"
    language: str = "en"
    spacing_em: float = 0.0
    features: tuple[str, ...] = ()
    in_typed_order: bool = False
    old_setting: bool = False


@dataclass(frozen=True)
class BlockStyle(TextStyle):
    """How a block is set. Line spacing goes from base line to base line, in letter heights.

    Where the least letter height doesn't fit, spacing may shrink to its least values before ink sticks out.
    """

    line_spacing: float = 1.7
    least_line_spacing: float | None = None
    least_spacing_em: float | None = None


@dataclass(frozen=True)
class Laid:
    """A text that is set: its outline in mm, the letter height used, and what went wrong.

    `missing` are characters that the font lacks, `overflow_mm` is how much longer the text is than its base line,
    `breaks_joins` says that letters which join were set apart, `is_tangled` that letters run into each other, and
    `line_near_edge` that the text stands out of its area though its base line is long enough for it. `is_bent` says
    that its base line is no straight one, and `has_bent_letters` that some of its letters were bent along.
    """

    outline: Outline
    letter_height_mm: float
    missing: tuple[str, ...] = ()
    lines: tuple[str, ...] = field(default=())
    overflow_mm: float = 0.0
    breaks_joins: bool = False
    is_tangled: bool = False
    line_near_edge: bool = False
    is_bent: bool = False
    has_bent_letters: bool = False
