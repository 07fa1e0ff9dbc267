"""What was tapped while the cycles of a pressure control were watched."""

from django.db import models

from web.logbook.models.calls import Entry


class SwitchMoment(Entry):
    """A start or a stop of the compressor, with box and suction where they were read, °F and psig."""

    WHAT = [("start", "starts"), ("stop", "stops")]

    what = models.CharField(max_length=5, choices=WHAT)
    box_f = models.FloatField(null=True, blank=True)
    psig = models.FloatField(null=True, blank=True)
    source = models.CharField(max_length=24, blank=True, help_text="What took it by itself; empty where a person tapped it")

    def __str__(self):
        return f"It {self.get_what_display()}"
