"""What happened on a call and has no table of its own: words of a kind of event, as the core's table of kinds has it."""

from django.db import models

from web.logbook.models.calls import Entry


class Happened(Entry):
    """One event of a kind that nothing else stores: its kind, what it carries (`kettle/call/carries.py`), and the coil it is of."""

    kind = models.CharField(max_length=20)
    data = models.JSONField(default=dict, blank=True)
    evaporator = models.PositiveSmallIntegerField(null=True, blank=True)

    def __str__(self):
        return self.kind
