"""Lists of names: begun on a product's page, filled from a spreadsheet, mended row by row, put in the basket."""

import json
import uuid
from collections.abc import Callable
from functools import wraps

from django.contrib import messages
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext
from django.views.decorators.cache import cache_control, never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.listed import begin_check, row_read
from yenzo.apps.designs.models import NameList
from yenzo.apps.designs.services.lists import (
    ListError,
    add_column,
    begin_list,
    change_rows,
    fill_list,
    mean_row,
    put_list_in_basket,
    renew_list,
    set_columns,
    take_list_out,
    take_row_out,
)
from yenzo.apps.designs.services.unfinished import forget_entries
from yenzo.apps.designs.side_pictures import list_picture, small_picture
from yenzo.apps.designs.to_core import as_uuid, evaluate_entries
from yenzo.apps.designs.unfinished import receive_sent_files
from yenzo.apps.designs.visitors import is_signed_in, known_visitor, visitor_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.numbers import whole_numbers
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.shop.lists import ListPage, faulty_sheet
from yenzo.apps.shop.product_slips import live_product, product_response, slip_of_form, sold_setup
from yenzo.apps.shop.views.products import LOOKED_AT, TOO_MANY, TOO_OFTEN
from yenzo.core.documents.reading import read_entries
from yenzo.core.errors import TableError
from yenzo.core.lists.columns import Target, match_columns, targets_of
from yenzo.core.lists.marked import blank_sheet
from yenzo.core.lists.tables import MOST_BYTES, clean_cell, read_pasted, read_table

XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
PICTURE_PX = 240
View = Callable[..., HttpResponseBase]


def _changes(view: View, action: str = "list") -> View:
    """Let a list be changed as often as somebody may; say in words what can't be done."""

    @require_POST
    @wraps(view)
    def limited(request: HttpRequest, list_id: uuid.UUID, **more: object) -> HttpResponseBase:
        if not may_go_on(request, action):
            if request.headers.get("HX-Request"):
                return HttpResponse(gettext(TOO_OFTEN), status=TOO_MANY)
            messages.error(request, gettext(TOO_OFTEN))
            return redirect("shop:list", list_id)
        try:
            return view(request, list_id, **more)
        except (ListError, TableError) as error:
            messages.error(request, str(error))
            return redirect("shop:list", list_id)

    return limited


def _checks_all(view: View) -> View:
    """Let what has all rows checked anew happen less often: a list may have a thousand."""
    return _changes(view, "whole_list")


@require_POST
def begin(request: HttpRequest, key: str) -> HttpResponseBase:
    """Begin a list with what is entered on a product's page, or change what the rows of one share."""
    product = live_product(key)
    assert product.live is not None
    setup = shop_setup(product.live)
    if not setup.form.by_list:
        raise Http404
    form, refusals = receive_sent_files(request, setup)
    sent = slip_of_form(request, setup, form)
    if not may_go_on(request, "basket"):
        return product_response(request, product, sent.slip, None, status=TOO_MANY, trouble=gettext(TOO_OFTEN))
    for words in (*refusals, *([gettext(LOOKED_AT)] if sent.is_waiting else [])):
        messages.error(request, words)
    uploads = [one for own in sent.uploads.values() for one in own]
    actor, visitor = actor_of(request.user), visitor_of(request)
    names = begin_list(
        actor,
        product.live,
        sent.slip.entries,
        visitor=visitor,
        uploads=uploads,
        list_id=as_uuid(form.get("list", "")),
    )
    if "list" not in form:
        forget_entries(actor, product, visitor=visitor)
    _check(request, names)
    return redirect("shop:list", names.pk)


@require_safe
def blank(request: HttpRequest, key: str) -> HttpResponse:  # noqa: ARG001
    """Hand out an empty spreadsheet with the heads that the product takes."""
    product = live_product(key)
    sheet = blank_sheet(targets_of(sold_setup(product)))
    return _spreadsheet(sheet, f"{product.key}.xlsx")


@require_safe
@never_cache
def page(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Show the list as it stands."""
    names = list_of(request, list_id)
    out = names.rows.filter(is_out=True, number=sent_number(request, "removed")).first()
    shown = ListPage(names, only=request.GET.get("only", ""), number=request.GET.get("page"))
    return render(
        request,
        "shop/list.html",
        {"shown": shown, "names": names, "removed": out, "site": request.build_absolute_uri("/").rstrip("/")},
    )


@_checks_all
def fill(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Take the rows of what was pasted or sent."""
    names, sent = list_of(request, list_id), request.FILES.get("sheet")
    if sent is not None and sent.size and sent.size > MOST_BYTES:
        raise TableError(
            "too_large", sent.name or "", gettext("A list may have 5 MB. Please send it without pictures.")
        )
    table = read_table(sent.read(), sent.name or "") if sent else read_pasted(request.POST.get("pasted", ""))
    targets = targets_of(shop_setup(names.revision))
    columns = match_columns(table, targets, _remembered(names))
    adds = request.POST.get("adds") == "yes"
    _check(request, fill_list(actor_of(request.user), names.pk, table, columns, visitor=visitor_of(request), adds=adds))
    return redirect("shop:list", list_id)


def _remembered(names: NameList) -> dict[str, str]:
    """Return, by head, what its columns gave in the visitor's earlier lists of the product."""
    before = NameList.objects.filter(visitor=names.visitor, revision__product=names.revision.product)
    found: dict[str, str] = {}
    for heads, targets in before.order_by("changed_at").values_list("heads", "targets"):
        found |= {head.casefold(): target for head, target in zip(heads, targets, strict=True) if target}
    return found


@_checks_all
def columns(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Say what each column gives, and add one if wanted."""
    names, actor, visitor = list_of(request, list_id), actor_of(request.user), visitor_of(request)
    by_key: dict[str, Target] = {target.key: target for target in targets_of(shop_setup(names.revision))}
    sent = [request.POST.get(f"target-{at}", before) for at, before in enumerate(names.targets)]
    set_columns(actor, names.pk, [key if key in by_key else "" for key in sent], visitor=visitor)
    added = by_key.get(request.POST.get("more", ""))
    if added is not None:
        add_column(actor, names.pk, added.key, added.label, visitor=visitor)
    _check(request, list_of(request, list_id))
    return redirect("shop:list", list_id)


@_checks_all
def rows(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Write the cells of all rows that were sent."""
    _check(request, change_rows(actor_of(request.user), list_id, _cells(request), visitor=visitor_of(request)))
    return _back_to(request, list_id)


def _cells(request: HttpRequest) -> dict[int, dict[int, str]]:
    """Return, by number of row and column, the cells that a form was sent with."""
    found: dict[int, dict[int, str]] = {}
    for name, value in request.POST.items():
        kind, *place = name.split("-")
        numbers = whole_numbers(place)
        if kind == "cell" and len(place) == len(numbers) == 2:
            row_number, column = numbers
            found.setdefault(row_number, {})[column] = clean_cell(str(value))
    return found


@_changes
def row(request: HttpRequest, list_id: uuid.UUID, number: int) -> HttpResponse:
    """Write the cells of one row, and answer with what is to be said of it now."""
    _check(request, change_rows(actor_of(request.user), list_id, _cells(request), visitor=visitor_of(request)))
    return _row_answer(request, list_id, number, "shop/_row_changed.html")


@_changes
def answer(request: HttpRequest, list_id: uuid.UUID, number: int) -> HttpResponse:
    """Keep the answer to a question about a row: it is right so, or the mend is taken."""
    actor, visitor = actor_of(request.user), visitor_of(request)
    names = list_of(request, list_id)
    try:
        sent = request.POST.get("means") or request.POST.get("takes") or ""
        field, code, text = (str(one) for one in json.loads(sent))
    except (ValueError, TypeError):
        return redirect("shop:list", list_id)
    if "means" in request.POST:
        mean_row(actor, list_id, number, field, {"code": code, "text": text}, visitor=visitor)
    elif field in names.targets:
        cells = {number: {names.targets.index(field): clean_cell(text)}}
        change_rows(actor, list_id, cells, visitor=visitor)
    _check(request, list_of(request, list_id))
    if request.headers.get("HX-Request"):
        return _row_answer(request, list_id, number, "shop/_row_anew.html")
    return _back_to(request, list_id)


def _row_answer(request: HttpRequest, list_id: uuid.UUID, number: int, template: str) -> HttpResponse:
    names = list_of(request, list_id)
    shown = ListPage(names)
    changed = shown.row_numbered(number)
    if changed is None:
        raise Http404
    return render(request, template, {"shown": shown, "names": names, "row": changed})


@require_safe
@never_cache
def state(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Answer the page that waits for the workers: how many rows are checked; once all are, it loads anew."""
    names = list_of(request, list_id)
    count = names.rows.active().count()
    left = names.rows.unchecked().count()
    response = render(request, "shop/_list_checking.html", {"names": names, "done": count - left, "count": count})
    if not left:
        response["HX-Refresh"] = "true"
    return response


@_changes
def row_out(request: HttpRequest, list_id: uuid.UUID, number: int) -> HttpResponse:
    """Take a row out; the page then offers to put it back."""
    take_row_out(actor_of(request.user), list_id, number, visitor=visitor_of(request), is_out=True)
    return redirect(f"{reverse('shop:list', args=[list_id])}?removed={number}")


@_changes
def row_back(request: HttpRequest, list_id: uuid.UUID, number: int) -> HttpResponse:
    """Put a row back that was taken out."""
    take_row_out(actor_of(request.user), list_id, number, visitor=visitor_of(request), is_out=False)
    return redirect("shop:list", list_id)


@_checks_all
def renew(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Have all rows checked against how the product is sold by now."""
    names = list_of(request, list_id)
    live = names.revision.product.live
    if live is not None:
        renew_list(actor_of(request.user), list_id, live, visitor=visitor_of(request))
        _check(request, list_of(request, list_id))
    return redirect("shop:list", list_id)


@_changes
def put_in_basket(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Put the whole list in the basket as one line."""
    put_list_in_basket(actor_of(request.user), list_id, visitor=visitor_of(request))
    messages.success(request, gettext("The list lies in your basket."))
    return redirect("shop:basket")


@require_POST
def take_out(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Take the list out of the basket; it is kept."""
    if take_list_out(actor_of(request.user), list_id, visitor=visitor_of(request)):
        messages.success(request, gettext("The list was taken out of the basket. It is kept here as it was."))
        return redirect("shop:list", list_id)
    return redirect("shop:basket")


@require_safe
def faulty(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Hand out the rows that must be mended as a spreadsheet."""
    return _spreadsheet(faulty_sheet(list_of(request, list_id)), "rows-to-mend.xlsx")


@require_safe
@never_cache
def pictures(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Show all rows as pictures on one sheet, to look them through or to print."""
    names = list_of(request, list_id)
    return render(request, "shop/list_pictures.html", {"shown": ListPage(names), "names": names})


@require_safe
@cache_control(private=True, max_age=3600)
def picture(request: HttpRequest, list_id: uuid.UUID, number: int, digest: str) -> HttpResponseBase:  # noqa: ARG001
    """Show a row's first side as its cells are now."""
    names = list_of(request, list_id)
    found = get_object_or_404(names.rows, number=number)
    setup = shop_setup(names.revision)
    read = row_read(setup, names, read_entries(names.common), found)
    evaluation = evaluate_entries(names.revision, read.entries, signed_in=is_signed_in(request))
    sides, assets = evaluation.scene.sides, StoredAssets()
    now = sides[0].digest if sides else None
    return list_picture(setup, now, lambda: small_picture(sides[0], assets, PICTURE_PX), PICTURE_PX)


def _check(request: HttpRequest, names: NameList) -> None:
    """Have rows checked that changed: at once if they are few, else by the workers."""
    begin_check(actor_of(request.user), names, signed_in=is_signed_in(request))


def _back_to(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Show the same part of the list again."""
    only, number = request.GET.get("only", ""), request.GET.get("page", "")
    return redirect(reverse("shop:list", args=[list_id], query={"only": only, "page": number}))


def list_of(request: HttpRequest, list_id: uuid.UUID) -> NameList:
    """Return a visitor's own list, or answer that there is none."""
    visitor = known_visitor(request)
    if visitor is None:
        raise Http404
    return get_object_or_404(
        NameList.objects.of_visitor(visitor).select_related("revision__product__live", "group"), pk=list_id
    )


def _spreadsheet(data: bytes, name: str) -> HttpResponse:
    response = HttpResponse(data, content_type=XLSX)
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    return response
