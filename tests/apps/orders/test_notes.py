"""Notes that only the workshop reads, beside messages to the customer."""

import uuid

import pytest

from tests.apps.conftest import send_mails
from yenzo.apps.orders.models import OrderNote
from yenzo.apps.orders.services.notes import note_for_workshop

pytestmark = pytest.mark.django_db


@pytest.fixture
def path(order):
    return f"/workshop/orders/{order.number}/write/"


def test_note_for_the_workshop_is_read_by_staff_only(order, path, sign_in, browser_of, visitor, tmp_path):
    sign_in("desk").post(path, {"text": "Rings twice a day", "for": "workshop", "sent_as": str(uuid.uuid4())})
    note = OrderNote.objects.get()
    assert note.is_inward
    assert not any(key.startswith("note-") for key in send_mails())
    assert "Rings twice a day" in sign_in("decorator").get(f"/workshop/orders/{order.number}/").content.decode()
    assert "Rings twice a day" not in browser_of(visitor).get(f"/order/{order.token}/").content.decode()


def test_file_of_such_a_note_isnt_handed_to_the_customer(order, actors, sign_in, browser_of, visitor, tmp_path):
    file = tmp_path / "plan.txt"
    file.write_text("secret")
    note = note_for_workshop(
        actors["desk"], order, "See the plan", sent_as=uuid.uuid4(), file=file, file_name="plan.txt"
    )
    assert sign_in("desk").get(f"/workshop/orders/{order.number}/files/{note.pk}/").content == b"secret"
    assert browser_of(visitor).get(f"/order/{order.token}/files/{note.pk}/").status_code == 404


def test_decorator_writes_to_the_workshop_whatever_is_asked(order, path, sign_in):
    sign_in("decorator").post(path, {"text": "Wood is damp", "for": "customer", "sent_as": str(uuid.uuid4())})
    assert OrderNote.objects.get().is_inward


def test_message_to_the_customer_goes_as_before(order, path, sign_in, browser_of, visitor):
    sign_in("desk").post(path, {"text": "It is ready", "for": "customer", "sent_as": str(uuid.uuid4())})
    assert any(key.startswith("note-") for key in send_mails())
    assert "It is ready" in browser_of(visitor).get(f"/order/{order.token}/").content.decode()
