"""Sections of the order form: added, edited, moved, removed, with their lines."""

import io

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.core.conftest import picture_bytes
from yenzo.apps.catalogue.models import Product
from yenzo.apps.catalogue.to_core import setup_of_draft


@pytest.fixture
def page(sign_in, product):
    seller = sign_in("seller")

    def post(address, **values):
        return seller.post(f"/workshop/products/board/{address}", values)

    return post


def setup():
    return setup_of_draft(Product.objects.get(key="board"))


def test_section_takes_a_title_a_rule_and_lines_and_gives_them_back(page):
    assert "Section 1" in page("sections/").content.decode()
    key = setup().sections[0].key
    said = page(f"sections/{key}/title/", title="Looks", introduction="How it looks").content.decode()
    assert "introduced by “How it looks”" in said
    rule = {"match": "all", "inner-match": "any", "test-0": "with_photo is yes"}
    assert "With a photo is yes" in page(f"sections/{key}/ask-when/", **rule).content.decode()
    page("lines/wood/stands/", section=key, width="half")
    assert setup().field("wood").section == key
    page("form/shown/", shown="pages", finish_pages="on")
    assert setup().form.shown == "pages"
    page(f"sections/{key}/remove/")
    assert setup().sections == ()
    assert setup().field("wood").section is None
    assert "can't" not in page("undo/").content.decode()
    assert setup().field("wood").section == key


def test_line_that_is_moved_onto_a_line_of_another_section_joins_it(page):
    page("sections/")
    key = setup().sections[0].key
    page("lines/finish/stands/", section=key, width="full")
    last = len(setup().fields) - 1
    page("lines/name/move/", position=str(last))
    assert setup().field("name").section == key
    assert [field.key for field in setup().fields_of(key)] == ["finish", "name"]


def test_section_moves_up(page):
    page("sections/")
    page("sections/")
    first, second = (section.key for section in setup().sections)
    page(f"sections/{second}/up/")
    assert [section.key for section in setup().sections] == [second, first]


def test_picture_of_a_choice_is_kept_shown_and_taken_away(page, client):
    sent = SimpleUploadedFile("oak.png", picture_bytes((60, 40)), "image/png")
    looks = {"shown": "pictures", "swatch-cedar": "", "swatch-oak": "#8a6420"}
    said = page("lines/wood/looks/", **looks, **{"picture-oak": sent}).content.decode()
    assert "as pictures with 1 picture" in said
    oak = setup().field("wood").option("oak")
    assert oak.swatch == "#8a6420"
    assert client.get(f"/goods-pictures/{oak.picture.asset}/").status_code == 200
    page("lines/wood/looks/", **looks, **{"bare-oak": "on"})
    assert setup().field("wood").option("oak").picture is None


def test_file_that_is_no_picture_is_refused_in_the_form(page):
    lying = SimpleUploadedFile("oak.png", io.BytesIO(b"not a picture").read(), "image/png")
    answer = page("lines/wood/looks/", shown="pictures", **{"picture-oak": lying})
    assert answer.status_code == 422
    assert "oak.png" in answer.content.decode()
