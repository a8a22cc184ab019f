"""The week, stations and jobs: what is due, what is in hand, and what becomes of it."""

from collections.abc import Callable
from datetime import date

from django import forms
from django.contrib import messages
from django.http import HttpRequest, HttpResponse, HttpResponseBase
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse
from django.utils.dates import WEEKDAYS_ABBR
from django.utils.text import slugify
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST, require_safe

from yenzo.apps.accounts.gates import staff_page
from yenzo.apps.accounts.models import Person
from yenzo.apps.accounts.request_guard import sent_number
from yenzo.apps.accounts.rights import DESK, STAFF, actor_of
from yenzo.apps.desk.services.preflights import DeskError
from yenzo.apps.files.downloads import as_download
from yenzo.apps.orders.models import Order
from yenzo.apps.pages.fields import LineField
from yenzo.apps.production.badges import STATION, at_work, come_to_work, person_of_badge, worker_of
from yenzo.apps.production.costs import costs_of
from yenzo.apps.production.floor import ShownJob, floor_of, job_called
from yenzo.apps.production.models import Job, RackPlace, Station
from yenzo.apps.production.models.jobs import USUAL_HOURS
from yenzo.apps.production.printing import MOST_PRINTED, badges_pdf, jobs_to_print, labels_of, tickets_of
from yenzo.apps.production.services.jobs import (
    FLOOR,
    JobError,
    ask_about,
    begin_job,
    count_made,
    count_spoilt,
    lay_aside,
    plan_jobs,
    put_back,
    save_station,
    take_next,
)
from yenzo.apps.production.week import method_names, week_of
from yenzo.core.documents.values import clean_line


@staff_page(*STAFF)
@require_safe
@never_cache
def week(request: HttpRequest) -> HttpResponse:
    """Show what is due by station and day, and all open jobs."""
    return render(request, "production/week.html", _board(request) | {"section": "production"})


def _board(request: HttpRequest, **more: object) -> dict[str, object]:
    return {"week": week_of(), "may_plan": getattr(request.user, "role", "") in DESK, **more}


@staff_page(*DESK)
@require_POST
def plan(request: HttpRequest) -> HttpResponse:
    """Have the jobs of a card made on another day; answer with the board."""
    line_id, place = sent_number(request, "line", 0), sent_number(request, "place", 0)
    said = trouble = ""
    try:
        day = date.fromisoformat(request.POST.get("day", ""))
        jobs = plan_jobs(actor_of(request.user), line_id, place, day)
        said = f"{jobs[0].number} is planned for {day:%a} {day.day} {day:%b}."
    except ValueError:
        trouble = "Please pick a day."
    except JobError as error:
        trouble = str(error)
    if request.POST.get("back"):
        (messages.error if trouble else messages.success)(request, trouble or said)
        return redirect("production:job", sent_number(request, "back", 0))
    return render(request, "production/_board.html", _board(request, said=said, trouble=trouble))


@staff_page(*FLOOR)
@require_safe
@never_cache
def station(request: HttpRequest, key: str) -> HttpResponse:
    """Show a station: the job in hand large, the next ones small."""
    found = get_object_or_404(Station, key=key)
    worker = at_work(request)
    context = {"floor": floor_of(found, worker), "worker": worker, "section": "production"}
    return render(request, "production/station.html", context)


@staff_page(*STAFF)
@require_safe
@never_cache
def job(request: HttpRequest, job_id: int) -> HttpResponse:
    """Show one job as its ticket."""
    found = get_object_or_404(Job.objects.shown(), pk=job_id)
    may_plan = found.is_open and getattr(request.user, "role", "") in DESK
    return render(
        request, "production/job.html", {"one": ShownJob(found), "may_plan": may_plan, "section": "production"}
    )


@staff_page(*FLOOR)
@require_POST
def take(request: HttpRequest, key: str) -> HttpResponse:
    """Take the next job."""
    found = get_object_or_404(Station, key=key)
    taken = take_next(worker_of(request), found.pk)
    if taken is None:
        messages.info(request, "Nothing is ready here now.")
    return redirect("production:station", key)


@staff_page(*FLOOR)
@require_POST
def scan(request: HttpRequest, key: str) -> HttpResponse:
    """Begin the job that a scanned ticket names; a badge says who works here, a station's code goes there."""
    found = get_object_or_404(Station, key=key)
    scanned = request.POST.get("scanned", "")[:60]
    if (person := person_of_badge(scanned)) is not None:
        come_to_work(request, person)
        return redirect("production:station", key)
    if (named := STATION.fullmatch(scanned.strip())) and Station.objects.filter(key=named["key"].lower()).exists():
        return redirect("production:station", named["key"].lower())
    called = job_called(scanned, found)
    if called is None:
        messages.error(request, f"“{scanned}” is no job that can be done here now.")
        return redirect("production:station", key)
    return _done(request, key, lambda: begin_job(worker_of(request), called.pk))


@staff_page(*FLOOR)
@require_POST
def leave(request: HttpRequest, key: str) -> HttpResponse:
    """Let whoever is signed in work here again, instead of who has scanned a badge."""
    come_to_work(request, None)
    return redirect("production:station", key)


@staff_page(*DESK)
@require_safe
def badges(request: HttpRequest) -> HttpResponseBase:  # noqa: ARG001
    """Hand out labels with the badges of all who make things, and the codes of stations."""
    return as_download(HttpResponse(badges_pdf()), "badges.pdf")


@staff_page(*FLOOR)
@require_POST
def made(request: HttpRequest, key: str, job_id: int) -> HttpResponse:
    """Count pieces as made."""
    count = sent_number(request, "count", 0)

    def make() -> None:
        job = count_made(worker_of(request), job_id, count)
        place = RackPlace.objects.filter(order=job.line.order).first()
        if job.state == Job.State.DONE and place is not None:
            messages.success(request, f"{job.piece} goes to place {place.number} in the rack.")

    return _done(request, key, make)


@staff_page(*FLOOR)
@require_POST
def spoilt(request: HttpRequest, key: str, job_id: int) -> HttpResponse:
    """Count pieces as spoilt; they are made again."""
    count, reason = sent_number(request, "count", 0), request.POST.get("reason", "")

    def spoil() -> None:
        again = count_spoilt(worker_of(request), job_id, count, reason)
        messages.info(request, f"{again.number} makes {again.quantity} again. {again.why}")

    return _done(request, key, spoil)


@staff_page(*FLOOR)
@require_POST
def back(request: HttpRequest, key: str, job_id: int) -> HttpResponse:
    """Give a job back to whoever takes it next."""
    return _done(request, key, lambda: put_back(worker_of(request), job_id))


@staff_page(*FLOOR)
@require_POST
def ask_desk(request: HttpRequest, key: str, job_id: int) -> HttpResponse:
    """Put a job back and have its pieces held, with a question to the desk."""
    words = clean_line(request.POST.get("words", ""))
    said = "The desk has your question. The piece is held until it is answered."
    return _done(request, key, lambda: ask_about(worker_of(request), job_id, words), said)


@staff_page(*FLOOR)
@require_POST
def aside(request: HttpRequest, key: str, job_id: int) -> HttpResponse:
    """Lay a job aside that was stopped."""
    return _done(request, key, lambda: lay_aside(worker_of(request), job_id))


def _done(request: HttpRequest, key: str, do: Callable[[], object], said: str = "") -> HttpResponse:
    try:
        do()
    except (JobError, DeskError) as error:
        messages.error(request, str(error))
    else:
        if said:
            messages.success(request, said)
    return redirect("production:station", key)


@staff_page(*STAFF)
@require_safe
def jobs_of_order(request: HttpRequest, number: int) -> HttpResponse:
    """Show how far an order's work is: for its page."""
    order = get_object_or_404(Order, number=number)
    jobs = Job.objects.shown().filter(line__order=order).in_order()
    context = {"order": order, "jobs": jobs, "names": method_names(), "sums": costs_of(order)}
    return render(request, "production/_jobs_of_order.html", context)


@staff_page(*STAFF)
@require_safe
@never_cache
def papers(request: HttpRequest, kind: str) -> HttpResponseBase:
    """Hand out tickets or labels of the jobs that are meant, as one PDF to print."""
    wanted = {name: request.GET.get(name, "") for name in ("station", "day", "order", "job")}
    try:
        jobs = list(jobs_to_print(**wanted)[:MOST_PRINTED])
    except (ValueError, OverflowError):
        jobs = []
    back = redirect("production:week")
    if not jobs:
        messages.info(request, "There is nothing to be printed.")
        return back
    if kind == "labels":
        return as_download(HttpResponse(labels_of(jobs)), "labels.pdf")
    printed, missing = tickets_of(jobs)
    if missing:
        # Whoever prints half of them shouldn't think that it is all.
        messages.error(request, f"{len(missing)} of them aren't made yet: {', '.join(missing[:8])}. Please try again.")
        return back
    return as_download(HttpResponse(printed), "tickets.pdf")


class StationForm(forms.Form):
    """A station: its name, its methods, its hours."""

    name = LineField(max_length=80, label="Name")
    methods = forms.MultipleChoiceField(widget=forms.CheckboxSelectMultiple, required=False, label="What is done here")
    people = forms.ModelMultipleChoiceField(
        Person.objects.filter(is_active=True).order_by("first_name"),
        widget=forms.CheckboxSelectMultiple,
        required=False,
        label="Who usually works here",
    )

    def __init__(self, *args: object, **kwargs: object) -> None:
        super().__init__(*args, **kwargs)  # type: ignore[arg-type]
        choices = [(key or "-", name) for key, name in method_names().items()]
        self.fields["methods"].choices = choices  # type: ignore[attr-defined] # a choice field has them
        for day, name in WEEKDAYS_ABBR.items():
            self.fields[f"day-{day}"] = forms.FloatField(min_value=0, max_value=24, label=f"{name}, hours")

    @property
    def hours(self) -> list[float]:
        """The hours by weekday."""
        return [self.cleaned_data[f"day-{day}"] for day in WEEKDAYS_ABBR]

    @property
    def picked(self) -> list[str]:
        """The keys of the methods."""
        return ["" if key == "-" else key for key in self.cleaned_data["methods"]]


@staff_page(*DESK)
def edit_station(request: HttpRequest, key: str = "") -> HttpResponse:
    """Ask for a station's name, methods and hours, and keep them."""
    before = get_object_or_404(Station, key=key) if key else None
    hours = before.hours if before else USUAL_HOURS
    initial: dict[str, object] = {f"day-{day}": value for day, value in enumerate(hours)}
    if before:
        initial |= {
            "name": before.name,
            "methods": [one or "-" for one in before.methods],
            "people": before.people.all(),
        }
    form = StationForm(request.POST or None, initial=initial)
    if request.method == "POST" and form.is_valid():
        name = form.cleaned_data["name"]
        # "new" is where new ones are made.
        taken = key or slugify(f"{name}-station" if slugify(name) == "new" else name)[:50] or "station"
        if not key and Station.objects.filter(key=taken).exists():
            form.add_error("name", "There is a station of that name already.")
        else:
            facts = {"methods": form.picked, "hours": form.hours, "people": form.cleaned_data["people"]}
            save_station(actor_of(request.user), taken, name=name, **facts)
            return redirect(reverse("production:week"))
    context = {"form": form, "station": before, "section": "production"}
    return render(request, "production/edit_station.html", context, status=422 if form.errors else 200)
