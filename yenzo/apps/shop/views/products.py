"""The shop's home, the product page, its live preview, and putting a piece in the basket."""

from django.contrib import messages
from django.core.paginator import Paginator
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext, gettext_noop
from django.views.decorators.cache import cache_control
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.models import NameList
from yenzo.apps.designs.services.designs import save_design
from yenzo.apps.designs.services.unfinished import forget_entries, keep_entries
from yenzo.apps.designs.side_pictures import list_picture, side_picture
from yenzo.apps.designs.to_core import Uploads, as_uuid, entries_of, uploads_of_entries
from yenzo.apps.designs.unfinished import kept_form, receive_sent_files, unfinished_form
from yenzo.apps.designs.visitors import is_signed_in, known_visitor, meet_visitor, visitor_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.languages import read_in, remember_language
from yenzo.apps.products.listing import ShopCard
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_revision, shop_setup
from yenzo.apps.shop.carrying import carried_over
from yenzo.apps.shop.catalog import catalog_of
from yenzo.apps.shop.found_by import absolute
from yenzo.apps.shop.product_slips import (
    design_to_change,
    list_to_change,
    live_product,
    live_setup,
    product_address,
    product_response,
    slip_of_form,
    sold_setup,
)
from yenzo.apps.slip.refreshing import refresh_context
from yenzo.apps.slip.slip import build_slip
from yenzo.apps.workshop.languages import shop_languages
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import read_entries
from yenzo.core.evaluation import evaluate, sample_entries
from yenzo.core.translation import current_language

TOO_MANY = 429
GOODS_A_PAGE = 48
# A card's picture, and one for screens of two pixels to each.
SAMPLE_WIDTHS_PX = (360, 720)
LOOKED_AT = gettext_noop(
    "Your file has arrived and is being looked at. Once its picture shows here, put the piece in the basket."
)
TOO_OFTEN = gettext_noop("This was sent very often in a short time. Please wait a minute and send it again.")


@require_safe
def home(request: HttpRequest) -> HttpResponse:
    catalog = catalog_of(map(ShopCard, Product.objects.for_shop()), request.GET)
    page = Paginator(catalog.cards, GOODS_A_PAGE).get_page(request.GET.get("page"))
    wished = request.GET.copy()
    wished.pop("page", None)
    context = {"page": page, "catalog": catalog, "wished": wished.urlencode(), "canonical": absolute(request.path)}
    return render(request, "shop/home.html", context)


@require_safe
@cache_control(public=True, max_age=31_536_000, immutable=True)
def sample_picture(request: HttpRequest, key: str, sha256: str, width_px: int) -> HttpResponseBase:  # noqa: ARG001
    """Show a revision's goods with its sample text on them."""
    if width_px not in SAMPLE_WIDTHS_PX:
        raise Http404
    product = get_object_or_404(Product.objects.select_related("live"), key=key, live__sha256=sha256)
    assert product.live is not None
    setup = setup_of_revision(product.live)
    sides = evaluate(setup, sample_entries(setup), StoredAssets()).scene.sides
    digest = sides[0].digest if sides else None
    return list_picture(setup, digest, lambda: side_picture(sides[0], StoredAssets()), width_px)


@require_safe
def product_page(request: HttpRequest, key: str) -> HttpResponse:
    """Show a product: as the visitor left it, with what lies in the basket when that is to be changed, or blank."""
    product = live_product(key)
    meet_visitor(request)
    if (names := list_to_change(request, product)) is not None:
        return _shared_page(request, product, names)
    design = design_to_change(request, product)
    unfinished = unfinished_form(known_visitor(request), product, design)
    if unfinished is not None and request.GET.get("like"):
        messages.info(
            request, gettext("You have begun one of these already: finish it, or begin anew, and carry over then.")
        )
    if unfinished is not None:
        sent = slip_of_form(request, sold_setup(product), unfinished)
        return product_response(request, product, sent.slip, design, is_unfinished=True, is_waiting=sent.is_waiting)
    uploads: Uploads = {}
    entries = Entries()
    if (carried := carried_over(request, product)) is not None:
        return product_response(request, product, carried.slip, None, left_out=carried.left_out, like=carried.name)
    if design is not None:
        entries = entries_of(design.personalization)
        uploads = uploads_of_entries(entries, design.personalization.uploads.all())
    slip = build_slip(sold_setup(product), entries, StoredAssets(), uploads, signed_in=is_signed_in(request))
    return product_response(request, product, slip, design)


def _shared_page(request: HttpRequest, product: Product, names: NameList) -> HttpResponse:
    """Show a product with what the rows of a list share, to be changed for all of them."""
    entries = read_entries(names.common)
    uploads = uploads_of_entries(entries, names.uploads.all())
    slip = build_slip(sold_setup(product), entries, StoredAssets(), uploads, signed_in=is_signed_in(request))
    return product_response(request, product, slip, None, names=names)


@require_POST
def refresh(request: HttpRequest, key: str) -> HttpResponse:
    """Answer a keystroke: only what changed. Writes nothing."""
    if not may_go_on(request, "preview"):
        return HttpResponse(gettext("Too many changes in a short time; wait a moment."), status=TOO_MANY)
    # Whoever was told what is missing goes on being told, until it is there.
    shows_missing = request.POST.get("missing") == "shown"
    slip = slip_of_form(request, live_setup(key), request.POST, shows_missing=shows_missing, is_preview=True).slip
    context = {**refresh_context(slip, request.POST), "shows_missing": shows_missing}
    if shows_missing:
        context["blocking"] = list(slip.verdict.blocking)
    return render(request, "slip/_refresh.html", context)


@require_POST
def reword(request: HttpRequest, key: str) -> HttpResponse:
    """Show the product with what is entered so far in another language, and keep to that language from now on."""
    language = request.POST.get("language", "")
    if language not in {one.code for one in shop_languages()}:
        language = current_language()
    product = live_product(key)
    with read_in(language):
        sent = slip_of_form(request, sold_setup(product), request.POST)
        response = product_response(request, product, sent.slip, design_to_change(request, product))
    remember_language(response, language)
    return response


@require_POST
def keep_design(request: HttpRequest, key: str) -> HttpResponse:
    """Keep the piece as it is, whether or not it can be made, among the visitor's designs."""
    product = live_product(key)
    design = design_to_change(request, product)
    assert product.live is not None
    setup = shop_setup(product.live)
    form, refusals = receive_sent_files(request, setup)
    sent = slip_of_form(request, setup, form)
    if not may_go_on(request, "basket"):
        trouble = gettext(TOO_OFTEN)
        return product_response(request, product, sent.slip, design, status=TOO_MANY, trouble=trouble)
    visitor, actor = visitor_of(request), actor_of(request.user)
    for words in refusals:
        messages.error(request, words)
    if sent.is_waiting:
        keep_entries(actor, product, kept_form(form), visitor=visitor, design=design)
        messages.info(request, gettext(LOOKED_AT))
        return redirect(product_address(product, design))
    with transaction.atomic():
        kept = save_design(
            actor,
            product.live,
            sent.slip.entries,
            sent.slip.evaluation,
            visitor=visitor,
            uploads=[one for own in sent.uploads.values() for one in own],
            design_id=design.pk if design else None,
            sent_as=as_uuid(form.get("sent-as", "")),
            in_basket=False,
        )
        forget_entries(actor, product, visitor=visitor, design=design)
    messages.success(request, gettext("It is kept here, and can be changed, shown and ordered at any time."))
    return redirect(reverse("shop:designs", query={"kept": kept.pk}))


@require_POST
def put_in_basket(request: HttpRequest, key: str) -> HttpResponse:
    """Save the piece, or name together all that keeps it from being made."""
    product = live_product(key)
    design = design_to_change(request, product)
    assert product.live is not None
    setup = shop_setup(product.live)
    form, refusals = receive_sent_files(request, setup)
    sent = slip_of_form(request, setup, form, shows_missing=True)
    slip = sent.slip
    if not may_go_on(request, "basket"):
        trouble = gettext(TOO_OFTEN)
        return product_response(request, product, slip, design, status=TOO_MANY, trouble=trouble)
    actor = actor_of(request.user)
    if sent.is_waiting or refusals:
        # Only browsers without scripts send files along; others have sent theirs before.
        keep_entries(actor, product, kept_form(form), visitor=visitor_of(request), design=design)
        for words in refusals:
            messages.error(request, words)
        if sent.is_waiting:
            messages.info(request, gettext(LOOKED_AT))
        return redirect(product_address(product, design))
    if slip.verdict.blocked:
        return product_response(request, product, slip, design, status=422)
    visitor = visitor_of(request)
    with transaction.atomic():
        save_design(
            actor,
            product.live,
            slip.entries,
            slip.evaluation,
            visitor=visitor,
            uploads=[one for own in sent.uploads.values() for one in own],
            design_id=design.pk if design else None,
            sent_as=as_uuid(form.get("sent-as", "")),
        )
        forget_entries(actor, product, visitor=visitor, design=design)
    done = gettext("{name} lies in your basket as changed.") if design else gettext("{name} lies in your basket.")
    messages.success(request, done.format(name=slip.setup.offer.name))
    return redirect("shop:basket")
