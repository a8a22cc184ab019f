"""The one row of the workshop's own settings."""

from typing import ClassVar

from django.conf import settings
from django.db import models
from django.utils import timezone


class Mark(models.Model):
    """The workshop's mark as its shop shows it; prepared by the core, so that no browser meets what was sent."""

    sha256 = models.CharField(primary_key=True, max_length=64)
    media_type = models.CharField(max_length=40)
    width_px = models.PositiveIntegerField()
    height_px = models.PositiveIntegerField()
    data = models.BinaryField()
    made_at = models.DateTimeField(default=timezone.now)

    SHOWN_HEIGHT_PX = 40

    def __str__(self) -> str:
        return self.sha256[:12]

    @property
    def shown_width_px(self) -> int:
        """How wide it is in the shop's bar."""
        return max(round(self.width_px * self.SHOWN_HEIGHT_PX / self.height_px), 1)


class Workshop(models.Model):
    """What a workshop says of itself. Where it says nothing, the installation's settings do."""

    ONLY = 1

    id = models.PositiveSmallIntegerField(primary_key=True, default=ONLY)
    own_name = models.CharField(max_length=120, blank=True)
    looks_are_marked = models.BooleanField(default=True, help_text="whether shared looks carry the workshop's name")
    kept_days = models.JSONField(default=dict, help_text="by kind: for how many days it is kept")
    calendar = models.JSONField(default=dict, help_text="when it works, as the core's working calendar")
    deliveries = models.JSONField(default=list, help_text="how it delivers, as the core's delivery ways")
    releases_clean = models.BooleanField(
        default=True, help_text="whether pieces that nothing is found of are released to be made by themselves"
    )
    advice_holds = models.BooleanField(
        default=True, help_text="whether pieces that something is advised of wait for the desk"
    )
    rack_places = models.PositiveSmallIntegerField(default=24, help_text="where made pieces are gathered by order")
    low_stock = models.PositiveSmallIntegerField(default=5, help_text="when so few or fewer are left it is said")
    theme = models.JSONField(default=dict, help_text="how the shop looks, as the core's theme; as it ships where empty")
    sites = models.JSONField(default=list, help_text="origins of other sites that may show the slip in a frame")
    languages = models.JSONField(default=list, help_text="which languages the shop speaks; all where it isn't said")
    wording = models.JSONField(default=dict, help_text="by language and slot: its own words in the shop")
    mark = models.ForeignKey(Mark, models.PROTECT, null=True, blank=True, related_name="+")
    mark_stands_alone = models.BooleanField(
        default=False, help_text="whether the mark says the name, which then isn't written beside it"
    )
    address = models.TextField(blank=True, help_text="as it stands on invoices")
    tax_number = models.CharField(max_length=60, blank=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints: ClassVar = [models.CheckConstraint(condition=models.Q(id=1), name="there_is_one_workshop")]

    def __str__(self) -> str:
        return self.name

    @property
    def name(self) -> str:
        """What the workshop is called."""
        return self.own_name or settings.WORKSHOP_NAME
