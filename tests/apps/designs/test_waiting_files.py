"""Files wait for a worker: who waits is told, nobody's many hold up another's one, and nothing is lost or taken twice."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import Client

from tests.apps.conftest import looked_at, on_attempt
from tests.core.artwork import samples
from yenzo.apps.designs.jobs import MOST_ATTEMPTS, look_at_upload
from yenzo.apps.designs.models import Upload

pytestmark = pytest.mark.django_db


def send(client, name="a.png"):
    return client.post("/uploads/?field=photo", {"file": SimpleUploadedFile(name, samples.picture())})


def next_jobs():
    """Return whose files the worker looks at, in its order (the highest priority first, then the oldest)."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT lock FROM procrastinate_jobs WHERE queue_name = 'artwork' ORDER BY priority DESC, id")
        return [row[0].removeprefix("uploads-") for row in cursor.fetchall()]


def test_file_is_received_at_once_and_whoever_waits_is_told_how_many_are_before_it(client):
    others = Client()
    for _ in range(2):
        send(others)
    answer = send(client)
    assert (answer.status_code, "2 other files came before it" in answer.content.decode()) == (202, True)
    assert client.get(answer["Location"]).status_code == 202
    assert "<img" in looked_at(client, answer).content.decode()


def test_many_files_of_one_visitor_do_not_hold_up_the_only_one_of_another(client):
    greedy = Client()
    for _ in range(5):
        send(greedy)
    send(client)
    first, last = (
        str(visitor) for visitor in Upload.objects.order_by("sent_at").values_list("visitor", flat=True)[:6:5]
    )
    assert next_jobs()[:2] == [first, last]


def test_nobody_else_learns_how_a_file_fares(client):
    answer = send(client)
    assert Client().get(answer["Location"]).status_code == 404
    stranger = Client()
    send(stranger)
    assert stranger.get(answer["Location"]).status_code == 404


def test_file_that_waits_is_in_no_preview_and_no_basket(client, product):
    answer = send(client)
    form = {"entry-name": "Otter", "entry-with_photo": "yes", "upload-photo": answer["Location"].split("/")[2]}
    assert "a.png" not in client.post("/goods/board/preview/", form).content.decode()
    assert client.post("/goods/board/basket/", form).status_code == 422


def test_job_that_comes_twice_looks_once(client):
    answer = send(client)
    looked_at(client, answer)
    before = Upload.objects.get()
    look_at_upload(on_attempt(0), upload_id=str(before.pk))
    assert Upload.objects.get().prepared_id == before.prepared_id
    look_at_upload(on_attempt(0), upload_id=str(uuid.uuid4()))


def test_fault_of_ours_ends_in_words_after_the_last_attempt(client):
    from django.conf import settings

    answer = send(client)
    upload = Upload.objects.get()
    (settings.FILES_ROOT / upload.original.path).unlink()
    for attempt in range(MOST_ATTEMPTS):
        with pytest.raises(Exception, match="isn't in the store"):
            look_at_upload(on_attempt(attempt), upload_id=str(upload.pk))
    said = client.get(answer["Location"])
    assert (said.status_code, "Please send it again" in said.content.decode()) == (422, True)


@pytest.mark.parametrize(
    ("name", "value", "words"),
    [
        ("MOST_WAITING_UPLOADS", 1, "still being looked at"),
        ("MOST_VISITOR_BYTES", 10, "as many files as can be kept"),
        ("MOST_VISITOR_UPLOADS", 1, "as many files as can be kept"),
        ("LEAST_DISK_BYTES", 10**18, "no room for more files"),
        ("MOST_STORED_BYTES", 0, "no room for more files"),
    ],
)
def test_bounds_of_a_visitor_and_of_the_disk_are_said_in_words(client, settings, name, value, words):
    from django.core.cache import cache

    cache.delete("files-disk-space")
    if "VISITOR_UPLOADS" in name or "WAITING" in name:
        send(client)
    setattr(settings, name, value)
    answer = send(client)
    cache.delete("files-disk-space")
    assert (answer.status_code, words in answer.content.decode()) == (422, True)


def test_name_of_a_file_hides_nothing_and_turns_nothing(client):
    send(client, "photo\u202egnp\u200b.exe")
    assert Upload.objects.get().name == "photognp.exe"
