"""Outside devices of a shop: wireless probes and case controllers, and where they answer."""

from django.db import models
from django.utils import timezone

from web.accounts.models import Shop
from web.logbook.models.places import OfShop


class Device(models.Model):
    """A device of a shop; units say which they have. `simulated` marks a stand-in: what it says is no measurement."""

    KINDS = [("probes", "wireless probes"), ("controller", "case controller")]

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="devices")
    name = models.CharField(max_length=60)
    kind = models.CharField(max_length=12, choices=KINDS)
    address = models.CharField(max_length=120, help_text="host:port")
    simulated = models.BooleanField(default=False)
    added_at = models.DateTimeField(default=timezone.now)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["shop", "name"], name="device_name_once_in_a_shop")]

    def __str__(self):
        return f"{self.name}, simulated" if self.simulated else self.name
