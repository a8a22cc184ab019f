"""Pieces as pages, tickets and mails show them: a piece comes in, its pictures, words, files and price go out."""

from dataclasses import dataclass
from functools import cached_property

from django.utils.translation import gettext, ngettext

from yenzo.apps.catalogue.to_core import shop_setup
from yenzo.apps.designs.models import Upload
from yenzo.apps.designs.said import SaidPiece, said_piece
from yenzo.apps.orders.models import Piece
from yenzo.apps.orders.to_core import walked_of_piece
from yenzo.core.asking.words import SaidEntry, say_entries
from yenzo.core.documents.entries import files_of
from yenzo.core.documents.fields import DateField
from yenzo.core.documents.setup import Variant
from yenzo.core.scene.nodes import AreaScene, PlacedDrawing, PlacedPicture
from yenzo.core.speaking import decimal
from yenzo.core.spine import Walked


@dataclass(frozen=True)
class ReceivedFile:
    """A customer's file as received, the field that it was sent in, and where it lands."""

    upload: Upload
    field: str
    places: tuple[str, ...]


@dataclass(frozen=True)
class ShownArtwork:
    """Artwork on the goods: its own size, and what of it shows inside its area, in mm."""

    artwork: PlacedPicture | PlacedDrawing
    shown_mm: tuple[float, float]

    @property
    def is_cropped(self) -> bool:
        """Whether any of it is cut off by more than anybody could see."""
        whole = self.artwork.size_mm
        return any(size - shown > LEAST_CROPPED_MM for size, shown in zip(whole, self.shown_mm, strict=True))


LEAST_CROPPED_MM = 0.05


@dataclass(frozen=True)
class ShownArea:
    """An imprint area with its side's name and what lands in it."""

    area: AreaScene
    side: str

    @property
    def name(self) -> str:
        """Side and area as people call them."""
        return f"{self.side} / {self.area.name}"

    @property
    def artworks(self) -> tuple[ShownArtwork, ...]:
        """Its pictures and drawings."""
        placed: list[PlacedPicture | PlacedDrawing] = [*self.area.pictures, *self.area.drawings]
        return tuple(ShownArtwork(one, self.area.shown_size(one)) for one in placed)


@dataclass(frozen=True)
class ShownPiece:
    """A piece of an order with all that is shown of it."""

    piece: Piece

    @cached_property
    def walked(self) -> Walked:
        """What follows from its entries."""
        return walked_of_piece(self.piece, shop_setup(self.piece.revision))

    @cached_property
    def said(self) -> SaidPiece:
        """Its texts as they are made, and its other entries."""
        return said_piece(self.walked)

    @property
    def variant(self) -> Variant | None:
        """The variant of the goods."""
        return self.walked.setup.offer.variant(self.walked.asked.variant)

    @property
    def title(self) -> str:
        """The goods, their variant and how many, in the language of who reads."""
        goods = self.walked.setup.offer.name
        if self.variant:
            goods = gettext("{goods}, {variant}").format(goods=goods, variant=self.variant.name)
        count = self.walked.asked.pieces
        said = ngettext("{goods}, {count} piece", "{goods}, {count} pieces", count)
        return said.format(goods=goods, count=decimal(count))

    @property
    def areas(self) -> tuple[ShownArea, ...]:
        """The areas that anything lands in, in the order of the sides."""
        return tuple(
            ShownArea(area, side.name) for side in self.walked.scene.sides for area in side.areas if area.nodes
        )

    @cached_property
    def entries(self) -> tuple[SaidEntry, ...]:
        """All its entries in words."""
        return say_entries(self.walked.setup, self.walked.asked)

    @property
    def off_goods(self) -> tuple[SaidEntry, ...]:
        """What was entered and lands nowhere, wanted days left out: the workshop goes by it all the same."""
        landed = {key for area in self.walked.scene.areas for node in area.nodes for key in node.fields}
        wanted = {entry.field for entry in self.wanted}
        return tuple(entry for entry in self.entries if entry.field not in landed | wanted)

    @property
    def wanted(self) -> tuple[SaidEntry, ...]:
        """The days that it is wanted by."""
        fields = (self.walked.setup.field(entry.field) for entry in self.entries)
        return tuple(
            entry
            for entry, field in zip(self.entries, fields, strict=True)
            if isinstance(field, DateField) and field.is_wanted
        )

    @property
    def received(self) -> tuple[ReceivedFile, ...]:
        """Its files as received, with the field and the areas of each."""
        return tuple(self._received(upload) for upload in self.piece.uploads.all())

    def _received(self, upload: Upload) -> ReceivedFile:
        walked = self.walked
        fields = [
            key
            for key, value in walked.asked.values.items()
            if any(file.original == upload.original_id for file in files_of(value))
        ]
        places = [
            area.name
            for area in self.areas
            for one in area.artworks
            if one.artwork.field in fields and one.artwork.asset == upload.prepared_id
        ]
        labels = [field.workshop_name or field.label for key in fields if (field := walked.setup.field(key))]
        return ReceivedFile(upload, ", ".join(labels), tuple(dict.fromkeys(places)))
