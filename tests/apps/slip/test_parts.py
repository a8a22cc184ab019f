"""Files that arrive part by part: gone on with after a break, taken once, nobody else's, within their bounds."""

import uuid
from datetime import timedelta

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from tests.apps.conftest import looked_at
from tests.core.artwork import samples
from yenzo.apps.designs.models import ArrivingFile, Upload
from yenzo.apps.files.services.clearing import clear_old
from yenzo.apps.files.store import read_stored

pytestmark = pytest.mark.django_db
BEGIN = "/uploads/parts/?field=photo"
PICTURE = samples.picture()
HALF = len(PICTURE) // 2


def begin(client, data=PICTURE, query="", **others):
    facts = {"key": uuid.uuid4().hex, "name": "a.png", "size": str(len(data)), "modified": "1790000000000"}
    return client.post(BEGIN + query, facts | others)


def add(client, begun, part, at):
    return client.post(f"{begun['Location']}&at={at}", part, content_type="application/octet-stream")


def test_parts_become_the_file_that_was_sent_whole(client):
    begun = begin(client)
    assert (begun.status_code, begun["Upload-Offset"]) == (200, "0")
    first = add(client, begun, PICTURE[:HALF], 0)
    assert (first.status_code, first["Upload-Offset"]) == (200, str(HALF))
    last = add(client, begun, PICTURE[HALF:], HALF)
    assert last.status_code == 202
    assert "<img" in looked_at(client, last).content.decode()
    upload = Upload.objects.get()
    assert (read_stored(upload.original), upload.name) == (PICTURE, "a.png")
    whole = Client().post("/uploads/?field=photo", {"file": SimpleUploadedFile("a.png", PICTURE)})
    assert Upload.objects.get(pk=whole["Upload-Id"]).original_id == upload.original_id


def test_broken_line_costs_what_was_under_way_only(client):
    key = uuid.uuid4().hex
    begun = begin(client, key=key)
    add(client, begun, PICTURE[:HALF], 0)
    # Its answer was lost: the browser asks how much is here, or sends the part again.
    assert begin(client, key=key)["Upload-Offset"] == str(HALF)
    assert add(client, begun, PICTURE[:HALF], 0)["Upload-Offset"] == str(HALF)
    assert add(client, begun, PICTURE[HALF:], HALF + 7)["Upload-Offset"] == str(HALF)
    assert add(client, begun, PICTURE[HALF:], HALF).status_code == 202


def test_answer_to_the_last_part_that_was_lost_is_given_again_and_the_file_is_taken_once(client):
    key = uuid.uuid4().hex
    begun = begin(client, key=key)
    taken = add(client, begun, PICTURE, 0)
    assert [add(client, begun, PICTURE, 0)["Upload-Id"], begin(client, key=key)["Upload-Id"]] == [
        taken["Upload-Id"]
    ] * 2
    assert Upload.objects.count() == 1


def test_same_file_picked_anew_after_a_reload_goes_on_and_once_it_was_taken_begins_anew(client):
    add(client, begin(client), PICTURE[:HALF], 0)
    again = begin(client)
    assert again["Upload-Offset"] == str(HALF)
    assert begin(client, modified="1790000000001")["Upload-Offset"] == "0"
    add(client, again, PICTURE[HALF:], HALF)
    assert begin(client)["Upload-Offset"] == "0"


def test_what_was_half_written_when_a_process_died_is_written_anew(client):
    begun = begin(client)
    add(client, begun, PICTURE[:HALF], 0)
    path = ArrivingFile.objects.get().path
    path.write_bytes(path.read_bytes() + b"half a part")
    assert add(client, begun, PICTURE[HALF:], HALF).status_code == 202
    assert read_stored(Upload.objects.get().original) == PICTURE


def test_parts_that_are_gone_are_sent_anew(client):
    begun = begin(client)
    add(client, begun, PICTURE[:HALF], 0)
    ArrivingFile.objects.get().path.unlink()
    assert add(client, begun, PICTURE[HALF:], HALF)["Upload-Offset"] == "0"
    assert add(client, begun, PICTURE, 0).status_code == 202


def test_nobody_adds_to_the_file_of_another_or_learns_of_it(client):
    begun = begin(client)
    stranger = Client()
    assert add(stranger, begun, PICTURE, 0).status_code == 404
    assert begin(stranger)["Location"] != begun["Location"]
    assert add(stranger, begun, PICTURE, 0).status_code == 404
    assert ArrivingFile.objects.filter(received_bytes__gt=0).count() == 0


@pytest.mark.parametrize(
    ("data", "query", "words"),
    [(b"MZ" * 400, "", "is not a picture"), (PICTURE, "&kind=jpeg", "is a PNG file")],
    ids=["program", "other kind"],
)
def test_what_the_whole_file_shows_to_be_refused_is_refused_in_words(client, data, query, words):
    answer = add(client, begin(client, data, query), data, 0)
    assert (answer.status_code, words in answer.content.decode()) == (422, True)
    assert not Upload.objects.exists()


@pytest.mark.parametrize(
    "wrong",
    [
        {"key": "x"},
        {"key": ""},
        {"size": "0"},
        {"size": "-5"},
        {"size": ""},
        {"size": "9" * 40},
        {"modified": "now"},
        {"modified": "9" * 40},
    ],
)
def test_what_no_browser_of_ours_sends_is_refused(client, wrong):
    assert begin(client, **wrong).status_code == 422
    assert not ArrivingFile.objects.exists()


def test_file_beyond_the_bound_is_refused_before_a_byte_of_it_is_sent(client, settings):
    settings.MOST_UPLOAD_BYTES = len(PICTURE) - 1
    answer = begin(client)
    assert (answer.status_code, "MB" in answer.content.decode() or "kB" in answer.content.decode()) == (422, True)


def test_parts_that_are_too_large_or_more_than_the_file_change_nothing(client, settings):
    begun = begin(client)
    assert add(client, begun, PICTURE + b"more", 0).status_code == 422
    settings.MOST_PART_BYTES = HALF
    assert add(client, begun, PICTURE[: HALF + 1], 0).status_code == 422
    assert ArrivingFile.objects.get().received_bytes == 0
    assert client.post(f"{begun['Location']}&at=x", b"", content_type="text/plain").status_code == 404


def test_one_visitor_can_begin_only_so_many(client, settings):
    settings.MOST_WAITING_UPLOADS = 2
    for number in range(2):
        assert begin(client, modified=str(number)).status_code == 200
    assert begin(client, modified="9").status_code == 422
    settings.MOST_WAITING_UPLOADS, settings.MOST_VISITOR_BYTES = 30, 3 * len(PICTURE) - 1
    assert "as many files as can be kept" in begin(client, modified="9").content.decode()


def test_what_never_arrived_whole_goes_after_a_day(client, actors):
    add(client, begin(client), PICTURE[:HALF], 0)
    ArrivingFile.objects.update(changed_at=timezone.now() - timedelta(days=2))
    clear_old(actors["owner"], timezone.now())
    assert not ArrivingFile.objects.exists()
