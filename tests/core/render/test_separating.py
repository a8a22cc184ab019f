"""Plates of random scenes against outside programs: a sweep measures a dozen, `make fuzz` many."""

import pytest

from tests.separating import at_random, is_well, worst
from tests.sweeping import shards


@pytest.mark.sweep
def test_plates_have_their_edges_and_their_ink_where_outside_programs_find_them(assets, tmp_path):
    largest, count = worst(at_random(1, 0, assets), tmp_path)
    assert count > 2
    assert {"svg mm", "svg percent", "separation percent"} <= set(largest)
    assert is_well(largest), largest


@pytest.mark.parametrize("part", shards(12, in_test=0))
def test_plates_of_one_more_scene_are_where_outside_programs_find_them(part, assets, tmp_path):
    # What there is to measure differs: not each scene has separations.
    largest, count = worst(at_random(1, 50 * (part + 1), assets), tmp_path)
    assert count
    assert is_well(largest), largest
