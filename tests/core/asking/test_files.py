"""Fields that take several files."""

import pytest

from tests.core.conftest import board, entries, upload
from yenzo.core.asking.ask import Asked, ask
from yenzo.core.documents.entries import files_of
from yenzo.core.documents.reading import read_setup
from yenzo.core.errors import DocumentError
from yenzo.core.evaluation import evaluate


def many(*, nth=(1, 2), **bounds):
    """A board whose photo field takes several files, placed in both of its areas."""
    document = board()
    photo = next(field for field in document["fields"] if field["key"] == "photo")
    photo.update({"most_files": 3, **bounds})
    photo.pop("ask_when")
    place = document["placements"][1]
    document["placements"][1:] = [
        {**place, "key": f"photo-in-{area}", "area": area, "nth": number}
        for number, area in zip(nth, ("photo", "panel"), strict=True)
    ]
    return document


def named(*names):
    return tuple({**upload(), "name": name} for name in names)


def codes(assets, document, files):
    evaluation = evaluate(read_setup(document), entries({"name": "A"}, uploads={"photo": files}), assets)
    return {problem.code: problem.message for problem in evaluation.verdict.problems}


def test_one_file_is_itself_and_several_are_in_their_order():
    setup = read_setup(many())
    for files in (named("a.jpg")[0], named("a.jpg")):
        assert ask(setup, entries(uploads={"photo": files})).values["photo"].name == "a.jpg"
    asked = ask(setup, entries(uploads={"photo": named("b.jpg", "a.jpg")}))
    assert [file.name for file in asked.values["photo"]] == ["b.jpg", "a.jpg"]
    assert Asked.model_validate(asked.model_dump(mode="json")) == asked
    assert ask(setup, entries(uploads={"photo": ()})).values["photo"] == ""
    assert files_of("text") == files_of(("key",)) == files_of(None) == ()


def test_each_file_lands_in_the_area_that_wants_it(assets):
    evaluation = evaluate(
        read_setup(many()), entries({"name": "A"}, uploads={"photo": named("a.jpg", "b.jpg")}), assets
    )
    assert [picture.name for area in evaluation.scene.areas for picture in area.pictures] == ["b.jpg", "a.jpg"]
    evaluation = evaluate(read_setup(many()), entries({"name": "A"}, uploads={"photo": named("a.jpg")}), assets)
    assert [picture.name for area in evaluation.scene.areas for picture in area.pictures] == ["a.jpg"]


def test_too_many_and_too_few_files_are_told(assets):
    found = codes(assets, many(), named("a.jpg", "b.jpg", "c.jpg", "d.jpg"))
    assert found["too_many_files"] == "For “Photo” there is room for 3 files; 4 are here. Please remove some."
    found = codes(assets, many(least_files=3), named("a.jpg"))
    assert found["too_few_files"] == "For “Photo” 3 files are needed; 2 are missing."
    found = codes(assets, many(most_files=1, nth=(1, 1)), named("a.jpg", "b.jpg"))
    assert "room for one file; 2 are here" in found["too_many_files"]
    assert codes(assets, many(least_files=2), named("a.jpg", "b.jpg")) == {}


def test_every_file_is_looked_at(assets):
    files = (upload(), {**upload(kind="tiff"), "name": "scan.tiff"})
    assert "“scan.tiff” is a TIFF file" in codes(assets, many(), files)["wrong_kind"]


def test_charges_and_formulas_count_the_files(assets):
    document = many()
    document["charges"] = [
        {"key": "each", "kind": "per_upload", "field": "photo", "amount": "4"},
        {"key": "sum", "kind": "formula", "field": "photo", "formula": "photo * 2", "label": "Sorting"},
    ]
    setup = read_setup(document)
    evaluation = evaluate(setup, entries({"name": "A"}, uploads={"photo": named("a.jpg", "b.jpg", "c.jpg")}), assets)
    assert [(line.label, str(line.amount)) for line in evaluation.quote.lines[1:]] == [
        ("Photo: 3 files, at £4.00", "12.00"),
        ("Sorting", "6.00"),
    ]


def test_area_that_wants_a_file_beyond_the_most_is_a_fault():
    with pytest.raises(DocumentError, match="is file 4 of “Photo”, which takes 3 at most"):
        read_setup(many(nth=(1, 4)))
