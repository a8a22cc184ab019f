"""Kept files: how they were found, what will go and what went."""

from dataclasses import dataclass
from datetime import timedelta

from django.conf import settings
from django.contrib import messages
from django.http import HttpRequest, HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.models import Role
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.files.disk_space import disk_space
from yenzo.apps.files.interface import KINDS, REFERENCES, RetainedKind
from yenzo.apps.files.models import FileTrouble, NightlyRun
from yenzo.apps.files.services.checking import check_files
from yenzo.apps.files.services.clearing import clear_old, days_of


@dataclass(frozen=True)
class KindRow:
    """One kind of thing that is kept for a while, as the page shows it."""

    kind: RetainedKind
    days: int
    due: int
    went: int


@staff_page(Role.OWNER)
@require_safe
def kept_files(request: HttpRequest) -> HttpResponse:
    cleared = NightlyRun.objects.filter(kind=NightlyRun.Kind.CLEARING).first()
    went = cleared.counts if cleared else {}
    rows = [_row(KINDS[key], went.get(key, 0)) for key in settings.RETENTION_DAYS]
    troubles = [
        {"trouble": trouble, "used_by": _users(trouble.file_id)} for trouble in FileTrouble.objects.unresolved()
    ]
    context = {
        "rows": rows,
        "room": disk_space(),
        "troubles": troubles,
        "checked": NightlyRun.objects.filter(kind=NightlyRun.Kind.CHECK).first(),
        "cleared": cleared,
        "section": "files",
    }
    return render(request, "files/files.html", context)


@staff_page(Role.OWNER)
@require_POST
def check_now(request: HttpRequest) -> HttpResponse:
    """Check all files, without waiting for the night."""
    run = check_files(actor_of(request.user), timezone.now())
    messages.success(request, f"{run.counts['looked_at']} files were read; {run.counts['wrong']} are not as they were.")
    return redirect("files:files")


@staff_page(Role.OWNER)
@require_POST
def clear_now(request: HttpRequest) -> HttpResponse:
    """Clear what is due, without waiting for the night."""
    run = clear_old(actor_of(request.user), timezone.now())
    messages.success(request, f"Cleared: {sum(run.counts.values())}.")
    return redirect("files:files")


def _row(kind: RetainedKind, went: int) -> KindRow:
    days = days_of(kind)
    return KindRow(kind, days, kind.due(timezone.now() - timedelta(days=days)), went)


def _users(sha256: str) -> list[str]:
    return [app for app, hashes in REFERENCES.items() if sha256 in set(hashes())]
