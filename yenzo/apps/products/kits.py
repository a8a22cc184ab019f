"""Which kits a product uses: rows come in, kits of the core go out."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from yenzo.apps.materials.to_core import all_materials
from yenzo.apps.products.linked import as_published
from yenzo.apps.products.models import KitMember, KitScope, Product, Revision
from yenzo.apps.products.to_core import overrides_of, setup_of_draft, setup_of_revision
from yenzo.core.documents.kit_use import KitUse
from yenzo.core.documents.kits import with_kits
from yenzo.core.documents.reading import read_setup
from yenzo.core.documents.setup import Setup
from yenzo.core.errors import DocumentError


@dataclass(frozen=True)
class UsedKit:
    """A kit that a product uses, with what the product has otherwise."""

    kit: Product
    setup: Setup
    member: KitMember | None
    only_signed_in: bool = False

    @property
    def use(self) -> KitUse:
        """The use as the core knows it."""
        member = self.member
        return KitUse(
            key=self.kit.key,
            name=self.kit.name,
            setup=self.setup,
            variants=tuple(member.variants) if member else (),
            only_signed_in=self.only_signed_in,
            overrides=overrides_of(member) if member else (),
        )


class Kits:
    """All kits that are live and who uses them, read once."""

    def __init__(self, instead: dict[int, Setup] | None = None) -> None:
        self._instead = instead or {}

    @cached_property
    def _scopes(self) -> list[KitScope]:
        return list(KitScope.objects.select_related("kit__live"))

    @cached_property
    def _members(self) -> dict[tuple[int, int], KitMember]:
        return {(member.kit_id, member.product_id): member for member in KitMember.objects.all()}

    def member(self, kit: Product, product: Product) -> KitMember | None:
        """Return what is said of this kit in this product, if anything is."""
        return self._members.get((kit.pk, product.pk))

    def uses(self, scope: KitScope, product: Product) -> bool:
        """Tell whether a product uses a kit."""
        member = self.member(scope.kit, product)
        if product.is_kit or (member is not None and member.is_excluded):
            return False
        if member is not None and member.is_picked:
            return True
        in_category = scope.reach == KitScope.Reach.CATEGORY and scope.category == product.category
        return in_category or scope.reach == KitScope.Reach.ALL

    def used_by(self, product: Product) -> list[UsedKit]:
        """Return the live kits that a product uses, in their order."""
        found = []
        for scope in self._scopes:
            setup = self._instead.get(scope.kit_id) or (setup_of_revision(scope.kit.live) if scope.kit.live else None)
            if setup is not None and self.uses(scope, product):
                found.append(UsedKit(scope.kit, setup, self.member(scope.kit, product), scope.only_signed_in))
        return found

    def resolved(self, product: Product, setup: Setup) -> Setup:
        """Return a product's set-up with the lines of its kits; raises DocumentError."""
        return with_kits(setup, [used.use for used in self.used_by(product)])

    def shown(self, product: Product, setup: Setup) -> Setup:
        """Return what is shown of a product: with its kits, or without them where they don't go together.

        What keeps them apart is told on the product's own page.
        """
        try:
            return self.resolved(product, setup)
        except DocumentError:
            return setup

    def users(self, kit: Product, products: Iterable[Product]) -> list[Product]:
        """Return those of the products that use a kit."""
        scope = next((scope for scope in self._scopes if scope.kit_id == kit.pk), None)
        return [product for product in products if scope is not None and self.uses(scope, product)]


def resolved_draft(product: Product) -> Setup:
    """Return the draft's set-up as customers would get it: with the lines of its kits; raises DocumentError."""
    return Kits().resolved(product, setup_of_draft(product))


def shown_draft(product: Product) -> Setup:
    """Return the draft's set-up with its kits, or without those where they don't go together."""
    return Kits().shown(product, setup_of_draft(product))


def own_setup(revision: Revision) -> Setup:
    """Return what a revision had before its kits, with its own materials and, for what is new, the workshop's."""
    had: dict[str, dict[str, Any]] = revision.document.get("materials", {})
    materials = {kind: {**have, **had.get(kind, {})} for kind, have in all_materials().items()}
    return read_setup({**as_published(revision.own, revision.document), "materials": materials})
