"""Asking back: a question and its mail, three ways to answer, reminders, and the day that waits along."""

from datetime import date, timedelta

import pytest
from django.utils import timezone

from tests.apps.conftest import send_mails
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.desk.models import Question
from yenzo.apps.desk.services.changes import mend_pieces
from yenzo.apps.desk.services.preflights import DeskError, release_pieces
from yenzo.apps.desk.services.questions import (
    answer_as_it_is,
    answer_by_changing,
    answer_in_words,
    ask_customer,
    remind_customers,
    withdraw_question,
    working_days_waited,
)
from yenzo.apps.desk.showing import question_words
from yenzo.apps.orders.models import Agreement, Order
from yenzo.apps.orders.services.orders import cancel_order
from yenzo.apps.production.models import Job

pytestmark = pytest.mark.django_db
SLIP = {"entry-name": "Love", "entry-lettering": "quayside", "entry-wood": "cedar", "entry-finish": "gold"}


@pytest.fixture
def desk(actors):
    return actors["desk"]


@pytest.fixture
def question(held, desk):
    return ask_customer(desk, held.pk, "Is it Love or L0ve?", held.findings.get().pk)


def order_now():
    return Order.objects.get()


def test_question_goes_by_mail_once_and_the_piece_waits(question, held, desk):
    assert ask_customer(desk, held.pk, "Again?") == question
    mail = send_mails()[f"question-{question.pk}-0"]
    assert (mail.to, "Is it Love or L0ve?" in mail.text, mail.pictures) == ("wilma@post.example", True, 1)
    assert f"/question/{question.token}/" in mail.text
    assert order_now().waits_for == "customer"
    with pytest.raises(DeskError, match="waits for its customer's answer"):
        release_pieces(desk, held.pk)
    withdraw_question(desk, question.pk)
    with pytest.raises(DeskError, match="write what you want to know"):
        ask_customer(desk, held.pk, " ")


def test_wording_is_suggested_in_the_customers_language(held):
    Order.objects.update(language="de")
    held.line.order.refresh_from_db()
    said = question_words(held, held.findings.get())
    assert "Bevor wir" in said
    assert "L0VE" in said
    assert "Digits" not in said


def test_correction_makes_the_piece_anew_and_it_goes_on_by_itself(question, held, client):
    address = f"/question/{question.token}/"
    page = client.get(address).content.decode()
    assert "Is it Love or L0ve?" in page
    assert 'value="L0ve"' in page
    assert client.get(f"{address}front.png").content.startswith(b"\x89PNG")
    assert "Costs the same as before" in client.post(f"{address}preview/", SLIP).content.decode()
    refused = client.post(f"{address}changed/", SLIP)
    assert (refused.status_code, "letter for letter" in refused.content.decode()) == (422, True)
    refused = client.post(f"{address}changed/", {**SLIP, "entry-name": "", "read": "yes"})
    assert (refused.status_code, "It can’t be made like this yet" in refused.content.decode()) == (422, True)
    for _ in range(2):
        answer = client.post(f"{address}changed/", {**SLIP, "read": "yes"}, follow=True)
        assert "This is answered" in answer.content.decode()
    held.refresh_from_db()
    question.refresh_from_db()
    assert (held.state, question.state, held.changes.count()) == ("released", "corrected", 1)
    assert Agreement.objects.get(how="answer").texts == ["LOVE"]
    assert Job.objects.get().personalization == held.personalization
    assert order_now().waits_for == "station"


def test_approved_piece_goes_on_as_it_is(question, held, client):
    client.post(f"/question/{question.token}/so/")
    held.refresh_from_db()
    assert (held.state, held.findings.get().waived_why) == ("released", "The customer was asked and wants it so.")
    assert Question.objects.get().state == "approved"
    assert Job.objects.count() == 1


def test_written_answer_waits_for_the_desk(question, held, client, desk, actors):
    refused = client.post(f"/question/{question.token}/words/", {"text": "  "})
    assert (refused.status_code, "Please write your answer" in refused.content.decode()) == (422, True)
    client.post(f"/question/{question.token}/words/", {"text": "Please call it Lova"})
    held.refresh_from_db()
    assert (held.held_why, order_now().waits_for) == ("The customer answered: Please call it Lova", "desk")
    assert answer_as_it_is(actors["customer"], question.pk).state == "written"
    assert not Job.objects.exists()


def test_what_cant_be_made_isnt_approved(question, held, client, actors):
    held.findings.update(blocks=True)
    assert "Make it as it is" not in client.get(f"/question/{question.token}/").content.decode()
    with pytest.raises(DeskError):
        answer_as_it_is(actors["customer"], question.pk)
    assert client.post(f"/question/{question.token}/so/").status_code == 422


def test_question_taken_back_leaves_the_piece_to_the_desk(question, held, desk, client, wanted):
    with pytest.raises(DeskError, match="Take the question back"):
        mend_pieces(desk, held.pk, wanted(name="Love"), why="Clear enough")
    withdraw_question(desk, question.pk)
    assert (Question.objects.get().state, order_now().waits_for) == ("withdrawn", "desk")
    assert "settled this by itself" in client.get(f"/question/{question.token}/").content.decode()
    client.post(f"/question/{question.token}/so/")
    assert Question.objects.get().state == "withdrawn"


def test_cancelled_order_asks_nothing_any_more(question, client, desk):
    cancel_order(desk, order_now().pk)
    page = client.get(f"/question/{question.token}/").content.decode()
    assert "This order is cancelled" in page
    refused = client.post(f"/question/{question.token}/words/", {"text": "Still there?"})
    assert (refused.status_code, Question.objects.get().state) == (422, "open")
    assert remind_customers(SYSTEM_ACTOR, timezone.now()) == 0


def test_customer_is_reminded_after_two_days_and_after_five(question, desk):
    assert remind_customers(SYSTEM_ACTOR, timezone.now()) == 0
    for days, reminded in ((2, 1), (2, 0), (4, 0), (5, 1), (30, 0)):
        Question.objects.update(asked_at=timezone.now() - timedelta(days=days, minutes=1))
        assert remind_customers(SYSTEM_ACTOR, timezone.now()) == reminded, days
    assert {key for key in send_mails() if key.startswith("question-")} == {
        f"question-{question.pk}-{number}" for number in (0, 1, 2)
    }


def test_day_waits_along_and_the_order_says_so(held, desk, actors, question):
    Order.objects.update(leaves_on=date(2026, 3, 2), arrives_on=date(2026, 3, 4))
    Question.objects.update(asked_at=timezone.now() - timedelta(days=14))
    answered = answer_by_so(actors, question)
    order = order_now()
    assert answered.waited_days == 10
    assert (order.leaves_on, order.arrives_on) == (date(2026, 3, 16), date(2026, 3, 18))
    assert "took 10 working days" in order.events.get(kind="waited").words
    assert Job.objects.get().due_on == date(2026, 3, 16)


def answer_by_so(actors, question):
    return answer_as_it_is(actors["customer"], question.pk)


def test_answer_of_the_same_day_moves_nothing(question, actors):
    Order.objects.update(leaves_on=date(2026, 3, 2))
    assert working_days_waited(question) == 0
    answer_in_words(actors["customer"], question.pk, "Soon")
    assert order_now().leaves_on == date(2026, 3, 2)


def test_answer_that_comes_twice_counts_once(question, actors, wanted):
    answer_by_changing(actors["customer"], question.pk, wanted(name="Love"))
    answer_by_changing(actors["customer"], question.pk, wanted(name="Other"))
    assert Order.objects.get().lines.get().search_text == "LOVE"


def test_desk_asks_from_a_finding_in_one_click_with_the_wording_filled_in(held, sign_in):
    client = sign_in("desk")
    finding = held.findings.get()
    page = client.get(f"/workshop/desk/{held.pk}/?ask={finding.pk}").content.decode()
    assert "Before we make your piece" in page
    assert "Should it be “LOVE”" in page
    client.post(f"/workshop/desk/{held.pk}/ask/", {"text": "Love?", "finding": str(finding.pk)})
    assert Question.objects.get().finding == finding
    page = client.get(f"/workshop/desk/{held.pk}/").content.decode()
    assert "what the customer sees" in page
    client.post(f"/workshop/desk/questions/{Question.objects.get().pk}/back/")
    assert Question.objects.get().state == "withdrawn"


def test_customer_sees_the_question_on_the_order_page_but_others_dont(question, browser_of, visitor, client):
    token = order_now().token
    assert "We have a question" in browser_of(visitor).get(f"/order/{token}/").content.decode()
    assert "We have a question" not in client.get(f"/order/{token}/").content.decode()


def test_who_answers_very_often_in_a_short_time_waits(question, client, settings):
    settings.LIMITS = dict.fromkeys(settings.LIMITS, "3/day")
    answers = [client.post(f"/question/{question.token}/words/", {"text": " "}).status_code for _ in range(4)]
    assert answers == [422, 422, 422, 429]
    assert Question.objects.get().state == "open"
