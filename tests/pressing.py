"""Preflight against an outside truth: scenes that can't be made on purpose, all found, and scenes that can, all passed.

Truth is found on the plates as files have them, by taking off from (or adding to) all around what shapely can take
off: where a plate comes apart or grows together, a method of that limit can't make it.

`make fuzz` runs three hundred of each (`python -m tests.pressing 300 [first seed]`), the tests some.
"""

import math
import random
import sys
import tempfile
from pathlib import Path

import numpy as np
import shapely
from shapely.geometry.base import BaseGeometry

from tests.core.conftest import board, entries, typeface
from tests.fuzzing import shelf, show
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.plates import plates_of
from yenzo.core.shapes.polygons import polygon_of

WIDTH, HEIGHT = 180.0, 96.0
GOLD, RED = ({"palette": "finishes", "color": key} for key in ("gold", "red"))
FACES = ("quayside", "log-book", "bollard", "signal", "ledger", "haven", "saloon", "crate")
WORDS = ("Halyard", "Tern & Co", "MIMAMBAY", "Quay 14", "office", "Kittiwake", "ebb", "Sgoth", "Bay 88", "Wavelet")
# How far a limit stands from what is true: beyond what one may be off by (3 %), with what steps of curves take.
OVER, UNDER = 1.06, 0.8
# What opening a shape leaves behind of a corner that is no sharper than letters' are, in squares of the limit.
CORNER = 0.2
STEPS, FLATNESS_MM = 40, 0.002
# What faces have of tiny holes, and what comes off at the very end of a stroke, as a share of a large letter.
CRUMB, LETTER_MM2 = 2e-4, 1000.0
# Narrower ones are where shapes touch; wider limits are no limits of letters of this size.
LEAST_MM, MOST_MM = 0.05, 12.0


def layout(dice, *, second=False):
    """Where a text lies, by what it is laid along: two of them lie one above the other."""
    height = dice.uniform(10, 22)
    made = {"least_mm": height, "most_mm": height, "letter_spacing": dice.choice([0, 0, 4, 9, 20])}
    low = HEIGHT * (0.82 if second else 0.45)
    kind = dice.choice(["line", "block", "arc", "curve", "line"] if not second else ["line"])
    if kind == "line":
        return made | {"kind": "line", "base_line": {"x_mm": 8, "y_mm": low, "length_mm": WIDTH - 16}}
    if kind == "arc":
        radius = dice.uniform(38, 70)
        circle = {"x_mm": WIDTH / 2, "y_mm": low + radius * 0.6, "radius_mm": radius, "spread_deg": 150}
        return made | {"kind": "arc", **circle}
    if kind == "curve":
        points = [[10, low], [60, low - dice.uniform(0, 30)], [110, low + dice.uniform(0, 30)], [170, low]]
        return made | {"kind": "curve", "points": points}
    return made | {"kind": "block", "line_spacing": dice.uniform(1.25, 1.9)}


def face(dice):
    """A typeface with the spacing that it needs for its letters not to touch: where they do, they are meant to."""
    name = dice.choice(FACES)
    return {"typeface": {"fixed": name}, **({"letter_spacing": 12} if name == "saloon" else {})}


def effects(dice, *, one_color):
    """A line, a shadow or a plate; in one color none that nobody could tell from the letters."""
    which = dice.choice(["none", "none", "stroke", "plate", "knock-out", "shadow"])
    if which == "knock-out":
        plate = {"margin_mm": dice.uniform(0.4, 4), "corner_mm": dice.uniform(0, 3), "color": GOLD, "knock_out": True}
        return {"plate": plate}
    if which == "none" or one_color:
        return {}
    if which == "plate":
        return {"plate": {"margin_mm": dice.uniform(0.4, 4), "corner_mm": dice.uniform(0, 3), "color": RED}}
    if which == "shadow":
        return {"shadow": {"across_mm": dice.uniform(0.6, 3), "down_mm": dice.uniform(0.6, 3), "color": RED}}
    return {"stroke": {"width_mm": dice.uniform(0.4, 2.5), "color": RED, "place": dice.choice(["outside", "centered"])}}


def document(dice):
    """A board with one or two texts in an area, made in one color or in plates of one color each."""
    made = board()
    made["materials"]["palettes"]["finishes"]["colors"].append({"key": "red", "name": "Red", "screen": "#b03030"})
    made["sides"][0]["areas"][0] |= {"width_mm": WIDTH, "height_mm": HEIGHT, "safe_mm": 0, "bleed_mm": 0}
    one_color = dice.random() < 0.5
    method = made["materials"]["methods"]["carving"]
    method |= {"least_letter_mm": 1, "one_color": one_color, "separations": not one_color, "gradients": False}
    has_two = dice.random() < 0.5
    style = face(dice) | {"color": GOLD}
    first = {key: value for key, value in made["placements"][0].items() if key not in ("least_mm", "most_mm")}
    made["materials"]["typefaces"] = {name: typeface(name) for name in FACES}
    made["fields"] = [
        {"key": "name", "kind": "paragraph", "label": "Name"},
        {"key": "more", "kind": "line", "label": "More"},
    ]
    made["charges"], made["placements"] = [], [first]
    for text in [first] if not has_two else [first, first.copy()]:
        is_second = text is not first
        text |= layout(dice, second=is_second) | style | {"effects": effects(dice, one_color=one_color)}
        if is_second:
            text |= {"key": "more", "field": "more", "color": dice.choice([GOLD, RED]) if not one_color else GOLD}
            made["placements"].append(text)
    return made


def evaluated(made, words, assets):
    """Evaluate a board with its words; return what becomes of it, its area and the method of that."""
    setup = read_setup(made)
    found = evaluate(setup, entries(words), assets)
    area = next(found.scene.areas)
    return found, area, setup.materials.methods[area.method]


def plates(area, method):
    """Return what each plate of an area covers, as its files have it."""
    pages = plates_of(area, method)
    single = [plate for plate in pages if plate.name] or pages
    nodes = [[node for placed in plate.page.areas for node in placed.scene.letterings] for plate in single]
    covered = [shapely.union_all([polygon_of(layer.outline) for node in one for layer in node.layers]) for one in nodes]
    return [one.simplify(FLATNESS_MM) for one in covered if not one.is_empty]


def falls_apart_at(polygon):
    """How wide the narrowest neck of a polygon is: each part is eroded step by step, and the last step halved."""
    found = math.inf
    for part in map(_without_tiny_holes, shapely.get_parts(polygon)):
        most = min(2 * shapely.maximum_inscribed_circle(part).length * 1.02, found, 2 * MOST_MM)
        whole, before = _shape(part, 0)[1], 0.0
        for share in np.linspace(1 / STEPS, 1, STEPS):
            if _shape(part, share * most) != (1, whole):
                apart = share * most
                for _ in range(8):
                    middle = (before + apart) / 2
                    before, apart = (middle, apart) if _shape(part, middle) == (1, whole) else (before, middle)
                found = min(found, apart)
                break
            before = share * most
    return found


def _without_tiny_holes(part):
    crumb = CRUMB * min(part.area, LETTER_MM2)
    return shapely.Polygon(part.exterior, [ring for ring in part.interiors if shapely.Polygon(ring).area > crumb])


def _shape(part, width):
    """How many parts are left of a part that is taken off from all around, and holes in them, but for crumbs."""
    crumb = CRUMB * min(part.area, LETTER_MM2)
    parts = [one for one in shapely.get_parts(part.buffer(-width / 2)) if one.area > crumb]
    return len(parts), sum(len(one.interiors) for one in parts)


def around(polygon):
    """What a plate leaves free on its sheet."""
    left, top, right, bottom = polygon.bounds
    sheet: BaseGeometry = shapely.box(left - WIDTH, top - HEIGHT, right + WIDTH, bottom + HEIGHT)
    return sheet.difference(polygon)


def bears(polygon, width):
    """Whether all of a polygon is this wide, but for its corners: opened by it, it stays as it is."""
    opened = polygon.buffer(-width / 2, quad_segs=8).buffer(width / 2 * 1.01, quad_segs=8)
    left = shapely.get_parts(polygon.difference(opened))
    return _shape(polygon, width) == _shape(polygon, 0) and all(part.area < CORNER * width**2 for part in left)


def widest_borne(polygon):
    """Return a width that all of a polygon has; none to speak of where parts of it touch."""
    width = UNDER * min(falls_apart_at(polygon), MOST_MM)
    while width > LEAST_MM and not bears(polygon, width):
        width *= 0.75
    return width


def words(dice):
    first = dice.choice(WORDS)
    return {"name": first if dice.random() < 0.7 else f"{first}\n{dice.choice(WORDS)}", "more": dice.choice(WORDS)}


def unmakeable(seed, assets):
    """Return what is found of a scene that can't be made, and what must be; None if these dice give none."""
    dice = random.Random(seed)
    made, said, kind = document(dice), words(dice), dice.choice(["stroke", "stroke", "gap", "gap", "overlap"])
    method = made["materials"]["methods"]["carving"]
    if kind == "overlap":
        if len(made["placements"]) < 2:
            return None
        made["placements"][1]["base_line"]["y_mm"] = HEIGHT * dice.uniform(0.4, 0.5)
        _, area, _ = evaluated(made, said, assets)
        one, two = (shapely.union_all([polygon_of(layer.outline) for layer in node.layers]) for node in area.letterings)
        if one.intersection(two).area < 0.5:
            return None
        return codes(evaluated(made, said, assets)[0]), "overlapping"
    found, area, plain = evaluated(made, said, assets)
    if codes(found):
        return None
    covered = plates(area, plain)
    truth = min(falls_apart_at(one if kind == "stroke" else around(one)) for one in covered)
    if not LEAST_MM < truth < MOST_MM:
        return None
    method["least_stroke_mm" if kind == "stroke" else "least_gap_mm"] = truth * OVER
    return codes(evaluated(made, said, assets)[0]), "too_thin" if kind == "stroke" else "too_narrow"


def makeable(seed, assets):
    """Return what is found of a scene that can be made: nothing must be; None if these dice give none."""
    dice = random.Random(seed)
    made, said = document(dice), words(dice)
    found, area, plain = evaluated(made, said, assets)
    if codes(found):
        return None
    covered = plates(area, plain)
    stroke, gap = min(map(widest_borne, covered)), min(widest_borne(around(one)) for one in covered)
    if min(stroke, gap) < LEAST_MM:
        return None
    made["materials"]["methods"]["carving"] |= {"least_stroke_mm": stroke, "least_gap_mm": gap}
    return codes(evaluated(made, said, assets)[0])


def codes(found):
    return {finding.code for finding in found.verdict.blocking}


def check(count, first, assets):
    """Yield in words what is wrong: unmakeable scenes that pass, makeable ones that don't, of so many of each."""
    seed, bad, good = first, 0, 0
    while bad < count or good < count:
        if bad < count and (told := unmakeable(seed, assets)) is not None:
            bad += 1
            if told[1] not in told[0]:
                yield f"Seed {seed} can't be made ({told[1]}), and passes: {sorted(told[0])}."
        if good < count and (told := makeable(seed, assets)) is not None:
            good += 1
            if told:
                yield f"Seed {seed} can be made, and is refused: {sorted(told)}."
        seed += 1


def main(arguments):
    """Check many; print each that is wrong, and how many are. Exit 1 if any is."""
    count, first = int(arguments[0]), int(arguments[1]) if len(arguments) > 1 else 0
    wrong = 0
    with tempfile.TemporaryDirectory() as folder:
        for told in check(count, first, shelf(Path(folder))):
            wrong += 1
            show(told)
    show(f"{count} scenes that can't be made, {count} that can: {wrong} told wrong.")
    return 1 if wrong else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
