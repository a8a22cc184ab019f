"""An album elsewhere: its owner opens it, and what is chosen lies on the goods, though it is slow and breaks off."""

import pytest
from playwright.sync_api import expect

from tests.story.conftest import settled
from tests.story.test_pages import found_by_axe


@pytest.mark.sweep
def test_photo_comes_from_an_album_that_is_slow_and_breaks(open_page):
    page = open_page("/goods/tide-clock/", expected=422)
    page.locator("[data-album]").first.click()
    album = page.get_by_role("dialog", name="From Gull Album")
    with page.context.expect_page() as opened:
        album.get_by_role("link", name="Open Gull Album").click()
    opened.value.get_by_role("button", name="Let it see them").click()
    expect(album.locator("[data-album-picture]")).to_have_count(24)
    assert found_by_axe(page) == []
    album.get_by_role("button", name="More pictures").click()
    expect(album.locator("[data-album-picture]")).to_have_count(48)
    album.get_by_role("button", name="More pictures").click()
    # That page fails once.
    again = album.get_by_role("button", name="Try again")
    expect(again.or_(album.locator("[data-album-picture=p59]"))).to_be_visible()
    if again.is_visible():
        again.click()
    expect(album.locator("[data-album-picture]")).to_have_count(60)
    album.locator("[data-album-picture=p5]").click()
    expect(page.get_by_text("did not come whole from Gull Album")).to_be_visible()
    page.locator("[data-album]").first.click()
    album.locator("[data-album-picture=p3]").click()
    expect(page.locator("[data-field=photo]")).to_contain_text("Evening sail 1.jpg")
    settled(page)
    expect(page.locator("[data-items]")).to_contain_text("Evening sail 1.jpg")
