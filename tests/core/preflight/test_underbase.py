"""White under colors: told where it can't be narrower than the color."""

import pytest

from tests.core.conftest import board, entries
from yenzo.core.documents.materials import Method
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.preflight.checks.underbase import find_white_edges
from yenzo.core.preflight.verdict import judge


@pytest.fixture
def panel(assets):
    scene = evaluate(read_setup(board()), entries({"name": "Tern"}), assets).scene
    return next(area for area in scene.areas if area.letterings)


@pytest.mark.parametrize(
    ("underbase_mm", "found"), [(None, []), (0.4, []), (0, []), (-0.3, []), (-5.0, []), (-60.0, ["white_edge"])]
)
def test_white_that_cant_be_narrower_is_told_and_blocks_nothing(panel, underbase_mm, found):
    method = Method.model_construct(
        **{**Method(name="Transfer", done="printed").__dict__, "underbase_mm": underbase_mm}
    )
    told = list(find_white_edges(panel, method))
    assert [finding.code for finding in told] == found
    assert not judge([], told).blocked
