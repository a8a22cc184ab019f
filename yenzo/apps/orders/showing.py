"""Lines of orders as pages, tickets and mails show them: a line comes in, its words, files and price go out."""

from dataclasses import dataclass
from functools import cached_property

from django.utils.translation import gettext, ngettext

from yenzo.apps.designs.in_words import PieceInWords, piece_in_words, told_apart
from yenzo.apps.designs.models import Personalization, Upload
from yenzo.apps.designs.personalized import read_as_kept
from yenzo.apps.orders.models import Agreement, Line
from yenzo.apps.orders.to_core import different_pieces, quote_of
from yenzo.core.asking.words import EntryInWords, entries_in_words
from yenzo.core.documents.entries import files_of
from yenzo.core.documents.fields import DateField
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.variants import Variant
from yenzo.core.preflight.verdict import Verdict
from yenzo.core.pricing.quote import Quote, price
from yenzo.core.record import ArtworkRecord, Recorded, RecordedArea, TextRecord
from yenzo.core.scene.paints import Paint
from yenzo.core.translation import decimal


@dataclass(frozen=True)
class ReceivedFile:
    """A customer's file as received, the field that it was sent in, where it lands, and what was prepared of it.

    `prepared` is the file by its SHA-256 that these pieces are made with; None for what no entry holds any more.
    """

    upload: Upload
    field: str
    places: tuple[str, ...]
    prepared: str | None


@dataclass(frozen=True)
class ShownText:
    """A text as a ticket shows it, with its color."""

    made: TextRecord
    paint: Paint


@dataclass(frozen=True)
class ShownArea:
    """An imprint area, by the names of its side and its own, with what is made in it."""

    name: str
    texts: tuple[ShownText, ...]
    artworks: tuple[ArtworkRecord, ...]


@dataclass(frozen=True)
class ShownPiece:
    """Pieces of a line that are alike, with all that is shown of them; `index` is the first one's, `count` how many."""

    line: Line
    personalization: Personalization
    index: int
    count: int

    @property
    def number(self) -> str:
        """What it is called: as its line is where that has no others."""
        return f"{self.line}.{self.index}" if self.line.is_list else str(self.line)

    @cached_property
    def recorded(self) -> Recorded:
        """What was made of its entries, in the words of who reads."""
        return read_as_kept(self.personalization)

    @property
    def setup(self) -> Setup:
        """Its set-up, in the words of who reads."""
        return self.recorded.setup

    @property
    def verdict(self) -> Verdict:
        """What was advised when it was ordered."""
        return self.recorded.record.verdict

    @cached_property
    def in_words(self) -> PieceInWords:
        """Its texts as they are made, and its other entries."""
        return piece_in_words(self.recorded)

    @property
    def variant(self) -> Variant | None:
        """The variant of the goods."""
        return self.setup.offer.variant(self.recorded.asked.variant)

    @property
    def areas(self) -> tuple[ShownArea, ...]:
        """The areas that anything lands in, in the order of the sides."""
        return tuple(self._shown(area) for area in self.recorded.areas)

    def _shown(self, area: RecordedArea) -> ShownArea:
        texts = tuple(ShownText(text, self.recorded.paint(text)) for text in area.texts)
        return ShownArea(area.name, texts, area.artworks)

    @cached_property
    def entries(self) -> tuple[EntryInWords, ...]:
        """All its entries in words."""
        return entries_in_words(self.setup, self.recorded.asked)

    @property
    def off_goods(self) -> tuple[EntryInWords, ...]:
        """What was entered and lands nowhere, wanted days left out: the workshop goes by it all the same."""
        wanted = {entry.field for entry in self.wanted}
        return tuple(entry for entry in self.entries if entry.field not in self.recorded.landed | wanted)

    @property
    def wanted(self) -> tuple[EntryInWords, ...]:
        """The days that it is wanted by."""
        fields = (self.setup.field(entry.field) for entry in self.entries)
        return tuple(
            entry
            for entry, field in zip(self.entries, fields, strict=True)
            if isinstance(field, DateField) and field.is_wanted
        )

    @property
    def received(self) -> tuple[ReceivedFile, ...]:
        """Its files as received, with the field and the areas of each."""
        return tuple(self._received(upload) for upload in self.personalization.uploads.all())

    def _received(self, upload: Upload) -> ReceivedFile:
        sent = {
            key: file
            for key, value in self.recorded.asked.values.items()
            for file in files_of(value)
            if file.original == upload.original_id
        }
        places = [
            area.name
            for area in self.recorded.areas
            for artwork in area.artworks
            if artwork.fields[0] in sent and artwork.asset == sent[artwork.fields[0]].prepared
        ]
        labels = [field.workshop_name or field.label for key in sent if (field := self.setup.field(key))]
        prepared = next((file.prepared for file in sent.values()), None)
        return ReceivedFile(upload, ", ".join(labels), tuple(dict.fromkeys(places)), prepared)


@dataclass(frozen=True)
class ShownAgreement:
    """What a customer agreed to of one line or row of a list, as it was shown then."""

    agreement: Agreement

    @cached_property
    def recorded(self) -> Recorded:
        """What was made of the entries, in the words of who reads."""
        return read_as_kept(self.agreement.personalization)

    @cached_property
    def in_words(self) -> PieceInWords:
        """The texts as they were agreed to, and the other entries."""
        return piece_in_words(self.recorded)

    @property
    def mark(self) -> str:
        """What tells that it is just what was shown: the beginnings of the digests of its sides."""
        return " ".join(digest[:12] for digest in self.agreement.digests.values())


@dataclass(frozen=True)
class ShownLine:
    """A line of an order: its price, and its pieces as far as they differ."""

    line: Line

    @cached_property
    def pieces(self) -> tuple[ShownPiece, ...]:
        """Its pieces, those that are alike once; of a list in the order of its rows."""
        different = different_pieces(self.line)
        ends = [*list(different)[1:], self.line.quantity + 1]
        return tuple(
            ShownPiece(self.line, personalization, index, end - index)
            for (index, personalization), end in zip(different.items(), ends, strict=True)
        )

    @cached_property
    def _told_apart(self) -> tuple[tuple[EntryInWords, ...], tuple[PieceInWords, ...]]:
        return told_apart([piece.in_words for piece in self.pieces])

    @property
    def shared(self) -> tuple[EntryInWords, ...]:
        """The entries that all rows of a list share."""
        return self._told_apart[0]

    @property
    def rows(self) -> tuple[tuple[ShownPiece, PieceInWords], ...]:
        """The rows of a list, each with what it has of its own in words."""
        return tuple(zip(self.pieces, self._told_apart[1], strict=True))

    @property
    def piece(self) -> ShownPiece:
        """What all its pieces are like, or the first of a list."""
        return self.pieces[0]

    @property
    def setup(self) -> Setup:
        """Its set-up, in the words of who reads."""
        return self.piece.setup

    @cached_property
    def quote(self) -> Quote:
        """Its price as ordered; the rows are called as who reads calls them."""
        kept = quote_of(self.line)
        for piece in self.pieces:
            recorded = piece.recorded
            kept = kept.worded_as(price(recorded.setup, recorded.asked, recorded.record.amounts))
        return kept

    @property
    def title(self) -> str:
        """The goods, their variant and how many, in the language of who reads."""
        goods = self.setup.offer.name
        if self.piece.variant and not self.line.is_list:
            goods = gettext("{goods}, {variant}").format(goods=goods, variant=self.piece.variant.name)
        said = ngettext("{goods}, {count} piece", "{goods}, {count} pieces", self.line.quantity)
        return said.format(goods=goods, count=decimal(self.line.quantity))
