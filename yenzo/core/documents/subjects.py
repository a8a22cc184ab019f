"""What rules look at: a set-up and the key of a subject come in; what it is called and which values it can have go out.

A subject is a field, or what a product is by itself (its variant, where that stands on an axis, its category, its SKU),
or whether the customer has signed in.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from yenzo.core.documents.fields import AnyField, YesNoField
from yenzo.core.documents.rules import AXIS, CATEGORY, SIGNED_IN, SKU, VARIANT
from yenzo.core.documents.setup import Setup


@dataclass(frozen=True)
class Subject:
    """What a rule looks at: `values` are the names of what it can be by key, None where it can be anything."""

    key: str
    name: str
    field: AnyField | None = None
    is_yes_no: bool = False
    values: Mapping[str, str] | None = None

    @property
    def quoted(self) -> str:
        """Its name in a sentence: what sellers have named stands in quotes."""
        return f"“{self.name}”" if self.field or self.key.startswith(AXIS) else self.name

    @property
    def is_product(self) -> bool:
        """Whether it is what the product is by itself: a kit's rules come out the same for all its customers."""
        return self.key in {VARIANT, CATEGORY, SKU} or self.key.startswith(AXIS)


def subject_of(setup: Setup, key: str) -> Subject | None:
    """Return the subject with a key, or None when there is no such thing (any more)."""
    if key.startswith("@"):
        return next((subject for subject in product_subjects(setup) if subject.key == key), None)
    field = setup.field(key)
    if field is None:
        return None
    offered = None if field.offered is None else dict(zip(field.offered, field.offered, strict=True))
    return Subject(key, field.label, field, isinstance(field, YesNoField), offered)


def product_subjects(setup: Setup) -> Iterator[Subject]:
    """Yield the subjects that are no fields."""
    offer = setup.offer
    yield Subject(SIGNED_IN, "the customer's sign-in", is_yes_no=True)
    yield Subject(VARIANT, "the variant", values={variant.key: variant.name for variant in offer.variants})
    yield Subject(CATEGORY, "the category")
    yield Subject(SKU, "the SKU")
    for axis in offer.axes:
        values = {value.key: value.name for value in axis.values}
        yield Subject(f"{AXIS}{axis.key}", axis.name, values=MappingProxyType(values))


def subject_name(setup: Setup, key: str) -> str:
    """Return what a rule looks at, as it is called in sentences; what isn't there any more by its key."""
    subject = subject_of(setup, key)
    return subject.name if subject else key.removeprefix(AXIS)
