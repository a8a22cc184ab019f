"""Outside lists: whatever people send becomes rows of cells, or is refused in words."""

import datetime as dt
import io
import zipfile

import pytest
from openpyxl import Workbook, load_workbook

from yenzo.core.errors import TableError
from yenzo.core.lists.columns import Target
from yenzo.core.lists.marked import MarkedRow, blank_sheet, marked_sheet
from yenzo.core.lists.tables import MOST_ROWS, clean_cell, read_pasted, read_table

MANIFEST = '<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"/>'
CREW = (("Name", "Duty"), ("Ümit", "Mate"), ("O'Brien, J", "Cook"))


def spreadsheet(*rows):
    book, written = Workbook(), io.BytesIO()
    for row in rows:
        book.active.append(row)
    book.save(written)
    return written.getvalue()


def ods(*rows):
    """Return an OpenDocument spreadsheet of texts (ODF 1.3, part 3)."""
    names = {
        "office": "urn:oasis:names:tc:opendocument:xmlns:office:1.0",
        "table": "urn:oasis:names:tc:opendocument:xmlns:table:1.0",
        "text": "urn:oasis:names:tc:opendocument:xmlns:text:1.0",
    }
    spaces = " ".join(f'xmlns:{name}="{uri}"' for name, uri in names.items())
    cells = "".join(
        "<table:table-row>"
        + "".join(
            f'<table:table-cell office:value-type="string"><text:p>{cell}</text:p></table:table-cell>' for cell in row
        )
        + "</table:table-row>"
        for row in rows
    )
    body = f'<office:body><office:spreadsheet><table:table table:name="Crew">{cells}</table:table>'
    content = f"<office:document-content {spaces}>{body}</office:spreadsheet></office:body></office:document-content>"
    written = io.BytesIO()
    with zipfile.ZipFile(written, "w") as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet")
        archive.writestr("content.xml", content)
        archive.writestr("META-INF/manifest.xml", MANIFEST)
    return written.getvalue()


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
@pytest.mark.parametrize("separator", [";", "\t", ","])
def test_csv_of_any_encoding_and_separator_becomes_the_same_rows(encoding, separator):
    text = "\r\n".join(separator.join(f'"{cell}"' if separator in cell else cell for cell in row) for row in CREW)
    assert read_table(text.encode(encoding), "crew.csv").rows == CREW


@pytest.mark.parametrize("made", [spreadsheet, ods])
def test_spreadsheet_becomes_the_same_rows(made):
    assert read_table(made(*CREW), "crew").rows == CREW


@pytest.mark.parametrize(("encoding", "name"), [("cp1251", "Ольга"), ("shift_jis", "花子"), ("cp1256", "فاطمة")])
def test_other_scripts_in_encodings_of_one_machine_are_read(encoding, name):
    words = {
        "cp1251": "Имя;Роль\nИван;Кок\n",
        "shift_jis": "名前;役\n太郎;船長\n",
        "cp1256": "الاسم;الدور\nأحمد;ربان\n",
    }
    table = read_table(f"{words[encoding]}{name};{name}\n".encode(encoding), "crew.csv")
    assert table.rows[-1] == (name, name)


def test_numbers_days_and_ticks_of_spreadsheets_are_read_as_people_write_them():
    table = read_table(spreadsheet([12.0, 2.5, dt.date(2031, 6, 14), True, None, "x"]), "crew.xlsx")
    assert table.rows == (("12", "2.5", "2031-06-14", "yes", "", "x"),)


def test_rows_without_anything_and_columns_without_anything_at_the_end_are_left_out():
    assert read_pasted("Wilma\t\t\n\t\t\nOtto\tMate\t").rows == (("Wilma", ""), ("Otto", "Mate"))


def test_pasted_names_without_any_separator_are_one_column():
    assert read_pasted("Wilma\nOtto\n").rows == (("Wilma",), ("Otto",))


@pytest.mark.parametrize(
    "data",
    [
        b"",
        b"\n\n , ,\n",
        b"PK\x03\x04 that is no archive",
        b"\xd0\xcf\x11\xe0 neither",
        b"\x00\x01\x02" * 50,
        b"\xff\xd8\xff\xe0\x00\x10JFIF",
        b"x" * 5_000_001,
        b"a;b\n" * (MOST_ROWS + 2),
        ";".join("x" * 41).encode(),
    ],
    ids=["nothing", "blanks", "archive", "compound", "zeros", "jpeg", "large", "long", "wide"],
)
def test_what_is_no_list_is_refused_in_words(data):
    with pytest.raises(TableError) as refused:
        read_table(data, "crew.csv")
    assert refused.value.message.endswith(".")


@pytest.mark.sweep
def test_archive_that_blows_up_ends_in_its_own_process():
    written = io.BytesIO()
    with zipfile.ZipFile(written, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet")
        archive.writestr("content.xml", b"<a>" + b" " * 1_500_000_000)
    with pytest.raises(TableError, match="can be read"):
        read_table(written.getvalue(), "bomb.ods")


def test_cell_keeps_its_lines_and_loses_what_stands_around_them():
    assert clean_cell("  Wind  &\tWhey \r\n Harbor\x07 \n") == "Wind & Whey\nHarbor"


def test_marked_sheet_shows_the_fault_at_its_cell_and_makes_no_formula_of_what_was_typed():
    rows = [MarkedRow(("=1+1", "Stoker"), {1: "There is no Stoker."}, ("Too long.",)), MarkedRow(("Otto", "Mate"))]
    sheet = load_workbook(io.BytesIO(marked_sheet(["Name", "Duty"], rows))).active
    assert [[cell.value for cell in row] for row in sheet.iter_rows()] == [
        ["Name", "Duty", "What is wrong"],
        ["=1+1", "Stoker", "There is no Stoker. Too long."],
        ["Otto", "Mate", None],
    ]
    assert sheet["A2"].data_type == "s"
    assert sheet["B2"].comment.text == "There is no Stoker."
    assert sheet["B2"].fill.fgColor.rgb != sheet["B3"].fill.fgColor.rgb


def test_marked_sheet_can_be_sent_again_as_it_is():
    rows = [MarkedRow(("Otto", "Mate"), {0: "Why."})]
    assert read_table(marked_sheet(["Name", "Duty"], rows), "again.xlsx").rows[1][:2] == ("Otto", "Mate")


def test_blank_sheet_has_the_heads_and_offers_what_can_be_chosen():
    targets = [Target("name", "Name", ("Name",)), Target("duty", "Duty", ("Duty",), ("Mate", 'The "Cook"'))]
    sheet = load_workbook(io.BytesIO(blank_sheet(targets))).active
    assert [cell.value for cell in sheet[1]] == ["Name", "Duty"]
    assert [one.formula1 for one in sheet.data_validations.dataValidation] == ['"Mate,The ""Cook"""']
