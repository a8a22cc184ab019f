"""Groups: an organiser lets others order, each their own piece; members fill in and look at it."""

import base64
import uuid

from django.contrib import messages
from django.db import transaction
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.translation import gettext
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.limiting import may_go_on
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.designs.listed import begin_check, row_read
from yenzo.apps.designs.models import Design, Group, NameList, NameRow
from yenzo.apps.designs.services.designs import save_design
from yenzo.apps.designs.services.groups import GroupTerms, fill_in, join_group, open_group, take_own_back
from yenzo.apps.designs.services.lists import ListError
from yenzo.apps.designs.services.looks import own_files
from yenzo.apps.designs.side_pictures import small_picture
from yenzo.apps.designs.to_core import as_uuid, evaluate_entries
from yenzo.apps.designs.visitors import is_signed_in, known_visitor, visitor_of
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.pages.numbers import whole_number
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.shop.forms import GroupForm
from yenzo.apps.shop.groups import GroupGoods, asked_of_members, goods_of
from yenzo.apps.shop.lists import ListPage
from yenzo.apps.shop.views.lists import list_of
from yenzo.apps.shop.views.products import TOO_MANY, TOO_OFTEN
from yenzo.core.documents.entries import Entries
from yenzo.core.documents.reading import read_entries
from yenzo.core.documents.values import clean_line
from yenzo.core.evaluation import Evaluation
from yenzo.core.lists.rows import RowRead
from yenzo.core.lists.tables import clean_cell

PREVIEW_PX = 480


def terms(request: HttpRequest, list_id: uuid.UUID) -> HttpResponse:
    """Say how a group orders by a list: until when, who pays, where it goes."""
    names = list_of(request, list_id)
    group = names.group
    others = Group.objects.filter(visitor=names.visitor).order_by("-pk")
    if group is not None:
        others = others.exclude(pk=group.pk)
    context = {"names": names, "group": group, "others": others, "setup": shop_setup(names.revision)}
    if request.method != "POST":
        initial = {name: getattr(group, name) for name in GroupForm.base_fields} if group else None
        return render(request, "shop/group_terms.html", {**context, "form": GroupForm(initial=initial)})
    actor, visitor, asked = actor_of(request.user), visitor_of(request), asked_of_members(names)
    joined = whole_number(request.POST.get("join", ""))
    if joined is not None:
        other = get_object_or_404(others, pk=joined)
        join_group(actor, names.pk, other.pk, asked, visitor=visitor)
        return redirect("shop:list", list_id)
    form = GroupForm(request.POST)
    if not form.is_valid():
        return render(request, "shop/group_terms.html", {**context, "form": form}, status=422)
    open_group(actor, names.pk, GroupTerms(**form.cleaned_data), asked, visitor=visitor)
    messages.success(request, gettext("Pass the link on: whoever has it fills in their own piece."))
    return redirect("shop:list", list_id)


@require_safe
@never_cache
def group_page(request: HttpRequest, token: str) -> HttpResponse:
    """Show a group's goods to its members, each with what they filled in."""
    return _page(request, _group(token))


def _page(request: HttpRequest, group: Group, status: int = 200, **more: object) -> HttpResponse:
    member = known_visitor(request)
    context = {"group": group, "goods": goods_of(group, member), "sent_as": uuid.uuid4(), **more}
    return render(request, "shop/group.html", context, status=status)


@require_POST
def fill(request: HttpRequest, token: str, list_id: uuid.UUID) -> HttpResponse:
    """Take a member's own piece: into the list, and where each pays into their basket."""
    group = _group(token)
    goods = _goods(group, list_id)
    by, sent_as = clean_line(request.POST.get("by", ""))[:120], as_uuid(request.POST.get("sent_as", ""))
    cells, read, evaluation = _evaluated(request, goods)
    if not may_go_on(request, "list"):
        return _page(request, group, TOO_MANY, trouble=gettext(TOO_OFTEN), tried=goods.names.pk, sent=cells, by=by)
    troubles = [item.message for item in evaluation.verdict.blocking] if evaluation else []
    if not by:
        troubles.insert(0, gettext("Please write your name, so that the group knows whose it is."))
    if troubles or evaluation is None or sent_as is None:
        trouble = " ".join(troubles) or gettext("Please look at what you wrote once more.")
        return _page(request, group, 422, trouble=trouble, tried=goods.names.pk, sent=cells, by=by)
    actor, member = actor_of(request.user), visitor_of(request)
    try:
        # Both or neither: a group that closes meanwhile leaves nothing in the basket.
        with transaction.atomic():
            design = _into_basket(request, goods, read.entries, evaluation, sent_as) if group.each_pays else None
            fill_in(actor, goods.names.pk, cells, member=member, by=by, sent_as=sent_as, design=design)
    except ListError as error:
        return _page(request, group, 422, trouble=str(error), tried=goods.names.pk, sent=cells, by=by)
    begin_check(actor, goods.names, signed_in=is_signed_in(request))
    if group.each_pays:
        messages.success(request, gettext("It lies in your basket: order and pay it there."))
        return redirect("shop:basket")
    messages.success(request, gettext("It is noted. You can change it here until the group closes."))
    return redirect("shop:group", token)


def _into_basket(
    request: HttpRequest, goods: GroupGoods, entries: Entries, evaluation: Evaluation, sent_as: uuid.UUID
) -> Design:
    names, member = goods.names, visitor_of(request)
    uploads = own_files(names.uploads.all(), member)
    return save_design(
        actor_of(request.user), names.revision, entries, evaluation, visitor=member, uploads=uploads, sent_as=sent_as
    )


@require_POST
def preview(request: HttpRequest, token: str, list_id: uuid.UUID) -> HttpResponse:
    """Answer a change: the member's own piece as it would be made, its price, and what keeps it from that."""
    if not may_go_on(request, "preview"):
        return HttpResponse(gettext("Too many changes in a short time; wait a moment."), status=TOO_MANY)
    goods = _goods(_group(token), list_id)
    *_, evaluation = _evaluated(request, goods)
    sides = evaluation.scene.sides if evaluation else ()
    pictures = [(side.name, _as_address(small_picture(side, StoredAssets(), PREVIEW_PX))) for side in sides]
    return render(request, "shop/_group_preview.html", {"evaluation": evaluation, "pictures": pictures})


def _as_address(picture: bytes) -> str:
    """Return a picture as an address that holds it: it is shown once, to one."""
    return f"data:image/png;base64,{base64.b64encode(picture).decode()}"


@require_POST
def take_back(request: HttpRequest, token: str, list_id: uuid.UUID, number: int) -> HttpResponse:
    """Take a member's own piece back."""
    group = _group(token)
    goods = _goods(group, list_id)
    actor, member = actor_of(request.user), visitor_of(request)
    if take_own_back(actor, goods.names.pk, number, member=member):
        messages.success(request, gettext("It is taken back."))
    return redirect(reverse("shop:group", args=[token]))


def _evaluated(request: HttpRequest, goods: GroupGoods) -> tuple[list[str], RowRead, Evaluation | None]:
    """Return the cells that a member sent, how they are read, and what follows; None where one isn't understood."""
    cells = [clean_cell(request.POST.get(f"cell-{at}", "")) for at in range(len(goods.names.targets))]
    row = NameRow(list=goods.names, number=1, cells=cells)
    read = row_read(goods.setup, goods.names, read_entries(goods.names.common), row)
    evaluation = evaluate_entries(goods.names.revision, read.entries, signed_in=is_signed_in(request))
    return cells, read, None if read.troubles else evaluation


def _group(token: str) -> Group:
    return get_object_or_404(Group, token=token)


def _goods(group: Group, list_id: uuid.UUID) -> GroupGoods:
    names = NameList.objects.filter(group=group, pk=list_id).select_related("revision__product__live", "group").first()
    if names is None:
        raise Http404
    return GroupGoods(names, ListPage(names), ())
