"""The set-up page and what happens on it as a whole."""

import hashlib
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from django.core.exceptions import ValidationError
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.urls import reverse
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.editor.forms import OfferForm
from yenzo.apps.editor.goods_pictures import taken_pictures
from yenzo.apps.editor.setup_page import setup_context, whole_setup
from yenzo.apps.products.models import Product
from yenzo.apps.products.readiness import tried
from yenzo.apps.products.services.drafts import edit_draft, redo_edit, undo_edit
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.errors import DocumentError

CHANGED_EVENT = "draft-changed"


@dataclass(frozen=True)
class Question:
    """What is asked before something goes: what goes with it, and where yes is sent."""

    words: str
    address: str
    yes: str


def selection_of(request: HttpRequest) -> str:
    """Return which imprint area is picked, as "side/area"."""
    return request.POST.get("selected", "") or request.GET.get("selected", "")


@staff_page(*SELLERS)
def setup_page(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    if request.headers.get("HX-Request"):
        return setup_answer(request, product)
    return render(request, "editor/setup.html", _context(request, product))


def setup_answer(request: HttpRequest, product: Product, *, status: int = 200, **more: Any) -> HttpResponse:
    """Answer with the page's partial and the version of the draft that it tells of."""
    response = render(request, "editor/_setup.html", _context(request, product, **more), status=status)
    response["Draft-Version"] = str(product.draft_version)
    return response


def _context(request: HttpRequest, product: Product, **more: Any) -> dict[str, Any]:
    selected = more.pop("selected", None) or selection_of(request)
    person = actor_of(request.user).member
    return {**setup_context(product, person, selected, more.pop("area_form", None)), **more}


def changed(
    request: HttpRequest, key: str, operations: Sequence[dict[str, Any]], label: str, **more: Any
) -> HttpResponse:
    """Apply operations to the draft of a product and answer with the page's partial, or with what was refused."""
    product = get_object_or_404(Product, key=key)
    seen = sent_number(request, "seen", product.draft_version)

    def change() -> str:
        if not operations:
            return ""
        actor, asked_as = actor_of(request.user), _asked_as(request)
        edit_draft(actor, product.pk, operations, seen_version=seen, label=label, asked_as=asked_as)
        return ""

    return answer(request, key, change, **{"done": label, **more})


def _asked_as(request: HttpRequest) -> str:
    """Return what tells this request from all others of the same person; empty where it doesn't say what it has seen.

    Whoever has had the answer to a change has seen another version, so that the same again means the same change.
    """
    if "seen" not in request.POST:
        return ""
    sent = sorted((name, values) for name, values in request.POST.lists() if name != "csrfmiddlewaretoken")
    files = sorted((name, one.name, one.size) for name, all_of_it in request.FILES.lists() for one in all_of_it)
    return hashlib.sha256(repr((request.path, sent, files)).encode()).hexdigest()


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
    whole = whole_setup(product)
    found = () if whole.faults else tried(whole.resolved)
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
