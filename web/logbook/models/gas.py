"""Cylinders of refrigerant and every ounce that moved; evacuations, standing tests, leak searches and changes of a part on a call."""

from django.conf import settings
from django.db import models

from kettle.benches.refrigerant.change import PARTS
from kettle.benches.refrigerant.compressor import FIRST_MIN, OIL
from kettle.benches.refrigerant.leaks import BACKGROUND, HEARD, code_of
from kettle.benches.refrigerant.ledger import KINDS
from web.accounts.models import Shop
from web.logbook.models.calls import Call, Entry
from web.logbook.models.places import OfShop, Unit


class Cylinder(models.Model):
    """A cylinder of a shop by its number: what it is of, its tare and water capacity (lb), whether it is for recovery."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="cylinders")
    number = models.CharField(max_length=40)
    refrigerant = models.CharField(max_length=12)
    recovery = models.BooleanField(default=False)
    tare_lb = models.FloatField(null=True, blank=True)
    water_lb = models.FloatField(null=True, blank=True)
    gone_at = models.DateTimeField(null=True, blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["shop", "number"], name="cylinder_number_once_in_a_shop")]

    def __str__(self):
        return self.number


class GasMove(models.Model):
    """One line of the ledger: never edited, only countered by another line."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="gas_moves")
    day = models.DateField()
    kind = models.CharField(max_length=10, choices=[(code, kind.label) for code, kind in KINDS.items()])
    oz = models.FloatField(help_text="Negative for a counter-entry")
    refrigerant = models.CharField(max_length=12)
    cylinder = models.ForeignKey(Cylinder, on_delete=models.PROTECT, related_name="moves", null=True, blank=True)
    unit = models.ForeignKey(Unit, on_delete=models.PROTECT, related_name="gas_moves", null=True, blank=True)
    call = models.ForeignKey(Call, on_delete=models.PROTECT, related_name="gas_moves", null=True, blank=True)
    act = models.ForeignKey("logbook.Act", on_delete=models.PROTECT, related_name="gas_moves", null=True, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    reason = models.CharField(max_length=200, blank=True)
    counters = models.OneToOneField("self", on_delete=models.PROTECT, related_name="countered_by", null=True, blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["-day", "-pk"]
        indexes = [models.Index(fields=["shop", "-day"]), models.Index(fields=["cylinder", "kind"])]

    def __str__(self):
        return f"{self.get_kind_display()} {self.oz:g} oz"


class VacuumReading(Entry):
    """Microns at a minute of an evacuation, with the pump running or shut off."""

    microns = models.FloatField()
    pump = models.BooleanField(default=True)

    def __str__(self):
        return f"{self.microns:g} microns{'' if self.pump else ', shut off'}"


class StandingTest(Entry):
    """Dry nitrogen as it was put on, and as it stood when it was read again; psig and °F."""

    start_psig = models.FloatField()
    start_f = models.FloatField()
    now_psig = models.FloatField()
    now_f = models.FloatField()
    minutes = models.FloatField()

    def __str__(self):
        return f"{self.start_psig:g} psig for {self.minutes:g} min"


class LeakLook(Entry):
    """What the detector or bubbles gave at a place."""

    place = models.CharField(max_length=20)
    heard = models.CharField(max_length=8, choices=list(HEARD.items()))
    reading = models.FloatField(null=True, blank=True, help_text="As the detector shows it, in whatever unit")
    evaporator = models.PositiveSmallIntegerField(null=True, blank=True, help_text="Which coil, where a place of it was gone over")

    @property
    def of(self):
        """The code of the place, of its coil where it is one of several."""
        return self.place if self.place == BACKGROUND else code_of(self.place, self.evaporator)

    def __str__(self):
        return f"{self.place}: {self.get_heard_display()}"


class ChangeStep(Entry):
    """A step of changing a part or of a triple evacuation, done; what was noted of it (a number, an amount, a type)."""

    part = models.CharField(max_length=12, choices=[*PARTS.items(), ("triple", "Triple evacuation")])
    step = models.CharField(max_length=20)
    note = models.CharField(max_length=120, blank=True)

    def __str__(self):
        return f"{self.get_part_display()}: {self.step}"


class FirstStartReading(Entry):
    """What was read of a new compressor at a minute after its first start; amps, psig, how its oil looked."""

    minute = models.PositiveSmallIntegerField(choices=[(minute, f"{minute} min") for minute in FIRST_MIN])
    amps = models.FloatField()
    suction_psig = models.FloatField()
    discharge_psig = models.FloatField()
    oil = models.CharField(max_length=10, choices=list(OIL.items()))

    def __str__(self):
        return f"After {self.minute} min"
