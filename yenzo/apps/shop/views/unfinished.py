"""What is begun on a product's page: kept, shown again, shown without scripts, and begun anew."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect
from django.utils.translation import gettext
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.services.unfinished import forget_entries, keep_entries
from yenzo.apps.designs.unfinished import kept_form, receive_sent_files
from yenzo.apps.designs.visitors import known_visitor, visitor_of
from yenzo.apps.shop.product_slips import (
    design_to_change,
    live_product,
    product_address,
    product_response,
    slip_of_form,
    sold_setup,
)
from yenzo.apps.shop.views.products import TOO_MANY

DONE, TOO_LARGE = 204, 413


@require_POST
def keep(request: HttpRequest, key: str) -> HttpResponse:
    """Keep the form as it stands; pages send it by themselves, shortly after each change."""
    product = live_product(key)
    if not may_go_on(request, "keep"):
        return HttpResponse(status=TOO_MANY)
    form = kept_form(request.POST)
    if not form:
        words = gettext("This is more than can be kept until it is sent.")
        return HttpResponse(words, status=TOO_LARGE, content_type="text/plain; charset=utf-8")
    design = design_to_change(request, product)
    keep_entries(actor_of(request.user), product, form, visitor=visitor_of(request), design=design)
    return HttpResponse(status=DONE)


@require_POST
def again(request: HttpRequest, key: str) -> HttpResponse:
    """Show the page with a form that the browser kept: the line was lost before it could be kept here."""
    product = live_product(key)
    if not may_go_on(request, "preview"):
        return HttpResponse(gettext("Too many changes in a short time; wait a moment."), status=TOO_MANY)
    sent = slip_of_form(request, sold_setup(product), request.POST)
    design = design_to_change(request, product)
    return product_response(request, product, sent.slip, design, is_unfinished=True, is_waiting=sent.is_waiting)


@require_POST
def show(request: HttpRequest, key: str) -> HttpResponse:
    """Show the goods and the price with what is entered, for browsers without scripts; files are received."""
    product = live_product(key)
    form, refusals = receive_sent_files(request, sold_setup(product))
    if "go" in request.GET:
        form["go"] = request.GET["go"]
    design = design_to_change(request, product)
    kept = kept_form(form)
    if kept and may_go_on(request, "keep"):
        keep_entries(actor_of(request.user), product, kept, visitor=visitor_of(request), design=design)
    for words in refusals:
        messages.error(request, words)
    return redirect(product_address(product, design))


@require_POST
def begin_anew(request: HttpRequest, key: str) -> HttpResponse:
    """Show the product blank again, or as it lies in the basket."""
    product = live_product(key)
    design, visitor = design_to_change(request, product), known_visitor(request)
    if visitor is not None:
        forget_entries(actor_of(request.user), product, visitor=visitor, design=design)
    return redirect(product_address(product, design))
