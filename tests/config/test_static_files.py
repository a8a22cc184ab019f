"""Scripts name what they import by its content, so that no page loads one twice or an old one."""

import re

from django.core.management import call_command


def test_scripts_import_each_other_by_the_names_that_pages_load_them_by(settings, tmp_path):
    settings.STATIC_ROOT = tmp_path
    storages = {**settings.STORAGES, "staticfiles": {"BACKEND": "yenzo.config.static_files.NamedByContent"}}
    settings.STORAGES = storages
    call_command("collectstatic", interactive=False, verbosity=0)
    scripts = [path for path in (tmp_path / "js").glob("*.js") if re.fullmatch(r"\w+\.[0-9a-f]{12}\.js", path.name)]
    imported = [name for path in scripts for name in re.findall(r'from "(\./[^"]+)"', path.read_text())]
    assert imported
    assert all(re.fullmatch(r"\./\w+\.[0-9a-f]{12}\.js", name) for name in imported)
    assert all((tmp_path / "js" / name).exists() for name in imported)
