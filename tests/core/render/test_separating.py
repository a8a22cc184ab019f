"""Plates of a scene against outside programs, as `make fuzz` measures many."""

import pytest

from tests.separating import at_random, is_well, worst
from tests.sweeping import seed_of, shards


@pytest.mark.parametrize("part", shards(12, in_test=0))
def test_plates_of_random_scenes_have_their_edges_and_their_ink_where_outside_programs_find_them(
    part, assets, tmp_path
):
    largest, count = worst(at_random(1, seed_of(part * 50), assets), tmp_path)
    assert count > 2
    assert {"svg mm", "svg percent", "separation percent"} <= set(largest)
    assert is_well(largest), largest
