"""The bench: a set-up comes in; all its sides at one true scale on a ruler, with their imprint areas, go out."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from django.urls import reverse

from yenzo.core.documents.areas import Area
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.marks import Mark, area_marks, lies_on_surface, text_marks, whole_mark
from yenzo.core.documents.setup import Setup, Side
from yenzo.core.evaluation import evaluate, sample_entries
from yenzo.core.render.page import side_page
from yenzo.core.render.svg import ink_markup, path_data
from yenzo.core.scene.nodes import Lettering, SideScene
from yenzo.core.shapes.areas import trim_outline
from yenzo.core.shapes.bending import bend
from yenzo.core.shapes.outline import Outline
from yenzo.core.shapes.surfaces import surface_warp

MARGIN_MM_SHARE = 0.04
TICK_STEPS_MM = (1, 2, 5, 10, 20, 50, 100, 200, 500, 1000)
MOST_TICKS = 24
RULER_GRAINS = 36
MARGIN_GRAINS = 18
GRID_PARTS = 8


@dataclass(frozen=True)
class Tick:
    """A mark of the ruler; the longer ones carry a number."""

    at_mm: float
    label: str
    number: int


@dataclass(frozen=True)
class BenchMark:
    """A point to take by the hand, in mm of its side before the area is turned; `text` is whose line it is."""

    mark: Mark
    x: float
    y: float
    text: str = ""
    label: str = ""


@dataclass(frozen=True)
class BenchArea:
    """An imprint area with its crop ticks, in mm of its side.

    `outline` is the path of a shape that doesn't show as its whole frame, in micrometres; `turn` turns the frame.
    `holds` are the letters of texts that can be taken by them: the mark that goes along, and their path.
    """

    area: Area
    is_selected: bool
    ticks: str
    outline: str
    turn: str
    handles: tuple[tuple[str, float, float], ...]
    marks: tuple[BenchMark, ...] = ()
    grid: str = ""
    holds: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class BenchSide:
    """A side on the bench, with sample entries on and below the goods; `left_mm` is where it stands on the ruler."""

    side: Side
    left_mm: float
    width_mm: float
    height_mm: float
    areas: tuple[BenchArea, ...]
    ink: str
    below: str


@dataclass(frozen=True)
class Bench:
    """Everything drawn on the bench, in mm; `grain_mm` is a length that shows as a hairline.

    The sides' tops lie at y = 0, the ruler above them; drawn sizes are multiples of the grain, so that they look the
    same at every scale.
    """

    sides: tuple[BenchSide, ...]
    width_mm: float
    height_mm: float
    grain_mm: float
    ticks: tuple[Tick, ...]
    unscaled: tuple[Side, ...]

    @property
    def view_left_mm(self) -> float:
        """Where the drawing begins: there is room for a tick or a handle beside the goods."""
        return -MARGIN_GRAINS * self.grain_mm

    @property
    def view_width_mm(self) -> float:
        """How wide the drawing is, margins included."""
        return self.width_mm - 2 * self.view_left_mm

    @property
    def view_top_mm(self) -> float:
        """Where the drawing begins: above the ruler."""
        return -RULER_GRAINS * self.grain_mm

    @property
    def view_height_mm(self) -> float:
        """How high the drawing is, ruler included."""
        return self.height_mm - self.view_top_mm

    @property
    def ruler_path(self) -> str:
        """The ruler's marks as one path."""
        foot, grain = -4 * self.grain_mm, self.grain_mm
        lines = (f"M{t.at_mm:.3f} {foot:.3f}v{-grain * (12 if t.label else 6):.3f}" for t in self.ticks)
        return f"M0 {foot:.3f}H{self.width_mm:.3f}" + "".join(lines)

    @property
    def label_y_mm(self) -> float:
        """Base line of the ruler's numbers."""
        return -20 * self.grain_mm

    @property
    def label_size_mm(self) -> float:
        """Size of the ruler's numbers."""
        return 13 * self.grain_mm

    @property
    def line_mm(self) -> float:
        """Width of a crop tick."""
        return 1.6 * self.grain_mm

    @property
    def halo_mm(self) -> float:
        """Width of the paper-colored halo that keeps crop ticks visible on any goods."""
        return 4.5 * self.grain_mm

    @property
    def handle_mm(self) -> float:
        """Edge of a handle."""
        return 11 * self.grain_mm

    @property
    def half_handle_mm(self) -> float:
        """Half the edge of a handle."""
        return self.handle_mm / 2


def lay_out(setup: Setup, selected: str, assets: Assets) -> Bench:
    """Return the sides that have a scale next to each other at one scale, and those that wait for one."""
    sized = [(side, size) for side in setup.sides if (size := side.size_mm())]
    total = sum(size[0] for _, size in sized)
    highest = max((size[1] for _, size in sized), default=1.0)
    # The pane is about twice as wide as high: what doesn't fill its width is as high as it.
    extent = max(total, highest * 2.2, 1.0)
    gap, grain = extent * MARGIN_MM_SHARE, extent / 900
    sides, left = [], 0.0
    shown = {side.key: side for side in evaluate(setup, sample_entries(setup), assets).scene.sides}
    for side, (width, height) in sized:
        scene = shown.get(side.key)
        areas = tuple(_area(setup, side, area, selected, grain, scene) for area in side.areas)
        ink, below = _ink(scene, under=False), _ink(scene, under=True)
        sides.append(BenchSide(side, left, width, height, areas, ink, below))
        left += width + gap
    width = max(left - gap, extent) + gap
    return Bench(
        sides=tuple(sides),
        width_mm=width,
        height_mm=highest + gap,
        grain_mm=grain,
        ticks=_ticks(width),
        unscaled=tuple(side for side in setup.sides if side.scale is None),
    )


def _ink(side: SideScene | None, *, under: bool) -> str:
    """Return what lands on a side, or under it, seen through its windows."""
    return ink_markup(side_page(side, with_goods=False, under=under), _address) if side else ""


def _address(asset: str) -> str:
    return reverse("designs:goods_picture", args=[asset])


def _marks(setup: Setup, side: Side, area: Area) -> Iterator[BenchMark]:
    """Yield what can be taken by the hand of an area and of the texts that land in it."""
    for mark in area_marks(area):
        yield BenchMark(mark, *_shown(area, mark))
    for placement in setup.placements:
        if (placement.side, placement.area) == (side.key, area.key):
            field = setup.field(placement.field)
            for mark in text_marks(placement):
                yield BenchMark(mark, *_shown(area, mark), placement.key, field.label if field else "")


def _shown(area: Area, mark: Mark) -> tuple[float, float]:
    """Return where a mark shows, in mm of the side before the area is turned."""
    warp = surface_warp(area) if lies_on_surface(mark.name) else None
    x, y = (mark.x_mm, mark.y_mm) if warp is None else warp.map(np.array([[mark.x_mm, mark.y_mm]]))[0].tolist()
    return area.x_mm + x, area.y_mm + y


def _grid(area: Area) -> str:
    """Return lines across an area as its surface shows them; empty for a flat one."""
    warp = surface_warp(area)
    if warp is None:
        return ""
    shares = [step / GRID_PARTS for step in range(GRID_PARTS + 1)]
    wide, high = area.width_mm, area.height_mm
    ends = [((share * wide, 0.0), (share * wide, high)) for share in shares]
    ends += [((0.0, share * high), (wide, share * high)) for share in shares]
    lines = Outline("ML" * len(ends), np.array(ends, dtype=np.float64).reshape(-1, 2))
    return path_data(bend(lines, warp).shifted(area.x_mm, area.y_mm))


def _holds(setup: Setup, scene: SideScene | None, area: Area) -> Iterator[tuple[str, str]]:
    """Yield the letters of texts that have a place of their own, each with the mark that takes all of it along."""
    placed = [one for one in side_page(scene, with_goods=False).areas if one.scene.key == area.key] if scene else []
    for one in placed:
        for node in one.scene.nodes:
            placement = setup.placement(node.placement) if isinstance(node, Lettering) else None
            mark = whole_mark(placement) if placement else None
            if mark and isinstance(node, Lettering):
                yield f"mark-{node.placement}-{mark}", path_data(one.shown(node.outline))


def _area(setup: Setup, side: Side, area: Area, selected: str, grain: float, scene: SideScene | None) -> BenchArea:
    x, y, right, bottom = area.x_mm, area.y_mm, area.x_mm + area.width_mm, area.y_mm + area.height_mm
    gap, length = grain * 3, grain * 14
    ticks = "".join(
        f"M{cx + sx * gap:.3f} {cy:.3f}h{sx * length:.3f}M{cx:.3f} {cy + sy * gap:.3f}v{sy * length:.3f}"
        for cx, cy, sx, sy in ((x, y, -1, -1), (right, y, 1, -1), (right, bottom, 1, 1), (x, bottom, -1, 1))
    )
    handles = (("nw", x, y), ("ne", right, y), ("se", right, bottom), ("sw", x, bottom))
    warp, shape = surface_warp(area), trim_outline(area)
    shown = bend(shape, warp) if warp else shape
    outline = "" if area.is_frame and warp is None else path_data(shown.shifted(x, y))
    middle = f"{x + area.width_mm / 2:.3f} {y + area.height_mm / 2:.3f}"
    turn = f"rotate({area.turn_deg:g} {middle})" if area.turn_deg else ""
    is_selected = selected == f"{side.key}/{area.key}"
    marks = tuple(_marks(setup, side, area)) if is_selected else ()
    grid, holds = (_grid(area), tuple(_holds(setup, scene, area))) if is_selected else ("", ())
    return BenchArea(area, is_selected, ticks, outline, turn, handles, marks, grid, holds)


def _ticks(width_mm: float) -> tuple[Tick, ...]:
    step = next((step for step in TICK_STEPS_MM if width_mm / step <= MOST_TICKS), TICK_STEPS_MM[-1])
    small = step / 5
    return tuple(
        Tick(number * small, f"{number * small:g}" if number % 5 == 0 else "", number)
        for number in range(int(width_mm / small) + 1)
    )
