"""Forms of kits: who uses one, and what a product has otherwise."""

from typing import Any

from django import forms
from django.http import QueryDict

from yenzo.apps.accounts.fields import LineField
from yenzo.apps.catalogue.kits import Kits, UsedKit
from yenzo.apps.catalogue.models import KitScope, Product
from yenzo.core.documents.fields import HeadingField
from yenzo.core.documents.setup import Setup

NEEDED = (("", "as in the kit"), ("yes", "must be filled"), ("no", "may stay empty"))


class NewKitForm(forms.Form):
    name = LineField(max_length=200, label="Name of the kit", help_text="Gift wrapping, lettering, delivery …")


class ScopeForm(forms.Form):
    """Which products use a kit."""

    def __init__(self, kit: Product, data: QueryDict | None = None) -> None:
        super().__init__(data)
        products, kits = list(Product.objects.products().order_by("name")), Kits()
        members = {product.pk: kits.member(kit, product) for product in products}
        picked = [pk for pk, member in members.items() if member and member.is_picked]
        excluded = [pk for pk, member in members.items() if member and member.is_excluded]
        names = [(product.pk, product.name) for product in products]
        scope = kit.scope
        self.fields = {
            "reach": forms.ChoiceField(choices=KitScope.Reach.choices, initial=scope.reach, label="It is used by"),
            "category": forms.ChoiceField(
                required=False,
                choices=[("", "—"), *((name, name) for name in Product.objects.products().categories())],
                initial=scope.category,
                label="Category",
            ),
            "picked": self._ticks(names, picked, "And by these, whatever their category"),
            "excluded": self._ticks(names, excluded, "But never by these"),
            "only_signed_in": forms.BooleanField(
                required=False, initial=scope.only_signed_in, label="Asked of customers who are signed in only"
            ),
        }

    @staticmethod
    def _ticks(names: list[tuple[int, str]], initial: list[int], label: str) -> forms.TypedMultipleChoiceField:
        return forms.TypedMultipleChoiceField(
            required=False,
            coerce=int,
            choices=names,
            initial=initial,
            widget=forms.CheckboxSelectMultiple,
            label=label,
        )

    def clean(self) -> dict[str, Any]:
        """Refuse what contradicts itself."""
        given = super().clean() or {}
        if given.get("reach") == KitScope.Reach.CATEGORY and not given.get("category"):
            self.add_error("category", "Say which category uses the kit.")
        if set(given.get("picked", ())) & set(given.get("excluded", ())):
            self.add_error("excluded", "A product can't be picked and left out at once.")
        return given


class OverrideForm(forms.Form):
    """What one product has otherwise than the kit."""

    def __init__(self, used: UsedKit, product: Setup, data: QueryDict | None = None) -> None:
        super().__init__(data)
        self._used = used
        use = used.use
        overrides = {override.field: override for override in use.overrides}
        if product.offer.variants:
            self.fields["variants"] = forms.MultipleChoiceField(
                required=False,
                choices=[(variant.key, variant.name) for variant in product.offer.variants],
                initial=list(use.variants),
                widget=forms.CheckboxSelectMultiple,
                label="Only for these variants; none ticked: for all",
            )
        for field in used.setup.fields:
            have, name = overrides.get(field.key), field.workshop_name or field.label
            needed = {None: "", True: "yes", False: "no"}[have.required if have else None]
            self.fields |= {
                f"{field.key}.left_out": forms.BooleanField(
                    required=False, initial=bool(have and have.left_out), label=f"Leave “{name}” out"
                ),
                f"{field.key}.label": LineField(
                    required=False, max_length=200, initial=have.label if have else "", label=f"Call “{name}” here"
                ),
            }
            if not isinstance(field, HeadingField):
                self.fields[f"{field.key}.required"] = forms.ChoiceField(
                    required=False, choices=NEEDED, initial=needed, label=f"“{name}” here"
                )

    def overrides(self) -> list[dict[str, Any]]:
        """Return what is otherwise, by field."""
        found = []
        for field in self._used.setup.fields:
            given = {name: self.cleaned_data.get(f"{field.key}.{name}") for name in ("left_out", "label", "required")}
            if any(given.values()):
                required = {"yes": True, "no": False}.get(given["required"] or "")
                found.append({"field": field.key, **given, "required": required})
        return found
