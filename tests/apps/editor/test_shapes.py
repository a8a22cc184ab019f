import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.core.artwork.test_windows import goods
from tests.core.conftest import board, entries
from yenzo.apps.accounts.rights import Actor
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.pictures import add_goods_picture
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.apps.slip.slip import build_slip
from yenzo.core.shapes.areas import trim_outline
from yenzo.core.shapes.polygons import polygon_of

ADDRESS = "/workshop/products/board/areas/front/panel/shape/"
SVG = b'<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0H200V100H0Z"/><circle cx="300" cy="50" r="50"/></svg>'


@pytest.fixture
def seller(sign_in):
    return sign_in("seller")


def panel_of(product):
    product.refresh_from_db()
    return setup_of_draft(product).sides[0].areas[0]


@pytest.mark.parametrize(
    ("given", "covers"),
    [
        ({"way": "rectangle", "corner_mm": "10"}, 540 * 98 - (4 - 3.14159) * 100),
        ({"way": "ellipse"}, 3.14159 * 270 * 49),
        ({"way": "ring", "hole": "50", "start_deg": "180", "spread_deg": "180"}, 3.14159 * (49**2 - 24.5**2) / 2),
        ({"way": "polygon", "points": "0 0, 540 49, 0 98"}, 540 * 98 / 2),
    ],
)
def test_shape_is_given_by_numbers_and_shows_on_the_bench(seller, product, given, covers):
    page = seller.post(ADDRESS, {**given, "surface": "flat"}).content.decode()
    assert polygon_of(trim_outline(panel_of(product))).area == pytest.approx(covers, rel=1e-3)
    assert 'class="shape"' in page
    form = seller.get(ADDRESS).content.decode()
    assert f'value="{given["way"]}" required id="shape-way' in form


def test_outline_of_an_svg_becomes_the_shape_and_the_frame_takes_its_proportions(seller, product):
    seller.post(
        ADDRESS, {"way": "path", "svg": SimpleUploadedFile("outline.svg", SVG), "under": "on", "surface": "flat"}
    )
    area = panel_of(product)
    assert (area.under, area.height_mm) == (True, pytest.approx(540 * 100 / 350, abs=0.01))
    scale = (540 / 350) ** 2
    assert polygon_of(trim_outline(area)).area == pytest.approx((200 * 100 + 3.14159 * 50**2) * scale, rel=1e-3)
    seller.post(ADDRESS, {"way": "path", "surface": "flat"})
    assert panel_of(product).under is False


@pytest.mark.parametrize(
    ("given", "said"),
    [
        ({"way": "polygon", "points": "0 0, 10"}, "at least three points"),
        ({"way": "polygon", "points": "0 0, 10 10, 900 900"}, "inside the frame"),
        ({"way": "ellipse", "surface": "cylinder"}, "how many degrees"),
        ({"way": "ellipse", "surface": "corners", "corners": "0 0, 1 1"}, "four corners"),
        ({"way": "ellipse", "surface": "corners", "corners": "0 0, 1"}, "each as two numbers"),
        ({"way": "ring", "hole": ""}, "fill in the hole"),
        ({"way": "path"}, "pick the SVG file"),
        ({"way": "path", "svg": SimpleUploadedFile("x.svg", b"no svg at all")}, "damaged or cut off"),
        ({"way": "path", "svg": SimpleUploadedFile("x.svg", b"<svg xmlns='http://www.w3.org/2000/svg'/>")}, "no shape"),
        (
            {"way": "path", "svg": SimpleUploadedFile("x.svg", b"<!DOCTYPE svg [<!ENTITY a 'b'>]><svg>&a;</svg>")},
            "it defines entities",
        ),
        ({"way": "path", "svg": SimpleUploadedFile("x.svg", b" " * 1_000_001)}, "more than 1 MB"),
    ],
)
def test_shape_without_sense_is_refused_at_its_form_and_changes_nothing(seller, product, given, said):
    answer = seller.post(ADDRESS, {"surface": "flat", **given})
    assert (answer.status_code, answer["HX-Retarget"]) == (422, "#shape-form")
    assert said in answer.content.decode()
    assert panel_of(product).is_frame


def test_turned_area_is_turned_on_the_bench_and_for_the_customer(seller, product):
    numbers = {"name": "Panel", "x_mm": 80, "y_mm": 38, "width_mm": 540, "height_mm": 98, "safe_mm": 4, "bleed_mm": 2}
    page = seller.post(
        "/workshop/products/board/areas/front/panel/", {**numbers, "turn_deg": 8, "dpi": 100, "method": "carving"}
    ).content.decode()
    assert 'transform="rotate(8 350.000 87.000)" data-turn="8.0"' in page
    assert panel_of(product).turn_deg == 8


def test_what_lies_under_the_goods_is_drawn_before_their_picture(seller, product):
    seller.post(ADDRESS, {"way": "ellipse", "under": "on", "surface": "flat"})
    product.refresh_from_db()
    side = build_slip(setup_of_draft(product), entries({"name": "TERN"}), StoredAssets(), {}).sides[0]
    assert ("<path" in side.under.markup, "<path" in side.ink.markup) == (True, False)
    page = seller.get("/goods/board/").content.decode()
    places = [page.index(mark) for mark in ('id="under-front"', 'data-goods="front"', 'id="ink-front"')]
    assert places == sorted(places)


@pytest.mark.parametrize(
    ("given", "has"),
    [
        ({"surface": "cylinder", "axis": "upright", "span_deg": "100"}, {"kind": "cylinder", "span_deg": 100}),
        ({"surface": "corners", "corners": "5 2, -5 8, -5 -8, 5 -2"}, {"kind": "corners"}),
        ({"surface": "flat"}, {"kind": "flat"}),
    ],
)
def test_surface_is_given_by_numbers_and_bends_the_ink(seller, product, given, has):
    page = seller.post(ADDRESS, {"way": "rectangle", **given}).content.decode()
    area = panel_of(product)
    assert has.items() <= area.surface.model_dump().items()
    assert ('class="shape"' in page) == (given["surface"] != "flat")
    form = seller.get(ADDRESS).content.decode()
    assert f'value="{given["surface"]}" required id="shape-surface' in form


def test_corners_that_nobody_could_see_are_refused_on_the_page(seller, product):
    corners = {"surface": "corners", "corners": "600 0, 0 0, 0 0, 0 0"}
    answer = seller.post(ADDRESS, {"way": "rectangle", **corners})
    assert answer.status_code == 422
    assert "don&#x27;t span a surface" in answer.content.decode()


def test_holes_of_the_goods_picture_become_areas_under_it(seller, product, tmp_path):
    path = tmp_path / "ring.png"
    path.write_bytes(goods(("ellipse", (300, 150, 500, 350))))
    picture = add_goods_picture(Actor("seller", "Iris"), path, path.name)
    side = {**board()["sides"][0], "picture": picture, "areas": []}
    side["scale"] = {"start_px": [0, 0], "end_px": [800, 0], "length_mm": 400}
    document = {**board(), "sides": [side], "placements": []}
    document.pop("materials")
    import_product(Actor("owner", "Mara"), document, key="ring")
    page = seller.post("/workshop/products/ring/sides/front/windows/").content.decode()
    (area,) = setup_of_draft(Product.objects.get(key="ring")).sides[0].areas
    assert (area.name, area.under) == ("Window 1", True)
    assert (area.x_mm, area.y_mm, area.width_mm) == pytest.approx((150, 75, 100), abs=0.3)
    assert polygon_of(trim_outline(area)).area == pytest.approx(3.14159 * 50**2, rel=5e-3)
    assert "1 window found" in page or 'data-imprint="front/window-1"' in page


def test_picture_without_holes_is_told_in_words(seller, product):
    answer = seller.post("/workshop/products/board/sides/front/windows/")
    assert answer.status_code == 422
    assert "No hole was found" in answer.content.decode()
