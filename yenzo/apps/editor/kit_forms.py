"""Forms of kits: who uses one, and what a product has otherwise."""

from typing import Any

from django import forms
from django.http import QueryDict

from yenzo.apps.editor.aspects.effects import color_choices, color_code, color_value
from yenzo.apps.editor.aspects.placing import area_names, typeface_choices, typeface_code, typeface_value
from yenzo.apps.pages.fields import LineField
from yenzo.apps.products.kits import Kits, UsedKit
from yenzo.apps.products.models import KitScope, Product
from yenzo.core.documents.fields import AnyField
from yenzo.core.documents.kit_use import Override
from yenzo.core.documents.kits import can_land, places_of
from yenzo.core.documents.setup import Setup

AS_USUAL = ("", "as for a new line here")
NEEDED = (("", "as in the kit"), ("yes", "needed"), ("no", "may stay empty"))


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
        self._used, use = used, used.use
        overrides = {override.field: override for override in use.overrides}
        self._lands: dict[str, list[str]] = {}
        places = area_names(product)
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
            if field.has_entry:
                self.fields[f"{field.key}.required"] = forms.ChoiceField(
                    required=False, choices=NEEDED, initial=needed, label=f"“{name}” here"
                )
            if can_land(field) and places:
                self._add_landing(field, have, product, places)

    def _add_landing(self, field: AnyField, have: Override | None, product: Setup, places: dict[str, str]) -> None:
        name, use = field.workshop_name or field.label, self._used.use
        said = have.areas if have else None
        # Areas that went meanwhile are told on the product's page; here one picks from those there are.
        landing = [place for place in said if place in places] if said is not None else None
        self._lands[field.key] = by_name = list(places_of(use.model_copy(update={"overrides": ()}), field, product))
        called = f"In the kit it lands on areas called “{field.lands_on}”." if field.lands_on else ""
        self.fields[f"{field.key}.areas"] = forms.MultipleChoiceField(
            required=False,
            choices=list(places.items()),
            initial=by_name if landing is None else landing,
            widget=forms.CheckboxSelectMultiple,
            label=f"“{name}” lands on",
            help_text=called or "Nothing ticked: it goes on the ticket only.",
        )
        if field.lands_as == "artwork":
            return
        self.fields |= {
            f"{field.key}.typeface": forms.ChoiceField(
                required=False,
                choices=[AS_USUAL, *typeface_choices(product)],
                initial=typeface_code(have.typeface) if have and have.typeface else "",
                label=f"Typeface of “{name}”",
            ),
            f"{field.key}.most_mm": forms.FloatField(
                required=False,
                min_value=0.5,
                max_value=2000,
                initial=have.most_mm if have else None,
                widget=forms.NumberInput(attrs={"step": "any"}),
                label=f"Letters of “{name}” at most, mm",
                help_text="Empty: as large as the area has room.",
            ),
            f"{field.key}.color": forms.ChoiceField(
                required=False,
                choices=[AS_USUAL, *color_choices(product)],
                initial=color_code(have.color) if have and have.color else "",
                widget=forms.RadioSelect(attrs={"class": "colors"}),
                label=f"Color of “{name}”",
            ),
        }

    def overrides(self) -> list[dict[str, Any]]:
        """Return what is otherwise, by field."""
        found = []
        for field in self._used.setup.fields:
            given = {name: self.cleaned_data.get(f"{field.key}.{name}") for name in ("left_out", "label", "most_mm")}
            required = {"yes": True, "no": False}.get(self.cleaned_data.get(f"{field.key}.required") or "")
            said = {**{name: value for name, value in given.items() if value}, **self._landing(field.key)}
            if said or required is not None:
                found.append({"field": field.key, **said, "required": required})
        return found

    def _landing(self, key: str) -> dict[str, Any]:
        """Return where a line lands and how it looks there, as far as that isn't what the kit and the areas say."""
        areas, typeface, color = (self.cleaned_data.get(f"{key}.{name}") for name in ("areas", "typeface", "color"))
        found: dict[str, Any] = {}
        if areas is not None and key in self._lands and areas != self._lands[key]:
            found["areas"] = areas
        if typeface:
            found["typeface"] = typeface_value(typeface)
        if color:
            found["color"] = color_value(color)
        return found
