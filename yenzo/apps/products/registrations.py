"""Which files products point to (published set-ups, drafts and their steps), and how a kit's users are taken back."""

from collections.abc import Iterator
from typing import Any

from yenzo.apps.files.interface import hashes_in, register_references
from yenzo.apps.history.interface import Keeper, keep_history
from yenzo.apps.products.models import DraftEdit, KitMember, KitScope, Product, Revision, RevisionFile

MEMBER = ("product_id", "is_picked", "is_excluded", "variants", "overrides")


def _read_kit(subject: str) -> Any:
    scopes = KitScope.objects.select_for_update().filter(kit_id=int(subject))
    scope = scopes.values("reach", "category", "only_signed_in").first()
    members = list(KitMember.objects.filter(kit_id=int(subject)).order_by("product_id").values(*MEMBER))
    return scope and {**scope, "members": members}


def _write_kit(subject: str, users: Any) -> None:
    KitScope.objects.filter(kit_id=int(subject)).update(
        **{name: users[name] for name in ("reach", "category", "only_signed_in")}
    )
    KitMember.objects.filter(kit_id=int(subject)).delete()
    KitMember.objects.bulk_create(KitMember(kit_id=int(subject), **member) for member in users["members"])


def _hashes() -> Iterator[str]:
    yield from RevisionFile.objects.values_list("file_id", flat=True).distinct()
    yield from hashes_in(Revision, "document", "own")
    yield from hashes_in(Product, "draft")
    yield from hashes_in(DraftEdit, "operations", "back")


def register() -> None:
    """Say so."""
    register_references("products", _hashes)
    keep_history("kit", Keeper(_read_kit, _write_kit))
