"""Sides of the goods: their pictures, their scale, and entries that their size follows."""

import io
from pathlib import Path
from typing import Any
from urllib.parse import urlencode

from django.core import signing
from django.forms import Form
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.views.decorators.http import require_POST
from PIL import Image

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import SELLERS, actor_of
from yenzo.apps.editor.forms import (
    AnotherPictureForm,
    OuterSizeForm,
    PointsForm,
    ScaleForm,
    SidePictureForm,
    SplitForm,
)
from yenzo.apps.editor.setup_page import lands_words
from yenzo.apps.editor.sizes import SizeByForm
from yenzo.apps.editor.views.setup import Question, changed, setup_answer
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.phrases import counted
from yenzo.apps.products.models import Product
from yenzo.apps.products.services.drafts import edit_draft
from yenzo.apps.products.services.pictures import add_goods_picture, split_goods_picture
from yenzo.apps.products.to_core import setup_of_draft
from yenzo.core.artwork.ground import content_box
from yenzo.core.documents.edits import free_key
from yenzo.core.documents.matching import match_operations
from yenzo.core.documents.setup import Setup, Side
from yenzo.core.documents.splitting import split_operations
from yenzo.core.errors import ArtworkError, DocumentError
from yenzo.core.measure import plain_number

PICTURE_SALT = "another-picture"


@staff_page(*SELLERS)
def new_side(request: HttpRequest, key: str) -> HttpResponse:
    product = get_object_or_404(Product, key=key)
    form = SidePictureForm(request.POST or None, request.FILES or None)
    if request.method == "POST" and form.is_valid():
        name = form.cleaned_data["name"]
        side_key = free_key(product.draft, ("sides",), name)
        try:
            picture = taken_picture(request, form.cleaned_data["picture"])
            item = {"key": side_key, "name": name, "picture": picture}
            edit(request, product, [{"do": "add", "path": ["sides"], "item": item}], f"Side {name} added")
        except (ArtworkError, DocumentError) as error:
            form.add_error("picture", error.message)
        else:
            return redirect("editor:scale", key, side_key)
    context = {"form": form, "product": product, "section": "products"}
    return render(request, "editor/new_side.html", context, status=422 if form.is_bound else 200)


@staff_page(*SELLERS)
def mark_scale(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Mark two points on the picture and say what lies between them."""
    product, setup, side = _found(key, side_key)
    form = ScaleForm(request.POST or None, initial=_marked(side))
    if request.method == "POST" and form.is_valid():
        operation = {"do": "set", "path": ["sides", side_key, "scale"], "value": form.scale()}
        if _is_kept(request, product, form, [operation], f"Scale of {side.name}"):
            return redirect("editor:setup", key)
    return _scale_page(request, product, side, form, SizeByForm(setup, side))


@staff_page(*SELLERS)
@require_POST
def size_by(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Say which entries the size of a side follows."""
    product, setup, side = _found(key, side_key)
    form = SizeByForm(setup, side, request.POST)
    if form.is_valid() and _is_kept(request, product, form, form.operations(side), f"Size of {side.name}"):
        return redirect("editor:setup", key)
    return _scale_page(request, product, side, ScaleForm(initial=_marked(side)), form)


def _scale_page(
    request: HttpRequest,
    product: Product,
    side: Side,
    form: ScaleForm,
    size_form: SizeByForm,
    outer_form: OuterSizeForm | None = None,
    split_form: SplitForm | None = None,
    picture_form: AnotherPictureForm | None = None,
) -> HttpResponse:
    forms = {
        "form": form,
        "size_form": size_form,
        "outer_form": outer_form or OuterSizeForm(auto_id="outer-%s"),
        "split_form": split_form or SplitForm(auto_id="split-%s"),
        "picture_form": picture_form or AnotherPictureForm(auto_id="another-%s"),
    }
    is_refused = any(one.is_bound for one in forms.values())
    context = {**forms, "product": product, "side": side, "section": "products"}
    return render(request, "editor/scale.html", context, status=422 if is_refused else 200)


@staff_page(*SELLERS)
@require_POST
def remove_side(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Remove a side with what is placed on it and its pictures in variants, after asking."""
    product = get_object_or_404(Product.objects.select_related("live"), key=key)
    setup = setup_of_draft(product)
    side = setup.side(side_key)
    if side is not None and request.POST.get("sure") != "on":
        goes = f"{counted(len(side.areas), 'imprint area')} would go with it. " if side.areas else ""
        words = f"Remove the side “{side.name}” and its picture? {goes}{lands_words(setup, side_key)}"
        return setup_answer(request, product, question=Question(words, request.path, f"Remove {side.name}"))
    placed = [placement.key for placement in setup.placements if placement.side == side_key]
    operations: list[dict[str, Any]] = [
        *({"do": "remove", "path": ["placements"], "key": placement} for placement in placed),
        *(
            {"do": "set", "path": ["offer", "variants", variant.key, name, side_key], "value": None}
            for variant in setup.offer.variants
            for name in ("pictures", "scales", "areas")
            if side_key in getattr(variant, name)
        ),
        {"do": "remove", "path": ["sides"], "key": side_key},
    ]
    return changed(request, key, operations, "Side removed")


@staff_page(*SELLERS)
@require_POST
def outer_size(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Take the scale from how wide the goods are: from the first to the last column of the picture that shows them."""
    product, setup, side = _found(key, side_key)
    form = OuterSizeForm(request.POST)
    if form.is_valid():
        with Image.open(io.BytesIO(StoredAssets().read(side.picture.asset))) as picture:
            shown = picture if picture.mode in {"RGB", "RGBA"} else picture.convert("RGB")
            box = content_box(shown) or (0, 0, *picture.size)
        middle = (box[1] + box[3]) / 2
        scale = {"start_px": [box[0], middle], "end_px": [box[2], middle], "length_mm": form.cleaned_data["outer_mm"]}
        operation = {"do": "set", "path": ["sides", side_key, "scale"], "value": scale}
        if _is_kept(request, product, form, [operation], f"Scale of {side.name} by its outer size"):
            return redirect("editor:setup", key)
    return _scale_page(request, product, side, ScaleForm(initial=_marked(side)), SizeByForm(setup, side), form)


@staff_page(*SELLERS)
@require_POST
def split_side(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Make two sides of one whose picture shows both, each with the areas that lie on it."""
    product, setup, side = _found(key, side_key)
    form = SplitForm(request.POST)
    if form.is_valid():
        own = [one.name for one in setup.offer.variants if {*one.pictures, *one.scales, *one.areas} & {side_key}]
        if own:
            form.add_error(None, f"“{own[0]}” has a picture or areas of its own for this side. Take these away first.")
        else:
            at, across = form.cleaned_data["at_percent"] / 100, form.cleaned_data["way"] == "across"
            parts = split_goods_picture(actor_of(request.user), side.picture.asset, at=at, across=across)
            new_key = free_key(product.draft, ("sides",), form.cleaned_data["name"])
            operations = split_operations(setup, side, parts, new_key, form.cleaned_data["name"], across=across)
            if _is_kept(request, product, form, operations, f"{side.name} split in two"):
                return redirect("editor:setup", key)
    return _scale_page(request, product, side, ScaleForm(initial=_marked(side)), SizeByForm(setup, side), None, form)


@staff_page(*SELLERS)
@require_POST
def another_picture(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Keep another picture of a side, and go on to what lies where on it."""
    product, setup, side = _found(key, side_key)
    form = AnotherPictureForm(request.POST, request.FILES, auto_id="another-%s")
    if form.is_valid():
        try:
            picture = taken_picture(request, form.cleaned_data["picture"])
        except ArtworkError as error:
            form.add_error("picture", error.message)
        else:
            if side.scale:
                query = urlencode({"picture": signing.dumps(picture, salt=PICTURE_SALT)})
                return redirect(f"{reverse('editor:match_picture', args=[key, side_key])}?{query}")
            operation = {"do": "set", "path": ["sides", side_key, "picture"], "value": picture}
            if _is_kept(request, product, form, [operation], f"Another picture of {side.name}"):
                return redirect("editor:scale", key, side_key)
    size_form, scale_form = SizeByForm(setup, side), ScaleForm(initial=_marked(side))
    return _scale_page(request, product, side, scale_form, size_form, picture_form=form)


@staff_page(*SELLERS)
def match_picture(request: HttpRequest, key: str, side_key: str) -> HttpResponse:
    """Ask for two points that both pictures of a side show, and take the new one with all areas in their place."""
    product, _, side = _found(key, side_key)
    token = (request.POST or request.GET).get("picture", "")
    try:
        picture = signing.loads(token, salt=PICTURE_SALT)
    except signing.BadSignature:
        return redirect("editor:scale", key, side_key)
    data = request.POST or None
    before = PointsForm(data, prefix="before", initial=_marked(side))
    after = PointsForm(data, prefix="after", initial=_scaled_marks(side, picture))
    if before.is_valid() and after.is_valid():
        try:
            operations = match_operations(side, picture, before.points(), after.points())
            edit(request, product, operations, f"Another picture of {side.name}")
        except DocumentError as error:
            after.add_error(None, error.message)
        else:
            return redirect("editor:setup", key)
    context = {"before": before, "after": after, "picture": picture, "token": token}
    context |= {"product": product, "side": side, "section": "products"}
    return render(request, "editor/match.html", context, status=422 if before.is_bound else 200)


def _scaled_marks(side: Side, picture: dict[str, Any]) -> dict[str, Any]:
    """Return where the marks of a side are on another picture of it that shows the same."""
    shares = {"x": picture["width_px"] / side.picture.width_px, "y": picture["height_px"] / side.picture.height_px}
    marked = {name: float(value) for name, value in _marked(side).items() if name != "length_mm"}
    return {name: round(value * shares[name[-1]]) for name, value in marked.items()}


def _marked(side: Side) -> dict[str, Any]:
    if side.scale is None:
        # Away from the edges, where a hand can take hold of them.
        width, middle = side.picture.width_px, side.picture.height_px // 2
        return {"start_x": width // 10, "start_y": middle, "end_x": width - width // 10, "end_y": middle}
    (start_x, start_y), (end_x, end_y) = side.scale.start_px, side.scale.end_px
    marked = {"start_x": start_x, "start_y": start_y, "end_x": end_x, "end_y": end_y, "length_mm": side.scale.length_mm}
    return {name: plain_number(value) for name, value in marked.items()}


def taken_picture(request: HttpRequest, sent: Any) -> dict[str, Any]:
    """Keep a picture of goods; return it as documents name it."""
    return add_goods_picture(actor_of(request.user), Path(sent.temporary_file_path()), sent.name or "picture")


def _found(key: str, side_key: str) -> tuple[Product, Setup, Side]:
    product = get_object_or_404(Product, key=key)
    setup = setup_of_draft(product)
    side = setup.side(side_key)
    if side is None:
        raise Http404
    return product, setup, side


def _is_kept(request: HttpRequest, product: Product, form: Form, operations: list[dict[str, Any]], label: str) -> bool:
    """Change the draft as a form asks; what is refused is said at the form."""
    try:
        edit(request, product, operations, label)
    except DocumentError as error:
        form.add_error(None, error.message)
        return False
    return True


def edit(request: HttpRequest, product: Product, operations: list[dict[str, Any]], label: str) -> None:
    """Change the draft as it is now."""
    edit_draft(actor_of(request.user), product.pk, operations, seen_version=product.draft_version, label=label)
