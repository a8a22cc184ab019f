"""What a list of 500 names costs the workshop, and its week with 400 open jobs. Runs within an installation.

Usage: `python -m bench.at_work` with an installation's settings; prints what it measured as JSON.
"""

import json
import os
import statistics
import sys
import time
import uuid
from concurrent.futures import ThreadPoolExecutor

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "yenzo.config.settings")
django.setup()

from django.db import connection  # noqa: E402 - models need the settings first
from django.test import Client  # noqa: E402
from django.test.utils import CaptureQueriesContext  # noqa: E402

from demo.installation import wait_until  # noqa: E402
from demo.placing import GUEST, wishes_for  # noqa: E402
from yenzo.apps.accounts.models import Person  # noqa: E402
from yenzo.apps.accounts.rights import SYSTEM_ACTOR, actor_of  # noqa: E402
from yenzo.apps.designs.listed import begin_check  # noqa: E402
from yenzo.apps.designs.models import NameList  # noqa: E402
from yenzo.apps.designs.services.lists import begin_list, fill_list, put_list_in_basket  # noqa: E402
from yenzo.apps.desk.models import Preflight  # noqa: E402
from yenzo.apps.desk.services.preflights import inspect_order  # noqa: E402
from yenzo.apps.orders.models import Order  # noqa: E402
from yenzo.apps.orders.paying import pay_order  # noqa: E402
from yenzo.apps.orders.services.orders import Customer  # noqa: E402
from yenzo.apps.production.models import Job  # noqa: E402
from yenzo.apps.production.services.jobs import count_made, save_station, take_next  # noqa: E402
from yenzo.apps.products.models import Product  # noqa: E402
from yenzo.apps.products.to_core import setup_of_revision  # noqa: E402
from yenzo.apps.shop.services.checkout import Checkout, basket_digest, order_basket  # noqa: E402
from yenzo.core.documents.reading import read_entries  # noqa: E402
from yenzo.core.lists.columns import match_columns, targets_of  # noqa: E402
from yenzo.core.lists.tables import read_pasted  # noqa: E402
from yenzo.gateways.payment.practice import APPROVES  # noqa: E402

ROWS, WEEK_JOBS, TIMES, PRESSES = 500, 400, 40, 1000
FIRST = ("Alma", "Bo", "Cecil", "Dag", "Edda", "Frode", "Gerd", "Hugo", "Isa", "Jost")


def order_of_a_list(rows: int) -> Order:
    """Order and pay a list of crew patches."""
    product = Product.objects.select_related("live").get(key="crew-patches")
    assert product.live is not None
    visitor, common = uuid.uuid4(), read_entries({"values": {"lettering": "quayside", "duty": "hand"}})
    names = begin_list(GUEST, product.live, common, visitor=visitor, uploads=[])
    words = [f"{FIRST[at % len(FIRST)]} {'abcdefghijklmnopqrst'[at // len(FIRST) % 20]}" for at in range(rows)]
    table = read_pasted("\n".join(["Name\tJob aboard", *(f"{name}\tDeck hand" for name in words)]))
    columns = match_columns(table, targets_of(setup_of_revision(product.live)), {"job aboard": "duty"})
    fill_list(GUEST, names.pk, table, columns, visitor=visitor, adds=False)
    names = NameList.objects.select_related("revision__product__live").get(pk=names.pk)
    begin_check(GUEST, names)
    # The worker checks what is too much for a request.
    wait_until(lambda: not names.rows.filter(personalization=None).exists(), seconds=120, what="the rows")
    put_list_in_basket(GUEST, names.pk, visitor=visitor)
    names.refresh_from_db()
    customer = Customer(visitor, "Saga Brigsdotter", "saga@post.example", "Brig Tern")
    order = order_basket(GUEST, Checkout(uuid.uuid4(), customer, basket_digest([names]), wishes_for([names])))
    return pay_order(GUEST, order, APPROVES)


def press_next(order: Order) -> dict[str, float]:
    """Have two people press "next" until a thousand jobs are done; return how many were begun twice or left out."""
    first = Job.objects.filter(line__order=order).order_by("pk")[0]
    station = save_station(
        actor_of(Person.objects.get(username="mara")), "both", name="Both", methods=["both"], hours=[8.0] * 7
    )
    Job.objects.bulk_create(
        Job(
            line=first.line,
            index=10_000 + at,
            personalization=first.personalization,
            method="both",
            place=1,
            quantity=1,
            state="ready",
            due_on=first.due_on,
            planned_on=first.planned_on,
        )
        for at in range(PRESSES)
    )
    taken: list[int] = []

    def press(username: str) -> None:
        actor = actor_of(Person.objects.get(username=username))
        while (job := take_next(actor, station.pk)) is not None:
            taken.append(job.pk)
            count_made(actor, job.pk, 1)
        connection.close()

    begun = time.perf_counter()
    with ThreadPoolExecutor(2) as pool:
        list(pool.map(press, ("piet", "noor")))
    left = Job.objects.filter(method="both").exclude(state="done").count()
    return {"twice": len(taken) - len(set(taken)), "left_out": left, "presses_s": time.perf_counter() - begun}


def main() -> None:
    """Measure, and print the figures."""
    order = order_of_a_list(ROWS)
    begun = time.perf_counter()
    inspect_order(SYSTEM_ACTOR, order.pk)
    preflight_s = time.perf_counter() - begun
    assert Preflight.objects.filter(line__order=order).count() == ROWS
    found = {"preflight_s": preflight_s, "jobs": Job.objects.filter(line__order=order).count()}
    kept = Job.objects.filter(line__order=order).order_by("pk").values_list("pk", flat=True)[WEEK_JOBS:]
    Job.objects.filter(pk__in=list(kept)).update(state="done")
    client = Client(HTTP_HOST="127.0.0.1", headers={"x-forwarded-proto": "https"})
    client.force_login(Person.objects.get(username="noor"))
    taken = []
    for _ in range(TIMES):
        begun = time.perf_counter()
        answer = client.get("/workshop/production/", secure=True)
        taken.append(1000 * (time.perf_counter() - begun))
        assert answer.status_code == 200, answer.status_code
    with CaptureQueriesContext(
        connection,
    ) as asked:
        client.get("/workshop/production/", secure=True)
    found |= {"week_p95_ms": statistics.quantiles(taken, n=20)[-1], "week_queries": len(asked)}
    found |= press_next(order)
    sys.stdout.write(json.dumps(found))


if __name__ == "__main__":
    main()
