"""Plates of a scene against outside programs, as `make fuzz` measures many."""

from tests.separating import at_random, is_well, worst


def test_plates_have_their_edges_and_their_ink_where_outside_programs_find_them(assets, tmp_path):
    largest, count = worst(at_random(1, 0, assets), tmp_path)
    assert count > 2
    assert {"svg mm", "svg percent", "separation percent"} <= set(largest)
    assert is_well(largest), largest
