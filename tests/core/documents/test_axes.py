import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.conftest import board
from yenzo.core.documents.axes import Axis, combinations, variant_at
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.variants import Variant
from yenzo.core.documents.wording import in_language
from yenzo.core.errors import DocumentError

SIZE = {"key": "size", "name": "Size", "values": [{"key": "s", "name": "Small"}, {"key": "l", "name": "Large"}]}
CLOTH = {"key": "cloth", "name": "Cloth", "values": [{"key": "navy", "name": "Navy"}, {"key": "sand", "name": "Sand"}]}


def variant(size, cloth):
    return {"key": f"{size}-{cloth}", "name": f"{size} {cloth}", "at": {"size": size, "cloth": cloth}}


def offered(*places, axes=(SIZE, CLOTH)):
    document = board()
    document["offer"].update(axes=list(axes), variants=[variant(*place) for place in places])
    return document


def at(size, cloth, before=None, places=(("s", "navy"), ("s", "sand"), ("l", "navy"))):
    variants = [Variant.model_validate(variant(*place)) for place in places]
    now = next((one for one in variants if one.key == before), None)
    return variant_at(variants, {"size": size, "cloth": cloth}, now).key


def test_combinations_run_along_the_last_axis_first():
    axes = [Axis.model_validate(axis) for axis in (SIZE, CLOTH)]
    assert [(size.key, cloth.key) for size, cloth in combinations(axes)] == [
        ("s", "navy"),
        ("s", "sand"),
        ("l", "navy"),
        ("l", "sand"),
    ]


def test_variant_is_the_one_at_what_is_picked():
    assert at("s", "sand") == "s-sand"
    assert at("l", "navy", before="s-sand") == "l-navy"


def test_what_was_picked_last_counts_where_a_combination_is_not_made():
    assert at("l", "sand", before="s-sand") == "l-navy"
    assert at("l", "sand", before="l-navy") == "s-sand"
    assert at("none", "of these") == "s-navy"


@given(
    st.lists(st.tuples(st.sampled_from("sml"), st.sampled_from("nrb")), min_size=1, max_size=9, unique=True),
    st.tuples(st.sampled_from("sml"), st.sampled_from("nrb")),
    st.integers(0, 8),
)
def test_there_is_always_a_variant_and_a_combination_that_is_made_is_found(places, wanted, before):
    variants = [Variant.model_validate(variant(*place)) for place in places]
    found = variant_at(variants, dict(zip(("size", "cloth"), wanted, strict=True)), variants[before % len(variants)])
    assert found is not None
    assert (tuple(found.at.values()) == wanted) == (wanted in places)


@pytest.mark.parametrize(
    ("document", "said"),
    [
        (offered(("s", "plaid")), "has no Cloth; say which"),
        (offered(("s", "navy"), axes=(SIZE,)), "stands on the axis “cloth”, which isn't there"),
        (offered(("s", "navy"), axes=(SIZE, CLOTH, SIZE)), "“size” is there 2 times"),
    ],
)
def test_axes_that_contradict_variants_are_faults(document, said):
    with pytest.raises(DocumentError, match=said):
        read_setup(document)


def test_two_variants_at_one_place_are_a_fault():
    document = offered(("s", "navy"), ("s", "navy"))
    document["offer"]["variants"][1].update(key="twin", name="Twin")
    with pytest.raises(DocumentError, match="differ in nothing"):
        read_setup(document)


def test_axes_are_read_in_other_languages():
    setup = in_language(
        read_setup({**offered(("s", "navy")), "wording": {"de": {"Size": "Größe", "Small": "Klein"}}}), "de"
    )
    assert (setup.offer.axes[0].name, setup.offer.axes[0].values[0].name) == ("Größe", "Klein")
