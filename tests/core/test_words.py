"""The catalogues are whole: every message in every language, with the same values in it."""

import importlib.util
import re

import pytest

from demo.installation import ROOT

SPEC = importlib.util.spec_from_file_location("words", ROOT / "scripts" / "words.py")
words = importlib.util.module_from_spec(SPEC)
SPEC.loader.exec_module(words)
VALUES = re.compile(r"\{(\w+)\}|%\((\w+)\)s")


@pytest.fixture(scope="module")
def found():
    return list(words.catalogs())


def values(text):
    return {name for pair in VALUES.findall(text) for name in pair if name}


def test_messages_are_found_in_code_and_templates(found):
    core, django = (
        {message.id if isinstance(message.id, str) else message.id[0] for message in catalog} for _, _, catalog in found
    )
    assert {"Please choose “{label}”.", "one letter", "Mondays"} <= core
    assert {"Put in the basket", "%(count)s word too many", "Your order {number} is paid"} <= django


@pytest.mark.parametrize("language", words.LANGUAGES)
def test_every_message_has_its_words(found, language):
    for folder, domain, messages in found:
        assert words.missing(words.read(folder, domain, language), messages) == []


@pytest.mark.parametrize("language", words.LANGUAGES)
def test_translations_have_the_values_of_their_messages_and_no_message_that_nobody_says(found, language):
    for folder, domain, messages in found:
        catalog = words.read(folder, domain, language)
        said = {message.id for message in messages}
        for message in catalog:
            if not message.id:
                continue
            assert message.id in said
            forms = (message.string,) if isinstance(message.string, str) else message.string
            allowed = values(message.id if isinstance(message.id, str) else " ".join(message.id))
            for form in forms:
                assert values(form) <= allowed
            if isinstance(message.id, str):
                assert values(message.string) == allowed


def test_update_changes_nothing_when_all_is_there(found, tmp_path, monkeypatch):
    for folder, domain, _ in found:
        for language in words.LANGUAGES:
            path = words.place(folder, domain, language)
            target = words.place(tmp_path / domain, domain, language)
            target.parent.mkdir(parents=True)
            target.write_bytes(path.read_bytes())
    monkeypatch.setattr(
        words, "catalogs", lambda: [(tmp_path / domain, domain, catalog) for _, domain, catalog in found]
    )
    words.update()
    for folder, domain, _ in found:
        for language in words.LANGUAGES:
            assert (
                words.place(tmp_path / domain, domain, language).read_bytes()
                == words.place(folder, domain, language).read_bytes()
            )


def test_new_messages_are_listed_as_missing(found):
    from babel.messages.catalog import Catalog

    folder, domain, _ = found[0]
    new = Catalog()
    new.add("Nobody has said this yet")
    assert words.missing(words.read(folder, domain, "de"), new) == ["Nobody has said this yet"]
