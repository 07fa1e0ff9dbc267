"""Logs of a unit over time: the file as it came, how it was read, what it holds and what it shows."""

from django.conf import settings
from django.db import models

from web import work_time
from web.accounts.models import Shop
from web.logbook.models.calls import Call
from web.logbook.models.places import OfShop, Unit


class TrendLog(models.Model):
    """One log of a unit: from a file, from probes, or from a controller.

    `layout` is how the file is laid out, `match` what each column is, `findings` what the core reads in it. One that is asked for or being
    read holds nothing yet; its file is kept until it is read.
    """

    SOURCES = [("file", "file"), ("probes", "probes"), ("controller", "controller")]
    STATES = [("asked", "to be matched"), ("reading", "being read"), ("ready", "read"), ("failed", "not read"), ("stopped", "stopped")]

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="trend_logs")
    unit = models.ForeignKey(Unit, on_delete=models.PROTECT, related_name="trend_logs")
    call = models.ForeignKey(Call, on_delete=models.PROTECT, related_name="trend_logs", null=True, blank=True)
    name = models.CharField(max_length=120)
    source = models.CharField(max_length=10, choices=SOURCES, default="file")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(default=work_time.now)
    state = models.CharField(max_length=8, choices=STATES, default="asked")
    touched_at = models.DateTimeField(default=work_time.now)
    file = models.FileField(upload_to="incoming/", blank=True)
    size = models.PositiveIntegerField(default=0)
    layout = models.JSONField(default=dict, blank=True)
    match = models.JSONField(default=dict, blank=True)
    zone = models.CharField(max_length=60, blank=True)
    clock = models.CharField(max_length=10, blank=True)
    swapped = models.BooleanField(default=False)
    read_rows = models.PositiveIntegerField(default=0)
    complaint = models.CharField(max_length=300, blank=True)
    begins = models.DateTimeField(null=True, blank=True)
    ends = models.DateTimeField(null=True, blank=True)
    rows = models.PositiveIntegerField(default=0)
    notes = models.JSONField(default=list, blank=True)
    findings = models.JSONField(default=list, blank=True)
    marks = models.JSONField(default=list, blank=True)
    undone_at = models.DateTimeField(null=True, blank=True)
    undone_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["begins", "pk"]
        indexes = [models.Index(fields=["unit", "state"])]
        constraints = [
            models.UniqueConstraint(
                fields=["call", "source"],
                condition=~models.Q(source="file") & models.Q(undone_at=None),
                name="one_live_log_of_a_source_on_a_call",
            )
        ]

    def __str__(self):
        return self.name

    @property
    def is_ready(self):
        """Whether it holds something that stands."""
        return self.state == "ready" and self.undone_at is None


class TrendData(models.Model):
    """The figures of a log, packed (`web/logbook/trends.py`)."""

    log = models.OneToOneField(TrendLog, on_delete=models.CASCADE, related_name="data")
    packed = models.BinaryField()

    def __str__(self):
        return f"{self.log}, {len(self.packed)} bytes"


class TrendMatch(models.Model):
    """What the columns of a file with these headers are in a shop, as it was said last."""

    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="trend_matches")
    headers = models.CharField(max_length=64)
    match = models.JSONField(default=dict)
    clock = models.CharField(max_length=10, blank=True)
    swapped = models.BooleanField(default=False)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["shop", "headers"], name="one_match_of_headers_in_a_shop")]

    def __str__(self):
        return self.headers
