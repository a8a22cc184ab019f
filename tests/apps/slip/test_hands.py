"""What hands did on a slip: gestures come in with the form, the truth goes out, and it is kept with the piece."""

import html
import json
import re

import pytest
from django.test import Client

from tests.core.conftest import board
from tests.core.scene.test_own_items import TEXTS, own_board
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.to_core import asked_of
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup

FREE = {"move": True, "turn_deg": 20, "letters": {"least_mm": 20, "most_mm": 40}, "palette": "finishes"}


@pytest.fixture
def movable(owner, product):
    """The board, whose name may be moved, turned, sized and colored."""
    document = {name: value for name, value in board().items() if name != "materials"}
    document["placements"][0]["free"] = FREE
    document["placements"][0]["least_mm"] = 20
    made = import_product(owner, document, key="movable")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    made.refresh_from_db()
    return made


def sent(*gestures, hands=None, **others):
    return {
        "entry-name": "OTTER",
        "hands": json.dumps(hands or {}),
        "gestures": json.dumps(gestures),
        "gestures-to": str(len(gestures)),
        "selected-item": "name",
        **others,
    }


def told_in(answer):
    [told] = re.findall(r"""name="hands" value='([^']*)'""", answer)
    return json.loads(html.unescape(told))


def hands_in(answer):
    return told_in(answer).get("adjustments", {})


def refreshed(key, form):
    answer = Client().post(f"/goods/{key}/preview/", form)
    assert answer.status_code == 200
    return answer.content.decode()


def test_a_gesture_changes_what_is_free_and_says_which_gestures_it_knows(movable):
    shift = {"do": "move", "item": "name", "shift_mm": [12, -3], "turn_deg": 2}
    put = {"do": "put", "item": "name", "letter_mm": 24, "color": "white"}
    answer = refreshed("movable", sent(shift, put))
    [told] = hands_in(answer).values()
    assert told == {"shift_mm": [12, -3], "turn_deg": 2, "letter_mm": pytest.approx(24), "color": "white"}
    assert 'data-gestures-done="2"' in answer
    assert 'data-strip="name"' in answer


def test_what_a_hand_wanted_ends_at_the_edge_and_is_said(movable):
    answer = refreshed(
        "movable",
        sent({"do": "move", "item": "name", "shift_mm": [9000, 0]}, {"do": "put", "item": "name", "letter_mm": 20}),
    )
    assert hands_in(answer)["name"]["shift_mm"][0] < 300
    assert "It stops at the edge of “Panel”." in answer


@pytest.mark.parametrize(
    ("gestures", "left"),
    [
        ([{"do": "again", "item": "name"}], {}),
        ([{"do": "restore", "hands": {"adjustments": {"name": {"shift_mm": [1, 1]}}}}], {"name": {"shift_mm": [1, 1]}}),
        ([{"do": "move", "item": "name", "shift_mm": [1, 1]}], {"name": {"shift_mm": [6, 1], "letter_mm": 20}}),
    ],
)
def test_gestures_go_on_from_what_was_known(movable, gestures, left):
    hands = {"adjustments": {"name": {"shift_mm": [5, 0], "letter_mm": 20}}}
    found = hands_in(refreshed("movable", sent(*gestures, hands=hands)))
    if "name" in found and "letter_mm" in found["name"]:
        found["name"]["letter_mm"] = pytest.approx(found["name"]["letter_mm"])
    assert found == left or gestures[0]["do"] == "restore"


@pytest.mark.parametrize(
    "garbage", ["{", "[]", '{"adjustments": 3}', "null", '{"adjustments": {"name": {"scale": 1e999}}}']
)
def test_hands_that_cannot_be_read_are_none(movable, garbage):
    form = sent() | {"hands": garbage, "gestures": garbage, "gestures-to": garbage}
    assert hands_in(refreshed("movable", form)) == {}


def test_quotes_and_signs_in_own_texts_come_back_as_they_were_sent(owner, product):
    letters = {**TEXTS, "letters": {"least_mm": 30, "most_mm": 60}}
    document = {name: value for name, value in own_board(texts=letters).items() if name != "materials"}
    made = import_product(owner, document, key="own")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    words = """O'Brien's "Ol' <b>" &amp; 5"""
    item = {"key": "i1", "kind": "text", "text": words, "letter_mm": 30}
    answer = refreshed("own", sent() | {"hands": json.dumps({"items": {"own": [item]}})})
    [came] = told_in(answer)["items"]["own"]
    assert came["text"] == words
    assert "<b>" not in answer


def swapped(answer):
    """Return the places of the goods and of the hands that an answer replaces."""
    targets = re.findall(r'data-part="([^"]+)"', answer)
    return {one for one in targets if one.startswith(("ink-", "under-", "hold-", "hands", "strip"))}


def test_answer_replaces_only_what_the_hand_moved(movable):
    first = refreshed("movable", sent())
    assert {"ink-front", "hands"} <= swapped(first)
    [shown] = re.findall(r'name="shown" value="([^"]+)"', first)
    assert swapped(refreshed("movable", sent(shown=shown))) == set()
    moved = refreshed("movable", sent({"do": "move", "item": "name", "shift_mm": [4, 0]}, shown=shown))
    assert swapped(moved) == {"ink-front-0", "hold-name", "strip"}
    other_words = refreshed("movable", {**sent(shown=shown), "entry-name": "WHELK"})
    assert swapped(other_words) == {"ink-front-0", "hold-name", "strip"}


def test_boxes_of_the_strip_are_filled_while_it_stays_and_come_with_it_otherwise(movable):
    def move(x_mm, before, **changed):
        seen = {key: told for key, _, told in re.findall(r"""name="(shown|asked|hands)" value=(["'])(.*?)\2""", before)}
        gesture = {"do": "move", "item": "name", "shift_mm": [x_mm, 0]}
        return refreshed("movable", {**sent(gesture), **{k: html.unescape(v) for k, v in seen.items()}, **changed})

    first = move(4, refreshed("movable", sent()))
    [left] = re.findall(r'id="strip-name-left"[^>]* value="([^"]+)"', first)
    second = move(3, first)
    assert swapped(second) == {"ink-front-0", "hold-name", "strip-name-left"}
    assert f'data-part="strip-name-left" value="{float(left) + 3:g}"' in second
    # An answer that htmx takes as a whole fills no boxes.
    other = move(3, first, asked="")
    assert swapped(other) == {"ink-front-0", "hold-name", "strip"}


def test_what_is_replaced_alone_is_what_the_whole_would_show(movable):
    gesture = {"do": "move", "item": "name", "shift_mm": [4, 0]}
    [shown] = re.findall(r'name="shown" value="([^"]+)"', refreshed("movable", sent()))
    alone = re.search(
        r'data-part="ink-front-0">(.*?)</svg>', refreshed("movable", sent(gesture, shown=shown)), re.DOTALL
    )[1]
    assert f'<g id="ink-front-0">{alone}</g>' in refreshed("movable", sent(gesture))


def test_what_lies_on_a_bent_surface_is_framed_as_it_shows(owner, movable):
    assert "data-edge" not in refreshed("movable", sent())
    document = {**movable.draft, "offer": {**movable.draft["offer"], "name": "Bent"}}
    document["sides"][0]["areas"][0]["surface"] = {"kind": "cylinder", "span_deg": 150}
    bent = import_product(owner, document, key="bent")
    publish_setup(owner, bent.pk, seen_version=bent.draft_version)
    [edge] = re.findall(r'data-edge="([^"]+)"', refreshed("bent", sent()))
    points = [tuple(map(float, pair.split(","))) for pair in edge.split()]
    steps = [points[at + 1][0] - points[at][0] for at in range(8)]
    # Nearer to the middle of a round more of it shows.
    assert steps[3] > steps[0] > 0
    assert len(points) == 32


def test_what_is_not_free_stays_whatever_is_sent(product):
    plain = refreshed("board", sent())
    forged = sent(
        {"do": "move", "item": "name", "shift_mm": [30, 0], "scale": 3},
        hands={"adjustments": {"photo": {"turn_deg": 9}}},
    )
    told = refreshed("board", forged)
    assert re.findall(r"data-scene=\"([^\"]+)\"", told) == re.findall(r"data-scene=\"([^\"]+)\"", plain)
    assert "data-item" not in told
    assert product


def test_hands_are_kept_with_the_piece_and_when_it_is_changed(movable, visitor, browser_of):
    client = browser_of(visitor)
    form = sent({"do": "move", "item": "name", "shift_mm": [12, -3]}, {"do": "put", "item": "name", "letter_mm": 24})
    assert client.post("/goods/movable/basket/", form).status_code == 302
    [design] = Design.objects.all()
    assert asked_of(design.personalization).adjustments["name"].shift_mm == (12, -3)
    page = client.get(f"/goods/movable/?design={design.pk}").content.decode()
    assert hands_in(page)["name"]["shift_mm"] == [12, -3]
    client.post("/goods/movable/keep/", form)
    again = client.get("/goods/movable/").content.decode()
    assert hands_in(again)["name"]["shift_mm"] == [12, -3]
