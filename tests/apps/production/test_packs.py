import hashlib
import io
import json
import zipfile

import pytest
from django.core.files.storage import default_storage

from tests.apps.conftest import GUEST, on_attempt
from tests.apps.orders.test_orders import jobs_named, raise_price
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.files.models import StoredFile
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.orders.to_core import work_of
from yenzo.apps.production.jobs import MOST_ATTEMPTS, make_pack
from yenzo.apps.production.models import Pack
from yenzo.apps.production.services.packs import keep_pack, note_failure, note_progress, retry_pack
from yenzo.apps.products.models import Revision
from yenzo.core.planning import pack as core_pack


@pytest.fixture
def pack(order):
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    return Pack.objects.get()


def test_pack_holds_what_its_manifest_says_and_lands_in_the_store(pack, order):
    make_pack(on_attempt(0), pack_id=pack.pk)
    pack.refresh_from_db()
    with default_storage.open(pack.file.path) as stream:
        data = stream.read()
    assert hashlib.sha256(data).hexdigest() == pack.file_id
    archive = zipfile.ZipFile(io.BytesIO(data))
    manifest = json.loads(archive.read("manifest.json"))
    assert (manifest["order"], manifest["piece"], manifest["revision"]) == (
        str(order.number),
        1,
        order.lines.get().revision.sha256,
    )
    for file in manifest["files"]:
        assert hashlib.sha256(archive.read(file["name"])).hexdigest() == file["sha256"]
    assert (pack.state, pack.percent) == ("done", 100)


def test_pack_made_a_second_time_stays_as_first_made(pack):
    make_pack(on_attempt(0), pack_id=pack.pk)
    first = Pack.objects.get()
    other = core_pack.Pack(
        b"another", core_pack.make_pack(work_of(first.line, 1, 1, first.line.personalization)).manifest
    )
    keep_pack(SYSTEM_ACTOR, pack.pk, other)
    note_progress(SYSTEM_ACTOR, pack.pk, 1, 9)
    note_failure(SYSTEM_ACTOR, pack.pk, "late news")
    again = Pack.objects.get()
    assert (again.file_id, again.state, again.made_at) == (first.file_id, "done", first.made_at)


def test_pack_of_an_old_order_is_the_same_after_a_new_revision(pack, owner, product):
    before = core_pack.make_pack(work_of(pack.line, 1, 1, pack.line.personalization)).data
    raise_price(owner, product)
    piece = Order.objects.get().lines.get()
    assert core_pack.make_pack(work_of(piece, 1, 1, piece.personalization)).data == before


def test_pack_that_cannot_be_made_says_why_and_is_tried_again_by_staff(pack, order, actors, sign_in):
    picture = order.lines.get().revision.document["materials"]["typefaces"]["quayside"]["font"]
    StoredFile.objects.filter(sha256=picture).update(path="content/nowhere")
    from yenzo.core.text import fonts

    fonts._kept.clear()
    make_pack(on_attempt(0), pack_id=pack.pk)
    desk = sign_in("desk")
    assert "isn&#x27;t in the store as it was kept" in desk.get(f"/workshop/packs/{pack.line_id}/").content.decode()
    StoredFile.objects.filter(sha256=picture).update(path=f"content/{picture[:2]}/{picture}")
    retry_pack(actors["decorator"], pack.pk)
    assert jobs_named("production.make_pack") == 2
    make_pack(on_attempt(0), pack_id=pack.pk)
    pack.refresh_from_db()
    assert pack.state == "done"


def test_progress_is_shown_and_asks_again_by_itself_until_done(pack, sign_in):
    desk = sign_in("desk")
    address = f"/workshop/packs/{pack.line_id}/"
    note_progress(SYSTEM_ACTOR, pack.pk, 2, 4)
    page = desk.get(address).content.decode()
    assert 'value="50"' in page
    assert "every 700ms" in page
    make_pack(on_attempt(0), pack_id=pack.pk)
    page = desk.get(address).content.decode()
    assert "every" not in page
    assert f"T-{pack.line.order.number}-1.zip" in page


def test_pack_is_handed_out_to_staff_only_and_once_it_is_made(pack, sign_in, client):
    address = f"/workshop/packs/{pack.line_id}/file/"
    assert sign_in("desk").get(address).status_code == 404
    make_pack(on_attempt(0), pack_id=pack.pk)
    answer = sign_in("decorator").get(address)
    assert answer.content[:2] == b"PK"
    assert client.get(address).status_code == 302


def test_fault_of_ours_is_said_to_be_over_only_when_the_last_attempt_was(pack, monkeypatch):
    def jam(*_parts):
        raise OSError("the disk is away")

    # The disk can't be taken away from one test alone.
    monkeypatch.setattr("yenzo.core.planning.pack.make_pack", jam)
    for attempt in range(MOST_ATTEMPTS - 1):
        with pytest.raises(OSError):
            make_pack(on_attempt(attempt), pack_id=pack.pk)
        pack.refresh_from_db()
        assert (pack.state, "tried again by itself" in pack.trouble) == ("waiting", True)
    with pytest.raises(OSError):
        make_pack(on_attempt(MOST_ATTEMPTS - 1), pack_id=pack.pk)
    pack.refresh_from_db()
    assert pack.state == "failed"


def test_check_that_became_stricter_asks_and_does_not_stop_what_was_ordered(pack, sign_in):
    revision = pack.line.revision
    document = json.loads(json.dumps(revision.document))
    for method in document["materials"]["methods"].values():
        method["least_letter_mm"] = 900
    Revision.objects.filter(pk=revision.pk).update(document=document, sha256="1" * 64)
    make_pack(on_attempt(0), pack_id=pack.pk)
    pack.refresh_from_db()
    assert pack.state == "done"
    assert "mm" in pack.questioned
    page = sign_in("desk").get(f"/workshop/packs/{pack.line_id}/").content.decode()
    assert "It was in order when it was ordered" in page
