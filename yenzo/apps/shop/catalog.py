"""The shop's list: what is looked for comes in; the cards that match, in their order, go out."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from typing import Any

from django.http import QueryDict
from django.utils.translation import gettext, gettext_noop

from yenzo.apps.products.kinds import KIND_WORDS
from yenzo.apps.products.listing import ShopCard

MOST_WORDS, MOST_PRICE = 100, 1_000_000_000
# What of a piece can be the customer's own, as shoppers pick it, and the kinds of field that ask for it.
OWN = {
    name: frozenset(kind for kind, said in KIND_WORDS.items() if said.yours == name)
    for name in dict.fromkeys(said.yours for said in KIND_WORDS.values() if said.yours)
}
ORDERS: dict[str, tuple[str, Callable[[ShopCard], Any]]] = {
    "name": (gettext_noop("By name"), lambda card: card.name.casefold()),
    "cheap": (gettext_noop("Lowest price first"), lambda card: (card.revision.least_price, card.name.casefold())),
    "dear": (gettext_noop("Highest price first"), lambda card: (-card.revision.least_price, card.name.casefold())),
    "new": (gettext_noop("Newest first"), lambda card: (-card.product.pk, card.name.casefold())),
}


@dataclass(frozen=True)
class Wish:
    """What somebody looks for: words, a category, what is to be their own, a most price, and in which order."""

    words: str = ""
    category: str = ""
    own: tuple[str, ...] = ()
    most: Decimal | None = None
    order: str = "name"

    @property
    def is_any(self) -> bool:
        """Whether anything is left out for it."""
        return bool(self.words or self.category or self.own or self.most is not None)

    def takes(self, card: ShopCard) -> bool:
        """Tell whether a card is what is looked for."""
        found_by = " ".join((*card.all_names, card.category, card.yours)).casefold()
        return (
            all(word in found_by for word in self.words.casefold().split())
            and (not self.category or card.category == self.category)
            and all(OWN[name] & set(card.revision.card.get("kinds", ())) for name in self.own)
            and (self.most is None or card.revision.least_price <= self.most)
        )


@dataclass(frozen=True)
class Choice:
    """One possibility of a filter."""

    key: str
    label: str
    is_chosen: bool


@dataclass(frozen=True)
class Catalog:
    """The cards that match, and the filters as they stand; those that could tell nothing apart are left out."""

    wish: Wish
    cards: tuple[ShopCard, ...]
    categories: tuple[Choice, ...]
    own: tuple[Choice, ...]
    orders: tuple[Choice, ...]
    trouble: str = ""


def catalog_of(cards: Iterable[ShopCard], sent: QueryDict) -> Catalog:
    """Return what a shopper looks for among all cards. What can't be read is left out, and a price says so."""
    known = tuple(cards)
    categories = sorted({card.category for card in known if card.category}, key=str.casefold)
    wish, trouble = _wish(sent, categories)
    asked = {kind for card in known for kind in card.revision.card.get("kinds", ())}
    own = [name for name, kinds in OWN.items() if kinds & asked]
    found = sorted(filter(wish.takes, known), key=ORDERS[wish.order][1])
    return Catalog(
        wish=wish,
        cards=tuple(found),
        categories=_choices((name, name, name == wish.category) for name in categories),
        own=_choices((name, gettext(name), name in wish.own) for name in own),
        orders=_choices((key, gettext(label), key == wish.order) for key, (label, _) in ORDERS.items()),
        trouble=trouble,
    )


def _choices(found: Iterable[tuple[str, str, bool]]) -> tuple[Choice, ...]:
    """Return the possibilities of a filter; none where there is only one."""
    choices = tuple(Choice(*one) for one in found)
    return choices if len(choices) > 1 else ()


def _wish(sent: QueryDict, categories: list[str]) -> tuple[Wish, str]:
    most, trouble, typed = None, "", sent.get("most", "").strip()[:20]
    if typed:
        try:
            most = Decimal(typed.replace(",", "."))
            if not most.is_finite() or not 0 <= most < MOST_PRICE:
                raise InvalidOperation
        except InvalidOperation:
            most, why = None, gettext("“{typed}” is no price: write a number, like 25 or 12.50.")
            trouble = why.format(typed=typed)
    category, order = sent.get("category", ""), sent.get("order", "name")
    return (
        Wish(
            words=" ".join(sent.get("q", "")[:MOST_WORDS].split()),
            category=category if category in categories else "",
            own=tuple(name for name in OWN if name in sent.getlist("own")),
            most=most,
            order=order if order in ORDERS else "name",
        ),
        trouble,
    )
