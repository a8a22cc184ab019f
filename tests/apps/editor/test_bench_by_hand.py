"""The bench by hand, as the server hears of it: marks, arranging, the clipboard, collections, freedoms, sides in one picture."""

import io
import json
import math

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from tests.core.conftest import picture_bytes
from yenzo.apps.editor.bench import lay_out
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.materials.models import Material
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.clips import copied

BASE = "/workshop/products/board/"
PANEL = f"{BASE}areas/front/panel/"


@pytest.fixture
def seller(sign_in):
    return sign_in("seller")


def area_of(product, key="panel"):
    product.refresh_from_db()
    return next(one for one in product.draft["sides"][0]["areas"] if one["key"] == key)


def placement_of(product, key="name"):
    product.refresh_from_db()
    return next(one for one in product.draft["placements"] if one["key"] == key)


def test_a_mark_is_moved_and_the_area_has_what_that_means(seller, product):
    assert seller.post(f"{PANEL}marks/", {"mark": "turn", "x_mm": "540", "y_mm": "49"}).status_code == 200
    assert area_of(product)["turn_deg"] == 90
    assert seller.post(f"{PANEL}marks/", {"mark": "corner", "x_mm": "12", "y_mm": "0"}).status_code == 200
    assert area_of(product)["shape"] == {"kind": "rectangle", "corner_mm": 12}


def test_points_come_and_go_by_their_marks(seller, product):
    points = "0 0, 540 0, 540 98"
    shape = {"way": "polygon", "points": points, "surface": "flat"}
    assert seller.post(f"{PANEL}shape/", shape).status_code == 200
    assert seller.post(f"{PANEL}marks/", {"mark": "p0", "do": "add"}).status_code == 200
    assert len(area_of(product)["shape"]["points"]) == 4
    assert seller.post(f"{PANEL}marks/", {"mark": "p1", "do": "remove"}).status_code == 200
    assert len(area_of(product)["shape"]["points"]) == 3
    seller.post(f"{PANEL}marks/", {"mark": "p1", "do": "remove"})
    assert len(area_of(product)["shape"]["points"]) == 3


def test_a_free_outline_is_taken_by_its_points(seller, product):
    shape = {"kind": "path", "data": "M0 0 L1 0 C1 0.408163 0.555556 1 0.5 1 Z"}
    product.draft["sides"][0]["areas"][0]["shape"] = shape
    product.save()
    page = seller.post(f"{PANEL}marks/", {"mark": "n0-2", "x_mm": "270", "y_mm": "49"}).content.decode()
    assert "C1 0.408163 0.555556 0.5 0.5 0.5" in area_of(product)["shape"]["data"]
    assert 'data-mark="n0-2-in"' in page
    seller.post(f"{PANEL}marks/", {"mark": "n0-0", "do": "add"})
    assert "L0.5 0 L1 0" in area_of(product)["shape"]["data"]


def test_marks_of_a_bent_area_show_on_its_surface_and_are_taken_there(seller, product):
    shape = {
        "way": "polygon",
        "points": "0 0, 540 0, 540 98",
        "surface": "cylinder",
        "axis": "upright",
        "span_deg": "120",
    }
    assert seller.post(f"{PANEL}shape/", shape).status_code == 200
    product.refresh_from_db()
    setup = setup_of_draft(product)
    [shown] = [area for area in lay_out(setup, "front/panel", StoredAssets()).sides[0].areas if area.is_selected]
    marks = {one.mark.name: one for one in shown.marks if not one.text}
    area = setup.sides[0].area("panel")
    assert marks["p1"].x == pytest.approx(
        area.x_mm + 270 * (1 + math.sin(math.radians(60)) / math.radians(60)), abs=0.01
    )
    before = area_of(product)["shape"]["points"]
    at = {"x_mm": marks["p1"].x - area.x_mm, "y_mm": marks["p1"].y - area.y_mm}
    seller.post(f"{PANEL}marks/", {"mark": "p1", **at})
    for one, other in zip(area_of(product)["shape"]["points"], before, strict=True):
        assert one == pytest.approx(other, abs=1e-4)


@pytest.mark.parametrize(
    "sent",
    [
        {"mark": "turn"},
        {"mark": "turn", "x_mm": "far", "y_mm": "1"},
        {"mark": "p9", "do": "add"},
        {"mark": "x", "text": "photo"},
    ],
)
def test_a_mark_that_is_not_there_is_not_found(seller, product, sent):
    before = area_of(product)
    assert seller.post(f"{PANEL}marks/", sent).status_code == 404
    assert area_of(product) == before


def test_areas_are_brought_in_line_and_spread(seller, product):
    assert seller.post(f"{PANEL}arrange/", {"do": "lefts"}).status_code == 200
    assert area_of(product, "photo")["x_mm"] == 80
    assert seller.post(f"{PANEL}arrange/", {"do": "across"}).status_code == 200
    assert area_of(product)["x_mm"] == 80
    assert seller.post(f"{PANEL}arrange/", {"do": "above"}).status_code == 200
    product.refresh_from_db()
    assert [one["key"] for one in product.draft["sides"][0]["areas"]] == ["photo", "panel"]
    assert seller.post(f"{PANEL}arrange/", {"do": "elsewhere"}).status_code == 404


def test_an_area_is_pasted_with_what_lands_in_it(seller, product):
    setup = setup_of_draft(product)
    clip = copied(setup, "front", setup.side("front").area("panel"))
    assert seller.post(f"{BASE}sides/front/paste/", {"clip": clip}).status_code == 200
    assert area_of(product, "panel-2")["x_mm"] == 85
    refused = seller.post(f"{BASE}sides/front/paste/", {"clip": "Ahoy"})
    assert refused.status_code == 422
    assert "is no copied area" in refused.content.decode()


def test_freedoms_are_given_in_their_bounds_and_said(seller, product):
    form = {
        "move": "on",
        "turn_deg": "20",
        "scale_least": "0.5",
        "scale_most": "2",
        "letters_least": "",
        "letters_most": "",
        "palette": "finishes",
        "align": "on",
    }
    answer = seller.post(f"{BASE}lines/name/free/?placement=name", form)
    assert answer.status_code == 200
    assert placement_of(product)["free"]["scale"] == {"least": 0.5, "most": 2}
    assert (
        "move it, turn it by up to 20°, size it 0.5 to 2 times, color it from “Finishes” and align it"
        in answer.content.decode()
    )
    refused = seller.post(f"{BASE}lines/name/free/?placement=name", {**form, "scale_least": "3"})
    assert refused.status_code == 422
    assert "The least size is above the most." in refused.content.decode()


def test_one_picture_of_two_sides_becomes_two_sides_with_their_areas(seller, product):
    answer = seller.post(f"{BASE}sides/front/split/", {"name": "Back", "way": "across", "at_percent": "40"})
    assert answer.status_code == 302
    setup = setup_of_draft(product.__class__.objects.get(pk=product.pk))
    front, back = setup.sides
    assert [area.key for area in front.areas] == ["photo"]
    assert [area.key for area in back.areas] == ["panel"]
    assert back.areas[0].x_mm == pytest.approx(80 - 280)
    assert setup.placement("name").side == "back"
    assert (front.scale.px_per_mm, back.scale.px_per_mm) == (pytest.approx(2), pytest.approx(2))
    assert front.picture.width_px + back.picture.width_px == 1400


def test_the_scale_is_taken_from_the_outer_size_of_the_goods(seller, product, owner):
    output = io.BytesIO()
    picture = Image.new("RGBA", (400, 200))
    picture.paste("#a5632f", (100, 50, 300, 150))
    picture.save(output, "PNG")
    sent = {"name": "Lid", "picture": SimpleUploadedFile("lid.png", output.getvalue())}
    assert seller.post(f"{BASE}sides/new/", sent).status_code == 302
    assert seller.post(f"{BASE}sides/lid/outer/", {"outer_mm": "100"}).status_code == 302
    product.refresh_from_db()
    assert product.draft["sides"][1]["scale"] == {"start_px": [100, 100], "end_px": [300, 100], "length_mm": 100}
    assert seller.post(f"{BASE}sides/lid/outer/", {"outer_mm": "0"}).status_code == 422
    assert owner


def test_a_collection_is_made_of_files_and_its_drawings_are_named_and_dropped(seller, product):
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect width="30" height="20"/></svg>'
    files = [SimpleUploadedFile("sea-horse.svg", svg), SimpleUploadedFile("crab.png", picture_bytes((90, 60)))]
    management = {"drawing-TOTAL_FORMS": "0", "drawing-INITIAL_FORMS": "0"}
    answer = seller.post("/workshop/products/materials/collections/new/", {"name": "Sea", "files": files, **management})
    assert answer.status_code == 302
    found = Material.objects.get(kind="collections", key="sea").document
    assert [one["name"] for one in found["drawings"]] == ["Sea horse", "Crab"]
    rows = {"drawing-TOTAL_FORMS": "2", "drawing-INITIAL_FORMS": "2"}
    for number, one in enumerate(found["drawings"]):
        rows |= {
            f"drawing-{number}-key": one["key"],
            f"drawing-{number}-name": one["name"],
            f"drawing-{number}-tags": "fish, fish, small",
        }
    rows["drawing-1-DELETE"] = "on"
    assert seller.post("/workshop/products/materials/collections/sea/", {"name": "Sea", **rows}).status_code == 302
    [kept] = Material.objects.get(kind="collections", key="sea").document["drawings"]
    assert kept["tags"] == ["fish", "small"]
    empty = seller.post("/workshop/products/materials/collections/new/", {"name": "None", **management})
    assert empty.status_code == 422
    bad = {"name": "Bad", "files": [SimpleUploadedFile("x.svg", b"MZ")], **management}
    refused = seller.post("/workshop/products/materials/collections/new/", bad)
    assert refused.status_code == 422
    assert "whatever its name says" in refused.content.decode()
    assert json.dumps(found)
