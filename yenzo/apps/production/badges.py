"""Badges: who works at a station says so by a scan; a person comes in, the code of their badge goes out, and back."""

import re

from django.core import signing
from django.http import HttpRequest

from yenzo.apps.accounts.models import Person, Role
from yenzo.apps.accounts.rights import Actor, actor_of

# "P-12-6fWx0aQz": whose badge it is, and that this installation has printed it.
BADGE = re.compile(r"P-(?P<pk>\d{1,9})-(?P<mark>[A-Za-z0-9_-]{10})", re.ASCII)
STATION = re.compile(r"S-(?P<key>[a-z0-9_-]{1,60})", re.ASCII | re.IGNORECASE)
SALT, MARK_LETTERS = "yenzo.badge", 10
AT_WORK = "at_work"


def badge_of(person: Person) -> str:
    """Return the code of somebody's badge."""
    mark = signing.Signer(salt=SALT).signature(str(person.pk))[:MARK_LETTERS]
    return f"P-{person.pk}-{mark}"


def person_of_badge(scanned: str) -> Person | None:
    """Return whose badge was scanned; None for what is no badge, or one of somebody who has left."""
    named = BADGE.fullmatch(scanned.strip())
    person = Person.objects.filter(pk=int(named["pk"]), is_active=True).first() if named else None
    return person if person is not None and badge_of(person) == scanned.strip() else None


def come_to_work(request: HttpRequest, person: Person | None) -> None:
    """Remember who works at this screen; None for whoever is signed in."""
    if person is None:
        request.session.pop(AT_WORK, None)
    else:
        request.session[AT_WORK] = person.pk


def at_work(request: HttpRequest) -> Person:
    """Return who works at this screen: who has scanned their badge, else who is signed in."""
    assert isinstance(request.user, Person)
    kept: int | None = request.session.get(AT_WORK)
    if kept is None:
        return request.user
    return Person.objects.filter(pk=kept, is_active=True).first() or request.user


def worker_of(request: HttpRequest) -> Actor:
    """Return who acts at a station. A badge lets nobody do more than make things."""
    person = at_work(request)
    return actor_of(person) if person == request.user else Actor(Role.DECORATOR, str(person), person)
