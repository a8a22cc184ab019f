"""Kits: lines made once and used by many products. A set-up and kits come in, one set-up with all lines goes out."""

import hashlib
import io
import tokenize
from collections.abc import Iterator, Mapping, Sequence
from typing import Annotated, Any

from pydantic import Field

from yenzo.core.documents.beginnings import new_placement
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.effects import ColorSource
from yenzo.core.documents.fields import AnyField, ColorField, TypefaceField
from yenzo.core.documents.named import name_of
from yenzo.core.documents.placements import TypefaceSource
from yenzo.core.documents.reading import dump_document, dump_part, read_setup
from yenzo.core.documents.rules import SIGNED_IN, VARIANT
from yenzo.core.documents.setup import Setup
from yenzo.core.documents.values import Frozen, Key, Length, Text
from yenzo.core.errors import DocumentError

MOST_IN_A_KEY = 60


Place = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9_-]{0,59}/[a-z0-9][a-z0-9_-]{0,59}$")]


class Override(Frozen):
    """What one product has otherwise than the kit: a line left out, or called, needed and landing differently.

    `areas` are "side/area" keys; None leaves it to the areas' names. What isn't said of a text is as for a new line.
    """

    field: Key
    left_out: bool = False
    label: Text = ""
    help: Text = ""
    required: bool | None = None
    areas: tuple[Place, ...] | None = None
    typeface: TypefaceSource | None = None
    color: ColorSource | None = None
    most_mm: Length | None = None


class KitUse(Frozen):
    """A kit as one product uses it: for which variants (all, if none is named) and customers, and what is
    otherwise here.
    """

    key: Key
    name: Text
    setup: Setup
    variants: tuple[Key, ...] = ()
    only_signed_in: bool = False
    overrides: tuple[Override, ...] = ()


def with_kits(setup: Setup, uses: Sequence[KitUse]) -> Setup:
    """Return the set-up with the lines, sections and charges of its kits after its own; raises DocumentError.

    Keys of a kit's parts get the kit's key before their own, in rules, charges and formulas too. A line lands on the
    areas that the product says, or on those that are called as the kit says.
    """
    if not uses:
        return setup
    document = dump_document(setup)
    for use in uses:
        for name, items in _Renamed(use).parts().items():
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
        renamed = _Renamed(use)
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


class _Renamed:
    """A kit's parts under keys that no other part of the product has."""

    def __init__(self, use: KitUse) -> None:
        self._use = use
        own = use.setup
        left_out = {override.field for override in use.overrides if override.left_out}
        self._kept = [field for field in own.fields if field.key not in left_out]
        self._keys = {part.key: self._named(part.key) for part in (*own.fields, *own.sections, *own.charges)}
        self._overrides = {override.field: override for override in use.overrides}

    def key_of(self, key: str) -> str:
        """Return the key that a part of the kit has in the product."""
        return self._keys[key]

    def asked_look(self) -> dict[str, Any]:
        """Return the typeface and the color that the kit itself asks for, as placements have them."""
        kinds = {"typeface": TypefaceField, "color": ColorField}
        asked = {
            name: next((field.key for field in self._kept if isinstance(field, kind)), None)
            for name, kind in kinds.items()
        }
        return {name: {"field": self._keys[key]} for name, key in asked.items() if key}

    def _named(self, key: str) -> str:
        named = f"{self._use.key}-{key}"
        if len(named) <= MOST_IN_A_KEY:
            return named
        # Cut off, two of them could be the same.
        digest = hashlib.sha256(named.encode()).hexdigest()[:8]
        return f"{named[: MOST_IN_A_KEY - 9]}-{digest}"

    def parts(self) -> dict[str, list[dict[str, Any]]]:
        """Return the sections, fields and charges as a document has them."""
        kept = {field.key for field in self._kept}
        charges = [charge for charge in self._use.setup.charges if charge.field is None or charge.field in kept]
        return {
            "sections": [self._part(dump_part(section)) for section in self._use.setup.sections],
            "fields": [self._field(dump_part(field)) for field in self._kept],
            "charges": [self._part(dump_part(charge)) for charge in charges],
        }

    def _field(self, item: dict[str, Any]) -> dict[str, Any]:
        override = self._overrides.get(item["key"])
        renamed = self._part({name: value for name, value in item.items() if name != "lands_on"})
        for option in renamed.get("options", ()):
            if "ask_when" in option:
                option["ask_when"] = self._rule(option["ask_when"])
        if override is not None:
            renamed |= {name: value for name, value in (("label", override.label), ("help", override.help)) if value}
            renamed |= {} if override.required is None else {"required": override.required}
        return self._only_when(renamed)

    def _part(self, item: dict[str, Any]) -> dict[str, Any]:
        renamed = {**item, "key": self._keys[item["key"]]}
        for name in ("field", "section"):
            if name in renamed:
                renamed[name] = self._keys[renamed[name]]
        for name in ("ask_when", "required_when"):
            if name in renamed:
                renamed[name] = self._rule(renamed[name])
        if "formula" in renamed:
            names = {name_of(old): name_of(new) for old, new in self._keys.items()}
            renamed["formula"] = _with_names(renamed["formula"], names)
        return renamed

    def _rule(self, rule: dict[str, Any]) -> dict[str, Any]:
        def renamed(conditions: Sequence[dict[str, Any]]) -> list[dict[str, Any]]:
            return [{**one, "field": self._keys.get(one["field"], one["field"])} for one in conditions]

        groups = [{**group, "conditions": renamed(group["conditions"])} for group in rule.get("groups", ())]
        return {**rule, "conditions": renamed(rule.get("conditions", ())), **({"groups": groups} if groups else {})}

    def _only_when(self, item: dict[str, Any]) -> dict[str, Any]:
        """Return a line that is asked only for the variants and customers that the kit is for."""
        only: list[dict[str, Any]] = []
        if self._use.variants:
            only.append({"field": VARIANT, "test": "one_of", "values": list(self._use.variants)})
        if self._use.only_signed_in:
            only.append({"field": SIGNED_IN, "value": True})
        rule = item.get("ask_when")
        if not only:
            return item
        if rule is None:
            return {**item, "ask_when": {"conditions": only}}
        if rule.get("match", "all") == "all":
            return {**item, "ask_when": {**rule, "conditions": [*only, *rule.get("conditions", ())]}}
        if rule.get("groups"):
            message = (
                f"“{item['label']}” of the kit “{self._use.name}” has a rule with conditions inside conditions; "
                "it can't be used for some variants or customers only."
            )
            raise DocumentError("nested", item["key"], message)
        return {**item, "ask_when": {"conditions": only, "groups": [rule]}}


def _with_names(formula: str, names: Mapping[str, str]) -> str:
    """Return a formula with other names in it; texts in quotes stay as they are."""
    found = tokenize.generate_tokens(io.StringIO(formula).readline)
    tokens = [
        (one.type, names.get(one.string, one.string) if one.type == tokenize.NAME else one.string) for one in found
    ]
    return tokenize.untokenize(tokens).strip()
