"""The outbox: mails that the stand-in kept instead of posting them."""

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import STAFF
from yenzo.apps.files.downloads import as_download
from yenzo.apps.orders.outside import mail_gateway
from yenzo.gateways.mail.outbox import OutboxFolder


@staff_page(*STAFF)
def outbox(request: HttpRequest) -> HttpResponse:
    gateway = mail_gateway()
    mails = gateway.kept() if isinstance(gateway, OutboxFolder) else None
    return render(request, "orders/outbox.html", {"mails": mails, "section": "outbox"})


@staff_page(*STAFF)
@require_safe
def mail_file(request: HttpRequest, key: str) -> HttpResponse:  # noqa: ARG001
    """Hand out a mail as a message file, pictures included."""
    gateway = mail_gateway()
    data = gateway.find(key) if isinstance(gateway, OutboxFolder) else None
    if data is None:
        raise Http404
    return as_download(HttpResponse(data), f"{key}.eml")
