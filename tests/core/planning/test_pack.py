import hashlib
import io
import json
import re
import subprocess
import zipfile
from dataclasses import replace

import numpy as np
import pikepdf
import pytest
import zxingcpp
from PIL import Image

from tests.core.conftest import PHOTO, board, entries, sha256_of, upload
from yenzo.core.documents.reading import read_setup
from yenzo.core.evaluation import evaluate
from yenzo.core.planning.manifest import Manifest
from yenzo.core.planning.pack import make_pack, safe_name
from yenzo.core.planning.work import OriginalFile, Work


@pytest.fixture
def work(setup, assets):
    given = entries({"name": "Wind & Whey", "with_photo": True}, uploads={"photo": upload()}, pieces=2)
    originals = (OriginalFile("photo", "../../otter.jpg", sha256_of(PHOTO)),)
    return Work("2041", 1, 3, "ab" * 32, evaluate(setup, given, assets), assets, originals)


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
    assert told == [(step, 9) for step in range(1, 10)]


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


def contents(pack):
    with zipfile.ZipFile(io.BytesIO(pack.data)) as archive:
        return {name: archive.read(name) for name in archive.namelist()}


def words_of(pdf, tmp_path):
    """What a reader of PDF files finds in one, as it would be copied."""
    path = tmp_path / "read.pdf"
    path.write_bytes(pdf)
    return subprocess.run(["pdftotext", "-layout", str(path), "-"], capture_output=True, text=True, check=True).stdout


def made(document, assets, values, **others):
    return Work("2041", 1, 3, "ab" * 32, evaluate(read_setup(document), entries(values, **others), assets), assets)


def test_files_are_called_by_the_names_that_people_gave(assets):
    document = board()
    document["sides"][0]["areas"][0] |= {"key": "area-1", "name": "Name/panel"}
    document["placements"][0]["area"] = "area-1"
    names = {file.name for file in make_pack(made(document, assets, {"name": "Tern"})).manifest.files}
    assert "T-2041-1_Front_Name-panel.pdf" in names
    assert "T-2041-1_Front_whole-side.pdf" in names
    assert not any("area-1" in name for name in names)


def test_areas_of_the_same_name_keep_their_files_apart(assets):
    document = board()
    for area in document["sides"][0]["areas"]:
        area["name"] = "Panel"
    document["placements"][1] |= {**document["placements"][0], "key": "second", "field": "wood", "area": "photo"}
    document["placements"][1] |= {"least_mm": 2, "most_mm": 10}
    files = make_pack(made(document, assets, {"name": "Tern"})).manifest.files
    assert len({file.name.casefold() for file in files}) == len(files) == 8
    assert any("front-photo" in file.name for file in files)


def test_manifest_says_where_each_area_lies_and_what_everything_is_called(assets):
    document = board()
    document["sides"][0]["areas"][0]["turn_deg"] = 15
    work = replace(made(document, assets, {"name": "Tern"}), revision_number=7)
    manifest = make_pack(work).manifest
    (area,) = manifest.areas
    assert (area.side_name, area.name, area.method_name) == ("Front", "Panel", "Carving")
    assert (area.left_mm, area.top_mm, area.turn_deg) == (80, 38, 15)
    assert (area.texts[0].label, area.texts[0].lines) == ("Name of the boat", ("TERN",))
    assert manifest.revision_number == 7
    assert ("wood", "Wood", "Cedar") in {(said.field, said.label, said.words) for said in manifest.said}


def test_every_word_of_the_ticket_can_be_found_and_copied(assets, tmp_path):
    document = board()
    document["fields"].append({"key": "by", "kind": "date", "label": "Needed by", "after_working_days": 3})
    work = replace(made(document, assets, {"name": "Wind & Whey", "by": "2027-05-14"}), revision_number=7)
    pack = make_pack(work)
    words = words_of(contents(pack)["T-2041-1_ticket.pdf"], tmp_path)
    height = f"letters {round(pack.manifest.areas[0].texts[0].letter_height_mm, 1):g} mm"
    for found in ("T-2041-1", "WIND & WHEY", "Quayside", height, "80 mm from the left, 38 mm from the top"):
        assert found in words
    for found in ("Needed by", "May 14, 2027", "Wood", "Cedar", "piece 1 of 3", "revision 7", "1×", "Carving"):
        assert found in words


def test_long_text_wraps_in_letters_that_can_be_read_on_as_many_pages_as_it_takes(assets, tmp_path):
    document = board()
    document["fields"].append({"key": "story", "kind": "paragraph", "label": "Story"})
    lines = [
        f"line {number} of a text that goes on and on until the ticket's own line has to break" for number in range(60)
    ]
    ticket = contents(make_pack(made(document, assets, {"name": "A", "story": "\n".join(lines)})))[
        "T-2041-1_ticket.pdf"
    ]
    words = words_of(ticket, tmp_path)
    for number in range(60):
        assert f"line {number} of a text" in words
    with pikepdf.open(io.BytesIO(ticket)) as pdf:
        assert len(pdf.pages) > 2
        sizes = {
            float(size) for page in pdf.pages for size in re.findall(rb"/F\d+ ([\d.]+) Tf", page.Contents.read_bytes())
        }
    # No letter is smaller than six points, however much there is to say.
    assert min(sizes) >= 6
    assert "page 2" in words


def test_text_that_the_exact_face_lacks_is_written_in_the_typeface_that_is_produced(assets, tmp_path):
    ticket = contents(make_pack(made(board(), assets, {"name": "حسن", "lettering": "levant"})))["T-2041-1_ticket.pdf"]
    assert "حسن" in words_of(ticket, tmp_path)
    with pikepdf.open(io.BytesIO(ticket)) as pdf:
        faces = {str(font.BaseFont) for font in pdf.pages[0].Resources.Font.values()}
    assert any("Amiri" in face for face in faces)


def test_entry_that_no_face_has_is_named_by_its_codes(assets, tmp_path):
    document = board()
    document["fields"].append({"key": "note", "kind": "note", "label": "Note"})
    ticket = contents(make_pack(made(document, assets, {"name": "A", "note": "to 船"})))["T-2041-1_ticket.pdf"]
    assert "to [U+8239]" in words_of(ticket, tmp_path)


def test_side_sheet_is_true_to_size_and_shows_the_area_where_it_lies(assets, tmp_path):
    document = board()
    document["placements"][0]["color"] = {"palette": "finishes", "color": "gold"}
    sheet = contents(make_pack(made(document, assets, {"name": "HHH"})))["T-2041-1_Front_whole-side.pdf"]
    (tmp_path / "side.pdf").write_bytes(sheet)
    command = ["pdftocairo", "-png", "-r", "50.8", "-singlefile", str(tmp_path / "side.pdf"), str(tmp_path / "side")]
    subprocess.run(command, check=True)
    pixels = np.asarray(Image.open(tmp_path / "side.png").convert("RGB")).astype(int)
    near = np.abs(pixels - (0xD4, 0xA8, 0x3E)).max(axis=2) < 20
    across, down = near.any(axis=0).nonzero()[0], near.any(axis=1).nonzero()[0]
    # Two pixels a mm; the goods begin inside the margin, below the heading.
    evaluation = made(document, assets, {"name": "HHH"}).evaluation
    area = next(evaluation.scene.areas)
    ink = next(area.letterings).outline.bounds
    letter = 6.0
    left, top = 12 + area.area.x_mm + ink.left, 12 + 5 * letter + area.area.y_mm + ink.top
    assert across[0] / 2 == pytest.approx(left, abs=0.6)
    assert (across[-1] - across[0] + 1) / 2 == pytest.approx(ink.width, abs=0.8)
    assert down[0] / 2 == pytest.approx(top, abs=0.6)


@pytest.mark.parametrize(("registration", "margin"), [(False, 0.0), (True, 8.0)])
def test_trim_offset_is_where_the_trim_lies_in_the_page_and_the_bleed_box_is_all_but_marks(
    assets, registration, margin
):
    document = board()
    document["materials"]["methods"]["carving"]["registration"] = registration
    pack = make_pack(made(document, assets, {"name": "Tern"}))
    (area,) = pack.manifest.areas
    assert area.trim_offset_mm == (2 + margin, 2 + margin)
    name = next(name for name in area.files if name.endswith("pdf"))
    with pikepdf.open(io.BytesIO(contents(pack)[name])) as pdf:
        page = pdf.pages[0]
        boxes = {
            box: [float(edge) / 72 * 25.4 for edge in page[f"/{box}"]] for box in ("MediaBox", "BleedBox", "TrimBox")
        }
    left, bottom, right, top = boxes["MediaBox"]
    inside = [left + margin, bottom + margin, right - margin, top - margin]
    assert boxes["BleedBox"] == pytest.approx(inside, abs=0.001)
    assert boxes["MediaBox"][2] == pytest.approx(540 + 4 + 2 * margin, abs=0.01)
    assert boxes["TrimBox"] == pytest.approx([2 + margin, 2 + margin, 542 + margin, 100 + margin], abs=0.01)


def test_ticket_names_letters_that_are_easily_mistaken_where_there_is_doubt(assets, tmp_path):
    def words(name):
        ticket = contents(make_pack(made(board(), assets, {"name": name})))["T-2041-1_ticket.pdf"]
        return words_of(ticket, tmp_path)

    assert "mind: O letter O, 0 zero, 1 one" in words("O01")
    assert "mind:" not in words("Whey")


def spots_of(pdf):
    """The names of the spot colors of a PDF."""
    with pikepdf.open(io.BytesIO(pdf)) as document:
        spaces = document.pages[0].Resources.get("/ColorSpace", {})
        return {str(space[1]).removeprefix("/") for _, space in spaces.items()}


def test_manifest_maps_colors_to_the_plates_of_the_files(assets):
    document = board()
    document["materials"]["methods"]["carving"] |= {"spot_colors": True, "separations": True, "files": ["pdf"]}
    document["placements"][0]["effects"] = {
        "stroke": {"width_mm": 3, "color": {"palette": "finishes", "color": "white"}}
    }
    pack = make_pack(made(document, assets, {"name": "Tern"}))
    files = contents(pack)
    (area,) = pack.manifest.areas
    assert {plate.color for plate in area.plates} == {"White", "Gold leaf"}
    whole = next(name for name in area.files if name not in {file for one in area.plates for file in one.files})
    assert spots_of(files[whole]) == {plate.spot for plate in area.plates}
    for plate in area.plates:
        (name,) = plate.files
        assert name in area.files
        assert spots_of(files[name]) == {plate.spot}


def test_manifest_of_a_method_without_plates_has_none(work):
    assert all(area.plates == () for area in make_pack(work).manifest.areas)
