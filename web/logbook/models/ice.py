"""Ice as it was painted, and how it was melted."""

from django.db import models

from kettle.benches.ice.melt import melted_min
from web import work_time
from web.logbook.models.calls import Entry


class IceDrawing(Entry):
    """An ice map as it was painted: rows of letters, form by place, cells with oil, and the coil it lies on."""

    STAGES = [("before", "before melting"), ("after", "after melting")]

    stage = models.CharField(max_length=6, choices=STAGES)
    evaporator = models.PositiveSmallIntegerField(default=1)
    rows = models.JSONField()
    places = models.JSONField(default=dict, blank=True)
    oil = models.JSONField(default=list, blank=True)
    face_ft2 = models.FloatField()

    def __str__(self):
        return f"{self.get_stage_display()}, coil {self.evaporator}"


class Melt(Entry):
    """A melt: its method, when it ended, whether it was proved clear, and why ice was left where it was not."""

    method = models.CharField(max_length=20)
    ended_at = models.DateTimeField(null=True, blank=True)
    clear = models.BooleanField(null=True, blank=True)
    reason = models.CharField(max_length=300, blank=True)
    paused_at = models.DateTimeField(null=True, blank=True)
    paused_min = models.FloatField(default=0.0)

    class Meta(Entry.Meta):
        constraints = [
            models.UniqueConstraint(fields=["call"], condition=models.Q(ended_at=None, undone_at=None), name="one_melt_under_way_on_a_call")
        ]

    @property
    def ran_min(self):
        """How long it has gone on, min, without its pauses."""
        until = self.paused_at or self.ended_at or work_time.now()
        return melted_min((until - self.at).total_seconds() / 60.0, self.paused_min)

    def __str__(self):
        return self.method
