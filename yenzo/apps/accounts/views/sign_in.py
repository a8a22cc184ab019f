"""Signing in and out, and the workshop's front door."""

from django.contrib.auth.decorators import login_required
from django.contrib.auth.views import LoginView, LogoutView
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect

from yenzo.apps.accounts.models import Role


class SignIn(LoginView):
    template_name = "accounts/sign_in.html"
    redirect_authenticated_user = True


class SignOut(LogoutView):
    http_method_names = ["post", "options"]


@login_required
def front_door(request: HttpRequest) -> HttpResponse:
    """Send staff to the page that their work begins on."""
    role = getattr(request.user, "role", "")
    return redirect("catalogue:products" if role in {Role.OWNER, Role.SELLER} else "orders:orders")
