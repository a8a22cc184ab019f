"""The list of products: rows come in; what each asks, in words, with a picture goes out."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

from django.urls import reverse
from django.utils.translation import gettext

from yenzo.apps.materials.to_core import all_materials
from yenzo.apps.pages.phrases import counted, joined
from yenzo.apps.products.kinds import KIND_WORDS
from yenzo.apps.products.kits import Kits
from yenzo.apps.products.models import Product, Revision
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.translation import base_language, current_language, listed

# How wide a product's picture is asked for: the smallest there is.
LISTED_PX = 360


@dataclass(frozen=True)
class ProductRow:
    """One product as the list shows it."""

    product: Product
    setup: Setup
    picture: str
    asks: str
    changed: bool

    @property
    def sample_address(self) -> str:
        """Where the picture with sample text is, once the product is live."""
        live = self.product.live
        return reverse("shop:sample_picture", args=[self.product.key, live.sha256, LISTED_PX]) if live else ""


def list_rows(products: Iterable[Product]) -> list[ProductRow]:
    """Return the rows of the list; the materials are read once for all."""
    materials, kits = all_materials(), Kits()
    rows = []
    for product in products:
        setup = kits.shown(product, read_setup({**product.draft, "materials": materials}))
        shown = setup.sides[0].picture if setup.sides else setup.offer.picture
        picture = shown.asset if shown else ""
        live = product.live
        rows.append(ProductRow(product, setup, picture, asks_words(setup), is_changed(product) if live else False))
    return rows


@dataclass(frozen=True)
class ShopCard:
    """One product as the shop's list shows it, of its live revision's card."""

    product: Product

    @property
    def revision(self) -> Revision:
        """The revision that is live."""
        assert self.product.live is not None
        return self.product.live

    @property
    def name(self) -> str:
        """What it is called in the language of who reads."""
        return self._worded("names") or self.revision.name

    @property
    def category(self) -> str:
        """Its category in the language of who reads; empty if it has none."""
        return self._worded("categories") or str(self.revision.card.get("category", ""))

    @property
    def all_names(self) -> tuple[str, ...]:
        """What it is called in any language: whoever searches may know another one."""
        return (self.revision.name, *self.revision.card.get("names", {}).values())

    def _worded(self, part: str) -> str:
        known, language = self.revision.card.get(part, {}), current_language()
        return str(known.get(language) or known.get(base_language(language)) or "")

    @property
    def yours(self) -> str:
        """What of it is the customer's own, in words."""
        return yours_words(self.revision.card.get("kinds", ()))


def yours_words(kinds: Iterable[str]) -> str:
    """Return what of a product is the customer's own, in words: "Your words, lettering and picture"."""
    kinds = set(kinds)
    named = dict.fromkeys(gettext(said.yours) for kind, said in KIND_WORDS.items() if said.yours and kind in kinds)
    return gettext("Your {things}").format(things=listed(named)) if named else gettext("Made to order")


def is_changed(product: Product) -> bool:
    """Tell whether the draft was edited since it was published."""
    return product.live is not None and product.draft_version != product.live.from_version


def asks_words(setup: Setup) -> str:
    """Return what a set-up asks, in words: "2 texts, 1 upload, carved"."""
    counts: Counter[str] = Counter(field.kind for field in setup.fields if field.has_entry and field.is_asked)
    asked = [counted(counts[kind], said.noun, said.plural) for kind, said in KIND_WORDS.items() if counts[kind]]
    used = dict.fromkeys(area.method for side in setup.sides for area in side.areas)
    done = [setup.materials.methods[key].done for key in used if key in setup.materials.methods]
    return ", ".join([*asked, *([joined(done)] if done else [])]) or "nothing yet"
