from yenzo.apps.designs.models import Design

ADDRESS = "/workshop/products/board/lines/finish/colors/"


def test_seller_lets_customers_mix_and_slip_basket_and_refusal_follow(product, sign_in, client, owner):
    from yenzo.apps.products.services.publishing import publish_setup

    seller = sign_in("seller")
    page = seller.post(ADDRESS, {"colors": ["finishes/gold"], "reach": "12"}).content.decode()
    assert "or a color of their own within 12 of one" in page
    assert seller.post(ADDRESS, {"colors": ["finishes/gold"], "reach": "0"}).status_code == 422
    product.refresh_from_db()
    publish_setup(owner, product.pk, seen_version=product.draft_version)
    assert "data-own-color" in client.get("/goods/board/").content.decode()
    gold = product.live.document["materials"]["palettes"]["finishes"]["colors"][0]["screen"].lower()
    form = {"entry-name": "Otter", "entry-lettering": "quayside", "entry-finish": gold}
    client.post("/goods/board/basket/", form)
    assert Design.objects.get().personalization.entries["values"]["finish"] == gold
    basket = client.get("/basket/").content.decode()
    assert f"{gold}, near " in basket
    changing = client.get(f"/goods/board/?design={Design.objects.get().pk}").content.decode()
    assert f'value="{gold}" checked' in changing
    refused = client.post("/goods/board/basket/", {**form, "entry-finish": "#00ff00"})
    assert "is too far from the colors that can be made here" in refused.content.decode()
