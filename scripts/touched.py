"""Which tests a change can touch, the core's aside: files that differ from a commit come in, tests for pytest go out.

Usage: touched.py [COMMIT]     (HEAD unless another is named; what isn't committed counts)

A changed module touches the tests of its own app, and those that import it or what is built on it. What is built on the
core is nearly everything: of it only those tests are named that import a changed module, or a module that does.
Templates, scripts and words touch their app's tests. Stories are for `make test`.
"""

import ast
import subprocess
import sys
from collections.abc import Iterable, Iterator
from pathlib import Path

import grimp

CHECKOUT = Path(__file__).resolve().parent.parent
APPS, TESTS = CHECKOUT / "yenzo" / "apps", CHECKOUT / "tests"
OTHER_TESTS = ("apps", "config", "gateways", "demo", "scripts")
# The installation is started by tests of these: `make test` does that.
SLOW = {TESTS / "scripts" / "test_run_demo.py"}


def changed_files(since: str) -> set[Path]:
    """Return what differs from a commit, or isn't known to git yet."""
    asked = (("diff", "--name-only", since), ("ls-files", "--others", "--exclude-standard"))
    lines = (
        subprocess.run(["git", *words], cwd=CHECKOUT, capture_output=True, text=True, check=True).stdout.splitlines()
        for words in asked
    )
    return {Path(line) for some in lines for line in some}


def touched_modules(changed: Iterable[Path]) -> set[str]:
    """Return the changed modules with what is built on them."""
    sys.path.insert(0, str(CHECKOUT))
    graph = grimp.build_graph("yenzo", include_external_packages=False)
    touched: set[str] = set()
    for path in changed:
        module = ".".join(path.with_suffix("").parts).removesuffix(".__init__")
        if path.suffix != ".py" or module not in graph.modules:
            continue
        if module.startswith("yenzo.core."):
            above = graph.find_modules_that_directly_import(module)
        else:
            above = graph.find_downstream_modules(module)
        touched |= {module, *above}
    return touched


def imported_by(path: Path) -> Iterator[str]:
    """Yield the names that a test module imports: modules, and what may be modules within them."""
    for node in ast.walk(ast.parse(path.read_text())):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module:
            yield node.module
            yield from (f"{node.module}.{alias.name}" for alias in node.names)


def touched_tests(changed: set[Path]) -> list[Path]:
    """Return the test modules that a change can touch."""
    modules = touched_modules(changed)
    apps = {path.parts[2] for path in changed if path.parts[:2] == ("yenzo", "apps") and len(path.parts) > 3}
    folders = [TESTS / "apps" / app for app in apps]
    folders += [CHECKOUT / path.parent for path in changed if path.name == "conftest.py"]
    folders += [TESTS / path.parts[0] for path in changed if path.parts[0] in {"demo", "scripts"}]
    if any(path.parts[:2] in {("yenzo", "config"), ("yenzo", "gateways")} for path in changed):
        folders += [TESTS / "config", TESTS / "gateways"]
    found = {CHECKOUT / path for path in changed if path.match("tests/**/test_*.py") and (CHECKOUT / path).exists()}
    for path in (one for name in OTHER_TESTS for one in (TESTS / name).rglob("test_*.py")):
        if any(path.is_relative_to(folder) for folder in folders) or modules.intersection(imported_by(path)):
            found.add(path)
    others = (TESTS / "core", TESTS / "story", TESTS / "chaos")
    return sorted(path for path in found - SLOW if not any(path.is_relative_to(one) for one in others))


if __name__ == "__main__":
    files = changed_files(sys.argv[1] if len(sys.argv) > 1 else "HEAD")
    for test in touched_tests(files):
        print(test.relative_to(CHECKOUT))
