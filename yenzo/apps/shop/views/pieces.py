"""What is done with a piece in the basket: answered, counted, copied, taken out and put back, made anew or kept."""

import uuid
from collections.abc import Callable
from functools import wraps

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.answers import answered
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.services.designs import (
    copy_design,
    keep_as_it_was,
    put_back_design,
    remove_design,
    save_design,
)
from yenzo.apps.designs.to_core import entries_of, evaluate_entries
from yenzo.apps.designs.visitors import is_signed_in, visitor_of
from yenzo.apps.products.listing import ShopCard
from yenzo.apps.products.models import Product, Revision
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.shop.views.products import TOO_OFTEN
from yenzo.core.documents.entries import MOST_PIECES, Entries
from yenzo.core.evaluation import Evaluation

Action = Callable[[HttpRequest, uuid.UUID], HttpResponse]


def _limited(action: Action) -> Action:
    """Let a piece be made anew or doubled as often as one can be put in the basket."""

    @require_POST
    @wraps(action)
    def limited(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
        if may_go_on(request, "basket"):
            return action(request, design_id)
        messages.error(request, gettext(TOO_OFTEN))
        return redirect("shop:basket")

    return limited


@_limited
def answer(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Keep the answer to a question about a piece: it is right so, or the mend is taken."""
    design = _own(request, design_id)
    before = entries_of(design.personalization)
    entries = answered(shop_setup(design.revision), before, request.POST)
    if entries != before:
        _save(request, design, entries)
    return redirect("shop:basket")


@_limited
def count(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Say how many of a piece are wanted."""
    design, sent = _own(request, design_id), request.POST.get("pieces", "").strip()
    pieces = int(sent) if sent.isascii() and sent.isdigit() and len(sent) < 10 else 0
    if not 1 <= pieces <= MOST_PIECES:
        why = gettext("“{sent}” can't be ordered: write a number from 1 to {most}. Take the piece out to have none.")
        messages.error(request, why.format(sent=sent[:40], most=MOST_PIECES))
        return redirect("shop:basket")
    entries = entries_of(design.personalization)
    if pieces != entries.pieces:
        _save(request, design, entries.model_copy(update={"pieces": pieces}))
    return redirect("shop:basket")


@_limited
def copy(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Put another piece like this one in the basket."""
    if copy_design(actor_of(request.user), design_id, visitor=visitor_of(request)):
        messages.success(request, gettext("A copy lies in the basket; change it as you like."))
    return redirect("shop:basket")


@_limited
def copy_kept(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Make another design like a kept one."""
    if copy_design(actor_of(request.user), design_id, visitor=visitor_of(request)):
        messages.success(request, gettext("There is a copy of it; change it as you like."))
    return redirect("shop:designs")


@require_POST
def remove(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Take a piece out; the basket then offers to put it back."""
    if remove_design(actor_of(request.user), design_id, visitor=visitor_of(request)):
        return redirect(f"{reverse('shop:basket')}?removed={design_id}")
    return redirect("shop:basket")


@require_POST
def put_back(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Put a piece back that was taken out."""
    if put_back_design(actor_of(request.user), design_id, visitor=visitor_of(request)):
        messages.success(request, gettext("It lies in the basket again."))
    return redirect("shop:basket")


@_limited
def renew(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Have a piece made as its product is sold by now, at its price of now."""
    design = _own(request, design_id)
    live = design.revision.product.live
    if live is None or live.pk == design.revision.pk:
        return redirect("shop:basket")
    evaluation = _save(request, design, entries_of(design.personalization), live)
    if evaluation.verdict.blocked:
        messages.error(request, gettext("Something of it must be mended first: it says what, at its field."))
        return redirect(f"{reverse('shop:product', args=[design.revision.product.key])}?design={design.pk}")
    return redirect("shop:basket")


@require_POST
def stay(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Keep a piece as it was, at its price of then."""
    design, sent = _own(request, design_id), request.POST.get("revision", "")
    live_id = int(sent) if sent.isascii() and sent.isdigit() and len(sent) < 18 else 0
    if not keep_as_it_was(actor_of(request.user), design.pk, live_id, visitor=visitor_of(request)):
        messages.error(request, gettext("The workshop has changed it once more. Please look at it again."))
    return redirect("shop:basket")


@require_safe
def like(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Show the goods that a design can be carried over to."""
    design = get_object_or_404(Design.objects.for_list(visitor_of(request)), pk=design_id)
    others = Product.objects.for_shop().exclude(pk=design.revision.product_id)
    name, goods = shop_setup(design.revision).offer.name, [ShopCard(one) for one in others]
    return render(request, "shop/like.html", {"name": name, "goods": goods, "carries": f"?like={design.pk}"})


def _own(request: HttpRequest, design_id: uuid.UUID) -> Design:
    return get_object_or_404(Design.objects.in_basket_of(visitor_of(request)), pk=design_id)


def _save(request: HttpRequest, design: Design, entries: Entries, revision: Revision | None = None) -> Evaluation:
    """Put other entries in the place of a design's, or the same for another revision, unless that can't be made."""
    kept, wanted = design.personalization, revision or design.personalization.revision
    evaluation = evaluate_entries(wanted, entries, signed_in=is_signed_in(request))
    if revision is None or not evaluation.verdict.blocked:
        actor, uploads = actor_of(request.user), list(kept.uploads.all())
        visitor = visitor_of(request)
        save_design(actor, wanted, entries, evaluation, visitor=visitor, uploads=uploads, design_id=design.pk)
    return evaluation
