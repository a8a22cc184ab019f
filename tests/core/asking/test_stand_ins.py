"""Samples that stand in for uploads: seen where a file must still be sent, and nowhere else."""

import pytest

from tests.core.conftest import board, entries, upload
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate, sample_entries, stand_ins


@pytest.fixture
def setup():
    document = board()
    document["fields"][3]["sample"] = upload()
    return read_setup(document)


def landed(setup, given, assets):
    evaluation = evaluate(setup, given, assets)
    standing = stand_ins(evaluation, assets)
    shown = {side: [node.field for area in scene.areas for node in area.nodes] for side, scene in standing.items()}
    return shown, evaluation


def test_sample_stands_in_where_a_file_must_still_be_sent(setup, assets):
    shown, evaluation = landed(setup, entries({"name": "TERN", "with_photo": True}), assets)
    assert shown == {"front": ["photo"]}
    # None of it is made: the piece itself has the name only, and can't be ordered yet.
    assert [node.field for area in evaluation.scene.areas for node in area.nodes] == ["name"]
    assert "required" in {item.code for item in evaluation.verdict.blocking}


def test_sample_is_gone_once_a_file_is_there_or_none_is_asked(setup, assets):
    sent = entries({"name": "TERN", "with_photo": True}, uploads={"photo": upload()})
    assert landed(setup, sent, assets)[0] == {}
    assert landed(setup, entries({"name": "TERN"}), assets)[0] == {}


def test_sample_entries_show_the_goods_with_it(setup, assets):
    assert sample_entries(setup).uploads["photo"] == setup.field("photo").sample
