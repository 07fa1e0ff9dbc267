"""What was measured in the wiring, what was put there for the time being, and the wires of start gear."""

from django.conf import settings
from django.db import models

from kettle.call.placed import WHAT as THERE
from kettle.electrical.wiring import START_GEAR
from web.logbook.models.calls import Call, Entry


class Measurement(Entry):
    """Volts or ohms between two points of the circuit, or amps round the lead of a part (`one`), and the state it was in."""

    WHAT = [("volts", "volts"), ("amps", "amps"), ("ohms", "ohms")]

    what = models.CharField(max_length=5, choices=WHAT)
    one = models.CharField(max_length=20)
    other = models.CharField(max_length=20, blank=True)
    value = models.FloatField()
    state = models.CharField(max_length=16)
    lifted = models.BooleanField(default=False, help_text="Ohms with the leads off the part: nothing lies beside it")

    def __str__(self):
        return f"{self.what} {self.one} {self.other}".strip()


class Placed(Entry):
    """Something put on a unit that should not stay there: still there until it is gone, on the next calls too."""

    WHAT = list(THERE.items())

    call = models.ForeignKey(Call, on_delete=models.CASCADE, related_name="left_there")
    what = models.CharField(max_length=16, choices=WHAT)
    where = models.CharField(max_length=120, blank=True)
    does_not = models.CharField(max_length=200, blank=True, help_text="What no longer happens by itself")
    gone_at = models.DateTimeField(null=True, blank=True)
    gone_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)
    left_why = models.CharField(max_length=300, blank=True)

    def __str__(self):
        return f"{self.get_what_display()}: {self.where}" if self.where else self.get_what_display()


class StartWiring(Entry):
    """The wires of a compressor's start gear, each from a terminal to another: as found, or as run for the new parts."""

    WHICH = [("found", "as found"), ("new", "for the new parts")]

    which = models.CharField(max_length=5, choices=WHICH)
    gear = models.CharField(max_length=10, choices=list(START_GEAR.items()))
    wires = models.JSONField(default=list)

    def __str__(self):
        return f"Start gear, {self.get_which_display()}"
