import pytest

from yenzo.apps.products.services.drafts import MOST_SAID, StaleEditError, edit_draft, redo_edit, undo_edit
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.core.errors import DocumentError


def set_label(value):
    return [{"do": "set", "path": ["fields", "name", "label"], "value": value}]


def set_price(value):
    return [{"do": "set", "path": ["offer", "base_price"], "value": value}]


def label_of(product):
    product.refresh_from_db()
    return next(field["label"] for field in product.draft["fields"] if field["key"] == "name")


def test_stale_edit_of_the_same_value_is_refused_showing_both(actors, product):
    edit_draft(actors["owner"], product.pk, set_label("Ship"), seen_version=0, label="Label")
    with pytest.raises(StaleEditError, match=r"Owner changed this.*“Ship”.*“Vessel”"):
        edit_draft(actors["seller"], product.pk, set_label("Vessel"), seen_version=0, label="Label")
    assert label_of(product) == "Ship"


def test_stale_edit_of_another_value_goes_through(actors, product):
    edit_draft(actors["owner"], product.pk, set_label("Ship"), seen_version=0, label="Label")
    edit_draft(actors["seller"], product.pk, set_price("90.00"), seen_version=0, label="Price")
    assert (label_of(product), product.draft["offer"]["base_price"]) == ("Ship", "90.00")


def test_removing_what_somebody_else_changed_is_stale_too(actors, product):
    edit_draft(actors["owner"], product.pk, set_label("Ship"), seen_version=0, label="Label")
    remove = [{"do": "remove", "path": ["fields"], "key": "name"}]
    with pytest.raises(StaleEditError):
        edit_draft(actors["seller"], product.pk, remove, seen_version=0, label="Removed")


def test_edit_that_makes_no_readable_setup_changes_nothing(owner, product):
    with pytest.raises(DocumentError, match="A placement waits for the field “name”"):
        edit_draft(owner, product.pk, [{"do": "remove", "path": ["fields"], "key": "name"}], seen_version=0, label="x")
    product.refresh_from_db()
    assert (product.draft_version, product.edits.count(), label_of(product)) == (0, 0, "Name of the boat")


def test_undo_and_redo_are_each_persons_own(actors, product):
    edit_draft(actors["owner"], product.pk, set_label("Ship"), seen_version=0, label="Label")
    edit_draft(actors["seller"], product.pk, set_price("90.00"), seen_version=1, label="Price")
    assert undo_edit(actors["owner"], product.pk) == "Label"
    assert (label_of(product), product.draft["offer"]["base_price"]) == ("Name of the boat", "90.00")
    assert redo_edit(actors["owner"], product.pk) == "Label"
    assert label_of(product) == "Ship"
    with pytest.raises(DocumentError, match="nothing to do again"):
        redo_edit(actors["owner"], product.pk)


def test_undo_is_refused_when_somebody_changed_the_same_since(actors, product):
    edit_draft(actors["owner"], product.pk, set_label("Ship"), seen_version=0, label="Label")
    edit_draft(actors["seller"], product.pk, set_label("Vessel"), seen_version=1, label="Other label")
    with pytest.raises(StaleEditError, match="Seller changed the same since"):
        undo_edit(actors["owner"], product.pk)
    assert label_of(product) == "Vessel"


def test_edit_that_changes_nothing_is_no_step_and_what_was_taken_back_can_still_be_done_again(owner, product):
    edit_draft(owner, product.pk, set_label("Ship"), seen_version=0, label="Label")
    undo_edit(owner, product.pk)
    product.refresh_from_db()
    before = product.draft_version
    same = [*set_label("Name of the boat"), *set_price(product.draft["offer"]["base_price"])]
    assert edit_draft(owner, product.pk, same, seen_version=before, label="Same").draft_version == before
    assert product.edits.count() == 1
    assert redo_edit(owner, product.pk) == "Label"
    assert label_of(product) == "Ship"


def test_new_edit_drops_what_could_be_done_again(owner, product):
    edit_draft(owner, product.pk, set_label("Ship"), seen_version=0, label="Label")
    undo_edit(owner, product.pk)
    product.refresh_from_db()
    edit_draft(owner, product.pk, set_price("90.00"), seen_version=product.draft_version, label="Price")
    with pytest.raises(DocumentError, match="nothing to do again"):
        redo_edit(owner, product.pk)


def test_undoing_everything_leads_back_to_the_very_draft(owner, product):
    before = product.draft
    steps = [
        set_label("Ship"),
        [{"do": "move", "path": ["fields"], "key": "wood", "position": 0}],
        [{"do": "remove", "path": ["charges"], "key": "wood"}, {"do": "remove", "path": ["fields"], "key": "wood"}],
        [{"do": "add", "path": ["fields"], "item": {"key": "gift", "kind": "yes_no", "label": "Gift"}, "position": 1}],
    ]
    for version, step in enumerate(steps):
        edit_draft(owner, product.pk, step, seen_version=version, label="step")
    for _ in steps:
        undo_edit(owner, product.pk)
    product.refresh_from_db()
    assert product.draft == before


def test_edit_that_makes_no_sense_is_refused_and_one_that_mends_it_is_taken(owner, product):
    below_zero = {"do": "set", "path": ["charges", "finish", "amounts"], "value": {"gold": "-900"}}
    with pytest.raises(DocumentError, match="can push the price below zero"):
        edit_draft(owner, product.pk, [below_zero], seen_version=0, label="x")
    never = {"conditions": [{"field": "wood", "value": "oak"}, {"field": "wood", "value": "cedar"}]}
    rule = {"do": "set", "path": ["fields", "photo", "ask_when"], "value": never}
    with pytest.raises(DocumentError, match="is asked never, whatever is entered for “Wood”"):
        edit_draft(owner, product.pk, [rule], seen_version=0, label="x")
    # A draft that came to be like that otherwise can be edited, but not published.
    product.draft["charges"][3]["amounts"] = {"gold": "-900"}
    product.save()
    edited = edit_draft(
        owner, product.pk, [{"do": "set", "path": ["offer", "story"], "value": "New"}], seen_version=0, label="x"
    )
    with pytest.raises(DocumentError, match="can push the price below zero"):
        publish_setup(owner, product.pk, seen_version=edited.draft_version)


def test_stale_edit_is_found_behind_others_that_touched_something_else(actors, product):
    edit_draft(actors["owner"], product.pk, set_price("90.00"), seen_version=0, label="Price")
    edit_draft(actors["owner"], product.pk, set_label("Ship"), seen_version=1, label="Label")
    with pytest.raises(StaleEditError, match="“Ship”"):
        edit_draft(actors["seller"], product.pk, set_label("Vessel"), seen_version=0, label="Label")


@pytest.mark.parametrize("over", [0, 1])
def test_long_value_that_stands_there_is_cut_where_it_says_so(actors, product, over):
    there, yours = (
        [{"do": "set", "path": ["fields", "name", "help"], "value": value}] for value in ("x" * (MOST_SAID + over), "y")
    )
    edit_draft(actors["owner"], product.pk, there, seen_version=0, label="Help")
    with pytest.raises(StaleEditError) as refused:
        edit_draft(actors["seller"], product.pk, yours, seen_version=0, label="Help")
    assert f"There now: “{'x' * MOST_SAID}{'…' * over}”" in refused.value.message


def test_whoever_changed_the_same_last_is_named_when_an_undo_is_refused(actors, product):
    edit_draft(actors["owner"], product.pk, set_label("Ship"), seen_version=0, label="Label")
    edit_draft(actors["seller"], product.pk, set_label("Vessel"), seen_version=1, label="Second")
    edit_draft(
        actors["desk"].__class__("owner", "Desk", actors["desk"].person),
        product.pk,
        set_label("Boat"),
        seen_version=2,
        label="Third",
    )
    with pytest.raises(StaleEditError, match=r"Desk changed the same since \(“Third”\)"):
        undo_edit(actors["owner"], product.pk)
