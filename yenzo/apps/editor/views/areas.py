"""Imprint areas: drawn, moved and resized by hand, changed by numbers, removed."""

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.editor.forms import AreaForm
from yenzo.apps.editor.setup_page import lands_words
from yenzo.apps.editor.shaping import ShapeForm, framed
from yenzo.apps.editor.views.setup import Question, changed, setup_answer
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.phrases import counted
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.artwork.windows import find_windows
from yenzo.core.documents.areas import Area
from yenzo.core.documents.beginnings import likely_method
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.setup import Setup
from yenzo.core.shapes.matrix import Matrix

PLACE = ("x_mm", "y_mm", "width_mm", "height_mm")
LEAST_DRAWN_MM = 1.0
WINDOW_TOLERANCE_MM = 0.1


@staff_page(*SELLERS)
@require_POST
def draw_area(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Add an area where the hand drew it; without numbers, in the middle of the side."""
    product = get_object_or_404(Product, key=key)
    setup = setup_of_draft(product)
    side = setup.side(side_key)
    size = side.size_mm() if side else None
    if side is None or size is None:
        raise Http404
    place = _numbers(request) or {
        "x_mm": round(size[0] * 0.25, 1),
        "y_mm": round(size[1] * 0.25, 1),
        "width_mm": round(size[0] * 0.5, 1),
        "height_mm": round(size[1] * 0.5, 1),
    }
    place = {name: max(value, LEAST_DRAWN_MM) if name in PLACE[2:] else value for name, value in place.items()}
    area_key = free_key(product.draft, ("sides", side_key, "areas"), f"area {len(side.areas) + 1}")
    method = likely_method(setup)
    item = {"key": area_key, "name": f"Area {len(side.areas) + 1}", **place, "method": method}
    operation = {"do": "add", "path": ["sides", side_key, "areas"], "item": item}
    selected = f"{side_key}/{area_key}"
    refocus = f"area-{side_key}-{area_key}"
    return changed(request, key, [operation], f"Area drawn on {side.name}", selected=selected, refocus=refocus)


@staff_page(*SELLERS)
@require_POST
def place_area(request: HttpRequest, key: str, side_key: str, area_key: str) -> HttpResponse:
    """Move or resize an area by hand."""
    _, area = _area(get_object_or_404(Product, key=key), side_key, area_key)
    place = _numbers(request)
    if place is None:
        raise Http404
    operations = [
        _set(side_key, area_key, name, value) for name, value in place.items() if value != getattr(area, name)
    ]
    selected = f"{side_key}/{area_key}"
    refocus = f"area-{side_key}-{area_key}"
    return changed(request, key, operations, f"{area.name} moved", selected=selected, refocus=refocus)


@staff_page(*SELLERS)
@require_POST
def change_area(request: HttpRequest, key: str, side_key: str, area_key: str) -> HttpResponse:
    """Change an area by numbers."""
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    setup, area = _area(product, side_key, area_key)
    selected = f"{side_key}/{area_key}"
    form = AreaForm(setup, area, request.POST)
    if not form.is_valid():
        trouble = " ".join(
            f"{form.fields[name].label}: {' '.join(map(str, errors))}" for name, errors in form.errors.items()
        )
        return setup_answer(request, product, status=422, area_form=form, trouble=trouble, selected=selected)
    operations = [
        _set(side_key, area_key, name, value) for name, value in form.values().items() if value != getattr(area, name)
    ]
    return changed(request, key, operations, f"{area.name} changed", selected=selected, keeps_strip=True)


@staff_page(*SELLERS)
@require_POST
def remove_area(request: HttpRequest, key: str, side_key: str, area_key: str) -> HttpResponse:
    """Remove an area with what is placed in it, after asking if anything is."""
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    setup, area = _area(product, side_key, area_key)
    lands = lands_words(setup, side_key, area_key)
    if lands and request.POST.get("sure") != "on":
        question = Question(f"Remove “{area.name}”? {lands}", request.path, f"Remove {area.name}")
        return setup_answer(request, product, question=question, selected=f"{side_key}/{area_key}")
    placed = [p.key for p in setup.placements if (p.side, p.area) == (side_key, area_key)]
    operations: list[dict[str, Any]] = [
        *({"do": "remove", "path": ["placements"], "key": placement} for placement in placed),
        *(
            {"do": "set", "path": ["offer", "variants", variant.key, "areas", side_key, area_key], "value": None}
            for variant in setup.offer.variants
            if area_key in variant.areas.get(side_key, {})
        ),
        {"do": "remove", "path": ["sides", side_key, "areas"], "key": area_key},
    ]
    return changed(request, key, operations, f"{area.name} removed")


@staff_page(*SELLERS)
@require_POST
def add_windows(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Find the holes in a side's picture and add an area behind each one."""
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    setup = setup_of_draft(product)
    side = setup.side(side_key)
    if side is None or side.scale is None:
        raise Http404
    px_per_mm = side.scale.px_per_mm
    outlines = find_windows(StoredAssets().read(side.picture.asset), WINDOW_TOLERANCE_MM * px_per_mm)
    if not outlines:
        trouble = f"No hole was found: the picture of “{side.name}” must be a PNG or WebP that is transparent there."
        return setup_answer(request, product, status=422, trouble=trouble)
    method = likely_method(setup)
    areas = [{"key": area.key} for area in side.areas]
    operations = []
    for number, outline in enumerate(outlines, 1):
        area_key = free_key({"areas": areas}, ("areas",), f"window {number}")
        areas.append({"key": area_key})
        item = {"key": area_key, "name": f"Window {number}", "method": method, "under": True}
        place = framed(outline.mapped(Matrix(1 / px_per_mm, 0, 0, 1 / px_per_mm, 0, 0)))
        operations.append({"do": "add", "path": ["sides", side_key, "areas"], "item": {**item, **place}})
    return changed(request, key, operations, f"{counted(len(outlines), 'window')} found on {side.name}")


@staff_page(*SELLERS)
def shape_area(request: HttpRequest, key: str, side_key: str, area_key: str) -> HttpResponse:
    """Show the form of an area's shape under its numbers, or save it."""
    product = get_object_or_404(Product, key=key)
    _, area = _area(product, side_key, area_key)
    form = ShapeForm(area, request.POST, request.FILES) if request.method == "POST" else ShapeForm(area)
    if form.is_bound and form.is_valid():
        names = ("shape", "height_mm", "under", "surface")
        operations = [
            _set(side_key, area_key, name, form.cleaned_data[name]) for name in names if name in form.cleaned_data
        ]
        selected = f"{side_key}/{area_key}"
        return changed(request, key, operations, f"{area.name}: its shape", selected=selected)
    context = {"form": form, "product": product, "side_key": side_key, "area": area}
    response = render(request, "editor/_shape_form.html", context, status=422 if form.is_bound else 200)
    if form.is_bound:
        response["HX-Retarget"], response["HX-Reswap"] = "#shape-form", "outerHTML"
    return response


def _area(product: Product, side_key: str, area_key: str) -> tuple[Setup, Area]:
    setup = setup_of_draft(product)
    side = setup.side(side_key)
    area = side.area(area_key) if side else None
    if area is None:
        raise Http404
    return setup, area


def _set(side_key: str, area_key: str, name: str, value: Any) -> dict[str, Any]:
    return {"do": "set", "path": ["sides", side_key, "areas", area_key, name], "value": value}


def _numbers(request: HttpRequest) -> dict[str, float] | None:
    """Return the place that the hand gave, to a tenth of a millimetre, or None when it gave none."""
    try:
        return {name: round(float(request.POST[name]), 1) for name in PLACE}
    except (KeyError, ValueError):
        return None
