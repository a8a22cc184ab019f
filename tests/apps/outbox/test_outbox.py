"""The outbox: one mail a key, few to one recipient unasked, staff see what is stuck and no secret link."""

import pytest
from django.test import Client

from tests.apps.conftest import ADDRESS, GUEST, on_attempt, send_mails
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.outbox.jobs import MOST_ATTEMPTS
from yenzo.apps.outbox.jobs import send_mail as send_job
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.outbox.services.mails import MailWish, send_mail, want_mail
from yenzo.apps.shop.services.sign_in import ask_for_link

pytestmark = pytest.mark.django_db


def page_of(answer):
    return answer.content.decode()


def test_same_key_makes_one_mail_and_it_goes_once(order):
    wish = MailWish(f"{order.number}-placed-customer", "order-asked-customer", str(order.pk), "wilma@post.example")
    assert want_mail(GUEST, wish).pk == want_mail(GUEST, wish).pk
    send_mails()
    sent_at = OutgoingMail.objects.get(key=wish.key).sent_at
    send_mail(SYSTEM_ACTOR, OutgoingMail.objects.get(key=wish.key).pk)
    assert OutgoingMail.objects.get(key=wish.key).sent_at == sent_at


def test_one_recipient_gets_few_mails_unasked_and_the_rest_waits_for_staff(settings, sign_in):
    settings.MAILS_TO_ONE_AN_HOUR = 2
    for spelling in ("rell@post.example", "Rell@post.example", "rell@POST.example", "rell@post.example"):
        ask_for_link(GUEST, spelling)
    ask_for_link(GUEST, "somebody@post.example")
    send_mails()
    states = list(OutgoingMail.objects.order_by("pk").values_list("state", flat=True))
    assert states == ["sent", "sent", "held", "held", "sent"]
    desk = sign_in("desk")
    page = page_of(desk.get("/workshop/outbox/"))
    assert "Many mails went to this address within an hour" in page
    held = OutgoingMail.objects.filter(state="held").first()
    assert "is on its way again" in page_of(desk.post(f"/workshop/outbox/{held.pk}/again/", follow=True))
    send_mails()
    held.refresh_from_db()
    assert held.state == "sent"


def test_mail_that_cannot_be_sent_is_told_to_staff_who_try_again(post, sign_in):
    ask_for_link(GUEST, "rell@post.example")
    mail = OutgoingMail.objects.get()
    # A file stands where the post's folder should be.
    post.rmdir()
    post.write_text("")
    with pytest.raises(OSError):
        send_job(on_attempt(0), mail_id=mail.pk)
    mail.refresh_from_db()
    assert (mail.state, "It is tried again by itself" in mail.trouble) == ("waiting", True)
    with pytest.raises(OSError):
        send_job(on_attempt(MOST_ATTEMPTS - 1), mail_id=mail.pk)
    mail.refresh_from_db()
    assert mail.state == "failed"
    desk = sign_in("desk")
    page = page_of(desk.get("/workshop/outbox/"))
    assert "It is not tried again by itself" in page
    assert "Try again" in page
    post.unlink()
    desk.post(f"/workshop/outbox/{mail.pk}/again/")
    assert f"sign-in-{mail.about}" in send_mails()


def test_staff_read_mails_without_the_links_that_are_the_customers_own(order, sign_in):
    ask_for_link(GUEST, "rell@post.example")
    send_mails()
    owner = sign_in("owner")
    page = page_of(owner.get("/workshop/outbox/"))
    assert "the customer&#x27;s own link" in page
    assert order.token not in page
    for mail in OutgoingMail.objects.all():
        handed_out = owner.get(f"/workshop/outbox/{mail.key}.eml").content.decode().replace("=\r\n", "")
        assert order.token not in handed_out
        assert "/account/" not in handed_out or "/account/=E2=80=A6" in handed_out or "…" in handed_out
    assert sign_in("seller").get("/workshop/outbox/").status_code == 403
    assert Client().get(f"/workshop/outbox/{mail.key}.eml").status_code == 302


@pytest.mark.parametrize("between", ["\n", "\x0b", "\x85", "\u2028"])
def test_name_with_a_separator_in_it_arrives_as_one_line(client, product, put_in_basket, visitor, browser_of, between):
    put_in_basket(visitor)
    browser = browser_of(visitor)
    form = {name: str(value) for name, value in browser.get("/checkout/").context["form"].initial.items()}
    facts = {"name": f"Wilma{between}Reedmaker", "mail": "wilma@post.example", **ADDRESS, "checked": "on"}
    assert browser.post("/checkout/", {**form, **facts}).status_code == 302
    sent = send_mails()
    assert [mail.subject for key, mail in sent.items() if key.endswith("-workshop")] == [
        f"New order {key.split('-')[0]} from Wilma Reedmaker" for key in sent if key.endswith("-workshop")
    ]


def test_order_of_before_with_an_address_that_would_be_refused_today_gets_its_mails_and_packs(order):
    from yenzo.apps.orders.models import Order
    from yenzo.apps.orders.paying import pay_order, tell_paid

    Order.objects.filter(pk=order.pk).update(customer_mail="wilma@b\u0131g.example", customer_identity="")
    pay_order(GUEST, order, "approves")
    tell_paid(order.pk)
    assert OutgoingMail.objects.filter(key=f"{order.number}-paid-customer", to="wilma@b\u0131g.example").exists()
