"""Files made anew as the customer wants them: a page, without border or ground, darker."""

import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.http import Http404

from tests.apps.conftest import looked_at
from tests.core.artwork import samples
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.services.uploads import prepare_upload
from yenzo.core.artwork.facts import Preparation

DRAWING = samples.svg('<rect x="20" y="10" width="60" height="40"/>')


def send(client, data, address="/uploads/?field=photo", name="crest.svg"):
    answer = looked_at(client, client.post(address, {"file": SimpleUploadedFile(name, data)}))
    assert answer.status_code == 200, answer.content.decode()
    return Upload.objects.latest("sent_at"), answer.content.decode()


def test_drawing_is_taken_shown_as_a_drawing_and_served_sandboxed(client, db):
    upload, shown = send(client, DRAWING)
    assert (upload.form, upload.kind, upload.for_entries.form) == ("drawing", "svg", "drawing")
    assert "Drawing" in shown
    assert "pixels" not in shown
    picture = client.get(f"/uploads/{upload.pk}/picture/")
    assert picture["Content-Type"] == "image/svg+xml"
    assert "sandbox" in picture["Content-Security-Policy"]
    assert b"<path" in picture.content


def test_field_of_one_color_gets_outlines_and_a_control_of_darkness(client, db):
    upload, shown = send(client, samples.logo_picture(), "/uploads/?field=photo&threshold=40&smoothness=2", "crest.png")
    assert upload.for_entries.one_color
    assert upload.preparation["one_color"] == {"threshold": 40, "smoothness": 2}
    assert 'value="40.0"' in shown
    wish = {"threshold": "80", "smoothness": "2"}
    darker = looked_at(client, client.post(f"/uploads/{upload.pk}/prepare/?field=photo", wish))
    assert 'value="80.0"' in darker.content.decode()


def test_page_and_border_are_chosen_and_the_file_before_stays(client, db):
    upload, shown = send(client, samples.pdf(pages=3), name="crest.pdf")
    assert shown.count("<option") == 3 + 4
    assert "Cut off the empty border" in shown
    wish = {"page": "2", "trim": "yes"}
    answer = looked_at(client, client.post(f"/uploads/{upload.pk}/prepare/?field=photo", wish))
    anew = Upload.objects.latest("sent_at")
    assert "Page 2 of 3 is used." in answer.content.decode()
    assert f'value="{anew.pk}"' in answer.content.decode()
    assert anew.original_id == upload.original_id
    assert anew.prepared_id != upload.prepared_id
    assert Upload.objects.count() == 2


@pytest.mark.parametrize(
    ("wish", "words"),
    [
        ({"page": "9"}, "has only 3 pages"),
        ({"page": "x"}, "within their limits"),
        ({"threshold": "200"}, "within their"),
    ],
)
def test_impossible_wish_is_refused_in_words_and_changes_nothing(client, db, wish, words):
    upload, _ = send(client, samples.pdf(pages=3), name="crest.pdf")
    answer = looked_at(client, client.post(f"/uploads/{upload.pk}/prepare/?field=photo", wish))
    assert answer.status_code == 422
    assert words in answer.content.decode()
    assert Upload.objects.ready().count() == 1


def test_nobody_prepares_the_file_of_somebody_else(client, db, actors, browser_of):
    upload, _ = send(client, DRAWING)
    assert browser_of(uuid.uuid4()).post(f"/uploads/{upload.pk}/prepare/", {}).status_code == 404
    with pytest.raises(Http404):
        prepare_upload(actors["customer"], upload.pk, visitor=uuid.uuid4(), wanted=Preparation(trim=True))


def test_too_many_wishes_in_a_minute_are_refused(client, db, settings):
    upload, _ = send(client, DRAWING)
    settings.LIMITS = {**settings.LIMITS, "upload": "1/minute"}
    answers = [client.post(f"/uploads/{upload.pk}/prepare/", {}) for _ in range(3)]
    assert "wait a minute" in answers[-1].content.decode()
