"""A chaos run: customers order while everything breaks; at the end each order, payment, mail and pack is there once.

Usage: python -m tests.chaos.run [MINUTES] [SEED]      makes a cluster and an installation of its own, and takes them away
"""

import hashlib
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

from demo.installation import Installation, wait_until
from tests.chaos.customers import Record, send_customers
from tests.chaos.monkey import WORKERS, Monkey
from tests.core.artwork import samples
from tests.scripts.loading import load_script

CUSTOMERS = 3
# Jobs that failed are tried again ever later: what the chaos held up is done within these.
PATIENCE_SECONDS = 400


def run(seconds: float, seed: int, folder: Path, name: str = "chaos") -> list[str]:
    """Let chaos reign for so long; return all that is wrong in the end."""
    cluster = load_script("cluster").Cluster(name)
    try:
        installation = Installation(
            folder,
            base=cluster.start(),
            PRACTICE_SILENCE_SECONDS="1",
            SETTLE_AFTER_SECONDS="1",
            WORKER_SILENCE_SECONDS="3",
            MAILS_TO_ONE_AN_HOUR="100000",
            **{f"LIMIT_{what}": "100000/minute" for what in ("UPLOADS", "BASKET", "CHECKOUTS", "PAYMENTS")},
        )
        try:
            return _reign(installation, cluster, seconds, seed)
        finally:
            installation.stop()
    finally:
        cluster.destroy()


def _reign(installation: Installation, cluster: Any, seconds: float, seed: int) -> list[str]:
    for queue in WORKERS:
        installation.start_worker(queue)
    record, until = Record(), time.monotonic() + seconds
    picture = samples.logo_picture(size=(900, 900))
    customers = send_customers(installation.url, CUSTOMERS, until, record, picture)
    monkey = Monkey(installation, cluster, seed)
    monkey.torment(until, pause_seconds=1.0)
    # Customers finish what they began: now all is well, but for what was broken before.
    while any(customer.is_alive() for customer in customers):
        monkey.supervise()
        time.sleep(1)

    def is_quiet() -> bool:
        monkey.supervise()
        # What waits to be tried again is due now, not in minutes.
        installation.execute(
            "UPDATE procrastinate_jobs SET scheduled_at = NULL WHERE status = 'todo' AND scheduled_at IS NOT NULL AND task_name NOT LIKE 'files.%'"
        )
        return not installation.rows(
            "SELECT 1 FROM procrastinate_jobs WHERE status IN ('todo', 'doing') AND queueing_lock IS NULL"
        )

    wait_until(is_quiet, seconds=PATIENCE_SECONDS, what="the workers to finish")
    print(f"chaos: {monkey.done}; {len(record.checkouts)} checkouts, {len(record.paid)} paid")
    return faults(installation, record)


def faults(installation: Installation, record: Record) -> list[str]:
    """Return what customers know that isn't so, and what is there twice, half or not at all."""
    rows, found = installation.rows, list(record.refused)
    tokens = {
        str(key): (token, state)
        for key, token, state in rows("SELECT checkout_key, token, payment_state FROM orders_order")
    }
    for key, token in record.checkouts.items():
        if key not in tokens and token:
            found.append(f"order {token} was shown and is lost")
        elif token and tokens[key][0] != token:
            found.append(f"checkout {key} made another order than was shown")
    states = dict(tokens.values())
    found += [
        f"order {token} was paid and is {states.get(token)}" for token in record.paid if states.get(token) != "paid"
    ]
    found += [
        f"order {number} is paid and has {count} approved payments"
        for number, count in rows(
            "SELECT o.id, count(p.id) FROM orders_order o LEFT JOIN orders_payment p ON p.order_id = o.id AND p.state = 'approved' WHERE o.payment_state = 'paid' GROUP BY o.id HAVING count(p.id) <> 1"
        )
    ]
    # What something is found of is held, and has neither pack nor jobs; all else was released, and has both.
    found += [
        f"line {line} was looked at {count} times"
        for line, count in rows(
            "SELECT p.id, count(f.id) FROM orders_line p JOIN orders_order o ON o.id = p.order_id LEFT JOIN desk_preflight f ON f.line_id = p.id WHERE o.payment_state = 'paid' GROUP BY p.id HAVING count(f.id) <> 1"
        )
    ]
    found += [
        f"pack of line {line}, {looked}: {state} {trouble}"
        for line, looked, state, trouble in rows(
            "SELECT f.line_id, f.state, coalesce(k.state, 'none'), coalesce(k.trouble, '') FROM desk_preflight f LEFT JOIN production_pack k ON k.line_id = f.line_id WHERE (f.state = 'released') <> (k.state IS NOT DISTINCT FROM 'done')"
        )
    ]
    found += [
        f"line {line}, {looked}, has {count} jobs"
        for line, looked, count in rows(
            "SELECT f.line_id, f.state, count(j.id) FROM desk_preflight f LEFT JOIN production_job j ON j.line_id = f.line_id AND j.attempt = 1 AND j.place = 1 GROUP BY f.line_id, f.state HAVING count(j.id) <> CASE f.state WHEN 'released' THEN 1 ELSE 0 END"
        )
    ]
    found += [
        f"pack of line {line} was announced {count} times"
        for line, count in rows(
            "SELECT p.id, count(e.id) FROM orders_line p JOIN orders_order o ON o.id = p.order_id JOIN desk_preflight f ON f.line_id = p.id AND f.state = 'released' LEFT JOIN orders_orderevent e ON e.order_id = o.id AND e.kind = %s WHERE o.payment_state = 'paid' GROUP BY p.id HAVING count(e.id) <> 1",
            "pack_ready",
        )
        if rows(
            "SELECT count(*) FROM orders_line WHERE order_id = (SELECT order_id FROM orders_line WHERE id = %s)",
            line,
        )
        == [(1,)]
    ]
    found += _mail_faults(installation)
    found += _file_faults(installation)
    found += [
        f"file {name} was never looked at" for (name,) in rows("SELECT id FROM designs_upload WHERE state = 'waiting'")
    ]
    found += [f"payment {pk} is open" for (pk,) in rows("SELECT id FROM orders_payment WHERE state = 'started'")]
    found += [
        f"mail {key} is {state}"
        for key, state in rows(
            "SELECT key, state FROM outbox_outgoingmail WHERE state <> 'sent' AND writer <> 'sign-in'"
        )
    ]
    return found


def _mail_faults(installation: Installation) -> list[str]:
    kept = {path.stem for path in (installation.folder / "files" / "outbox").glob("[0-9]*.eml")}
    wanted = set()
    orders = installation.rows("SELECT number, payment_state, sent_at IS NOT NULL FROM orders_order")
    for number, state, is_sent in orders:
        for occasion in ("placed", "paid", "sent")[: 1 + (state == "paid") + is_sent]:
            wanted |= {f"{number}-{occasion}-{who}" for who in ("customer", "workshop")}
    sent = {
        key
        for (key,) in installation.rows(
            "SELECT key FROM outbox_outgoingmail WHERE state = 'sent' AND writer <> 'sign-in'"
        )
    }
    return [
        *(f"mail {key} was not sent" for key in sorted(wanted - sent)),
        *(f"mail {key} was sent and isn't there" for key in sorted(sent - kept)),
        *(f"mail {key} is there and nobody wanted it" for key in sorted(kept - wanted)),
    ]


def _file_faults(installation: Installation) -> list[str]:
    folder, found = installation.folder / "files", []
    for sha256, size, path in installation.rows("SELECT sha256, size_bytes, path FROM files_storedfile"):
        data = (folder / path).read_bytes() if (folder / path).exists() else None
        if data is None or len(data) != size or hashlib.sha256(data).hexdigest() != sha256:
            found.append(f"file {sha256[:12]} is {'missing' if data is None else 'damaged'}")
    return found


if __name__ == "__main__":
    minutes, seed = float(sys.argv[1] if len(sys.argv) > 1 else 10), int(sys.argv[2] if len(sys.argv) > 2 else 1)
    with tempfile.TemporaryDirectory() as place:
        wrong = run(minutes * 60, seed, Path(place))
    print("\n".join(wrong) or "All is there, once.")
    sys.exit(bool(wrong))
