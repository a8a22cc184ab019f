"""The demo workshop at work: settings and stations, what is made of its orders, and a list that is in work."""

import json
import uuid
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.utils import timezone

from yenzo.apps.accounts.models import Person
from yenzo.apps.accounts.rights import CUSTOMER, SYSTEM_ACTOR, Actor
from yenzo.apps.designs.listed import begin_check
from yenzo.apps.designs.services.lists import begin_list, fill_list
from yenzo.apps.designs.services.looks import show_list
from yenzo.apps.desk.services.preflights import inspect_order
from yenzo.apps.orders.models import Order
from yenzo.apps.production.models import Job
from yenzo.apps.production.services.jobs import begin_job, count_made, count_spoilt, save_station
from yenzo.apps.production.services.packing import send_order
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.apps.workshop.services.mark import add_mark
from yenzo.apps.workshop.services.workshop import change_workshop
from yenzo.core.documents.reading import read_entries
from yenzo.core.lists.columns import match_columns, targets_of
from yenzo.core.lists.tables import read_pasted

GUEST = Actor(CUSTOMER, "Customer")
# What the workshop says of itself.
WORKSHOP: dict[str, Any] = {
    "address": "The Slipway\nPort Hallow\nPO1 3AX",
    "tax_number": "GB 000 0000 00",
    # Of examples/other-site.
    "sites": ["http://127.0.0.1:8490"],
    "calendar": {"holidays_of": "GB-SCT", "lead_days": 3},
    "deliveries": [
        {
            "key": "post",
            "name": "Letter post",
            "price": "4.50",
            "free_from": "90",
            "countries": ["GB", "IE"],
            "days": 3,
        },
        {"key": "courier", "name": "Courier", "price": "9.80", "days": 1},
        {"key": "quay", "name": "Pick up at the slipway", "days": 0, "is_pickup": True},
    ],
}
# What the shop says in the workshop's own words, by language and place.
WORDING = Path(__file__).with_name("wording.json")
MARK = Path(__file__).with_name("art") / "mark.svg"
# Where things are made: by key its name, what is done there, hours on a weekday.
STATIONS: dict[str, tuple[str, list[str], float]] = {
    "bench": ("Carving bench", ["carving", "deep-cut"], 6),
    "graver": ("Graver", ["engraving"], 7),
    "press": ("Print room", ["transfer-print", "pad-print", "dial-print", "hot-iron"], 7),
    "loft": ("Sail loft", ["embroidery", "cut-cloth"], 8),
    "packing": ("Packing table", [""], 4),
}
# Who works where.
WHO = {"bench": ("piet",), "graver": ("piet",), "press": ("piet", "mara"), "loft": ("mara",), "packing": ("noor",)}
# A crew that is written down in a spreadsheet; three of its rows can't be made as they stand.
CREW = """Name\tJob aboard\tPieces
Wilma\tSkipper\t1
Otto\tMate\t2
Juna\tEngineer\t1
Pelle\tCook\t1
Runa\tDeck hand\t1
Tova\tDeck hand\t1
Bartholomew-James\tDeck hand\t1
Ines\tMate\t1
Nils\tDeck hand\t1
Oskar\tStoker\t1
Maren\tCook\t1
Levi\tDeck hand\t1
Sunniva\tMate\t1
Kaj\tDeck hand\t1
Liv\tDeck hand\t1
Tobias\tEngineer\t1
Alma\tDeck hand\t1
Frode\tDeck hand\t1
Signe\tCook\tsome
Bo\tDeck hand\t1
Astrid\tMate\t1
Eskil\tDeck hand\t1
Wilma\tSkipper\t1
Dag\tDeck hand\t1
"""


def set_up_workshop(owner: Actor) -> None:
    """Say when the workshop works, how it delivers, and where things are made."""
    mark = add_mark(owner, MARK, MARK.name)
    change_workshop(owner, WORKSHOP | {"wording": json.loads(WORDING.read_text()), "mark": mark})
    for key, (name, methods, hours) in STATIONS.items():
        people = Person.objects.filter(username__in=WHO[key])
        save_station(owner, key, name=name, methods=methods, hours=[hours] * 5 + [0.0, 0.0], people=people)


def work_on_orders(owner: Actor) -> None:
    """Work on what is paid: one order is sent, one made, one piece was spoilt, one is in hand, one is late."""
    paid = list(Order.objects.with_status(Order.PaymentState.PAID).order_by("pk"))
    for order in paid:
        inspect_order(SYSTEM_ACTOR, order.pk)
    sent, late, made, spoilt, in_hand, *_ = paid
    for order in (sent, made):
        for job in Job.objects.filter(line__order=order).in_order():
            begin_job(owner, job.pk)
            count_made(owner, job.pk, job.quantity)
    send_order(owner, sent.pk, carrier="Harbor Post", number="HP 7731 204")
    Job.objects.filter(line__order=late).update(
        due_on=timezone.localdate() - timedelta(days=2), planned_on=timezone.localdate() - timedelta(days=2)
    )
    for order in (spoilt, in_hand):
        job = Job.objects.filter(line__order=order).in_order()[0]
        begin_job(owner, job.pk)
        if order == spoilt:
            count_spoilt(owner, job.pk, 1, "The cork split at the edge")


def begin_a_list() -> None:
    """Begin a list of names that isn't in order yet, and show it by a link."""
    product = Product.objects.select_related("live").get(key="crew-patches")
    assert product.live is not None
    visitor, setup = uuid.uuid4(), setup_of_revision(product.live)
    names = begin_list(
        GUEST, product.live, read_entries({"values": {"lettering": "quayside"}}), visitor=visitor, uploads=[]
    )
    table = read_pasted(CREW)
    columns = match_columns(table, targets_of(setup), {"job aboard": "duty"})
    fill_list(GUEST, names.pk, table, columns, visitor=visitor, adds=False)
    begin_check(GUEST, names)
    show_list(GUEST, names.pk, visitor=visitor, is_shared=True)
