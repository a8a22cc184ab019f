"""What is kept of an evaluation: all that pages, mails and tickets say of a piece, without its outlines.

A record is made once, when something is kept, and read from then on instead of evaluating again. It names sides and
areas by their keys, so that each reader has them in the words of their own language.
"""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Annotated, Literal

from pydantic import Field

from yenzo.core.asking.ask import Asked
from yenzo.core.asking.check import check
from yenzo.core.asking.second_look.look import Question, second_look
from yenzo.core.documents.areas import Area
from yenzo.core.documents.assets import Assets
from yenzo.core.documents.entries import UNTOUCHED
from yenzo.core.documents.setup import Setup, Side
from yenzo.core.documents.values import Frozen
from yenzo.core.evaluation import Evaluation
from yenzo.core.planning.engine import engine_id
from yenzo.core.preflight.findings import Finding
from yenzo.core.preflight.verdict import Verdict, judge
from yenzo.core.pricing.amounts import Amounts
from yenzo.core.pricing.charging import Charged
from yenzo.core.scene.by_hand import adjusted_color
from yenzo.core.scene.coloring import UNCHOSEN, chosen_paint
from yenzo.core.scene.nodes import AreaScene, Lettering, Node, PlacedPicture
from yenzo.core.scene.paints import Paint
from yenzo.core.text.typefaces import Typefaces
from yenzo.core.translation import SOURCE_LANGUAGE, base_language, current_language

Size = tuple[float, float]
# Artwork that is cut off by less than this looks whole to anybody.
LEAST_CROPPED_MM = 0.05


class Tint(Frozen):
    """The color of a text that no placement names: what it is called and what screens show."""

    name: str
    screen: str


class TextRecord(Frozen):
    """A text as made; `ink_mm` is width and height of its ink, None of a text that leaves none."""

    kind: Literal["text"] = "text"
    placement: str
    fields: tuple[str, ...]
    text: str
    lines: tuple[str, ...]
    typeface: str
    letter_height_mm: float
    ink_mm: Size | None
    paint: Tint | None = None

    @property
    def words(self) -> str:
        """Its lines below each other."""
        return "\n".join(self.lines)


class ArtworkRecord(Frozen):
    """A picture (with its resolution) or a drawing as placed: its own size, and what of it shows inside its area."""

    kind: Literal["artwork"] = "artwork"
    placement: str
    fields: tuple[str, ...]
    name: str
    asset: str
    size_mm: Size
    shown_mm: Size
    dpi: float | None = None

    @property
    def is_cropped(self) -> bool:
        """Whether any of it is cut off by more than anybody could see."""
        return any(size - shown > LEAST_CROPPED_MM for size, shown in zip(self.size_mm, self.shown_mm, strict=True))


ItemRecord = Annotated[TextRecord | ArtworkRecord, Field(discriminator="kind")]


class AreaRecord(Frozen):
    """An imprint area and what landed in it, first what lies lowest."""

    key: str
    items: tuple[ItemRecord, ...]


class SideRecord(Frozen):
    """A side with its areas; equal digests, equal pictures."""

    key: str
    digest: str
    areas: tuple[AreaRecord, ...]


class Record(Frozen):
    """What is kept of an evaluation: `engine` made its geometry; its verdict is kept in the languages read."""

    schema_: Literal["yenzo-record/1"] = Field(default="yenzo-record/1", alias="schema")
    engine: str
    sides: tuple[SideRecord, ...]
    amounts: Amounts
    verdicts: dict[str, Verdict]

    def verdict_in(self, language: str) -> Verdict | None:
        """Return the verdict as it was told in a language; None where there was something to tell, but not in it."""
        by_base = {base_language(one): verdict for one, verdict in self.verdicts.items()}
        told = self.verdicts.get(language) or by_base.get(base_language(language))
        return told or next((one for one in self.verdicts.values() if not one.says_something), None)

    @property
    def verdict(self) -> Verdict:
        """The verdict for who reads; where it wasn't told in their language, as the workshop was told."""
        told = self.verdict_in(current_language()) or self.verdict_in(SOURCE_LANGUAGE)
        return told or next(iter(self.verdicts.values()))


def record_of(evaluation: Evaluation, others: Mapping[str, Verdict] = MappingProxyType({})) -> Record:
    """Return what is kept of an evaluation in its language; `others` are its verdict in other languages."""
    return Record(
        engine=engine_id(),
        sides=tuple(
            SideRecord(key=side.key, digest=side.digest, areas=tuple(_area(area) for area in side.areas))
            for side in evaluation.scene.sides
        ),
        amounts=evaluation.amounts,
        verdicts={evaluation.language: evaluation.verdict, **others},
    )


def _area(area: AreaScene) -> AreaRecord:
    return AreaRecord(key=area.key, items=tuple(_item(area, node) for node in area.nodes))


def _item(area: AreaScene, node: Node) -> TextRecord | ArtworkRecord:
    if isinstance(node, Lettering):
        ink = node.outline.bounds
        return TextRecord(
            placement=node.placement,
            fields=node.fields,
            text=node.text,
            lines=node.lines or (node.text,),
            typeface=node.typeface_name,
            letter_height_mm=node.letter_height_mm,
            ink_mm=(ink.width, ink.height) if ink else None,
            paint=_tint(node),
        )
    return ArtworkRecord(
        placement=node.placement,
        fields=node.fields,
        name=node.name,
        asset=node.asset,
        size_mm=node.size_mm,
        shown_mm=area.shown_size(node),
        dpi=node.dpi if isinstance(node, PlacedPicture) else None,
    )


def _tint(node: Lettering) -> Tint | None:
    is_own = node.moved is not None and node.moved.item is not None
    paint = node.paint.colors[0]
    return Tint(name=paint.name, screen=paint.screen) if is_own else None


@dataclass(frozen=True)
class RecordedArea:
    """An area of the set-up, its side, and what landed there."""

    side: Side
    area: Area
    items: tuple[TextRecord | ArtworkRecord, ...]

    @property
    def name(self) -> str:
        """Side and area as people call them."""
        return f"{self.side.name} / {self.area.name}"

    @property
    def texts(self) -> tuple[TextRecord, ...]:
        """The texts that landed here."""
        return tuple(item for item in self.items if isinstance(item, TextRecord))

    @property
    def artworks(self) -> tuple[ArtworkRecord, ...]:
        """The pictures and drawings that landed here."""
        return tuple(item for item in self.items if isinstance(item, ArtworkRecord))


@dataclass(frozen=True)
class RecordedSide:
    """A side of the set-up that shows what was made, and the digest of how it looks."""

    side: Side
    digest: str

    @property
    def key(self) -> str:
        """Its key."""
        return self.side.key

    @property
    def name(self) -> str:
        """What people call it."""
        return self.side.name


@dataclass(frozen=True)
class Recorded:
    """A record as somebody reads it: with the set-up in their words, and what was asked."""

    setup: Setup
    asked: Asked
    record: Record

    @property
    def sides(self) -> Iterator[RecordedSide]:
        """The sides that show the goods."""
        for made in self.record.sides:
            side = self.setup.side(made.key)
            if side is not None:
                yield RecordedSide(side, made.digest)

    @property
    def areas(self) -> Iterator[RecordedArea]:
        """The areas that anything landed in, in the order of the sides."""
        for made in self.record.sides:
            side = self.setup.side(made.key)
            for one in made.areas:
                area = side.area(one.key) if side else None
                if side and area and one.items:
                    yield RecordedArea(side, area, one.items)

    @property
    def landed(self) -> frozenset[str]:
        """The fields whose entries landed anywhere."""
        return frozenset(key for area in self.areas for item in area.items for key in item.fields)

    @property
    def questions(self) -> tuple[Question, ...]:
        """What is probably wrong with it, and whether its customer said that it is right so."""
        return second_look(self.setup, self.asked)

    def paint(self, item: TextRecord) -> Paint:
        """Return the color of a text, as its placement says."""
        if item.paint:
            return Paint(item.paint.screen, item.paint.name)
        placement = self.setup.placement(item.placement)
        held = self.asked.adjustments.get(item.placement, UNTOUCHED)
        source = adjusted_color(placement, held) if placement else None
        return (chosen_paint(self.setup, source, self.asked) if source else None) or UNCHOSEN


def judged_anew(setup: Setup, asked: Asked, record: Record, findings: Iterable[Finding], assets: Assets) -> Verdict:
    """Return the verdict on what is asked now, where the goods look as recorded: findings stay, problems may not."""
    entered = check(setup, asked, Typefaces(setup.materials, assets))
    return judge([*entered, *Charged(setup, asked, record.amounts).problems()], findings)


def looks_the_same(one: Asked, other: Asked) -> bool:
    """Tell whether the goods look the same: only what doesn't land on them (day, stock, sign-in) may differ."""
    return _landing(one) == _landing(other)


def _landing(asked: Asked) -> Asked:
    return asked.model_copy(update={"today": None, "stock": {}, "signed_in": False, "left_out": {}, "meant": {}})
