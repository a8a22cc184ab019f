"""What waits for a job that will never come is handed to the worker again; what has one, or is young, is left alone."""

from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.utils import timezone

from tests.apps.conftest import GUEST
from tests.core.artwork import samples
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.designs.services.uploads import look_after_uploads
from yenzo.apps.desk.services.preflights import look_after_preflights
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.orders.services.payments import look_after_payments, start_payment
from yenzo.apps.outbox.services.mails import look_after_mails
from yenzo.apps.production.models import Pack
from yenzo.apps.production.services.packs import look_after_packs

pytestmark = pytest.mark.django_db
LATER = timedelta(hours=1)


def jobs(task, state="todo"):
    with connection.cursor() as cursor:
        cursor.execute(
            "SELECT count(*) FROM procrastinate_jobs WHERE task_name = %s AND status::text = %s", [task, state]
        )
        return cursor.fetchone()[0]


def fail_all():
    with connection.cursor() as cursor:
        cursor.execute("UPDATE procrastinate_jobs SET status = 'failed'")


def upload(client, order):
    client.post("/uploads/?field=photo", {"file": SimpleUploadedFile("a.png", samples.picture())})


def paid(client, order):
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)


def never_told(client, order):
    pay_order(GUEST, order, "approves")


def silent(client, order):
    start_payment(GUEST, order.pk, "silent")


@pytest.mark.parametrize(
    ("begin", "look_after", "task", "count"),
    [
        (upload, look_after_uploads, "designs.look_at_upload", 1),
        (paid, look_after_mails, "outbox.send_mail", 4),
        (paid, look_after_packs, "production.make_pack", 1),
        (silent, look_after_payments, "orders.settle_payment", 1),
    ],
)
def test_what_no_job_will_do_any_more_gets_a_new_one(client, order, begin, look_after, task, count):
    begin(client, order)
    look_after(SYSTEM_ACTOR, timezone.now() + LATER)
    assert jobs(task) == count
    fail_all()
    look_after(SYSTEM_ACTOR, timezone.now() - LATER)
    assert jobs(task) == 0
    look_after(SYSTEM_ACTOR, timezone.now() + LATER)
    look_after(SYSTEM_ACTOR, timezone.now() + LATER)
    assert jobs(task) == count


def test_packs_are_wanted_of_an_order_whose_payment_was_told_to_nobody(client, order):
    never_told(client, order)
    look_after_preflights(SYSTEM_ACTOR, timezone.now() + LATER)
    assert not Pack.objects.exists()
    fail_all()
    look_after_preflights(SYSTEM_ACTOR, timezone.now() + LATER)
    assert Pack.objects.count() == 1
