import pytest

from yenzo.apps.history.models import SharedChange
from yenzo.apps.history.services.changes import step_shared
from yenzo.apps.materials.models import Material
from yenzo.apps.materials.services.materials import save_material
from yenzo.apps.products.models import KitMember
from yenzo.apps.products.services.kits import attach_kit, create_kit, override_kit, set_kit_scope
from yenzo.apps.stock.models import StockItem
from yenzo.apps.stock.services.stock import count_stock
from yenzo.core.errors import DocumentError

PALETTE = {"name": "Inks", "colors": [{"key": "kelp", "name": "Kelp", "screen": "#3a6b4a"}]}
UNDO = "/workshop/products/shared/step/"


@pytest.fixture
def seller(actors):
    return actors["seller"]


def palette():
    return Material.objects.filter(kind="palettes", key="inks").values_list("document", flat=True).first()


def test_materials_go_back_and_forth_and_away(seller):
    save_material(seller, "palettes", "inks", PALETTE)
    save_material(seller, "palettes", "inks", {**PALETTE, "name": "Other inks"})
    assert step_shared(seller, "undo") == "Palette “Other inks”"
    assert palette() == PALETTE
    step_shared(seller, "undo")
    assert palette() is None
    assert step_shared(seller, "redo") == "Palette “Inks”"
    assert step_shared(seller, "redo") == "Palette “Other inks”"
    assert palette()["name"] == "Other inks"
    with pytest.raises(DocumentError, match="nothing to do again"):
        step_shared(seller, "redo")


def test_change_that_somebody_overtook_is_not_undone(seller, owner):
    save_material(seller, "palettes", "inks", PALETTE)
    save_material(owner, "palettes", "inks", {**PALETTE, "name": "Mine"})
    with pytest.raises(DocumentError, match="has changed since"):
        step_shared(seller, "undo")
    assert palette()["name"] == "Mine"
    step_shared(owner, "undo")
    step_shared(seller, "undo")
    assert palette() is None


def test_saving_the_same_leaves_no_step_and_a_new_step_drops_what_was_undone(seller):
    save_material(seller, "palettes", "inks", PALETTE)
    save_material(seller, "palettes", "inks", PALETTE)
    assert SharedChange.objects.count() == 1
    step_shared(seller, "undo")
    save_material(seller, "palettes", "inks", {**PALETTE, "name": "New"})
    with pytest.raises(DocumentError, match="nothing to do again"):
        step_shared(seller, "redo")


def test_stock_goes_back_unless_an_order_took_of_it(seller):
    count_stock(seller, {"A": 5, "B": 2})
    count_stock(seller, {"A": 9, "B": None})
    step_shared(seller, "undo")
    assert dict(StockItem.objects.values_list("sku", "pieces")) == {"A": 5, "B": 2}
    StockItem.objects.filter(sku="A").update(pieces=4)
    with pytest.raises(DocumentError, match="has changed since"):
        step_shared(seller, "undo")
    StockItem.objects.filter(sku="A").update(pieces=5)
    # What is counted elsewhere doesn't matter.
    StockItem.objects.create(sku="C", pieces=1)
    step_shared(seller, "undo")
    assert dict(StockItem.objects.values_list("sku", "pieces")) == {"C": 1}


def test_users_of_a_kit_and_what_is_otherwise_go_back(seller, product):
    kit = create_kit(seller, name="Gift", currency="GBP")
    attach_kit(seller, kit.pk, [product.pk])
    override_kit(seller, kit.pk, product.pk, variants=[], overrides=[{"field": "card", "label": "Our card"}])
    set_kit_scope(seller, kit.pk, reach="all", category="", picked=[], excluded=[product.pk])
    step_shared(seller, "undo")
    member = KitMember.objects.get()
    assert (member.is_picked, member.is_excluded, member.overrides[0]["label"]) == (True, False, "Our card")
    step_shared(seller, "undo")
    assert KitMember.objects.get().overrides == []
    step_shared(seller, "undo")
    assert not KitMember.objects.exists()
    step_shared(seller, "redo")
    assert KitMember.objects.get().is_picked


def test_pages_offer_undo_and_say_what_it_did(sign_in, seller, product):
    browser = sign_in("seller")
    save_material(seller, "palettes", "inks", PALETTE)
    for address in ("materials/", "stock/", "kits/"):
        assert "Undo: Palette “Inks”" in browser.get(f"/workshop/products/{address}").content.decode()
    answer = browser.post(UNDO, {"way": "undo", "next": "/workshop/products/stock/"}, follow=True)
    assert "Undone: Palette “Inks”" in answer.content.decode()
    assert "Do again: Palette “Inks”" in answer.content.decode()
    assert browser.post(UNDO, {"next": "https://elsewhere.example/"}).url == "/workshop/products/materials/"
    assert "There is nothing of yours to undo." in browser.post(UNDO, {}, follow=True).content.decode()
    assert sign_in("desk").post(UNDO).status_code == 403
