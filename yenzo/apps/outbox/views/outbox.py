"""The outbox: what went out, what could not, and (of the stand-in for the post) what it said."""

import re
from dataclasses import dataclass

from django.contrib import messages
from django.core.paginator import Paginator
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.files.downloads import as_download
from yenzo.apps.outbox.interface import WRITERS
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.outbox.posting import kept_outbox
from yenzo.apps.outbox.services.mails import READERS, send_again
from yenzo.gateways.mail.outbox import KeptMail

MAILS_A_PAGE = 40
# Whoever has such a link is taken for the customer: it is for the mailbox alone.
SECRET_LINK = re.compile(r"(https?://[^\s/]+/(?:account|order|look)/)[^\s/]+/?")
BLANK = r"\1… (the customer's own link)"


@dataclass(frozen=True)
class ShownMail:
    """A mail of the outbox with what it said, if the stand-in kept it."""

    mail: OutgoingMail
    kept: KeptMail | None

    @property
    def label(self) -> str:
        """Which kind of mail it is."""
        return WRITERS[self.mail.writer].label

    @property
    def text(self) -> str:
        """What it said, without the links that are secret."""
        return blanked(self.kept.text) if self.kept else ""


def blanked(text: str) -> str:
    """Return a text without the links that only its recipient may use."""
    return SECRET_LINK.sub(BLANK, text)


@staff_page(*READERS)
@require_safe
def outbox(request: HttpRequest) -> HttpResponse:
    page = Paginator(OutgoingMail.objects.order_by("-wanted_at", "-pk"), MAILS_A_PAGE).get_page(request.GET.get("page"))
    kept = kept_outbox()
    context = {
        "page": page,
        "mails": [ShownMail(mail, kept.read(mail.key) if kept else None) for mail in page],
        "stuck": [ShownMail(mail, None) for mail in OutgoingMail.objects.stuck().order_by("wanted_at")[:MAILS_A_PAGE]],
        "is_practice": kept is not None,
        "section": "outbox",
    }
    return render(request, "outbox/outbox.html", context)


@staff_page(*READERS)
@require_safe
def mail_file(request: HttpRequest, key: str) -> HttpResponse:  # noqa: ARG001
    """Hand out a mail as a message file, pictures included and secret links left out."""
    kept = kept_outbox()
    data = kept.find(key, blanked) if kept else None
    if data is None:
        raise Http404
    return as_download(HttpResponse(data), f"{key}.eml")


@staff_page(*READERS)
@require_POST
def again(request: HttpRequest, mail_id: int) -> HttpResponse:
    """Send a mail that is stuck."""
    mail = get_object_or_404(OutgoingMail, pk=mail_id)
    send_again(actor_of(request.user), mail.pk)
    messages.success(request, f"The mail to {mail.to} is on its way again.")
    return redirect("outbox:outbox")
