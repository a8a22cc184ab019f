"""The glossary holds to the code: every name in it is there, and every package is named; words that went stay away."""

import re
import tokenize
from importlib import import_module

import pytest

from demo.installation import ROOT

GLOSSARY = ROOT / "docs" / "glossary.md"
NAMES = re.findall(r"`(yenzo[\w.]+):(\w+)`", GLOSSARY.read_text())
# What a newcomer had to look up, and what it is called instead.
GONE = {
    "say": "translate",
    "say_many": "translate_plural",
    "speaking": "override_language",
    "kept_on": "cached_on",
    "Walked": "Evaluation",
    "walk_asked": "evaluate_asked",
    "only_looking": "is_safe_request",
    "forsaken": "without_job",
    "own_workshop": "current_workshop",
    "note_waiting": "update_waits_for",
    "want_packs": "request_packs",
    "let_follow": "ready_next_jobs",
}


@pytest.mark.parametrize(("module", "name"), NAMES)
def test_word_of_the_glossary_is_in_the_code(module, name):
    assert hasattr(import_module(module), name)


def test_each_package_is_named():
    named = {".".join(module.split(".")[:3]) for module, _ in NAMES}
    packages = {
        f"yenzo.{part}.{path.name}"
        for part in ("core", "apps")
        for path in (ROOT / "yenzo" / part).iterdir()
        if (path / "__init__.py").exists()
    }
    assert packages - named == set()


def test_names_that_went_do_not_come_back():
    found = []
    for path in (ROOT / "yenzo").rglob("*.py"):
        with tokenize.open(path) as stream:
            names = {one.string for one in tokenize.generate_tokens(stream.readline) if one.type == tokenize.NAME}
        found += [f"{path.relative_to(ROOT)}: {name}, say {GONE[name]}" for name in names & set(GONE)]
    assert found == []
