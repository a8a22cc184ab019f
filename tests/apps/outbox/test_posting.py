import pytest

from yenzo.apps.outbox.posting import Mail, MailPicture, kept_outbox, message_of, post
from yenzo.gateways.mail.outbox import OutboxFolder


def mail(**others):
    facts = {
        "key": "2001-paid-customer",
        "sender": "a@b.example",
        "to": "c@d.example",
        "subject": "Ahoy ✓",
        "text": "نسيم\n",
    }
    return Mail(**(facts | others))


def send(outbox, wanted):
    return message_of(wanted, outbox).send()


def test_mail_is_kept_once_and_reads_back_as_it_was_sent(tmp_path):
    outbox = OutboxFolder(tmp_path / "out")
    send(outbox, mail(pictures=(MailPicture("front.png", b"\x89PNG"),)))
    send(outbox, mail(subject="Again"))
    kept = outbox.read("2001-paid-customer")
    assert (kept.subject, kept.text, kept.pictures, kept.to) == ("Ahoy ✓", "نسيم\n", 1, "c@d.example")
    handed_out = outbox.find("2001-paid-customer", lambda text: text.replace("نسيم", "Runa"))
    assert b"front.png" in handed_out
    assert b"Runa" in handed_out
    assert [path.name for path in (tmp_path / "out").iterdir()] == ["2001-paid-customer.eml"]


@pytest.mark.parametrize("between", ["\n", "\r\n", "\r", "\x0b", "\x0c", "\x85", "\u2028", "\u2029"])
def test_name_with_a_line_break_makes_one_line_of_the_subject_and_no_other_head(tmp_path, between):
    outbox = OutboxFolder(tmp_path)
    send(outbox, mail(subject=f"New order from Wilma{between}Bcc: all@post.example", pictures=()))
    assert outbox.read("2001-paid-customer").subject == "New order from Wilma Bcc: all@post.example"
    assert b"\nBcc:" not in (tmp_path / "2001-paid-customer.eml").read_bytes()


def test_mail_that_cannot_be_written_leaves_nothing_behind(tmp_path):
    with pytest.raises(ValueError, match="surrogate"):
        send(OutboxFolder(tmp_path), mail(text="half a pair: \ud800"))
    assert list(tmp_path.iterdir()) == []


def test_mails_are_forgotten_by_their_keys(tmp_path):
    outbox = OutboxFolder(tmp_path)
    send(outbox, mail())
    outbox.drop(["2001-paid-customer", "never-sent"])
    assert outbox.read("2001-paid-customer") is None


def test_key_never_leads_out_of_the_folder(tmp_path):
    (tmp_path / "secret.eml").write_text("secret")
    assert OutboxFolder(tmp_path / "out").find("../secret", str) is None


def test_real_post_gets_the_mail_with_its_name_and_pictures(settings, mailoutbox):
    settings.EMAIL_BACKEND = "django.core.mail.backends.locmem.EmailBackend"
    post(mail(pictures=(MailPicture("front.png", b"\x89PNG"),)))
    sent = mailoutbox[0]
    assert (sent.to, sent.subject, sent.attachments[0].get_filename()) == (["c@d.example"], "Ahoy ✓", "front.png")
    assert sent.message()["Message-ID"] == "<2001-paid-customer@b.example>"
    assert kept_outbox() is None
