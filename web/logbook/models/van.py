"""What a van carries, and what of it was used on a call."""

from django.conf import settings
from django.db import models

from kettle.benches.quote.price import money, quantity_words
from kettle.benches.quote.van import Carried
from web.accounts.models import Shop
from web.logbook.models.calls import Entry
from web.logbook.models.places import OfShop


class VanPart(models.Model):
    """A part in one person's van: how many are in it, how many should be, what one costs in cents before markup."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="van_parts")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="van_parts")
    what = models.CharField(max_length=80)
    carried = models.DecimalField(max_digits=8, decimal_places=2, default=0)
    wanted = models.DecimalField(max_digits=8, decimal_places=2, default=0)
    cents = models.PositiveIntegerField(null=True, blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["what"]
        constraints = [models.UniqueConstraint(fields=["person", "what"], name="a_part_once_in_a_van")]

    def __str__(self):
        return self.what

    def as_carried(self):
        """The part as the core takes it."""
        return Carried(self.what, self.carried, self.wanted, self.cents)

    @property
    def price_words(self):
        """What one costs as it was typed; empty where nobody said."""
        return "" if self.cents is None else money(self.cents)


class PartUsed(Entry):
    """Parts that went into a unit on a call: what, how many, out of which van, what one cost in cents then."""

    what = models.CharField(max_length=80)
    quantity = models.DecimalField(max_digits=8, decimal_places=2, default=1)
    cents = models.PositiveIntegerField(null=True, blank=True)
    out_of_van = models.DecimalField(max_digits=8, decimal_places=2, null=True, blank=True, help_text="How many the van had of them")
    van_part = models.ForeignKey(VanPart, on_delete=models.SET_NULL, null=True, blank=True, related_name="used")

    def __str__(self):
        return f"{quantity_words(self.quantity)} × {self.what}"
