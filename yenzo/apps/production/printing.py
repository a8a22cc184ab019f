"""Printing for the floor: jobs come in; their tickets (A5) or labels (62 mm), as one PDF, go out."""

import io
import zipfile
from collections.abc import Iterable, Iterator, Sequence
from contextlib import ExitStack
from datetime import date
from pathlib import Path
from tempfile import TemporaryDirectory

import pikepdf
from django.utils import timezone

import yenzo
from yenzo.apps.accounts.models import Person
from yenzo.apps.designs.personalized import proof_of
from yenzo.apps.files.models import StoredFile
from yenzo.apps.files.store import StoredAssets, read_stored
from yenzo.apps.production.badges import badge_of
from yenzo.apps.production.floor import ShownJob
from yenzo.apps.production.models import Job, Pack, Station
from yenzo.apps.production.models.jobs import JobQuerySet
from yenzo.core.planning.label import Label, LabelPicture, LabelText, make_labels
from yenzo.core.planning.ticket import stamp_of
from yenzo.core.scene.paints import Paint

# Beyond these a printer is busy for too long to be told to stop; the page says so.
MOST_PRINTED = 120
SHIPPED = Path(yenzo.__file__).parent / "materials" / "typefaces"
TICKET = "_ticket.pdf"


def jobs_to_print(*, station: str = "", day: str = "", order: str = "", job: str = "") -> JobQuerySet:
    """Return the jobs that are meant: open ones of a station, due by a day, of an order; or a single one."""
    jobs = Job.objects.shown().in_order()
    if job:
        return jobs.filter(pk=job)
    jobs = jobs.open()
    if order:
        jobs = jobs.filter(line__order__number=order)
    if station:
        found = Station.objects.filter(key=station).first()
        jobs = jobs.at(found) if found else jobs.none()
    if day:
        jobs = jobs.filter(planned_on__lte=timezone.localdate() if day == "today" else date.fromisoformat(day))
    return jobs


def labels_of(jobs: Iterable[Job]) -> bytes:
    """Return a label for each job."""
    shown = [ShownJob(job) for job in jobs]
    with TemporaryDirectory() as folder:
        return make_labels([_label(one) for one in shown], fallbacks=_fallbacks(shown, Path(folder)))


def _label(one: ShownJob) -> Label:
    texts = tuple(
        LabelText(text.made.words, _facts(area.name, text.made.typeface, text.made.letter_height_mm, text.paint))
        for area in one.areas
        for text in area.texts
    )
    artworks = tuple(f"{area.name}: {art.name}" for area in one.areas for art in area.artworks)
    off_goods = tuple(f"{entry.workshop_label}: {entry.words}" for entry in one.piece.off_goods)
    why = (f"Made again: {one.job.why}",) if one.job.why else ()
    setup, asked = one.piece.setup, one.piece.recorded.asked
    return Label(
        number=one.job.number,
        goods=setup.offer.name + (f", {one.piece.variant.name}" if one.piece.variant else ""),
        blank=setup.sku_of(asked.variant) or setup.offer.name,
        quantity=one.job.left or one.job.quantity,
        method=one.method_name,
        due=due_words(one.job),
        after=one.after,
        texts=texts,
        notes=(*why, *artworks, *off_goods),
        pictures=tuple(_pictures(one)),
    )


def _pictures(one: ShownJob) -> Iterator[LabelPicture]:
    """Yield the sides that something lands on, as they were agreed to."""
    for key, name in {area.side.key: area.side.name for area in one.piece.recorded.areas}.items():
        picture = proof_of(one.piece.personalization, key)
        if picture:
            yield LabelPicture(name, picture)


def _facts(place: str, typeface: str, letter_mm: float, paint: Paint) -> str:
    color = f"{paint.name} {paint.reference}".strip()
    return " · ".join(filter(None, (place, typeface, f"letters {letter_mm:.1f} mm", color)))


def due_words(job: Job) -> str:
    """Say by when a job is due, as paper says it: with its day, whenever it is read."""
    return f"due {job.due_on:%a} {job.due_on.day} {job.due_on:%b}"


def _fallbacks(shown: Sequence[ShownJob], folder: Path) -> list[Path]:
    """Return fonts for scripts that the label's face lacks: those that the texts are produced in, then the shipped."""
    produced = {
        face.font
        for one in shown
        for area in one.areas
        for text in area.texts
        for face in one.piece.setup.materials.typefaces.values()
        if face.name == text.made.typeface
    }
    paths = []
    for font in sorted(produced):
        path = folder / f"{font}.ttf"
        path.write_bytes(StoredAssets().read(font))
        paths.append(path)
    return [*paths, *sorted(SHIPPED.glob("levant*.ttf")), *sorted(SHIPPED.glob("monsoon*.ttf"))]


def tickets_of(jobs: Iterable[Job]) -> tuple[bytes, list[str]]:
    """Return the tickets of jobs as they are in their packs, each with its job and day in its foot.

    Return besides the jobs whose pack isn't made yet.
    """
    missing: list[str] = []
    # What pages are taken from stays open until they are written.
    with ExitStack() as opened, pikepdf.new() as together:
        for job in jobs:
            pack = Pack.objects.select_related("file").filter(
                line=job.line_id, index=job.index, personalization=job.personalization_id
            )
            found = pack.exclude(file=None).first()
            if found is None or found.file is None:
                missing.append(job.number)
                continue
            ticket = opened.enter_context(pikepdf.open(io.BytesIO(_ticket_in(found.file))))
            stamp = opened.enter_context(pikepdf.open(io.BytesIO(stamp_of(_foot(ShownJob(job))))))
            for page in ticket.pages:
                page.add_overlay(stamp.pages[0])
            together.pages.extend(ticket.pages)
        out = io.BytesIO()
        together.save(out)
    return out.getvalue(), missing


def _ticket_in(file: StoredFile) -> bytes:
    with zipfile.ZipFile(io.BytesIO(read_stored(file))) as pack:
        return pack.read(next(name for name in pack.namelist() if name.endswith(TICKET)))


def _foot(one: ShownJob) -> str:
    """Return what is known only when a ticket is printed."""
    then = f"then {one.after}" if one.after else ""
    again = f"made again: {one.job.why}" if one.job.why else ""
    return " · ".join(filter(None, (one.job.number, one.method_name, due_words(one.job), then, again)))


def badges_pdf() -> bytes:
    """Return a label for everybody who works there and for each station: their names, and the codes to be scanned."""
    people = Person.objects.filter(is_active=True).order_by("first_name", "username")
    labels = [_badge(badge_of(person), str(person), person.get_role_display()) for person in people]
    labels += [_badge(f"S-{station.key}", station.name, "Station") for station in Station.objects.all()]
    return make_labels(labels)


def _badge(code: str, name: str, what: str) -> Label:
    return Label(code, name, "", 0, what, "", "", ())
