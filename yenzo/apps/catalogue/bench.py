"""The bench: a set-up comes in; all its sides at one true scale on a ruler, with their imprint areas, go out."""

from dataclasses import dataclass

from yenzo.core.documents.setup import Area, Setup, Side

MARGIN_MM_SHARE = 0.04
TICK_STEPS_MM = (1, 2, 5, 10, 20, 50, 100, 200, 500, 1000)
MOST_TICKS = 24


@dataclass(frozen=True)
class Tick:
    """A mark of the ruler; the longer ones carry a number."""

    at_mm: float
    label: str
    number: int


@dataclass(frozen=True)
class BenchArea:
    """An imprint area with its crop ticks, in mm of its side."""

    area: Area
    is_selected: bool
    ticks: str
    handles: tuple[tuple[str, float, float], ...]


@dataclass(frozen=True)
class BenchSide:
    """A side on the bench; `left_mm` is where it stands on the ruler."""

    side: Side
    left_mm: float
    width_mm: float
    height_mm: float
    areas: tuple[BenchArea, ...]


@dataclass(frozen=True)
class Bench:
    """Everything drawn on the bench, in mm; `grain_mm` is a length that shows as a hairline."""

    sides: tuple[BenchSide, ...]
    width_mm: float
    height_mm: float
    top_mm: float
    grain_mm: float
    ticks: tuple[Tick, ...]
    unscaled: tuple[Side, ...]


def lay_out(setup: Setup, selected: str) -> Bench:
    """Return the sides that have a scale next to each other at one scale, and those that wait for one."""
    sized = [(side, size) for side in setup.sides if (size := side.size_mm())]
    total = sum(size[0] for _, size in sized)
    highest = max((size[1] for _, size in sized), default=1.0)
    # The pane is about twice as wide as high: what doesn't fill its width is as high as it.
    extent = max(total, highest * 2.2, 1.0)
    gap, grain = extent * MARGIN_MM_SHARE, extent / 900
    sides, left = [], 0.0
    for side, (width, height) in sized:
        areas = tuple(_area(side, area, selected, grain) for area in side.areas)
        sides.append(BenchSide(side, left, width, height, areas))
        left += width + gap
    width = max(left - gap, extent) + gap
    return Bench(
        sides=tuple(sides),
        width_mm=width,
        height_mm=highest + gap,
        top_mm=grain * 34,
        grain_mm=grain,
        ticks=_ticks(width),
        unscaled=tuple(side for side in setup.sides if side.scale is None),
    )


def _area(side: Side, area: Area, selected: str, grain: float) -> BenchArea:
    x, y, right, bottom = area.x_mm, area.y_mm, area.x_mm + area.width_mm, area.y_mm + area.height_mm
    gap, length = grain * 3, grain * 14
    ticks = "".join(
        f"M{cx + sx * gap:.3f} {cy:.3f}h{sx * length:.3f}M{cx:.3f} {cy + sy * gap:.3f}v{sy * length:.3f}"
        for cx, cy, sx, sy in ((x, y, -1, -1), (right, y, 1, -1), (right, bottom, 1, 1), (x, bottom, -1, 1))
    )
    handles = (("nw", x, y), ("ne", right, y), ("se", right, bottom), ("sw", x, bottom))
    return BenchArea(area, selected == f"{side.key}/{area.key}", ticks, handles)


def _ticks(width_mm: float) -> tuple[Tick, ...]:
    step = next((step for step in TICK_STEPS_MM if width_mm / step <= MOST_TICKS), TICK_STEPS_MM[-1])
    small = step / 5
    return tuple(
        Tick(number * small, f"{number * small:g}" if number % 5 == 0 else "", number)
        for number in range(int(width_mm / small) + 1)
    )
