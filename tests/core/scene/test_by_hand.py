"""What hands may do, and where it ends: nothing that isn't free changes anything, nothing leaves its room."""

import json
import random
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import TYPEFACES, board, upload
from yenzo.core.asking.ask import ask
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.entries import Adjustment
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.preflight.checks.outside import TOLERANCE_MM
from yenzo.core.render.page import area_page
from yenzo.core.render.pdf import render_pdf
from yenzo.core.scene.by_hand import ConvexContainment, CoverContainment, OutlineContainment
from yenzo.core.shapes.polygons import leaves_by

DEMO = Path(__file__).resolve().parents[3] / "demo" / "products"
EVERYTHING = {
    "move": True,
    "turn_deg": 180,
    "scale": {"least": 0.2, "most": 6},
    "letters": {"least_mm": 5, "most_mm": 90},
    "typefaces": ["quayside", "log-book", "levant"],
    "palette": "finishes",
    "align": True,
    "order": True,
}
SHAPES = [
    {"kind": "rectangle"},
    {"kind": "rectangle", "corner_mm": 20},
    {"kind": "ellipse"},
    {"kind": "ring", "hole": 0.4, "spread_deg": 200},
    {"kind": "polygon", "points": [[0, 0], [1, 0.2], [0.9, 1], [0.1, 0.9]]},
    {"kind": "polygon", "points": [[0, 0], [1, 0], [1, 1], [0.5, 0.5], [0, 1]]},
]
forged = st.builds(
    dict,
    shift_mm=st.tuples(st.floats(-900, 900), st.floats(-900, 900)),
    turn_deg=st.floats(-360, 360),
    scale=st.floats(0.05, 20),
    letter_mm=st.none() | st.floats(0.5, 300),
    typeface=st.sampled_from([None, "levant", "quayside", "nobodys"]),
    color=st.sampled_from([None, "gold", "white", "nobodys"]),
    align=st.sampled_from([None, "left", "right", "justified"]),
    level=st.integers(-100, 100),
)


def free_board(name=None, photo=None, shape=None):
    document = board()
    document["placements"][0] |= {"free": name or {}, "least_mm": 5}
    document["placements"][1]["free"] = photo or {}
    if shape:
        document["sides"][0]["areas"][0]["shape"] = shape
    return document


def entries(**adjustments):
    values = {"name": "Otter", "with_photo": True}
    return {"schema": "yenzo-entries/1", "values": values, "uploads": {"photo": upload()}, "adjustments": adjustments}


def evaluated(document, sent, assets):
    return evaluate(read_setup(document), read_entries(sent), assets)


def node_of(one, key):
    return next(node for area in one.scene.areas for node in area.nodes if node.placement == key)


@given(forged, forged)
def test_forged_adjustments_of_what_is_not_free_change_nothing(assets, name, photo):
    plain = evaluated(board(), entries(), assets)
    sent = evaluated(board(), entries(name=name, photo=photo, elsewhere=name), assets)
    assert sent.asked == plain.asked
    assert [side.digest for side in sent.scene.sides] == [side.digest for side in plain.scene.sides]
    assert sent.quote == plain.quote


@pytest.mark.parametrize("product", sorted(one.name for one in DEMO.iterdir()))
def test_forged_adjustments_of_the_demos_goods_change_only_what_is_free(product):
    folder = DEMO / product
    setup, assets = (
        read_setup((folder / "setup.json").read_bytes()),
        FolderAssets([folder, folder / "assets", folder / "entries" / "assets", TYPEFACES]),
    )
    chance = random.Random(product)
    for file in sorted((folder / "entries").glob("*.json")):
        document = json.loads(file.read_bytes())
        plain = evaluate(setup, read_entries(document), assets)
        held = {one.key for one in setup.placements if not one.free}
        document["adjustments"] = {
            key: {
                "shift_mm": [chance.uniform(-90, 90), chance.uniform(-90, 90)],
                "turn_deg": chance.uniform(-360, 360),
                "scale": chance.uniform(0.1, 10),
                "letter_mm": chance.uniform(1, 100),
                "level": chance.randint(-9, 9),
            }
            for key in held
        }
        sent = evaluate(setup, read_entries(document), assets)
        assert sent.asked == plain.asked
        assert sent.quote == plain.quote
        for one, other in zip(sent.scene.areas, plain.scene.areas, strict=True):
            assert render_pdf(area_page(one), assets) == render_pdf(area_page(other), assets)


@pytest.mark.parametrize("shape", SHAPES)
@given(forged)
def test_a_text_that_is_free_never_leaves_its_area(assets, shape, name):
    one = evaluated(free_board(name=EVERYTHING, shape=shape), entries(name={**name, "typeface": None}), assets)
    node = node_of(one, "name")
    area = next(area for area in one.scene.areas if area.key == "panel")
    assert leaves_by(node.outline, area.safe_outline) <= TOLERANCE_MM


@given(forged)
def test_a_photo_that_covers_never_uncovers_its_area(assets, photo):
    one = evaluated(free_board(photo=EVERYTHING), entries(photo=photo), assets)
    node = node_of(one, "photo")
    area = next(area for area in one.scene.areas if area.key == "photo")
    matrix = np.array([[node.matrix.a, node.matrix.c], [node.matrix.b, node.matrix.d]])
    corners = np.array(area.bleed)[[[0, 1], [2, 1], [2, 3], [0, 3]]]
    unit = (corners - (node.matrix.e, node.matrix.f)) @ np.linalg.inv(matrix).T
    slack = TOLERANCE_MM / min(node.size_mm)
    assert unit.min() >= -slack
    assert unit.max() <= 1 + slack


def test_what_is_free_goes_where_it_was_put_and_says_so(assets):
    one = evaluated(
        free_board(name=EVERYTHING), entries(name={"shift_mm": [3, -4], "turn_deg": 5, "scale": 0.5}), assets
    )
    plain, node = node_of(evaluated(board(), entries(), assets), "name"), node_of(one, "name")
    assert node.letter_height_mm == pytest.approx(plain.letter_height_mm / 2)
    assert np.subtract(node.moved.matrix.apply(*node.moved.start.middle), node.moved.start.middle) == pytest.approx(
        [3, -4]
    )
    assert node.moved.stops == ()
    assert node.moved.adjustment == Adjustment(shift_mm=(3, -4), turn_deg=5, scale=0.5)


def test_bounds_hold_what_hands_want(assets):
    free = {"move": True, "turn_deg": 10, "scale": {"least": 0.5, "most": 1}}
    asked = ask(
        read_setup(free_board(name=free)),
        read_entries(entries(name={"turn_deg": 170, "scale": 0.1, "letter_mm": 9, "typeface": "levant", "level": 3})),
    )
    assert asked.adjustments["name"] == Adjustment(turn_deg=10, scale=0.5)


def test_a_locked_area_holds_all_that_is_in_it(assets):
    document = free_board(name=EVERYTHING)
    document["sides"][0]["areas"][0]["locked"] = True
    one = evaluated(document, entries(name={"shift_mm": [3, 0]}), assets)
    assert one.asked.adjustments == {}
    assert node_of(one, "name").moved is None


def test_a_text_gets_the_typeface_color_and_letters_that_hands_choose(assets):
    document = free_board(
        name={"letters": {"least_mm": 10, "most_mm": 60}, "typefaces": ["levant"], "palette": "finishes"}
    )
    sent = {"letter_mm": 20, "typeface": "levant", "color": "gold"}
    one = evaluated(document, entries(name=sent), assets)
    node = node_of(one, "name")
    assert node.letter_height_mm == pytest.approx(20)
    assert (node.typeface, node.paint.name) == ("levant", "Gold leaf")


def test_turning_a_text_that_fills_its_area_makes_it_smaller(assets):
    one = evaluated(free_board(name={"turn_deg": 90}), entries(name={"turn_deg": 90}), assets)
    plain, node = node_of(evaluated(board(), entries(), assets), "name"), node_of(one, "name")
    assert node.moved.adjustment.turn_deg < 90 or node.letter_height_mm < plain.letter_height_mm
    assert node.letter_height_mm >= node.least_mm - 1e-6
    assert node.moved.stops


def test_stacking_changes_what_lies_above(assets):
    document = free_board(name={"order": True})
    document["placements"][1]["area"] = "panel"
    plain = evaluated(document, entries(), assets)
    over = evaluated(document, entries(name={"level": 1}), assets)
    order = [[node.placement for node in area.nodes] for area in (next(plain.scene.areas), next(over.scene.areas))]
    assert order == [["name", "photo"], ["photo", "name"]]


def test_documents_without_freedoms_stay_as_they_were(assets):
    assert read_setup(board()).placement("name").free == read_setup(free_board()).placement("name").free
    assert not read_setup(board()).placement("name").free


@pytest.mark.parametrize(
    ("containment", "is_known"), [(ConvexContainment, True), (OutlineContainment, False), (CoverContainment, True)]
)
def test_rooms_tell_where_things_may_go_when_that_is_simple(containment, is_known):
    import shapely

    from yenzo.core.shapes.box import Box
    from yenzo.core.shapes.outline import Outline

    held = Box(0, 0, 10, 10) if containment is CoverContainment else shapely.box(0, 0, 10, 10)
    one = containment(Outline.rectangle(held) if containment is CoverContainment else held)
    size = 20 if containment is CoverContainment else 4
    points = np.array([[0, 0], [size, 0], [size, size], [0, size]], dtype=float)
    found = one.shifts(points)
    assert bool(found) is is_known
    x, y = one.nearest(points, (-100, -3))
    assert (x, y) == pytest.approx((-10, -3) if containment is CoverContainment else (0, 0), abs=0.02)
