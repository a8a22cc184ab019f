"""Materials: what there is; methods, palettes, typefaces, word lists and collections in forms of their own."""

from collections.abc import Mapping
from typing import Any, TypeVar

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.text import slugify

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.materials.collections import CollectionEditor, take_drawing
from yenzo.apps.materials.methods import MethodForm, method_row
from yenzo.apps.materials.palettes import PaletteEditor
from yenzo.apps.materials.services.materials import add_font, save_material
from yenzo.apps.materials.to_core import materials
from yenzo.apps.materials.typefaces import TypefaceForm
from yenzo.apps.materials.word_lists import WordListForm
from yenzo.core.documents.edits import free_key
from yenzo.core.errors import ArtworkError, TypefaceError


@staff_page(*SELLERS)
def material_list(request: HttpRequest) -> HttpResponse:
    have = materials()
    methods = [method_row(key, method) for key, method in have.methods.items()]
    return render(request, "materials/materials.html", {"materials": have, "methods": methods, "section": "materials"})


@staff_page(*SELLERS)
def edit_method(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a decoration method with all that can be said of it, or save it; without a key, a new one."""
    method = _named(materials().methods, key)
    form = MethodForm(method, request.POST) if request.method == "POST" else MethodForm(method)
    if form.is_bound and form.is_valid():
        return _saved(request, "methods", key, form.document())
    return _shown(request, "materials/material.html", {"form": form, "material": method, "what": "decoration method"})


@staff_page(*SELLERS)
def edit_palette(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a palette's colors, or save them; without a key, a new one."""
    palette = _named(materials().palettes, key)
    editor = PaletteEditor(palette, request.POST if request.method == "POST" else None)
    if request.method == "POST" and editor.is_valid():
        return _saved(request, "palettes", key, editor.document())
    return _shown(request, "materials/palette.html", {"editor": editor, "palette": palette})


@staff_page(*SELLERS)
def edit_typeface(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a typeface, or save it, perhaps with another font file; without a key, a new one."""
    typeface = _named(materials().typefaces, key)
    form = TypefaceForm(typeface, *((request.POST, request.FILES) if request.method == "POST" else ()))
    if form.is_bound and form.is_valid():
        file, instance = form.cleaned_data["file"], form.cleaned_data["instance"]
        try:
            if file:
                font = add_font(actor_of(request.user), file.read(), file.name, instance)
            else:
                assert typeface is not None  # A new one needs its file.
                data = StoredAssets().read(typeface.font)
                font = add_font(actor_of(request.user), data, typeface.name, instance)
        except TypefaceError as error:
            form.add_error("file" if error.code == "not_a_font" else "instance", error.message)
        else:
            return _saved(request, "typefaces", key, form.document(font))
    return _shown(request, "materials/material.html", {"form": form, "material": typeface, "what": "typeface"})


@staff_page(*SELLERS)
def edit_word_list(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a list of words that are kept out, or save it; without a key, a new one."""
    word_list = _named(materials().word_lists, key)
    form = WordListForm(word_list, request.POST if request.method == "POST" else None)
    if form.is_bound and form.is_valid():
        return _saved(request, "word_lists", key, form.document())
    return _shown(request, "materials/material.html", {"form": form, "material": word_list, "what": "word list"})


@staff_page(*SELLERS)
def edit_collection(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a collection of ready-made artwork, or save it with what is added; without a key, a new one."""
    collection = _named(materials().collections, key)
    sent = (request.POST, request.FILES) if request.method == "POST" else ()
    editor = CollectionEditor(collection, *sent)
    if request.method == "POST" and editor.is_valid():
        try:
            added = [take_drawing(actor_of(request.user), file) for file in editor.files]
        except ArtworkError as error:
            editor.form.add_error("files", error.message)
        else:
            if editor.has_any(added):
                return _saved(request, "collections", key, editor.document(added))
            editor.form.add_error("files", "A collection needs at least one drawing.")
    return _shown(request, "materials/collection.html", {"editor": editor, "collection": collection})


M = TypeVar("M")


def _named(have: Mapping[str, M], key: str) -> M | None:
    """Return the material with a key, none for a new one; raises Http404 for a key that isn't there."""
    if key and key not in have:
        raise Http404
    return have.get(key)


def _saved(request: HttpRequest, kind: str, key: str, document: dict[str, Any]) -> HttpResponse:
    """Save a material, a new one under a key of its own, and go back to the list."""
    have = getattr(materials(), kind)
    to = key or free_key({"all": [{"key": taken} for taken in have]}, ("all",), slugify(document["name"]))
    save_material(actor_of(request.user), kind, to, document)
    return redirect("materials:materials")


def _shown(request: HttpRequest, template: str, context: dict[str, Any]) -> HttpResponse:
    """Show a form; one that was sent and is shown again was refused."""
    return render(
        request, template, {**context, "section": "materials"}, status=422 if request.method == "POST" else 200
    )
