"""My designs: what a visitor has begun and kept, and the looks by which it is shown to others."""

import uuid

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext
from django.views.decorators.cache import cache_control, never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.in_words import piece_in_words
from yenzo.apps.designs.listed import begin_check
from yenzo.apps.designs.models import Design, Look, NameList
from yenzo.apps.designs.personalized import proof_of, read_as_kept
from yenzo.apps.designs.services.designs import name_design, put_back_design, throw_away_design
from yenzo.apps.designs.services.looks import begin_from_look, show_design, show_list, withdraw_looks
from yenzo.apps.designs.to_core import as_uuid
from yenzo.apps.designs.visitors import is_signed_in, known_visitor, signed_in_mail, visitor_of
from yenzo.apps.shop.designs import designs_of
from yenzo.apps.shop.forms import LinkForm
from yenzo.apps.shop.lists import ListPage
from yenzo.apps.shop.services.sending import mail_look
from yenzo.apps.shop.views.products import TOO_OFTEN
from yenzo.apps.workshop.current import current_workshop
from yenzo.core.render.watermark import watermarked


@require_safe
@never_cache
def designs(request: HttpRequest) -> HttpResponse:
    """Show what the visitor has begun and kept, in this browser or, signed in, on every machine."""
    return _page(request)


def _page(request: HttpRequest, form: LinkForm | None = None, status: int = 200) -> HttpResponse:
    visitor, away = known_visitor(request), as_uuid(request.GET.get("away", ""))
    thrown = Design.objects.filter(pk=away, visitor=visitor).exclude(thrown_away_at=None) if away and visitor else None
    context = {
        "own": designs_of(visitor),
        "form": form or LinkForm(initial={"mail": signed_in_mail(request)}),
        "mail": signed_in_mail(request),
        "thrown_away": thrown.select_related("personalization__revision").first() if thrown is not None else None,
        "shown": as_uuid(request.GET.get("shown", "")),
        "mails": as_uuid(request.GET.get("mails", "") or request.POST.get("mails", "")),
        "site": request.build_absolute_uri("/").rstrip("/"),
    }
    return render(request, "shop/designs.html", context, status=status)


@require_POST
def rename(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Call a design by a name."""
    name_design(actor_of(request.user), design_id, request.POST.get("name", "").strip(), visitor=visitor_of(request))
    return redirect("shop:designs")


@require_POST
def throw_away(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Throw a design away; the page then offers to take it up again."""
    if throw_away_design(actor_of(request.user), design_id, visitor=visitor_of(request), is_away=True):
        return redirect(reverse("shop:designs", query={"away": design_id}))
    messages.info(request, gettext("It lies in the basket. Take it out there first."))
    return redirect("shop:designs")


@require_POST
def take_up(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Take a design up again that was thrown away."""
    throw_away_design(actor_of(request.user), design_id, visitor=visitor_of(request), is_away=False)
    return redirect("shop:designs")


@require_POST
def into_basket(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Put a kept design in the basket, which says what must be mended of it, if anything."""
    put_back_design(actor_of(request.user), design_id, visitor=visitor_of(request))
    return redirect("shop:basket")


@require_POST
def share(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Make the link that shows a design to others."""
    look = show_design(actor_of(request.user), design_id, visitor=visitor_of(request), is_shared=True)
    return redirect(reverse("shop:designs", query={"shown": design_id}) if look else "shop:designs")


@require_POST
def withdraw(request: HttpRequest, design_id: uuid.UUID) -> HttpResponse:
    """Let the links to a design show nothing any more."""
    if withdraw_looks(actor_of(request.user), design_id, visitor=visitor_of(request)):
        messages.success(request, gettext("Its links show nothing any more."))
    return redirect("shop:designs")


@require_POST
def mail(request: HttpRequest) -> HttpResponse:
    """Mail a link to oneself, by which a design or a list goes on elsewhere."""
    form, about = LinkForm(request.POST), as_uuid(request.POST.get("mails", ""))
    if form.is_valid() and not may_go_on(request, "sign_in"):
        form.add_error("mail", gettext(TOO_OFTEN))
    if not form.is_valid() or about is None:
        return _page(request, form, status=422)
    actor, visitor, address = actor_of(request.user), visitor_of(request), form.cleaned_data["mail"]
    look = show_design(actor, about, visitor=visitor, is_shared=False, mail=address)
    look = look or show_list(actor, about, visitor=visitor, is_shared=False, mail=address)
    if look is None:
        raise Http404
    mail_look(actor, look)
    sent = gettext("A link is on its way to {mail}. What you do here from now on stays here.")
    messages.success(request, sent.format(mail=address))
    return redirect("shop:designs")


@require_safe
@never_cache
def look(request: HttpRequest, token: str) -> HttpResponse:
    """Show what a link shows; whoever wants begins from a copy."""
    found = _look(token)
    context: dict[str, object] = {"look": found, "is_own": found.visitor == known_visitor(request)}
    if found.names is not None:
        context |= {"shown": ListPage(found.names), "names": found.names}
    else:
        assert found.personalization is not None
        recorded = read_as_kept(found.personalization)
        product = found.personalization.revision.product
        context |= {
            "recorded": recorded,
            "in_words": piece_in_words(recorded),
            "is_sold": product.live_id is not None and not product.is_resting,
        }
    return render(request, "shop/look.html", context)


@require_safe
@cache_control(private=True, max_age=3600)
def look_picture(request: HttpRequest, token: str, side_key: str) -> HttpResponse:  # noqa: ARG001
    """Show a side of what a link shows, with the workshop's mark over it if it is for others."""
    found = _look(token)
    picture = proof_of(found.personalization, side_key) if found.personalization else None
    if picture is None:
        raise Http404
    workshop = current_workshop()
    if found.is_shared and workshop.looks_are_marked:
        picture = watermarked(picture, workshop.name)
    return HttpResponse(picture, content_type="image/png")


@require_POST
def begin(request: HttpRequest, token: str) -> HttpResponse:
    """Begin from a copy of what a link shows."""
    found = _look(token)
    if not may_go_on(request, "basket"):
        messages.error(request, gettext(TOO_OFTEN))
        return redirect("shop:look", token)
    actor = actor_of(request.user)
    made = begin_from_look(actor, found, visitor=visitor_of(request))
    if isinstance(made, NameList):
        begin_check(actor, made, signed_in=is_signed_in(request))
        return redirect("shop:list", made.pk)
    return redirect(reverse("shop:product", args=[made.revision.product.key], query={"design": made.pk}))


def _look(token: str) -> Look:
    return get_object_or_404(Look.objects.active(), token=token)
