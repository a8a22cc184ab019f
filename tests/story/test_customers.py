"""What customers meet: uploads that are refused, payments that go wrong, a phone, a second window."""

import io
import json
import os
import signal
import struct
import zipfile
import zlib
from datetime import datetime

import pytest
from playwright.sync_api import expect

from demo.installation import wait_until
from tests.core.artwork import samples
from tests.core.conftest import picture_bytes
from tests.story.conftest import NO_LINE, PHONE, emblem_page, fill_checkout, settled
from tests.story.test_from_setup_to_pack import download_pack
from tests.sweeping import spread


def bomb():
    """A PNG that claims 50,000 x 50,000 pixels."""

    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = chunk(b"IHDR", struct.pack(">IIBBBBB", 50_000, 50_000, 8, 2, 0, 0, 0))
    return b"\x89PNG\r\n\x1a\n" + head + chunk(b"IDAT", zlib.compress(b"\0" * 150_001)) + chunk(b"IEND", b"")


SVG = b'<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script><image href="http://elsewhere.example/x.png"/></svg>'
BAD = {
    "empty.png": (b"", "is empty"),
    "cut.png": (picture_bytes((900, 900))[:700], "damaged or cut off"),
    "lying.png": (b"MZ\x90\x00 this is a program", "is not a picture, whatever its name says"),
    "bomb.png": (bomb(), "50000 × 50000 pixels, more than"),
    "drawing.svg": (SVG, "it has a script inside and it points to files elsewhere"),
}
NOT_EVEN_SENT = {"huge.jpg": b"\xff\xd8\xff" + bytes(60_000_000), "anchor.gif": b"GIF89a", "words.txt": b"Ahoy"}


def order(page):
    """Go from a product page to the order's page."""
    page.get_by_role("button", name="Put in the basket").click()
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, "Tove Marsh", "tove@post.example", "Dyke 1")
    page.get_by_role("button", name="Order and go on").click()
    expect(page.locator("[data-order-state=waiting]")).to_be_visible()


@pytest.mark.parametrize("name", spread(BAD))
def test_bad_upload_is_refused_in_plain_words_and_the_form_keeps_what_was_typed(open_page, tmp_path, name):
    data, words = BAD[name]
    (tmp_path / name).write_bytes(data)
    page = emblem_page(open_page)
    page.set_input_files("#line-emblem input[type=file]", tmp_path / name)
    expect(page.locator("#line-emblem .drop .problem")).to_contain_text(words)
    expect(page.locator("[data-field=words]")).to_have_value("Otter & Son")
    expect(page.locator("#held-emblem")).to_be_empty()


@pytest.mark.parametrize("name", spread(NOT_EVEN_SENT))
def test_upload_that_its_name_or_size_shows_to_be_refused_is_not_even_sent(open_page, tmp_path, name):
    (tmp_path / name).write_bytes(NOT_EVEN_SENT[name])
    page = emblem_page(open_page)
    sent = []
    page.on("request", lambda request: sent.append(request.url))
    page.set_input_files("#line-emblem input[type=file]", tmp_path / name)
    expect(page.locator("#line-emblem .drop .problem")).to_contain_text("This file can’t be taken here: PNG")
    assert not [address for address in sent if "/uploads/" in address]


def artwork_workers(workshop):
    return [worker.pid for worker in workshop.workers if worker.args[-1] == "artwork"]


@pytest.mark.parametrize("is_good", [True, False])
def test_form_that_is_sent_while_a_file_is_looked_at_waits_for_it(open_page, workshop, tmp_path, is_good):
    photo = tmp_path / "emblem.png"
    photo.write_bytes(
        samples.logo_picture(size=(900, 900)) if is_good else samples.logo_picture(size=(900, 900))[:2000]
    )
    page = open_page("/goods/deck-cushion/", size=PHONE)
    page.fill("[data-field=words]", "Evening Tide")
    for pid in artwork_workers(workshop):
        os.killpg(pid, signal.SIGSTOP)
    try:
        page.locator("input[name='entry-with-emblem'][value=yes]").check()
        expect(page.locator("[data-upload=emblem]")).to_be_visible()
        settled(page)
        page.locator("[data-upload=emblem] input[type=file]").set_input_files(photo)
        expect(page.locator("[data-looking]")).to_contain_text("The file has arrived")
        # The line is laid out anew in the middle of it.
        page.locator("input[name='entry-with-emblem'][value=no]").check()
        settled(page)
        page.locator("input[name='entry-with-emblem'][value=yes]").check()
        settled(page)
        expect(page.locator("[data-looking]")).to_contain_text("The file has arrived")
        page.get_by_role("button", name="Put in the basket").click()
        expect(page.locator("[data-waits-for-files]")).to_be_visible()
        assert page.url.endswith("/goods/deck-cushion/")
    finally:
        for pid in artwork_workers(workshop):
            os.killpg(pid, signal.SIGCONT)
    if is_good:
        page.wait_for_url("**/basket/")
        expect(page.locator("main")).to_contain_text("emblem.png")
    else:
        expect(page.locator("[data-upload=emblem] .problem")).to_contain_text("damaged")
        expect(page.locator("[data-waits-for-files]")).to_be_hidden()
        assert page.url.endswith("/goods/deck-cushion/")


def test_refused_upload_leaves_the_one_before_in_place(open_page, tmp_path):
    (tmp_path / "good.png").write_bytes(picture_bytes((1600, 1600)))
    (tmp_path / "bad.png").write_bytes(b"")
    page = emblem_page(open_page)
    page.set_input_files("#line-emblem input[type=file]", tmp_path / "good.png")
    expect(page.locator("#line-emblem .made")).to_contain_text("dpi at 182 × 182 mm")
    expect(page.locator("#ink-reverse image")).to_have_count(1)
    page.set_input_files("#line-emblem input[type=file]", tmp_path / "bad.png")
    expect(page.locator("#line-emblem .drop .problem")).to_contain_text("is empty")
    expect(page.locator("#held-emblem")).to_contain_text("good.png")
    page.get_by_role("button", name="Remove").click()
    expect(page.locator("#ink-reverse image")).to_have_count(0)


def test_drawing_is_engraved_as_outlines_darker_on_request_and_reaches_the_pack(workshop, open_page, tmp_path):
    target = '<circle cx="50" cy="30" r="25"/><circle cx="50" cy="30" r="12" fill="#888"/>'
    (tmp_path / "target.svg").write_bytes(samples.svg(target))
    page = open_page("/goods/ships-bell/")
    page.fill("[data-field=name]", "Puffin")
    page.fill("[data-field=phone]", "020 7946 0018")
    page.locator("[data-field=with-emblem] label", has_text="Yes").click()
    expect(page.locator("#line-emblem")).to_be_visible()
    page.set_input_files("#line-emblem input[type=file]", tmp_path / "target.svg")
    expect(page.locator("#held-emblem")).to_contain_text("Drawing in one color")
    emblem = page.locator("[data-preview] [data-area=skirt] path").last
    expect(emblem).to_be_attached()
    light = emblem.get_attribute("d")
    page.get_by_label("How much of it counts as dark").fill("70")
    expect(emblem).not_to_have_attribute("d", light)
    expect(page.locator("#said-emblem")).to_contain_text("Drawn in outlines")
    order(page)
    page.get_by_role("button", name="Pay £").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    desk = open_page("/workshop/orders/", person="noor")
    with zipfile.ZipFile(io.BytesIO(download_pack(desk, "PUFFIN"))) as pack:
        manifest = json.loads(pack.read("manifest.json"))
        (skirt,) = (area for area in manifest["areas"] if area["area"] == "skirt")
        assert [drawing["name"] for drawing in skirt["drawings"]] == ["target.svg"]
        assert {name.rpartition(".")[2] for name in skirt["files"]} == {"svg", "pdf", "dxf"}
        assert pack.read("originals/emblem_target.svg") == samples.svg(target)


def test_coarse_photo_is_told_at_its_field_with_its_sharpness(open_page, tmp_path):
    (tmp_path / "small.png").write_bytes(picture_bytes((200, 200)))
    page = emblem_page(open_page)
    page.set_input_files("#line-emblem input[type=file]", tmp_path / "small.png")
    expect(page.locator("[data-problem=emblem]")).to_contain_text(
        "28 dpi at this size; Transfer print needs at least 60 dpi"
    )
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator(".summary")).to_contain_text("needs at least 60 dpi")
    expect(page.locator("[data-field=words]")).to_have_value("Otter & Son")
    expect(page.locator("#held-emblem")).to_contain_text("small.png")


def test_declined_and_silent_payments_end_well_and_nothing_is_paid_twice(workshop, open_page):
    page = open_page("/goods/cedar-nameboard/", size=PHONE)
    page.fill("[data-field=name]", "Silent Tide")
    order(page)
    address = page.url
    page.get_by_label("Practice card that is declined").check()
    page.get_by_role("button", name="Pay £").click()
    expect(page.locator("#payment")).to_contain_text("declined and nothing was taken")
    page.get_by_label("Practice card without an answer").check()
    page.get_by_role("button", name="Pay £").click()
    expect(page.locator("#payment")).to_contain_text("please don't pay again")
    # The part asks again by itself until the job has found out.
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    token = address.rstrip("/").rsplit("/", 1)[1]
    states = workshop.rows(
        "SELECT p.state FROM orders_payment p JOIN orders_order o ON o.id = p.order_id WHERE o.token = %s ORDER BY p.id",
        token,
    )
    assert states == [("declined",), ("approved",)]


def test_everything_is_typed_seen_and_ordered_by_keyboard_on_a_phone(open_page):
    page = open_page("/goods/cedar-nameboard/", size=PHONE)
    page.locator("[data-field=name]").focus()
    page.keyboard.type("Kittiwake", delay=10)
    expect(page.locator("#ink-front path")).to_have_count(1)
    page.keyboard.press("Tab")
    page.keyboard.press("ArrowRight")
    expect(page.locator("[data-field=lettering] input:checked")).to_have_value("log-book")
    # The goods stay in view while typing.
    page.get_by_label("Pieces").focus()
    assert -1 <= page.locator(".product .stage").bounding_box()["y"] <= 60
    page.keyboard.press("Control+Enter")
    expect(page.locator(".piece")).to_contain_text("KITTIWAKE")
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")


def test_typing_in_a_burst_keeps_up_and_loses_nothing(open_page):
    page = open_page("/goods/cedar-nameboard/")
    asked = []
    page.on("request", lambda request: asked.append(request) if "preview" in request.url else None)
    page.locator("[data-field=name]").press_sequentially("Wind & Whey Away", delay=5)
    expect(page.locator("#room-name")).to_have_text("room for 2 more")
    expect(page.locator("[data-total]")).to_have_attribute("data-total", "112.80")
    expect(page.locator("[data-field=name]")).to_be_focused()
    assert 1 <= len(asked) <= 16


def test_change_of_a_choice_keeps_what_was_typed_and_charges_only_what_is_asked(open_page):
    page = open_page("/goods/cedar-nameboard/")
    page.fill("[data-field=name]", "Otter")
    port = page.locator("[data-field=with-port]")
    port.locator("label", has_text="Yes").click()
    page.fill("#entry-port", "Port Hallow")
    expect(page.locator("[data-total]")).to_have_attribute("data-total", "122.00")
    port.locator("label", has_text="No").click()
    expect(page.locator("#line-port")).to_be_hidden()
    expect(page.locator("[data-total]")).to_have_attribute("data-total", "110.00")
    expect(page.locator("#ink-front path")).to_have_count(1)
    port.locator("label", has_text="Yes").click()
    expect(page.locator("#entry-port")).to_have_value("Port Hallow")
    expect(page.locator("#ink-front path")).to_have_count(2)


def test_day_that_cannot_be_had_is_told_and_stops_nothing_else(open_page):
    page = open_page("/goods/slate-sign/")
    page.fill("[data-field=words]", "Berth 14")
    page.fill("#entry-needed", datetime.now().astimezone().date().isoformat())
    expect(page.locator("#said-needed")).to_contain_text("the first day that can be had is")
    page.fill("#entry-note", "Pack it flat")
    expect(page.locator("#room-note")).to_have_text("room for 288 more")
    page.fill("#entry-needed", "")
    expect(page.locator("#said-needed")).to_be_empty()


def test_preview_that_failed_is_asked_for_again(open_page):
    page = open_page("/goods/cedar-nameboard/")
    failed = []

    def fail_once(route):
        if failed:
            route.continue_()
        else:
            failed.append(route.request.url)
            route.abort()

    page.route("**/preview/", fail_once)
    page.fill("[data-field=name]", "Otter")
    expect(page.locator("[data-preview] [data-area] path").first).to_be_attached()
    assert len(failed) == 1
    open_page.harmless.append(NO_LINE)


def test_variant_swaps_the_goods_on_every_side(open_page):
    page = open_page("/goods/deck-cushion/")
    before = page.locator("figure [data-goods=front][data-is-large]").get_attribute("href")
    page.locator(".variants label", has_text="Signal").click()
    expect(page.locator("[data-total]")).to_have_attribute("data-total", "51.00")
    wait_until(
        lambda: page.locator("figure [data-goods=front][data-is-large]").get_attribute("href") != before,
        what="the other cloth",
    )
    assert page.locator("figure [data-goods=reverse][data-is-large]").get_attribute("href") != before


def test_piece_ordered_in_one_window_is_not_ordered_again_in_another(workshop, open_page):
    page = open_page("/goods/cedar-nameboard/")
    page.fill("[data-field=name]", "Two Windows")
    page.get_by_role("button", name="Put in the basket").click()
    page.wait_for_url("**/basket/")
    second = page.context.new_page()
    second.goto("/checkout/")
    page.goto("/goods/cedar-nameboard/")
    page.fill("[data-field=name]", "Second One")
    page.get_by_role("button", name="Put in the basket").click()
    page.wait_for_url("**/basket/")
    fill_checkout(second, "Tove", "t@post.example", "Dyke 1")
    second.get_by_role("button", name="Order and go on").click()
    expect(second.locator(".problem")).to_contain_text("The basket was changed in another window")
    expect(second.get_by_label("Your name")).to_have_value("Tove")


def test_form_is_finished_page_by_page_with_an_address_as_its_country_writes_it(open_page):
    page = open_page("/goods/harbor-pass/")
    on = page.get_by_role("button", name="Next page")
    on.click()
    expect(page.locator("#said-holder")).to_contain_text("Please fill in “Name on the pass”.")
    expect(page.locator("#entry-holder")).to_be_focused()
    page.fill("#entry-holder", "Juna Farwater")
    page.fill("#entry-born", "1988-05-14")
    page.select_option("#entry-berth", "guest")
    on.click()
    expect(page.locator("#section-rights")).to_be_visible()
    expect(page.locator("#section-holder")).to_be_hidden()
    expect(page.locator("[data-field=gates] input:checked")).to_be_focused()
    page.locator("[data-field=gates] label", has_text="North pontoon").click()
    page.locator("[data-field=rules] label", has_text="Yes").click()
    on.click()
    page.locator("[data-field=how] label", has_text="By post").click()
    expect(page.locator("#entry-post-town")).to_be_visible()
    page.select_option("#entry-post-country", "DE")
    expect(page.locator("[name='entry-post.country']")).to_have_value("DE")
    for part, words in (("name", "Ann Fairwater"), ("street", "Am Kai 3"), ("postcode", "26133"), ("town", "Hallow")):
        page.fill(f"#entry-post-{part}", words)
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator(".piece")).to_contain_text("Ann Fairwater, Am Kai 3, 26133 HALLOW, GERMANY")
    expect(page.locator(".piece")).to_contain_text("Main gate, North pontoon")


def test_price_follows_the_size_and_the_pieces(open_page):
    page = open_page("/goods/windbreak/")
    page.fill("#entry-width", "4,8")
    expect(page.locator("#computed-cloth")).to_have_text("6.23 m²")
    expect(page.locator("#computed-eyelets")).to_have_text("22")
    expect(page.locator("#line-posts")).to_be_hidden()
    page.get_by_label("Pieces").fill("3")
    expect(page.locator("#price")).to_contain_text("For several")
    expect(page.locator("#price")).to_contain_text("of which 20 % tax")


def test_customer_changes_the_language_and_orders_without_losing_what_was_typed(open_page):
    page = emblem_page(open_page)
    page.locator("[data-field=with-emblem] label", has_text="No").click()
    page.locator(".languages summary").click()
    page.get_by_role("button", name="العربية").click()
    expect(page.locator("html")).to_have_attribute("dir", "rtl")
    expect(page.locator("[data-field=words]")).to_have_value("Otter & Son")
    expect(page.locator("#ink-front path")).not_to_have_count(0)
    page.fill("[data-field=words]", "Otter " * 9)
    expect(page.locator("[data-problem=words]").first).to_contain_text("يُرجى الاختصار")
    page.fill("[data-field=words]", "Otter")
    page.get_by_role("button", name="أضف إلى السلة").click()
    page.get_by_role("link", name="إلى إتمام الطلب").click()
    facts = {"name": "Tove Marsh", "mail": "tove@post.example", "street": "Dyke 1", "postcode": "PO1 3AX"}
    for name, words in {**facts, "town": "Port Hallow"}.items():
        page.fill(f"[name={name}]", words)
    page.get_by_label("لقد راجعت إملاء كل ما سيُصنع.").check()
    page.get_by_role("button", name="اطلب وتابع إلى الدفع").click()
    expect(page.locator("[data-order-state=waiting]")).to_contain_text("بانتظار الدفع")
    expect(page.locator(".entries")).to_contain_text("كلمات على الوجه")


def test_several_files_are_sent_one_after_another_and_removed_singly(open_page, tmp_path):
    paths = []
    for name in ("chart.png", "boat.png", "house.png"):
        (tmp_path / name).write_bytes(picture_bytes((300, 200)))
        paths.append(tmp_path / name)
    page = open_page("/goods/brass-compass/")
    page.locator("#section-engraver summary").click()
    rows = page.locator("#held-sketches .one-file")
    page.set_input_files("#line-sketches input[type=file]", paths)
    expect(rows).to_have_count(3)
    expect(rows.nth(2)).to_contain_text("house.png")
    expect(page.locator("#price")).to_contain_text("2 files beyond the first one")
    rows.nth(0).get_by_role("button", name="Remove").click()
    expect(page.locator("#price")).to_contain_text("1 file beyond the first one")
    expect(rows).to_have_count(2)
    (tmp_path / "lying.png").write_bytes(b"MZ program")
    page.set_input_files("#line-sketches input[type=file]", [tmp_path / "lying.png", paths[0]])
    expect(page.locator("#line-sketches .drop .problem")).to_contain_text("is not a picture")
    expect(rows).to_have_count(2)


def test_goods_grow_with_what_is_entered(open_page):
    page = open_page("/goods/windbreak/")
    picture = page.locator("figure[data-side=front] svg")
    before = picture.get_attribute("viewBox")
    page.fill("[name=entry-width]", "7.2")
    expect(picture).not_to_have_attribute("viewBox", before)
    width = float(before.split()[2])
    assert float(picture.get_attribute("viewBox").split()[2]) == pytest.approx(2 * width, abs=0.1)
    assert float(picture.locator("image[data-is-large]").get_attribute("width")) == pytest.approx(2 * width, abs=0.1)


def test_customer_mixes_a_color_within_the_reach_of_the_palette(open_page):
    page = open_page("/goods/burgee-pennant/")
    page.fill("[data-field=name]", "TERN")
    page.locator("[data-own-color]").fill("#f2ead6")
    expect(page.locator("#ink-flag [fill='#f2ead6']").first).to_be_attached()
    page.locator("[data-own-color]").fill("#00ff00")
    expect(page.locator("[data-problem=letters]")).to_contain_text("is too far from the colors")
