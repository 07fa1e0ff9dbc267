"""Sites and units, and the bands a unit has of its own."""

from django.conf import settings
from django.db import models
from django.utils.functional import cached_property

from kettle.electrical.presets import circuit_of
from kettle.electrical.wiring import from_data
from kettle.knowledge.equipment import CHOICES, KINDS, UnitSpec, build_for, resolve
from web import work_time
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
    altitude_ft = models.IntegerField(null=True, blank=True)
    opens_min = models.PositiveSmallIntegerField(null=True, blank=True)
    closes_min = models.PositiveSmallIntegerField(null=True, blank=True)
    deliveries_min = models.JSONField(default=list, blank=True)
    coldest_f = models.FloatField(null=True, blank=True, help_text="Coldest outdoors of a usual year")
    hottest_f = models.FloatField(null=True, blank=True, help_text="Hottest air at a condenser of a usual year, a roof's own heat with it")
    not_to_exceed_cents = models.PositiveIntegerField(null=True, blank=True, help_text="What work may cost without being asked")
    notes = models.TextField(blank=True)

    objects = OfShop.as_manager()

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["shop", "name"], name="site_name_once_in_a_shop")]

    def __str__(self):
        return self.name

    @cached_property
    def assumed_altitude_ft(self):
        """How high it is taken to lie where nobody said: as the shop's other sites, the one in the middle; sea level without any."""
        known = sorted(Site.objects.filter(shop=self.shop_id, altitude_ft__isnull=False).values_list("altitude_ft", flat=True))
        return known[len(known) // 2] if known else 0

    @property
    def altitude_words(self):
        """How high it lies, and whether that is only assumed."""
        if self.altitude_ft is not None:
            return f"{self.altitude_ft} ft"
        return f"{self.assumed_altitude_ft} ft, assumed{' as the other sites lie' if self.assumed_altitude_ft else ''}"


class Unit(models.Model):
    """A unit. What is left empty takes the default of its kind; one without a site is a quick look."""

    shop = models.ForeignKey(Shop, on_delete=models.PROTECT, related_name="units")
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="units", null=True, blank=True)
    name = models.CharField(max_length=80)
    kind = models.CharField(max_length=30, choices=_choices("kind"))
    build = models.CharField(max_length=20, blank=True)
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
    label_charge_oz = models.FloatField(null=True, blank=True, help_text="Charge of the plate where it is not critical")
    coil_names = models.JSONField(default=list, blank=True)
    bands = models.JSONField(default=dict, blank=True)
    wiring = models.JSONField(default=dict, blank=True)
    altitude_ft = models.FloatField(null=True, blank=True)
    stem_reversed = models.BooleanField(default=False, help_text="Its valve opens clockwise, as few do")
    plant = models.CharField(
        max_length=80, blank=True, help_text="Shared condensing unit or rack; units of a site that name the same are siblings"
    )
    coil_face_ft2 = models.FloatField(null=True, blank=True)
    make = models.CharField(max_length=80, blank=True)
    serial = models.CharField(max_length=80, blank=True)
    plate_photo = models.ImageField(upload_to="photos", blank=True)
    plate_small = models.ImageField(upload_to="thumbnails", blank=True)
    notes = models.TextField(blank=True)
    probes = models.ForeignKey("Device", on_delete=models.SET_NULL, related_name="read_at", null=True, blank=True)
    controller = models.ForeignKey("Device", on_delete=models.SET_NULL, related_name="controls", null=True, blank=True)

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
            known = self.site.altitude_ft
            altitude = float(self.site.assumed_altitude_ft if known is None else known)
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

    def circuit(self):
        """The unit's circuit: the usual one for its plate, with what was corrected."""
        return circuit_of(self.resolved(), from_data(self.wiring))

    @property
    def kind_label(self):
        """What a unit of its kind and build is called."""
        return build_for(self.kind, self.build).label_of(KINDS[self.kind])

    @property
    def face_ft2(self):
        """The face of one coil, measured or usual for the kind."""
        return self.coil_face_ft2 or KINDS[self.kind].face_ft2

    @property
    def siblings(self):
        """The other units on the same plant at the same site."""
        if not self.plant or not self.site_id:
            return Unit.objects.none()
        return Unit.objects.filter(shop=self.shop_id, site=self.site_id, plant=self.plant).exclude(pk=self.pk)


class BandChange(models.Model):
    """A band of a unit made its own, or given back to its kind (low and high empty): who, when and why."""

    unit = models.ForeignKey(Unit, on_delete=models.CASCADE, related_name="bandchanges")
    at = models.DateTimeField(default=work_time.now)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    quantity = models.CharField(max_length=40)
    low = models.FloatField(null=True, blank=True)
    high = models.FloatField(null=True, blank=True)
    why = models.CharField(max_length=300)

    class Meta:
        ordering = ["-at", "-pk"]

    def __str__(self):
        return f"{self.quantity} {self.low} {self.high}"
