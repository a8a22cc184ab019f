"""The forms of the workshop's settings: what it is called, what it keeps, when it works, how it delivers."""

from datetime import date
from typing import Any, Self, cast

from django import forms
from django.conf import settings
from django.utils.dates import WEEKDAYS
from pydantic import ValidationError

from yenzo.apps.pages.fields import LineField, LinesField
from yenzo.apps.pages.languages import read_in
from yenzo.apps.workshop.models import Workshop
from yenzo.apps.workshop.sites import origins_of
from yenzo.apps.workshop.to_core import theme_of
from yenzo.apps.workshop.wording import PAGES, SLOTS, Slot
from yenzo.core.planning.calendar import COUNTRIES, ClosedDays, WorkingCalendar
from yenzo.core.pricing.delivery import DeliveryWay
from yenzo.core.theme import Theme

KEPT = (
    ("designs", "Designs that weren't ordered, with their files"),
    ("lists", "Lists of names"),
    ("unfinished", "What was begun on a product's page"),
    ("uploads", "Uploads that nothing uses"),
)


def _holiday_keys() -> list[tuple[str, str]]:
    keys = [key for country, parts in COUNTRIES.items() for key in (country, *(f"{country}-{part}" for part in parts))]
    return [("", "None"), *((key, key) for key in sorted(keys) if len(key) <= len("GB-SCT0"))]


class PlainForm(forms.Form):
    """A part of the settings whose fields are what the workshop says of itself, by the same names."""

    @classmethod
    def of(cls, workshop: Workshop) -> Self:
        """Return the form as the workshop says it."""
        return cls(initial={name: getattr(workshop, name) for name in cls.base_fields})

    @property
    def said(self) -> dict[str, Any]:
        """What the workshop says by it."""
        return self.cleaned_data


class NameForm(PlainForm):
    """What the workshop is called, and what stands on its invoices."""

    own_name = LineField(max_length=120, required=False, label="Name of the workshop")
    address = LinesField(
        max_length=600,
        required=False,
        label="Address, as it stands on invoices",
        widget=forms.Textarea(attrs={"rows": 3}),
    )
    tax_number = LineField(max_length=60, required=False, label="Tax number")
    looks_are_marked = forms.BooleanField(
        required=False, label="Looks that customers share carry the workshop's name across the picture"
    )

    @classmethod
    def of(cls, workshop: Workshop) -> Self:
        """Return the form as the workshop says it."""
        form = super().of(workshop)
        form.fields["own_name"].widget.attrs["placeholder"] = settings.WORKSHOP_NAME
        return form


class LanguagesForm(PlainForm):
    """Which languages the shop speaks."""

    languages = forms.MultipleChoiceField(
        choices=settings.LANGUAGES,
        widget=forms.CheckboxSelectMultiple,
        label="Customers can choose",
        help_text="Whoever reads none of these sees the first.",
    )

    @classmethod
    def of(cls, workshop: Workshop) -> Self:
        """Return the form as the workshop says it."""
        return cls(initial={"languages": workshop.languages or [code for code, _ in settings.LANGUAGES]})

    @property
    def said(self) -> dict[str, Any]:
        """What the workshop says by it: all languages are the same as none in particular."""
        chosen = self.cleaned_data["languages"]
        return {"languages": [] if len(chosen) == len(settings.LANGUAGES) else chosen}


class MarkForm(forms.Form):
    """The workshop's mark in the shop's bar."""

    file = forms.FileField(
        required=False,
        label="Mark",
        help_text="A drawing (SVG, PDF) or a picture (PNG, JPEG, WebP) of at most 5 MB. An empty edge is cut off.",
    )
    without = forms.BooleanField(required=False, label="No mark, the name only")
    mark_stands_alone = forms.BooleanField(required=False, label="The mark says our name: don't write it beside it")

    @classmethod
    def of(cls, workshop: Workshop) -> Self:
        """Return the form as the workshop says it."""
        form = cls(initial={"mark_stands_alone": workshop.mark_stands_alone})
        if workshop.mark is None:
            del form.fields["without"]
        return form


class WordingForm(forms.Form):
    """What the shop says in the workshop's own words, in one language."""

    def __init__(self, *args: Any, language: str, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        with read_in(language):
            for slot in (*SLOTS, *PAGES):
                self.fields[slot.key] = _words_field(slot, language)

    @classmethod
    def of(cls, workshop: Workshop, language: str) -> Self:
        """Return the form as the workshop says it."""
        return cls(initial=workshop.wording.get(language, {}), language=language)


def _words_field(slot: Slot, language: str) -> forms.CharField:
    shown = {"lang": language, "dir": "auto", "placeholder": str(slot.ships) if slot not in PAGES else ""}
    if slot.is_line:
        return LineField(max_length=slot.most, required=False, label=slot.label, widget=forms.TextInput(attrs=shown))
    rows = 6 if slot in PAGES else 3
    return LinesField(
        max_length=slot.most, required=False, label=slot.label, widget=forms.Textarea(attrs={**shown, "rows": rows})
    )


class PreflightForm(PlainForm):
    """What is made without anybody having looked at it."""

    releases_clean = forms.BooleanField(
        required=False, label="Pieces that nothing is found of go to the stations by themselves"
    )
    advice_holds = forms.BooleanField(
        required=False, label="Pieces that something is advised or doubted of wait until the desk has looked at them"
    )


class StoreForm(PlainForm):
    """The rack and the shelves."""

    rack_places = forms.IntegerField(min_value=1, max_value=2000, label="Places in the rack, where orders are gathered")
    low_stock = forms.IntegerField(
        min_value=0, max_value=10_000, label="Say that stock is low when so many are left, or fewer"
    )


class ThemeForm(forms.Form):
    """How the shop looks."""

    ink = forms.CharField(widget=forms.TextInput(attrs={"type": "color"}), label="Words and main buttons")
    paper = forms.CharField(widget=forms.TextInput(attrs={"type": "color"}), label="Ground")
    accent = forms.CharField(widget=forms.TextInput(attrs={"type": "color"}), label="Links and what is chosen")
    corner_px = forms.IntegerField(min_value=0, max_value=24, label="Corners, in pixels (0: sharp)")
    headings = forms.ChoiceField(
        choices=[("narrow", "In narrow letters"), ("plain", "In the letters of the text")], label="Headings"
    )

    @classmethod
    def of(cls, workshop: Workshop) -> "ThemeForm":
        """Return the form as the workshop says it."""
        return cls(initial=theme_of(workshop).model_dump())

    def clean(self) -> dict[str, Any]:
        """Refuse colors that couldn't be read."""
        given = super().clean() or {}
        if not self.errors:
            try:
                problems = list(Theme.model_validate(given).problems())
            except ValidationError:
                problems = ["Please write colors like #16303a."]
            if problems:
                raise forms.ValidationError(problems)
        return given

    @property
    def said(self) -> dict[str, Any]:
        """What the workshop says by it."""
        theme = Theme.model_validate(self.cleaned_data)
        return {"theme": {} if theme == Theme() else theme.model_dump(mode="json")}


class SitesForm(PlainForm):
    """Which other sites may show the slip."""

    sites = LinesField(
        max_length=4000,
        required=False,
        label="Sites that may show our goods to be personalized there",
        help_text="A line each, like https://club.example. Their pages show a product in a frame.",
        widget=forms.Textarea(attrs={"rows": 3}),
    )

    @classmethod
    def of(cls, workshop: Workshop) -> Self:
        """Return the form as the workshop says it."""
        return cls(initial={"sites": "\n".join(workshop.sites)})

    def clean_sites(self) -> list[str]:
        """Return the sites by their origins."""
        try:
            return origins_of(self.cleaned_data["sites"])
        except ValueError as error:
            raise forms.ValidationError(str(error)) from error


class KeptForm(forms.Form):
    """For how many days things are kept."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        for kind, label in KEPT:
            self.fields[kind] = forms.IntegerField(min_value=1, max_value=3650, label=f"{label}: days")

    @classmethod
    def of(cls, workshop: Workshop) -> "KeptForm":
        """Return the form as the workshop says it."""
        return cls(initial={kind: workshop.kept_days.get(kind, settings.RETENTION_DAYS[kind]) for kind, _ in KEPT})

    @property
    def said(self) -> dict[str, Any]:
        """What the workshop says by it."""
        return {"kept_days": dict(self.cleaned_data)}


class CalendarForm(forms.Form):
    """When the workshop works."""

    weekdays = forms.TypedMultipleChoiceField(
        choices=list(WEEKDAYS.items()), coerce=int, widget=forms.CheckboxSelectMultiple, label="It works on"
    )
    holidays_of = forms.ChoiceField(choices=_holiday_keys, required=False, label="Closed on the public holidays of")
    closed = LinesField(
        max_length=4000,
        required=False,
        label="Closed besides",
        help_text="A line each: 2026-12-24, or 2026-12-24 to 2027-01-02, and why if you like.",
        widget=forms.Textarea(attrs={"rows": 4}),
    )
    lead_days = forms.IntegerField(min_value=0, max_value=365, label="Working days it needs to make a piece")

    @classmethod
    def of(cls, workshop: Workshop) -> "CalendarForm":
        """Return the form as the workshop says it."""
        calendar = WorkingCalendar.model_validate(workshop.calendar)
        return cls(
            initial={
                "weekdays": calendar.weekdays,
                "holidays_of": calendar.holidays_of,
                "closed": "\n".join(_line(closed) for closed in calendar.closed),
                "lead_days": calendar.lead_days,
            }
        )

    def clean_closed(self) -> list[dict[str, Any]]:
        """Return the days as documents have them."""
        return [_closed(line) for line in cast("str", self.cleaned_data["closed"]).splitlines() if line.strip()]

    @property
    def said(self) -> dict[str, Any]:
        """What the workshop says by it."""
        return {"calendar": WorkingCalendar.model_validate(self.cleaned_data).model_dump(mode="json")}


def _line(closed: ClosedDays) -> str:
    days = str(closed.first) if closed.first == closed.last else f"{closed.first} to {closed.last}"
    return f"{days} {closed.why}".strip()


def _closed(line: str) -> dict[str, Any]:
    words = line.split()
    try:
        first = last = date.fromisoformat(words[0])
        rest = words[1:]
        if rest[:1] == ["to"]:
            last, rest = date.fromisoformat(rest[1]), rest[2:]
    except (ValueError, IndexError) as error:
        why = f"“{line[:60]}” can't be read. Please write it like 2026-12-24 to 2027-01-02."
        raise forms.ValidationError(why) from error
    if last < first:
        raise forms.ValidationError(f"“{line[:60]}” ends before it begins.")
    return {"first": str(first), "last": str(last), "why": " ".join(rest)}


class DeliveryForm(forms.Form):
    """One way to deliver."""

    key = forms.SlugField(required=False, widget=forms.HiddenInput)
    name = LineField(max_length=80, required=False, label="Name")
    price = forms.DecimalField(min_value=0, max_digits=9, decimal_places=2, required=False, label="Price")
    free_from = forms.DecimalField(
        min_value=0, max_digits=9, decimal_places=2, required=False, label="Free from a sum of"
    )
    countries = LineField(max_length=300, required=False, label="Countries, like GB, IE; empty: all")
    days = forms.IntegerField(min_value=0, max_value=90, required=False, label="Days on the way")
    tax_percent = forms.DecimalField(
        min_value=0, max_value=100, max_digits=6, decimal_places=3, required=False, label="Tax in it, percent"
    )
    is_pickup = forms.BooleanField(required=False, label="The customer picks it up")

    def clean(self) -> dict[str, Any]:
        """Look at the way as a whole."""
        given = super().clean() or {}
        if given.get("name") and not self.errors:
            try:
                self.way(1)
            except ValidationError as error:
                raise forms.ValidationError(f"“{given['name']}”: {error.errors()[0]['msg']}.") from error
        return given

    def way(self, number: int) -> DeliveryWay:
        """Return the way as the core has it; one without a key gets one by its number."""
        given = self.cleaned_data
        return DeliveryWay(
            key=given["key"] or f"way-{number}",
            name=given["name"],
            price=str(given["price"] or 0),
            free_from=None if given["free_from"] is None else str(given["free_from"]),
            countries=tuple(word for word in given["countries"].upper().replace(",", " ").split()),
            days=given["days"] or 0,
            tax_percent=given["tax_percent"] or 0,
            is_pickup=given["is_pickup"],
        )


DeliveryForms = forms.formset_factory(DeliveryForm, extra=2, max_num=20, validate_max=True)


def deliveries_form(workshop: Workshop) -> Any:
    """Return the forms of all ways as the workshop has them, with room for more."""
    ways = [DeliveryWay.model_validate(one) for one in workshop.deliveries]
    initial = [{**way.model_dump(), "countries": ", ".join(way.countries)} for way in ways]
    return DeliveryForms(initial=initial, prefix="ways")


def said_deliveries(sent: Any) -> list[dict[str, Any]]:
    """Return the ways that were sent, as documents; those without a name are left out. Keys stay what they were."""
    named = [form for form in sent if form.cleaned_data.get("name")]
    taken = {form.cleaned_data["key"] for form in named}
    free = (number for number in range(1, 1000) if f"way-{number}" not in taken)
    return [form.way(next(free)).model_dump(mode="json") for form in named]
