"""Kits: made once, used by many, changed here and there, and published with all who use them."""

import pytest
from django.test import Client
from django.urls import reverse

from yenzo.apps.products.kits import resolved_draft
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.kits import (
    attach_kit,
    create_kit,
    kit_effects,
    move_kit_up,
    override_kit,
    publish_kit,
    set_kit_scope,
)
from yenzo.apps.products.services.products import duplicate_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.errors import DocumentError

WISH = {"conditions": [{"field": "gift", "value": True}]}
LINES = (
    {"path": ["fields"], "item": {"key": "gift", "kind": "yes_no", "label": "Wrap it"}},
    {
        "path": ["fields"],
        "item": {"key": "card", "kind": "line", "label": "Card", "required": True, "ask_when": WISH},
    },
    {"path": ["charges"], "item": {"key": "gift", "kind": "fixed", "field": "gift", "amount": "4.50"}},
)

LID = {
    "key": "lid",
    "name": "Lid",
    "x_mm": 200,
    "y_mm": 140,
    "width_mm": 300,
    "height_mm": 60,
    "method": "carving",
    "safe_mm": 4,
}


def add(actor, product, *items):
    product.refresh_from_db()
    operations = [{"do": "add", **item} for item in items]
    edit_draft(actor, product.pk, operations, seen_version=product.draft_version, label="Lines")
    product.refresh_from_db()


@pytest.fixture
def kit(owner, product):
    made = create_kit(owner, name="Gift", currency="GBP")
    add(owner, made, *LINES)
    attach_kit(owner, made.pk, [product.pk])
    return made


def live_keys(product):
    product.refresh_from_db()
    return {field.key for field in setup_of_revision(product.live).fields}


def publish(owner, kit):
    kit.refresh_from_db()
    return publish_kit(owner, kit.pk, seen_version=kit.draft_version)


def test_publishing_a_kit_brings_its_lines_to_what_is_live_and_leaves_drafts_alone(owner, product, kit):
    label = {"do": "set", "path": ["fields", "name", "label"], "value": "In the draft only"}
    edit_draft(owner, product.pk, [label], seen_version=product.draft_version, label="Label")
    (effect,) = kit_effects(kit)
    assert (effect.product, effect.troubles) == (product, ())
    assert publish(owner, kit)[1] == 1
    assert {"gift-gift", "gift-card"} <= live_keys(product)
    setup = setup_of_revision(product.live)
    assert setup.field("name").label == "Name of the boat"
    assert product.live.own["fields"][0]["label"] == "Name of the boat"
    assert product.draft["fields"][0]["label"] == "In the draft only"
    given = {"entry-name": "Tern", "entry-gift-gift": "yes", "entry-gift-card": "Fair winds"}
    answer = Client().post("/goods/board/preview/", given).content.decode()
    assert "£4.50" in answer


def test_change_of_a_kit_reaches_every_user_and_shows_the_price_before(owner, product, kit):
    publish(owner, kit)
    default = {"do": "set", "path": ["fields", "gift", "default"], "value": True}
    dearer = {"do": "set", "path": ["charges", "gift", "amount"], "value": "6.00"}
    kit.refresh_from_db()
    edit_draft(owner, kit.pk, [default, dearer], seen_version=kit.draft_version, label="Dearer")
    kit.refresh_from_db()
    (effect,) = kit_effects(kit)
    assert effect.price_after - effect.price_before == 6
    number = product.live.number
    publish(owner, kit)
    product.refresh_from_db()
    assert product.live.number == number + 2


def test_kit_is_used_by_category_by_all_and_by_all_but_some(owner, product, kit):
    other = duplicate_product(owner, product.pk)
    publish(owner, kit)

    def users():
        return {one.key for one in (product, other) if any(f.key == "gift-gift" for f in resolved_draft(one).fields)}

    assert users() == {"board"}
    scope = {"category": "", "picked": [], "excluded": []}
    set_kit_scope(owner, kit.pk, **{**scope, "reach": "all"})
    assert users() == {"board", other.key}
    set_kit_scope(owner, kit.pk, **{**scope, "reach": "all", "excluded": [product.pk]})
    assert users() == {other.key}
    set_kit_scope(owner, kit.pk, **{**scope, "reach": "category", "category": "Boards"})
    assert users() == set()
    with pytest.raises(DocumentError, match="which category"):
        set_kit_scope(owner, kit.pk, **{**scope, "reach": "category"})


def test_product_has_a_kit_otherwise_and_for_some_variants(owner, product, kit):
    publish(owner, kit)
    variants = [{"key": key, "name": key.title()} for key in ("small", "large")]
    product.refresh_from_db()
    set_variants = {"do": "set", "path": ["offer", "variants"], "value": variants}
    edit_draft(owner, product.pk, [set_variants], seen_version=product.draft_version, label="Variants")
    product.refresh_from_db()
    overrides = [{"field": "gift", "label": "As a present"}, {"field": "card", "required": False}]
    override_kit(owner, kit.pk, product.pk, variants=["large"], overrides=overrides)
    setup = resolved_draft(product)
    assert setup.field("gift-gift").label == "As a present"
    assert not setup.field("gift-card").required
    condition = setup.field("gift-card").ask_when.conditions[0]
    assert (condition.field, condition.values) == ("@variant", ("large",))
    with pytest.raises(DocumentError, match="gift-gift"):
        override_kit(owner, kit.pk, product.pk, variants=[], overrides=[{"field": "gift", "left_out": True}])


def test_kit_that_makes_a_product_impossible_is_not_published_and_says_which(owner, product, kit):
    add(owner, kit, {"path": ["charges"], "item": {"key": "off", "kind": "fixed", "field": "gift", "amount": "-500"}})
    (effect,) = kit_effects(kit)
    assert "below zero" in effect.troubles[0]
    with pytest.raises(DocumentError, match=r"“Board” can't have the kit: .*below zero"):
        publish(owner, kit)
    kit.refresh_from_db()
    assert kit.live is None
    assert "gift-gift" not in live_keys(product)


def test_order_of_kits_is_the_order_of_their_lines(owner, product, kit):
    second = create_kit(owner, name="Care", currency="GBP")
    add(owner, second, {"path": ["fields"], "item": {"key": "oil", "kind": "yes_no", "label": "Oil"}})
    attach_kit(owner, second.pk, [product.pk])
    publish(owner, kit)
    publish(owner, second)
    assert [field.key for field in resolved_draft(product).fields][-3:] == ["gift-gift", "gift-card", "care-oil"]
    move_kit_up(owner, second.pk)
    assert [field.key for field in resolved_draft(product).fields][-1] == "gift-card"


def test_kit_is_no_product(owner, kit, sign_in):
    assert Client().get(f"/goods/{kit.key}/").status_code == 404
    with pytest.raises(DocumentError, match="on its own page"):
        publish_setup(owner, kit.pk, seen_version=kit.draft_version)
    assert ">Gift</a>" not in sign_in("seller").get(reverse("editor:products")).content.decode().split("<tbody>")[1]


def test_pages_of_kits_lead_from_none_to_many_products(sign_in, product):
    seller = sign_in("seller")
    page = seller.get(reverse("editor:kits")).content.decode()
    assert "No kit yet" in page
    assert seller.post(reverse("editor:kits"), {"name": "Delivery"}).url == reverse("editor:setup", args=["delivery"])
    setup_page = seller.post(reverse("editor:add_line", args=["delivery"]), {"label": "By", "kind": "date"})
    assert "Who uses it" in setup_page.content.decode()
    assert "Imprint area" not in setup_page.content.decode()
    wrong = {"reach": "category", "picked": [product.pk], "excluded": [product.pk]}
    refused = seller.post(reverse("editor:kit_scope", args=["delivery"]), wrong).content.decode()
    assert "Say which category" in refused
    assert "picked and left out at once" in refused
    seller.post(reverse("editor:kit_scope", args=["delivery"]), {"reach": "all"})
    publish_page = reverse("editor:kit_publish", args=["delivery"])
    assert "Publish it in 1 product" in seller.get(publish_page).content.decode()
    assert "has changed since" in seller.post(publish_page, {"seen": "0"}).content.decode()
    done = seller.post(publish_page, {"seen": "1"}, follow=True).content.decode()
    assert "Revision 1 of the kit is live, in 1 product." in done
    own = seller.get(reverse("editor:setup", args=["board"])).content.decode()
    assert "a kit that asks 1 day" in own
    override = reverse("editor:kit_override", args=["delivery", "board"])
    assert "Leave “By” out" in seller.get(override).content.decode()
    seller.post(override, {"by.label": "Needed by"})
    changed = seller.get(reverse("editor:setup", args=["board"])).content.decode()
    assert "changed here" in changed
    assert 'id="publish" data-main-action' in changed
    assert "disabled>Publish revision 3" not in changed


def test_kit_that_meets_a_line_of_the_product_is_told_and_the_pages_go_on(owner, product, kit, sign_in):
    add(owner, product, {"path": ["fields"], "item": {"key": "gift-card", "kind": "line", "label": "Card"}})
    publish(owner, kit)
    seller = sign_in("seller")
    told = seller.get(reverse("editor:setup", args=["board"])).content.decode()
    assert "“gift-card” is there 2 times" in told
    for page in ("setup", "price_helper"):
        assert seller.get(reverse(f"editor:{page}", args=["board"])).status_code == 200
    assert seller.get(reverse("editor:try_out", args=["board"])).status_code == 200


def test_seller_says_in_the_kit_and_in_a_product_where_a_line_lands(owner, product, kit, sign_in):
    add(owner, product, {"path": ["sides", "front", "areas"], "item": LID})
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    seller = sign_in("seller")
    places = reverse("editor:edit_aspect", args=[kit.key, "card", "places"])
    form = seller.get(places).content.decode()
    assert "It lands on imprint areas called" in form
    seen = {"seen": str(kit.draft_version)}
    said = seller.post(places, {"lands_on": "Lid", **seen}).content.decode()
    assert "every imprint area called “Lid”" in said
    publish(owner, kit)
    product.refresh_from_db()
    assert landing_of(setup_of_revision(product.live)) == ["lid"]
    override = reverse("editor:kit_override", args=[kit.key, product.key])
    page = seller.get(override).content.decode()
    assert "In the kit it lands on areas called “Lid”." in page
    assert 'value="front/lid"' in page
    given = {"card.areas": ["front/photo"], "card.color": "finishes/white", "card.typeface": "fixed/levant"}
    seller.post(override, given)
    (card,) = (one for one in resolved_draft(product).placements if one.field == "gift-card")
    assert (card.area, card.color.color, card.typeface.fixed) == ("photo", "white", "levant")
    # Ticked as the kit has it, nothing is otherwise.
    seller.post(override, {"card.areas": ["front/lid"]})
    assert landing_of(resolved_draft(product)) == ["lid"]
    assert kit.members.get(product=product).overrides == []


def test_area_that_a_line_of_a_kit_lands_on_is_missed_when_it_goes(owner, product, kit, sign_in):
    add(owner, product, {"path": ["sides", "front", "areas"], "item": LID})
    publish(owner, kit)
    override_kit(owner, kit.pk, product.pk, variants=[], overrides=[{"field": "card", "areas": ["front/lid"]}])
    product.refresh_from_db()
    remove = {"do": "remove", "path": ["sides", "front", "areas"], "key": "lid"}
    edit_draft(owner, product.pk, [remove], seen_version=product.draft_version, label="Lid removed")
    seller = sign_in("seller")
    page = seller.get(reverse("editor:setup", args=[product.key])).content.decode()
    assert "“Card” of the kit “Gift” lands on an imprint area that “Board” no longer has." in page
    override = reverse("editor:kit_override", args=[kit.key, product.key])
    assert seller.get(override).status_code == 200
    seller.post(override, {"card.areas": ["front/photo"]})
    assert landing_of(resolved_draft(product)) == ["photo"]


def test_publishing_a_kit_tells_where_its_line_lands_nowhere(owner, product, kit):
    kit.refresh_from_db()
    on = {"do": "set", "path": ["fields", "card", "lands_on"], "value": "Lid"}
    edit_draft(owner, kit.pk, [on], seen_version=kit.draft_version, label="Where")
    kit.refresh_from_db()
    (effect,) = kit_effects(kit)
    assert effect.advice[-1] == "“Card” goes on the ticket only: no imprint area is called “Lid”."


def landing_of(setup):
    return [one.area for one in setup.placements if one.field == "gift-card"]


def test_kit_is_for_everybody_unless_somebody_says_otherwise(owner, product, kit):
    set_kit_scope(owner, kit.pk, reach="picked", category="", picked=[product.pk], excluded=[])
    assert not kit.scope.__class__.objects.get(kit=kit).only_signed_in
