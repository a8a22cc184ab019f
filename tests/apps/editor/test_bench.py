import re

import pytest

from tests.core.conftest import GOODS, TYPEFACES, board, sha256_of
from yenzo.apps.editor.bench import lay_out
from yenzo.apps.products.listing import asks_words, yours_words
from yenzo.core.documents.assets import FolderAssets
from yenzo.core.documents.reading import read_setup

ASSETS = FolderAssets([TYPEFACES])


def two_sides(second_scale=True):
    document = board()
    back = {"key": "back", "name": "Back", "picture": {"asset": sha256_of(GOODS), "width_px": 1400, "height_px": 440}}
    if second_scale:
        back["scale"] = {"start_px": [0, 0], "end_px": [140, 0], "length_mm": 35}
    document["sides"].append(back)
    return document


def ruler_marks(bench):
    return [float(x) for x in re.findall(r"M([\d.]+) [-\d.]+v", bench.ruler_path)]


def test_sides_stand_next_to_each_other_at_one_true_scale():
    front, back = lay_out(read_setup(two_sides()), "", ASSETS).sides
    assert (front.left_mm, front.width_mm, front.height_mm) == (0, 700, 220)
    assert (back.width_mm, back.height_mm) == (350, 110)
    assert back.left_mm > 700


def test_numbers_of_the_ruler_stand_at_their_millimetres():
    bench = lay_out(read_setup(board()), "", ASSETS)
    numbered = [tick for tick in bench.ticks if tick.label]
    assert [float(tick.label) for tick in numbered] == [tick.at_mm for tick in numbered]
    assert ruler_marks(bench) == [tick.at_mm for tick in bench.ticks]
    assert bench.ticks[-1].at_mm <= bench.width_mm < bench.ticks[-1].at_mm + bench.ticks[1].at_mm


def test_crop_ticks_point_away_from_the_corners_of_their_area():
    bench = lay_out(read_setup(board()), "front/panel", ASSETS)
    panel = bench.sides[0].areas[0]
    assert panel.is_selected
    assert [handle[1:] for handle in panel.handles] == [(80, 38), (620, 38), (620, 136), (80, 136)]
    ends = [tuple(map(float, pair)) for pair in re.findall(r"M([\d.]+) ([\d.]+)[hv]", panel.ticks)]
    assert len(ends) == 8
    assert all(not (80 < x < 620 and 38 < y < 136) for x, y in ends)


def test_side_without_a_scale_waits_beside_the_bench():
    bench = lay_out(read_setup(two_sides(second_scale=False)), "", ASSETS)
    assert ([side.side.key for side in bench.sides], [side.key for side in bench.unscaled]) == (["front"], ["back"])


def test_bench_shows_what_lands_with_sample_entries_and_nothing_without():
    document = board()
    assert "<path" not in lay_out(read_setup(document), "", ASSETS).sides[0].ink
    document["fields"][0]["sample"] = "OTTER"
    assert "<path" in lay_out(read_setup(document), "", ASSETS).sides[0].ink


def test_product_without_sides_has_an_empty_bench_and_still_asks():
    document = {
        "schema": "yenzo-setup/1",
        "offer": {"name": "Pass", "base_price": "3.00"},
        "fields": board()["fields"][:1],
    }
    setup = read_setup(document)
    assert lay_out(setup, "", ASSETS).sides == ()
    assert (asks_words(setup), yours_words(field.kind for field in setup.fields)) == ("1 text", "Your words")


@pytest.mark.parametrize("count", [0, 1, 2])
def test_words_of_the_list_count_in_correct_english(count):
    document = board()
    document["placements"], document["charges"] = [], []
    document["fields"] = [{"key": f"line-{n}", "kind": "line", "label": f"Line {n}"} for n in range(count)]
    assert asks_words(read_setup(document)) == {0: "carved", 1: "1 text, carved", 2: "2 texts, carved"}[count]
