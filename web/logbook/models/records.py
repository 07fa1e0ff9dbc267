"""What is recorded on a call with time and person: readings, sets, turns, settings, findings, siblings, photos."""

from django.db import models

from web.logbook.models.calls import Entry
from web.logbook.models.places import Unit

# How the source of a reading ends that no real device gave.
SIMULATED = ", simulated"
# Where a reading was worked out of a measurement, or found or left where a setting was changed.
WORKED_OUT, SETTING = "worked out", "setting"


class Reading(Entry):
    """One observation: its key in the registry, its value, and what was typed."""

    key = models.CharField(max_length=40)
    value = models.JSONField()
    typed = models.CharField(max_length=200, blank=True)
    source = models.CharField(max_length=40, default="hand")
    evaporator = models.PositiveSmallIntegerField(null=True, blank=True)

    class Meta(Entry.Meta):
        indexes = [models.Index(fields=["call", "key"])]

    @property
    def is_simulated(self):
        """Whether a stand-in said it: it is no measurement."""
        return self.source.endswith(SIMULATED)

    def __str__(self):
        return f"{self.key} {self.value}"


class ReadingSet(Entry):
    """One moment's readings under a name; a good one is a baseline of its unit."""

    label = models.CharField(max_length=60)
    good = models.BooleanField(default=False)

    def __str__(self):
        return self.label


class Act(Entry):
    """Something done to a part that changes the plant (`kettle/knowledge/acts.py`); it opens the next stage of the call."""

    part = models.CharField(max_length=30)
    did = models.CharField(max_length=30)
    value = models.FloatField(null=True, blank=True)
    evaporator = models.PositiveSmallIntegerField(null=True, blank=True)
    note = models.CharField(max_length=300, blank=True)
    by_eye = models.BooleanField(default=False, help_text="Gas without a scale: the value, where there is one, is an estimate")

    @property
    def code(self):
        """Part and word together, as the core's table has it."""
        return f"{self.part}.{self.did}"

    def __str__(self):
        return self.code


class ValveTurn(Entry):
    """One adjustment of the expansion valve; it starts a settling clock."""

    direction = models.CharField(max_length=3)
    turns = models.FloatField()
    goal = models.CharField(max_length=5, blank=True)
    objections = models.JSONField(default=list, blank=True)
    reason = models.CharField(max_length=300, blank=True)
    evaporator = models.PositiveSmallIntegerField(null=True, blank=True)

    def __str__(self):
        return f"{self.turns:g} {self.direction}"


class Override(Entry):
    """What was taken on against a hold: the action, the holds that blocked it, and why all the same."""

    action = models.CharField(max_length=20)
    holds = models.JSONField(default=list)
    texts = models.JSONField(default=list)
    reason = models.CharField(max_length=300)

    def __str__(self):
        return self.action


class Weighing(models.Model):
    """The scale beside an act on the charge: the cylinder, its weight before and now, what stayed in hoses (oz), and how it went in."""

    FORMS = [("liquid", "as liquid"), ("vapour", "as vapour")]

    act = models.OneToOneField(Act, on_delete=models.CASCADE, related_name="weighing")
    cylinder = models.CharField(max_length=40, blank=True)
    before_oz = models.FloatField()
    after_oz = models.FloatField()
    lost_oz = models.FloatField(default=0.0)
    form = models.CharField(max_length=6, choices=FORMS, blank=True)

    def __str__(self):
        return f"{self.cylinder or 'cylinder'} {self.before_oz:g} to {self.after_oz:g} oz"


class Finding(Entry):
    """What the technician found the cause to be: one code, or two."""

    causes = models.JSONField()
    evaporator = models.PositiveSmallIntegerField(null=True, blank=True)

    def __str__(self):
        return " + ".join(self.causes)


class SettingChange(Entry):
    """One setting as found and as left, and why."""

    parameter = models.CharField(max_length=30)
    as_found = models.CharField(max_length=80)
    as_left = models.CharField(max_length=80)
    why = models.CharField(max_length=300)

    def __str__(self):
        return f"{self.parameter} {self.as_found} → {self.as_left}"


class SiblingState(Entry):
    """How another box on the same plant was found on this call."""

    unit = models.ForeignKey(Unit, on_delete=models.CASCADE, related_name="+")
    state = models.CharField(max_length=4, choices=[("ok", "fine"), ("bad", "bad too")])

    def __str__(self):
        return f"{self.unit.name} {self.state}"


class Photo(Entry):
    """A picture, re-encoded and without metadata, of a call, a stop or a place on the ice map."""

    stop = models.CharField(max_length=20, blank=True)
    place = models.CharField(max_length=30, blank=True)
    caption = models.CharField(max_length=120, blank=True)
    image = models.ImageField(upload_to="photos/")
    thumbnail = models.ImageField(upload_to="thumbnails/")

    def __str__(self):
        return self.caption or self.place or self.stop or "photo"
