"""Loads the demo workshop into an empty database, through the services that people use (`python -m demo.load`)."""

import hashlib
import json
import os
import sys
import uuid
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "yenzo.config.settings")
django.setup()

from django.conf import settings  # noqa: E402
from django.contrib.auth.hashers import make_password  # noqa: E402
from django.db import connection, transaction  # noqa: E402 - models need the settings first
from django.urls import reverse  # noqa: E402

from demo.placing import GUEST, make_design, wishes_for  # noqa: E402
from demo.two_weeks import work_through_two_weeks  # noqa: E402
from demo.working import begin_a_list, set_up_workshop, work_on_orders  # noqa: E402
from yenzo.apps.accounts.models import Person, Role  # noqa: E402
from yenzo.apps.accounts.rights import Actor, actor_of  # noqa: E402
from yenzo.apps.designs.models import Look  # noqa: E402
from yenzo.apps.designs.services.looks import show_design  # noqa: E402
from yenzo.apps.desk.models import Preflight, Question  # noqa: E402
from yenzo.apps.materials.services.artwork import add_made_artwork  # noqa: E402
from yenzo.apps.materials.services.materials import add_font, save_material  # noqa: E402
from yenzo.apps.orders.models import Order  # noqa: E402
from yenzo.apps.orders.paying import pay_order  # noqa: E402
from yenzo.apps.orders.services.orders import Customer, cancel_order  # noqa: E402
from yenzo.apps.production.models import Job, Pack  # noqa: E402
from yenzo.apps.products.models import Product  # noqa: E402
from yenzo.apps.products.services.drafts import edit_draft  # noqa: E402
from yenzo.apps.products.services.kits import create_kit, publish_kit, set_kit_scope  # noqa: E402
from yenzo.apps.products.services.pictures import add_goods_picture  # noqa: E402
from yenzo.apps.products.services.products import import_product  # noqa: E402
from yenzo.apps.products.services.publishing import publish_setup  # noqa: E402
from yenzo.apps.shop.services.checkout import Checkout, basket_digest, order_basket  # noqa: E402
from yenzo.apps.shop.services.sign_in import ask_for_link  # noqa: E402
from yenzo.apps.stock.services.stock import count_stock  # noqa: E402
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


def load(*, with_history: bool = True) -> bool:
    """Load the demo unless there are products already; tell whether it did. The history is two weeks of orders."""
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
        set_up_workshop(owner)
        for order in ORDERS:
            _order(owner, order)
        work_on_orders(owner)
        if with_history:
            work_through_two_weeks()
        begin_a_list()
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
    designs = [make_design(visitor, *piece) for piece in wanted.pieces]
    mail = f"{wanted.name.split()[0].lower()}@post.example"
    customer = Customer(visitor, wanted.name, mail, wanted.address)
    wishes = wishes_for(designs)
    order = order_basket(GUEST, Checkout(uuid.uuid4(), customer, basket_digest(designs), wishes))
    if wanted.end == "paid":
        pay_order(GUEST, order, APPROVES)
    elif wanted.end == "cancelled":
        cancel_order(owner, order.pk)


def _kept_design() -> None:
    """Keep a design that isn't ordered, and show it to others."""
    visitor = uuid.uuid4()
    design = make_design(visitor, "brass-compass", "with-pictures")
    show_design(GUEST, design.pk, visitor=visitor, is_shared=True)


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
    question = Question.objects.open().order_by("pk").first()
    if question is not None:
        found["question"] = reverse("desk:question", args=[question.token])
    held = Preflight.objects.held().order_by("pk").first()
    if held is not None:
        found["held"] = reverse("desk:pieces", args=[held.pk])
    found["packing"] = reverse("production:packing")
    job = Job.objects.order_by("pk").first()
    if job is not None:
        found["job"] = reverse("production:job", args=[job.pk])
    return {name: site + address for name, address in found.items()}


def finished_pack() -> str | None:
    """Return where the first finished pack lies in the store, or None while none is finished."""
    pack = Pack.objects.filter(state=Pack.State.DONE).select_related("file").order_by("pk").first()
    return pack.file.path if pack and pack.file else None


def load_history() -> None:
    """Load two weeks of orders on top of a demo that was loaded without them."""
    with transaction.atomic():
        work_through_two_weeks()


if __name__ == "__main__":
    if "--history" in sys.argv:
        load_history()
    elif load(with_history="--without-history" not in sys.argv):
        print("Demo data loaded.")
    else:
        print("Demo data is there already.")
