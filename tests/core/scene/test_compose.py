import pytest

from tests.core.conftest import board, entries, upload
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate


def area(setup, assets, key, values, **others):
    evaluation = evaluate(setup, entries(values, **others), assets)
    return next(area for area in evaluation.scene.areas if area.key == key)


def test_text_fills_the_safe_area_centered(setup, assets):
    panel = area(setup, assets, "panel", {"name": "Wind & Whey Lady Jane"})
    ink = next(panel.letterings).outline.bounds
    assert (ink.left, ink.right) == (pytest.approx(4), pytest.approx(536))
    assert ink.middle[1] == pytest.approx(49)


def test_cover_fills_the_bleed_and_contain_stays_in_the_safe_area(setup, assets):
    values, files = {"name": "A", "with_photo": True}, {"photo": upload()}
    covering = next(area(setup, assets, "photo", values, uploads=files).pictures)
    assert covering.size_mm == (pytest.approx(96), pytest.approx(64))
    document = board()
    document["placements"][1]["fit"] = "contain"
    fitting = next(area(read_setup(document), assets, "photo", values, uploads=files).pictures)
    assert fitting.size_mm == (pytest.approx(72), pytest.approx(48))


def test_hidden_upload_reaches_no_scene(setup, assets):
    photo = area(setup, assets, "photo", {"name": "A", "with_photo": False}, uploads={"photo": upload()})
    assert photo.nodes == ()


def test_digest_changes_with_what_shows_and_only_then(setup, assets):
    def digest(values, **others):
        return evaluate(setup, entries(values, **others), assets).scene.side("front").digest

    assert digest({"name": "tern"}) == digest({"name": "TERN "})
    assert digest({"name": "tern", "wood": "oak"}) == digest({"name": "tern"})
    assert len({digest({"name": name, "finish": f}) for name in ("tern", "tiller") for f in ("gold", "white")}) == 4


def test_adjustment_moves_scales_and_turns_about_the_middle(assets):
    document = board()
    document["placements"][0]["free"] = {"move": True, "turn_deg": 90, "scale": {"least": 0.25}}
    setup = read_setup(document)
    before = next(area(setup, assets, "panel", {"name": "TERN"}).letterings)
    moves = {"name": {"shift_mm": [10, -5], "scale": 0.25, "turn_deg": 90}}
    after = next(area(setup, assets, "panel", {"name": "TERN"}, adjustments=moves).letterings)
    old, new = before.outline.bounds, after.outline.bounds
    assert new.middle == (pytest.approx(old.middle[0] + 10), pytest.approx(old.middle[1] - 5))
    assert (new.width, new.height) == (pytest.approx(old.height / 4), pytest.approx(old.width / 4))
    assert after.letter_height_mm == pytest.approx(before.letter_height_mm / 4)


def test_side_without_scale_has_no_millimetres_yet(assets):
    document = board()
    del document["sides"][0]["scale"]
    assert evaluate(read_setup(document), entries({"name": "A"}), assets).scene.sides == ()
