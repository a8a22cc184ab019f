"""Signing in and out, and the workshop's front door."""

from django.conf import settings
from django.contrib.auth.decorators import login_required
from django.contrib.auth.views import LoginView, LogoutView
from django.core.exceptions import NON_FIELD_ERRORS
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect

from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.staff_sign_in import TOO_MANY, SignInForm, remember_device


class SignIn(LoginView):
    template_name = "accounts/sign_in.html"
    authentication_form = SignInForm
    redirect_authenticated_user = True

    def form_valid(self, form: SignInForm) -> HttpResponse:  # type: ignore[override]
        response = super().form_valid(form)
        remember_device(response, form.get_user().get_username(), is_secure=settings.SESSION_COOKIE_SECURE)
        return response

    def form_invalid(self, form: SignInForm) -> HttpResponse:  # type: ignore[override]
        response = super().form_invalid(form)
        response.status_code = 429 if form.has_error(NON_FIELD_ERRORS, TOO_MANY) else 200
        return response


class SignOut(LogoutView):
    http_method_names = ["post", "options"]


@login_required
def front_door(request: HttpRequest) -> HttpResponse:
    """Send staff to the page that their work begins on."""
    role = getattr(request.user, "role", "")
    return redirect("editor:products" if role in {Role.OWNER, Role.SELLER} else "orders:orders")
