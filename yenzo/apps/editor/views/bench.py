"""The bench by hand: marks of areas and base lines, areas in order and in line, areas from the clipboard."""

from collections.abc import Callable
from typing import Any

import numpy as np
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.editor.views.setup import changed, setup_answer
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.areas import Area
from yenzo.core.documents.clips import pasted, read_clip
from yenzo.core.documents.marks import lies_on_surface, moved_area_mark, moved_text_mark, point_added, point_removed
from yenzo.core.documents.setup import Setup, Side
from yenzo.core.errors import DocumentError
from yenzo.core.shapes.surfaces import surface_warp

MOST_PASTED = 500_000
Operations = list[dict[str, Any]]


@staff_page(*SELLERS)
@require_POST
def move_mark(request: HttpRequest, key: str, side_key: str, area_key: str) -> HttpResponse:
    """Move a mark of an area, or of a text in it, to a point of the area; or add or take away a point there."""
    setup, _, area = _found(key, side_key, area_key)
    name, text, do = (request.POST.get(part, "") for part in ("mark", "text", "do"))
    placement = setup.placement(text) if text else None
    if text and (placement is None or (placement.side, placement.area) != (side_key, area_key)):
        raise Http404
    if do in {"add", "remove"}:
        part, holder = (
            (placement, ["placements", text]) if placement else (area.shape, _path(side_key, area_key, "shape"))
        )
        found = point_added(part, name) if do == "add" else point_removed(part, name)
        if found is None:
            raise Http404
        values = found
    else:
        x_mm, y_mm = _flat(area, name, *_point(request))
        holder = ["placements", text] if placement else _path(side_key, area_key)
        values = moved_text_mark(placement, name, x_mm, y_mm) if placement else moved_area_mark(area, name, x_mm, y_mm)
    operations = [{"do": "set", "path": [*holder, part], "value": value} for part, value in values.items()]
    refocus = f"mark-{text}-{name}"
    return changed(
        request, key, operations, f"{area.name} changed by hand", selected=f"{side_key}/{area_key}", refocus=refocus
    )


@staff_page(*SELLERS)
@require_POST
def arrange_area(request: HttpRequest, key: str, side_key: str, area_key: str) -> HttpResponse:
    """Bring an area in line with its side, spread all of them evenly, or change which lies above which."""
    setup, side, area = _found(key, side_key, area_key)
    arrange = ARRANGEMENTS.get(request.POST.get("do", ""))
    if arrange is None:
        raise Http404
    label = f"{area.name} arranged"
    return changed(request, key, arrange(setup, side, area), label, selected=f"{side_key}/{area_key}")


@staff_page(*SELLERS)
@require_POST
def paste_areas(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Add areas from the clipboard to a side, with what lands in them as far as it is asked here."""
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    setup = setup_of_draft(product)
    side = setup.side(side_key)
    if side is None:
        raise Http404
    try:
        operations, left_out = pasted(setup, read_clip(request.POST.get("clip", "")[:MOST_PASTED]), side_key)
    except DocumentError as error:
        return setup_answer(request, product, status=422, trouble=error.message)
    first = next(one["item"]["key"] for one in operations)
    said = ""
    if left_out:
        said = f"Left out, as it isn't asked here: {', '.join(dict.fromkeys(left_out))}."
    return changed(
        request,
        key,
        operations,
        f"Pasted on {side.name}",
        selected=f"{side_key}/{first}",
        **({"done": said} if said else {}),
    )


def _found(key: str, side_key: str, area_key: str) -> tuple[Setup, Side, Area]:
    setup = setup_of_draft(get_object_or_404(Product, key=key))
    side = setup.side(side_key)
    area = side.area(area_key) if side else None
    if side is None or area is None:
        raise Http404
    return setup, side, area


def _path(side_key: str, area_key: str, *rest: str) -> list[str]:
    return ["sides", side_key, "areas", area_key, *rest]


def _flat(area: Area, mark: str, x_mm: float, y_mm: float) -> tuple[float, float]:
    """Return where a mark that shows at a point lies flat."""
    warp = surface_warp(area) if lies_on_surface(mark) else None
    if warp is None:
        return x_mm, y_mm
    x, y = warp.unmap(np.array([[x_mm, y_mm]]))[0].tolist()
    return x, y


def _point(request: HttpRequest) -> tuple[float, float]:
    try:
        return float(request.POST["x_mm"]), float(request.POST["y_mm"])
    except (KeyError, ValueError):
        raise Http404 from None


def _placed(side: Side, area: Area, **place: float) -> Operations:
    return [
        {"do": "set", "path": _path(side.key, area.key, name), "value": round(value, 3)}
        for name, value in place.items()
        if round(value, 3) != getattr(area, name)
    ]


def _across(_setup: Setup, side: Side, area: Area) -> Operations:
    size = side.size_mm()
    return _placed(side, area, x_mm=(size[0] - area.width_mm) / 2) if size else []


def _down(_setup: Setup, side: Side, area: Area) -> Operations:
    size = side.size_mm()
    return _placed(side, area, y_mm=(size[1] - area.height_mm) / 2) if size else []


def _spread(side: Side, at: str, length: str) -> Operations:
    """Leave equal gaps between the areas of a side, from the first to the last one."""
    areas = sorted(side.areas, key=lambda area: getattr(area, at))
    if len(areas) < 3:
        return []
    first, last = getattr(areas[0], at), getattr(areas[-1], at) + getattr(areas[-1], length)
    gap = (last - first - sum(getattr(area, length) for area in areas)) / (len(areas) - 1)
    operations: Operations = []
    place = first
    for area in areas:
        operations += _placed(side, area, **{at: place})
        place += getattr(area, length) + gap
    return operations


def _in_line(side: Side, area: Area, at: str) -> Operations:
    """Bring all areas of a side to where this one begins."""
    return [one for other in side.areas for one in _placed(side, other, **{at: getattr(area, at)})]


def _level(by: int) -> Callable[[Setup, Side, Area], Operations]:
    def moved(_setup: Setup, side: Side, area: Area) -> Operations:
        """Return the operation that moves an area among those of its side."""
        position = min(max([one.key for one in side.areas].index(area.key) + by, 0), len(side.areas) - 1)
        return [{"do": "move", "path": ["sides", side.key, "areas"], "key": area.key, "position": position}]

    return moved


ARRANGEMENTS: dict[str, Callable[[Setup, Side, Area], Operations]] = {
    "across": _across,
    "down": _down,
    "lefts": lambda _, side, area: _in_line(side, area, "x_mm"),
    "tops": lambda _, side, area: _in_line(side, area, "y_mm"),
    "spread_across": lambda _, side, __: _spread(side, "x_mm", "width_mm"),
    "spread_down": lambda _, side, __: _spread(side, "y_mm", "height_mm"),
    "above": _level(1),
    "below": _level(-1),
}
