"""The page of the workshop's own words in its shop: a form a language."""

from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_http_methods

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.pages.languages import remember_language
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.forms import WordingForm
from yenzo.apps.workshop.languages import shop_languages
from yenzo.apps.workshop.looks import try_look
from yenzo.apps.workshop.services.workshop import WHO, change_wording
from yenzo.apps.workshop.wording import with_words
from yenzo.core.translation import base_language

REFUSED = 422


@staff_page(*WHO)
@require_http_methods(["GET", "HEAD", "POST"])
def wording(request: HttpRequest) -> HttpResponse:
    """Show and keep what the shop says in a language."""
    languages = shop_languages()
    wanted = request.GET.get("language", "")
    shown = next((one for one in languages if one.code == wanted), languages[0])
    language, workshop = base_language(shown.code), current_workshop()
    if request.method != "POST":
        return _page(request, shown.code, WordingForm.of(workshop, language))
    form = WordingForm(request.POST, language=language)
    if not form.is_valid():
        return _page(request, shown.code, form)
    if request.POST.get("do") == "try":
        response = redirect(try_look(request, {"wording": with_words(workshop.wording, language, form.cleaned_data)}))
        # They are looked at in their own language.
        remember_language(response, shown.code)
        return response
    change_wording(actor_of(request.user), language, form.cleaned_data)
    messages.success(request, "Kept. It holds from now on.")
    return redirect(reverse("workshop:wording", query={"language": shown.code}))


def _page(request: HttpRequest, code: str, form: WordingForm) -> HttpResponse:
    kept = current_workshop().wording
    rows = [(one, len(kept.get(base_language(one.code), {}))) for one in shop_languages()]
    context = {"section": "settings", "form": form, "code": code, "languages": rows}
    return render(request, "workshop/wording.html", context, status=REFUSED if form.errors else 200)
