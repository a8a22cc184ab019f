"""Messages about an order: a form of customer or workshop comes in, the message is kept; its file goes out."""

from collections.abc import Callable
from pathlib import Path

from django.contrib import messages
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect
from django.utils.translation import gettext
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import DESK, STAFF, actor_of
from yenzo.apps.designs.to_core import as_uuid
from yenzo.apps.files.downloads import download
from yenzo.apps.orders.models import Order, OrderNote
from yenzo.apps.orders.services.notes import note_for_workshop, write_to_customer
from yenzo.core.documents.values import clean_text

MOST_TEXT, MOST_BYTES = 4000, 50_000_000
Write = Callable[..., OrderNote | None]


def send_note(request: HttpRequest, order: Order, write: Write) -> str:
    """Keep the message that a form was sent with; return in words why it can't be, or nothing."""
    text = clean_text(request.POST.get("text", "")).strip()
    sent, sent_as = request.FILES.get("file"), as_uuid(request.POST.get("sent_as", ""))
    if len(text) > MOST_TEXT:
        return gettext("This is longer than a message can be. Please send it as a file.")
    if (not text and not sent) or sent_as is None:
        return gettext("Please write something, or pick a file.")
    if sent is not None and (not sent.size or sent.size > MOST_BYTES):
        return gettext("A file may have 50 MB, and not be empty. Please send it smaller.")
    if not may_go_on(request, "upload"):
        return gettext("These are many messages in a short time. Please wait a minute.")
    path = Path(sent.temporary_file_path()) if isinstance(sent, TemporaryUploadedFile) else None
    name = (sent.name or "file") if sent else ""
    note = write(actor_of(request.user), order, text, sent_as=sent_as, file=path, file_name=name)
    return "" if note else gettext("There are many messages about this order already. Please write a mail.")


def file_of_note(order: Order, note_id: int, *, is_staff: bool) -> HttpResponseBase:
    """Answer with the file of a message, as a download only; of notes for the workshop only to staff."""
    notes = order.notes.all() if is_staff else order.notes.for_customer()
    note = get_object_or_404(notes.select_related("file"), pk=note_id)
    if note.file is None:
        raise Http404
    return download(note.file, note.file_name)


@staff_page(*STAFF)
@require_POST
def write(request: HttpRequest, number: int) -> HttpResponse:
    """Write to the customer of an order, or a note for the workshop only: who may not write to customers, always."""
    order = get_object_or_404(Order, number=number)
    is_inward = request.POST.get("for") == "workshop" or getattr(request.user, "role", "") not in DESK
    trouble = send_note(request, order, note_for_workshop if is_inward else write_to_customer)
    said = "It is noted for the workshop." if is_inward else "The mail to the customer waits in the outbox."
    if trouble:
        messages.error(request, trouble)
    else:
        messages.success(request, said)
    return redirect("orders:order", number)


@staff_page(*STAFF)
@require_safe
def note_file(request: HttpRequest, number: int, note_id: int) -> HttpResponseBase:  # noqa: ARG001
    return file_of_note(get_object_or_404(Order, number=number), note_id, is_staff=True)
