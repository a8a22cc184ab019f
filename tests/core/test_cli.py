import json
import subprocess
import sys
from pathlib import Path

import pytest

from tests.core.conftest import GOODS, PHOTO, board, upload
from yenzo.core.__main__ import main

ROOT = str(Path(__file__).resolve().parents[2])


@pytest.fixture
def folder(tmp_path):
    (tmp_path / "assets").mkdir()
    (tmp_path / "assets" / "goods.png").write_bytes(GOODS)
    (tmp_path / "photo.jpg").write_bytes(PHOTO)
    (tmp_path / "setup.json").write_text(json.dumps(board()))
    values = {"name": "Wind & Whey", "with_photo": True}
    document = {"schema": "yenzo-entries/1", "values": values, "uploads": {"photo": upload()}}
    (tmp_path / "entries.json").write_text(json.dumps(document))
    (tmp_path / "empty.json").write_text('{"schema": "yenzo-entries/1"}')
    return tmp_path


@pytest.fixture
def core(folder, monkeypatch, capsys):
    """The command line in this process, in the folder: its exit status, what it prints as JSON, and its errors."""
    monkeypatch.chdir(folder)

    def run(*arguments):
        monkeypatch.setattr(sys, "argv", ["core", *arguments])
        capsys.readouterr()
        try:
            status = main()
        except SystemExit as end:
            status = end.code
        printed = capsys.readouterr()
        return status, json.loads(printed.out) if printed.out else None, printed.err

    return run


@pytest.mark.parametrize(("entries", "status"), [("entries.json", 0), ("empty.json", 1), ("nothing.json", 2)])
def test_process_ends_with_the_status_that_it_was_told(folder, entries, status):
    command = [sys.executable, "-m", "yenzo.core", "check", "setup.json", entries]
    done = subprocess.run(command, cwd=folder, capture_output=True, text=True, env={"PYTHONPATH": ROOT}, check=False)
    assert done.returncode == status
    assert bool(done.stdout) != bool(done.stderr)


def test_check_tells_what_is_asked_and_blocks_on_problems(core):
    status, value, _ = core("check", "setup.json", "entries.json")
    assert (status, value["problems"], value["findings"]) == (0, [], [])
    assert value["asked"] == ["name", "lettering", "with_photo", "photo", "wood", "finish"]
    status, value, _ = core("check", "setup.json", "empty.json")
    assert (status, [problem["code"] for problem in value["problems"]]) == (1, ["required"])


def test_check_prints_questions_that_nobody_answered_and_they_block_nothing(core, folder):
    setup = board()
    setup["fields"][0].pop("case", None)
    given = json.loads((folder / "entries.json").read_text())
    given["values"]["name"] = "JOhn  Reed"
    answers = [{"code": "stray_capital", "text": "JOhn Reed"}]
    for name, document in (("small", setup), ("typed", given), ("meant", {**given, "meant": {"name": answers}})):
        (folder / f"{name}.json").write_text(json.dumps(document))
    status, value, _ = core("check", "small.json", "typed.json")
    assert status == 0
    questions = [(one["field"], one["code"], one["suggestion"]) for one in value["questions"]]
    assert questions == [("name", "two_spaces", "JOhn Reed"), ("name", "stray_capital", "John Reed")]
    assert all(set(one) == {"field", "code", "message", "suggestion"} for one in value["questions"])
    _, value, _ = core("check", "small.json", "meant.json")
    assert [one["code"] for one in value["questions"]] == ["two_spaces"]


def test_quote_multiplies_by_pieces(core):
    _, value, _ = core("quote", "setup.json", "entries.json", "--pieces", "3")
    assert (value["each"], value["total"], value["currency"]) == ("108.70", "326.10", "GBP")


@pytest.mark.parametrize("file_format", ["svg", "png", "pdf"])
@pytest.mark.parametrize("target", [("--side", "front"), ("--area", "photo"), ("--area", "front/panel")])
def test_render_writes_a_file_of_its_size(core, folder, file_format, target):
    status, value, _ = core("render", "setup.json", "entries.json", *target, "--format", file_format, "--out", "made")
    assert status == 0
    assert (folder / "made").stat().st_size == value["bytes"] > 500


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (("check", "nothing.json", "entries.json"), "can't be read"),
        (("check", "photo.jpg", "entries.json"), "not readable JSON"),
        (("check", "entries.json", "setup.json"), "can't be used"),
        (("render", "setup.json", "entries.json", "--side", "lid", "--format", "svg", "--out", "x"), "no side “lid”"),
        (("render", "setup.json", "entries.json", "--area", "panel", "--format", "tiff", "--out", "x"), "tiff"),
        (("quote", "setup.json", "entries.json", "--pieces", "0"), "pieces"),
        (("trial", "setup.json"), "can't be made on the command line yet"),
    ],
)
def test_unusable_input_is_told_in_words_with_exit_2(core, arguments, words):
    status, value, error = core(*arguments)
    assert (status, value) == (2, None)
    assert words in error
    assert "Traceback" not in error


def test_inspect_never_crashes_and_refuses_with_exit_1(core):
    status, value, _ = core("inspect", "photo.jpg", "setup.json", "nothing")
    assert status == 1
    assert value[0]["kind"] == "jpeg"
    assert [entry["refusal"]["code"] for entry in value[1:]] == ["wrong_kind", "unreadable"]


@pytest.mark.parametrize("name", ["setup", "entries", "manifest"])
def test_published_schema_is_the_one_in_docs(core, name):
    status, value, _ = core("schema", name)
    published = Path(__file__).resolve().parents[2] / "docs" / "schemas" / f"{name}.json"
    assert (status, value) == (0, json.loads(published.read_text()))


def test_reader_that_has_enough_is_no_error():
    command = f"{sys.executable} -m yenzo.core schema setup | head -1; echo ${{PIPESTATUS[0]}}"
    done = subprocess.run(["bash", "-c", command], capture_output=True, text=True, check=True)
    assert (done.stdout, done.stderr) == ("{\n0\n", "")
