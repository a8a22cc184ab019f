"""Goods in their customer's own size: variants with scale and areas of their own, sides that follow an entry."""

import pytest

from tests.core.conftest import board, entries
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate


def sized(*variants, **side):
    document = board()
    document["offer"]["variants"] = [{"key": "plain", "name": "Plain"}, *variants]
    document["sides"][0].update(side)
    document["fields"].append({"key": "wide", "kind": "number", "label": "Wide", "unit": "cm"})
    document["fields"].append(
        {"key": "twice", "kind": "computed", "label": "Twice", "unit": "m", "formula": "wide / 50", "decimals": 2}
    )
    return document


def large(length_mm=1400, **areas):
    scale = {"start_px": [0, 0], "end_px": [1400, 0], "length_mm": length_mm}
    return {
        "key": "large",
        "name": "Large",
        "scales": {"front": scale},
        **({"areas": {"front": areas}} if areas else {}),
    }


def front(assets, document, *, variant=None, **values):
    given = entries({"name": "Otter", **values}, **({"variant": variant} if variant else {}))
    evaluation = evaluate(read_setup(document), given, assets)
    return evaluation, evaluation.scene.side("front")


def frame(side, key="panel"):
    area = next(area.area for area in side.areas if area.area.key == key)
    return area.x_mm, area.y_mm, area.width_mm, area.height_mm


def test_variant_with_its_own_scale_has_larger_goods_areas_and_letters(assets):
    _, plain = front(assets, sized(large()))
    evaluation, side = front(assets, sized(large()), variant="large")
    assert (plain.width_mm, side.width_mm, side.height_mm) == (700, 1400, 440)
    assert frame(plain) == (80, 38, 540, 98)
    assert frame(side) == (160, 76, 1080, 196)
    # The letters stay within their own bounds: only the room for them has grown.
    (text,) = evaluation.scene.side("front").areas[0].letterings
    assert text.letter_height_mm == pytest.approx(80)


def test_area_that_a_variant_puts_elsewhere_lies_there_and_the_others_follow_the_picture(assets):
    document = sized(large(panel={"x_mm": 10, "y_mm": 20, "width_mm": 300, "height_mm": 60}))
    _, side = front(assets, document, variant="large")
    assert frame(side) == (10, 20, 300, 60)
    assert frame(side, "photo") == (20, 280, 160, 120)
    _, plain = front(assets, document)
    assert frame(plain) == (80, 38, 540, 98)


def test_entry_says_how_wide_the_goods_are_in_its_own_unit(assets):
    document = sized(width_by={"field": "wide", "shown_mm": 700})
    _, side = front(assets, document, wide="140")
    assert (side.width_mm, side.height_mm) == (1400, 220)
    assert frame(side) == (160, 38, 1080, 98)
    for nothing in ("", "none", "0", "-5"):
        _, side = front(assets, document, wide=nothing)
        assert side.width_mm >= 35
    _, side = front(assets, document, wide="999999999")
    assert side.width_mm == 14_000


def test_computed_value_sets_a_dimension(assets):
    document = sized(height_by={"field": "twice", "shown_mm": 220})
    evaluation, side = front(assets, document, wide="22")
    assert side.height_mm == pytest.approx(440)
    assert frame(side) == (80, 76, 540, 196)
    assert evaluation.asked.text("twice") == "0.44"


def test_safe_margin_never_eats_a_small_area(assets):
    document = sized(width_by={"field": "wide", "shown_mm": 700}, height_by={"field": "wide", "shown_mm": 700})
    evaluation, side = front(assets, document, wide="2")
    area = side.areas[0].area
    assert 2 * area.safe_mm < area.height_mm
    assert evaluation.verdict.blocked


def test_variant_and_entry_work_together_and_the_digest_tells_sizes_apart(assets):
    document = sized(large(), width_by={"field": "wide", "shown_mm": 700})
    _, side = front(assets, document, variant="large", wide="140")
    assert side.width_mm == 2800
    assert frame(side) == (320, 76, 2160, 196)
    assert len({front(assets, document, wide=wide)[1].digest for wide in ("70", "71", "140")}) == 3


def test_price_by_size_follows(assets):
    document = sized(large())
    document["charges"] = [{"key": "cm2", "kind": "per_cm2", "field": "name", "amount": "0.01", "measured": "area"}]
    plain, _ = front(assets, document)
    grown, _ = front(assets, document, variant="large")
    assert grown.amounts.of("name").area_cm2 == 4 * plain.amounts.of("name").area_cm2


@pytest.mark.parametrize(
    ("document", "said"),
    [
        (sized({**large(), "scales": {"back": large()["scales"]["front"]}}), "has a scale for the side “back”"),
        (sized(large(lid={"x_mm": 0, "y_mm": 0, "width_mm": 1, "height_mm": 1})), "moves the area “front / lid”"),
        (sized(width_by={"field": "name", "shown_mm": 1}), "which is no number"),
        (sized(height_by={"field": "gone", "shown_mm": 1}), "which is no number"),
    ],
)
def test_sizes_of_what_is_not_there_are_faults(document, said):
    with pytest.raises(DocumentError, match=said):
        read_setup(document)


def test_entry_in_no_unit_of_length_is_a_fault():
    document = sized(width_by={"field": "wide", "shown_mm": 700})
    document["fields"][-2]["unit"] = "kg"
    with pytest.raises(DocumentError, match="“kg” is no unit of length"):
        read_setup(document)
