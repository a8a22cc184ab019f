"""Sections of the order slip: added, edited in place, moved, removed; and how the form is shown."""

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.urls import reverse
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS
from yenzo.apps.editor.aspects.interface import SectionLine, WholeForm
from yenzo.apps.editor.aspects.sections import FORM_ASPECTS, SECTION_ASPECTS
from yenzo.apps.editor.views.opened import Opened, answer_aspect
from yenzo.apps.editor.views.setup import changed
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.documents.edits import free_key


@staff_page(*SELLERS)
@require_POST
def add_section(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product, key=key)
    number = len(setup_of_draft(product).sections) + 1
    item = {"key": free_key(product.draft, ("sections",), f"section-{number}"), "title": f"Section {number}"}
    operation = {"do": "add", "path": ["sections"], "item": item}
    return changed(request, key, [operation], "Section added", refocus=f"section-value-{item['key']}-title")


@staff_page(*SELLERS)
def edit_section(request: HttpRequest, key: str, section_key: str, aspect_key: str) -> HttpResponse:
    """Show the form of a section's underlined value in its place, or save it."""
    line, aspect = _section(key, section_key), SECTION_ASPECTS.get(aspect_key)
    if aspect is None:
        raise Http404
    opened = Opened(
        address=reverse("editor:edit_section", args=[key, section_key, aspect_key]),
        opener=f"section-value-{section_key}-{aspect_key}",
        label=f"{line.name}: {aspect.heading}",
    )
    return answer_aspect(request, key, aspect, line, opened)


@staff_page(*SELLERS)
def edit_form(request: HttpRequest, key: str, aspect_key: str) -> HttpResponse:
    """Show the form of a value that is of the whole order slip in its place, or save it."""
    setup = setup_of_draft(get_object_or_404(Product, key=key))
    aspect, charge_key = FORM_ASPECTS.get(aspect_key), request.GET.get("charge", "")
    charge = next((one for one in setup.charges_of(None) if one.key == charge_key), None)
    if aspect is None or (charge_key and charge is None):
        raise Http404
    query = f"?charge={charge_key}" if charge_key else ""
    opened = Opened(
        address=reverse("editor:edit_form", args=[key, aspect_key]) + query,
        opener=f"form-value-{aspect_key}-{charge_key}",
        label=aspect.heading,
    )
    return answer_aspect(request, key, aspect, WholeForm(setup, charge), opened)


@staff_page(*SELLERS)
@require_POST
def move_section(request: HttpRequest, key: str, section_key: str) -> HttpResponse:
    """Move a section before the one above it."""
    line = _section(key, section_key)
    at = [section.key for section in line.setup.sections].index(section_key)
    operation = {"do": "move", "path": ["sections"], "key": section_key, "position": max(at - 1, 0)}
    return changed(request, key, [operation], f"{line.name} moved", refocus=f"section-up-{section_key}")


@staff_page(*SELLERS)
@require_POST
def remove_section(request: HttpRequest, key: str, section_key: str) -> HttpResponse:
    """Remove a section; its lines stay, before all sections."""
    line = _section(key, section_key)
    freed = [
        {"do": "set", "path": ["fields", field.key, "section"], "value": None}
        for field in line.setup.fields_of(section_key)
    ]
    removed = {"do": "remove", "path": ["sections"], "key": section_key}
    return changed(request, key, [*freed, removed], f"Section “{line.name}” removed")


def _section(key: str, section_key: str) -> SectionLine:
    setup = setup_of_draft(get_object_or_404(Product, key=key))
    section = setup.section(section_key)
    if section is None:
        raise Http404
    return SectionLine(setup, section)
