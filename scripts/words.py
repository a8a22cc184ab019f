"""Words in other languages: finds what is said in code and templates, and keeps the catalogues of each language.

Usage: words.py update    take new messages into the .po files, and those away that nobody says any more
       words.py compile   make .mo files of them (setup does it)
       words.py missing   list what has no translation; exit 1 if there is any
"""

import sys
from collections.abc import Iterator
from io import BytesIO
from pathlib import Path
from typing import Any

from babel.core import Locale
from babel.messages.catalog import Catalog
from babel.messages.extract import extract, extract_python
from babel.messages.mofile import write_mo
from babel.messages.pofile import read_po, write_po

CHECKOUT = Path(__file__).resolve().parent.parent
PACKAGE, CORE = CHECKOUT / "yenzo", CHECKOUT / "yenzo" / "core"
# As GNU gettext has them for these languages.
PLURALS = {
    "de": "nplurals=2; plural=(n != 1);",
    "ar": "nplurals=6; plural=(n==0 ? 0 : n==1 ? 1 : n==2 ? 2 : n%100>=3 && n%100<=10 ? 3 : n%100>=11 ? 4 : 5);",
}
LANGUAGES = tuple(PLURALS)
KEYWORDS: dict[str, Any] = {
    "translate": None,
    "translate_plural": (1, 2),
    "translate_noop": None,
    "gettext": None,
    "gettext_lazy": None,
    "gettext_noop": None,
    "ngettext": (1, 2),
    "_": None,
}


def catalogs() -> Iterator[tuple[Path, str, Catalog]]:
    """Yield the folder, the domain and all messages of each catalogue: the core's, and that of pages and mails."""
    apart = {CORE: "core", PACKAGE: "django"}
    found = {folder: Catalog(project="Yenzo", charset="utf-8", fuzzy=False) for folder in apart}
    for path in sorted([*PACKAGE.rglob("*.py"), *PACKAGE.rglob("templates/**/*.*")]):
        folder = CORE if path.is_relative_to(CORE) else PACKAGE
        for message in _messages(path):
            found[folder].add(message, locations=[(str(path.relative_to(CHECKOUT)), 0)])
    for folder, catalog in found.items():
        yield folder / "locale", apart[folder], catalog


def _messages(path: Path) -> Iterator[str | tuple[str, ...]]:
    data = path.read_bytes()
    if path.suffix != ".py":
        from django.utils.translation.template import templatize

        # Django makes calls of what a template says; how its markup was indented means nothing to Python.
        data = "\n".join(line.strip() for line in templatize(data.decode()).splitlines()).encode()
    for _, found, _, _ in extract(extract_python, BytesIO(data), KEYWORDS, (), {"encoding": "utf-8"}):
        yield found


def read(folder: Path, domain: str, language: str) -> Catalog:
    """Return the catalogue of a language as it stands; empty before it is begun."""
    path = place(folder, domain, language)
    if not path.exists():
        return Catalog(locale=language, domain=domain, project="Yenzo", charset="utf-8", fuzzy=False)
    with path.open("rb") as stream:
        return read_po(stream, locale=language, domain=domain)


def place(folder: Path, domain: str, language: str, suffix: str = "po") -> Path:
    """Return where a catalogue lies."""
    return folder / language / "LC_MESSAGES" / f"{domain}.{suffix}"


def missing(catalog: Catalog, messages: Catalog) -> list[str]:
    """Return what is said and has no translation."""
    lacking = []
    for message in messages:
        known = catalog.get(message.id if isinstance(message.id, str) else message.id[0])
        forms = known.string if known else ""
        if message.id and (not known or known.fuzzy or not (all(forms) if isinstance(forms, tuple) else forms)):
            lacking.append(message.id if isinstance(message.id, str) else message.id[0])
    return lacking


def update() -> None:
    """Take new messages into the .po files."""
    for folder, domain, messages in catalogs():
        for language in LANGUAGES:
            catalog, path = read(folder, domain, language), place(folder, domain, language)
            catalog.update(messages, no_fuzzy_matching=True, update_creation_date=False)
            catalog.obsolete.clear()
            path.parent.mkdir(parents=True, exist_ok=True)
            written = BytesIO()
            write_po(written, catalog, width=120, sort_output=True, omit_header=True, include_lineno=False)
            path.write_text(f"{_head(language)}\n{written.getvalue().decode()}")


def _head(language: str) -> str:
    # Without dates and names: the same words make the same file.
    name = Locale.parse(language).english_name
    entries = {
        "Project-Id-Version": "Yenzo",
        "Language": language,
        "Plural-Forms": PLURALS[language],
        "MIME-Version": "1.0",
        "Content-Type": "text/plain; charset=utf-8",
        "Content-Transfer-Encoding": "8bit",
    }
    lines = "".join(f'"{key}: {value}\\n"\n' for key, value in entries.items())
    return f'# {name} words of Yenzo; see scripts/words.py.\nmsgid ""\nmsgstr ""\n{lines}'


def compile_all() -> None:
    """Write the .mo files that are missing or older than their .po file."""
    for folder, domain in ((CORE / "locale", "core"), (PACKAGE / "locale", "django")):
        for language in LANGUAGES:
            source, target = (place(folder, domain, language, suffix) for suffix in ("po", "mo"))
            if not target.exists() or target.stat().st_mtime < source.stat().st_mtime:
                with target.open("wb") as stream:
                    write_mo(stream, read(folder, domain, language))


def main(arguments: list[str]) -> int:
    """Do what is asked; return the exit code."""
    match arguments:
        case ["update"]:
            update()
        case ["compile"]:
            compile_all()
        case ["missing"]:
            lacking = [
                f"{language} {domain}: {words}"
                for folder, domain, messages in catalogs()
                for language in LANGUAGES
                for words in missing(read(folder, domain, language), messages)
            ]
            sys.stdout.writelines(f"{line}\n" for line in lacking)
            return bool(lacking)
        case _:
            sys.stderr.write(f"{__doc__}\n")
            return 2
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
