"""The slip of a product's page: a request and a form come in; the slip, and the page that shows it, go out."""

import uuid
from dataclasses import dataclass
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, QueryDict
from django.shortcuts import get_object_or_404, render
from django.urls import reverse

from yenzo.apps.designs.models import Design, NameList
from yenzo.apps.designs.personalized import read_now
from yenzo.apps.designs.request_context import pieces_left, request_context
from yenzo.apps.designs.to_core import Uploads, as_uuid, uploads_of_form
from yenzo.apps.designs.unfinished import is_waiting, with_arrived
from yenzo.apps.designs.visitors import is_signed_in, known_visitor
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.models import Product, Revision
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.shop import preview_cache
from yenzo.apps.shop.found_by import absolute, product_data
from yenzo.apps.slip.hands import selected_in_form
from yenzo.apps.slip.refreshing import turn_of_form
from yenzo.apps.slip.slip import Slip, build_slip
from yenzo.apps.slip.to_core import entries_of_form
from yenzo.core.documents.field_base import TypedField
from yenzo.core.documents.setup import Setup
from yenzo.core.lists.columns import takes_cells


@dataclass(frozen=True)
class SentSlip:
    """A slip as a form asks for it, the uploads that the form names, and whether it waits for others."""

    slip: Slip
    uploads: Uploads
    is_waiting: bool = False


def live_product(key: str) -> Product:
    """Return a product that the shop sells, or answer that there is none."""
    # Its documents are read once a process, not with every key that a customer presses.
    return get_object_or_404(Product.objects.live().defer("draft", "live__document"), key=key)


def sold_setup(product: Product) -> Setup:
    """Return the set-up that a product is sold with."""
    assert product.live is not None
    return shop_setup(product.live)


def live_setup(key: str) -> Setup:
    """Return the set-up of a product that the shop sells, or answer that there is none; no more of it is read."""
    found = preview_cache.live_revision(key)
    if found is None:
        raise Http404
    pk, sha256 = found
    return shop_setup(Revision(pk=pk, sha256=sha256))


def design_to_change(request: HttpRequest, product: Product) -> Design | None:
    """Return the visitor's own design that is being changed, in the basket or beside it, if any is."""
    visitor, wanted = known_visitor(request), as_uuid(request.POST.get("design") or request.GET.get("design") or "")
    if visitor is None or wanted is None:
        return None
    own = Design.objects.of_visitor(visitor).select_related("personalization__revision")
    return own.filter(pk=wanted, personalization__revision__product=product).first()


def slip_of_form(
    request: HttpRequest,
    setup: Setup,
    sent: QueryDict,
    *,
    shows_missing: bool = False,
    is_preview: bool = False,
) -> SentSlip:
    """Return the slip that a form of the product's page asks for; a preview stays on its page of the form."""
    visitor = known_visitor(request)
    form, pending = with_arrived(setup, sent, visitor)
    uploads = uploads_of_form(setup, form, visitor)
    slip = build_slip(
        setup,
        entries_of_form(setup, form, uploads),
        StoredAssets(),
        uploads,
        pending=pending,
        context=request_context(
            [setup], signed_in=is_signed_in(request), stock=preview_cache.stock if is_preview else pieces_left
        ),
        shows_missing=shows_missing,
        keeps_page=is_preview,
        turn=turn_of_form(form),
        selected=selected_in_form(form),
    )
    return SentSlip(slip, uploads, is_waiting(pending))


def product_address(product: Product, design: Design | None) -> str:
    """Return where a product's page is, or that of a piece in the basket."""
    address = reverse("shop:product", args=[product.key])
    return f"{address}?design={design.pk}" if design else address


def list_address(product: Product, setup: Setup) -> str:
    """Return where a list of names of a product is begun; empty where there is nothing that a row could give."""
    has_texts = any(isinstance(field, TypedField) and takes_cells(field) for field in setup.fields)
    return reverse("shop:begin_list", args=[product.key]) if setup.form.by_list and has_texts else ""


def list_to_change(request: HttpRequest, product: Product) -> NameList | None:
    """Return the visitor's own list whose shared entries are to be changed, if any is."""
    visitor, wanted = known_visitor(request), as_uuid(request.GET.get("list", ""))
    if visitor is None or wanted is None:
        return None
    return NameList.objects.of_visitor(visitor).filter(pk=wanted, revision__product=product).first()


def product_response(
    request: HttpRequest,
    product: Product,
    slip: Slip,
    design: Design | None,
    *,
    status: int = 200,
    **more: object,
) -> HttpResponse:
    """Show a product's page; with another status than 200 it names together all that blocks."""
    assert product.live is not None
    context: dict[str, Any] = {
        "product": product,
        "slip": slip,
        "design": design,
        "refresh_address": reverse("shop:refresh", args=[product.key]),
        "show_address": reverse("shop:show", args=[product.key]),
        "blocking": list(slip.verdict.blocking) if status != 200 else [],
        "shows_missing": status != 200,
        "canonical": absolute(reverse("shop:product", args=[product.key])),
        "data": product_data(product, product.live, slip.setup, is_left=not slip.goods_problems),
        "keep_address": reverse("shop:keep_design", args=[product.key]),
        "list_address": list_address(product, slip.setup),
        "sent_as": as_uuid(request.POST.get("sent-as", "")) or uuid.uuid4(),
        "before": _before(request, product, design),
        **more,
    }
    return render(request, "shop/product.html", context, status=status)


def _before(request: HttpRequest, product: Product, design: Design | None) -> Any:
    """Return the quote of a design that is pinned to an older revision than the live one."""
    if design is None or design.revision.pk == product.live_id:
        return None
    return read_now([design.personalization], signed_in=is_signed_in(request))[0].quote
