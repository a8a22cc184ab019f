"""Only `to_core.py` makes values of the core out of rows; what people send is checked where it arrives."""

import re
from pathlib import Path

APPS = Path(__file__).resolve().parents[2] / "yenzo" / "apps"
# Documents that arrive: forms of the editor, and services that check what they are given before they keep it.
ARRIVING = {
    "editor/aspects/texts.py",
    "editor/aspects/line_settings.py",
    "materials/services/materials.py",
    "products/services/kits.py",
    "workshop/forms.py",
}
MADE = re.compile(r"\.model_validate(?:_json)?\(")


def test_rows_become_values_of_the_core_in_one_place():
    sources = {path.relative_to(APPS).as_posix(): path for path in APPS.rglob("*.py") if path.name != "to_core.py"}
    assert sources
    making = {name for name, path in sources.items() if MADE.search(path.read_text())}
    assert making - ARRIVING == set()
    assert ARRIVING - making == set()
