"""Lines of the order slip: added, edited in place, moved, copied, removed."""

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.urls import reverse
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.editor.aspects import ASPECTS, FormLine
from yenzo.apps.editor.forms import NewLineForm
from yenzo.apps.editor.views.opened import Opened, answer_aspect
from yenzo.apps.editor.views.setup import changed, setup_answer
from yenzo.apps.products.kinds import beginning_of
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.edits import free_key

REFUSED = 422


@staff_page(*SELLERS)
@require_POST
def add_line(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    form = NewLineForm(request.POST, auto_id="new-%s")
    if not form.is_valid():
        return setup_answer(request, product, status=REFUSED, new_line=form, trouble="Give the new line a label.")
    label, kind = form.cleaned_data["label"], form.cleaned_data["kind"]
    item = {"key": free_key(product.draft, ("fields",), label), "kind": kind, "label": label}
    operation = {"do": "add", "path": ["fields"], "item": {**item, **beginning_of(setup_of_draft(product), kind)}}
    return changed(request, key, [operation], f"Line “{label}” added")


@staff_page(*SELLERS)
def edit_aspect(request: HttpRequest, key: str, field_key: str, aspect_key: str) -> HttpResponse:
    """Show the form of an underlined value in its place, or save it."""
    of = {name: request.GET.get(name, "") for name in ("placement", "charge")}
    line, aspect = _line(get_object_or_404(Product, key=key), field_key, **of), ASPECTS.get(aspect_key)
    if aspect is None:
        raise Http404
    query = next((f"?{name}={value}" for name, value in of.items() if value), "")
    opened = Opened(
        address=reverse("editor:edit_aspect", args=[key, field_key, aspect_key]) + query,
        opener=f"value-{field_key}-{aspect_key}-{of['placement'] or of['charge']}",
        label=f"{line.name}: {aspect.heading}",
    )
    return answer_aspect(request, key, aspect, line, opened)


@staff_page(*SELLERS)
@require_POST
def move_line(request: HttpRequest, key: str, field_key: str) -> HttpResponse:
    """Move a line to where another one stands, into its section."""
    line = _line(get_object_or_404(Product, key=key), field_key)
    shown = [field for _, fields in line.setup.form_order for field in fields]
    there = shown[min(sent_number(request, "position", 0), len(shown) - 1)]
    position = [field.key for field in line.setup.fields].index(there.key)
    operations = [{"do": "move", "path": ["fields"], "key": field_key, "position": position}]
    if there.section != line.field.section:
        operations.append(line.set("section", there.section))
    return changed(request, key, operations, f"{line.name} moved", refocus=f"line-grip-{field_key}")


@staff_page(*SELLERS)
@require_POST
def copy_line(request: HttpRequest, key: str, field_key: str) -> HttpResponse:
    """Copy a line with its charges; where it goes is left to say."""
    product = get_object_or_404(Product, key=key)
    line = _line(product, field_key)
    draft = product.draft
    position = next(i for i, field in enumerate(draft["fields"]) if field["key"] == field_key)
    label = f"{line.field.label} (copy)"
    copy_key = free_key(draft, ("fields",), label)
    item = {**draft["fields"][position], "key": copy_key, "label": label}
    operations: list[dict[str, Any]] = [{"do": "add", "path": ["fields"], "item": item, "position": position + 1}]
    taken = list(draft.get("charges", []))
    for charge in draft.get("charges", []):
        if charge["field"] == field_key:
            charge_key = free_key({"charges": taken}, ("charges",), copy_key)
            taken.append({"key": charge_key})
            copied = {**charge, "key": charge_key, "field": copy_key}
            operations.append({"do": "add", "path": ["charges"], "item": copied})
    return changed(request, key, operations, f"{line.name} copied")


@staff_page(*SELLERS)
@require_POST
def remove_line(request: HttpRequest, key: str, field_key: str) -> HttpResponse:
    """Remove a line with its placements and charges; what else leans on it keeps it, in words."""
    line = _line(get_object_or_404(Product, key=key), field_key)
    operations: list[dict[str, Any]] = [
        *({"do": "remove", "path": ["placements"], "key": p.key} for p in line.setup.placements_of(field_key)),
        *({"do": "remove", "path": ["charges"], "key": c.key} for c in line.setup.charges_of(field_key)),
        {"do": "remove", "path": ["fields"], "key": field_key},
    ]
    return changed(request, key, operations, f"{line.name} removed")


def _line(product: Product, field_key: str, placement: str = "", charge: str = "") -> FormLine:
    setup = setup_of_draft(product)
    field = setup.field(field_key)
    if field is None:
        raise Http404
    placed = next((one for one in setup.placements_of(field_key) if one.key == placement), None)
    charged = next((one for one in setup.charges_of(field_key) if one.key == charge), None)
    if (placement and placed is None) or (charge and charged is None):
        raise Http404
    return FormLine(setup, field, placed, charged, is_of_kit=product.is_kit)
