"""Splitting: a side whose picture shows two, with the parts of that picture, comes in; operations for two sides go out.

Areas go with the part that their middle lies on, and what lands in them with them; nothing changes its size.
"""

from typing import Any

from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.setup import Setup, Side

Operations = list[dict[str, Any]]


def split_operations(
    setup: Setup, side: Side, parts: list[dict[str, Any]], new_key: str, name: str, *, across: bool
) -> Operations:
    """Return the operations that leave the first part to a side and make another one of the second.

    `across` tells that the second part stands beside the first, and not below it.
    """
    first, second = parts
    cut_px = first["width_px" if across else "height_px"]
    cut_mm = cut_px / side.scale.px_per_mm if side.scale else None
    at, length = ("x_mm", "width_mm") if across else ("y_mm", "height_mm")
    new_side: dict[str, Any] = {"key": new_key, "name": name, "picture": second}
    if side.scale:
        # The same scale: so many pixels are as long wherever they are.
        long_px = min(second["width_px"], second["height_px"])
        length_mm = long_px / side.scale.px_per_mm
        new_side["scale"] = {"start_px": [0, 0], "end_px": [long_px, 0], "length_mm": length_mm}
        kept_px = min(first["width_px"], first["height_px"])
        kept = {"start_px": [0, 0], "end_px": [kept_px, 0], "length_mm": kept_px / side.scale.px_per_mm}
    goes = [
        area for area in side.areas if cut_mm is not None and getattr(area, at) + getattr(area, length) / 2 > cut_mm
    ]
    new_side["areas"] = [dump_part(area) | {at: round(getattr(area, at) - (cut_mm or 0), 3)} for area in goes]
    keys = {area.key for area in goes}
    operations: Operations = [{"do": "set", "path": ["sides", side.key, "picture"], "value": first}]
    if side.scale:
        operations.append({"do": "set", "path": ["sides", side.key, "scale"], "value": kept})
    operations.append({"do": "add", "path": ["sides"], "item": new_side})
    operations += [
        {"do": "set", "path": ["placements", placement.key, "side"], "value": new_key}
        for placement in setup.placements
        if placement.side == side.key and placement.area in keys
    ]
    operations += [{"do": "remove", "path": ["sides", side.key, "areas"], "key": key} for key in keys]
    return operations
