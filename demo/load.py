"""Loads the demo workshop into an empty database, through the services that people use (`python -m demo.load`)."""

import hashlib
import json
import os
import uuid
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from datetime import timedelta
from decimal import Decimal
from pathlib import Path
from typing import Any

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "yenzo.config.settings")
django.setup()

from django.conf import settings  # noqa: E402
from django.contrib.auth.hashers import make_password  # noqa: E402
from django.db import connection, transaction  # noqa: E402 - models need the settings first
from django.urls import reverse  # noqa: E402
from django.utils import timezone  # noqa: E402

from yenzo.apps.accounts.models import Person, Role  # noqa: E402
from yenzo.apps.accounts.rights import CUSTOMER, SYSTEM_ACTOR, Actor, actor_of  # noqa: E402
from yenzo.apps.designs.listed import begin_check  # noqa: E402
from yenzo.apps.designs.models import Design, Look, Upload  # noqa: E402
from yenzo.apps.designs.services.designs import save_design  # noqa: E402
from yenzo.apps.designs.services.lists import begin_list, fill_list  # noqa: E402
from yenzo.apps.designs.services.looks import show_design, show_list  # noqa: E402
from yenzo.apps.designs.services.uploads import look_at_upload, receive_upload  # noqa: E402
from yenzo.apps.designs.to_core import walk_entries  # noqa: E402
from yenzo.apps.materials.services.artwork import add_made_artwork  # noqa: E402
from yenzo.apps.materials.services.materials import add_font, save_material  # noqa: E402
from yenzo.apps.orders.delivering import offered_ways  # noqa: E402
from yenzo.apps.orders.models import Order  # noqa: E402
from yenzo.apps.orders.paying import pay_order  # noqa: E402
from yenzo.apps.orders.services.orders import Customer, Wishes, cancel_order  # noqa: E402
from yenzo.apps.production.models import Job, Pack  # noqa: E402
from yenzo.apps.production.services.jobs import (  # noqa: E402
    begin_job,
    count_made,
    count_spoilt,
    make_jobs,
    save_station,
    send_order,
)
from yenzo.apps.products.models import Product  # noqa: E402
from yenzo.apps.products.services.drafts import edit_draft  # noqa: E402
from yenzo.apps.products.services.kits import create_kit, publish_kit, set_kit_scope  # noqa: E402
from yenzo.apps.products.services.pictures import add_goods_picture  # noqa: E402
from yenzo.apps.products.services.products import import_product  # noqa: E402
from yenzo.apps.products.services.publishing import publish_setup  # noqa: E402
from yenzo.apps.products.to_core import setup_of_revision  # noqa: E402
from yenzo.apps.shop.services.checkout import Checkout, basket_digest, order_basket  # noqa: E402
from yenzo.apps.shop.services.sign_in import ask_for_link  # noqa: E402
from yenzo.apps.stock.services.stock import count_stock  # noqa: E402
from yenzo.apps.workshop.services.workshop import change_workshop  # noqa: E402
from yenzo.core.artwork.facts import Preparation  # noqa: E402
from yenzo.core.documents.fields import ArtworkField  # noqa: E402
from yenzo.core.documents.reading import read_entries  # noqa: E402
from yenzo.core.lists.columns import match_columns, targets_of  # noqa: E402
from yenzo.core.lists.tables import read_pasted  # noqa: E402
from yenzo.gateways.payment.practice import APPROVES  # noqa: E402

HERE = Path(__file__).parent
TYPEFACES = HERE.parent / "yenzo" / "materials" / "typefaces"
PEOPLE = (
    ("mara", "Mara", Role.OWNER),
    ("iris", "Iris", Role.SELLER),
    ("noor", "Noor", Role.DESK),
    ("piet", "Piet", Role.DECORATOR),
)
# One more than a recipient gets in an hour.
LINKS_TO_A_STRANGER = 7
STOCK = {"BS-4": 24, "SB-185": 9, "DC-450": 60, "BC-72": 14}
PASSWORD = "tern-and-tiller"
GUEST = Actor(CUSTOMER, "Customer")


@dataclass(frozen=True)
class DemoOrder:
    """An invented order: who, what, and how far it gets."""

    name: str
    address: str
    pieces: tuple[tuple[str, str], ...]
    end: str


ORDERS = (
    DemoOrder(
        "Wilma Reedmaker",
        "Berth 14, North Pontoon\nPort Hallow",
        (("cedar-nameboard", "wind-and-whey"), ("deck-cushion", "halcyon-days")),
        "paid",
    ),
    DemoOrder("Tobias Anchorsmith", "3 Chandlers Steps\nSandwick", (("deck-cushion", "arabic"),), "waiting"),
    DemoOrder("Juna Farwater", "Lock Cottage, Upper Basin\nEastmere", (("deck-cushion", "coarse-photo"),), "paid"),
    DemoOrder("Ines Shoalwater", "The Net Loft\nSandwick", (("windbreak", "three"),), "paid"),
    DemoOrder("Nils Sandbar", "The Boathouse\nEastmere", (("key-float", "ten"),), "paid"),
    DemoOrder("Pelle Farwater", "Lock Cottage, Upper Basin\nEastmere", (("harbor-pass", "season"),), "paid"),
    DemoOrder("Runa Seawright", "Signal House\nSkerry Point", (("brass-compass", "with-pictures"),), "paid"),
    DemoOrder("Tova Longshore", "Berth 9, South Pontoon\nPort Hallow", (("slate-sign", "sea-legs"),), "paid"),
    DemoOrder(
        "Oskar Lightkeeper", "The Old Beacon\nSkerry Point", (("cedar-nameboard", "wind-and-whey"),), "cancelled"
    ),
)


# What the workshop says of itself.
WORKSHOP: dict[str, Any] = {
    "address": "The Slipway\nPort Hallow\nPO1 3AX",
    "tax_number": "GB 000 0000 00",
    "calendar": {"holidays_of": "GB-SCT", "lead_days": 3},
    "deliveries": [
        {
            "key": "post",
            "name": "Letter post",
            "price": "4.50",
            "free_from": "90",
            "countries": ["GB", "IE"],
            "days": 3,
        },
        {"key": "courier", "name": "Courier", "price": "9.80", "days": 1},
        {"key": "quay", "name": "Pick up at the slipway", "days": 0, "is_pickup": True},
    ],
}
# Where things are made: by key its name, what is done there, hours on a weekday.
STATIONS: dict[str, tuple[str, list[str], float]] = {
    "bench": ("Carving bench", ["carving", "deep-cut"], 6),
    "graver": ("Graver", ["engraving"], 7),
    "press": ("Print room", ["transfer-print", "pad-print", "dial-print", "hot-iron"], 7),
    "loft": ("Sail loft", ["embroidery", "cut-cloth"], 8),
    "packing": ("Packing table", [""], 4),
}
# A crew that is written down in a spreadsheet; three of its rows can't be made as they stand.
CREW = """Name\tJob aboard\tPieces
Wilma\tSkipper\t1
Otto\tMate\t2
Juna\tEngineer\t1
Pelle\tCook\t1
Runa\tDeck hand\t1
Tova\tDeck hand\t1
Bartholomew-James\tDeck hand\t1
Ines\tMate\t1
Nils\tDeck hand\t1
Oskar\tStoker\t1
Maren\tCook\t1
Levi\tDeck hand\t1
Sunniva\tMate\t1
Kaj\tDeck hand\t1
Liv\tDeck hand\t1
Tobias\tEngineer\t1
Alma\tDeck hand\t1
Frode\tDeck hand\t1
Signe\tCook\tsome
Bo\tDeck hand\t1
Astrid\tMate\t1
Eskil\tDeck hand\t1
Wilma\tSkipper\t1
Dag\tDeck hand\t1
"""


def load() -> bool:
    """Load the demo unless there are products already; tell whether it did."""
    if Product.objects.exists():
        return False
    folders = sorted((HERE / "products").iterdir())
    goods = [path for folder in folders for path in sorted((folder / "assets").glob("*.png"))]
    pictures = {_sha256(path): picture for path, picture in _taken(add_goods_picture, goods).items()}
    drawings = _taken(add_made_artwork, sorted((HERE / "collections").glob("*/*.svg")))
    with transaction.atomic():
        owner = actor_of(_people()[0])
        _materials(owner)
        _collections(owner, drawings)
        for folder in folders:
            _product(owner, folder, pictures)
        _kits(owner)
        for product in Product.objects.products():
            publish_setup(owner, product.pk, seen_version=product.draft_version)
        count_stock(owner, STOCK)
        change_workshop(owner, WORKSHOP)
        for key, (name, methods, hours) in STATIONS.items():
            save_station(owner, key, name=name, methods=methods, hours=[hours] * 5 + [0.0, 0.0])
        for order in ORDERS:
            _order(owner, order)
        _work(owner)
        _list_in_work()
        _kept_design()
        # Somebody plays with an address that isn't theirs: the last of these is held back for the desk to look at.
        for _ in range(LINKS_TO_A_STRANGER):
            ask_for_link(GUEST, "somebody.else@post.example")
    return True


def _people() -> list[Person]:
    # Hashed once for all four: it is slow on purpose.
    hashed = make_password(PASSWORD)
    return [
        Person.objects.create(username=username, password=hashed, first_name=name, role=role)
        for username, name, role in PEOPLE
    ]


def _materials(owner: Actor) -> None:
    for kind, documents in json.loads((HERE / "materials.json").read_text()).items():
        for key, document in documents.items():
            save_material(owner, kind, key, document)
    for path in sorted(TYPEFACES.glob("*.ttf")):
        add_font(owner, path.read_bytes(), path.name)


def _taken(take: Callable[[Actor, Path, str], dict[str, Any]], paths: list[Path]) -> dict[Path, dict[str, Any]]:
    """Take files, two at a time: each is looked at in a process of its own."""

    def taken(path: Path) -> dict[str, Any]:
        try:
            return take(Actor(Role.OWNER, "Demo"), path, path.name)
        finally:
            connection.close()

    with ThreadPoolExecutor(2) as pool:
        return dict(zip(paths, pool.map(taken, paths), strict=True))


def _collections(owner: Actor, drawings: dict[Path, dict[str, Any]]) -> None:
    for path in sorted((HERE / "collections").glob("*.json")):
        document = json.loads(path.read_text())
        for one in document["drawings"]:
            one.update(drawings[path.with_suffix("") / f"{one['key']}.svg"])
        save_material(owner, "collections", path.stem, document)


def _product(owner: Actor, folder: Path, stored: dict[str, dict[str, Any]]) -> None:
    document = json.loads((folder / "setup.json").read_text())
    offer, sides = document["offer"], document.get("sides", [])
    if "picture" in offer:
        offer["picture"] = stored[offer["picture"]["asset"]]
    for side in sides:
        side["picture"] = stored[side["picture"]["asset"]]
    for variant in offer.get("variants", []):
        variant["pictures"] = {side: stored[picture["asset"]] for side, picture in variant.get("pictures", {}).items()}
    for option in (option for field in document["fields"] for option in field.get("options", ())):
        if "overlays" in option:
            option["overlays"] = {side: stored[picture["asset"]] for side, picture in option["overlays"].items()}
    _own_artwork(owner, folder / "assets", document["fields"])
    import_product(owner, document, key=folder.name)


def _own_artwork(owner: Actor, assets: Path, fields: list[dict[str, Any]]) -> None:
    """Keep the workshop's own artwork, and put what was made of it in the place of what the documents name."""
    for part in (*fields, *(option for field in fields for option in field.get("options", ()))):
        if "artwork" in part:
            name = part["artwork"]["name"]
            part.update(add_made_artwork(owner, assets / name, name))
        if "sample" in part and part["kind"] == "artwork":
            name = part["sample"]["name"]
            part["sample"] = add_made_artwork(owner, assets / name, name)["artwork"]


def _kits(owner: Actor) -> None:
    """Make the kits, each with the products that use it."""
    for path in sorted((HERE / "kits").glob("*.json")):
        document = json.loads(path.read_text())
        kit = create_kit(owner, name=document["name"], currency=settings.CURRENCY)
        parts = ("sections", "fields", "charges")
        operations = [{"do": "add", "path": [name], "item": item} for name in parts for item in document[name]]
        operations.append({"do": "set", "path": ["wording"], "value": document["wording"]})
        edit_draft(owner, kit.pk, operations, seen_version=0, label="Lines")
        users = document["users"]
        picked = list(Product.objects.filter(key__in=users.pop("picked")).values_list("pk", flat=True))
        set_kit_scope(owner, kit.pk, **users, picked=picked, excluded=[])
        publish_kit(owner, kit.pk, seen_version=1)


def _order(owner: Actor, wanted: DemoOrder) -> None:
    visitor = uuid.uuid4()
    designs = [_design(visitor, *piece) for piece in wanted.pieces]
    mail = f"{wanted.name.split()[0].lower()}@post.example"
    customer = Customer(visitor, wanted.name, mail, wanted.address)
    offered = offered_ways([setup_of_revision(design.revision) for design in designs], Decimal(0))[0]
    wishes = Wishes(offered=offered)
    order = order_basket(GUEST, Checkout(uuid.uuid4(), customer, basket_digest(designs), wishes))
    if wanted.end == "paid":
        pay_order(GUEST, order, APPROVES)
    elif wanted.end == "cancelled":
        cancel_order(owner, order.pk)


def _work(owner: Actor) -> None:
    """Work on what is paid: one order is sent, one made, one piece was spoilt, one is in hand, one is late."""
    paid = list(Order.objects.standing(Order.PaymentState.PAID).order_by("pk"))
    for order in paid:
        make_jobs(SYSTEM_ACTOR, order.pk)
    sent, late, made, spoilt, in_hand, *_ = paid
    for order in (sent, made):
        for job in Job.objects.filter(line__order=order).in_order():
            begin_job(owner, job.pk)
            count_made(owner, job.pk, job.quantity)
    send_order(owner, sent.pk, carrier="Harbor Post", number="HP 7731 204")
    Job.objects.filter(line__order=late).update(due_on=timezone.localdate() - timedelta(days=2))
    for order in (spoilt, in_hand):
        job = Job.objects.filter(line__order=order).in_order()[0]
        begin_job(owner, job.pk)
        if order == spoilt:
            count_spoilt(owner, job.pk, 1, "The cork split at the edge")


def _list_in_work() -> None:
    """Begin a list of names that isn't in order yet, and show it by a link."""
    product = Product.objects.select_related("live").get(key="crew-patches")
    assert product.live is not None
    visitor, setup = uuid.uuid4(), setup_of_revision(product.live)
    names = begin_list(
        GUEST, product.live, read_entries({"values": {"lettering": "quayside"}}), visitor=visitor, uploads=[]
    )
    table = read_pasted(CREW)
    columns = match_columns(table, targets_of(setup), {"job aboard": "duty"})
    fill_list(GUEST, names.pk, table, columns, visitor=visitor, adds=False)
    begin_check(GUEST, names)
    show_list(GUEST, names.pk, visitor=visitor, is_shared=True)


def _kept_design() -> None:
    """Keep a design that isn't ordered, and show it to others."""
    visitor = uuid.uuid4()
    design = _design(visitor, "brass-compass", "with-pictures")
    show_design(GUEST, design.pk, visitor=visitor, is_shared=True)


def _design(visitor: uuid.UUID, product_key: str, entries_name: str) -> Design:
    revision = Product.objects.select_related("live").get(key=product_key).live
    assert revision is not None
    folder = HERE / "products" / product_key / "entries"
    document: dict[str, Any] = json.loads((folder / f"{entries_name}.json").read_text())
    uploads: list[Upload] = []
    setup = setup_of_revision(revision)
    for key, sent in document.get("uploads", {}).items():
        setup_field = setup.field(key)
        wanted = Preparation(one_color=setup_field.one_color) if isinstance(setup_field, ArtworkField) else None
        names = [one["name"] for one in (sent if isinstance(sent, list) else [sent])]
        taken = [_upload(folder / "assets" / name, visitor, wanted) for name in names]
        uploads += taken
        document["uploads"][key] = [one.for_entries.model_dump(mode="json") for one in taken]
    entries = read_entries(document)
    return save_design(GUEST, revision, entries, walk_entries(revision, entries), visitor=visitor, uploads=uploads)


def _upload(path: Path, visitor: uuid.UUID, wanted: Preparation | None) -> Upload:
    received = receive_upload(GUEST, path, path.name, visitor=visitor, wanted=wanted)
    return look_at_upload(SYSTEM_ACTOR, received.pk)


def _sha256(path: Path) -> str:
    return hashlib.sha256(path.read_bytes()).hexdigest()


def pages(site: str) -> dict[str, str]:
    """Return the main pages as absolute addresses into the demo data."""
    first = Order.objects.order_by("pk").first()
    found = {
        "shop": reverse("shop:home"),
        "product": reverse("shop:product", args=["cedar-nameboard"]),
        "product_heavy": reverse("shop:product", args=["deck-cushion"]),
        "compose": reverse("shop:product", args=["canvas-tote"]),
        "window": reverse("shop:product", args=["tide-clock"]),
        "basket": reverse("shop:basket"),
        "designs": reverse("shop:designs"),
        "products": reverse("editor:products"),
        "setup": reverse("editor:setup", args=["cedar-nameboard"]),
        "kits": reverse("editor:kits"),
        "materials": reverse("materials:materials"),
        "materials_artwork": reverse("materials:collection", args=["sea-life"]),
        "orders": reverse("orders:orders"),
        "outbox": reverse("outbox:outbox"),
    }
    if first is not None:
        found["order"] = reverse("shop:order", args=[first.token])
        found["order_staff"] = reverse("orders:order", args=[first.number])
        found["board"] = reverse("production:week")
        found["station"] = reverse("production:station", args=["press"])
        found["proof"] = reverse("shop:proof", args=[first.token])
    shown = {"list": Look.objects.exclude(names=None), "look": Look.objects.exclude(design=None)}
    for name, looks in shown.items():
        look = looks.order_by("pk").first()
        if look is not None:
            found[name] = reverse("shop:look", args=[look.token])
    job = Job.objects.order_by("pk").first()
    if job is not None:
        found["job"] = reverse("production:job", args=[job.pk])
    return {name: site + address for name, address in found.items()}


def finished_pack() -> str | None:
    """Return where the first finished pack lies in the store, or None while none is finished."""
    pack = Pack.objects.filter(state=Pack.State.DONE).select_related("file").order_by("pk").first()
    return pack.file.path if pack and pack.file else None


if __name__ == "__main__":
    print("Demo data loaded." if load() else "Demo data is there already.")
