import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board
from yenzo.core.documents.edits import OPERATIONS, apply_operations, free_key, value_at
from yenzo.core.errors import DocumentError

KEYS = ("name", "lettering", "with_photo", "photo", "wood", "finish")
operation = st.one_of(
    st.builds(
        lambda key, value: {"do": "set", "path": ["fields", key, "label"], "value": value},
        st.sampled_from(KEYS),
        st.none() | st.text(max_size=5),
    ),
    st.builds(lambda key: {"do": "remove", "path": ["fields"], "key": key}, st.sampled_from(KEYS)),
    st.builds(
        lambda key, at: {"do": "move", "path": ["fields"], "key": key, "position": at},
        st.sampled_from(KEYS),
        st.integers(0, 8),
    ),
    st.builds(
        lambda key, at: {"do": "add", "path": ["fields"], "item": {"key": key}, "position": at},
        st.sampled_from(("new", "newer")),
        st.none() | st.integers(0, 8),
    ),
)


@given(st.lists(operation, max_size=6))
def test_operations_and_their_way_back_restore_the_document(raw):
    document = board()
    try:
        changed, back = apply_operations(document, OPERATIONS.validate_python(raw))
    except DocumentError:
        return
    assert document == board()
    assert apply_operations(changed, back)[0] == document


def test_path_through_a_removed_item_is_refused_naming_it():
    edit = OPERATIONS.validate_python([{"do": "set", "path": ["fields", "gone", "label"], "value": "x"}])
    with pytest.raises(DocumentError, match="“gone” is no longer there"):
        apply_operations(board(), edit)


def test_set_creates_what_is_not_there_and_none_takes_it_away():
    edit = OPERATIONS.validate_python([{"do": "set", "path": ["fields", "name", "help"], "value": "Up to 18"}])
    changed, back = apply_operations(board(), edit)
    assert value_at(changed, ("fields", "name", "help")) == "Up to 18"
    assert value_at(apply_operations(changed, back)[0], ("fields", "name", "help")) is None


@pytest.mark.parametrize(
    ("wanted", "key"), [("Name", "name-2"), ("Home port", "home-port"), ("Ünïcode", "n-code"), ("船", "item")]
)
def test_free_key_is_readable_and_not_taken(wanted, key):
    assert free_key(board(), ("fields",), wanted) == key
