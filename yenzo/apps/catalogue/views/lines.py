"""Lines of the order form: added, edited in place, moved, copied, removed."""

from dataclasses import replace
from typing import Any, get_args

from django import forms
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.catalogue.aspects import ASPECTS, Aspect, FormLine
from yenzo.apps.catalogue.forms import NewLineForm
from yenzo.apps.catalogue.models import Product
from yenzo.apps.catalogue.to_core import setup_of_draft
from yenzo.apps.catalogue.views.setup import changed, setup_answer
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import ArtworkKind
from yenzo.core.documents.setup import Setup

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
    operation = {"do": "add", "path": ["fields"], "item": {**item, **_beginning(setup_of_draft(product), kind)}}
    return changed(request, key, [operation], f"Line “{label}” added")


def _beginning(setup: Setup, kind: str) -> dict[str, Any]:
    """Return what a new line of a kind has, so that it is usable at once."""
    if kind == "line":
        return {"most_characters": 30}
    if kind == "paragraph":
        return {"most_characters": 200}
    if kind == "choice":
        return {"options": [{"key": "first", "label": "First"}, {"key": "second", "label": "Second"}]}
    if kind == "date":
        return {"after_working_days": 5, "closed_weekdays": [5, 6]}
    if kind == "artwork":
        return {"kinds": list(get_args(ArtworkKind))}
    if kind == "typeface":
        faces = list(setup.materials.typefaces)[:3] or ["none"]
        return {"typefaces": faces, "default": faces[0]}
    if kind == "color":
        palettes = list(setup.materials.palettes.items())
        return {"palette": palettes[0][0], "default": palettes[0][1].colors[0].key} if palettes else {"palette": "none"}
    return {}


@staff_page(*SELLERS)
def edit_aspect(request: HttpRequest, key: str, field_key: str, aspect_key: str) -> HttpResponse:
    """Show the form of an underlined value in its place, or save it."""
    product = get_object_or_404(Product, key=key)
    line, aspect = _line(product, field_key, request.GET.get("placement", "")), ASPECTS.get(aspect_key)
    if aspect is None:
        raise Http404
    form = aspect.form(line, request.POST if request.method == "POST" else None)
    if request.method == "POST" and form.is_valid():
        try:
            operations = aspect.operations(line, form.cleaned_data)
        except forms.ValidationError as error:
            form.add_error(None, error)
        else:
            return changed(request, key, operations, f"{line.name}: {aspect.heading}", refocus=_focus(line, aspect))
    context = {"form": form, "line": line, "aspect": aspect, "product": product}
    response = render(request, "catalogue/_aspect_form.html", context, status=REFUSED if form.is_bound else 200)
    if form.is_bound:
        response["HX-Retarget"], response["HX-Reswap"] = "#open-form", "outerHTML"
    return response


def _focus(line: FormLine, aspect: Aspect) -> str:
    return f"value-{line.field.key}-{aspect.key}-{line.placement.key if line.placement else ''}"


@staff_page(*SELLERS)
@require_POST
def move_line(request: HttpRequest, key: str, field_key: str) -> HttpResponse:
    line = _line(get_object_or_404(Product, key=key), field_key)
    sent = request.POST.get("position", "")
    position = min(int(sent), len(line.setup.fields) - 1) if sent.isdecimal() else 0
    operation = {"do": "move", "path": ["fields"], "key": field_key, "position": position}
    return changed(request, key, [operation], f"{line.name} moved", refocus=f"line-grip-{field_key}")


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


def _line(product: Product, field_key: str, placement_key: str = "") -> FormLine:
    setup = setup_of_draft(product)
    field = setup.field(field_key)
    if field is None:
        raise Http404
    line = FormLine(setup, field)
    if not placement_key:
        return line
    placement = next((p for p in setup.placements_of(field_key) if p.key == placement_key), None)
    if placement is None:
        raise Http404
    return replace(line, placement=placement)
