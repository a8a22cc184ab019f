"""Fonts: the bytes of a font file come in; outlines of glyphs and the height of its letters go out."""

import math
from collections.abc import Iterable
from functools import cached_property, lru_cache
from typing import Protocol

import numpy as np
import shapely
import uharfbuzz as hb
from shapely.geometry.base import BaseGeometry

from yenzo.core.caching import SizedCache
from yenzo.core.documents.assets import Assets
from yenzo.core.errors import ShapeError, TypefaceError
from yenzo.core.shapes.centerlines import is_single_line
from yenzo.core.shapes.flattening import covered_by
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.thickness import Thinnest, thinnest

# Letter height is the ink height of capital H; a script without capitals names the letter that stands for it.
# First those of faces that have several; then Cyrillic to Georgian, India, beyond it, Africa, and the others.
REFERENCE_LETTERS = "Hהا本अกНΗՀაকਕગକகకಕകකກཀကកꦲᬳᮊ𑄇ᱚሀⵀߊꕉ𞤀Ꭰܐހ𐴀ᠠꀀ한あ"
MOST_FONT_BYTES = 128_000_000
# Distances of pairs that one font remembers; a text has some dozen.
MOST_GAPS = 50_000
# Places of neighbours are told apart by a thousandth of the em.
GAP_STEPS = 1000


class GlyphPlace(Protocol):
    """A glyph and where it is on its base line, in em."""

    @property
    def glyph_id(self) -> int:
        """Its number in the font."""
        ...

    @property
    def x_em(self) -> float:
        """How far along the base line."""
        ...

    @property
    def y_em(self) -> float:
        """How far below the base line."""
        ...


# Neighbours that overlap in handwriting, and by how much at least.
CONNECTED_IN, LEAST_OVERLAP_EM = ("nm", "an", "in", "mo"), 0.01


class Font:
    """One font file, at a named instance if it is a variable one. Outlines are in em, y down, kept once drawn."""

    def __init__(self, data: bytes, name: str, instance: str = "") -> None:
        face = hb.Face(data)
        if face.glyph_count == 0 or face.upem == 0:
            raise TypefaceError("not_a_font", name, f"“{name}” is not a font file that can be used.")
        self.name = name
        self.hb_font = hb.Font(face)
        if instance:
            self.hb_font.var_named_instance = _instance_index(face, name, instance)
        self.units_per_em = face.upem
        self._outlines: dict[int, Outline] = {}
        self._thinnest: dict[int, Thinnest] = {}
        self._gaps: dict[tuple[int, int, int, int], float] = {}
        self._polygons: dict[int, BaseGeometry] = {}
        self.letter_height_em = self._measure_letter_height()
        self.is_single_line = is_single_line(self.outline(self.glyph_of("H")))

    @cached_property
    def is_connected(self) -> bool:
        """Whether its small letters run into each other, as those of handwriting do."""
        for first, second in map(tuple, CONNECTED_IN):
            one, other = self.glyph_of(first), self.glyph_of(second)
            here, there = self.outline(one).bounds, self.outline(other).bounds
            if not (one and other and here and there):
                return False
            if self.hb_font.get_glyph_h_advance(one) / self.units_per_em + there.left - here.right > -LEAST_OVERLAP_EM:
                return False
        return True

    def outline(self, glyph_id: int) -> Outline:
        """Return the outline of a glyph in em, y down."""
        kept = self._outlines.get(glyph_id)
        if kept is None:
            kept = self._outlines[glyph_id] = self._draw(glyph_id)
        return kept

    def thinnest(self, glyph_id: int) -> Thinnest:
        """Return the thinnest stroke and gap of a glyph in em, found once."""
        kept = self._thinnest.get(glyph_id)
        if kept is None:
            try:
                kept = thinnest(self.outline(glyph_id))
            except ShapeError:
                # A glyph of hundreds of crossings is an ornament; nobody knows its strokes.
                kept = Thinnest(math.inf, math.inf)
            self._thinnest[glyph_id] = kept
        return kept

    def gap_between(self, first: int, second: int, x_em: float, y_em: float) -> float:
        """Return how far in em two glyphs are apart, the second moved by (x, y); 0 when they touch."""
        key = (first, second, round(x_em * GAP_STEPS), round(y_em * GAP_STEPS))
        gap = self._gaps.get(key)
        if gap is None:
            moved = shapely.transform(self._polygon(second), lambda points: points + (x_em * 100, y_em * 100))
            gap = float(shapely.distance(self._polygon(first), moved)) / 100
            if len(self._gaps) >= MOST_GAPS:
                self._gaps = {}
            self._gaps[key] = gap
        return gap

    def covered(self, glyphs: Iterable["GlyphPlace"], place: Matrix) -> BaseGeometry:
        """Return what glyphs at their places in em cover under a map, in its units."""
        parts = []
        for glyph in glyphs:
            whole = Matrix(0.01, 0, 0, 0.01, glyph.x_em, glyph.y_em).then(place)
            linear, shift = np.array([[whole.a, whole.b], [whole.c, whole.d]]), (whole.e, whole.f)
            parts.append(shapely.transform(self._polygon(glyph.glyph_id), lambda at, m=linear, to=shift: at @ m + to))
        return shapely.GeometryCollection(parts) if len(parts) > 1 else parts[0]

    def _polygon(self, glyph_id: int) -> BaseGeometry:
        """Return what a glyph covers, in hundredths of the em."""
        if glyph_id not in self._polygons:
            outline = self.outline(glyph_id).mapped(Matrix(100, 0, 0, 100, 0, 0))
            self._polygons[glyph_id] = covered_by(outline) if outline else shapely.Polygon()
        return self._polygons[glyph_id]

    def glyph_of(self, char: str) -> int:
        """Return the glyph of one character by the font's character map; 0 when it has none."""
        return self.hb_font.get_nominal_glyph(ord(char)) or 0

    def _draw(self, glyph_id: int) -> Outline:
        pen = _Pen()
        self.hb_font.draw_glyph(glyph_id, _draw_functions(), pen)
        points = np.array(pen.points, dtype=np.float64).reshape(-1, 2) / self.units_per_em
        outline = Outline("".join(pen.verbs), points * (1.0, -1.0))
        _ = outline.bounds  # Found once: every text that has the glyph takes its box along.
        return outline

    def _measure_letter_height(self) -> float:
        for letter in REFERENCE_LETTERS:
            glyph = self.glyph_of(letter)
            bounds = self.outline(glyph).bounds if glyph else None
            if bounds:
                return bounds.height
        raise TypefaceError("no_letters", self.name, f"The font “{self.name}” has no letter to measure its height by.")


class _Pen:
    def __init__(self) -> None:
        self.verbs: list[str] = []
        self.points: list[float] = []

    def move(self, x: float, y: float) -> None:
        """Begin a contour at (x, y)."""
        self.verbs.append("M")
        self.points += (x, y)

    def line(self, x: float, y: float) -> None:
        """Draw a straight line to (x, y)."""
        self.verbs.append("L")
        self.points += (x, y)

    def quadratic(self, cx: float, cy: float, x: float, y: float) -> None:
        """Draw a quadratic curve to (x, y), as the cubic that is the same."""
        # A quadratic curve is exactly the cubic whose controls lie two thirds of the way to its one.
        x0, y0 = self.points[-2:]
        self.cubic(x0 + (cx - x0) * 2 / 3, y0 + (cy - y0) * 2 / 3, x + (cx - x) * 2 / 3, y + (cy - y) * 2 / 3, x, y)

    def cubic(self, c1x: float, c1y: float, c2x: float, c2y: float, x: float, y: float) -> None:
        """Draw a cubic curve to (x, y)."""
        self.verbs.append("C")
        self.points += (c1x, c1y, c2x, c2y, x, y)

    def close(self) -> None:
        """Close the contour."""
        self.verbs.append("Z")


@lru_cache(maxsize=1)
def _draw_functions() -> hb.DrawFuncs:
    functions = hb.DrawFuncs()
    functions.set_move_to_func(lambda x, y, pen: pen.move(x, y))
    functions.set_line_to_func(lambda x, y, pen: pen.line(x, y))
    functions.set_quadratic_to_func(lambda *numbers_and_pen: numbers_and_pen[-1].quadratic(*numbers_and_pen[:-1]))
    functions.set_cubic_to_func(lambda *numbers_and_pen: numbers_and_pen[-1].cubic(*numbers_and_pen[:-1]))
    functions.set_close_path_func(lambda pen: pen.close())
    return functions


def _instance_index(face: hb.Face, name: str, instance: str) -> int:
    names = [face.get_name(found.subfamily_name_id) for found in face.named_instances]
    if instance not in names:
        having = f"It has: {', '.join(names)}." if names else "It isn't a variable font."
        raise TypefaceError("no_instance", name, f"The font “{name}” has no instance “{instance}”. {having}")
    return names.index(instance)


_kept: SizedCache[Font] = SizedCache(MOST_FONT_BYTES)


def load_font(assets: Assets, sha256: str, name: str, instance: str = "") -> Font:
    """Return a font by its SHA-256 and instance, kept in the process (bounded by bytes); raises TypefaceError."""

    def make() -> tuple[Font, int]:
        """Read the font, and return it with how many bytes it had."""
        data = assets.read(sha256)
        return Font(data, name, instance), len(data)

    return _kept.get((sha256, instance), make)
