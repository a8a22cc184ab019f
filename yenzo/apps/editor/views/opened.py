"""The form of an underlined value, opened in its place: of a line, a section or the form as a whole."""

from dataclasses import dataclass, replace

from django import forms
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.editor.aspects import Aspect
from yenzo.apps.editor.aspects.interface import L
from yenzo.apps.editor.goods_pictures import taken_pictures
from yenzo.apps.editor.views.setup import changed
from yenzo.apps.pages.phrases import joined
from yenzo.apps.products.models import Product

REFUSED = 422
SURE = "sure"


@dataclass(frozen=True)
class Opened:
    """Where a form is sent, which value opened it, what its change is called, and of which draft it tells."""

    address: str
    opener: str
    label: str
    seen: int = 0


def _is_sure(request: HttpRequest, form: forms.Form) -> bool:
    """Tell whether it was said that something may be lost; from now on the form asks."""
    form.fields[SURE] = forms.BooleanField(required=False, label="Yes, take it away")
    return request.POST.get(SURE, "") == "on"


def answer_aspect(request: HttpRequest, key: str, aspect: Aspect[L], line: L, opened: Opened) -> HttpResponse:
    """Show the form, or save it: then the whole set-up is answered with, or the form with what is refused."""
    form = aspect.form(line, *((request.POST, request.FILES) if request.method == "POST" else ()))
    if request.method == "POST" and form.is_valid():
        try:
            given = {**form.cleaned_data, **taken_pictures(request, form)}
            if (lost := aspect.losses(line, given)) and not _is_sure(request, form):
                raise forms.ValidationError(f"With that goes {joined(lost)}.")
            operations = aspect.operations(line, given)
        except forms.ValidationError as error:
            form.add_error(None, error)
        else:
            return changed(request, key, operations, opened.label, refocus=opened.opener)
    # It goes on telling of the draft that its page showed when it was opened, whatever is saved meanwhile.
    now = Product.objects.values_list("draft_version", flat=True).get(key=key)
    seen = sent_number(request, "seen", now)
    context = {"form": form, "aspect": aspect, "opened": replace(opened, seen=seen)}
    response = render(request, "editor/_aspect_form.html", context, status=REFUSED if form.is_bound else 200)
    if form.is_bound:
        response["HX-Retarget"], response["HX-Reswap"] = f'form[hx-post="{opened.address}"]', "outerHTML"
    return response
