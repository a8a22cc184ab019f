"""Mails go through a real SMTP server, with words, HTML and pictures, each once."""

from email import policy
from email.parser import BytesParser

import pytest
from aiosmtpd.controller import Controller

from demo.installation import free_port
from tests.apps.conftest import GUEST
from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.orders.mails import want_order_mails
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.outbox.services.mails import send_mail

pytestmark = pytest.mark.django_db


class Received:
    """Keeps what an SMTP server is given."""

    def __init__(self):
        self.messages = []

    async def handle_DATA(self, server, session, envelope):  # noqa: N802 - the name that the library asks for
        self.messages.append((envelope.rcpt_tos, BytesParser(policy=policy.default).parsebytes(envelope.content)))
        return "250 OK"


@pytest.fixture
def server(settings):
    received = Received()
    controller = Controller(received, hostname="127.0.0.1", port=free_port())
    controller.start()
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = controller.server.sockets[0].getsockname()[:2]
    yield received
    controller.stop()


def sent(server, order):
    want_order_mails(GUEST, order, "paid")
    for mail in OutgoingMail.objects.filter(state="waiting", writer__startswith="order-paid"):
        send_mail(SYSTEM_ACTOR, mail.pk)
    return {to[0]: message for to, message in server.messages}


def test_order_arrives_as_words_and_html_with_its_pictures_in_the_text(server, order):
    message = sent(server, order)["wilma@post.example"]
    assert message["Subject"] == f"Your order {order.number} is paid"
    plain, html = (message.get_body((kind,)).get_content() for kind in ("plain", "html"))
    assert "WIND & WHEY" in plain
    assert "WIND &amp; WHEY" in html
    pictures = {part["Content-ID"].strip("<>"): part.get_content() for part in message.walk() if part["Content-ID"]}
    assert pictures
    for name, data in pictures.items():
        assert f'src="cid:{name}"' in html
        assert data.startswith(b"\x89PNG")


def test_mail_that_was_sent_is_not_sent_again(server, order):
    sent(server, order)
    count = len(server.messages)
    sent(server, order)
    for mail in OutgoingMail.objects.filter(state="sent"):
        send_mail(SYSTEM_ACTOR, mail.pk)
    assert len(server.messages) == count


def test_server_that_is_away_leaves_the_mail_to_be_tried_again(settings, order):
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 1
    mail = OutgoingMail.objects.filter(state="waiting").first()
    with pytest.raises(OSError, match="refused"):
        send_mail(SYSTEM_ACTOR, mail.pk)
    mail.refresh_from_db()
    assert mail.state == "waiting"
