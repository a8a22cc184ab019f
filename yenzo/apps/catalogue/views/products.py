"""The list of products, a new product, and the materials."""

from pathlib import Path

from django.conf import settings
from django.core.files.uploadedfile import TemporaryUploadedFile
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.catalogue.forms import NewProductForm
from yenzo.apps.catalogue.listing import list_rows
from yenzo.apps.catalogue.models import Product
from yenzo.apps.catalogue.services.products import add_goods_picture, create_product
from yenzo.core.errors import ArtworkError


@staff_page(*SELLERS)
def product_list(request: HttpRequest) -> HttpResponse:
    rows = list_rows(Product.objects.for_list())
    return render(request, "catalogue/products.html", {"rows": rows, "section": "products"})


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
            )
        except ArtworkError as error:
            form.add_error("picture", error.message)
        else:
            if picture is None:
                return redirect("catalogue:setup", product.key)
            return redirect("catalogue:scale", product.key, "front")
    status = 422 if form.is_bound else 200
    return render(request, "catalogue/new_product.html", {"form": form, "section": "products"}, status=status)
