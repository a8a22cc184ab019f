"""A database of the demo of before there were lines: brought up to date, it tells the same of everything."""

import json
import os
import re
import subprocess
import sys
from decimal import Decimal
from pathlib import Path

import psycopg
import pytest

from demo.template import new_database, program

ROOT = Path(__file__).resolve().parents[2]
BEFORE = ROOT / "tests" / "data" / "demo-before-lines"
FACTS = json.loads((BEFORE / "facts.json").read_text())
TELL = """
import hashlib, json, sys
import django

django.setup()
from yenzo.apps.designs.models import Design
from yenzo.apps.designs.personalized import read_as_kept, read_now
from yenzo.apps.files.store import store_file
from yenzo.apps.orders.models import Order
from yenzo.apps.orders.showing import ShownLine
from yenzo.apps.production.models import Pack
from pathlib import Path

for folder in sys.argv[1:]:
    for path in Path(folder).rglob("*"):
        if path.is_file():
            store_file(path.read_bytes())


def line_told(line):
    shown, pack = ShownLine(line), Pack.objects.filter(line=line).first()
    return {
        "ticket": str(line), "title": shown.title, "total": str(shown.quote.total), "currency": shown.quote.currency,
        "quote": line.quote, "pieces": line.quantity, "asked": line.personalization.asked,
        "product": line.product.key, "revision": line.revision.sha256, "search_text": line.search_text,
        "texts": [[text.label, text.place, text.made.words] for text in shown.piece.in_words.texts],
        "entries": [[entry.label, entry.words] for entry in shown.piece.entries],
        "uploads": sorted(str(one.pk) for one in line.personalization.uploads.all()),
        "sides": {side.key: side.digest for side in shown.piece.recorded.sides},
        "pack": pack and {"state": pack.state, "file": pack.file_id, "engine": pack.engine},
        "rows": [[str(piece), piece.personalization_id == line.personalization_id] for piece in line.pieces.all()],
        "is_kept": type(line.personalization).objects.get(pk=line.personalization_id).record is not None,
    }


def order_told(order):
    return {
        "number": order.number, "token": order.token, "state": order.status, "shown": order.status_words,
        "total": str(order.total), "currency": order.currency, "name": order.customer_name,
        "mail": order.customer_mail, "payable": order.is_payable, "cancellable": order.is_cancellable,
        "payment": order.payment_state, "channel": [order.channel, order.outside_number],
        "events": [[event.who, event.words] for event in order.events.all()],
        "pieces": [line_told(line) for line in order.lines.all()],
    }


def design_told(design):
    now = read_now([design.personalization], signed_in=False)[0]
    return {
        "id": str(design.pk), "in_basket": design.in_basket, "entries": design.personalization.entries,
        "revision": design.revision.sha256, "total": str(now.quote.total),
        "uploads": sorted(str(one.pk) for one in design.personalization.uploads.all()),
        "sides": {side.key: side.digest for side in now.recorded.sides},
    }


print(json.dumps({
    "orders": [order_told(order) for order in Order.objects.order_by("pk")],
    "designs": [design_told(design) for design in Design.objects.order_by("created_at")],
    "next": Order.objects.order_by("-number").first().number,
}))
"""


@pytest.fixture(scope="module")
def told(tmp_path_factory, worker_id):
    """What the brought up database tells."""
    base, folder = os.environ["DATABASE_URL"], tmp_path_factory.mktemp("before")
    address = new_database(base, f"before_lines_{worker_id}")
    restore = [program("pg_restore"), "--dbname", address, "--no-owner", "--exit-on-error", str(BEFORE / "demo.dump")]
    subprocess.run(restore, check=True, capture_output=True)
    with psycopg.connect(address, autocommit=True) as connection:
        what = "Piece 1: its text runs in both directions and keeps the order that its customer saw"
        connection.execute(
            "INSERT INTO orders_orderevent (order_id, at, who, what, facts) SELECT min(id), now(), 'Yenzo', %s, '{}' FROM orders_order",
            [what],
        )
    environment = os.environ | {"DATABASE_URL": address, "FILES_ROOT": str(folder), "YENZO_MODE": "practice"}
    run = {"cwd": ROOT, "env": environment, "check": True, "capture_output": True, "text": True}
    subprocess.run([sys.executable, "manage.py", "migrate", "-v0"], **run)
    sources = [str(ROOT / "demo" / "products"), str(ROOT / "yenzo" / "materials")]
    done = subprocess.run([sys.executable, "-c", TELL, *sources], **run)
    yield json.loads(done.stdout)
    with psycopg.connect(base, autocommit=True) as connection:
        connection.execute(f"DROP DATABASE before_lines_{worker_id} WITH (FORCE)".encode())


def test_every_order_with_its_words_amounts_pictures_and_packs_is_as_it_was(told):
    assert [order["number"] for order in told["orders"]] == [order["number"] for order in FACTS["orders"]]
    for now, before in zip(told["orders"], FACTS["orders"], strict=True):
        events = [*before["events"]]
        if before["number"] == min(order["number"] for order in FACTS["orders"]):
            events.append(
                ["Yenzo", "Piece 1: its text runs in both directions and keeps the order that its customer saw"]
            )
        assert now["events"] == events
        for key in set(before) - {"pieces", "events"}:
            assert now[key] == before[key], (before["number"], key)
        assert sum(Decimal(piece["total"]) for piece in now["pieces"]) == Decimal(now["total"])
        for line, piece in zip(now["pieces"], before["pieces"], strict=True):
            # Pictures are told apart by the digests of their sides.
            for key in set(piece) - {"pictures", "asked"}:
                assert line[key] == piece[key], (piece["ticket"], key)
            # Made as its customer saw it: letters on bends stand upright since.
            assert line["asked"] == piece["asked"] | {"old_setting": True}


def test_lines_have_their_pieces_and_what_was_made_of_them_is_kept_once_it_was_read(told):
    several = 0
    for order in told["orders"]:
        for line in order["pieces"]:
            names = [line["ticket"]]
            if line["pieces"] > 1:
                several += 1
                names = [f"{line['ticket']}.{index}" for index in range(1, line["pieces"] + 1)]
            assert line["rows"] == [[name, True] for name in names]
            assert line["is_kept"]
    assert several


def test_payment_stands_apart_from_what_became_of_the_order(told):
    payments = {order["state"]: order["payment"] for order in told["orders"]}
    assert payments["paid"] == "paid"
    assert payments["waiting"] == "waiting"
    assert payments["cancelled"] in {"waiting", "owed_back"}
    assert {tuple(order["channel"]) for order in told["orders"]} == {("shop", "")}


def test_designs_in_baskets_are_as_they_were(told):
    # What isn't ordered is set as letters are set now: the words round a compass' lid stand upright.
    upright = {"18d0afae7a5acc6c248f": "b3cb2b967e06b9000d68"}
    before = json.loads(re.sub("|".join(upright), lambda found: upright[found[0]], json.dumps(FACTS["designs"])))
    assert told["designs"] == before
