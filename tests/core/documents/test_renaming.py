import pytest

from tests.core.conftest import board
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.renaming import followed_wording, named_before


@pytest.mark.parametrize(
    ("before", "after", "found"),
    [
        (["a", "b", "c"], ["a", "b", "c"], [0, 1, 2]),
        (["a", "b", "c"], ["a", "B", "c"], [0, 1, 2]),
        (["a", "b", "c"], ["c", "a", "b"], [2, 0, 1]),
        (["a", "b"], ["a", "new", "b"], [0, None, 1]),
        (["a", "b", "c"], ["a", "c"], [0, 2]),
        (["a", "b"], ["A", "B"], [0, 1]),
        # Two that became one are two that went: nobody can tell which one stays.
        (["a", "b", "c"], ["x", "c"], [None, 2]),
        (["a", "b"], ["b", "A"], [1, None]),
        ([], ["a"], [None]),
        (["a"], [], []),
    ],
)
def test_names_are_told_apart_by_place_where_their_words_changed(before, after, found):
    assert named_before(before, after) == found


def test_translation_stays_with_what_is_still_called_so_elsewhere():
    document = {**board(), "wording": {"de": {"Photo": "Foto", "Wood": "Holz"}}}
    before = read_setup(document)
    changed = board() | {"wording": document["wording"]}
    changed["fields"][3]["label"] = "Your photo"
    after = read_setup(changed)
    # An area is called “Photo” as well.
    assert followed_wording(before, after) == {"de": {"Photo": "Foto", "Your photo": "Foto", "Wood": "Holz"}}
