"""Random documents, each through one of the back-ends; a sweep tries 800, `make fuzz` ten thousand.

That has the slow ones too: number 47, whose dots make a DXF file of 180,000 points, takes as long as all of these.
"""

import pytest

from tests.fuzzing import run, shelf
from tests.sweeping import shards
from yenzo.core.render.files import FORMATS

BATCH = 20


@pytest.mark.parametrize("part", shards(40))
def test_random_documents_give_files_or_errors_of_ours(part, tmp_path):
    assets, first = shelf(tmp_path), part * BATCH
    outcomes = [run(seed, assets, (FORMATS[seed % len(FORMATS)],)) for seed in range(first, first + BATCH)]
    assert sum(files for files, _ in outcomes) > BATCH
