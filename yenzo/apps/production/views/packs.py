"""The packs of a line: how far they are, and the files."""

import zipfile
from tempfile import TemporaryFile

from django.http import FileResponse, Http404, HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.rights import STAFF, actor_of
from yenzo.apps.files.downloads import as_download, download
from yenzo.apps.files.store import read_stored
from yenzo.apps.orders.models import Line
from yenzo.apps.production.models import Pack
from yenzo.apps.production.models.packs import PackQuerySet
from yenzo.apps.production.services.packs import retry_pack


@staff_page(*STAFF)
def pack_state(request: HttpRequest, line_id: int) -> HttpResponse:
    """Show how far the packs of a line are; the fragment asks again by itself while something is under way."""
    line = get_object_or_404(Line.objects.select_related("order"), pk=line_id)
    packs = list(_packs_of(line))
    if not packs and not line.order.is_paid:
        raise Http404
    if not packs and line.preflights.filter(state="held").exists():
        return render(request, "production/_no_pack.html")
    # Just paid: the job that wants the packs is still on its way.
    packs = packs or [Pack(line=line)]
    if line.is_list:
        return render(request, "production/_packs.html", _of_list(line, packs))
    return render(request, "production/_pack.html", {"pack": packs[0]})


def _packs_of(line: Line) -> PackQuerySet:
    """Return the packs of a line's pieces as they are now."""
    return Pack.objects.current().select_related("line__order", "file").filter(line=line)


def _of_list(line: Line, packs: list[Pack]) -> dict[str, object]:
    """Return what is shown of a list's packs: together how far they are, and each that could not be made."""
    done = [pack for pack in packs if pack.state == Pack.State.DONE]
    return {
        "line": line,
        "packs": packs,
        "done": done,
        "failed": [pack for pack in packs if pack.state == Pack.State.FAILED],
        "is_under_way": any(pack.is_under_way for pack in packs),
        "size_bytes": sum(pack.file.size_bytes for pack in done if pack.file),
    }


@staff_page(*STAFF)
@require_POST
def make_again(request: HttpRequest, line_id: int) -> HttpResponse:
    """Try the packs of a line that failed once more."""
    failed = Pack.objects.current().filter(line=line_id, state=Pack.State.FAILED)
    if not Pack.objects.filter(line=line_id).exists():
        raise Http404
    for pack in failed:
        retry_pack(actor_of(request.user), pack.pk)
    return redirect("production:pack", line_id)


@staff_page(*STAFF)
@require_safe
def pack_file(request: HttpRequest, line_id: int, index: int = 1) -> HttpResponseBase:  # noqa: ARG001
    packs = Pack.objects.current().select_related("line__order", "file")
    pack = get_object_or_404(packs, line=line_id, index=index)
    if pack.file is None:
        raise Http404
    return download(pack.file, f"{pack.piece}.zip")


@staff_page(*STAFF)
@require_safe
def all_packs(request: HttpRequest, line_id: int) -> HttpResponseBase:  # noqa: ARG001
    """Hand out all packs of a list in one ZIP, each as it was made."""
    line = get_object_or_404(Line.objects.select_related("order"), pk=line_id)
    packs = [
        pack for pack in Pack.objects.current().filter(line=line).select_related("line__order", "file") if pack.file
    ]
    if not packs:
        raise Http404
    bundle = TemporaryFile()  # noqa: SIM115 - the response closes it
    with zipfile.ZipFile(bundle, "w", zipfile.ZIP_STORED) as archive:
        for pack in packs:
            assert pack.file is not None
            archive.writestr(f"{pack.piece}.zip", read_stored(pack.file))
    bundle.seek(0)
    return as_download(FileResponse(bundle), f"{line}.zip")
