"""Calls, and what everything recorded on one has in common.

Nothing recorded is overwritten: the latest entry stands, the earlier ones are history, and one taken back keeps who
took it back and when."""

from datetime import timedelta

from django.conf import settings
from django.db import models

from web import work_time
from web.accounts.models import Shop
from web.logbook.models.places import OfShop, Unit


class Call(models.Model):
    """One visit to one unit; `revision` counts what was done on it, or on another call that its judgement hears of."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="calls")
    unit = models.ForeignKey(Unit, on_delete=models.PROTECT, related_name="calls")
    number = models.PositiveIntegerField()
    opened_at = models.DateTimeField(default=work_time.now)
    opened_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="calls")
    closed_at = models.DateTimeField(null=True, blank=True)
    complaint = models.TextField(blank=True)
    changed = models.TextField(blank=True)
    check_in_min = models.PositiveSmallIntegerField(null=True, blank=True)
    checked_in_at = models.DateTimeField(null=True, blank=True)
    found = models.TextField(blank=True)
    done = models.TextField(blank=True)
    advice = models.TextField(blank=True)
    declined = models.TextField(blank=True)
    told_with = models.JSONField(default=dict, blank=True, help_text="What a case file brought along beside its events")
    revision = models.PositiveIntegerField(default=0, editable=False)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["-opened_at"]
        constraints = [models.UniqueConstraint(fields=["shop", "number"], name="call_number_once_in_a_shop")]

    def __str__(self):
        return f"Call {self.number}"

    @property
    def file_name(self):
        """What files of it are called, without their ending; one of a practice call says so."""
        return f"{'practice-' if self.shop.practice else ''}call-{self.number}"

    @property
    def is_open(self):
        """Whether the visit is still going on."""
        return self.closed_at is None

    @property
    def check_in_due(self):
        """When the person alone on site must check in again; None where no clock runs."""
        if not self.is_open or not self.check_in_min or not self.checked_in_at:
            return None
        return self.checked_in_at + timedelta(minutes=self.check_in_min)

    @property
    def check_in_overdue(self):
        """Whether the check-in is overdue."""
        due = self.check_in_due
        return due is not None and due < work_time.now()


class Entry(models.Model):
    """Something recorded on a call by a person at a time; taken back rather than deleted."""

    call = models.ForeignKey(Call, on_delete=models.CASCADE, related_name="%(class)ss")
    at = models.DateTimeField(default=work_time.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    undone_at = models.DateTimeField(null=True, blank=True)
    undone_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)

    class Meta:
        abstract = True
        ordering = ["at", "pk"]

    @property
    def shop_id(self):
        """The shop the entry belongs to."""
        return self.call.shop_id
