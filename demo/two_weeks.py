"""Two weeks at the demo workshop: orders in every state, each placed and worked on some days before today."""

import uuid
from collections.abc import Callable
from dataclasses import dataclass
from datetime import timedelta
from typing import Any

from django.db.models import F
from django.utils import timezone

from demo.placing import GUEST, make_design, wishes_for
from yenzo.apps.accounts.models import Person
from yenzo.apps.accounts.rights import SYSTEM_ACTOR, actor_of
from yenzo.apps.designs.listed import begin_check
from yenzo.apps.designs.models import NameList
from yenzo.apps.designs.services.lists import begin_list, fill_list, put_list_in_basket
from yenzo.apps.designs.to_core import entries_of, evaluate_entries
from yenzo.apps.desk.models import Preflight, Question
from yenzo.apps.desk.services.changes import Wanted, mend_pieces
from yenzo.apps.desk.services.preflights import inspect_order
from yenzo.apps.desk.services.questions import answer_as_it_is, answer_in_words, ask_customer, remind_customers
from yenzo.apps.desk.services.replanning import rush_order
from yenzo.apps.desk.showing import question_words
from yenzo.apps.files.store import store_file
from yenzo.apps.orders.models import Order, Payment
from yenzo.apps.orders.paying import give_back, pay_order
from yenzo.apps.orders.services.orders import Customer, cancel_order
from yenzo.apps.production.carrier_gateway import carrier
from yenzo.apps.production.models import Job, Parcel
from yenzo.apps.production.services.jobs import begin_job, count_made, count_spoilt, put_back
from yenzo.apps.production.services.packing import note_delivered, put_in_parcel, send_order, send_parcel
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.apps.shop.services.checkout import Checkout, basket_digest, order_basket
from yenzo.apps.workshop.current import current_workshop
from yenzo.apps.workshop.to_core import calendar_of
from yenzo.core.documents.reading import read_entries
from yenzo.core.lists.columns import match_columns, targets_of
from yenzo.core.lists.tables import read_pasted
from yenzo.gateways.payment.practice import APPROVES

# Twenty-four who sail on the brig: their patches are one line.
BRIG = (
    "Alma Bo Cecil Dag Edda Frode Gerd Hugo Isa Jost Kaja "
    "Loke Marit Njal Oda Pål Rita Sten Tyra Unn Vidar Wanda Ylva Åke"
)


@dataclass(frozen=True)
class Past:
    """An order of before: who, what with which words, how many days ago, and what became of it."""

    name: str
    address: str
    pieces: tuple[tuple[str, str, dict[str, Any]], ...]
    days: int
    end: "Callable[[Staff, Order], None] | None" = None


class Staff:
    """Who works there."""

    def __init__(self) -> None:
        self.desk, self.maker = (actor_of(Person.objects.get(username=name)) for name in ("noor", "piet"))


def made(staff: Staff, order: Order) -> None:
    """Make everything."""
    for job in Job.objects.filter(line__order=order).in_order():
        begin_job(staff.maker, job.pk)
        _took(job, 0.9)
        count_made(staff.maker, job.pk, job.quantity)


def _took(job: Job, share: float) -> None:
    """Let a job have been begun so long ago that it takes a share of its planned minutes."""
    began = timezone.now() - timedelta(minutes=job.minutes_planned * share)
    Job.objects.filter(pk=job.pk).update(begun_at=began)


def sent(staff: Staff, order: Order) -> None:
    """Make everything and send it."""
    made(staff, order)
    send_order(staff.desk, order.pk, carrier="Harbor Post", number=f"HP 77{order.number} {order.number % 97:03d}")


def delivered(staff: Staff, order: Order) -> None:
    """Make everything and send it, and it has arrived."""
    sent(staff, order)
    parcel = Parcel.objects.get(order=order)
    Parcel.objects.filter(pk=parcel.pk).update(label=_any_file())
    note_delivered(SYSTEM_ACTOR, parcel.pk)


def _any_file() -> str:
    """Return a kept file that stands for the carrier's label."""
    return store_file(carrier().book("demo", "Port Hallow", "demo").label).pk


def cancelled(staff: Staff, order: Order) -> None:
    """Cancel it; what was paid is given back."""
    cancel_order(staff.desk, order.pk)
    give_back(order.differences.get().pk)


def half_made(staff: Staff, order: Order) -> None:
    """Make some pieces and put the rest back."""
    jobs = list(Job.objects.filter(line__order=order, place=1).in_order())
    for job in jobs[: max(1, len(jobs) // 2)]:
        begin_job(staff.maker, job.pk)
        _took(job, 0.5)
        if job.quantity > 1:
            count_made(staff.maker, job.pk, job.quantity // 3)
            put_back(staff.maker, job.pk)
        else:
            count_made(staff.maker, job.pk, 1)


def spoilt(staff: Staff, order: Order) -> None:
    """Spoil the first piece, to be made again."""
    job = Job.objects.filter(line__order=order).in_order()[0]
    begin_job(staff.maker, job.pk)
    _took(job, 0.6)
    count_spoilt(staff.maker, job.pk, 1, "The cover slipped under the press")


def asked(staff: Staff, order: Order) -> Question:
    """Ask the customer about what was found first."""
    preflight = Preflight.objects.filter(line__order=order, state="held").order_by("pk")[0]
    finding = preflight.findings.order_by("pk")[0]
    return ask_customer(staff.desk, preflight.pk, question_words(preflight, finding), finding.pk)


def waits_for_answer(staff: Staff, order: Order) -> None:
    """Ask three days ago, and remind once."""
    question = asked(staff, order)
    Question.objects.filter(pk=question.pk).update(asked_at=F("asked_at") - timedelta(days=3))
    remind_customers(SYSTEM_ACTOR, timezone.now())


def approved(staff: Staff, order: Order) -> None:
    """Ask, and have it answered: it is right so."""
    answer_as_it_is(GUEST, asked(staff, order).pk)


def written(staff: Staff, order: Order) -> None:
    """Ask, and have it answered in words, which the desk has to read."""
    answer_in_words(GUEST, asked(staff, order).pk, "Oh! It is an o, like in Longshore. Please mend it for me.")


def costs_more(staff: Staff, order: Order) -> None:
    """Mend a verse; what it costs more is still to be paid."""
    preflight = Preflight.objects.get(line__order=order)
    before = preflight.personalization
    entries = entries_of(before)
    values = {**entries.values, "words": "May the tide always carry you home"}
    entries = entries.model_copy(update={"values": values})
    evaluation = evaluate_entries(before.revision, entries, signed_in=True)
    wanted = Wanted(entries, evaluation, tuple(before.uploads.all()), uuid.uuid4())
    mend_pieces(staff.desk, preflight.pk, wanted, why="You rang: the longer verse after all")


def rushed(staff: Staff, order: Order) -> None:
    """Have it made before all others."""
    rush_order(staff.desk, order.pk, is_rush=True)


def part_sent(staff: Staff, order: Order) -> None:
    """Make and send its first line; the rest is still to be made."""
    line = order.lines.get(number=1)
    for job in Job.objects.filter(line=line).in_order():
        begin_job(staff.maker, job.pk)
        count_made(staff.maker, job.pk, job.quantity)
    put_in_parcel(staff.desk, order.pk, line.pk, 1)
    send_parcel(staff.desk, order.pk, carrier="Harbor Post", number="HP 7731 455")


BELL, SLATE, BOARD = ("ships-bell", "halcyon"), ("slate-sign", "berth-14"), ("cedar-nameboard", "wind-and-whey")
CUSHION, COMPASS, BURGEE = ("deck-cushion", "arabic"), ("brass-compass", "tide-home"), ("burgee-pennant", "tern")
PAST = (
    Past("Alba Gunwale", "Lantern House\nSandwick", ((*BELL, {"name": "Fulmar"}),), 13, delivered),
    Past(
        "Bram Keelson",
        "Berth 2, North Pontoon\nPort Hallow",
        ((*SLATE, {"words": "BERTH 2\nThe Keelsons"}),),
        12,
        delivered,
    ),
    Past("Cato Thwart", "9 Ropewalk\nEastmere", ((*BOARD, {"name": "Sea Pink"}),), 11, delivered),
    Past("Dora Halyard", "The Sail Store\nSkerry Point", ((*BURGEE, {"name": "Puffin"}),), 10, delivered),
    Past("Emil Windlass", "4 Chandlers Steps\nSandwick", ((*BELL, {"name": "Kittiwake"}),), 9, cancelled),
    Past("Fenna Capstan", "The Old Lock\nEastmere", ((*COMPASS, {"initials": "FC"}),), 8, sent),
    Past("Gorm Rowlock", "Berth 31, South Pontoon\nPort Hallow", ((*CUSHION, {"words": "Slow Tide"}),), 7, sent),
    Past("Hedda Fender", "Gull Cottage\nSkerry Point", ((*SLATE, {"words": "GULL COTTAGE\nHedda & Finn"}),), 6, made),
    Past("Ivar Davit", "12 Net Loft Lane\nSandwick", ((*BURGEE, {"name": "Heron"}),), 6, made),
    Past("Jonna Cleat", "Berth 7, North Pontoon\nPort Hallow", ((*BELL, {"name": "Guillemot"}),), 7),
    Past("Kalle Mooring", "The Slip\nEastmere", ((*BOARD, {"name": "L0ngshore"}),), 1),
    Past("Lova Sheave", "Harbor View 3\nPort Hallow", ((*BOARD, {"name": "Gr0use"}),), 4, waits_for_answer),
    Past("Mats Stanchion", "Quay 11\nSkerry Point", ((*BOARD, {"name": "Dunl1n"}),), 5, approved),
    Past(
        "Nora Transom",
        "Berth 40, South Pontoon\nPort Hallow",
        (("key-float", "ten", {"name": "Razorbill"}),),
        2,
        half_made,
    ),
    Past("Olle Spar", "The Boat Shed\nEastmere", ((*CUSHION, {"words": "Petrel"}),), 3, spoilt),
    Past("Petra Ballast", "Signal Row 2\nSkerry Point", ((*COMPASS, {"initials": "PB"}),), 2, costs_more),
    Past("Rolf Fairlead", "Berth 18, North Pontoon", ((*SLATE, {"words": "BERTH 18\nFairlead"}),), 1, rushed),
    Past("Tilda Coaming", "The Watch House\nSandwick", ((*BOARD, {"name": "T0rdalk"}),), 2, written),
    Past(
        "Ulf Garboard",
        "Berth 5, South Pontoon\nPort Hallow",
        ((*SLATE, {"words": "BERTH 5\nUlf & Ida"}), (*BELL, {"name": "Ida"})),
        4,
        part_sent,
    ),
    Past("Vera Bobstay", "The Tide House\nSandwick", ((*CUSHION, {"words": "Neap Tide"}),), 0),
)


def work_through_two_weeks() -> None:
    """Place the orders of two weeks and do with each what was done."""
    staff = Staff()
    for past in PAST:
        visitor = uuid.uuid4()
        designs = [make_design(visitor, *piece) for piece in past.pieces]
        _work_on(staff, past, _ordered(visitor, past, designs))
    visitor = uuid.uuid4()
    brig = Past("Saga Brigsdotter", "Brig Tern of Hallow\nPort Hallow", (), 5, half_made)
    _work_on(staff, brig, _ordered(visitor, brig, [_crew_of_the_brig(visitor)]))


def _ordered(visitor: uuid.UUID, past: Past, designs: list[Any]) -> Order:
    mail = f"{past.name.split()[0].lower()}@post.example"
    customer = Customer(visitor, past.name, mail, past.address)
    return order_basket(GUEST, Checkout(uuid.uuid4(), customer, basket_digest(designs), wishes_for(designs)))


def _crew_of_the_brig(visitor: uuid.UUID) -> NameList:
    product = Product.objects.select_related("live").get(key="crew-patches")
    assert product.live is not None
    common = read_entries({"values": {"lettering": "quayside", "duty": "hand"}})
    names = begin_list(GUEST, product.live, common, visitor=visitor, uploads=[])
    table = read_pasted("\n".join(["Name\tJob aboard", *(f"{name}\tDeck hand" for name in BRIG.split())]))
    columns = match_columns(table, targets_of(setup_of_revision(product.live)), {"job aboard": "duty"})
    fill_list(GUEST, names.pk, table, columns, visitor=visitor, adds=False)
    names = NameList.objects.select_related("revision__product__live").get(pk=names.pk)
    begin_check(GUEST, names)
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    names.refresh_from_db()
    return names


def _work_on(staff: Staff, past: Past, order: Order) -> None:
    pay_order(GUEST, order, APPROVES)
    inspect_order(SYSTEM_ACTOR, order.pk)
    if past.end is not None:
        past.end(staff, Order.objects.get(pk=order.pk))
    _was_days_ago(order, past.days)


def _was_days_ago(order: Order, days: int) -> None:
    """Let all that happened to an order have happened some days earlier; what is still to be done stays to be done."""
    ago = timedelta(days=days)
    order.refresh_from_db()
    leaves_on = calendar_of(current_workshop()).after(timezone.localdate(order.placed_at - ago), 3)
    moved = {name: getattr(order, name) - ago for name in ("placed_at", "spelling_checked_at", "waits_since")}
    # Work began the day after, and what left did so when it was to leave.
    since = {name: at - ago + timedelta(days=1) for name in ("begun_at", "made_at") if (at := getattr(order, name))}
    if order.sent_at:
        since["sent_at"] = min(order.sent_at, order.sent_at - ago + timedelta(days=3))
    if order.delivered_at:
        since["delivered_at"] = min(order.delivered_at, order.delivered_at - ago + timedelta(days=5))
    Order.objects.filter(pk=order.pk).update(leaves_on=leaves_on, **moved, **since)
    order.events.update(at=F("at") - ago)
    for kind, later in (("begun", 1), ("made", 1), ("part_sent", 3), ("sent", 3), ("delivered", 5), ("given_back", 1)):
        order.events.filter(kind=kind).update(at=F("at") + timedelta(days=min(later, days)))
    Payment.objects.filter(order=order).update(started_at=F("started_at") - ago, ended_at=F("ended_at") - ago)
    Preflight.objects.filter(line__order=order).update(since=F("since") - ago)
    Job.objects.filter(line__order=order).update(due_on=leaves_on, planned_on=leaves_on)
