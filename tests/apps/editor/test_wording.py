import pytest

from yenzo.apps.editor.wording import key_of
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft, undo_edit
from yenzo.apps.products.services.publishing import publish_setup

ADDRESS = "/workshop/products/board/wording/"


@pytest.fixture
def seller(sign_in):
    return sign_in("seller")


def fresh(product):
    product.refresh_from_db()
    return product


def save(seller, product, language="de", **words):
    sent = {key_of(own): translated for own, translated in words.items()}
    return seller.post(f"{ADDRESS}?language={language}", {"seen": fresh(product).draft_version, **sent})


def test_wording_is_saved_published_and_undone(seller, product, owner, actors):
    answer = save(seller, product, Board="  Brett ", Wood="Holz")
    assert answer.url == f"{ADDRESS}?language=de"
    assert fresh(product).draft["wording"] == {"de": {"Board": "Brett", "Wood": "Holz"}}
    page = seller.get(answer.url).content.decode()
    assert 'value="Brett"' in page
    save(seller, product, "ar", Wood="خشب")
    publish_setup(owner, product.pk, seen_version=fresh(product).draft_version)
    assert fresh(product).live.document["wording"] == {"de": {"Board": "Brett", "Wood": "Holz"}, "ar": {"Wood": "خشب"}}
    undo_edit(actors["seller"], product.pk)
    undo_edit(actors["seller"], product.pk)
    assert fresh(product).draft.get("wording", {}) == {}


def test_emptied_text_goes_back_to_the_products_own_words(seller, product):
    save(seller, product, Board="Brett", Wood="Holz")
    save(seller, product, Board="")
    assert fresh(product).draft["wording"] == {"de": {"Wood": "Holz"}}
    save(seller, product, Wood="")
    assert fresh(product).draft["wording"] == {}


def test_missing_texts_are_counted_and_listed(seller, product):
    save(seller, product, Board="Brett")
    page = seller.get(f"{ADDRESS}?language=de&missing").content.decode()
    assert key_of("Wood") in page
    assert key_of("Board") not in page
    advice = seller.get("/workshop/products/board/").content.decode()
    assert "Deutsch: 14 of 15 texts have no translation yet" in advice
    assert "العربية:" not in advice


def test_nothing_different_makes_no_edit(seller, product):
    save(seller, product, Board="Brett")
    version = fresh(product).draft_version
    save(seller, product, Board="Brett", Wood="")
    assert fresh(product).draft_version == version


def test_overtaken_wording_is_refused_and_stays_typed(seller, product, owner):
    seen = product.draft_version
    other = {"do": "set", "path": ["wording"], "value": {"de": {"Board": "Planke"}}}
    edit_draft(owner, product.pk, [other], seen_version=seen, label="Wording")
    answer = seller.post(f"{ADDRESS}?language=de", {"seen": seen, key_of("Board"): "Brett"})
    page = answer.content.decode()
    assert answer.status_code == 422
    assert "changed this while you had it open" in page
    assert 'value="Brett"' in page
    assert fresh(product).draft["wording"] == {"de": {"Board": "Planke"}}


def test_words_of_other_products_are_taken_over(seller, product, owner):
    Product.objects.create(
        key="plank",
        name="Plank",
        draft={"offer": {"name": "Plank", "base_price": "1"}, "wording": {"de": {"Wood": "Holz", "Tar": "Teer"}}},
    )
    save(seller, product, Board="Brett")
    assert "Take 1 from other products" in seller.get(ADDRESS).content.decode()
    seller.post(f"{ADDRESS}lend/", {"language": "de", "seen": fresh(product).draft_version})
    assert fresh(product).draft["wording"] == {"de": {"Board": "Brett", "Wood": "Holz"}}
    assert "from other products" not in seller.get(ADDRESS).content.decode()


def test_product_can_be_written_in_another_language(seller, product):
    seller.post(f"{ADDRESS}own/", {"own": "de", "seen": product.draft_version})
    assert fresh(product).draft["language"] == "de"
    page = seller.get(ADDRESS).content.decode()
    assert "?language=en" in page
    assert "?language=de" not in page
    seller.post(f"{ADDRESS}own/", {"own": "tlh", "seen": fresh(product).draft_version})
    assert fresh(product).draft["language"] == "de"


def test_language_that_the_shop_does_not_speak_is_not_found(seller, product):
    for language in ("tlh", "en", "<b>"):
        assert seller.get(ADDRESS, {"language": language}).status_code == 404


def test_texts_that_nobody_asked_for_and_endless_ones_do_no_harm(seller, product):
    version = fresh(product).draft_version
    seller.post(f"{ADDRESS}?language=de", {"seen": "x", "words-0000": "Nobody"})
    assert fresh(product).draft_version == version
    answer = save(seller, product, Board="B" * 20_001)
    assert answer.status_code == 422
    assert "wording" not in fresh(product).draft


def test_try_out_speaks_the_language_that_is_picked(seller, product):
    save(seller, product, Wood="Holz")
    address = "/workshop/products/board/try-out/"
    assert "Wood" in seller.get(address).content.decode()
    german = seller.post(address, {"language": "de", "samples": "1"}).content.decode()
    assert "Holz" in german
    assert 'lang="de" dir="ltr"' in german
    refreshed = seller.post(f"{address}refresh/", {"language": "de", "entry-name": "Viel zu lang für jedes Brett"})
    assert "Bitte kürzen Sie." in refreshed.content.decode()
