"""What is found of a piece before it is made: an evaluation comes in; findings with their places go out."""

from collections.abc import Iterator

from yenzo.core.asking.problems import Problem
from yenzo.core.documents.values import Frozen
from yenzo.core.evaluation import Evaluation
from yenzo.core.preflight.findings import Finding
from yenzo.core.scene.nodes import AreaScene, Node

# What only a better file mends, and only its customer has that.
BY_A_FILE = frozenset({"coarse", "too_coarse", "see_through", "too_detailed", "no_contours"})
# What is doubted and not refused stands under codes that begin so.
DOUBT = "doubt-"


class Found(Frozen):
    """Something found of a piece: what, in words; where on a side, in its mm (left, top, right, bottom); by how much.

    What blocks can't be made well; other findings are to be looked at. `needs_file` says that only a better file of
    the customer's mends it.
    """

    code: str
    field: str
    message: str
    blocks: bool
    side: str = ""
    area: str = ""
    box_mm: tuple[float, float, float, float] | None = None
    measured: float | None = None
    limit: float | None = None
    needs_file: bool = False


def find_before_making(evaluation: Evaluation) -> tuple[Found, ...]:
    """Return all that is to be looked at before a piece is made, what blocks first."""
    verdict = evaluation.verdict
    return (
        *(_found(evaluation, item, blocks=True) for item in verdict.blocking),
        *(_found(evaluation, item, blocks=False) for item in verdict.advice),
        *_doubts(evaluation),
    )


def _found(evaluation: Evaluation, item: Problem | Finding, *, blocks: bool) -> Found:
    known = {"code": item.code, "field": item.field, "message": item.message, "blocks": blocks}
    known["needs_file"] = item.code in BY_A_FILE
    if isinstance(item, Finding):
        known |= {"side": item.side, "area": item.area, "measured": item.measured, "limit": item.limit}
        places = _places(evaluation, item.field, item.placement, (item.side, item.area))
    else:
        places = _places(evaluation, item.field)
    return Found(**{**known, **next(places, {})})


def _doubts(evaluation: Evaluation) -> Iterator[Found]:
    """Yield the questions of the second look that the customer left open."""
    for one in evaluation.questions:
        if not one.is_meant:
            place = next(_places(evaluation, one.field), {})
            yield Found(code=DOUBT + one.code, field=one.field, message=one.message, blocks=False, **place)


def _places(
    evaluation: Evaluation, field: str, placement: str = "", within: tuple[str, str] | None = None
) -> Iterator[dict[str, object]]:
    """Yield where what a field put on the goods lies, in mm of its side."""
    for area in evaluation.scene.areas:
        if within in (None, (area.side, area.key)):
            for node in area.nodes:
                if field in node.fields and placement in {"", node.placement} and (box := _box(area, node)):
                    yield {"side": area.side, "area": area.key, "box_mm": box}


def _box(area: AreaScene, node: Node) -> tuple[float, float, float, float] | None:
    inside = node.bounds
    if inside is None:
        return None
    left, top, right, bottom = inside.within(area.bleed)
    corners = [area.place.apply(x, y) for x in (left, right) for y in (top, bottom)]
    xs, ys = zip(*corners, strict=True)
    return round(min(xs), 2), round(min(ys), 2), round(max(xs), 2), round(max(ys), 2)
