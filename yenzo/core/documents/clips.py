"""Areas on the clipboard (`yenzo-areas/1`): an area of a set-up goes out with what lands in it, and comes into another.

It is open JSON: whoever has it can read it, change it and paste it, between sides and between products.
"""

import json
from typing import Any, Literal

from pydantic import Field, ValidationError

from yenzo.core.documents.areas import Area
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.placements import AnyPlacement
from yenzo.core.documents.reading import dump_part, explain
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import UNDECIDED, Frozen
from yenzo.core.errors import DocumentError

SCHEMA = "yenzo-areas/1"
# So that a copy on its own side is seen.
BESIDE_MM = 5.0


class Clip(Frozen):
    """Areas, and the placements that land in them."""

    schema_: Literal["yenzo-areas/1"] = Field(default="yenzo-areas/1", alias="schema")
    areas: tuple[Area, ...] = Field(min_length=1, max_length=50)
    placements: tuple[AnyPlacement, ...] = Field(default=(), max_length=200)


def copied(setup: Setup, side_key: str, area: Area) -> str:
    """Return an area with what lands in it as JSON."""
    lands = [one for one in setup.placements if (one.side, one.area) == (side_key, area.key)]
    clip = {"schema": SCHEMA, "areas": [dump_part(area)], "placements": [dump_part(one) for one in lands]}
    return json.dumps(clip, ensure_ascii=False, indent=1)


def read_clip(text: str) -> Clip:
    """Read what was pasted; raises DocumentError with words for whoever pasted it."""
    what = "the clipboard"
    try:
        return Clip.model_validate_json(text)
    except ValidationError as error:
        message = f"What was pasted is no copied area: {explain(error)}. Copy an area first, then paste it here."
        raise DocumentError("no_clip", what, message) from error


def pasted(setup: Setup, clip: Clip, side_key: str) -> tuple[list[dict[str, Any]], list[str]]:
    """Return the operations that add a clip's areas to a side, and the names of fields that aren't asked here.

    What lands in an area comes along where a field of the same key lands the same way; keys are given anew.
    """
    side = setup.side(side_key)
    taken_areas = [{"key": area.key} for area in side.areas] if side else []
    taken = [{"key": placement.key} for placement in setup.placements]
    operations: list[dict[str, Any]] = []
    left_out: list[str] = []
    for area in clip.areas:
        key = free_key({"areas": taken_areas}, ("areas",), area.key)
        beside = BESIDE_MM if side and side.area(area.key) else 0.0
        taken_areas.append({"key": key})
        method = area.method if area.method in setup.materials.methods else UNDECIDED
        known = setup.field(area.method_field) if area.method_field else None
        item = dump_part(area) | {
            "key": key,
            "x_mm": area.x_mm + beside,
            "y_mm": area.y_mm + beside,
            "method": method,
        }
        if area.method_field and known is None:
            item.pop("method_field")
        operations.append({"do": "add", "path": ["sides", side_key, "areas"], "item": item})
        for placement in (one for one in clip.placements if one.area == area.key):
            if _can_land(setup, placement):
                placement_key = free_key({"placements": taken}, ("placements",), placement.key)
                taken.append({"key": placement_key})
                landing = dump_part(placement) | {"key": placement_key, "side": side_key, "area": key}
                operations.append({"do": "add", "path": ["placements"], "item": landing})
            else:
                left_out.append(placement.field)
    return operations, left_out


def _can_land(setup: Setup, placement: AnyPlacement) -> bool:
    """Tell whether all that a placement refers to is there, and lands as it does."""
    ways = {"artwork": "artwork", "own_items": "items"}
    fields = [setup.field(key) for key in placement.fields]
    lands = all(field is not None and field.lands_as == ways.get(placement.kind, "text") for field in fields)
    sources = [source.field for source in placement.colors if source.field]
    typeface = getattr(placement, "typeface", None)
    if typeface is not None and typeface.field:
        sources.append(typeface.field)
    return lands and all(setup.field(key) is not None for key in sources)
