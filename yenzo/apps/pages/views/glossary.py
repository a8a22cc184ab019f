"""The page that says what the workshop's words mean."""

from django.contrib.auth.decorators import login_required
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_safe

from yenzo.apps.pages.glossary import TERMS


@login_required
@require_safe
def glossary(request: HttpRequest) -> HttpResponse:
    return render(request, "pages/glossary.html", {"terms": sorted(TERMS, key=lambda term: term.word.lower())})
