"""Each script brings along what it imports, so that no page loads one twice or an old one; all are small."""

import json
import re

import pytest
from django.core.management import call_command

from demo.installation import ROOT

SOURCES = ROOT / "yenzo" / "static"


@pytest.fixture(scope="module")
def collected(tmp_path_factory, django_db_blocker):
    """The folder that static files are collected in, and by their own names the names that they got."""
    from django.test.utils import override_settings

    folder = tmp_path_factory.mktemp("static")
    storages = {
        "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
        "staticfiles": {"BACKEND": "yenzo.config.static_files.NamedByContent"},
    }
    with override_settings(STATIC_ROOT=folder, STORAGES=storages):
        call_command("collectstatic", interactive=False, verbosity=0)
    return folder, json.loads((folder / "staticfiles.json").read_text())["paths"]


def test_scripts_load_no_others(collected):
    folder, names = collected
    scripts = [name for name in names if name.startswith("js/")]
    assert len(scripts) == len(list((SOURCES / "js").glob("*.js")))
    for name in scripts:
        assert not re.search(r"\bimport\b\s*[\"'{*(]", (folder / names[name]).read_text()), name


def test_page_scripts_have_each_of_their_modules_once(collected):
    folder, names = collected
    bundle = (folder / names["js/product_page.js"]).read_text()
    # What page.js says once, and five of the others import.
    once = 'getElementById("announced")'
    assert (SOURCES / "js" / "page.js").read_text().count(once) == 1
    assert bundle.count(once) == 1
    # And what an import of an import brings.
    assert "sessionStorage" in bundle


def test_scripts_and_stylesheets_are_smaller_than_they_are_written(collected):
    folder, names = collected
    for name in ("css/yenzo.css", "css/workshop.css", "js/drag_layer.js"):
        assert (folder / names[name]).stat().st_size < 0.95 * (SOURCES / name).stat().st_size


def test_stylesheets_name_fonts_by_their_content(collected):
    folder, names = collected
    fonts = re.findall(r"url\([\"']?([^)\"']+\.woff2)", (folder / names["css/yenzo.css"]).read_text())
    assert len(fonts) >= 5
    assert all(re.search(r"\.[0-9a-f]{12}\.woff2$", font) for font in fonts)


def test_no_rule_asks_what_the_whole_page_has():
    # It would be worked out anew with each class that changes anywhere on the page: with each key and each release.
    for sheet in (SOURCES / "css").glob("*.css"):
        assert not re.search(r"(?:html|body|:root)[\w.#-]*:has\(", sheet.read_text()), sheet.name
