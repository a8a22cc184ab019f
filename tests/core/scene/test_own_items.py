"""Own items go the same way: they are kept within what is offered, lie where they were put, and can be read back."""

import io
import json
from collections import Counter

import numpy as np
import pytest
import zxingcpp
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from tests.core.conftest import board, upload
from yenzo.core.asking.gestures import Hands, after, dump_hands, read_gestures, read_hands
from yenzo.core.documents.faults import missing_materials
from yenzo.core.documents.reading import dump_document, read_entries, read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate
from yenzo.core.preflight.checks.outside import TOLERANCE_MM
from yenzo.core.render.files import render_file
from yenzo.core.render.page import area_page

TEXTS = {
    "letters": {"least_mm": 4, "most_mm": 60},
    "typefaces": ["quayside", "levant"],
    "palette": "finishes",
    "most": 4,
}
LINK = "https://salt-and-rye.example/a"


def own_board(**field):
    """A board that customers may compose freely on a large white panel."""
    document = board()
    document["fields"] = [
        {
            "key": "own",
            "kind": "own_items",
            "label": "On the board",
            "texts": TEXTS,
            "pictures": {"kinds": ["jpeg"]},
            "codes": {"palette": "finishes"},
            **field,
        }
    ]
    document["placements"] = [{"key": "own", "kind": "own_items", "field": "own", "side": "front", "area": "panel"}]
    document["charges"] = [
        {"key": "each", "kind": "per_item", "field": "own", "amount": "1.50", "beyond": 1},
        {"key": "codes", "kind": "per_item", "field": "own", "amount": "4.00", "of": "code"},
    ]
    document["materials"]["methods"]["carving"]["least_letter_mm"] = 4
    document["materials"]["palettes"]["finishes"]["colors"].append(
        {"key": "black", "name": "Black", "screen": "#101010"}
    )
    return document


def sent(*items, **others):
    rows = [{"key": f"i{number}", **item} for number, item in enumerate(items, 1)]
    return {"schema": "yenzo-entries/1", "values": {}, "items": {"own": rows}, **others}


def evaluated(document, entries, assets):
    return evaluate(read_setup(document), read_entries(entries), assets)


def panel_of(one):
    return next(area for area in one.scene.areas if area.key == "panel")


def text(words="Salt & Rye", **others):
    return {"kind": "text", "text": words, **others}


def code(words=LINK, **others):
    return {"kind": "code", "text": words, "color": "black", **others}


items = st.lists(
    st.one_of(
        st.builds(
            text,
            st.text("ABC def", min_size=1, max_size=30),
            x_mm=st.floats(-900, 900),
            y_mm=st.floats(-900, 900),
            turn_deg=st.floats(-360, 360),
            letter_mm=st.floats(0.1, 900),
            layout=st.sampled_from(["straight", "wrapped", "arched", "round"]),
            typeface=st.sampled_from([None, "levant", "nobodys"]),
            color=st.sampled_from([None, "gold", "nobodys"]),
            place=st.sampled_from([None, "own", "nowhere"]),
        ),
        st.builds(code, x_mm=st.floats(-900, 900), width_mm=st.floats(1, 900), turn_deg=st.floats(-360, 360)),
    ),
    max_size=5,
)


@given(items)
def test_items_lie_inside_their_area_in_what_is_offered_whatever_is_sent(assets, wanted):
    one = evaluated(own_board(), sent(*wanted), assets)
    area = panel_of(one)
    for node in area.nodes:
        assert node.bounds.excess_over(area.safe) <= TOLERANCE_MM + 0.005
        assert getattr(node, "typeface", "levant") in {"quayside", "levant"}
        assert node.paint.name in {"Gold leaf", "White", "Black"}


def test_what_is_not_offered_is_left_out(assets):
    document = own_board(codes=None, pictures=None)
    drawing = {"kind": "drawing", "collection": "elsewhere", "drawing": "crab"}
    one = evaluated(document, sent(text(), code(), drawing, {"kind": "picture", "file": "0" * 64}), assets)
    assert [item.kind for item in one.asked.values["own"]] == ["text"]


def test_a_picture_is_only_of_files_that_were_sent_for_the_field(assets):
    file = upload()
    item = {"kind": "picture", "file": file["prepared"], "made": {**file, "name": "forged.jpg"}}
    assert panel_of(evaluated(own_board(), sent(item), assets)).nodes == ()
    one = evaluated(own_board(), sent(item, uploads={"own": file}), assets)
    [node] = panel_of(one).nodes
    assert node.name == "otter.jpg"


def test_items_are_charged_by_item_and_by_kind(assets):
    one = evaluated(own_board(), sent(text(), text("Two", y_mm=20), code()), assets)
    assert str(one.quote.total) == "93.00"


@pytest.mark.parametrize(
    ("entries", "words"),
    [
        (sent(*[text(str(number)) for number in range(5)]), "takes 4 of these: texts"),
        (sent(text("W" * 61)), "is too long: 60 characters fit"),
        (sent(code("")), "still empty"),
    ],
)
def test_what_is_wrong_is_said_of_the_item(assets, entries, words):
    one = evaluated(own_board(), entries, assets)
    assert any(words in item.message for item in one.verdict.blocking)


def test_more_items_than_there_is_room_for_are_said_and_cost_no_time(assets):
    one = evaluated(own_board(most=2), sent(*[text(str(number)) for number in range(50)]), assets)
    assert any("has room for 2 items; 3 are there" in item.message for item in one.verdict.blocking)
    assert len(panel_of(one).nodes) == 3
    with pytest.raises(DocumentError):
        read_entries(sent(*[text() for _ in range(101)]))


def test_an_area_takes_no_more_items_than_its_seller_said(assets):
    document = own_board()
    document["sides"][0]["areas"][0]["most_items"] = 1
    one = evaluated(document, sent(text(), code()), assets)
    assert "“Panel” has room for one item; 2 are there" in one.verdict.blocking[0].message


def read_code(data):
    picture = Image.open(io.BytesIO(data)).convert("RGBA")
    ground = Image.new("RGBA", picture.size, "white")
    return [
        found.text for found in zxingcpp.read_barcodes(np.array(Image.alpha_composite(ground, picture).convert("L")))
    ]


@pytest.mark.parametrize("turn", [0, 17, 90])
@pytest.mark.parametrize("words", [LINK, "مرحبا بكم", "x" * 120])
def test_the_produced_file_of_a_code_can_be_read(assets, words, turn):
    one = evaluated(own_board(), sent(code(words, width_mm=60, turn_deg=turn)), assets)
    assert not one.verdict.blocked
    data = render_file(area_page(panel_of(one)), assets, "png", dpi=200)
    assert read_code(data) == [words]


def test_a_code_that_no_telephone_could_read_is_refused_in_words(assets):
    small = evaluated(own_board(), sent(code(LINK * 3, width_mm=12)), assets)
    assert "could not be read at this size" in small.verdict.blocking[0].message
    pale = evaluated(own_board(), sent({**code(), "color": "gold", "width_mm": 60}), assets)
    assert [item.code for item in pale.verdict.blocking] == ["pale_code"]


def test_a_finer_method_makes_a_code_that_survives_more(assets):
    levels = []
    for least in (0.5, 1.6):
        document = own_board()
        document["materials"]["methods"]["carving"]["least_stroke_mm"] = least
        [node] = panel_of(evaluated(document, sent(code(width_mm=60)), assets)).nodes
        levels.append(node.code.level)
    assert levels == ["h", "q"]


def test_an_item_that_nobody_placed_finds_room_beside_the_others(assets):
    one = evaluated(own_board(), sent(text(letter_mm=15), text("Second", letter_mm=15)), assets)
    first, second = (node.bounds for node in panel_of(one).nodes)
    assert first.within(second).height == 0


def test_round_text_has_as_large_a_circle_as_it_needs(assets):
    one = evaluated(
        own_board(), sent(text("low tide, high spirits, ", layout="round", letter_mm=5, radius_mm=2)), assets
    )
    [node] = panel_of(one).nodes
    assert node.overflow_mm == 0
    assert node.moved.item.radius_mm > 8


def test_hands_add_move_double_order_and_take_off(assets):
    steps = [
        {"do": "add", "field": "own", "item": {"kind": "text", "text": "one", "x_mm": 100, "y_mm": 50}},
        {"do": "add", "field": "own", "item": {"kind": "code", "text": LINK}},
        {"do": "copy", "item": "own--i1"},
        {"do": "move", "item": "own--i1", "shift_mm": [5, 6], "turn_deg": 350},
        {"do": "put", "item": "own--i3", "locked": True},
        {"do": "move", "item": "own--i3", "shift_mm": [50, 60]},
        {"do": "level", "item": "own--i1", "by": 2},
        {"do": "remove", "item": "own--i2"},
    ]
    hands = after(Hands(), read_gestures(json.dumps(steps)))
    copy, first = hands.items["own"]
    assert (copy.key, copy.x_mm, copy.y_mm, copy.locked) == ("i3", 106, 56, True)
    assert (first.key, first.x_mm, first.y_mm, first.turn_deg) == ("i1", 105, 56, -10)
    assert read_hands(dump_hands(hands)) == hands


def test_what_came_to_lie_stays_when_it_is_asked_again(assets):
    wanted = sent(text(x_mm=900, y_mm=-50, turn_deg=40, letter_mm=60), code(width_mm=500, x_mm=3))
    one = evaluated(own_board(), wanted, assets)
    settled = [node.moved.item.model_dump(mode="json", exclude_none=True) for node in panel_of(one).nodes]
    again = evaluated(own_board(), {**wanted, "items": {"own": settled}}, assets)
    for before, now in zip(panel_of(one).nodes, panel_of(again).nodes, strict=True):
        assert now.bounds == pytest.approx(before.bounds, abs=0.01)


@pytest.mark.parametrize(
    "own",
    [
        # Each larger than there is room, or turned, so that it is made smaller by a share that no number says exactly.
        text("Far too long for the place that there is on the board", letter_mm=61),
        text("Salt & Rye", letter_mm=77, turn_deg=31),
        text("Round and round the harbor", layout="round", letter_mm=13, x_mm=3, y_mm=3),
        code(width_mm=300, turn_deg=17),
    ],
)
def test_what_is_told_where_it_came_to_lie_shows_the_very_same(assets, own):
    first = evaluated(own_board(), sent(own), assets)
    (node,) = panel_of(first).nodes
    again = evaluated(own_board(), sent(node.moved.item.model_dump(mode="json", exclude_none=True)), assets)
    (other,) = panel_of(again).nodes
    assert other.moved.item == node.moved.item
    assert again.scene.sides[0].digest == first.scene.sides[0].digest


def test_items_stay_what_they_are_when_an_order_freezes_them(assets):
    one = evaluated(own_board(), sent(text(), code(), uploads={}), assets)
    frozen = type(one.asked).model_validate_json(one.asked.model_dump_json())
    assert frozen == one.asked
    assert Counter(type(item).__name__ for item in frozen.values["own"]) == {"OwnText": 1, "OwnCode": 1}
    assert dump_document(read_setup(own_board()))["fields"][0]["kind"] == "own_items"


def test_nothing_can_be_put_into_an_area_that_is_locked(assets):
    document = own_board()
    document["sides"][0]["areas"][0]["locked"] = True
    assert evaluated(document, sent(text()), assets).asked.values["own"] == ()


def test_own_items_cannot_be_held_fast_by_halves():
    document = own_board()
    document["placements"][0]["free"] = {"move": True}
    with pytest.raises(DocumentError, match="lock the area instead"):
        read_setup(document)


def test_a_gesture_that_cannot_be_done_takes_no_other_along():
    name = f"{'f' * 60}--i1"
    steps = [
        {"do": "move", "item": "name", "scale": 0},
        {"do": "remove", "item": name},
        7,
        {"do": "again", "item": "name"},
    ]
    assert [gesture.do for gesture in read_gestures(json.dumps(steps))] == ["remove", "again"]
    assert read_gestures('{"do": "again"}') == ()


EFFECTS = {
    "stroke": {"width_mm": 1, "color": {"palette": "finishes", "color": "white"}},
    "shadow": {"across_mm": 2, "down_mm": 1, "color": {"palette": "finishes", "color": "black"}},
}


def layers_of(own, assets):
    document = own_board(texts={**TEXTS, "effects": EFFECTS})
    one = evaluated(document, sent(text(letter_mm=20, x_mm=200, y_mm=60, typeface="quayside", **own)), assets)
    [node] = panel_of(one).nodes
    return one, node


@pytest.mark.parametrize("own", [{}, {"effects": ["shadow"]}, {"effects": ["stroke", "shadow"], "turn_deg": 30}])
def test_own_text_has_the_effects_that_are_picked_where_it_lies(assets, own):
    one, node = layers_of(own, assets)
    kinds = [layer.role for layer in node.layers]
    assert kinds == [name for name in ("shadow", "stroke", "ink") if name == "ink" or name in own.get("effects", [])]
    ink = np.array(node.outline.bounds.middle)
    for layer in node.layers:
        moved = np.array(layer.outline.bounds.middle) - ink
        turn = np.radians(own.get("turn_deg", 0))
        shift = np.array([2 * np.cos(turn) - np.sin(turn), 2 * np.sin(turn) + np.cos(turn)])
        assert moved == pytest.approx(shift if layer.role == "shadow" else [0, 0], abs=0.1)
    assert b"%PDF" in render_file(area_page(panel_of(one)), assets, "pdf", dpi=200)[:20]


def test_effect_that_is_not_offered_is_left_out(assets):
    _, node = layers_of({"effects": ["plate", "fill", "stroke"]}, assets)
    assert [layer.role for layer in node.layers] == ["stroke", "ink"]


def test_effects_of_own_texts_have_colors_of_a_palette_that_is_there(assets):
    field = {"width_mm": 1, "color": {"field": "finish"}}
    with pytest.raises(DocumentError):
        read_setup(own_board(texts={**TEXTS, "effects": {"stroke": field}}))
    gone = {"width_mm": 1, "color": {"palette": "finishes", "color": "brass"}}
    [said] = missing_materials(read_setup(own_board(texts={**TEXTS, "effects": {"stroke": gone}})))
    assert "finishes / brass" in said


def test_a_file_made_anew_takes_the_place_of_the_one_it_was_made_from():
    known = Hands(items={"own": read_entries(sent({"kind": "picture", "file": "a" * 64}, text())).items["own"]})
    put = {"do": "put", "item": "own--i1", "file": "b" * 64, "effects": ["stroke"]}
    on_text = {"do": "put", "item": "own--i2", "file": "b" * 64, "effects": ["stroke"]}
    picture, words = after(known, read_gestures(json.dumps([put, on_text]))).items["own"]
    assert picture.file == "b" * 64
    assert not hasattr(words, "file")
    assert words.effects == ("stroke",)
