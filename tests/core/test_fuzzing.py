"""Some random documents; `make fuzz` runs ten thousand."""

import pytest

from tests.fuzzing import run, shelf


@pytest.mark.parametrize("first", range(0, 40, 8))
def test_random_documents_give_files_or_errors_of_ours(first, tmp_path):
    assets = shelf(tmp_path)
    outcomes = [run(seed, assets) for seed in range(first, first + 8)]
    assert sum(files for files, _ in outcomes) > 8
