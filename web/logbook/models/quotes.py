"""A quote of a call: its lines by option, and what the customer answered, with name and signature."""

from django.conf import settings
from django.db import models

from kettle.benches.quote.price import KINDS, money
from kettle.benches.quote.propose import OPTIONS
from web import work_time
from web.logbook.models.calls import Call
from web.logbook.models.records import Photo


class Quote(models.Model):
    """A call's quote; `terms` are the shop's as they were when it was answered, `signature` the strokes of a finger as a path."""

    call = models.OneToOneField(Call, on_delete=models.CASCADE, related_name="quote")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(default=work_time.now)
    terms = models.JSONField(default=dict, blank=True)
    answered_at = models.DateTimeField(null=True, blank=True)
    answered_name = models.CharField(max_length=80, blank=True)
    signature = models.TextField(blank=True)
    photos = models.ManyToManyField(Photo, blank=True, related_name="+")

    def __str__(self):
        return f"Quote of {self.call}"


class QuoteSigned(models.Model):
    """One answer of the customer's, frozen as it was shown and signed; a later one is another row.

    `options` are the options as they were shown: label, total, and rows of what, how much of it, price and answer, in words.
    """

    quote = models.ForeignKey(Quote, on_delete=models.CASCADE, related_name="signed")
    at = models.DateTimeField(default=work_time.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    name = models.CharField(max_length=80)
    signature = models.TextField()
    terms = models.JSONField(default=dict)
    seen = models.CharField(max_length=64)
    options = models.JSONField(default=list)
    accepted = models.CharField(max_length=24, blank=True)

    class Meta:
        ordering = ["at", "pk"]

    def __str__(self):
        return f"{self.quote}, signed by {self.name}"


class QuoteLine(models.Model):
    """A line of a quote: what, of which option, pieces or hours, and what one costs in cents (none: the shop's terms, or not known)."""

    quote = models.ForeignKey(Quote, on_delete=models.CASCADE, related_name="lines")
    option = models.CharField(max_length=10, choices=list(OPTIONS.items()))
    kind = models.CharField(max_length=10, choices=list(KINDS.items()))
    what = models.CharField(max_length=120)
    quantity = models.DecimalField(max_digits=8, decimal_places=2, default=1)
    cents = models.PositiveIntegerField(null=True, blank=True)
    answer = models.CharField(max_length=10, blank=True, choices=[("accepted", "accepted"), ("declined", "declined")])

    class Meta:
        ordering = ["pk"]

    def __str__(self):
        return self.what

    @property
    def price_words(self):
        """The price of one as it was typed; empty where none was."""
        return "" if self.cents is None else money(self.cents)
