"""What can be changed by hand is told anew where the words for it are others, though it lies where it lay."""

import pytest
from django.utils.translation import override

from tests.core.conftest import GOODS, TYPEFACES
from tests.core.scene.test_own_items import evaluated, own_board, sent, text
from yenzo.apps.slip.hands import movable_items
from yenzo.core.documents.assets import FolderAssets


@pytest.fixture(scope="module")
def assets(tmp_path_factory):
    folder = tmp_path_factory.mktemp("assets")
    (folder / "goods.png").write_bytes(GOODS)
    return FolderAssets([folder, TYPEFACES])


def said(one):
    [item] = movable_items(one, "")
    return item.said


def test_what_stays_where_it_lies_is_told_to_each_reader_in_their_language(assets):
    one = evaluated(own_board(), sent(text()), assets)
    english = said(one)
    assert "mm high" in english
    with override("de"):
        assert "mm hoch" in said(one)
    assert said(one) == english
    assert said(evaluated(own_board(), sent(text()), assets)) == english


def test_what_stays_where_it_lies_is_told_with_the_name_that_its_area_has_now(assets):
    document = own_board()
    assert "of Panel" in said(evaluated(document, sent(text()), assets))
    document["sides"][0]["areas"][0]["name"] = "Lid"
    assert "of Lid" in said(evaluated(document, sent(text()), assets))


def test_what_is_held_is_told_with_all_that_can_be_chosen_for_it_and_alone(assets):
    one = evaluated(own_board(), sent(text()), assets)
    [item] = movable_items(one, "")
    [movable] = movable_items(one, item.key)
    assert movable.colors
    assert not item.colors
    assert movable_items(one, "") == (item,)
