"""Addresses that need no log-in or say nothing by themselves: a call for its customer, a unit's sticker."""

import uuid

from django.db import models

from web import work_time
from web.logbook.models.calls import Call
from web.logbook.models.places import Unit


class CustomerLink(models.Model):
    """A call's customer's page, reached by a key until a day."""

    call = models.OneToOneField(Call, on_delete=models.CASCADE, related_name="customer_link")
    key = models.UUIDField(default=uuid.uuid4, unique=True)
    until = models.DateTimeField()

    def __str__(self):
        return f"Customer's page of {self.call}"

    @property
    def is_open(self):
        """Whether it can still be read."""
        return self.until > work_time.now()


class Sticker(models.Model):
    """A unit's sticker: what its QR code holds, and nothing of the unit."""

    unit = models.OneToOneField(Unit, on_delete=models.CASCADE, related_name="sticker")
    key = models.UUIDField(default=uuid.uuid4, unique=True)

    def __str__(self):
        return f"Sticker of {self.unit}"
