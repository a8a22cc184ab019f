"""What a visitor has begun, kept and ordered: a visitor comes in; each with its name and words goes out."""

import uuid
from dataclasses import dataclass
from datetime import datetime

from django.http import QueryDict
from django.urls import reverse

from yenzo.apps.designs.in_words import PieceInWords, piece_in_words
from yenzo.apps.designs.models import Design, NameList, UnfinishedEntries
from yenzo.apps.designs.personalized import read_as_kept
from yenzo.apps.products.models import Revision
from yenzo.apps.products.to_core import shop_setup
from yenzo.core.documents.fields import TextField
from yenzo.core.record import Recorded

MOST_SHOWN, MOST_WORDS = 200, 80


@dataclass(frozen=True)
class KeptDesign:
    """A design in a list: what was made of it, in words."""

    design: Design
    recorded: Recorded

    @property
    def goods(self) -> str:
        """What its product is called by who reads."""
        return self.recorded.setup.offer.name

    @property
    def name(self) -> str:
        """What its visitor calls it, or its product."""
        return self.design.name or self.goods

    @property
    def in_words(self) -> PieceInWords:
        """Its texts and other entries."""
        return piece_in_words(self.recorded)

    @property
    def is_sold(self) -> bool:
        """Whether its product can still be had."""
        product = self.design.revision.product
        return product.live_id is not None and not product.is_resting

    @property
    def look(self) -> str:
        """The token of the link that shows it to others as it is now; empty where there is none."""
        current = self.design.personalization_id
        shown = (one for one in self.design.looks.all() if one.is_shared and one.withdrawn_at is None)
        return next((one.token for one in shown if one.personalization_id == current), "")


@dataclass(frozen=True)
class BegunForm:
    """What was begun on a product's page and lies nowhere yet."""

    goods: str
    revision: Revision
    product_key: str
    words: str
    changed_at: datetime

    @property
    def address(self) -> str:
        """Where it goes on."""
        return reverse("shop:product", args=[self.product_key])


@dataclass(frozen=True)
class KeptList:
    """A list of names in work."""

    names: NameList
    goods: str
    rows: int


@dataclass(frozen=True)
class OwnDesigns:
    """All that a visitor has begun, kept and ordered, the latest first."""

    begun: tuple[BegunForm, ...]
    designs: tuple[KeptDesign, ...]
    lists: tuple[KeptList, ...]

    @property
    def is_empty(self) -> bool:
        """Whether there is nothing."""
        return not self.begun and not self.designs and not self.lists


def designs_of(visitor: uuid.UUID | None) -> OwnDesigns:
    """Return what a visitor has begun and kept."""
    if visitor is None:
        return OwnDesigns((), (), ())
    designs = Design.objects.for_list(visitor).prefetch_related("looks")[:MOST_SHOWN]
    lists = NameList.objects.of_visitor(visitor).with_counts()[:MOST_SHOWN]
    return OwnDesigns(
        tuple(_begun(visitor)),
        tuple(KeptDesign(one, read_as_kept(one.personalization)) for one in designs),
        tuple(KeptList(one, shop_setup(one.revision).offer.name, one.row_count) for one in lists),
    )


def _begun(visitor: uuid.UUID) -> list[BegunForm]:
    begun = UnfinishedEntries.objects.filter(visitor=visitor, design=None, product__live__isnull=False)
    found = []
    for one in begun.select_related("product__live").order_by("-changed_at")[:MOST_SHOWN]:
        assert one.product.live is not None
        setup, form = shop_setup(one.product.live), QueryDict(one.form)
        words = " · ".join(
            form[f"entry-{field.key}"]
            for field in setup.fields
            if isinstance(field, TextField) and form.get(f"entry-{field.key}")
        )
        found.append(BegunForm(setup.offer.name, one.product.live, one.product.key, words[:MOST_WORDS], one.changed_at))
    return found
