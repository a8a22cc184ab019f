"""Gates before staff's pages: a view comes in, a view that only some roles may see goes out."""

import functools
from collections.abc import Callable
from typing import Any

from django.contrib.auth.decorators import login_required
from django.core.exceptions import PermissionDenied
from django.http import HttpRequest, HttpResponseBase

View = Callable[..., HttpResponseBase]


def staff_page(*roles: str) -> Callable[[View], View]:
    """Show a page only to signed-in staff of these roles."""

    def decorate(view: View) -> View:
        @login_required
        @functools.wraps(view)
        def gated(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponseBase:
            if getattr(request.user, "role", None) not in roles:
                raise PermissionDenied("This page isn't for your role. Please ask the owner of the workshop.")
            return view(request, *args, **kwargs)

        return gated

    return decorate
