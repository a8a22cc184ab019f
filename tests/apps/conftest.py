"""Builders for the apps' tests: staff, a small live product, a visitor with a basket, an order."""

import uuid
from types import SimpleNamespace

import pytest
from django.db import connection
from django.test import Client

from tests.core.conftest import GOODS, PHOTO, TYPEFACES, board
from yenzo.apps.accounts import limiting
from yenzo.apps.accounts.models import Person, Role
from yenzo.apps.accounts.rights import CUSTOMER, SYSTEM_ACTOR, Actor, actor_of
from yenzo.apps.designs.jobs import look_at_upload
from yenzo.apps.designs.listed import begin_check
from yenzo.apps.designs.models import NameList, Upload
from yenzo.apps.designs.services.designs import save_design
from yenzo.apps.designs.services.lists import begin_list, fill_list
from yenzo.apps.designs.to_core import evaluate_entries
from yenzo.apps.files.store import store_file
from yenzo.apps.materials.models import Material
from yenzo.apps.orders.services.orders import Customer
from yenzo.apps.outbox.models import OutgoingMail
from yenzo.apps.outbox.posting import kept_outbox
from yenzo.apps.outbox.services.mails import send_mail
from yenzo.apps.products.services.products import import_product
from yenzo.apps.products.services.publishing import publish_setup
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.shop import preview_cache
from yenzo.apps.shop.services.checkout import Checkout, basket_digest, order_basket
from yenzo.core.documents.reading import read_entries
from yenzo.core.lists.columns import match_columns, targets_of
from yenzo.core.lists.tables import read_pasted

# What a checkout is sent with.
ADDRESS = {"street": "Berth 14", "postcode": "PO1 3AX", "town": "Port Hallow", "country": "GB"}
GUEST = Actor(CUSTOMER, "Customer")


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup, django_db_blocker):
    """A database that is used again has no jobs of the run before: their tables aren't Django's, so no flush empties them."""
    with django_db_blocker.unblock(), connection.cursor() as cursor:
        cursor.execute("TRUNCATE procrastinate_jobs CASCADE")


@pytest.fixture
def people(db, settings):
    # Slow hashing is for guessers, not for tests.
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    return {
        role: Person.objects.create_user(username=role, password="pass-word-9", first_name=role.title(), role=role)
        for role in Role.values
    }


@pytest.fixture
def actors(people):
    return {role: actor_of(person) for role, person in people.items()} | {"customer": GUEST, "system": SYSTEM_ACTOR}


@pytest.fixture
def owner(actors):
    return actors["owner"]


@pytest.fixture
def sign_in(people):
    def signed_in(role):
        client = Client()
        client.force_login(people[role])
        return client

    return signed_in


@pytest.fixture
def product(owner):
    """A board that is live as revision 1."""
    document = board()
    Material.objects.bulk_create(
        Material(kind=kind, key=key, document=material)
        for kind, documents in document["materials"].items()
        for key, material in documents.items()
    )
    for key in document["materials"]["typefaces"]:
        store_file((TYPEFACES / f"{key}.ttf").read_bytes())
    store_file(GOODS, is_public=True)
    made = import_product(owner, document, key="board")
    publish_setup(owner, made.pk, seen_version=made.draft_version)
    made.refresh_from_db()
    return made


@pytest.fixture
def visitor():
    return uuid.uuid4()


@pytest.fixture
def browser_of():
    """A test client whose session is a visitor's."""

    def client_of(visitor):
        client = Client()
        session = client.session
        session["visitor"] = str(visitor)
        session.save()
        return client

    return client_of


@pytest.fixture
def make_upload(db):
    def made(visitor, name="otter.jpg", size=(600, 400)):
        stored = store_file(PHOTO)
        return Upload.objects.create(
            visitor=visitor,
            name=name,
            kind="jpeg",
            width_px=size[0],
            height_px=size[1],
            original=stored,
            prepared=stored,
            shown=stored,
        )

    return made


@pytest.fixture
def put_in_basket(product):
    def put(visitor, upload=None, **values):
        document = {"values": {"name": "Wind & Whey", **values}}
        if upload:
            document["values"]["with_photo"] = True
            document["uploads"] = {"photo": upload.for_entries.model_dump(mode="json")}
        entries, uploads = read_entries(document), [upload] if upload else []
        evaluation = evaluate_entries(product.live, entries)
        return save_design(GUEST, product.live, entries, evaluation, visitor=visitor, uploads=uploads)

    return put


@pytest.fixture
def make_list(product):
    """A list of boards as it was pasted, its rows checked."""

    def made(visitor, *rows, heads="Name", **common):
        table = read_pasted("\n".join((heads, *(rows or ("Wilma", "Otto")))))
        entries = read_entries({"values": common})
        names = begin_list(GUEST, product.live, entries, visitor=visitor, uploads=[])
        columns = match_columns(table, targets_of(shop_setup(product.live)), {})
        fill_list(GUEST, names.pk, table, columns, visitor=visitor, adds=False)
        names = NameList.objects.select_related("revision__product__live").get(pk=names.pk)
        begin_check(GUEST, names)
        return names

    return made


@pytest.fixture
def checkout_of():
    def made(visitor, designs, **others):
        key = others.pop("key", uuid.uuid4())
        facts = {"name": "Wilma Reedmaker", "mail": "wilma@post.example", "address": "Berth 14"}
        return Checkout(key, Customer(visitor, **(facts | others)), basket_digest(designs))

    return made


@pytest.fixture
def order(visitor, put_in_basket, checkout_of):
    """An order of one board that waits for payment."""
    return order_basket(GUEST, checkout_of(visitor, [put_in_basket(visitor)]))


def on_attempt(number):
    """What a job is told of itself on an attempt that comes after so many."""
    return SimpleNamespace(job=SimpleNamespace(attempts=number))


def looked_at(client, answer):
    """Let the worker look at a file that was just sent; return what the page that waits for it is answered."""
    if answer.status_code != 202:
        return answer
    upload = Upload.objects.get(pk=answer["Location"].split("/")[2])
    look_at_upload(on_attempt(0), upload_id=str(upload.pk))
    return client.get(answer["Location"])


def send_mails():
    """Send what is on its way, as the worker does; return all that was sent by its key."""
    for waiting in OutgoingMail.objects.filter(state="waiting").order_by("pk"):
        send_mail(SYSTEM_ACTOR, waiting.pk)
    sent = OutgoingMail.objects.filter(state="sent").order_by("pk")
    return {mail.key: kept_outbox().read(mail.key) for mail in sent}


@pytest.fixture(autouse=True)
def _uncounted(settings):
    """Each test's actions are counted from nothing; those of previews live in the process and are many."""
    limiting._own.storage.reset()


@pytest.fixture(autouse=True)
def _read_anew(monkeypatch):
    """Previews of tests follow upon changes at once."""
    for what in ("live_revision", "stock"):
        monkeypatch.setattr(preview_cache, what, getattr(preview_cache, what).__wrapped__)


@pytest.fixture(autouse=True)
def _own_files(settings, worker_id):
    """Files of each test process's own: some tests damage them."""
    folder = settings.FILES_ROOT / worker_id
    folder.mkdir(exist_ok=True)
    settings.FILES_ROOT = settings.MEDIA_ROOT = folder


@pytest.fixture(autouse=True)
def post(settings, tmp_path_factory):
    """A post of each test's own."""
    folder = tmp_path_factory.mktemp("post")
    settings.EMAIL_BACKEND, settings.OUTBOX_FOLDER = "yenzo.gateways.mail.outbox.OutboxFolder", folder
    return folder


@pytest.fixture
def make_pack():
    """Pay an order and make the pack of its first line."""
    from yenzo.apps.orders.paying import pay_order, tell_paid
    from yenzo.apps.production.making import make
    from yenzo.apps.production.models import Pack

    def made(order):
        pay_order(GUEST, order, "approves")
        tell_paid(order.pk)
        pack = Pack.objects.filter(line__order=order).earliest("pk")
        make(pack.pk)
        pack.refresh_from_db()
        return pack

    return made
