"""The invoice adds up, goes over pages, and all its words are found again."""

import subprocess
from dataclasses import replace
from datetime import date
from decimal import Decimal
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

import yenzo
from yenzo.core.planning.invoice import Invoice, InvoiceLine, make_invoice, tax_within
from yenzo.core.translation import override_language

LEVANT = Path(yenzo.__file__).parent / "materials" / "typefaces" / "levant.ttf"
LINE = InvoiceLine("T-2041-1", "Nameboard", 2, Decimal("120.00"), Decimal("20.00"), Decimal(20), ("WIND & WHEY",))
INVOICE = Invoice(
    number="2041",
    day=date(2031, 6, 14),
    currency="GBP",
    seller="Gull & Gaff\nQuay 1",
    tax_number="GB 1",
    buyer="Ann Fairwater\nBerth 14",
    delivered_to="",
    lines=(LINE,),
    paid_on=date(2031, 6, 14),
)


def words_of(data, tmp_path):
    path = tmp_path / "invoice.pdf"
    path.write_bytes(data)
    return subprocess.run(["pdftotext", "-layout", path, "-"], capture_output=True, check=True).stdout.decode()


def test_every_fact_is_found_in_the_text(tmp_path):
    said = words_of(make_invoice(replace(INVOICE, purchase_number="PO 9", delivered_to="Ann\nQuay 3")), tmp_path)
    for words in ("Invoice 2041", "2031-06-14", "PO 9", "Ann, Quay 3", "T-2041-1", "WIND & WHEY", "£120.00", "20 %"):
        assert words in said
    assert "To be paid" in said


def test_amounts_are_told_apart_by_their_rate_and_add_up():
    lines = (LINE, replace(LINE, total=Decimal(10), tax=Decimal(0), tax_percent=Decimal(0)), LINE)
    invoice = replace(INVOICE, lines=lines)
    assert invoice.taxes == ((Decimal(20), Decimal(200), Decimal(40)), (Decimal(0), Decimal(10), Decimal(0)))
    assert sum(net + tax for _, net, tax in invoice.taxes) == invoice.total == Decimal(250)


def test_many_lines_go_over_pages_and_none_is_lost(tmp_path):
    lines = tuple(replace(LINE, number=f"T-2041-{number}") for number in range(1, 61))
    said = words_of(make_invoice(replace(INVOICE, lines=lines)), tmp_path)
    assert all(f"T-2041-{number} " in said for number in range(1, 61))
    assert said.count("\f") > 1


def test_invoice_is_written_in_the_language_of_who_reads_and_with_names_of_other_scripts(tmp_path):
    with override_language("de"):
        data = make_invoice(replace(INVOICE, buyer="نسيم البحر"), fallbacks=[LEVANT])
    said = words_of(data, tmp_path)
    assert "Rechnung 2041" in said
    assert "نسيم" in said or "ﻧﺴﻴﻢ" in said or "ميسن" in said


def test_same_invoice_is_the_same_bytes():
    assert make_invoice(INVOICE) == make_invoice(INVOICE)


@pytest.mark.parametrize("unit", [Decimal("0.01"), Decimal(1), Decimal("0.001")])
@given(total=st.decimals(0, 100_000, places=2), percent=st.sampled_from([0, 5, 7, 19, 20, 25]))
def test_tax_within_an_amount_is_never_more_than_its_share(unit, total, percent):
    tax = tax_within(total, Decimal(percent), unit)
    assert abs(tax - total * percent / (100 + percent)) <= unit / 2
