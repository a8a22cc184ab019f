"""The set-up page and what happens on it as a whole."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from django.core.exceptions import ValidationError
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.safestring import SafeString, mark_safe
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.doors import sent_number
from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.editor.aspects import FormLine, Part, sentence_of
from yenzo.apps.editor.aspects.interface import SectionLine
from yenzo.apps.editor.aspects.sections import SECTION_ASPECTS, form_sentence
from yenzo.apps.editor.bench import lay_out
from yenzo.apps.editor.forms import AreaForm, NewLineForm, OfferForm
from yenzo.apps.editor.goods_pictures import taken_pictures
from yenzo.apps.editor.wording import incomplete_languages
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.phrases import joined
from yenzo.apps.products.kits import Kits, UsedKit
from yenzo.apps.products.listing import asks_words, is_changed
from yenzo.apps.products.models import DraftEdit, Product
from yenzo.apps.products.services.drafts import edit_draft, redo_edit, undo_edit
from yenzo.apps.products.services.products import differs_from_live, publish_setup, tried, unready
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.advice import find_advice
from yenzo.core.documents.setup import Section, Setup
from yenzo.core.errors import DocumentError

CHANGED_EVENT = "draft-changed"
ANY_LINE, ANY_ASPECT = "any-line", "any-aspect"
ROWS_KEPT = 2000


@dataclass(frozen=True)
class SentenceRow:
    """A line of the order slip as the page shows it: all that its markup says, and nothing else."""

    key: str
    name: str
    position: int
    number: int | None
    address: str
    parts: tuple[Part, ...]

    @property
    def markup(self) -> SafeString:
        """Its part of the page."""
        return _row_markup(self)


@lru_cache(maxsize=ROWS_KEPT)
def _row_markup(row: SentenceRow) -> SafeString:
    # One change of a long form leaves nearly all of its lines as they were.
    return mark_safe(render_to_string("editor/_sentence.html", {"row": row}))


@dataclass(frozen=True)
class Question:
    """What is asked before something goes: what goes with it, and where yes is sent."""

    words: str
    address: str
    yes: str


def lands_words(setup: Setup, side_key: str, area_key: str | None = None) -> str:
    """Return which lines land on a side, or in one of its areas, and which of them nowhere else; empty for none."""
    placed = [p for p in setup.placements if p.side == side_key and area_key in (None, p.area)]
    keys = list(dict.fromkeys(placement.field for placement in placed))
    fields = [field for key in keys if (field := setup.field(key))]
    only = [field for field in fields if all(one in placed for one in setup.placements if one.field == field.key)]
    if not fields:
        return ""
    said = f"{joined([f'“{field.workshop_name or field.label}”' for field in fields])} would no longer go there"
    if only:
        nowhere = joined([f"“{field.workshop_name or field.label}”" for field in only])
        said += f"; {nowhere} would go nowhere, only on the ticket"
    return f"{said}."


@dataclass(frozen=True)
class FormPart:
    """A section with its lines as the page shows it, or the lines that stand before all sections."""

    section: Section | None
    asked: str
    rows: tuple[SentenceRow, ...]


@dataclass(frozen=True)
class KitRow:
    """A kit among the lines of a product: what it asks, and what is otherwise here."""

    used: UsedKit
    asks: str


def _parts_of_form(product: Product, setup: Setup) -> list[FormPart]:
    parts, at, number = [], 0, 0
    # A long form has a thousand values: their addresses are made from one.
    lines = reverse("editor:edit_aspect", args=[product.key, ANY_LINE, ANY_ASPECT]).removesuffix(f"{ANY_ASPECT}/")
    for section, fields in setup.form_order:
        rows = []
        for field in fields:
            number += field.has_entry
            line = FormLine(setup, field, is_of_kit=product.is_kit)
            shown = number if field.has_entry else None
            address = lines.replace(ANY_LINE, field.key)
            rows.append(SentenceRow(field.key, line.name, at, shown, address, tuple(sentence_of(line))))
            at += 1
        asked = SECTION_ASPECTS["ask-when"].words(SectionLine(setup, section)) if section else ""
        parts.append(FormPart(section, asked, tuple(rows)))
    return parts


def selection_of(request: HttpRequest) -> str:
    """Return which imprint area is picked, as "side/area"."""
    return request.POST.get("selected", "") or request.GET.get("selected", "")


def setup_context(request: HttpRequest, product: Product, **more: Any) -> dict[str, Any]:
    """Return what the page and its partial need."""
    setup = setup_of_draft(product)
    kits, resolved, faults = _kits_of(product, setup)
    selected = more.pop("selected", None) or selection_of(request)
    area_form = more.pop("area_form", None) or _area_form(setup, selected)
    edits = DraftEdit.objects.filter(product=product)
    return {
        "product": product,
        "setup": setup,
        "asks": asks_words(setup),
        "bench": lay_out(setup, selected, StoredAssets()),
        "parts_of_form": _parts_of_form(product, setup),
        "form_parts": form_sentence(setup),
        "selected": selected if area_form else "",
        "selected_side": selected.partition("/")[0],
        "selected_area": selected.partition("/")[2],
        "area_form": area_form,
        "new_line": NewLineForm(auto_id="new-%s"),
        "undoable": edits.undoable_by(request.user).first(),
        "redoable": edits.redoable_by(request.user).first(),
        "kits": kits,
        "faults": faults,
        "advice": [*find_advice(setup), *incomplete_languages(setup)],
        "is_changed": _is_changed(product, resolved),
        "changes": edits.made_since(product.live.from_version).count() if product.live else edits.count(),
        "next_number": product.live.number + 1 if product.live else 1,
        "section": "products",
        "is_kit": product.is_kit,
        **more,
    }


def _is_changed(product: Product, resolved: Setup) -> bool:
    return is_changed(product) if product.is_kit and product.live else differs_from_live(product, resolved)


def _kits_of(product: Product, setup: Setup) -> tuple[list[KitRow], Setup, list[str]]:
    """Return the kits that a product uses, its set-up with them, and what keeps it from being published."""
    kits = Kits()
    rows = [KitRow(used, asks_words(used.setup)) for used in kits.used_by(product)]
    try:
        resolved = kits.resolved(product, setup)
    except DocumentError as error:
        return rows, setup, [*unready(setup, is_priced=not product.is_kit), error.message]
    # As customers would get it: what a kit brings counts like the product's own.
    return rows, resolved, unready(resolved, is_priced=not product.is_kit)


@staff_page(*SELLERS)
def setup_page(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    if request.headers.get("HX-Request"):
        return setup_answer(request, product)
    return render(request, "editor/setup.html", setup_context(request, product))


def setup_answer(request: HttpRequest, product: Product, *, status: int = 200, **more: Any) -> HttpResponse:
    """Answer with the page's partial and the version of the draft that it tells of."""
    response = render(request, "editor/_setup.html", setup_context(request, product, **more), status=status)
    response["Draft-Version"] = str(product.draft_version)
    return response


def changed(
    request: HttpRequest, key: str, operations: Sequence[dict[str, Any]], label: str, **more: Any
) -> HttpResponse:
    """Apply operations to the draft of a product and answer with the page's partial, or with what was refused."""
    product = get_object_or_404(Product, key=key)
    seen = sent_number(request, "seen", product.draft_version)

    def change() -> str:
        if not operations:
            return ""
        edit_draft(actor_of(request.user), product.pk, operations, seen_version=seen, label=label)
        return ""

    return answer(request, key, change, **{"done": label, **more})


def answer(request: HttpRequest, key: str, change: Callable[[], str], **more: Any) -> HttpResponse:
    """Carry out a change; answer with the set-up as it is now, and with the refusal in words if there is one."""
    trouble, said = "", ""
    try:
        said = change()
    except DocumentError as error:
        trouble = error.message
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    response = setup_answer(request, product, status=422 if trouble else 200, trouble=trouble, said=said, **more)
    if not trouble:
        response["HX-Trigger-After-Swap"] = CHANGED_EVENT
    return response


@staff_page(*SELLERS)
@require_safe
def tries(request: HttpRequest, key: str) -> HttpResponse:
    """Show what comes of the draft when somebody orders by it."""
    product = get_object_or_404(Product, key=key)
    _, resolved, faults = _kits_of(product, setup_of_draft(product))
    found = () if faults else tried(resolved)
    context = {
        "blocking": [one for one in found if one.blocks],
        "advice": [one for one in found if not one.blocks],
    }
    return render(request, "editor/_tried.html", context)


@staff_page(*SELLERS)
@require_POST
def undo(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product, key=key)
    return answer(request, key, lambda: f"Undone: {undo_edit(actor_of(request.user), product.pk)}")


@staff_page(*SELLERS)
@require_POST
def redo(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product, key=key)
    return answer(request, key, lambda: f"Done again: {redo_edit(actor_of(request.user), product.pk)}")


@staff_page(*SELLERS)
@require_POST
def publish(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product, key=key)
    seen = sent_number(request, "seen")

    def change() -> str:
        revision = publish_setup(actor_of(request.user), product.pk, seen_version=seen)
        return f"Revision {revision.number} is live. See it in the shop: {reverse('shop:product', args=[key])}"

    return answer(request, key, change)


@staff_page(*SELLERS)
def offer(request: HttpRequest, key: str) -> HttpResponse:
    """Show or save the product's own values."""
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    have = setup_of_draft(product).offer
    form = OfferForm(request.POST or None, request.FILES or None, initial=have.model_dump(), auto_id="offer-%s")
    if request.method == "POST" and form.is_valid():
        try:
            given = {**form.cleaned_data, **taken_pictures(request, form)}
        except ValidationError as error:
            form.add_error("picture", error)
        else:
            operations = [
                {"do": "set", "path": ["offer", name], "value": _offered(value)}
                for name, value in given.items()
                if name != "picture" or value
            ]
            return changed(request, key, operations, "Name and price")
    status = 422 if form.is_bound else 200
    response = render(request, "editor/_offer_form.html", {"form": form, "product": product}, status=status)
    if form.is_bound:
        # The refused form takes its own place, and not that of the whole set-up.
        response["HX-Retarget"], response["HX-Reswap"] = "#offer-form > .open-form", "outerHTML"
    return response


def _offered(value: Any) -> Any:
    return value if isinstance(value, dict) else str(value) if value not in (None, "") else None


def _area_form(setup: Setup, selected: str) -> AreaForm | None:
    side_key, _, area_key = selected.partition("/")
    side = setup.side(side_key)
    area = side.area(area_key) if side else None
    return AreaForm(setup, area) if area else None
