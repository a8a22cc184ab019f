"""Materials: what there is; decoration methods, palettes and typefaces in forms of their own."""

from collections.abc import Mapping

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.text import slugify

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.catalogue.files import StoredAssets
from yenzo.apps.catalogue.methods import MethodForm, method_words
from yenzo.apps.catalogue.palettes import PaletteEditor
from yenzo.apps.catalogue.services.materials import add_font, save_material
from yenzo.apps.catalogue.to_core import materials
from yenzo.apps.catalogue.typefaces import TypefaceForm
from yenzo.core.documents.edits import free_key
from yenzo.core.errors import TypefaceError


@staff_page(*SELLERS)
def material_list(request: HttpRequest) -> HttpResponse:
    have = materials()
    methods = [(key, method, method_words(method)) for key, method in have.methods.items()]
    return render(request, "catalogue/materials.html", {"materials": have, "methods": methods, "section": "materials"})


@staff_page(*SELLERS)
def edit_method(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a decoration method with all that can be said of it, or save it; without a key, a new one."""
    have = materials().methods
    method = have.get(key)
    if key and method is None:
        raise Http404
    form = MethodForm(method, request.POST) if request.method == "POST" else MethodForm(method)
    if form.is_bound and form.is_valid():
        to = key or _new_key(have, form.cleaned_data["name"])
        save_material(actor_of(request.user), "methods", to, form.document())
        return redirect("catalogue:materials")
    context = {"form": form, "method": method, "section": "materials"}
    return render(request, "catalogue/method.html", context, status=422 if form.is_bound else 200)


@staff_page(*SELLERS)
def edit_palette(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a palette's colors, or save them; without a key, a new one."""
    have = materials().palettes
    palette = have.get(key)
    if key and palette is None:
        raise Http404
    editor = PaletteEditor(palette, request.POST if request.method == "POST" else None)
    if request.method == "POST" and editor.is_valid():
        document = editor.document()
        save_material(actor_of(request.user), "palettes", key or _new_key(have, document["name"]), document)
        return redirect("catalogue:materials")
    context = {"editor": editor, "palette": palette, "section": "materials"}
    return render(request, "catalogue/palette.html", context, status=422 if request.method == "POST" else 200)


@staff_page(*SELLERS)
def edit_typeface(request: HttpRequest, key: str = "") -> HttpResponse:
    """Show a typeface, or save it, perhaps with another font file; without a key, a new one."""
    have = materials().typefaces
    typeface = have.get(key)
    if key and typeface is None:
        raise Http404
    form = TypefaceForm(typeface, *((request.POST, request.FILES) if request.method == "POST" else ()))
    if form.is_bound and form.is_valid():
        actor, file, instance = actor_of(request.user), form.cleaned_data["file"], form.cleaned_data["instance"]
        try:
            if file:
                font = add_font(actor, file.read(), file.name, instance)
            else:
                assert typeface is not None  # A new one needs its file.
                font = add_font(actor, StoredAssets().read(typeface.font), typeface.name, instance)
        except TypefaceError as error:
            form.add_error("file" if error.code == "not_a_font" else "instance", error.message)
        else:
            document = form.document(font)
            save_material(actor, "typefaces", key or _new_key(have, document["name"]), document)
            return redirect("catalogue:materials")
    context = {"form": form, "typeface": typeface, "section": "materials"}
    return render(request, "catalogue/typeface.html", context, status=422 if form.is_bound else 200)


def _new_key(have: Mapping[str, object], name: str) -> str:
    return free_key({"all": [{"key": key} for key in have]}, ("all",), slugify(name))
