"""What is entered and not yet sent comes back: after Back, a reload, a lost line, an ended session; also without scripts."""

import json
from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.core.conftest import noise_bytes, picture_bytes
from tests.story.conftest import NO_LINE, WIDE, bell_at_the_checkout, emblem_page, fill_checkout, settled
from tests.sweeping import spread
from yenzo.apps.slip.controls import CONTROLS

GOODS = sorted(Path("demo/products").iterdir())
# What is asked of nobody, or is worked out from the rest.
KINDS = {model.model_fields["kind"].default for model in CONTROLS}
NOT_ENTERED = {model.model_fields["kind"].default for model in CONTROLS if not (model.has_entry and model.is_asked)} | {
    "computed"
}
STATE = "['csrfmiddlewaretoken', 'shown', 'asked', 'messages-shown', 'missing', 'sent-as', 'page']"
ENTERED = f"""() => [...new FormData(document.getElementById("slip-form"))]
    .filter(([name, value]) => typeof value === "string" && !{STATE}.includes(name)).map((pair) => pair.join("="))"""
# Something else than it begins with, in every control that is there.
ENTER_ALL = """() => {
  const form = document.getElementById("slip-form");
  const words = { number: "7", date: "2027-05-14" };
  for (const control of form.querySelectorAll("input:not([type=hidden], [type=file], [type=color]), textarea, select")) {
    if (control.name === "pieces") control.value = "3";
    else if (control.matches("select")) control.selectedIndex = control.options.length - 1;
    else if (control.matches("[type=radio]")) control.checked = true;
    else if (control.matches("[type=checkbox]")) control.checked = true;
    else if (control.matches("textarea")) control.value = "Wind & Whey\\n\\nمرسى 3";
    else control.value = words[control.type] ?? `Ä ${control.name.length} ش`;
    control.dispatchEvent(new Event("input", { bubbles: true }));
    control.dispatchEvent(new Event("change", { bubbles: true }));
  }
}"""


def kinds_of(goods):
    return {field["kind"] for field in json.loads((goods / "setup.json").read_text())["fields"]}


def covering():
    """Goods that have every kind of field between them, as few as a greedy choice gives."""
    left, chosen = KINDS - NOT_ENTERED, []
    while left:
        best = max(GOODS, key=lambda goods: len(left & kinds_of(goods)))
        assert left & kinds_of(best), f"The demo asks for none of {left}."
        chosen.append(best)
        left -= kinds_of(best)
    return chosen


def entered(page):
    """What the form would be sent with, after all answers are there."""
    settled(page)
    return page.evaluate(ENTERED)


def kept(page):
    """Wait until the workshop keeps what the page shows."""
    settled(page)
    expect(page.locator("#slip-form[data-is-kept=yes]")).to_have_count(1)


@pytest.mark.parametrize("goods", spread(covering(), in_test=2), ids=lambda goods: goods.name)
def test_entries_of_every_kind_come_back_after_a_reload_and_after_back(open_page, goods):
    page = open_page(f"/goods/{goods.name}/")
    blank = entered(page)
    page.evaluate(ENTER_ALL)
    settled(page)
    page.evaluate(ENTER_ALL)  # What is asked only now.
    kept(page)
    before, price = entered(page), page.locator("[data-total]").first.inner_text()
    assert before != blank
    page.reload()
    assert entered(page) == before
    expect(page.locator("[data-total]").first).to_have_text(price)
    page.get_by_role("link", name="Basket").click()
    expect(page.locator("h1")).to_have_text("Basket")
    page.go_back()
    expect(page.locator("#slip-form")).to_be_visible()
    assert entered(page) == before
    page.goto(f"/goods/{goods.name}/")
    assert entered(page) == before
    page.get_by_role("button", name="Begin anew").click()
    expect(page.get_by_role("button", name="Begin anew")).to_have_count(0)
    assert entered(page) == blank


def test_upload_preview_and_price_come_back_and_the_session_may_have_ended(open_page, tmp_path):
    (tmp_path / "otter.png").write_bytes(picture_bytes((900, 900)))
    page = emblem_page(open_page)
    page.set_input_files("#line-emblem input[type=file]", tmp_path / "otter.png")
    expect(page.locator("#held-emblem .held-file")).to_have_count(1)
    expect(page.locator("#pick-emblem .pick-more")).to_be_visible()
    expect(page.locator("#pick-emblem .pick-first")).to_be_hidden()
    kept(page)
    scenes = page.locator("[data-scene]").evaluate_all("all => all.map((one) => one.dataset.scene)")
    price = page.locator("[data-total]").first.inner_text()
    page.context.clear_cookies(name="sessionid")
    page.reload()
    expect(page.locator("#held-emblem .held-file")).to_contain_text("otter.png")
    assert page.locator("[data-scene]").evaluate_all("all => all.map((one) => one.dataset.scene)") == scenes
    expect(page.locator("[data-total]").first).to_have_text(price)
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator(".piece")).to_contain_text("Otter & Son")


def test_upload_goes_on_where_the_line_broke_and_where_the_page_was_left(open_page, tmp_path):
    photo = tmp_path / "otter.png"
    photo.write_bytes(noise_bytes((900, 900)))
    parts, is_down = [], []

    def breaks(route):
        at = int(route.request.url.partition("&at=")[2])
        # The third part finds no line, and none after it until the line is back.
        if is_down or (at >= 1_000_000 and not any(one >= 1_000_000 for one in parts)):
            is_down.append(at)
            route.abort("connectionfailed")
        else:
            parts.append(at)
            route.continue_()

    page = emblem_page(open_page)
    page.route("**/uploads/parts/*/**", breaks)
    page.set_input_files("#line-emblem input[type=file]", photo)
    expect(page.locator("#line-emblem [data-looking]")).to_contain_text("The line broke.")
    page.reload()
    is_down.clear()
    parts.append(1_000_000)
    page.set_input_files("#line-emblem input[type=file]", photo)
    expect(page.locator("#held-emblem .held-file")).to_contain_text("otter.png")
    assert parts[:3] == [0, 500_000, 1_000_000]
    assert parts[3] == 1_000_000, "It went on where it was."
    open_page.harmless.append(NO_LINE)


def test_what_was_typed_while_the_line_was_lost_is_there_after_a_reload(open_page):
    page = open_page("/goods/ships-bell/")
    settled(page)
    page.context.set_offline(True)
    page.fill("[data-field=name]", "KITTIWAKE")
    expect(page.locator("#trouble")).to_contain_text("What you typed is kept here")
    expect(page.locator("[data-behind]")).to_contain_text("not up to date")
    page.context.set_offline(False)
    page.reload()
    expect(page.locator("[data-field=name]")).to_have_value("KITTIWAKE")
    expect(page.locator("#trouble")).to_be_hidden()
    open_page.harmless.append(NO_LINE)


def test_piece_and_order_that_are_sent_while_the_line_is_lost_wait_and_are_sent_once(open_page):
    page = open_page("/goods/ships-bell/")
    page.fill("[data-field=name]", "KITTIWAKE")
    kept(page)
    page.context.set_offline(True)
    page.get_by_role("button", name="Put in the basket").click()
    waiting = page.get_by_role("dialog")
    expect(waiting).to_contain_text("sent by itself, once, as soon as the line is back")
    page.context.set_offline(False)
    expect(page.locator(".piece")).to_have_count(1)
    page.get_by_role("link", name="Go to the checkout").click()
    fill_checkout(page, "Tove Marsh", "tove@post.example", "Dyke 1")
    page.context.set_offline(True)
    page.get_by_role("button", name="Order and go on").click()
    expect(waiting).to_be_visible()
    waiting.get_by_role("button", name="Don't send it").click()
    expect(waiting).to_be_hidden()
    page.get_by_role("button", name="Order and go on").click()
    expect(waiting).to_be_visible()
    page.context.set_offline(False)
    expect(page.locator("[data-order-state=waiting]")).to_be_visible()
    open_page.harmless.append(NO_LINE)


def test_address_of_the_checkout_comes_back_until_the_order_is_made(open_page):
    page = bell_at_the_checkout(open_page)
    fill_checkout(page, "Tove Marsh", "tove@post.example", "Dyke 1")
    page.go_back()
    page.get_by_role("link", name="Go to the checkout").click()
    expect(page.get_by_label("Street and number").first).to_have_value("Dyke 1")
    page.get_by_role("button", name="Order and go on").click()
    expect(page.locator("[data-order-state=waiting]")).to_be_visible()
    assert page.evaluate("sessionStorage.getItem('form checkout')") is None


def test_without_scripts_entries_show_files_are_received_and_the_piece_is_ordered(chromium, quiet_workshop, tmp_path):
    (tmp_path / "otter.png").write_bytes(picture_bytes((900, 900)))
    context = chromium.new_context(viewport=WIDE, base_url=quiet_workshop.url, java_script_enabled=False)
    page = context.new_page()
    page.goto("/goods/deck-cushion/")
    page.fill("[data-field=words]", "Otter & Son")
    page.locator("[data-field=with-emblem] label", has_text="Yes").click()
    page.get_by_role("button", name="Show it", exact=True).click()
    expect(page.locator("#line-emblem")).to_be_visible()
    expect(page.locator("[data-field=words]")).to_have_value("Otter & Son")
    expect(page.locator("#ink-front path").first).to_be_attached()
    page.set_input_files("#line-emblem input[type=file]", tmp_path / "otter.png")
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator("#held-emblem .held-file")).to_contain_text("otter.png")
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator(".piece")).to_contain_text("Otter & Son")
    context.close()


def test_enter_key_in_a_line_neither_sends_the_piece_nor_changes_the_language(open_page):
    page = open_page("/goods/ships-bell/", language="de-DE")
    page.fill("[data-field=name]", "TERN")
    page.press("[data-field=name]", "Enter")
    kept(page)
    assert page.url.endswith("/goods/ships-bell/")
    assert page.evaluate("document.documentElement.lang") == "de"


def test_product_is_blank_again_after_its_piece_went_into_the_basket_right_after_a_key(open_page):
    page = open_page("/goods/ships-bell/")
    page.locator("[data-field=name]").press_sequentially("TERN")
    page.get_by_role("button", name="Put in the basket").click()
    expect(page.locator(".piece")).to_have_count(1)
    page.goto("/goods/ships-bell/")
    settled(page)
    expect(page.locator("[data-field=name]")).to_have_value("")
    page.go_back()
    page.go_back()
    expect(page.locator("[data-field=name]")).to_have_value("TERN")


def test_page_works_in_a_browser_that_stores_nothing(open_page):
    page = open_page("/")
    page.add_init_script("""for (const name of ["sessionStorage", "localStorage"]) Object.defineProperty(window, name, {
      get() { throw new DOMException("Denied", "SecurityError"); } });""")
    page.goto("/goods/ships-bell/")
    page.fill("[data-field=name]", "TERN")
    kept(page)
    page.reload()
    expect(page.locator("[data-field=name]")).to_have_value("TERN")
