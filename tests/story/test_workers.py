"""Workers die; packs are finished once all the same."""

from playwright.sync_api import expect

from demo.installation import wait_until
from tests.story.test_customers import order


def test_pack_whose_worker_was_killed_is_finished_once_by_another(workshop, open_page):
    for worker in list(workshop.processes[1:]):
        workshop.kill(worker)
    page = open_page("/goods/cedar-nameboard/")
    page.fill("[data-field=name]", "Cut Short")
    order(page)
    page.get_by_role("button", name="Pay £").click()
    expect(page.locator("[data-order-state=paid]")).to_be_visible()
    state = "SELECT k.state, k.steps_done FROM production_pack k JOIN orders_piece p ON p.id = k.piece_id WHERE p.search_text = 'CUT SHORT'"
    assert workshop.rows(state) == [("waiting", 0)]
    # No new file can be kept while this is held, so the worker is killed in the middle however fast it is.
    with workshop.holding("catalogue_storedfile"):
        doomed = workshop.start_worker()
        wait_until(lambda: workshop.rows(state)[0][0] == "making", what="the worker to begin")
        workshop.kill(doomed)
        assert workshop.rows(state)[0][0] == "making"
    workshop.start_worker()
    wait_until(lambda: workshop.rows(state)[0][0] == "done", what="another worker to finish")
    events = "SELECT count(*) FROM orders_orderevent e JOIN orders_piece p ON p.order_id = e.order_id WHERE p.search_text = 'CUT SHORT' AND e.what LIKE 'Pack %%'"
    assert workshop.rows(events) == [(1,)]
