"""One word a thing: trade words are explained where they stand, and words that were dropped don't come back."""

import ast
import re
from pathlib import Path

import pytest

from yenzo.apps.pages.glossary import TERMS, terms_in

PACKAGE = Path("yenzo")
# What people read no longer, and what they read instead.
DROPPED = {
    "order form": "order slip",
    "must be filled": "needed",
    "line of text": "text",
    "please tick": "please choose Yes",
    "field is required": "please fill this in",
    "choked": "narrower",
    "spot plate": "spot color",
    "personalizer": "set-up",
    "wizard": "page by page",
}


def words_of_python(path):
    """The strings of a module that aren't docstrings."""
    tree = ast.parse(path.read_text())
    documented = (ast.Module, ast.ClassDef, ast.FunctionDef, ast.AsyncFunctionDef)
    docstrings = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, documented) and node.body and isinstance(node.body[0], ast.Expr)
    }
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in docstrings:
            yield node.value


def words_of_template(path):
    yield re.sub(r"\{#.*?#\}|\{% comment %\}.*?\{% endcomment %\}", "", path.read_text(), flags=re.DOTALL)


def all_words():
    for path in PACKAGE.rglob("*.py"):
        if "migrations" not in path.parts:
            yield from ((path, words) for words in words_of_python(path))
    for pattern in ("*.html", "*.txt"):
        for path in PACKAGE.rglob(pattern):
            yield from ((path, words) for words in words_of_template(path))


def test_dropped_words_stand_nowhere():
    found = [
        f"{path}: “{dropped}”, say “{instead}”"
        for path, words in all_words()
        for dropped, instead in DROPPED.items()
        if dropped in words.lower()
    ]
    assert found == []


def test_each_term_is_explained_once_and_found_in_labels():
    assert len({term.key for term in TERMS}) == len({term.word.lower() for term in TERMS}) == len(TERMS)
    assert [term.word for term in terms_in("White underbase, wider than the colors")] == ["underbase"]
    assert [term.word for term in terms_in("safe margin, mm")] == ["safe margin"]
    assert terms_in("Name of the boat") == ()


@pytest.mark.parametrize("address", ["materials/methods/new/", "board/?selected=front/panel"])
def test_trade_words_of_labels_lead_to_what_they_mean(product, sign_in, address):
    seller = sign_in("seller")
    page = seller.get(f"/workshop/products/{address}").content.decode()
    linked = set(re.findall(r'href="/workshop/words/#([a-z-]+)"', page))
    assert {"area", "dpi"} & linked
    words = seller.get("/workshop/words/").content.decode()
    assert all(f'id="{key}"' in words for key in linked)


def test_customers_are_spared_the_trades_words(product, client):
    client.post("/goods/board/basket/", {"entry-name": "Tern"})
    assert "/workshop/words/" not in client.get("/checkout/").content.decode()
