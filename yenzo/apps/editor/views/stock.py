"""Stock: what set-ups name by SKU, and how many of it are left."""

from collections.abc import Iterator
from dataclasses import dataclass

from django import forms
from django.contrib import messages
from django.core.paginator import Paginator
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.products.models import Product
from yenzo.apps.stock.models import StockItem
from yenzo.apps.stock.services.stock import count_stock
from yenzo.apps.workshop.current import current_workshop

MOST = 1_000_000
MOST_IN_A_SKU = 60
SKUS_A_PAGE = 100
WITH_EXTRAS = [{"kind": "extra"}]


def named_skus() -> dict[str, str]:
    """Return every SKU that a draft names, and of what it is, in words."""
    named: dict[str, str] = {}
    for sku, name in _all_named():
        if sku and len(sku) <= MOST_IN_A_SKU:
            named.setdefault(sku, name)
    return named


def _all_named() -> Iterator[tuple[str, str]]:
    products = Product.objects.order_by("name")
    for name, sku, variants in products.values_list("name", "draft__offer__sku", "draft__offer__variants"):
        yield sku, name
        yield from ((variant.get("sku", ""), f"{name}, {variant['name']}") for variant in variants or ())
    for name, fields in products.filter(draft__fields__contains=WITH_EXTRAS).values_list("name", "draft__fields"):
        for field in fields:
            # What is linked to a product is counted by that one's SKU.
            if field["kind"] == "extra" and not field.get("product"):
                yield field.get("sku", ""), f"{field['label']}, with {name}"


@dataclass(frozen=True)
class StockRow:
    """A SKU in the table: of what it is, and how many are left."""

    sku: str
    name: str
    left: forms.BoundField
    pieces: int | None

    @property
    def is_low(self) -> bool:
        """Whether so few are left that the workshop wants to know."""
        return self.pieces is not None and 0 < self.pieces <= current_workshop().low_stock


class StockForm(forms.Form):
    """How many are left of each SKU; empty where nobody counts."""

    def __init__(self, named: dict[str, str], counted: dict[str, int], *args: object) -> None:
        # A SKU may be any word: by itself it could be the name of what every form has of its own.
        super().__init__(*args, prefix="left")  # type: ignore[arg-type, misc]
        self._named, self._counted = named, counted
        for sku in named:
            self.fields[sku] = forms.IntegerField(
                required=False,
                min_value=0,
                max_value=MOST,
                initial=counted.get(sku),
                label=f"Left of {sku}",
                # What it was when the page was shown: orders take from it meanwhile.
                show_hidden_initial=True,
                widget=forms.NumberInput(attrs={"aria-label": f"Left of {sku}"}),
            )

    def clean(self) -> dict[str, int | None]:
        """Refuse a new count of what orders took from since the page was shown."""
        given = super().clean() or {}
        for sku in self.changed_data:
            now, seen = self._counted.get(sku), self.data.get(self.add_initial_prefix(sku), "")
            if sku in given and seen != ("" if now is None else str(now)):
                words = "nobody counts it" if now is None else f"{now} are left"
                self.add_error(sku, f"This changed since you opened the page: {words} now. Count again.")
        return given

    @property
    def changed(self) -> dict[str, int | None]:
        """The SKUs that were counted anew: all others stay as they are, whatever orders took meanwhile."""
        return {sku: self.cleaned_data[sku] for sku in self.changed_data}

    @property
    def rows(self) -> list[StockRow]:
        """The SKUs in their order."""
        return [StockRow(sku, name, self[sku], self._counted.get(sku)) for sku, name in self._named.items()]


@staff_page(*SELLERS)
def stock(request: HttpRequest) -> HttpResponse:
    """Show what is left of everything that is counted, or count it."""
    counted = dict(StockItem.objects.values_list("sku", "pieces"))
    named = named_skus()
    most = current_workshop().low_stock
    words, only_out = request.GET.get("words", "").strip(), "out" in request.GET
    everything = named | {sku: "no longer in any draft" for sku in counted if sku not in named}
    wanted = [
        (sku, name)
        for sku, name in sorted(everything.items())
        if words.casefold() in f"{sku} {name}".casefold() and (not only_out or counted.get(sku, most + 1) <= most)
    ]
    page = Paginator(wanted, SKUS_A_PAGE).get_page(request.GET.get("page"))
    form = StockForm(dict(page), counted, *([request.POST] if request.method == "POST" else []))
    if form.is_bound and form.is_valid():
        if form.changed:
            count_stock(actor_of(request.user), form.changed)
        messages.success(request, "The stock is counted.")
        return redirect(request.get_full_path())
    context = {
        "form": form,
        "page": page,
        "words": words,
        "only_out": only_out,
        "is_any": bool(everything),
        "section": "products",
    }
    return render(request, "editor/stock.html", context, status=422 if form.is_bound else 200)
