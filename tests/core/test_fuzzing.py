"""Sixty random documents, each through one of the back-ends; `make fuzz` runs ten thousand through all.

That has the slow ones too: number 47, whose dots make a DXF file of 180,000 points, takes as long as all of these.
"""

import pytest

from tests.fuzzing import run, shelf
from yenzo.core.render.files import FORMATS

BATCH = 20


@pytest.mark.parametrize("first", [0, 20, 60])
def test_random_documents_give_files_or_errors_of_ours(first, tmp_path):
    assets = shelf(tmp_path)
    outcomes = [run(seed, assets, (FORMATS[seed % len(FORMATS)],)) for seed in range(first, first + BATCH)]
    assert sum(files for files, _ in outcomes) > BATCH
