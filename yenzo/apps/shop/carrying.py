"""Carrying a design over: a piece in the basket comes in; the slip of another product, filled by it, goes out."""

from dataclasses import dataclass

from django.http import HttpRequest

from yenzo.apps.designs.models import Design
from yenzo.apps.designs.to_core import as_uuid, entries_of, uploads_of_entries
from yenzo.apps.designs.visitors import is_signed_in, known_visitor
from yenzo.apps.files.store import StoredAssets
from yenzo.apps.products.models import Product
from yenzo.apps.products.to_core import shop_setup
from yenzo.apps.slip.slip import Slip, build_slip
from yenzo.core.asking.ask import ask
from yenzo.core.asking.carrying import carry


@dataclass(frozen=True)
class CarriedSlip:
    """The slip as a design fills it, what that was a design of, and what of it found no place."""

    slip: Slip
    name: str
    left_out: tuple[str, ...]


def design_to_carry(request: HttpRequest) -> Design | None:
    """Return the visitor's own piece whose design is to be carried over, if any is."""
    visitor, wanted = known_visitor(request), as_uuid(request.GET.get("like", ""))
    if visitor is None or wanted is None:
        return None
    return Design.objects.for_list(visitor).filter(pk=wanted).first()


def carried_over(request: HttpRequest, product: Product) -> CarriedSlip | None:
    """Return a product's slip as a design that is carried over fills it; None where none is."""
    design = design_to_carry(request)
    if design is None or product.live is None or design.revision.product_id == product.pk:
        return None
    kept = design.personalization
    setup, other, entries = shop_setup(kept.revision), shop_setup(product.live), entries_of(kept)
    carried = carry(setup, ask(setup, entries), entries, other)
    uploads = uploads_of_entries(carried.entries, kept.uploads.all())
    slip = build_slip(other, carried.entries, StoredAssets(), uploads, signed_in=is_signed_in(request))
    return CarriedSlip(slip, setup.offer.name, carried.left_out)
