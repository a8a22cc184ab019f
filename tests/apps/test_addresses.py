"""Every address there is: looked at by the owner, nothing changes; sent nonsense, it answers in words of ours."""

import random
import re
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import Client
from django.urls import URLPattern, URLResolver, get_resolver, reverse

from tests.sweeping import shards
from yenzo.apps.accounts.models import Person
from yenzo.apps.accounts.rights import actor_of
from yenzo.apps.desk.models import Finding, Preflight, Question
from yenzo.apps.desk.services.questions import ask_customer
from yenzo.apps.orders.models import Difference
from yenzo.apps.production.models import Job
from yenzo.apps.production.services.jobs import begin_job, count_made
from yenzo.apps.production.services.packing import put_in_parcel
from yenzo.apps.products.services.kits import create_kit

pytestmark = pytest.mark.django_db
# Sessions may note who is there; all else stays as it was.
NOT_COMPARED = {"django_session"}
UGLY = [
    *(
        "",
        " ",
        "\x00",
        "a\x00b",
        "%00",
        "\ud800",
        "\u202e",
        "\u200b",
        "\ufffe",
        "é",
        "مرحبا",
        "🎉",
        "<script>",
        "'; --",
        "{{ 7*7 }}",
    ),
    *(
        "-1",
        "0",
        "1e309",
        "NaN",
        "inf",
        "9" * 5000,
        "٣",
        "1,5",
        "x" * 100_000,
        "\n",
        "\r\n",
        "../../etc/passwd",
        "%s",
        "null",
    ),
    *("2026-13-45", "0001-01-01", "#12345g", "on", "[]", '{"a": 1}', "a@b\x85c", str(uuid.UUID(int=0)), "f" * 64),
]
# Only a URL's own escapes can bring these into an address.
SEEDS = 100
REQUESTS_A_SEED = 40


def patterns(resolver=None, namespace=""):
    for pattern in (resolver or get_resolver()).url_patterns:
        if isinstance(pattern, URLResolver):
            yield from patterns(pattern, f"{namespace}{pattern.namespace}:" if pattern.namespace else namespace)
        elif isinstance(pattern, URLPattern) and pattern.name:
            yield f"{namespace}{pattern.name}", pattern.pattern.converters


@pytest.fixture
def world(product, owner, order, make_pack, put_in_basket, visitor, make_upload, make_list):
    """Values for the parameters of addresses, of things that are there."""
    kit = create_kit(owner, name="Gift", currency="GBP")
    pack = make_pack(order)
    design, upload = put_in_basket(visitor), make_upload(visitor)
    live = product.live
    preflight = Preflight.objects.get()
    job = begin_job(owner, Job.objects.get().pk)
    count_made(owner, job.pk, 1)
    item = put_in_parcel(owner, order.pk, preflight.line_id, 1)
    finding = Finding.objects.create(
        preflight=preflight, personalization=preflight.personalization, code="coarse", message="Coarse", blocks=False
    )
    difference = Difference.objects.create(order=order, amount=1, why="Longer")
    question = ask_customer(actor_of(Person.objects.get(role="desk")), preflight.pk, "Right so?", finding.pk)
    return {
        "item_id": item.pk,
        "parcel_id": item.parcel_id,
        "preflight_id": preflight.pk,
        "finding_id": finding.pk,
        "question_id": question.pk,
        "difference_id": difference.pk,
        "change_id": 1,
        "when": "before",
        "key": product.key,
        "list_id": str(make_list(visitor).pk),
        "index": 1,
        "note_id": 1,
        "agreement_id": 1,
        "job_id": 1,
        "part": "name",
        "digest": "none",
        "kit": kit.key,
        "product_key": product.key,
        "side_key": "front",
        "area_key": "panel",
        "field_key": "name",
        "aspect_key": "label",
        "section_key": "none",
        "variant_key": "none",
        "number": order.number,
        "line_number": 1,
        "line_id": pack.line_id,
        "mail_id": 1,
        "upload_id": upload.pk,
        "design_id": design.pk,
        "token": order.token,
        "sha256": live.sha256,
        "file_id": "00000000-0000-4000-8000-000000000000",
        "width_px": 360,
    }


def address_of(name, converters, world):
    if name.startswith("desk:") and "token" in converters:
        world = {**world, "token": Question.objects.get().token}
    return reverse(name, kwargs={key: world[key] for key in converters})


def everything():
    """Return a digest of each table."""
    with connection.cursor() as cursor:
        tables = set(connection.introspection.table_names(cursor)) - NOT_COMPARED
        found = {}
        for table in sorted(tables):
            cursor.execute(f"SELECT md5(coalesce(string_agg(t::text, '|' ORDER BY t::text), '')) FROM \"{table}\" t")
            found[table] = cursor.fetchone()[0]
        return found


@pytest.mark.sweep
def test_looking_at_any_address_as_owner_changes_nothing(world, sign_in, visitor):
    owner = sign_in("owner")
    session = owner.session
    session["visitor"] = str(visitor)
    session.save()
    owner.raise_request_exception = False
    before, seen = everything(), 0
    for name, converters in patterns():
        for query in ("", "?way=undo&do=rest&seen=1&go=next"):
            answer = owner.get(address_of(name, converters, world) + query)
            assert answer.status_code < 500, name
            content_of(answer)
            seen += 1
    assert seen > 150
    assert everything() == before


def test_service_that_is_asked_for_by_looking_refuses(product, owner):
    from yenzo.apps.accounts.request_guard import is_safe_request
    from yenzo.apps.products.services.products import duplicate_product

    token = is_safe_request.set(True)
    try:
        with pytest.raises(Exception, match="Looking at an address changes nothing"):
            duplicate_product(owner, product.pk)
    finally:
        is_safe_request.reset(token)


def content_of(answer):
    """Return what was answered; of a file that is handed out bit by bit, all of it."""
    return b"".join(answer.streaming_content) if answer.streaming else answer.content


def is_ours(answer):
    """Tell whether a refusal is a page or words of ours."""
    kind = answer.headers.get("Content-Type", "")
    if answer.status_code in {301, 302, 303, 304, 405}:
        return True
    text = content_of(answer).decode(errors="replace")
    return (
        "<main id=" in text
        or kind.startswith(("text/plain", "image/", "application/octet"))
        or "<div" in text
        or "<form" in text
    )


NAMES = re.compile(r'name="([^"]+)"')


def nonsense(chance, names, pages):
    """Return a form with some of the names that pages have, filled with ugly values."""
    form = {name: chance.choice(UGLY) for name in chance.sample(names, min(len(names), chance.randint(0, 8)))}
    if chance.random() < 0.1:
        form["file"] = SimpleUploadedFile(chance.choice(["x.png", "../x", "\u202egnp.exe"]), chance.randbytes(30))
    return form


@pytest.mark.parametrize("part", shards(SEEDS, in_test=3))
def test_nonsense_sent_anywhere_is_answered_in_our_words(part, world, sign_in, visitor, settings):
    settings.LIMITS = dict.fromkeys(settings.LIMITS, "100000/minute")
    chance, all_patterns = random.Random(part), list(patterns())
    clients = {role: sign_in(role) for role in ("owner", "decorator")} | {"customer": Client()}
    for client in clients.values():
        client.raise_request_exception = False
        session = client.session
        session["visitor"] = str(visitor)
        session.save()
    names = {
        "": [
            "q",
            "page",
            "seen",
            "selected",
            "design",
            "way",
            "go",
            "next",
            "field",
            "threshold",
            "checkout_key",
            "username",
        ]
    }
    for _ in range(REQUESTS_A_SEED):
        name, converters = chance.choice(all_patterns)
        address = address_of(name, converters, world)
        if chance.random() < 0.2:
            # An address with one of its parts made ugly.
            part = chance.choice(UGLY)[:300].encode("utf-8", "surrogatepass")
            pieces = address.split("/")
            pieces[chance.randrange(1, len(pieces))] = "".join(f"%{byte:02X}" for byte in part)
            address = "/".join(pieces)
        client = clients[chance.choice(list(clients))]
        if name not in names:
            page = client.get(address_of(name, converters, world))
            text = content_of(page).decode("utf-8", "replace") if page.status_code == 200 else ""
            names[name] = sorted(set(NAMES.findall(text)))
        sent = nonsense(chance, [*names[name], *names[""]], None)
        query = {key: str(value) for key, value in nonsense(chance, names[""], None).items() if key != "file"}
        said = "&".join(
            f"{key}={''.join(f'%{byte:02X}' for byte in value[:2000].encode('utf-8', 'surrogatepass'))}"
            for key, value in query.items()
        )
        headers = {"HX-Request": "true"} if chance.random() < 0.3 else {}
        if chance.random() < 0.5:
            answer = client.get(f"{address}?{said}", headers=headers)
        else:
            clean = {
                key: value.encode("utf-8", "replace").decode() if isinstance(value, str) else value
                for key, value in sent.items()
            }
            answer = client.post(f"{address}?{said}", clean, headers=headers)
        content_of(answer)
        assert answer.status_code < 500, (
            part,
            answer.request["REQUEST_METHOD"],
            name,
            address,
            said[:300],
            {k: str(v)[:80] for k, v in sent.items()},
        )
        if answer.status_code >= 400:
            assert is_ours(answer), (part, name, address, answer.content[:300])


ODD = {
    "a cookie with NUL": {"HTTP_COOKIE": 'sessionid="a\\000b"'},
    "a form in UTF-16": {"CONTENT_TYPE": "application/x-www-form-urlencoded; charset=utf-16"},
    "an unknown charset": {"CONTENT_TYPE": "application/x-www-form-urlencoded; charset=klingon"},
    "another host": {"HTTP_HOST": "elsewhere.example"},
    "a host of nonsense": {"HTTP_HOST": "a b\x00"},
    "a length that is none": {"CONTENT_LENGTH": "many"},
    "half of a multipart form": {"CONTENT_TYPE": "multipart/form-data"},
}


@pytest.mark.parametrize("what", ODD)
@pytest.mark.parametrize(
    "address", ["/", "/basket/", "/goods/board/preview/", "/goods/board/basket/", "/workshop/sign-in/", "/uploads/"]
)
def test_odd_request_gets_a_page_of_ours(product, what, address):
    client = Client(raise_request_exception=False)
    for answer in (
        client.get(address, **ODD[what]),
        client.generic("POST", address, b"a=1", **{"CONTENT_TYPE": "application/x-www-form-urlencoded", **ODD[what]}),
    ):
        assert answer.status_code < 500
        if answer.status_code >= 400:
            assert is_ours(answer), answer.content[:200]


def test_bare_page_of_the_framework_never_shows(client, db):
    client.raise_request_exception = False
    answer = client.get("/goods/%00/")
    assert answer.status_code == 400
    assert "This can&#x27;t be read" in answer.content.decode()
    assert answer.headers["Content-Security-Policy"]


def test_sign_in_name_of_any_length_is_refused_in_words(client, people):
    answer = client.post("/workshop/sign-in/", {"username": "x" * 100_000, "password": "y" * 100_000})
    assert answer.status_code == 200
    assert "errorlist" in answer.content.decode() or "problem" in answer.content.decode()
