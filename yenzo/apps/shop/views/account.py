"""What customers see who sign in: the form, the link, their orders."""

import uuid

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.translation import gettext
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.visitors import remember_customer, signed_in_mail, visitor_of
from yenzo.apps.orders.models import Order
from yenzo.apps.shop.forms import LinkForm
from yenzo.apps.shop.services.sign_in import LinkError, ask_for_link, find_own_designs, link_of, use_link


@require_safe
@never_cache
def account(request: HttpRequest) -> HttpResponse:
    """Show the orders of who is signed in, or the form that asks for a link."""
    mail = signed_in_mail(request)
    orders = Order.objects.of_customer(mail) if mail else ()
    return render(request, "shop/account.html", {"mail": mail, "orders": orders, "form": LinkForm()})


@require_POST
def ask(request: HttpRequest) -> HttpResponse:
    """Have a link mailed. The answer is the same whether anybody ever ordered from that address."""
    form = LinkForm(request.POST)
    if form.is_valid() and not may_go_on(request, "sign_in"):
        form.add_error("mail", gettext("These are many links in a short time. Please wait a minute and ask again."))
    if not form.is_valid():
        return render(request, "shop/account.html", {"mail": "", "form": form}, status=422)
    ask_for_link(actor_of(request.user), form.cleaned_data["mail"])
    sent = gettext("A link is on its way to {mail}. It works once, within an hour.")
    messages.success(request, sent.format(mail=form.cleaned_data["mail"]))
    return redirect("shop:account")


@never_cache
def use(request: HttpRequest, token: str) -> HttpResponse:
    """Ask once more, as mail programs open links by themselves, then sign in."""
    try:
        if request.method == "POST":
            actor = actor_of(request.user)
            mail = use_link(actor, token)
            remember_customer(request, mail, find_own_designs(actor, mail, visitor_of(request)))
            return redirect("shop:account")
        return render(request, "shop/use_link.html", {"mail": link_of(token).mail, "token": token})
    except LinkError:
        why = gettext("This link is too old or was used already. Please ask for a new one.")
        context = {"mail": "", "form": LinkForm(), "trouble": why}
        return render(request, "shop/account.html", context, status=410)


@require_POST
def sign_out(request: HttpRequest) -> HttpResponse:
    """Forget who is signed in, and their designs: they are there again for who signs in with that address."""
    remember_customer(request, "", uuid.uuid4())
    messages.success(request, gettext("You are signed out. Your basket and designs wait until you sign in again."))
    return redirect("shop:home")
