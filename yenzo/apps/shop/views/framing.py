"""The slip on other sites: a product in a frame there, and what was put in the basket there brought into the shop."""

import uuid

from django.core import signing
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_safe

from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.framed import Framed, address_in
from yenzo.apps.designs.visitors import is_signed_in, visitor_of
from yenzo.apps.shop.basket import basket_of
from yenzo.apps.shop.product_slips import live_product
from yenzo.apps.shop.services.bringing import bring_basket
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.languages import shop_languages
from yenzo.apps.workshop.sites import origin_of
from yenzo.core.translation import current_language

SALT = "yenzo.brought"


@require_safe
@never_cache
def begin(request: HttpRequest, key: str) -> HttpResponse:
    """Begin a frame of a product on a site that may show it."""
    product = live_product(key)
    try:
        site = origin_of(request.GET.get("site", ""))
    except ValueError:
        site = ""
    if site not in current_workshop().sites:
        return render(request, "shop/not_framed.html", {"product": product}, status=403)
    language = request.GET.get("language", "")
    framed = Framed(
        uuid.uuid4(), site, language if language in {one.code for one in shop_languages()} else current_language()
    )
    return redirect(f"{address_in(framed, 'shop:product', product.key)}?begun=1")


def framed_basket(request: HttpRequest, framed: Framed) -> HttpResponse:
    """Show within a frame what lies in its basket, and the way into the shop; the page around it is told."""
    token = signing.Signer(salt=SALT).sign_object(framed.visitor.hex)
    # The way out of the frame begins at the root of the shop.
    address = reverse("shop:bring", args=[token]).removeprefix(framed.head)
    basket = basket_of(framed.visitor, signed_in=False)
    context = {"basket": basket, "bring": request.build_absolute_uri(address)}
    return render(request, "shop/framed_basket.html", context)


@never_cache
def bring(request: HttpRequest, token: str) -> HttpResponse:
    """Ask whether what was put in the basket on another site is to go into this browser's; then let it."""
    try:
        before = uuid.UUID(signing.Signer(salt=SALT).unsign_object(token))
    except (signing.BadSignature, ValueError) as error:
        raise Http404 from error
    if request.method == "POST":
        bring_basket(actor_of(request.user), before=before, after=visitor_of(request))
        return redirect("shop:basket")
    basket = basket_of(before, signed_in=is_signed_in(request))
    return render(request, "shop/bring.html", {"basket": basket, "token": token})
