"""Pages for faults of ours: a database that is away, a disk that is full, anything else; none needs the database."""

import errno

import pytest
from django.db import InterfaceError, OperationalError
from django.test import RequestFactory
from procrastinate.exceptions import ConnectorException
from psycopg_pool import PoolTimeout

from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.views.errors import server_error


def answer_to(error, method="get", **headers):
    request = getattr(RequestFactory(), method)("/basket/", headers=headers)
    try:
        raise error
    except type(error):
        return server_error(request)


@pytest.mark.parametrize(
    "error", [OperationalError("gone"), InterfaceError("closed"), PoolTimeout("none free"), ConnectorException("gone")]
)
def test_database_that_is_away_is_a_polite_wait_and_a_page_that_loads_itself_again(error):
    answer = answer_to(error)
    page = answer.content.decode()
    assert (answer.status_code, answer["Retry-After"]) == (503, "3")
    assert "is back in a moment" in page
    assert 'http-equiv="refresh"' in page
    assert "gone" not in page


def test_form_that_was_sent_meanwhile_is_not_sent_again_by_itself():
    page = answer_to(OperationalError("gone"), "post").content.decode()
    assert 'http-equiv="refresh"' not in page
    assert "send it again" in page


def test_part_of_a_page_is_answered_in_plain_words():
    answer = answer_to(OperationalError("gone"), **{"HX-Request": "true"})
    assert answer["Content-Type"].startswith("text/plain")


@pytest.mark.parametrize("number", [errno.ENOSPC, errno.EDQUOT, errno.EFBIG])
def test_full_disk_is_told_as_what_it_is(number):
    answer = answer_to(OSError(number, "no room"))
    assert (answer.status_code, "no room for more files" in answer.content.decode()) == (507, True)


def test_other_fault_is_said_without_its_inside():
    answer = answer_to(RuntimeError("secret detail"))
    assert (answer.status_code, "secret" in answer.content.decode()) == (500, False)


@pytest.mark.parametrize("field", [LineField(), LinesField()])
def test_form_field_leaves_out_what_shows_nothing_and_refuses_what_turns_letters(field):
    assert field.clean("Wil\u200bma") == "Wilma"
    with pytest.raises(Exception, match="right-to-left override"):
        field.clean("Wil\u202ema")


def test_line_of_a_form_is_one_line_whatever_breaks_it():
    assert LineField().clean("Wilma\u2028\x0bReed\x85maker") == "Wilma Reed maker"
