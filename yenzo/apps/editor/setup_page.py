"""The page of a set-up: a product comes in; its bench, its order slip in sentences and how it stands go out."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from django.template.loader import render_to_string
from django.urls import reverse
from django.utils.safestring import SafeString, mark_safe

from yenzo.apps.accounts.models import Person
from yenzo.apps.editor.aspects import FormLine, Part, sentence_of
from yenzo.apps.editor.aspects.interface import SectionLine
from yenzo.apps.editor.aspects.sections import SECTION_ASPECTS, form_sentence
from yenzo.apps.editor.bench import lay_out
from yenzo.apps.editor.forms import AreaForm, NewLineForm
from yenzo.apps.editor.wording import incomplete_languages
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.phrases import joined
from yenzo.apps.products.kits import Kits, UsedKit
from yenzo.apps.products.listing import asks_words, is_changed
from yenzo.apps.products.models import DraftEdit, Product
from yenzo.apps.products.readiness import unready
from yenzo.apps.products.services.publishing import differs_from_live
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.advice import find_advice
from yenzo.core.documents.clips import copied
from yenzo.core.documents.setup import Section, Setup
from yenzo.core.errors import DocumentError

ANY_LINE, ANY_ASPECT = "any-line", "any-aspect"
ROWS_KEPT = 2000


@dataclass(frozen=True)
class SentenceRow:
    """A line of the order slip as the page shows it: all that its markup says, and nothing else."""

    key: str
    name: str
    position: int
    number: int | None
    address: str
    parts: tuple[Part, ...]

    @property
    def markup(self) -> SafeString:
        """Its part of the page."""
        return _row_markup(self)


@lru_cache(maxsize=ROWS_KEPT)
def _row_markup(row: SentenceRow) -> SafeString:
    # One change of a long form leaves nearly all of its lines as they were.
    return mark_safe(render_to_string("editor/_sentence.html", {"row": row}))


def lands_words(setup: Setup, side_key: str, area_key: str | None = None) -> str:
    """Return which lines land on a side, or in one of its areas, and which of them nowhere else; empty for none."""
    placed = [p for p in setup.placements if p.side == side_key and area_key in (None, p.area)]
    keys = list(dict.fromkeys(placement.field for placement in placed))
    fields = [field for key in keys if (field := setup.field(key))]
    only = [field for field in fields if all(one in placed for one in setup.placements if one.field == field.key)]
    if not fields:
        return ""
    said = f"{joined([f'“{field.workshop_name or field.label}”' for field in fields])} would no longer go there"
    if only:
        nowhere = joined([f"“{field.workshop_name or field.label}”" for field in only])
        said += f"; {nowhere} would go nowhere, only on the ticket"
    return f"{said}."


@dataclass(frozen=True)
class FormPart:
    """A section with its lines as the page shows it, or the lines that stand before all sections."""

    section: Section | None
    asked: str
    rows: tuple[SentenceRow, ...]


@dataclass(frozen=True)
class KitRow:
    """A kit among the lines of a product: what it asks, and what is otherwise here."""

    used: UsedKit
    asks: str


def _parts_of_form(product: Product, setup: Setup) -> list[FormPart]:
    parts, at, number = [], 0, 0
    # A long form has a thousand values: their addresses are made from one.
    lines = reverse("editor:edit_aspect", args=[product.key, ANY_LINE, ANY_ASPECT]).removesuffix(f"{ANY_ASPECT}/")
    for section, fields in setup.form_order:
        rows = []
        for field in fields:
            number += field.has_entry
            line = FormLine(setup, field, is_of_kit=product.is_kit)
            shown = number if field.has_entry else None
            address = lines.replace(ANY_LINE, field.key)
            rows.append(SentenceRow(field.key, line.name, at, shown, address, tuple(sentence_of(line))))
            at += 1
        asked = SECTION_ASPECTS["ask-when"].words(SectionLine(setup, section)) if section else ""
        parts.append(FormPart(section, asked, tuple(rows)))
    return parts


@dataclass(frozen=True)
class WholeSetup:
    """A draft with its kits as customers would get it, and what keeps it from being published."""

    own: Setup
    resolved: Setup
    kits: tuple[KitRow, ...]
    faults: tuple[str, ...]


def whole_setup(product: Product) -> WholeSetup:
    """Return the draft of a product with its kits; what a kit brings counts like the product's own."""
    kits, own, is_priced = Kits(), setup_of_draft(product), not product.is_kit
    rows = tuple(KitRow(used, asks_words(used.setup)) for used in kits.used_by(product))
    try:
        resolved = kits.resolved(product, own)
    except DocumentError as error:
        return WholeSetup(own, own, rows, (*unready(own, is_priced=is_priced), error.message))
    return WholeSetup(own, resolved, rows, tuple(unready(resolved, is_priced=is_priced)))


ARRANGE_WORDS = (
    ("across", "Middle across"),
    ("down", "Middle down"),
    ("lefts", "All to this left"),
    ("tops", "All to this top"),
    ("spread_across", "Equal gaps across"),
    ("spread_down", "Equal gaps down"),
    ("above", "Above"),
    ("below", "Below"),
)


def setup_context(product: Product, person: Person, selected: str, area_form: AreaForm | None = None) -> dict[str, Any]:
    """Return what the page and its partial need; `selected` is the imprint area that is picked, as "side/area"."""
    whole = whole_setup(product)
    return {
        "product": product,
        "setup": whole.own,
        "section": "products",
        "is_kit": product.is_kit,
        **_bench(whole.own, selected, area_form),
        **_slip(product, whole),
        **_standing(product, person, whole),
    }


def _bench(setup: Setup, selected: str, area_form: AreaForm | None) -> dict[str, Any]:
    """Return the goods with their areas, and the one that is picked."""
    side_key, _, area_key = selected.partition("/")
    area_form = area_form or _area_form(setup, side_key, area_key)
    return {
        "bench": lay_out(setup, selected, StoredAssets()),
        "selected": selected if area_form else "",
        "selected_side": side_key,
        "selected_area": area_key,
        "area_form": area_form,
        "arrangements": ARRANGE_WORDS,
        "copied_area": _copied(setup, side_key, area_key) if area_form else "",
    }


def _copied(setup: Setup, side_key: str, area_key: str) -> str:
    """Return the picked area as the clipboard has it."""
    side = setup.side(side_key)
    area = side.area(area_key) if side else None
    return copied(setup, side_key, area) if area else ""


def _area_form(setup: Setup, side_key: str, area_key: str) -> AreaForm | None:
    side = setup.side(side_key)
    area = side.area(area_key) if side else None
    return AreaForm(setup, area) if area else None


def _slip(product: Product, whole: WholeSetup) -> dict[str, Any]:
    """Return the order slip in sentences, with what its kits bring."""
    return {
        "asks": asks_words(whole.own),
        "parts_of_form": _parts_of_form(product, whole.own),
        "form_parts": form_sentence(whole.own),
        "new_line": NewLineForm(auto_id="new-%s"),
        "kits": whole.kits,
        "advice": [*find_advice(whole.own), *incomplete_languages(whole.own)],
    }


def _standing(product: Product, person: Person, whole: WholeSetup) -> dict[str, Any]:
    """Return how the draft stands: what can be taken back, what keeps it from the shop, what has changed since."""
    edits, live = DraftEdit.objects.filter(product=product), product.live
    differs = is_changed(product) if product.is_kit and live else differs_from_live(product, whole.resolved)
    return {
        "undoable": edits.undoable_by(person).first(),
        "redoable": edits.redoable_by(person).first(),
        "faults": whole.faults,
        "is_changed": differs,
        "changes": edits.made_since(live.from_version).count() if live else edits.count(),
        "next_number": live.number + 1 if live else 1,
    }
