"""Which engine made a file, and that it makes the same bytes in every process."""

import ast
import shutil
import sys
from importlib.metadata import packages_distributions

import pytest

from tests.repeating import differing
from yenzo.core.planning import engine
from yenzo.core.planning.engine import CORE, LIBRARIES, engine_id, sources_digest


@pytest.mark.sweep
def test_packs_of_cut_and_engraved_goods_are_the_same_in_processes_that_differ():
    assert differing(3, ["ships-bell", "burgee-pennant"]) == {}


def test_engine_counts_every_library_that_the_core_imports():
    imported = set()
    for path in CORE.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            names = [alias.name for alias in node.names] if isinstance(node, ast.Import) else []
            names += [node.module or ""] if isinstance(node, ast.ImportFrom) else []
            imported |= {name.split(".")[0] for name in names}
    outside = imported - set(sys.stdlib_module_names) - {"yenzo", ""}
    by_module = packages_distributions()
    counted = {name.lower().replace("_", "-") for name in LIBRARIES}
    assert outside
    for module in outside:
        assert {name.lower().replace("_", "-") for name in by_module[module]} & counted, module


def test_any_change_of_the_core_is_another_engine(tmp_path):
    copy = shutil.copytree(CORE, tmp_path / "core", ignore=shutil.ignore_patterns("__pycache__"))
    assert sources_digest(copy) == sources_digest(CORE)
    (copy / "locale" / "more.po").write_text("words change no file")
    assert sources_digest(copy) == sources_digest(CORE)
    path = copy / "measure.py"
    path.write_text(path.read_text() + "\n")
    assert sources_digest(copy) != sources_digest(CORE)


def test_another_version_of_a_program_or_library_is_another_engine(monkeypatch):
    plain = engine_id()
    monkeypatch.setattr(engine, "PROGRAMS", (*engine.PROGRAMS[1:], ("no-such-program",)))
    engine_id.cache_clear()
    other = engine_id()
    monkeypatch.undo()
    engine_id.cache_clear()
    assert engine_id() == plain != other
