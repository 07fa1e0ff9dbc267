"""Sites, units, calls, and everything recorded on a call with time and person.

Nothing recorded is overwritten: the latest entry stands, the earlier ones are history, and one taken back keeps who
took it back and when.
"""

from datetime import timedelta

from django.conf import settings
from django.core.serializers.json import DjangoJSONEncoder
from django.db import models
from django.utils import timezone

from kettle.benches.ice.map import face_ft2
from kettle.knowledge.unit import CHOICES, UnitSpec, resolve
from web.accounts.models import Shop


def _choices(name):
    return [(code, label) for code, label in CHOICES[name].items()]


class OfShop(models.QuerySet):
    """Rows that belong to a shop by their `shop` field."""

    def for_user(self, user):
        """Only what the person may reach."""
        member = getattr(user, "member", None)
        return self.filter(shop=member.shop_id) if member else self.none()


class Site(models.Model):
    """A customer's place."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="sites")
    name = models.CharField(max_length=80)
    altitude_ft = models.IntegerField(default=0)
    opens_min = models.PositiveSmallIntegerField(null=True, blank=True)
    closes_min = models.PositiveSmallIntegerField(null=True, blank=True)
    deliveries_min = models.JSONField(default=list, blank=True)
    notes = models.TextField(blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["shop", "name"], name="site_name_once_in_a_shop")]

    def __str__(self):
        return self.name


class Unit(models.Model):
    """A unit. What is left empty takes the default of its kind; one without a site is a quick look."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="units")
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="units", null=True, blank=True)
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=30, choices=_choices("kind"))
    refrigerant = models.CharField(max_length=12)
    metering = models.CharField(max_length=10, choices=_choices("metering"), blank=True)
    condensing = models.CharField(max_length=10, choices=_choices("condensing"), blank=True)
    receiver = models.BooleanField(null=True, blank=True)
    head_control = models.CharField(max_length=24, choices=_choices("head_control"), blank=True)
    defrost = models.CharField(max_length=12, choices=_choices("defrost"), blank=True)
    box_control = models.CharField(max_length=20, choices=_choices("box_control"), blank=True)
    set_f = models.FloatField(null=True, blank=True)
    differential_f = models.FloatField(null=True, blank=True)
    critical_charge_oz = models.FloatField(null=True, blank=True)
    compressor_rla_a = models.FloatField(null=True, blank=True)
    nameplate_v = models.FloatField(null=True, blank=True)
    phases = models.PositiveSmallIntegerField(null=True, blank=True, choices=[(1, "1"), (3, "3")])
    evaporators = models.PositiveSmallIntegerField(null=True, blank=True)
    bands = models.JSONField(default=dict, blank=True)
    altitude_ft = models.FloatField(null=True, blank=True)
    plant = models.CharField(
        max_length=80, blank=True, help_text="Shared condensing unit or rack; units of a site that name the same are siblings"
    )
    coil_face_ft2 = models.FloatField(null=True, blank=True)
    notes = models.TextField(blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["site__name", "name"]

    def __str__(self):
        return f"{self.name} · {self.site.name}" if self.site else self.name

    def spec(self):
        """The unit as the core takes it; the site gives the altitude where the unit has none of its own."""
        words = ("metering", "condensing", "head_control", "defrost", "box_control")
        figures = ("receiver", "set_f", "differential_f", "critical_charge_oz", "compressor_rla_a", "nameplate_v",
                   "phases", "evaporators")  # fmt: skip
        altitude = self.altitude_ft
        if altitude is None and self.site:
            altitude = float(self.site.altitude_ft)
        return UnitSpec(
            kind=self.kind,
            refrigerant=self.refrigerant,
            name=str(self),
            altitude_ft=altitude,
            bands={quantity: tuple(band) for quantity, band in self.bands.items()},
            **{name: getattr(self, name) or None for name in words},
            **{name: getattr(self, name) for name in figures},
        )

    def resolved(self):
        """The unit with its gaps filled from the kind."""
        return resolve(self.spec())

    @property
    def face_ft2(self):
        """The face of one coil, measured or usual for the kind."""
        return self.coil_face_ft2 or face_ft2(self.kind)

    @property
    def siblings(self):
        """The other units on the same plant at the same site."""
        if not self.plant or not self.site_id:
            return Unit.objects.none()
        return Unit.objects.filter(shop=self.shop_id, site=self.site_id, plant=self.plant).exclude(pk=self.pk)


class BandChange(models.Model):
    """A band of a unit made its own, or given back to its kind (low and high empty): who, when and why."""

    unit = models.ForeignKey(Unit, on_delete=models.CASCADE, related_name="bandchanges")
    at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    quantity = models.CharField(max_length=40)
    low = models.FloatField(null=True, blank=True)
    high = models.FloatField(null=True, blank=True)
    why = models.CharField(max_length=300)

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self):
        return f"{self.quantity} {self.low} {self.high}"


class Call(models.Model):
    """One visit to one unit."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="calls")
    unit = models.ForeignKey(Unit, on_delete=models.PROTECT, related_name="calls")
    number = models.PositiveIntegerField()
    opened_at = models.DateTimeField(default=timezone.now)
    opened_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="calls")
    closed_at = models.DateTimeField(null=True, blank=True)
    complaint = models.TextField(blank=True)
    changed = models.TextField(blank=True)
    check_in_min = models.PositiveSmallIntegerField(null=True, blank=True)
    checked_in_at = models.DateTimeField(null=True, blank=True)
    found = models.TextField(blank=True)
    done = models.TextField(blank=True)
    advice = models.TextField(blank=True)
    declined = models.TextField(blank=True)
    next_visit = models.DateField(null=True, blank=True)
    next_visit_why = models.CharField(max_length=200, blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["-opened_at"]
        constraints = [models.UniqueConstraint(fields=["shop", "number"], name="call_number_once_in_a_shop")]

    def __str__(self):
        return f"Call {self.number}"

    @property
    def is_open(self):
        """Whether the visit is still going on."""
        return self.closed_at is None

    @property
    def check_in_due(self):
        """When the person alone on site must check in again; None where no clock runs."""
        if not self.is_open or not self.check_in_min or not self.checked_in_at:
            return None
        return self.checked_in_at + timedelta(minutes=self.check_in_min)

    @property
    def check_in_overdue(self):
        """Whether the check-in is overdue."""
        due = self.check_in_due
        return due is not None and due < timezone.now()


class Entry(models.Model):
    """Something recorded on a call by a person at a time; taken back rather than deleted."""

    call = models.ForeignKey(Call, on_delete=models.CASCADE, related_name="%(class)ss")
    at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    undone_at = models.DateTimeField(null=True, blank=True)
    undone_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True)

    class Meta:
        abstract = True
        ordering = ["at", "pk"]

    @property
    def shop_id(self):
        """The shop the entry belongs to."""
        return self.call.shop_id


class Reading(Entry):
    """One observation: its key in the registry, its value, and what was typed."""

    key = models.CharField(max_length=40)
    value = models.JSONField()
    typed = models.CharField(max_length=200, blank=True)
    source = models.CharField(max_length=40, default="hand")
    evaporator = models.PositiveSmallIntegerField(null=True, blank=True)

    class Meta(Entry.Meta):
        indexes = [models.Index(fields=["call", "key"])]

    def __str__(self):
        return f"{self.key} {self.value}"


class ReadingSet(Entry):
    """One moment's readings under a name; a good one is a baseline of its unit."""

    label = models.CharField(max_length=60)
    good = models.BooleanField(default=False)

    def __str__(self):
        return self.label


class ValveTurn(Entry):
    """One adjustment of the expansion valve; it starts a settling clock."""

    direction = models.CharField(max_length=3)
    turns = models.FloatField()
    goal = models.CharField(max_length=5, blank=True)
    objections = models.JSONField(default=list, blank=True)
    reason = models.CharField(max_length=300, blank=True)

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


class Finding(Entry):
    """What the technician found the cause to be: one code, or two."""

    causes = models.JSONField()

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


class DefrostProgram(Entry):
    """A defrost program as found or as left: starts in minutes after midnight, each role's value in its stored unit."""

    SIDES = [("found", "as found"), ("left", "as left")]

    side = models.CharField(max_length=5, choices=SIDES)
    starts = models.JSONField(default=list)
    figures = models.JSONField(default=dict)
    why = models.CharField(max_length=300, blank=True)

    def __str__(self):
        return self.get_side_display()


class DefrostPlan(Entry):
    """A week of programs asked of the model: what was asked, how far it is, and what came out."""

    STATES = [("working", "working"), ("done", "done"), ("stopped", "stopped"), ("failed", "failed")]

    state = models.CharField(max_length=7, choices=STATES, default="working")
    share = models.FloatField(default=0.0)
    touched_at = models.DateTimeField(default=timezone.now)
    asked = models.JSONField(default=dict)
    result = models.JSONField(default=dict)
    complaint = models.CharField(max_length=300, blank=True)

    def __str__(self):
        return f"plan, {self.state}"


class DefrostWatch(Entry):
    """A defrost watched from its start (`at`): minutes to each milestone, by what it ended, and whether the coil was clear."""

    program = models.JSONField(default=dict)
    expected = models.JSONField(default=dict)
    marks = models.JSONField(default=dict)
    ended_by = models.CharField(max_length=12, blank=True)
    coil_after = models.CharField(max_length=10, blank=True)

    def __str__(self):
        return "watched defrost" if self.ended_by else "defrost being watched"

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

    def __str__(self):
        return "written and read back" if self.wrote else "read"


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

    def __str__(self):
        return self.method


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


class LogEntry(models.Model):
    """Who did what, when: one line for every action."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="log")
    at = models.DateTimeField(default=timezone.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    action = models.CharField(max_length=40)
    call = models.ForeignKey(Call, on_delete=models.SET_NULL, null=True, blank=True, related_name="log")
    data = models.JSONField(default=dict, encoder=DjangoJSONEncoder)

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self):
        return self.action
