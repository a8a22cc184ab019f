"""Parts of a page: what was seen comes in; what differs goes out."""

import pytest

from yenzo.apps.slip.fingerprints import Fingerprints, fingerprints_of, read_fingerprints

NOW = fingerprints_of("ink-front", "frame", ["one", "two", "three"])


def test_what_is_told_is_read_as_it_was():
    other = fingerprints_of("under-front", "", [])
    assert read_fingerprints(f"{NOW.token} {other.token}") == {"ink-front": NOW, "under-front": other}


@pytest.mark.parametrize(
    ("seen", "changed"),
    [
        (NOW, ()),
        (fingerprints_of("ink-front", "frame", ["one", "2", "three"]), (1,)),
        (fingerprints_of("ink-front", "frame", ["three", "two", "one"]), (0, 2)),
        (fingerprints_of("ink-front", "frame", ["one", "two"]), None),
        (fingerprints_of("ink-front", "another", ["one", "two", "three"]), None),
        (fingerprints_of("ink-back", "frame", ["one", "two", "three"]), None),
    ],
)
def test_parts_that_differ_are_told_and_all_of_it_where_its_frame_does(seen, changed):
    assert NOW.changed(read_fingerprints(seen.token)) == changed


@pytest.mark.parametrize("token", ["", "ink-front", "ink-front:", "::", ":,,:,", "ink-front:\x00:,"])
def test_what_cannot_be_read_is_not_seen(token):
    assert NOW.changed(read_fingerprints(token)) is None
    assert isinstance(next(iter(read_fingerprints(token).values()), NOW), Fingerprints)
