"""The invoice: who sold what to whom for how much comes in; printed pages (PDF, A4) go out, all words live text.

It says what EN 16931-1 asks of an invoice as far as it is known; the numbers of its business terms (BT) stand beside
the values below.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date
from decimal import ROUND_HALF_UP, Decimal
from pathlib import Path

from yenzo.core.planning.faces import HEADING, TEXT
from yenzo.core.planning.paper import INK, MUTED, PITCH, Color, Paper
from yenzo.core.translation import base_language, current_language, decimal, money, translate

WIDTH_MM, HEIGHT_MM, MARGIN_MM = 210.0, 297.0, 20.0
ROOM_MM = WIDTH_MM - 2 * MARGIN_MM
# Letters of headings, of what stands in the rows, of labels.
TITLE_MM, PLAIN_MM, SMALL_MM = 8.0, 3.6, 3.0
# Where the columns of the rows end: what it is, how many, tax, amount.
WHAT_MM, COUNT_MM, TAX_MM = 96.0, 116.0, 136.0
FOOT_MM = HEIGHT_MM - MARGIN_MM


@dataclass(frozen=True)
class InvoiceLine:
    """One row (BG-25): its number (BT-126), what it is (BT-153), how many (BT-129), what it comes to with its tax.

    `tax_percent` is BT-152; what else is said of it stands in `notes` (BT-154).
    """

    number: str
    name: str
    pieces: int
    total: Decimal
    tax: Decimal
    tax_percent: Decimal
    notes: tuple[str, ...] = ()

    @property
    def net(self) -> Decimal:
        """What it comes to without tax (BT-131)."""
        return self.total - self.tax


@dataclass(frozen=True)
class Invoice:
    """An invoice: number (BT-1), day (BT-2), currency (BT-5), seller (BG-4), buyer (BG-7), where it goes (BG-15).

    Addresses are as they are written, names first. `delivered_on` is BT-72, `purchase_number` BT-13.
    """

    number: str
    day: date
    currency: str
    seller: str
    tax_number: str
    buyer: str
    delivered_to: str
    lines: tuple[InvoiceLine, ...]
    purchase_number: str = ""
    delivered_on: date | None = None
    paid_on: date | None = None

    @property
    def total(self) -> Decimal:
        """What all of it comes to with taxes (BT-112)."""
        return sum((line.total for line in self.lines), Decimal(0))

    @property
    def taxes(self) -> tuple[tuple[Decimal, Decimal, Decimal], ...]:
        """By rate (BT-119): what is taxed by it (BT-116) and the tax (BT-117), the highest rate first."""
        net: dict[Decimal, Decimal] = defaultdict(Decimal)
        tax: dict[Decimal, Decimal] = defaultdict(Decimal)
        for line in self.lines:
            net[line.tax_percent.normalize()] += line.net
            tax[line.tax_percent.normalize()] += line.tax
        return tuple((rate, net[rate], tax[rate]) for rate in sorted(net, reverse=True))


def tax_within(total: Decimal, percent: Decimal, unit: Decimal) -> Decimal:
    """Return the tax that is within an amount, rounded to the currency's unit."""
    return (total * percent / (100 + percent)).quantize(unit, ROUND_HALF_UP)


def make_invoice(invoice: Invoice, *, fallbacks: Iterable[Path] = ()) -> bytes:
    """Return the invoice as a PDF, in the language of who reads; `fallbacks` are fonts for other scripts."""
    paper = _Pages(invoice, tuple(fallbacks))
    paper.write()
    return paper.finished()


class _Pages:
    """The pages of an invoice while they are filled, from the top."""

    def __init__(self, invoice: Invoice, fallbacks: tuple[Path, ...]) -> None:
        self._invoice = invoice
        self._paper = Paper(
            WIDTH_MM, HEIGHT_MM, self._title, language=base_language(current_language()), fallbacks=fallbacks
        )
        self._paper.top = MARGIN_MM

    @property
    def _title(self) -> str:
        return translate("Invoice {number}", number=self._invoice.number)

    def finished(self) -> bytes:
        """Return the pages as a PDF file."""
        return self._paper.finished()

    def write(self) -> None:
        """Write all of it."""
        invoice = self._invoice
        self._paper.pdf.add_page()
        self._block(invoice.seller, MARGIN_MM + 100, MUTED)
        if invoice.tax_number:
            self._line(
                TEXT, translate("Tax number {number}", number=invoice.tax_number), SMALL_MM, MARGIN_MM + 100, MUTED
            )
            self._paper.top += SMALL_MM * PITCH
        seller_end, self._paper.top = self._paper.top, MARGIN_MM + 25
        self._block(invoice.buyer, MARGIN_MM)
        self._paper.top = max(self._paper.top, seller_end, MARGIN_MM + 55) + 6
        self._line(HEADING, self._title, TITLE_MM, MARGIN_MM)
        self._paper.top += TITLE_MM * PITCH + 2
        for label, words in self._facts():
            self._line(TEXT, label, SMALL_MM, MARGIN_MM, MUTED)
            self._line(TEXT, words, SMALL_MM, MARGIN_MM + 45)
            self._paper.top += SMALL_MM * PITCH
        self._paper.top += 5
        self._row((translate("What"), translate("Pieces"), translate("Tax"), translate("Amount")), MUTED)
        self._rule()
        for line in invoice.lines:
            self._add(line)
        self._sums()

    def _facts(self) -> Iterator[tuple[str, str]]:
        invoice = self._invoice
        yield translate("Day"), invoice.day.isoformat()
        if invoice.purchase_number:
            yield translate("Your purchase number"), invoice.purchase_number
        if invoice.delivered_on:
            yield translate("Day of delivery"), invoice.delivered_on.isoformat()
        if invoice.delivered_to:
            yield translate("Delivered to"), ", ".join(invoice.delivered_to.splitlines())

    def _add(self, line: InvoiceLine) -> None:
        names = self._broken(f"{line.number}  {line.name}", PLAIN_MM, WHAT_MM - 4)
        notes = [part for note in line.notes for part in self._broken(note, SMALL_MM, WHAT_MM - 4)]
        self._room((len(names) * PLAIN_MM + len(notes) * SMALL_MM) * PITCH + 4)
        tax = f"{decimal(line.tax_percent)} %" if line.tax_percent else ""
        top = self._paper.top
        self._row(("", decimal(line.pieces), tax, money(line.total, self._invoice.currency)))
        end, self._paper.top = self._paper.top, top
        for name in names:
            self._line(TEXT, name, PLAIN_MM, MARGIN_MM)
            self._paper.top += PLAIN_MM * PITCH
        for note in notes:
            self._line(TEXT, note, SMALL_MM, MARGIN_MM, MUTED)
            self._paper.top += SMALL_MM * PITCH
        self._paper.top = max(self._paper.top, end) + 1.5
        self._rule()

    def _sums(self) -> None:
        invoice = self._invoice
        self._room(40)
        for rate, net, tax in invoice.taxes:
            if rate:
                net_words = translate("Net at {rate} %", rate=decimal(rate))
                self._sum(net_words, net)
                self._sum(translate("Tax of {rate} %", rate=decimal(rate)), tax)
        self._sum(translate("Total"), invoice.total, is_last=True)
        if invoice.paid_on:
            self._sum(translate("Paid on {day}", day=invoice.paid_on.isoformat()), invoice.total)
            self._sum(translate("To be paid"), Decimal(0))

    def _sum(self, label: str, amount: Decimal, *, is_last: bool = False) -> None:
        face, size = (HEADING, 5.0) if is_last else (TEXT, PLAIN_MM)
        self._line(face, label, size, MARGIN_MM + WHAT_MM)
        self._right(face, money(amount, self._invoice.currency), size, MARGIN_MM + ROOM_MM)
        self._paper.top += size * PITCH

    def _block(self, text: str, left: float, color: Color = INK) -> None:
        for line in text.splitlines():
            self._line(TEXT, line, PLAIN_MM, left, color)
            self._paper.top += PLAIN_MM * PITCH

    def _row(self, cells: tuple[str, str, str, str], color: Color = INK) -> None:
        self._line(TEXT, cells[0], PLAIN_MM, MARGIN_MM, color)
        for words, end in zip(cells[1:], (COUNT_MM, TAX_MM, ROOM_MM), strict=True):
            self._right(TEXT, words, PLAIN_MM, MARGIN_MM + end, color)
        self._paper.top += PLAIN_MM * PITCH

    def _room(self, height: float) -> None:
        """Go on on a next page where this one has no room."""
        if self._paper.top + height > FOOT_MM:
            self._paper.pdf.add_page()
            self._paper.top = MARGIN_MM
            self._line(TEXT, f"{self._title} · {self._paper.pdf.page}", SMALL_MM, MARGIN_MM, MUTED)
            self._paper.top += 10

    def _broken(self, text: str, letter_mm: float, width: float) -> list[str]:
        return self._paper.broken(TEXT, text, letter_mm, width)

    def _line(self, face: str, text: str, letter_mm: float, left: float, color: Color = INK) -> None:
        self._paper.line(face, text, letter_mm, left, self._paper.top, color)

    def _right(self, face: str, text: str, letter_mm: float, right: float, color: Color = INK) -> None:
        self._paper.right(face, text, letter_mm, right, self._paper.top, color)

    def _rule(self) -> None:
        self._paper.top += 0.8
        self._paper.rule(MARGIN_MM, self._paper.top, ROOM_MM, 0.15)
        self._paper.top += 1.6
