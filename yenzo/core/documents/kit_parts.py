"""The parts of a kit as they stand in a product that uses it: under keys of their own, asked of whom the kit is for."""

import hashlib
import io
import tokenize
from collections.abc import Mapping, Sequence
from typing import Any

from yenzo.core.documents.fields import ColorField, TypefaceField
from yenzo.core.documents.kit_use import KitUse
from yenzo.core.documents.named import name_of
from yenzo.core.documents.reading import dump_part
from yenzo.core.documents.rules import SIGNED_IN, VARIANT
from yenzo.core.errors import DocumentError

MOST_IN_A_KEY = 60


class KitParts:
    """A kit's lines, sections and charges as a document has them, under keys that no other part of the product has."""

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
            """Return the conditions with the keys that the fields got."""
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
