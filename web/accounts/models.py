"""A shop and the people who work in it."""

import uuid

from django.conf import settings
from django.db import models

from kettle.judging.schools import CHOICES as SCHOOLS
from kettle.judging.schools import Schools
from kettle.knowledge.measures import SHOWN_CHOICES, TRADE, ShownUnits


class Installation(models.Model):
    """This installation: a name no other has, for what a browser keeps of it. There is one row."""

    key = models.UUIDField(default=uuid.uuid4, editable=False)
    made_at = models.DateTimeField(auto_now_add=True)

    def __str__(self):
        return str(self.key)


class RealShops(models.Manager):
    """Shops that somebody works for; those of the practice yard are left out."""

    def get_queryset(self):
        return super().get_queryset().filter(practice=False)


class Shop(models.Model):
    """A service company; everything recorded belongs to one. A practice call has one of its own, which nothing else sees."""

    objects, with_practice = RealShops(), models.Manager()

    practice = models.BooleanField(default=False, editable=False)
    name = models.CharField(max_length=80, unique=True)
    valve_school = models.CharField(max_length=10, choices=list(SCHOOLS["valve"][1].items()), default="symptom")
    leak_method = models.CharField(max_length=10, choices=[("annualised", "annualised"), ("rolling", "rolling year")], default="annualised")
    leak_limit_pct = models.FloatField(
        null=True, blank=True, help_text="From which leak rate on a unit is marked; nothing is preset as law"
    )
    rate_cents = models.PositiveIntegerField(default=0, help_text="An hour of work on a quote; nothing is preset")
    travel_cents = models.PositiveIntegerField(default=0)
    markup_pct = models.FloatField(default=0.0)
    tax_pct = models.FloatField(default=0.0)
    tax_labour = models.BooleanField(default=True)
    day_begins_min = models.PositiveSmallIntegerField(null=True, blank=True, help_text="What lies outside the day is overtime")
    day_ends_min = models.PositiveSmallIntegerField(null=True, blank=True)
    work_school = models.CharField(max_length=10, choices=list(SCHOOLS["work"][1].items()), default="repair")

    def __str__(self):
        return self.name


def _choices(name):
    return [(unit, unit) for unit in SHOWN_CHOICES[name]]


class Member(models.Model):
    """A person of a shop; the owner adds people and devices and reads the log."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="member")
    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="members")
    temperature = models.CharField(max_length=10, choices=_choices("temperature"), default=TRADE.temperature)
    pressure = models.CharField(max_length=10, choices=_choices("pressure"), default=TRADE.pressure)
    mass = models.CharField(max_length=10, choices=_choices("mass"), default=TRADE.mass)
    vacuum = models.CharField(max_length=10, choices=_choices("vacuum"), default=TRADE.vacuum)
    by_feel = models.BooleanField(default=False)
    feed_key = models.UUIDField(null=True, blank=True, unique=True, help_text="Whoever has it reads this person's follow-ups as a calendar")
    owner = models.BooleanField(default=False)
    live_work = models.BooleanField(default=True)

    def __str__(self):
        return self.user.get_full_name() or self.user.get_username()

    def save(self, *given, **named):
        """As Django's own; whoever practises is in the practice shop for the request only, and is not stored so."""
        if self.shop.practice:
            raise ValueError("a person belongs to a real shop")
        super().save(*given, **named)

    @property
    def schools(self):
        """What the shop and this person hold with, as the core takes it."""
        return Schools(self.shop.valve_school, self.shop.work_school, self.by_feel)

    @property
    def shown(self):
        """The units this person reads and types in, as the core takes them."""
        return ShownUnits(self.temperature, self.pressure, self.mass, self.vacuum)
