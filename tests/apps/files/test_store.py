"""The store keeps a file whole or not at all, tells what is damaged, and mends it when the file comes again."""

import os
import subprocess
import sys

import pytest
from django.conf import settings
from django.core.cache import cache
from django.core.files.base import ContentFile
from django.core.files.storage import default_storage
from django.utils import timezone

from demo.installation import ROOT
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.files.models import FileTrouble, StoredFile
from yenzo.apps.files.services.checking import check_files
from yenzo.apps.files.store import StoredAssets, store_file
from yenzo.core.errors import AssetError

pytestmark = pytest.mark.django_db
# Writes until the operating system lets it write no more: what a full disk does to a process.
FILL_UP = """
import django, hashlib, resource, sys
django.setup()
from yenzo.apps.files import blobs
data = bytes(range(256)) * 6000
resource.setrlimit(resource.RLIMIT_FSIZE, (729_088, 729_088))
try:
    blobs.put("content/fu/full", data, hashlib.sha256(data).hexdigest())
except OSError as error:
    print("refused", error.errno)
"""


def on_disk(stored):
    return settings.FILES_ROOT / stored.path


def test_file_that_finds_no_room_leaves_nothing_and_is_kept_whole_the_next_time():
    done = subprocess.run(
        [sys.executable, "-c", FILL_UP],
        cwd=ROOT,
        env=os.environ | {"FILES_ROOT": str(settings.FILES_ROOT)},
        capture_output=True,
        text=True,
    )
    assert done.stdout.startswith("refused"), done.stderr
    folder = settings.FILES_ROOT / "content" / "fu"
    assert list(folder.iterdir()) == []


@pytest.mark.parametrize("left", [b"", b"half of what", b"other bytes, as many"])
def test_what_lies_at_the_address_counts_only_when_its_bytes_are_right(left):
    data = b"as many bytes as be."
    stored = store_file(data)
    beside = set(on_disk(stored).parent.iterdir())
    on_disk(stored).write_bytes(left)
    with pytest.raises(AssetError, match="isn't in the store as it was kept"):
        StoredAssets().read(stored.pk)
    store_file(data)
    assert StoredAssets().read(stored.pk) == data
    assert set(on_disk(stored).parent.iterdir()) == beside


def test_check_tells_the_owner_what_is_damaged_or_missing_until_it_is_whole_again(sign_in):
    cut, gone, good = (store_file(f"check me {number}".encode()) for number in range(3))
    on_disk(cut).write_bytes(b"check")
    on_disk(gone).unlink()
    run = check_files(SYSTEM_ACTOR, timezone.now())
    assert run.counts["wrong"] == 2
    assert run.counts["looked_at"] == StoredFile.objects.count()
    check_files(SYSTEM_ACTOR, timezone.now())
    assert {trouble.file_id: trouble.what for trouble in FileTrouble.objects.unresolved()} == {
        cut.pk: "5 of 10 bytes",
        gone.pk: "missing",
    }
    page = sign_in("owner").get("/workshop/files/").content.decode()
    cache.clear()
    assert "2 kept files are not whole." in sign_in("owner").get("/workshop/products/").content.decode()
    assert "2 not as they were kept" in page
    assert str(cut) in page
    assert str(good) not in page
    for number in range(2):
        store_file(f"check me {number}".encode())
    assert check_files(SYSTEM_ACTOR, timezone.now()).counts["wrong"] == 0
    assert not FileTrouble.objects.unresolved()


def test_damaged_file_is_never_handed_out(sign_in, order, make_pack):
    pack = make_pack(order)
    on_disk(pack.file).write_bytes(b"PK, and then nothing")
    desk = sign_in("desk")
    desk.raise_request_exception = False
    answer = desk.get(f"/workshop/packs/{pack.line_id}/file/")
    assert answer.status_code == 500
    assert "isn&#x27;t in the store as it was kept" in answer.content.decode()


@pytest.fixture
def object_store(settings):
    """A store without folders, as object stores are."""
    settings.STORAGES = {**settings.STORAGES, "default": {"BACKEND": "django.core.files.storage.InMemoryStorage"}}
    return default_storage


def test_object_store_keeps_a_file_whole_and_mends_what_is_damaged(object_store):
    stored = store_file(b"kept elsewhere")
    assert StoredAssets().read(stored.pk) == b"kept elsewhere"
    object_store.delete(stored.path)
    object_store.save(stored.path, ContentFile(b"kept else"))
    with pytest.raises(AssetError):
        StoredAssets().read(stored.pk)
    store_file(b"kept elsewhere")
    assert StoredAssets().read(stored.pk) == b"kept elsewhere"


@pytest.mark.parametrize(
    ("name", "value", "words"),
    [("LOW_DISK_BYTES", 10**18, "running low"), ("LEAST_DISK_BYTES", 10**18, "they are refused")],
)
def test_owner_is_warned_before_and_when_the_disk_is_full(sign_in, settings, name, value, words):
    setattr(settings, name, value)
    cache.clear()
    assert words in sign_in("owner").get("/workshop/products/").content.decode()
    assert words not in sign_in("desk").get("/workshop/orders/").content.decode()
    cache.clear()
