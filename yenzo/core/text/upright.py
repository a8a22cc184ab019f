"""Letters along a bend: a line of text comes in; its pieces, each set upright or bent as a whole, go out along a path.

Engravers set each letter upright to the curve, whole: bent, its stems would be thinner on one end than on the other.
Only what joins is bent as one, or it would be torn. Where a path turns towards the tops of the letters these come
together, so that there their distance is kept at the tops, and their feet stand further apart.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import groupby, islice, pairwise

import numpy as np
import numpy.typing as npt
from shapely.geometry.base import BaseGeometry

from yenzo.core.shapes.bending import bend
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline, Points, contours_of
from yenzo.core.shapes.paths import AlongPath, Path
from yenzo.core.text.fonts import Font
from yenzo.core.text.shaping import Glyph, shape_line
from yenzo.core.text.styles import TextStyle
from yenzo.core.text.thin import TOUCHING_EM

# A path is looked at in so many places to tell how it turns.
PLACES = 401
# Letters that lean to each other may meet where their reach times the angle comes near their gap, by this factor.
CAREFUL, LEAST_REACH_EM = 2.0, 0.1
# Letters that lean more than this to each other, in radians, are too few on their bend to be set apart.
MOST_LEAN = 1.0
# Round letters reach a little below the base line; what hangs there reaches further.
ROUND_EM = 0.05


@dataclass(frozen=True, eq=False)
class Piece:
    """What stays together: its glyphs and their outline in em on the straight base line, and whether it is bent.

    What isn't bent is turned as it is.
    """

    glyphs: tuple[Glyph, ...]
    outline: Outline
    is_bent: bool

    @property
    def middle_em(self) -> float:
        """Where the middle of its ink is on the base line."""
        ink = self.outline.bounds
        return ink.middle[0] if ink else 0.0


@dataclass(frozen=True, eq=False)
class Pieces:
    """A line in pieces from left to right, those with ink; `gaps_em` is how far neighbours are apart when straight.

    `missing` are characters that the font lacks.
    """

    font: Font
    pieces: tuple[Piece, ...]
    gaps_em: tuple[float, ...]
    missing: tuple[str, ...]

    @cached_property
    def flat(self) -> Outline:
        """All of it on the straight base line, in em."""
        return Outline.joined(piece.outline for piece in self.pieces)

    @cached_property
    def owners(self) -> npt.NDArray[np.intp]:
        """For each of its points the number of the piece that it belongs to."""
        return np.repeat(np.arange(len(self.pieces)), [len(piece.outline.points) for piece in self.pieces])

    @property
    def ink(self) -> Box | None:
        """The box of all ink on the straight base line, in em."""
        return self.flat.bounds

    @cached_property
    def widest_em(self) -> float:
        """How wide the widest is that is turned as it is: its corners stand off a bend the most."""
        widths = [box.width for piece in self.pieces if not piece.is_bent and (box := piece.outline.bounds)]
        return max(widths, default=0.0)

    @property
    def leaning_em(self) -> float:
        """How far above the base line distances are kept where a path turns towards the tops: 0 for what is bent."""
        return 0.0 if all(piece.is_bent for piece in self.pieces) else self.font.letter_height_em


def pieces_of(font: Font, text: str, style: TextStyle) -> Pieces:
    """Return the pieces of a line of text: letters with their marks one by one, what joins in one."""
    # A text that is made as large as it fits is set at many sizes.
    return _pieces(font, text, replace(style, least_mm=1, most_mm=1))


@lru_cache(maxsize=500)
def _pieces(font: Font, text: str, style: TextStyle) -> Pieces:
    line = shape_line(font, text, style)
    clusters = [tuple(glyphs) for _, glyphs in groupby(line.glyphs, lambda glyph: glyph.cluster)]
    inked = [kept for cluster in clusters if (kept := tuple(one for one in cluster if _has_ink(font, one)))]
    is_connected = style.old_setting or _is_connected([_gap(font, first, second) for first, second in pairwise(inked)])
    together = [
        (is_bent, tuple(glyph for cluster in group for glyph in cluster))
        for is_bent, group in _together(inked, is_connected=is_connected)
    ]
    pieces = tuple(Piece(glyphs, _drawn(font, glyphs), is_bent) for is_bent, glyphs in together)
    gaps = tuple(_gap(font, first.glyphs, second.glyphs) for first, second in pairwise(pieces))
    return Pieces(font, pieces, gaps, line.missing)


def _together(
    clusters: list[tuple[Glyph, ...]], *, is_connected: bool
) -> Iterator[tuple[bool, list[tuple[Glyph, ...]]]]:
    """Yield clusters that are bent together, and each other one by itself."""
    for is_bent, group in groupby(clusters, lambda cluster: is_connected or cluster[0].joins):
        if is_bent:
            yield True, list(group)
        else:
            yield from ((False, [cluster]) for cluster in group)


def _is_connected(gaps_em: list[float]) -> bool:
    """Tell whether a typeface is written in one, as handwriting is: most of its letters touch their neighbours."""
    return len(gaps_em) > 1 and 2 * sum(gap <= TOUCHING_EM for gap in gaps_em) > len(gaps_em)


def _has_ink(font: Font, glyph: Glyph) -> bool:
    return bool(glyph.glyph_id and font.outline(glyph.glyph_id))


def _gap(font: Font, before: Sequence[Glyph], after: Sequence[Glyph]) -> float:
    """Return how far two clusters are apart; of long ones those glyphs tell that are next to each other."""
    return min(
        font.gap_between(first.glyph_id, second.glyph_id, second.x_em - first.x_em, second.y_em - first.y_em)
        for first in before[-3:]
        for second in after[:3]
    )


def _drawn(font: Font, glyphs: Sequence[Glyph]) -> Outline:
    return Outline.placed([(font.outline(one.glyph_id), one.x_em, one.y_em) for one in glyphs])


@dataclass(frozen=True)
class Measured:
    """A path by the length that letters have on it: at their tops where it turns towards these, else on the base line.

    `tops_mm` is how far above the base line tops are.
    """

    path: Path
    tops_mm: float

    @cached_property
    def _grid(self) -> tuple[Points, Points]:
        """Lengths along the base line, and how long it is for letters up to there."""
        on = np.linspace(0, self.path.length_mm, PLACES)
        _, _, curvatures = self.path.at(on)
        steps = np.clip(1 + curvatures * self.tops_mm, 0.05, 1.0)
        lengths = np.concatenate([[0.0], np.cumsum((steps[1:] + steps[:-1]) / 2 * np.diff(on))])
        return on, lengths

    @property
    def length_mm(self) -> float:
        """How long it is for letters."""
        return float(self._grid[1][-1])

    def on_base(self, lengths: Points) -> Points:
        """Return how far along the base line lengths for letters are; the path goes on straight at both ends."""
        on, measured = self._grid
        beyond = np.minimum(lengths, 0) + np.maximum(lengths - measured[-1], 0)
        along: Points = np.interp(lengths, measured, on) + beyond
        return along


def turning(path: Path) -> float:
    """Return by how much a path turns towards the tops of letters in all, in radians."""
    on = np.linspace(0, path.length_mm, PLACES)
    towards = np.maximum(0.0, -path.at(on)[2])
    return float(np.sum((towards[1:] + towards[:-1]) / 2 * np.diff(on)))


def apart_em(pieces: Pieces, em_mm: float, start_mm: float, measured: Measured) -> Points:
    """Return by how many em each piece but the first stands further from the one before it than when straight.

    What two neighbours both have below the base line comes together where a path turns away from the tops: it is given
    back.
    """
    middles = np.array([piece.middle_em for piece in pieces.pieces]) * em_mm + start_mm
    leans = np.diff(_angles(measured.path.at(measured.on_base(middles))[1]))
    below = np.array([box.bottom if (box := piece.outline.bounds) else 0.0 for piece in pieces.pieces])
    upright = np.array([not piece.is_bent for piece in pieces.pieces])
    shared = np.minimum(below[1:], below[:-1])
    both = np.where(upright[1:] & upright[:-1] & (shared > ROUND_EM), shared, 0.0)
    further: Points = np.clip(leans, 0.0, MOST_LEAN) * both
    return further


def set_pieces(
    pieces: Pieces, em_mm: float, start_mm: float, further_em: Points, measured: Measured, tolerance_mm: float
) -> tuple[Outline, bool]:
    """Return the line along a path, the first em at a length on it, and whether letters run into each other.

    `further_em` is what stands between pieces besides; `tolerance_mm` is how far what is bent may be off.
    """
    middles_em = np.array([piece.middle_em for piece in pieces.pieces])
    middles = (middles_em + np.concatenate([[0.0], np.cumsum(further_em)])) * em_mm + start_mm
    on = measured.on_base(middles)
    points, directions, _ = measured.path.at(on)
    owners = pieces.owners
    x, y = pieces.flat.points[:, 0] - middles_em[owners], pieces.flat.points[:, 1]
    along, down = (em_mm * directions[owners]).T
    turned = points[owners] + np.stack([x * along - y * down, x * down + y * along], axis=1)
    placed = Outline(pieces.flat.verbs, turned)
    if any(piece.is_bent for piece in pieces.pieces):
        placed = _with_bent(pieces, placed, em_mm, on, measured, tolerance_mm)
    leans = np.diff(_angles(directions))
    return placed, _run_together(pieces, leans, em_mm, points, directions)


def _with_bent(
    pieces: Pieces, turned: Outline, em_mm: float, on: Points, measured: Measured, tolerance_mm: float
) -> Outline:
    """Return the line with those pieces bent that are to be, in the place of their turned ones."""
    contours, parts = contours_of(turned), []
    for piece, at in zip(pieces.pieces, on, strict=True):
        own = list(islice(contours, piece.outline.verbs.count("M")))
        if piece.is_bent:
            flat = piece.outline.mapped(Matrix(em_mm, 0, 0, em_mm, at - piece.middle_em * em_mm, 0))
            own = [bend(flat, AlongPath(measured.path), tolerance_mm)]
        parts += own
    return Outline.joined(parts)


def _angles(directions: Points) -> Points:
    angles: Points = np.unwrap(np.arctan2(directions[:, 1], directions[:, 0]))
    return angles


def _run_together(pieces: Pieces, leans: Points, em_mm: float, points: Points, directions: Points) -> bool:
    """Tell whether letters overlap along a bend that don't on a straight line; `leans` are angles between them."""

    def covered(at: int) -> BaseGeometry:
        """Return what a piece covers where it stands."""
        (x, y), (along, down), piece = points[at], directions[at], pieces.pieces[at]
        turned = Matrix(along * em_mm, down * em_mm, -down * em_mm, along * em_mm, x, y)
        return pieces.font.covered(piece.glyphs, Matrix.shift(-piece.middle_em, 0).then(turned))

    for index, (first, second) in enumerate(pairwise(pieces.pieces)):
        gap, lean = pieces.gaps_em[index], float(leans[index])
        one, other = first.outline.bounds, second.outline.bounds
        if first.is_bent or second.is_bent or gap <= TOUCHING_EM or one is None or other is None:
            continue
        # Turned apart, feet come together below the base line; turned towards each other, tops above their height.
        reach = max(one.bottom, other.bottom) if lean > 0 else -min(one.top, other.top) - pieces.leaning_em
        if abs(lean) * max(reach, LEAST_REACH_EM) * CAREFUL < gap:
            continue
        if covered(index).intersects(covered(index + 1)):
            return True
    return False
