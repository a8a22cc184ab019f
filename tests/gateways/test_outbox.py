from yenzo.gateways.mail.interface import Mail, MailPicture
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


def test_mail_is_kept_once_and_reads_back_as_it_was_sent(tmp_path):
    outbox = OutboxFolder(tmp_path / "out")
    outbox.send(mail(pictures=(MailPicture("front.png", b"\x89PNG"),)))
    outbox.send(mail(subject="Again"))
    kept = outbox.kept()
    assert [(one.subject, one.text, one.pictures, one.to) for one in kept] == [("Ahoy ✓", "نسيم\n", 1, "c@d.example")]
    assert b"front.png" in outbox.find("2001-paid-customer")


def test_key_never_leads_out_of_the_folder(tmp_path):
    (tmp_path / "secret.eml").write_text("secret")
    assert OutboxFolder(tmp_path / "out").find("../secret") is None
