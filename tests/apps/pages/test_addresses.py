"""Mail addresses as identities: what differs anywhere but in ASCII's case is somebody else, or is refused."""

import sys

import pytest

from yenzo.apps.pages.addresses import AddressError, mail_identity

ASCII = set(map(chr, range(128)))
# Every character whose upper or lower form, or compatible form, begins with or is ASCII.
FOLDED = [
    char
    for char in map(chr, range(128, sys.maxunicode + 1))
    if any(part in ASCII for part in (*char.upper(), *char.lower(), *char.casefold()))
]


def same_or_refused(address, victim):
    try:
        return mail_identity(address) == victim
    except AddressError:
        return False


def test_address_is_compared_by_ascii_case_and_its_domain_as_idna_has_it():
    assert mail_identity(" Rell@Harbor.Example ") == "rell@harbor.example"
    assert mail_identity("Jörg@Köln.example") == "Jörg@xn--kln-sna.example".lower()
    assert mail_identity("rell@xn--kln-sna.example") == mail_identity("rell@KÖLN.example".replace("Ö", "ö"))


def test_no_character_that_folds_to_ascii_makes_an_address_somebody_elses():
    assert "ı" in FOLDED
    assert "ſ" in FOLDED
    assert "\u212a" in FOLDED
    for char in FOLDED:
        for ascii_letter in set(char.upper() + char.lower() + char.casefold()) & ASCII:
            letter = ascii_letter.lower()
            assert not same_or_refused(f"vi{char}x@big.example", f"vi{letter}x@big.example"), char
            assert not same_or_refused(f"vix@bi{char}.example", f"vix@bi{letter}.example"), char


@pytest.mark.parametrize(
    "mail",
    ["a@b\u0131g.example", "a@\u0440\u0430\u0443\u0440\u04301.example", "a@\u043faypal.example", "\u212a@x.example"],
)
def test_address_that_looks_like_another_is_refused(mail):
    with pytest.raises(AddressError, match="lookalike"):
        mail_identity(mail)


@pytest.mark.parametrize(
    "mail", ["", "a", "a@", "@b.example", "a@b", "a b@c.example", "a@b..example", f"{'a' * 300}@b.example"]
)
def test_what_is_no_address_is_refused(mail):
    with pytest.raises(AddressError, match="no_address"):
        mail_identity(mail)


@pytest.mark.parametrize("domain", ["münchen.example", "æble.example", "почта.example", "例え.example", "łódź.example"])
def test_domains_of_many_languages_are_taken(domain):
    assert mail_identity(f"a@{domain}").isascii()
