"""What was measured in the wiring."""

from django.db import models

from web.logbook.models.calls import Entry


class Measurement(Entry):
    """Volts or ohms between two points of the circuit, or amps round the lead of a part (`one`), and the state it was in."""

    WHAT = [("volts", "volts"), ("amps", "amps"), ("ohms", "ohms")]

    what = models.CharField(max_length=5, choices=WHAT)
    one = models.CharField(max_length=20)
    other = models.CharField(max_length=20, blank=True)
    value = models.FloatField()
    state = models.CharField(max_length=16)

    def __str__(self):
        return f"{self.what} {self.one} {self.other}".strip()
