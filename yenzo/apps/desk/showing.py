"""Pieces as the desk and their customer look at them: a preflight comes in; pictures with marks and words go out."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from django.utils.translation import gettext

from yenzo.apps.designs.in_words import PieceInWords, piece_in_words
from yenzo.apps.designs.personalized import read_as_kept
from yenzo.apps.desk.inspection import inspect_personalization
from yenzo.apps.desk.models import Change, Finding, Preflight, Question
from yenzo.apps.desk.services.changes import begun_of
from yenzo.apps.desk.services.preflights import findings_of, holding_findings
from yenzo.apps.orders.showing import ShownLine, ShownPiece
from yenzo.apps.pages.languages import read_in
from yenzo.core.record import Recorded
from yenzo.core.shapes.box import Box

# Around what a mark is about, so that the mark doesn't lie on it.
AROUND_MM = 1.5


@dataclass(frozen=True)
class Mark:
    """Where a finding is on a side, in mm, and its number."""

    number: int
    left: float
    top: float
    width: float
    height: float
    is_waived: bool


@dataclass(frozen=True)
class MarkedSide:
    """A side with its size in mm and the marks on it."""

    key: str
    name: str
    width_mm: float
    height_mm: float
    marks: tuple[Mark, ...]

    @property
    def stroke_mm(self) -> float:
        """How thick a mark's line is, to look the same on small goods and on large ones."""
        return max(self.width_mm, self.height_mm) / 160

    @property
    def radius_mm(self) -> float:
        """How large the circle around a mark's number is."""
        return 4 * self.stroke_mm

    @property
    def letter_mm(self) -> float:
        """How large a mark's number is."""
        return 5.5 * self.stroke_mm


def marked_sides(recorded: Recorded, findings: list[tuple[int, Finding]]) -> Iterator[MarkedSide]:
    """Yield the sides of a piece, each with the marks of numbered findings."""
    for side in recorded.sides:
        width, height = side.side.size_mm() or (100.0, 100.0)
        marks = tuple(_mark(number, one) for number, one in findings if one.side == side.key and one.box_mm)
        yield MarkedSide(side.key, side.name, width, height, marks)


def _mark(number: int, finding: Finding) -> Mark:
    assert finding.box_mm is not None
    box = Box(*finding.box_mm).grown(AROUND_MM)
    return Mark(number, box.left, box.top, box.width, box.height, finding.is_waived)


@dataclass(frozen=True)
class ShownPreflight:
    """Pieces with what was found of them, what is asked about them, and what they were before."""

    preflight: Preflight

    @cached_property
    def piece(self) -> ShownPiece:
        """The pieces themselves."""
        return next(one for one in ShownLine(self.preflight.line).pieces if one.index == self.preflight.index)

    @cached_property
    def findings(self) -> list[tuple[int, Finding]]:
        """What was found, numbered."""
        return list(enumerate(findings_of(self.preflight), 1))

    @property
    def holding(self) -> list[Finding]:
        """What of it keeps them from being made."""
        return holding_findings(self.preflight)

    @property
    def sides(self) -> list[MarkedSide]:
        """Their sides with the marks of findings."""
        return list(marked_sides(self.piece.recorded, self.findings))

    @cached_property
    def questions(self) -> list[Question]:
        """What was asked about them, the latest last."""
        return list(self.preflight.questions.select_related("person", "finding"))

    @property
    def question(self) -> Question | None:
        """What waits for an answer."""
        return next((one for one in self.questions if one.is_open), None)

    @property
    def changes(self) -> list["ShownChange"]:
        """How they were changed, the latest first."""
        changes = self.preflight.changes.select_related("before__revision", "after__revision", "difference")
        return [ShownChange(one) for one in changes.order_by("-pk")]

    @property
    def begun(self) -> list[str]:
        """What of them is begun or made, in words."""
        return begun_of(self.preflight)


@dataclass(frozen=True)
class ShownChange:
    """A change with what was before and after in words."""

    change: Change

    @property
    def versions(self) -> tuple[tuple[str, Recorded, PieceInWords], ...]:
        """What was before and what is after, with the digests of how that looks."""
        pair = (("Before", self.change.before), ("After", self.change.after))
        recorded = ((name, read_as_kept(one)) for name, one in pair)
        return tuple((name, one, piece_in_words(one)) for name, one in recorded)


def question_words(preflight: Preflight, finding: Finding | None) -> str:
    """Return the wording of a question as it is suggested, in the language of its customer."""
    order = preflight.line.order
    with read_in(order.language):
        if finding is None:
            about = ""
        else:
            # The finding itself is in the workshop's language.
            same = (
                one.message
                for one in inspect_personalization(preflight.personalization, order.language)
                if (one.code, one.field, one.side, one.area)
                == (finding.code, finding.field, finding.side, finding.area)
            )
            about = next(same, finding.message)
        said = gettext("Before we make your piece {piece}, please look at this once more:").format(
            piece=preflight.piece
        )
        return f"{said} {about}".strip()
