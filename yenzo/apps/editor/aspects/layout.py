"""How a text is laid out: its base line, block or arc, its letters, and the entries that share it."""

from typing import Any

from django import forms

from yenzo.apps.editor.aspects.interface import Aspect, FormLine, Operations, points_in, shown_for
from yenzo.apps.pages.fields import LineField
from yenzo.apps.pages.phrases import joined
from yenzo.core.documents.areas import Area
from yenzo.core.documents.placements import (
    JOINED_FIELD,
    AnyText,
    ArcPlacement,
    ArtworkPlacement,
    BlockPlacement,
    CurvePlacement,
    EdgePlacement,
    LinePlacement,
    OwnItemsPlacement,
)
from yenzo.core.documents.setup import Setup
from yenzo.core.measure import plain_number

NUMBER = forms.NumberInput(attrs={"step": "any"})


def text_of(line: FormLine) -> AnyText:
    """Return the text placement that a line's aspect is about."""
    assert line.placement is not None
    assert not isinstance(line.placement, ArtworkPlacement | OwnItemsPlacement)
    return line.placement


def area_of(setup: Setup, placement: AnyText) -> Area:
    """Return the area that a placement lands in."""
    side = setup.side(placement.side)
    area = side.area(placement.area) if side else None
    assert area is not None
    return area


class LayoutAspect(Aspect):
    key, heading = "layout", "How is it laid out?"
    WAYS = (
        ("line", "In one line, as large as fits"),
        ("base", "On a straight base line"),
        ("block", "As a block that wraps"),
        ("arc", "On an arc"),
        ("curve", "Along a curve"),
        ("edge", "Round the edge of its area"),
        ("stack", "Letters below each other"),
    )
    STANDS = (
        ("over", "over the circle, read at the top"),
        ("under", "under the circle, read at the bottom"),
        ("inside", "inside the circle, read at the top"),
        ("inside_under", "inside the circle, read at the bottom"),
    )
    # What each way has of its own, beside what all texts have.
    OWN = (
        "base_line",
        "vertical",
        "line_spacing",
        "least_line_spacing",
        "least_letter_spacing",
        "x_mm",
        "y_mm",
        "radius_mm",
        "middle_deg",
        "spread_deg",
        "stand",
        "points",
        "tops",
    )
    TOPS = (("out", "out, to the edge"), ("in", "in, away from the edge"))

    def words(self, line: FormLine) -> str:
        match text_of(line):
            case LinePlacement(base_line=None):
                return "in one line"
            case LinePlacement(base_line=base) if base is not None:
                sloping = f" sloping by {plain_number(base.angle_deg, 1)}°" if base.angle_deg else ""
                return f"on a base line {plain_number(base.length_mm, 1)} mm long{sloping}"
            case BlockPlacement():
                return "as a block that wraps"
            case ArcPlacement() as arc:
                where = dict(self.STANDS)[arc.stand].split(",")[0]
                return f"on an arc {where}, radius {plain_number(arc.radius_mm, 1)} mm"
            case CurvePlacement():
                return "along a curve"
            case EdgePlacement(tops=tops):
                return f"round the edge of its area, letters' tops {dict(self.TOPS)[tops].split(',')[0]}"
            case _:
                return "letters below each other"

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        placement = text_of(line)
        area = area_of(line.setup, placement)
        way = "base" if isinstance(placement, LinePlacement) and placement.base_line else placement.kind
        fields: dict[str, forms.Field] = {
            "way": forms.ChoiceField(choices=self.WAYS, initial=way, widget=forms.RadioSelect, label="The text stands")
        }
        fields |= self._base_fields(placement, area)
        fields |= self._block_fields(placement)
        fields |= self._arc_fields(placement, area)
        fields |= self._edge_fields(placement)
        points = placement.points if isinstance(placement, CurvePlacement) else _wave(area)
        fields["points"] = shown_for(
            "curve",
            LineField(
                required=False,
                max_length=1000,
                initial=", ".join(f"{plain_number(x)} {plain_number(y)}" for x, y in points),
                label="Points in mm from the area's top left, “across down” each: an end, two controls and an end …",
            ),
        )
        return fields

    def _base_fields(self, placement: AnyText, area: Area) -> dict[str, forms.Field]:
        base = placement.base_line if isinstance(placement, LinePlacement) else None
        begins = {
            "base_x": (base.x_mm if base else area.safe_mm, "Starts, across, mm"),
            "base_y": (base.y_mm if base else round(area.height_mm * 0.6, 1), "Starts, down, mm"),
            "base_length": (base.length_mm if base else area.width_mm - 2 * area.safe_mm, "Length, mm"),
            "base_angle": (base.angle_deg if base else 0, "Slopes down by, degrees"),
        }
        return {name: shown_for("base", _number(initial, label)) for name, (initial, label) in begins.items()}

    def _block_fields(self, placement: AnyText) -> dict[str, forms.Field]:
        block = placement if isinstance(placement, BlockPlacement) else None
        return {
            "line_spacing": shown_for(
                "block", _number(block.line_spacing if block else 1.7, "Line spacing, in letter heights")
            ),
            "least_line_spacing": shown_for(
                "block", _number(block.least_line_spacing if block else None, "Tighten it, where needed, to")
            ),
            "least_letter_spacing": shown_for(
                "block",
                _number(
                    block.least_letter_spacing if block else None, "Tighten letters, where needed, to (% of the em)"
                ),
            ),
        }

    def _arc_fields(self, placement: AnyText, area: Area) -> dict[str, forms.Field]:
        arc = placement if isinstance(placement, ArcPlacement) else None
        begins = {
            "x_mm": (arc.x_mm if arc else area.width_mm / 2, "Middle of the circle, across, mm"),
            "y_mm": (arc.y_mm if arc else area.height_mm, "Middle of the circle, down, mm"),
            "radius_mm": (arc.radius_mm if arc else round(area.height_mm * 0.6, 1), "Radius, mm"),
            "middle_deg": (arc.middle_deg if arc else 270, "Middle of the text at (0 right, 90 below, 270 on top)"),
            "spread_deg": (arc.spread_deg if arc else 160, "Takes at most, degrees"),
        }
        stand = forms.ChoiceField(
            choices=self.STANDS, initial=arc.stand if arc else "over", label="Letters stand", required=False
        )
        numbers = {name: shown_for("arc", _number(initial, label)) for name, (initial, label) in begins.items()}
        return {"stand": shown_for("arc", stand), **numbers}

    def _edge_fields(self, placement: AnyText) -> dict[str, forms.Field]:
        edge = placement if isinstance(placement, EdgePlacement) else None
        middle = _number(edge.middle_deg if edge else 270, "Middle of the text at (0 right, 90 below, 270 on top)")
        tops = forms.ChoiceField(
            choices=self.TOPS, initial=edge.tops if edge else "out", label="Letters' tops point", required=False
        )
        return {"edge_middle": shown_for("edge", middle), "tops": shown_for("edge", tops)}

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        placement, way = text_of(line), given["way"]
        values = self._values(way, given)
        kept = set(type(placement).model_fields) if placement.kind == _kind(way) else set()
        cleared: dict[str, Any] = {name: None for name in self.OWN if name != "vertical" or "vertical" not in kept}
        if way in {"arc", "curve", "edge"} or getattr(placement, "align", "") == "justified":
            cleared["align"] = placement.align if placement.align != "justified" else None
        return [
            line.set_placement("kind", _kind(way)),
            *(line.set_placement(name, value) for name, value in {**cleared, **values}.items()),
        ]

    def _values(self, way: str, given: dict[str, Any]) -> dict[str, Any]:
        needed = {
            "base": ("base_x", "base_y", "base_length", "base_angle"),
            "block": ("line_spacing",),
            "arc": ("x_mm", "y_mm", "radius_mm", "middle_deg", "spread_deg", "stand"),
            "edge": ("edge_middle", "tops"),
        }.get(way, ())
        if any(given[name] in (None, "") for name in needed):
            raise forms.ValidationError("Please fill in all the numbers of this layout.")
        if way == "base":
            names = {"x_mm": "base_x", "y_mm": "base_y", "length_mm": "base_length", "angle_deg": "base_angle"}
            return {"base_line": {name: given[source] for name, source in names.items()}}
        if way == "block":
            return {name: given[name] for name in ("line_spacing", "least_line_spacing", "least_letter_spacing")}
        if way == "edge":
            return {"middle_deg": given["edge_middle"], "tops": given["tops"]}
        if way == "curve":
            return {"points": _points(given["points"])}
        return {name: given[name] for name in needed}


def _kind(way: str) -> str:
    return "line" if way == "base" else way


def _number(initial: float | None, label: str) -> forms.FloatField:
    plain = None if initial is None else plain_number(initial)
    return forms.FloatField(required=False, initial=plain, label=label, widget=NUMBER)


def _wave(area: Area) -> list[tuple[float, float]]:
    """Return a gentle wave through an area, for a curve to begin with."""
    wide, high = area.width_mm, area.height_mm
    return [(wide * 0.05, high * 0.7), (wide * 0.35, high * 0.35), (wide * 0.65, high), (wide * 0.95, high * 0.6)]


def _points(text: str) -> list[list[float]]:
    message = "Write each point as two numbers, and a comma between points: 0 30, 30 10, 60 50, 90 20."
    points = points_in(text, message)
    if len(points) % 3 != 1 or len(points) < 4:
        raise forms.ValidationError(
            "A curve needs an end, then two controls and an end for each part: 4, 7, 10 … points."
        )
    return points


class LettersAspect(Aspect):
    key, heading, offer = "letters", "How are the letters set?", "letters"
    FEATURES = (
        ("small_capitals", "small capitals"),
        ("old_style_figures", "old-style figures"),
        ("swashes", "swashes"),
        ("discretionary_ligatures", "fancy ligatures"),
    )

    def words(self, line: FormLine) -> str:
        placement = text_of(line)
        spacing = placement.letter_spacing
        way = "apart" if spacing > 0 else "closer"
        spaced = [f"letters {plain_number(abs(spacing), 1)}% of the em {way}"] if spacing else []
        said = [*spaced, *(dict(self.FEATURES)[name] for name in placement.features)]
        return joined(said) if said else "letters as drawn"

    def is_plain(self, line: FormLine) -> bool:
        return not text_of(line).letter_spacing and not text_of(line).features

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        placement = text_of(line)
        return {
            "letter_spacing": forms.FloatField(
                required=False,
                initial=placement.letter_spacing,
                min_value=-10,
                max_value=200,
                widget=NUMBER,
                label="Between letters, % of the em",
            ),
            "features": forms.MultipleChoiceField(
                required=False,
                choices=self.FEATURES,
                initial=placement.features,
                widget=forms.CheckboxSelectMultiple,
                label="Where the typeface has them",
            ),
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement(name, given[name] or None) for name in ("letter_spacing", "features")]


class JoinedAspect(Aspect):
    key, heading, offer = "joined", "Which entries make this text?", "join"

    def words(self, line: FormLine) -> str:
        pattern = text_of(line).joined
        return f"as “{_labelled(line.setup, pattern)}”" if pattern else "by itself"

    def is_plain(self, line: FormLine) -> bool:
        return not text_of(line).joined

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        texts = [field for field in line.setup.fields if field.lands_as == "text"]
        names = ", ".join(f"{{{field.label}}}" for field in texts)
        return {
            "joined": LineField(
                required=False,
                max_length=500,
                initial=_labelled(line.setup, text_of(line).joined),
                strip=False,
                label="The text, with entries in braces; empty for this entry alone",
                help_text=f"These can be used: {names}. What is between two entries goes when one of them is empty.",
            )
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        pattern = given["joined"]
        for field in line.setup.fields:
            pattern = pattern.replace(f"{{{field.label}}}", f"{{{field.key}}}")
        known = {field.key for field in line.setup.fields}
        unknown = [key for key in JOINED_FIELD.findall(pattern) if key not in known]
        if unknown or "{" in JOINED_FIELD.sub("", pattern):
            raise forms.ValidationError("What stands in braces must be the name of a line of this form.")
        if pattern and line.field.key not in JOINED_FIELD.findall(pattern):
            raise forms.ValidationError(f"The text must name this line too: {{{line.field.label}}}.")
        return [line.set_placement("joined", pattern if pattern.strip() else None)]


class OverlapAspect(Aspect):
    key, heading, offer = "overlap", "May it lie over other texts?", "overlap"

    def words(self, line: FormLine) -> str:
        return "which may lie over other texts" if text_of(line).may_overlap else "beside all other texts"

    def is_plain(self, line: FormLine) -> bool:
        return not text_of(line).may_overlap

    def form_fields(self, line: FormLine) -> dict[str, forms.Field]:
        return {
            "may_overlap": forms.BooleanField(
                required=False,
                initial=text_of(line).may_overlap,
                label="It may lie over other texts",
                help_text="Otherwise nobody can order a piece on which they run into each other.",
            )
        }

    def operations(self, line: FormLine, given: dict[str, Any]) -> Operations:
        return [line.set_placement("may_overlap", given["may_overlap"] or None)]


def _labelled(setup: Setup, pattern: str) -> str:
    labels = {field.key: field.label for field in setup.fields}
    return JOINED_FIELD.sub(lambda found: f"{{{labels.get(found[1], found[1])}}}", pattern)
