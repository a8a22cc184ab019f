"""Kits: lines made once and used by many products. A set-up and kits come in, one set-up with all lines goes out."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from yenzo.core.documents.beginnings import new_placement
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.kit_parts import KitParts
from yenzo.core.documents.kit_use import KitUse, Override
from yenzo.core.documents.reading import dump_document, read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import DocumentError


def with_kits(setup: Setup, uses: Sequence[KitUse]) -> Setup:
    """Return the set-up with the lines, sections and charges of its kits after its own; raises DocumentError.

    Keys of a kit's parts get the kit's key before their own, in rules, charges and formulas too. A line lands on the
    areas that the product says, or on those that are called as the kit says.
    """
    if not uses:
        return setup
    document = dump_document(setup)
    for use in uses:
        for name, items in KitParts(use).parts().items():
            document[name] = [*document.get(name, []), *items]
        document["wording"] = _joined_wording(use.setup.wording, document.get("wording", {}))
    if not any(places_of(use, field, setup) for use in uses for field in use.setup.fields):
        return read_setup(document)
    document["placements"] = [*document.get("placements", []), *_landings(read_setup(document), uses)]
    return read_setup(document)


def can_land(field: AnyField) -> bool:
    """Tell whether an entry can stand on goods, as text or as artwork."""
    return field.lands_as is not None


def places_of(use: KitUse, field: AnyField, setup: Setup) -> tuple[str, ...]:
    """Return the areas of a product ("side/area") that a line of a kit lands on; raises DocumentError for one gone."""
    override = next((one for one in use.overrides if one.field == field.key), None)
    if not can_land(field) or (override is not None and override.left_out):
        return ()
    named = {f"{side.key}/{area.key}": area.name for side in setup.sides for area in side.areas}
    if override is None or override.areas is None:
        wanted = field.lands_on.strip().casefold()
        return tuple(place for place, name in named.items() if wanted and name.strip().casefold() == wanted)
    for place in override.areas:
        if place not in named:
            message = (
                f"“{field.label}” of the kit “{use.name}” lands on an imprint area that “{setup.offer.name}” no longer "
                "has. Open “What is otherwise here” beside the kit, and say where it lands."
            )
            raise DocumentError("no_area", place, message)
    return override.areas


def lands_nowhere(use: KitUse, setup: Setup) -> list[str]:
    """Return, in words, each line of a kit that should land on areas of a name that a product hasn't."""
    said = {override.field for override in use.overrides if override.areas is not None or override.left_out}
    return [
        f"“{field.label}” goes on the ticket only: no imprint area is called “{field.lands_on}”."
        for field in use.setup.fields
        if field.lands_on and field.key not in said and not places_of(use, field, setup)
    ]


def _landings(merged: Setup, uses: Sequence[KitUse]) -> Iterator[dict[str, Any]]:
    taken: list[dict[str, Any]] = [{"key": placement.key} for placement in merged.placements]
    for use in uses:
        renamed = KitParts(use)
        overrides = {override.field: override for override in use.overrides}
        own_look = renamed.asked_look()
        for field in use.setup.fields:
            here = merged.field(renamed.key_of(field.key))
            for place in places_of(use, field, merged) if here else ():
                assert here is not None
                key = free_key({"placements": taken}, ("placements",), here.key)
                taken.append({"key": key})
                item = new_placement(merged, here, place, key)
                yield item if item["kind"] == "artwork" else _dressed({**item, **own_look}, overrides.get(field.key))


def _dressed(item: dict[str, Any], override: Override | None) -> dict[str, Any]:
    """Return a text's placement with what the product says of its look."""
    if override is None:
        return item
    said = override.model_dump(mode="json", include={"typeface", "color"}, exclude_none=True)
    most = override.most_mm or item["most_mm"]
    return {**item, **said, "most_mm": most, "least_mm": min(item["least_mm"], most)}


def _joined_wording(
    theirs: Mapping[str, Mapping[str, str]], own: dict[str, dict[str, str]]
) -> dict[str, dict[str, str]]:
    """Return the translations of a kit and of a product; the product's own count where both have some."""
    return {
        language: {**theirs.get(language, {}), **own.get(language, {})} for language in dict.fromkeys([*theirs, *own])
    }
