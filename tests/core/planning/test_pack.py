import hashlib
import io
import json
import subprocess
import zipfile
from dataclasses import replace

import pytest
import zxingcpp
from PIL import Image

from tests.core.conftest import PHOTO, entries, sha256_of, upload
from yenzo.core.planning.manifest import Manifest
from yenzo.core.planning.pack import make_pack, safe_name
from yenzo.core.planning.work import OriginalFile, Work
from yenzo.core.spine import walk


@pytest.fixture
def work(setup, assets):
    given = entries({"name": "Wind & Whey", "with_photo": True}, uploads={"photo": upload()}, pieces=2)
    originals = (OriginalFile("photo", "../../otter.jpg", sha256_of(PHOTO)),)
    return Work("2041", 1, 3, "ab" * 32, walk(setup, given, assets), assets, originals)


def test_pack_holds_what_its_manifest_says(work):
    pack = make_pack(work)
    with zipfile.ZipFile(io.BytesIO(pack.data)) as archive:
        manifest = Manifest.model_validate(json.loads(archive.read("manifest.json")))
        for file in manifest.files:
            data = archive.read(file.name)
            assert (hashlib.sha256(data).hexdigest(), len(data)) == (file.sha256, file.size_bytes)
        assert sorted(archive.namelist()) == sorted(["manifest.json", *(file.name for file in manifest.files)])
    assert [text.text for area in manifest.areas for text in area.texts] == ["WIND & WHEY"]
    assert manifest.areas[0].texts[0].color_reference == "GL 23"
    assert [(file.kind, file.name) for file in manifest.files][-1] == ("original", "originals/photo_otter.jpg")


def test_pack_made_again_has_the_same_bytes(work):
    assert make_pack(work).data == make_pack(work).data


def test_progress_is_told_file_by_file(work):
    told = []
    make_pack(work, lambda done, of: told.append((done, of)))
    assert told == [(step, 8) for step in range(1, 9)]


def test_ticket_shows_code_and_picture_on_one_page(work, tmp_path):
    pack = make_pack(work)
    with zipfile.ZipFile(io.BytesIO(pack.data)) as archive:
        (tmp_path / "ticket.pdf").write_bytes(archive.read("T-2041-1_ticket.pdf"))
    command = ["pdftocairo", "-png", "-r", "150", str(tmp_path / "ticket.pdf"), str(tmp_path / "ticket")]
    subprocess.run(command, check=True)
    pages = sorted(tmp_path.glob("ticket*.png"))
    assert len(pages) == 1
    assert [code.text for code in zxingcpp.read_barcodes(Image.open(pages[0]))] == ["T-2041-1"]


@pytest.mark.parametrize(
    ("name", "safe"),
    [("../../etc/passwd", "passwd"), ("C:\\x\\otter.png", "otter.png"), ("a\nb?.png", "a_b_.png"), ("..", "file")],
)
def test_file_names_in_a_pack_are_safe_everywhere(name, safe):
    assert safe_name(name) == safe


def test_files_of_one_field_with_the_same_name_are_all_handed_on(work):
    originals = tuple(OriginalFile("photo", "otter.jpg", sha256_of(PHOTO)) for _ in range(2))
    manifest = make_pack(replace(work, originals=originals)).manifest
    names = [file.name for file in manifest.files if file.kind == "original"]
    assert names == ["originals/photo-1_otter.jpg", "originals/photo-2_otter.jpg"]
