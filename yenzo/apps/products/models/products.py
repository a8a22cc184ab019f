"""Products, their drafts with every edit, and their published revisions."""

from typing import ClassVar, Self

from django.conf import settings
from django.db import models
from django.db.models import Q

from yenzo.apps.files.models import StoredFile

MOST_IN_A_CATEGORY = 60


class ProductQuerySet(models.QuerySet["Product"]):
    def products(self) -> Self:
        """Return what is sold: all but kits."""
        return self.filter(is_kit=False)

    def kits(self) -> Self:
        """Return the kits, in their order."""
        return self.filter(is_kit=True).select_related("live", "scope").order_by("scope__position", "name")

    def for_list(self) -> Self:
        """Return all products with what the list shows of them."""
        return self.products().select_related("live").order_by("name")

    def live(self) -> Self:
        """Return the products that customers can personalize now."""
        return self.products().filter(live__isnull=False, is_resting=False).select_related("live").order_by("name")

    def live_revision(self, key: str) -> tuple[int, str] | None:
        """Return what a product's revision that customers see is called by, and its hash; None where they see none.

        It is asked for with each key that a customer presses: what `live` builds of conditions costs more than they do.
        """
        asked = ("is_kit", "is_resting", "live_id", "live__sha256")
        for is_kit, is_resting, pk, sha256 in self.filter(key=key).values_list(*asked):
            if pk is not None and not is_kit and not is_resting:
                return pk, sha256
        return None

    def for_shop(self) -> Self:
        """Return what customers can personalize now with what a list shows of it, and no document."""
        shown = ("key", "live__sha256", "live__card", "live__currency", "live__name", "live__least_price")
        return self.live().only(*shown)

    def in_state(self, state: str) -> Self:
        """Return those that are drafts, live, changed since they are live, or resting; all for any other word."""
        is_live = Q(live__isnull=False, is_resting=False)
        states = {
            "draft": Q(live__isnull=True),
            "live": is_live,
            "changed": is_live & ~Q(draft_version=models.F("live__from_version")),
            "resting": Q(live__isnull=False, is_resting=True),
        }
        return self.filter(states.get(state, Q()))

    def matching(self, words: str) -> Self:
        """Return those whose name, category or SKU has these words."""
        found = Q(name__icontains=words) | Q(category__icontains=words) | Q(draft__offer__sku__icontains=words)
        return self.filter(found) if words else self

    def categories(self) -> list[str]:
        """Return every category that is used, in order."""
        return list(self.exclude(category="").order_by("category").values_list("category", flat=True).distinct())


class Product(models.Model):
    """A product with its draft. The draft is one value: it is never queried inside."""

    key = models.SlugField(max_length=60, unique=True)
    name = models.CharField(max_length=200, help_text="as the draft has it")
    category = models.CharField(max_length=MOST_IN_A_CATEGORY, blank=True, help_text="as the draft has it")
    is_kit = models.BooleanField(default=False, help_text="whether it is lines for other products, and not sold itself")
    is_resting = models.BooleanField(default=False, help_text="whether it was taken out of the shop for now")
    draft = models.JSONField()
    costs = models.JSONField(default=dict, help_text="what it costs the workshop, for the price helper")
    draft_version = models.PositiveIntegerField(default=0)
    live = models.ForeignKey("Revision", null=True, blank=True, on_delete=models.PROTECT, related_name="+")
    created_at = models.DateTimeField(auto_now_add=True)

    objects = ProductQuerySet.as_manager()

    def __str__(self) -> str:
        return self.name


class DraftEditQuerySet(models.QuerySet["DraftEdit"]):
    def undoable_by(self, person: object) -> Self:
        """Return the steps of a person that stand, the latest first."""
        return self.filter(person=person, state=DraftEdit.State.DONE).order_by("-version")

    def redoable_by(self, person: object) -> Self:
        """Return the steps that a person took back, the last taken back first."""
        return self.filter(person=person, state=DraftEdit.State.UNDONE).order_by("-version")

    def made_since(self, version: int) -> Self:
        """Return the steps done, taken back or done again since a version of the draft."""
        return self.filter(version__gt=version).select_related("person").order_by("version")


class DraftEdit(models.Model):
    """One step of work on a draft, with its way back. Undo is each person's own."""

    class State(models.TextChoices):
        DONE = "done"
        UNDONE = "undone"
        DROPPED = "dropped", "Undone, then overtaken by another edit"

    product = models.ForeignKey(Product, on_delete=models.CASCADE, related_name="edits")
    version = models.PositiveIntegerField(help_text="the draft's version after this step was last done or undone")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    label = models.CharField(max_length=200)
    operations = models.JSONField()
    back = models.JSONField()
    state = models.CharField(max_length=8, choices=State.choices, default=State.DONE)
    made_at = models.DateTimeField(auto_now_add=True)
    asked_as = models.CharField(
        max_length=64, blank=True, db_default="", help_text="a digest of the request that asked for it; it comes once"
    )

    objects = DraftEditQuerySet.as_manager()

    class Meta:
        ordering: ClassVar = ["version"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["product", "version"], name="edit_version_is_unique_in_its_product"),
        ]

    def __str__(self) -> str:
        return self.label


class Revision(models.Model):
    """A published set-up, with all that it depends on. Never changed: an order keeps the one it was made with."""

    product = models.ForeignKey(Product, on_delete=models.PROTECT, related_name="revisions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    own = models.JSONField(default=dict, help_text="the draft as it was, before the lines of kits came to it")
    sha256 = models.CharField(max_length=64)
    from_version = models.PositiveIntegerField(help_text="the draft's version that was published")
    name = models.CharField(max_length=200)
    base_price = models.DecimalField(max_digits=12, decimal_places=3)
    currency = models.CharField(max_length=3)
    least_price = models.DecimalField(
        max_digits=12, decimal_places=3, default=0, help_text="of a piece with nothing that needn't be"
    )
    card = models.JSONField(default=dict, help_text="what lists say: its names by language, the kinds of its fields")
    published_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    published_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering: ClassVar = ["-number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["product", "number"], name="revision_number_is_unique_in_its_product"),
            models.CheckConstraint(condition=Q(base_price__gte=0), name="revision_base_price_is_not_negative"),
        ]

    def __str__(self) -> str:
        return f"{self.name}, revision {self.number}"


class RevisionFile(models.Model):
    """A file that a revision uses: it stays as long as the revision does."""

    revision = models.ForeignKey(Revision, on_delete=models.CASCADE, related_name="files")
    file = models.ForeignKey(StoredFile, on_delete=models.PROTECT, related_name="+")

    class Meta:
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["revision", "file"], name="revision_names_a_file_once"),
        ]

    def __str__(self) -> str:
        return f"{self.revision_id}: {self.file_id[:12]}"
