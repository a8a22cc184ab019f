"""What stays where it lies is the very same with each evaluation, and what was worked out of it stands; what changes is not."""

import pytest

from tests.core.conftest import upload
from tests.core.scene.test_own_items import own_board, sent, text
from yenzo.core.asking.second_look.interface import Looked
from yenzo.core.asking.second_look.look import doubts
from yenzo.core.caching import cached_on
from yenzo.core.documents.reading import read_entries, read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.render.page import area_page, side_page
from yenzo.core.render.svg import ink_for_hands
from yenzo.core.scene.description import describe_side
from yenzo.core.shapes.outline import Outline
from yenzo.core.translation import override_language


@pytest.fixture
def setup():
    """A board whose panel and photo both take own items; no letters are large enough for it."""
    document = own_board()
    document["placements"].append({**document["placements"][0], "key": "beside", "area": "photo"})
    document["materials"]["methods"]["carving"]["least_letter_mm"] = 30
    return read_setup(document)


def scene_of(setup, assets, *items, **others):
    return evaluate(setup, read_entries(sent(*items, **others)), assets)


def areas_of(one):
    return {area.key: area for area in one.scene.areas}


def on_panel(**others):
    return {**text("Salt & Rye", place="own", x_mm=200, y_mm=40, letter_mm=10), **others}


def beside(**others):
    return text("Rye", place="beside", x_mm=40, y_mm=30, letter_mm=10, **others)


def test_area_in_which_nothing_changed_is_the_very_one_that_was_there(setup, assets):
    before = areas_of(scene_of(setup, assets, on_panel(), beside()))
    moved = areas_of(scene_of(setup, assets, on_panel(x_mm=220), beside()))
    assert moved["photo"] is before["photo"]
    assert moved["panel"] is not before["panel"]
    assert moved["panel"].nodes[0].bounds.left == pytest.approx(before["panel"].nodes[0].bounds.left + 20)
    assert areas_of(scene_of(setup, assets, on_panel(), beside()))["panel"] is before["panel"]
    emptied = areas_of(scene_of(setup, assets, on_panel()))
    assert not emptied["photo"].nodes


def test_area_of_another_set_up_is_another_though_it_says_the_same(setup, assets):
    before = areas_of(scene_of(setup, assets, on_panel(), beside()))
    document = own_board()
    document["sides"][0]["areas"][1]["name"] = "Lid"
    document["placements"].append({**document["placements"][0], "key": "beside", "area": "photo"})
    now = areas_of(scene_of(read_setup(document), assets, on_panel(), beside()))
    assert (now["photo"].name, before["photo"].name) == ("Lid", "Photo")


def test_digest_of_a_side_is_that_of_what_shows_whatever_was_there_before(setup, assets):
    first, other = (scene_of(setup, assets, on_panel(x_mm=x), beside()) for x in (200, 220))
    again = scene_of(setup, assets, on_panel(), beside())
    assert first.scene.sides[0].digest == again.scene.sides[0].digest != other.scene.sides[0].digest


def test_what_is_found_and_described_is_said_to_each_reader_in_their_language(setup, assets):
    def said():
        one = scene_of(setup, assets, on_panel(), beside())
        [*messages] = (item.message for item in one.verdict.blocking)
        return describe_side(one.scene.sides[0]), messages

    english = said()
    assert "mm high" in english[0]
    assert len(english[1]) == 2
    with override_language("de"):
        german = said()
    assert "mm hoch" in german[0]
    assert all(ours != theirs for ours, theirs in zip(german[1], english[1], strict=True))
    assert said() == english


@pytest.mark.parametrize(
    "changed",
    [
        {"text": "Silt"},
        {"letter_mm": 12},
        {"typeface": "levant"},
        {"color": "black"},
        {"layout": "wrapped", "width_mm": 20},
        {"layout": "round"},
        {"layout": "round", "radius_mm": 70},
    ],
)
def test_text_that_is_made_otherwise_is_laid_out_anew_and_as_it_was_when_it_is_changed_back(setup, assets, changed):
    def lies(**others):
        [node] = areas_of(scene_of(setup, assets, on_panel(**others)))["panel"].nodes
        return node

    before = lies()
    assert lies(**changed).canonical != before.canonical
    assert lies(turn_deg=10).canonical != before.canonical
    assert lies() is before


def test_method_that_can_do_more_finds_less_in_the_same_area(setup, assets):
    assert {item.code for item in scene_of(setup, assets, on_panel()).verdict.blocking} == {"too_small"}
    methods = {key: one.model_copy(update={"least_letter_mm": 5}) for key, one in setup.materials.methods.items()}
    finer = setup.model_copy(update={"materials": setup.materials.model_copy(update={"methods": methods})})
    # The very areas of the set-up before.
    assert finer.sides[0].areas[0] is setup.sides[0].areas[0]
    assert not scene_of(finer, assets, on_panel()).verdict.blocking


def test_a_doubt_is_put_to_each_reader_in_their_language():
    looked = Looked("Anna , Bert", "Anna , Bert", "en")
    [english] = doubts(looked)
    with override_language("de"):
        [german] = doubts(looked)
    assert german.code == english.code
    assert german.message != english.message
    assert doubts(looked) == (english,)


def test_ink_that_is_kept_is_that_of_its_place_and_of_its_readers_addresses(setup, assets):
    photo = upload()
    items = (on_panel(), {"kind": "picture", "file": photo["prepared"], "place": "beside", "x_mm": 40, "y_mm": 30})
    one = scene_of(setup, assets, *items, uploads={"own": [photo]})
    side, panel = side_page(one.scene.sides[0], with_goods=False), area_page(areas_of(one)["panel"])
    first = ink_for_hands(side, "/one/{}".format)
    assert ink_for_hands(side, "/one/{}".format) == first
    elsewhere = ink_for_hands(side, "/two/{}".format)
    assert elsewhere.movable[0] == first.movable[0]
    assert elsewhere.movable[1] == first.movable[1].replace("/one/", "/two/") != first.movable[1]
    [alone] = ink_for_hands(panel, str).movable
    assert alone != first.movable[0]
    assert ink_for_hands(side, "/one/{}".format) == first


def test_what_hangs_on_a_thing_is_made_anew_for_something_else_only():
    made = []
    thing = Outline.empty()

    def make(what):
        return lambda: made.append(what) or what.upper()

    assert [cached_on(thing, "name", what, make(what)) for what in ("a", "a", "b", "b", "a")] == [
        "A",
        "A",
        "B",
        "B",
        "A",
    ]
    assert made == ["a", "b", "a"]
    assert cached_on(Outline.empty(), "name", "a", make("c")) == "C"
