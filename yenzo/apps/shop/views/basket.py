"""The basket."""

import uuid

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_safe

from yenzo.apps.designs.framed import framed_of
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.designs.to_core import as_uuid
from yenzo.apps.designs.visitors import is_signed_in, known_visitor
from yenzo.apps.shop.basket import Basket, basket_of
from yenzo.apps.shop.views.framing import framed_basket


@require_safe
def basket(request: HttpRequest) -> HttpResponse:
    if framed := framed_of(request):
        return framed_basket(request, framed)
    visitor, taken_out = known_visitor(request), as_uuid(request.GET.get("removed", ""))
    removed = None
    if visitor and taken_out:
        own = Design.objects.taken_out_by(visitor).select_related("personalization__revision")
        removed = own.filter(pk=taken_out).first()
    return render(request, "shop/basket.html", {"basket": _basket_of(request, visitor), "removed": removed})


@require_safe
@cache_control(private=True, max_age=3600)
def design_picture(request: HttpRequest, design_id: uuid.UUID, side_key: str) -> HttpResponse:
    """Show a side of a design to the visitor whose basket it lies in."""
    own = Design.objects.select_related("personalization__revision")
    design = get_object_or_404(own, pk=design_id, visitor=known_visitor(request))
    picture = proof_of(design.personalization, side_key)
    if picture is None:
        raise Http404
    return HttpResponse(picture, content_type="image/png")


def _basket_of(request: HttpRequest, visitor: uuid.UUID | None) -> Basket:
    return basket_of(visitor, signed_in=is_signed_in(request))
