"""The unit under the hands: its kind, how it is built, and what is assumed where nobody said.

A `UnitSpec` is what is known (any field but kind and refrigerant may be missing); `resolve` fills the gaps from the
defaults of the kind and says which it filled.
"""

import difflib
from dataclasses import dataclass, field, fields
from typing import Any, Final

from kettle.knowledge import refrigerants
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits


@dataclass(frozen=True)
class Kind:
    """A kind of unit: its name in the interface, the build that is usual for it, the face of one coil where nobody measured it, ft², and
    its capacity at the design point of the plant model, Btu/h."""

    code: str
    label: str
    freezer: bool
    set_f: float
    metering: str
    receiver: bool
    defrost: str
    condensing: str = "air"
    box_control: str = "controller"
    face_ft2: float = field(kw_only=True)
    capacity_btu_h: float = field(kw_only=True)


# fmt: off
KINDS: Final[dict[str, Kind]] = {k.code: k for k in (
    Kind("walk_in_cooler", "walk-in cooler", False, 36, "txv", True, "off_cycle",
         face_ft2=8.0, capacity_btu_h=14000),
    Kind("walk_in_freezer", "walk-in freezer", True, -5, "txv", True, "electric",
         face_ft2=8.0, capacity_btu_h=12000),
    Kind("reach_in_cooler", "reach-in cooler", False, 37, "cap_tube", False, "off_cycle",
         face_ft2=2.0, capacity_btu_h=2600),
    Kind("reach_in_freezer", "reach-in freezer", True, 0, "cap_tube", False, "electric",
         face_ft2=2.0, capacity_btu_h=2400),
    Kind("prep_rail", "prep rail", False, 37, "cap_tube", False, "off_cycle", box_control="thermostat",
         face_ft2=1.5, capacity_btu_h=2200),
    Kind("display_cooler", "display cooler", False, 35, "txv", True, "off_cycle",
         face_ft2=6.0, capacity_btu_h=12000),
    Kind("display_freezer", "display freezer", True, 0, "txv", True, "electric",
         face_ft2=6.0, capacity_btu_h=14000),
    Kind("bottle_cooler", "bottle cooler", False, 37, "cap_tube", False, "off_cycle", box_control="thermostat",
         face_ft2=1.5, capacity_btu_h=2400),
    Kind("provision_room_cooler", "provision room, cool", False, 36, "txv", True, "off_cycle", "water", "thermostat",
         face_ft2=7.0, capacity_btu_h=16000),
    Kind("provision_room_freezer", "provision room, frozen", True, -5, "txv", True, "electric", "water", "thermostat",
         face_ft2=7.0, capacity_btu_h=14000),
)}



@dataclass(frozen=True)
class Build:
    """How a unit of some kinds stands in the room, as it is drawn: code, what it is called, the kinds it may be."""

    code: str
    label: str
    kinds: tuple[str, ...]

    def label_of(self, kind: Kind) -> str:
        """What a unit of a kind is called that stands so: by its kind where that is the usual build."""
        if builds_of(kind.code)[0] is self:
            return kind.label
        return f"{self.label} {'freezer' if kind.freezer else 'cooler'}" if len(self.kinds) > 1 else self.label


# The first build of a kind is its usual one.
BUILDS: Final[dict[str, Build]] = {b.code: b for b in (
    Build("walk_in", "walk-in", ("walk_in_cooler", "walk_in_freezer")),
    Build("reach_in", "reach-in", ("reach_in_cooler", "reach_in_freezer")),
    Build("under_counter", "under-counter", ("reach_in_cooler", "reach_in_freezer")),
    Build("prep_rail", "prep rail", ("prep_rail",)),
    Build("cold_well", "cold well", ("prep_rail",)),
    Build("glass_doors", "glass-door", ("display_cooler", "display_freezer")),
    Build("open_case", "open case,", ("display_cooler", "display_freezer")),
    Build("bottle_cooler", "bottle cooler", ("bottle_cooler",)),
    Build("provision_room", "provision room", ("provision_room_cooler", "provision_room_freezer")),
)}


def builds_of(kind: str) -> list[Build]:
    """Return the builds a kind of unit may have, its usual one first."""
    return [build for build in BUILDS.values() if kind in build.kinds]


def build_for(kind: str, code: str = "") -> Build:
    """Return the build of a unit: the one named where a unit of the kind may have it, else the usual one."""
    chosen = BUILDS.get(code)
    return chosen if chosen is not None and kind in chosen.kinds else builds_of(kind)[0]


# Words of the case file with what the interface calls them.
CHOICES: Final[dict[str, dict[str, str]]] = {
    "kind": {code: kind.label for code, kind in KINDS.items()},
    "metering": {"txv": "expansion valve", "eev": "electronic valve", "cap_tube": "capillary tube"},
    "condensing": {"air": "air-cooled", "water": "water-cooled"},
    "head_control": {"none": "none", "mixing_valve": "mixing valve", "fan_cycling": "fan cycling",
                     "fan_speed": "fan speed", "mixing_valve_and_fan": "mixing valve and fan"},
    "defrost": {"none": "none", "off_cycle": "off-cycle", "timed_air": "timed air", "electric": "electric",
                "hot_gas": "hot gas"},
    "box_control": {"thermostat": "thermostat", "controller": "controller", "suction_pressure": "suction pressure"},
}

# Figures of the plate and the site: lowest, highest, unit, label.
LIMITS: Final[dict[str, tuple[float, float, str, str]]] = {
    "set_f": (-60, 80, "°F", "Set temperature"),
    "differential_f": (0.5, 30, "°F diff", "Differential"),
    "critical_charge_oz": (0.5, 1000, "oz", "Label charge"),
    "compressor_rla_a": (0.1, 500, "A", "Rated amps"),
    "nameplate_v": (12, 700, "V", "Nameplate volts"),
    "phases": (1, 3, "", "Phases"),
    "altitude_ft": (-1500, 20000, "ft", "Altitude"),
    "evaporators": (1, 8, "", "Evaporators"),
}
# fmt: on


# What supplies have, V, where no plate says what a unit is for: ANSI C84.1, and IEC 60038 with the 380 V that stood before it.
USUAL_SUPPLIES_V: Final = (115.0, 208.0, 230.0, 277.0, 380.0, 400.0, 460.0, 575.0)
# Above this a charge is one of pounds, oz.
MOST_CRITICAL_OZ: Final = 64.0
# Figures beyond this are told in short: 1e+308, inf.
LARGEST_TOLD: Final = 1e7


@dataclass(frozen=True)
class UnitSpec:
    """What is known of a unit; None means nobody said. Units are in the names; `bands` is quantity -> (low, high)."""

    kind: str
    refrigerant: str
    name: str = ""
    metering: str | None = None
    condensing: str | None = None
    receiver: bool | None = None
    head_control: str | None = None
    defrost: str | None = None
    box_control: str | None = None
    set_f: float | None = None
    differential_f: float | None = None
    critical_charge_oz: float | None = None
    compressor_rla_a: float | None = None
    nameplate_v: float | None = None
    phases: int | None = None
    altitude_ft: float | None = None
    evaporators: int | None = None
    bands: dict[str, tuple[float, float]] = field(default_factory=dict)


@dataclass(frozen=True)
class Unit:
    """A unit with every gap filled; `assumed` names the fields that were filled from the kind."""

    name: str
    kind: Kind
    refrigerant: refrigerants.Refrigerant
    metering: str
    condensing: str
    receiver: bool
    head_control: str
    defrost: str
    box_control: str
    set_f: float
    differential_f: float
    critical_charge_oz: float | None
    compressor_rla_a: float | None
    nameplate_v: float | None
    phases: int
    altitude_ft: float
    evaporators: int
    bands: dict[str, tuple[float, float]]
    assumed: tuple[str, ...]

    @property
    def walk_in(self) -> bool:
        """Whether a person can be shut in it."""
        return self.kind.code.startswith(("walk_in", "provision_room"))

    @property
    def frame_heated(self) -> bool:
        """Whether its door frame is usually kept warm: freezers, and glass doors."""
        return self.kind.freezer or self.kind.code.startswith("display")

    @property
    def build(self) -> str:
        """Kind and metering in words, as a verdict names them."""
        return f"{self.kind.label}, {CHOICES['metering'][self.metering]}"


# A whole number may be typed longer than a figure can be told.
LARGEST_FLOAT: Final = 1e300


def check_choice(name: str, value: str) -> str:
    """Return a word of the case file if it is allowed for the field; InputError names the nearest one."""
    allowed = CHOICES[name]
    if value in allowed:
        return value
    near = difflib.get_close_matches(str(value), allowed, n=1, cutoff=0.0)
    raise InputError(f"{name}: “{str(value)[:40]}” is not known; the nearest known is “{near[0]}”")


def check_figure(name: str, value: float, shown: ShownUnits = TRADE) -> float:
    """Return a figure of the plate, in its unit of `LIMITS`, if it is inside them; InputError names value, range and unit."""
    low, high, unit, label = LIMITS[name]
    if not low <= value <= high:
        if abs(value) > LARGEST_FLOAT:
            told = "that"
        else:
            told = f"{value:g}" if not abs(value) < LARGEST_TOLD else shown.figure(value, unit, 0 if value == int(value) else 1)
        span = f"{shown.figure(low, unit, low != int(low))} to {shown.figure(high, unit, 0)} {shown.label(unit)}".strip()
        raise InputError(f"{label}: {told} {shown.label(unit)}".strip() + f" is outside {span}")
    return value


def resolve(spec: UnitSpec) -> Unit:
    """Return the unit with every gap filled from its kind.

    Raises InputError for a word, figure or refrigerant that is not allowed.
    """
    check_choice("kind", spec.kind)
    kind = KINDS[spec.kind]
    # A small plate in ounces is a critically charged circuit: no receiver, and a capillary tube unless somebody said. Pounds on the
    # plate of a room say how much goes in, not how it is built.
    room = spec.kind.startswith(("walk_in", "provision_room"))
    critical = spec.critical_charge_oz is not None and not (room and spec.critical_charge_oz > MOST_CRITICAL_OZ)
    defaults: dict[str, Any] = {
        "metering": "cap_tube" if critical else kind.metering,
        "condensing": kind.condensing,
        "receiver": kind.receiver and not critical and spec.metering != "cap_tube",
        "head_control": "none",
        "defrost": kind.defrost,
        "box_control": kind.box_control,
        "set_f": kind.set_f,
        "differential_f": 3.0,
        "phases": 1,
        "altitude_ft": 0.0,
        "evaporators": 1,
    }
    values: dict[str, Any] = {}
    assumed = []
    for entry in fields(UnitSpec):
        value = getattr(spec, entry.name)
        if value is None and entry.name in defaults:
            value = defaults[entry.name]
            assumed.append(entry.name)
        elif value is not None and entry.name in CHOICES:
            check_choice(entry.name, value)
        elif value is not None and entry.name in LIMITS:
            check_figure(entry.name, value)
        values[entry.name] = value
    values["kind"] = kind
    values["refrigerant"] = refrigerants.get(spec.refrigerant)
    return Unit(**values, assumed=tuple(assumed))
