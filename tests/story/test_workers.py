"""Workers die, are paused, lose their database; packs are finished once all the same."""

import os
import signal

import pytest
from playwright.sync_api import expect

from demo.installation import wait_until
from tests.story.test_customers import order


def test_pack_whose_worker_was_killed_is_finished_once_by_another(workshop, open_page):
    # What the demo wants made would come first.
    idle = "SELECT 1 WHERE NOT EXISTS (SELECT FROM procrastinate_jobs WHERE status IN ('todo', 'doing') AND queue_name = 'default' AND scheduled_at IS NULL)"
    wait_until(lambda: workshop.rows(idle), what="the worker to be idle")
    # They stand back behind whoever types.
    behind = min(os.getpriority(os.PRIO_PROCESS, 0) + 10, 19)
    assert {os.getpriority(os.PRIO_PROCESS, worker.pid) for worker in workshop.workers} == {behind}
    for worker in list(workshop.workers):
        workshop.kill(worker)
    page = open_page("/goods/cedar-nameboard/")
    page.fill("[data-field=name]", "Cut Short")
    order(page)
    page.get_by_role("button", name="Pay £").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    state = "SELECT k.state, k.steps_done FROM production_pack k JOIN orders_line p ON p.id = k.line_id WHERE p.search_text = 'CUT SHORT'"
    assert workshop.rows(state) == []
    # No new file can be kept while this is held, so the worker is killed in the middle however fast it is.
    with workshop.holding("files_storedfile"):
        doomed = workshop.start_worker()
        wait_until(lambda: [row[0] for row in workshop.rows(state)] == ["making"], what="the worker to begin")
        workshop.kill(doomed)
        assert workshop.rows(state)[0][0] == "making"
    for queue in ("default", "artwork"):
        workshop.start_worker(queue)
    wait_until(lambda: workshop.rows(state)[0][0] == "done", what="another worker to finish")
    events = "SELECT count(*) FROM orders_orderevent e JOIN orders_line p ON p.order_id = e.order_id WHERE p.search_text = 'CUT SHORT' AND e.kind = 'pack_ready'"
    assert workshop.rows(events) == [(1,)]


def paid_order_of(open_page, name):
    page = open_page("/goods/cedar-nameboard/")
    page.fill("[data-field=name]", name)
    order(page)
    page.get_by_role("button", name="Pay £").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()


def is_packed(workshop, words):
    state = "SELECT k.state FROM production_pack k JOIN orders_line p ON p.id = k.line_id WHERE p.search_text = %s"
    return workshop.rows(state, words) == [("done",)]


@pytest.mark.sweep
def test_all_connections_are_cut_and_shop_and_workers_go_on(workshop, open_page):
    workers = list(workshop.workers)
    page = open_page("/goods/cedar-nameboard/")
    page.fill("[data-field=name]", "Before")
    # What a restart of PostgreSQL does to everybody who is connected.
    workshop.execute(
        "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'story' AND pid <> pg_backend_pid()"
    )
    page.fill("[data-field=name]", "Afterwards")
    expect(page.locator("[data-total]")).to_contain_text("£")
    paid_order_of(open_page, "Cut Off")
    wait_until(lambda: is_packed(workshop, "CUT OFF"), what="the pack")
    assert all(worker.poll() is None for worker in workers)


@pytest.mark.sweep
def test_worker_that_was_paused_until_it_was_forgotten_works_on(workshop, open_page):
    worker = workshop.start_worker()
    for other in [one for one in workshop.workers if one is not worker]:
        workshop.kill(other)
    wait_until(lambda: workshop.rows("SELECT 1 FROM procrastinate_workers"), what="the worker to register")
    os.kill(worker.pid, signal.SIGSTOP)
    # What another worker does that starts meanwhile and takes it for dead.
    workshop.execute("DELETE FROM procrastinate_workers")
    os.kill(worker.pid, signal.SIGCONT)
    workshop.start_worker("artwork")
    paid_order_of(open_page, "Long Sleep")
    wait_until(lambda: is_packed(workshop, "LONG SLEEP"), what="the pack")
    assert worker.poll() is None
