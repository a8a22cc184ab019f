"""Parts of a page: what was seen comes in; what differs goes out."""

import pytest

from yenzo.apps.slip.told_apart import Parts, parts_of, read_parts

NOW = parts_of("ink-front", "frame", ["one", "two", "three"])


def test_what_is_told_is_read_as_it_was():
    other = parts_of("under-front", "", [])
    assert read_parts(f"{NOW.told} {other.told}") == {"ink-front": NOW, "under-front": other}


@pytest.mark.parametrize(
    ("seen", "changed"),
    [
        (NOW, ()),
        (parts_of("ink-front", "frame", ["one", "2", "three"]), (1,)),
        (parts_of("ink-front", "frame", ["three", "two", "one"]), (0, 2)),
        (parts_of("ink-front", "frame", ["one", "two"]), None),
        (parts_of("ink-front", "another", ["one", "two", "three"]), None),
        (parts_of("ink-back", "frame", ["one", "two", "three"]), None),
    ],
)
def test_parts_that_differ_are_told_and_all_of_it_where_its_frame_does(seen, changed):
    assert NOW.changed(read_parts(seen.told)) == changed


@pytest.mark.parametrize("told", ["", "ink-front", "ink-front:", "::", ":,,:,", "ink-front:\x00:,"])
def test_what_cannot_be_read_is_not_seen(told):
    assert NOW.changed(read_parts(told)) is None
    assert isinstance(next(iter(read_parts(told).values()), NOW), Parts)
