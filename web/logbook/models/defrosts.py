"""Defrost programs, plans, defrosts watched, and what passed between a call and its controller."""

from django.db import models

from web import work_time
from web.logbook.models.calls import Entry


class DefrostProgram(Entry):
    """A defrost program as found or as left: starts in minutes after midnight, each role's value in its stored unit."""

    SIDES = [("found", "as found"), ("left", "as left")]

    side = models.CharField(max_length=5, choices=SIDES)
    starts = models.JSONField(default=list)
    figures = models.JSONField(default=dict)
    why = models.CharField(max_length=300, blank=True)

    def __str__(self):
        return self.get_side_display()


AT_WORK = ("waiting", "working")


class DefrostPlan(Entry):
    """A week of programs asked of the model: what was asked, how far it is, and what came out."""

    STATES = [("waiting", "waiting"), ("working", "working"), ("done", "done"), ("stopped", "stopped"), ("failed", "failed")]

    state = models.CharField(max_length=7, choices=STATES, default="working")
    share = models.FloatField(default=0.0)
    touched_at = models.DateTimeField(default=work_time.now)
    asked = models.JSONField(default=dict)
    result = models.JSONField(default=dict)
    complaint = models.CharField(max_length=300, blank=True)

    class Meta(Entry.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["call"], condition=models.Q(state__in=["waiting", "working"]), name="one_plan_at_work_on_a_call"
            )
        ]

    def __str__(self):
        return f"plan, {self.state}"


class DefrostWatch(Entry):
    """A defrost watched from its start (`at`): minutes to each milestone, by what it ended, and whether the coil was clear."""

    program = models.JSONField(default=dict)
    expected = models.JSONField(default=dict)
    marks = models.JSONField(default=dict)
    ended_by = models.CharField(max_length=12, blank=True)
    coil_after = models.CharField(max_length=10, blank=True)

    class Meta(Entry.Meta):
        constraints = [
            models.UniqueConstraint(fields=["call"], condition=models.Q(ended_by="", undone_at=None), name="one_defrost_watched_on_a_call")
        ]

    def __str__(self):
        return "watched defrost" if self.ended_by else "defrost being watched"

    @property
    def minutes(self):
        """Minutes to each milestone, for templates: `marks.clear` would there be the method of a dict."""
        return {f"to_{mark}": self.marks.get(mark) for mark in ("drip", "clear", "ended")}

    @property
    def is_over(self):
        """Whether it has ended."""
        return bool(self.ended_by)


class ControllerTalk(Entry):
    """What was read from a controller, or written to it and read back: settings by role, roles refused, what went wrong.

    `reason` says why it was written to although it did not look like this unit's.
    """

    wrote = models.JSONField(default=dict)
    settings = models.JSONField(default=dict)
    refused = models.JSONField(default=dict)
    complaint = models.CharField(max_length=300, blank=True)
    reason = models.CharField(max_length=300, blank=True)
    simulated = models.BooleanField(default=False)

    def __str__(self):
        return "written and read back" if self.wrote else "read"
