"""The shop's home, the product page, its live preview, and putting a piece in the basket."""

import uuid
from typing import Any

from django.contrib import messages
from django.core.paginator import Paginator
from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext, gettext_noop
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.languages import read_in, remember_language, shop_languages
from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.catalogue.listing import ShopCard
from yenzo.apps.catalogue.models import Product
from yenzo.apps.catalogue.to_core import setup_of_revision, shop_setup
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.refreshing import refresh_context, turn_of_form
from yenzo.apps.designs.services.designs import save_design
from yenzo.apps.designs.side_pictures import first_picture
from yenzo.apps.designs.slip import Slip, build_slip
from yenzo.apps.designs.to_core import Uploads, entries_of_form, uploads_of_entries, uploads_of_form, walk_design
from yenzo.apps.designs.visitors import is_signed_in, known_visitor, visitor_of
from yenzo.apps.files.store import StoredAssets
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import read_entries
from yenzo.core.speaking import reader
from yenzo.core.spine import sample_entries, walk

TOO_MANY = 429
GOODS_A_PAGE = 48
TOO_OFTEN = gettext_noop("This was sent very often in a short time. Please wait a minute and send it again.")


@require_safe
def home(request: HttpRequest) -> HttpResponse:
    page = Paginator(Product.objects.for_shop(), GOODS_A_PAGE).get_page(request.GET.get("page"))
    return render(request, "shop/home.html", {"page": page, "goods": [ShopCard(product) for product in page]})


@require_safe
@cache_control(public=True, max_age=31_536_000, immutable=True)
def sample_picture(request: HttpRequest, key: str, sha256: str) -> HttpResponseBase:  # noqa: ARG001
    """Show a revision's goods with its sample text on them."""
    product = get_object_or_404(Product.objects.select_related("live"), key=key, live__sha256=sha256)
    assert product.live is not None
    setup = setup_of_revision(product.live)
    return first_picture(walk(setup, sample_entries(setup), StoredAssets()), StoredAssets())


@require_safe
def product_page(request: HttpRequest, key: str) -> HttpResponse:
    """Show a product: blank, or with what lies in the basket when that is to be changed."""
    product = _live(key)
    design = _design_to_change(request, product)
    uploads: Uploads = {}
    entries = Entries()
    if design is not None:
        entries = read_entries(design.entries)
        uploads = uploads_of_entries(entries, design.uploads.all())
    assert product.live is not None
    setup = shop_setup(product.live)
    slip = build_slip(setup, entries, StoredAssets(), uploads, signed_in=is_signed_in(request))
    return _page(request, product, slip, design)


@require_POST
def refresh(request: HttpRequest, key: str) -> HttpResponse:
    """Answer a keystroke: only what changed. Writes nothing."""
    if not may_go_on(request, "preview"):
        return HttpResponse(gettext("Too many changes in a short time; wait a moment."), status=TOO_MANY)
    # Whoever was told what is missing goes on being told, until it is there.
    is_told = request.POST.get("missing") == "told"
    slip, _ = _slip_of_form(request, _live(key), tells_missing=is_told, keeps_page=True)
    context = {**refresh_context(slip, request.POST), "tells_missing": is_told}
    if is_told:
        context["blocking"] = list(slip.verdict.blocking)
    return render(request, "designs/_refresh.html", context)


@require_POST
def reword(request: HttpRequest, key: str) -> HttpResponse:
    """Show the product with what is entered so far in another language, and keep to that language from now on."""
    language = request.POST.get("language", "")
    if language not in {one.code for one in shop_languages()}:
        language = reader()
    product = _live(key)
    with read_in(language):
        slip, _ = _slip_of_form(request, product)
        response = _page(request, product, slip, _design_to_change(request, product))
    remember_language(response, language)
    return response


@require_POST
def put_in_basket(request: HttpRequest, key: str) -> HttpResponse:
    """Save the piece, or name together all that keeps it from being made."""
    product = _live(key)
    slip, uploads = _slip_of_form(request, product, tells_missing=True)
    design = _design_to_change(request, product)
    if not may_go_on(request, "basket"):
        return _page(request, product, slip, design, status=TOO_MANY, trouble=gettext(TOO_OFTEN))
    if slip.verdict.blocked:
        return _page(request, product, slip, design, status=422)
    assert product.live is not None
    save_design(
        actor_of(request.user),
        product.live,
        slip.entries,
        visitor=visitor_of(request),
        uploads=[one for sent in uploads.values() for one in sent],
        design_id=design.pk if design else None,
    )
    done = gettext("{name} lies in your basket as changed.") if design else gettext("{name} lies in your basket.")
    messages.success(request, done.format(name=slip.setup.offer.name))
    return redirect("shop:basket")


def _page(
    request: HttpRequest, product: Product, slip: Slip, design: Design | None, *, status: int = 200, trouble: str = ""
) -> HttpResponse:
    context: dict[str, Any] = {
        "product": product,
        "slip": slip,
        "design": design,
        "refresh_address": reverse("shop:refresh", args=[product.key]),
        "blocking": list(slip.verdict.blocking) if status != 200 else [],
        "tells_missing": status != 200,
        "trouble": trouble,
        "before": _before(request, product, design),
    }
    return render(request, "shop/product.html", context, status=status)


def _before(request: HttpRequest, product: Product, design: Design | None) -> Any:
    """Return the quote of a design that is pinned to an older revision than the live one."""
    if design is None or design.revision_id == product.live_id:
        return None
    return walk_design(design, StoredAssets(), signed_in=is_signed_in(request)).quote


def _slip_of_form(
    request: HttpRequest, product: Product, *, tells_missing: bool = False, keeps_page: bool = False
) -> tuple[Slip, Uploads]:
    assert product.live is not None
    setup = shop_setup(product.live)
    uploads = uploads_of_form(setup, request.POST, known_visitor(request))
    entries = entries_of_form(setup, request.POST, uploads)
    turn = turn_of_form(request.POST)
    slip = build_slip(
        setup,
        entries,
        StoredAssets(),
        uploads,
        signed_in=is_signed_in(request),
        tells_missing=tells_missing,
        keeps_page=keeps_page,
        turn=turn,
    )
    return slip, uploads


def _live(key: str) -> Product:
    return get_object_or_404(Product.objects.live(), key=key)


def _design_to_change(request: HttpRequest, product: Product) -> Design | None:
    sent = request.POST.get("design") or request.GET.get("design") or ""
    visitor = known_visitor(request)
    try:
        wanted = uuid.UUID(sent)
    except ValueError:
        return None
    return (
        Design.objects.in_basket_of(visitor).filter(pk=wanted, revision__product=product).first() if visitor else None
    )
