"""Labels: 62 mm wide, as long as they need, every word live, the code read by others at a label printer's 203 dpi."""

import io
import subprocess
from contextlib import closing
from dataclasses import replace

import pypdfium2
import pytest
import zxingcpp
from PIL import Image

from tests.core.conftest import TYPEFACES
from yenzo.core.planning.label import Label, LabelPicture, LabelText, make_labels

FALLBACKS = [TYPEFACES / name for name in ("levant.ttf", "monsoon.ttf")]


def label(number="T-2041-1/1", *texts):
    lettered = tuple(LabelText(text, "Quayside · letters 42 mm · Gold TI 02") for text in texts)
    return Label(number, "Cedar nameboard, oak", "NB-4", 3, "Carving", "due Thu 3 Dec", "Painting", lettered)


def words_of(data):
    return subprocess.run(["pdftotext", "-", "-"], input=data, capture_output=True, check=True).stdout.decode()


@pytest.mark.parametrize("dpi", [203, 300])
@pytest.mark.parametrize("number", ["T-2041-1/1", "T-123456789-12.987/12+3"])
def test_code_is_read_from_what_a_label_printer_prints(dpi, number):
    with closing(pypdfium2.PdfDocument(make_labels([label(number, "WIND & WHEY")]))) as document:
        # As a thermal head prints it: dots that are black or not.
        raster = document[0].render(scale=dpi / 72).to_pil().convert("1", dither=0).convert("L")
    assert [found.text for found in zxingcpp.read_barcodes(raster)] == [number]


@pytest.mark.parametrize("text", ["WIND & WHEY", "ريح البحر", "समुद्र", "Ærøskøbing 0O l1"])
def test_text_is_found_letter_for_letter_in_every_script(text):
    assert text in words_of(make_labels([label("T-1-1/1", text)], fallbacks=FALLBACKS)).replace("\n", " ")


def test_labels_are_as_long_as_they_need_and_a_page_each():
    made = make_labels([label(), label("T-2-1/1", *["A long line of words"] * 6)])
    with closing(pypdfium2.PdfDocument(made)) as document:
        sizes = [document.get_page_size(at) for at in range(len(document))]
    assert [round(width * 25.4 / 72) for width, _ in sizes] == [62, 62]
    assert sizes[0][1] < sizes[1][1]


def test_what_to_take_by_when_and_what_comes_after_stands_there():
    words = words_of(make_labels([label("T-1-1/1", "X")]))
    for said in ("3 × NB-4", "Carving · due Thu 3 Dec · then Painting", "letters 42 mm"):
        assert said in words


def test_sides_stand_beside_each_other_in_greys_with_their_names():
    kept = io.BytesIO()
    Image.new("RGBA", (900, 600), (200, 30, 30, 128)).save(kept, "PNG")
    sides = tuple(LabelPicture(side, kept.getvalue()) for side in ("Front", "Back of a long name that goes on and on"))
    made = make_labels([replace(label(), pictures=sides)])
    with closing(pypdfium2.PdfDocument(made)) as document:
        drawn = [one for one in document[0].get_objects() if one.type == pypdfium2.raw.FPDF_PAGEOBJ_IMAGE]
        edges = [tuple(round(edge * 25.4 / 72, 1) for edge in one.get_bounds()) for one in drawn]
        page = document[0].render(scale=203 / 72).to_pil()
        across, up = (edges[0][0] + 1) / 25.4 * 203, page.height - (edges[0][1] + 5) / 25.4 * 203
    assert [right - left for left, _, right, _ in edges] == [pytest.approx(27, abs=0.2)] * 2
    assert edges[0][2] < edges[1][0] <= 62 - 27 - 2.9
    # Half see-through red on white paper, without its color.
    assert page.getpixel((across, up)) == (pytest.approx(168, abs=2),) * 3
    words = words_of(made)
    assert "Front" in words
    assert "Back of a" in words


def test_same_facts_make_the_same_file():
    assert make_labels([label()]) == make_labels([label()])
