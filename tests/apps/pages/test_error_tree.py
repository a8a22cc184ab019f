"""The tree of errors in the docstring is the one that there is."""

import re
from importlib import import_module
from pathlib import Path

from yenzo.apps.pages import errors

APPS = Path(errors.__file__).resolve().parents[1]


def test_docstring_names_every_error_of_the_apps():
    for path in APPS.rglob("*.py"):
        if "Error(AppError)" in path.read_text():
            import_module(".".join(path.relative_to(APPS.parents[1]).with_suffix("").parts))
    assert sorted(re.findall(r"[├└]── (\w+)", errors.__doc__)) == sorted(
        kind.__name__ for kind in errors.AppError.__subclasses__()
    )
