"""Materials: what there is, and decoration methods with their limits and files."""

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils.text import slugify

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.catalogue.methods import MethodForm, method_words
from yenzo.apps.catalogue.services.materials import save_material
from yenzo.apps.catalogue.to_core import materials
from yenzo.core.documents.edits import free_key


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
        taken = {"methods": [{"key": name} for name in have]}
        to = key or free_key(taken, ("methods",), slugify(form.cleaned_data["name"]))
        save_material(actor_of(request.user), "methods", to, form.document())
        return redirect("catalogue:materials")
    context = {"form": form, "method": method, "section": "materials"}
    return render(request, "catalogue/method.html", context, status=422 if form.is_bound else 200)
