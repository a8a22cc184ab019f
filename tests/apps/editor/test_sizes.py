import pytest

from yenzo.apps.products.services.drafts import edit_draft

VARIANT = "/workshop/products/board/variants/long/"
VARIANT_SIZE = f"{VARIANT}size/"
SIZE = "/workshop/products/board/sides/front/size/"


@pytest.fixture
def seller(sign_in):
    return sign_in("seller")


@pytest.fixture
def board(product, owner):
    operations = [
        {"do": "add", "path": ["offer", "variants"], "item": {"key": "long", "name": "Long"}},
        {"do": "add", "path": ["fields"], "item": {"key": "wide", "kind": "number", "label": "Wide", "unit": "cm"}},
    ]
    edit_draft(owner, product.pk, operations, seen_version=product.draft_version, label="Long")
    product.refresh_from_db()
    return product


def fresh(product):
    product.refresh_from_db()
    return product.draft


def test_variant_gets_a_scale_and_areas_of_its_own_and_loses_them_again(board, seller):
    panel = {
        f"front/panel/{name}": value
        for name, value in zip(("x_mm", "y_mm", "width_mm", "height_mm"), (9, 8, 700, 90), strict=True)
    }
    assert seller.post(VARIANT_SIZE, {"length-front": "900", **panel}).status_code == 302
    (variant,) = fresh(board)["offer"]["variants"]
    assert variant["scales"]["front"]["length_mm"] == 900
    assert variant["areas"] == {"front": {"panel": {"x_mm": 9, "y_mm": 8, "width_mm": 700, "height_mm": 90}}}
    page = seller.get(VARIANT).content.decode()
    assert 'value="900.0"' in page
    assert "own size" in seller.get("/workshop/products/board/variants/").content.decode()
    seller.post("/workshop/products/board/areas/front/panel/remove/", {"sure": "on"})
    (variant,) = fresh(board)["offer"]["variants"]
    assert variant["areas"] == {"front": {}}
    seller.post(VARIANT_SIZE, {})
    (variant,) = fresh(board)["offer"]["variants"]
    assert "scales" not in variant
    assert "areas" not in variant


def test_half_an_area_and_lengths_of_nothing_are_refused_and_stay_typed(board, seller):
    answer = seller.post(VARIANT_SIZE, {"length-front": "0", "front/panel/x_mm": "12"})
    page = answer.content.decode()
    assert answer.status_code == 422
    assert "needs all four numbers" in page
    assert 'value="12"' in page
    assert "scales" not in fresh(board)["offer"]["variants"][0]
    assert seller.get("/workshop/products/board/variants/none/").status_code == 404


def test_side_follows_an_entry(board, seller):
    page = seller.get("/workshop/products/board/sides/front/scale/").content.decode()
    assert "“Wide”, in cm" in page
    assert "Made to measure" in page
    assert seller.post(SIZE, {"width_field": "wide", "width_mm": "700"}).status_code == 302
    assert fresh(board)["sides"][0]["width_by"] == {"field": "wide", "shown_mm": 700}
    refused = seller.post(SIZE, {"width_field": "wide", "width_mm": ""})
    assert refused.status_code == 422
    assert "Say which width the picture shows." in refused.content.decode()
    removed = seller.post("/workshop/products/board/lines/wide/remove/", headers={"HX-Request": "true"})
    assert "which is no number" in removed.content.decode()
    seller.post(SIZE, {})
    assert "width_by" not in fresh(board)["sides"][0]
