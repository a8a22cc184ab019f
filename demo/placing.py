"""Placing demo orders: a product and the name of entries come in, a design of them goes out, with its files."""

import json
import uuid
from collections.abc import Mapping, Sequence
from decimal import Decimal
from pathlib import Path
from typing import Any

from yenzo.apps.accounts.rights import CUSTOMER, SYSTEM_ACTOR, Actor
from yenzo.apps.designs.models import Design, NameList, Upload
from yenzo.apps.designs.services.designs import save_design
from yenzo.apps.designs.services.uploads import look_at_upload, receive_upload
from yenzo.apps.designs.to_core import evaluate_entries
from yenzo.apps.orders.delivering import offered_ways
from yenzo.apps.orders.services.orders import Wishes
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import setup_of_revision
from yenzo.core.artwork.facts import Preparation
from yenzo.core.documents.fields import ArtworkField
from yenzo.core.documents.reading import read_entries

PRODUCTS = Path(__file__).parent / "products"
GUEST = Actor(CUSTOMER, "Customer")


def wishes_for(designs: Sequence[Design | NameList]) -> Wishes:
    """Return the first way to deliver that there is."""
    return Wishes(offered=offered_ways([setup_of_revision(one.revision) for one in designs], Decimal(0))[0])


def make_design(
    visitor: uuid.UUID, product_key: str, entries_name: str, values: Mapping[str, Any] | None = None
) -> Design:
    """Return a design of a product by the name of its entries, some of them otherwise."""
    revision = Product.objects.select_related("live").get(key=product_key).live
    assert revision is not None
    folder = PRODUCTS / product_key / "entries"
    document: dict[str, Any] = json.loads((folder / f"{entries_name}.json").read_text())
    document["values"].update(values or {})
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
    return save_design(GUEST, revision, entries, evaluate_entries(revision, entries), visitor=visitor, uploads=uploads)


def _upload(path: Path, visitor: uuid.UUID, wanted: Preparation | None) -> Upload:
    received = receive_upload(GUEST, path, path.name, visitor=visitor, wanted=wanted)
    return look_at_upload(SYSTEM_ACTOR, received.pk)
