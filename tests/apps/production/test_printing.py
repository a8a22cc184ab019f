"""Tickets and labels: printed one by one, by station, by day, by order; they say what the pack says."""

import io
import subprocess
from contextlib import closing

import pikepdf
import pypdfium2
import pytest

from tests.apps.conftest import GUEST
from yenzo.apps.orders.paying import pay_order, tell_paid
from yenzo.apps.production.floor import ShownJob
from yenzo.apps.production.making import make
from yenzo.apps.production.models import Job, Pack
from yenzo.apps.production.services.jobs import save_station

pytestmark = pytest.mark.django_db


@pytest.fixture
def job(order, owner):
    save_station(owner, "bench", name="Bench", methods=["carving"], hours=[8.0] * 7)
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    return Job.objects.get()


def words_of(data):
    return subprocess.run(
        ["pdftotext", "-layout", "-", "-"], input=data, capture_output=True, check=True
    ).stdout.decode()


@pytest.mark.parametrize("which", ["job={pk}", "station=bench", "order={order}", "day=2999-01-01", ""])
def test_tickets_and_labels_of_what_is_meant(job, sign_in, which):
    make(Pack.objects.get().pk)
    client, query = sign_in("decorator"), which.format(pk=job.pk, order=job.line.order.number)
    ticket = words_of(client.get(f"/workshop/production/tickets.pdf?{query}").content)
    label = words_of(client.get(f"/workshop/production/labels.pdf?{query}").content)
    for words in (ticket, label):
        for said in ("WIND & WHEY", f"{job.number}", "Carving", "NB-1", f"{job.due_on:%a} {job.due_on.day}"):
            assert said in words, said
    assert "from the left" in ticket
    with closing(pypdfium2.PdfDocument(client.get(f"/workshop/production/labels.pdf?{query}").content)) as document:
        shown = [one for one in document[0].get_objects() if one.type == pypdfium2.raw.FPDF_PAGEOBJ_IMAGE]
    assert len(shown) == len({area.side.key for area in ShownJob(job).piece.recorded.areas})


@pytest.mark.parametrize("query", ["job=999", "station=none", "day=2000-01-01", "day=x", "order=1"])
def test_nothing_to_be_printed_is_told(job, sign_in, query):
    page = sign_in("decorator").get(f"/workshop/production/labels.pdf?{query}", follow=True).content.decode()
    assert "nothing to be printed" in page


def test_ticket_whose_pack_isnt_made_is_named_instead_of_left_out(job, sign_in):
    page = sign_in("decorator").get("/workshop/production/tickets.pdf", follow=True).content.decode()
    assert f"{job.number}. Please try again" in page


def test_foot_stands_on_every_page_of_a_ticket(job, sign_in):
    make(Pack.objects.get().pk)
    Job.objects.update(why="The knot fell out")
    made = sign_in("desk").get(f"/workshop/production/tickets.pdf?job={job.pk}").content
    with pikepdf.open(io.BytesIO(made)) as pdf:
        pages = len(pdf.pages)
    assert words_of(made).count("made again: The knot fell out") == pages
