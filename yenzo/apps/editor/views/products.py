"""The list of products, a new product, and the materials."""

from pathlib import Path

from django.conf import settings
from django.contrib import messages
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.core.paginator import Paginator
from django.http import HttpRequest, HttpResponse, QueryDict
from django.shortcuts import redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, Actor, actor_of
from yenzo.apps.editor.first_steps import first_steps
from yenzo.apps.editor.forms import NewProductForm
from yenzo.apps.pages.numbers import whole_numbers
from yenzo.apps.products.listing import list_rows
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.kits import attach_kit
from yenzo.apps.products.services.pictures import add_goods_picture
from yenzo.apps.products.services.products import (
    create_product,
    delete_drafts,
    duplicate_product,
    rest_products,
    set_category,
)
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.core.errors import ArtworkError, DocumentError

PRODUCTS_A_PAGE, MOST_QUERY = 50, 500
STATES = (("", "All"), ("live", "Live"), ("changed", "Changed since"), ("draft", "Drafts"), ("resting", "Resting"))


@staff_page(*SELLERS)
def product_list(request: HttpRequest) -> HttpResponse:
    """Show the products, as filtered; what is ticked can be changed together."""
    wanted = {name: request.GET.get(name, "") for name in ("state", "category", "words")}
    products = Product.objects.for_list().in_state(wanted["state"]).matching(wanted["words"].strip())
    if wanted["category"]:
        products = products.filter(category=wanted["category"])
    page = Paginator(products, PRODUCTS_A_PAGE).get_page(request.GET.get("page"))
    context = {
        "rows": list_rows(page),
        "page": page,
        "states": STATES,
        "wanted": wanted,
        "categories": Product.objects.products().categories(),
        "is_filtered": any(wanted.values()),
        "kits": list(Product.objects.kits()),
        "steps": first_steps(),
        "section": "products",
    }
    return render(request, "editor/products.html", context)


@staff_page(*SELLERS)
@require_POST
def change_ticked(request: HttpRequest) -> HttpResponse:
    """Change all ticked products together."""
    actor, what = actor_of(request.user), request.POST.get("do", "")
    sent = whole_numbers(request.POST.getlist("ticked"))
    ticked = list(Product.objects.products().filter(pk__in=sent).order_by("name").values_list("pk", flat=True))
    kit = Product.objects.kits().filter(key=request.POST.get("kit", "")).first()
    if not ticked:
        said = "Tick the products first that are to be changed."
    elif what == "category":
        category = request.POST.get("category", "").strip()[:60]
        try:
            count = set_category(actor, ticked, category)
        except DocumentError as error:
            messages.error(request, error.message)
            return _back_to_list(request)
        said = (
            f"{_products(count)} put in the category “{category}”." if category else f"{_products(count)} without one."
        )
    elif what in {"rest", "wake"}:
        count = rest_products(actor, ticked, resting=what == "rest")
        said = f"{_products(count)} {'taken out of' if what == 'rest' else 'put back into'} the shop."
    elif what == "kit" and kit is not None:
        said = (
            f"{_products(attach_kit(actor, kit.pk, ticked))} with the kit “{kit.name}”. Publish to show it in the shop."
        )
    elif what == "delete":
        count = delete_drafts(actor, ticked)
        kept = len(ticked) - count
        said = f"{_products(count)} deleted." + (
            f" {_products(kept)} kept: what was published once stays." if kept else ""
        )
    elif what == "publish":
        said = _published(request, actor, ticked)
    elif what == "duplicate":
        said = f"Made: {', '.join(f'“{duplicate_product(actor, pk).name}”' for pk in ticked)}."
    else:
        said = "Nothing was changed."
    if said:
        messages.success(request, said)
    return _back_to_list(request)


def _published(request: HttpRequest, actor: Actor, ticked: list[int]) -> str:
    """Publish products one by one; what can't be is told by name, with why, and keeps none of the others."""
    count = 0
    for product in Product.objects.filter(pk__in=ticked).order_by("name"):
        try:
            publish_setup(actor, product.pk, seen_version=product.draft_version)
        except DocumentError as error:
            messages.error(request, f"“{product.name}” isn't published: {error.message}")
        else:
            count += 1
    return f"{_products(count)} published." if count else ""


def _back_to_list(request: HttpRequest) -> HttpResponse:
    """Go back to the list as it was filtered."""
    wanted = QueryDict(request.POST.get("list", "")[:MOST_QUERY]).urlencode()
    address = reverse("editor:products")
    return redirect(f"{address}?{wanted}" if wanted else address)


def _products(count: int) -> str:
    return f"{count} product{'' if count == 1 else 's'}"


@staff_page(*SELLERS)
def new_product(request: HttpRequest) -> HttpResponse:
    form = NewProductForm(request.POST or None, request.FILES or None)
    if request.method == "POST" and form.is_valid():
        actor, given = actor_of(request.user), form.cleaned_data
        sent: TemporaryUploadedFile | None = given["picture"]
        try:
            picture = (
                add_goods_picture(actor, Path(sent.temporary_file_path()), sent.name or "picture") if sent else None
            )
            product = create_product(
                actor,
                name=given["name"],
                base_price=given["base_price"],
                currency=settings.CURRENCY,
                picture=picture,
                example=given["example"],
            )
        except ArtworkError as error:
            form.add_error("picture", error.message)
        else:
            if picture is None:
                return redirect("editor:setup", product.key)
            return redirect("editor:scale", product.key, "front")
    status = 422 if form.is_bound else 200
    return render(request, "editor/new_product.html", {"form": form, "section": "products"}, status=status)
