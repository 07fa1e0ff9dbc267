"""The registry of everything that can be observed on a unit: one entry each, in the order a technician takes them.

Storing, forms, drawing tags, the case file, judging and simulating all walk this table.
Temperatures are °F, pressures psig. Physical ranges are what the instrument or the substance allows, not what is normal.
"""

import difflib
import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Final, Literal

from kettle.errors import InputError
from kettle.units import TRADE, ShownUnits

# "record" comes from the shop's own records: nobody is asked to go and look.
Tool = Literal["record", "ask", "look", "feel", "probe", "controller", "meter", "gauge", "test"]
Group = Literal["safety", "box", "ice", "air", "condenser", "circuit", "power", "controls"]
Value = float | str | tuple[str, ...]
Range = tuple[float, float]

# Where on the round a group of observations is taken.
STOP_OF_GROUP: Final[dict[Group, str]] = {
    "safety": "melt", "box": "arrive", "ice": "arrive", "air": "arrive", "condenser": "read", "circuit": "read",
    "power": "power", "controls": "programs",
}  # fmt: skip
# What spoils an observation, and how many minutes it stays fresh, by how it is taken; an entry may say its own.
SPOILED_BY: Final[dict[Tool, str]] = {
    "record": "a visit nobody wrote up",
    "ask": "hearsay: ask who saw it, and when",
    "look": "bad light and haste: torch, both sides",
    "feel": "gloves and cold hands; keep them off moving and live parts",
    "probe": "a loose clamp, dirt or paint on the pipe, air blowing on the probe",
    "controller": "a display that rounds, lags or holds its value",
    "meter": "slack leads, the wrong range, the wrong leg",
    "gauge": "a gauge off zero, a hose still full of liquid, pressure drop to the port",
    "test": "not waiting for it to settle",
}
FRESH_MIN: Final[dict[Tool, float]] = {"probe": 30, "gauge": 30, "meter": 30, "feel": 30, "controller": 120}


@dataclass(frozen=True)
class Observation:
    """One thing that can be observed: a number with unit and physical range, one of several words, or a list of them.

    `low`, `high` bound what can be; `plausible` ("cooler", "freezer" or "any" -> range) what is seen in service, where
    `plausible_as` "dew" or "bubble" means that the range of a pressure is given as its saturation temperature.
    `spoils` says what makes it wrong, `fresh_min` how long it stands unquestioned, `holds` which holds of the case format
    make it worthless or forbid taking it.
    """

    key: str
    label: str
    group: Group
    tool: Tool
    minutes: float
    how: str
    unit: str = ""
    low: float = -math.inf
    high: float = math.inf
    decimals: int = 1
    choices: tuple[tuple[str, str], ...] = ()
    many: bool = False
    per_evaporator: bool = False
    only: Mapping[str, tuple[Any, ...]] = field(default_factory=dict)
    plausible: Mapping[str, Range] = field(default_factory=dict)
    plausible_as: str = ""
    spoils: str = ""
    fresh_min: float | None = None
    holds: tuple[str, ...] = ()

    def exists_on(self, unit: Any) -> bool:
        """Whether a unit built like this has the thing at all (`only`: field of the unit -> values that have it)."""
        return all(getattr(unit, name) in having for name, having in self.only.items())

    @property
    def is_number(self) -> bool:
        """Whether the value is a figure with a unit rather than a word."""
        return not self.choices

    @property
    def stop(self) -> str:
        """The stop of the round it is taken at."""
        return STOP_OF_GROUP[self.group]

    @property
    def spoiled_by(self) -> str:
        """What makes it wrong, in words."""
        return self.spoils or SPOILED_BY[self.tool]

    @property
    def stays_fresh_min(self) -> float:
        """How many minutes it stands before it is marked old; infinite for what does not change by itself."""
        return FRESH_MIN.get(self.tool, math.inf) if self.fresh_min is None else self.fresh_min

    def range_text(self, shown: ShownUnits = TRADE) -> str:
        """Return the physical range in words, with its unit."""
        converted = shown.measure(self.unit).factor != 1
        low, high = (shown.figure(v, self.unit, int(converted or v != int(v))) for v in (self.low, self.high))
        return f"{low} to {high} {shown.label(self.unit)}".strip()

    def check(self, value: Any, shown: ShownUnits = TRADE) -> Value:
        """Return the value in its stored form.

        Raises InputError naming label, value, range and unit, or the words that are allowed.
        """
        if self.is_number:
            if isinstance(value, bool) or not isinstance(value, (int, float)):
                raise InputError(f"{self.label}: “{str(value)[:30]}” is not a number ({shown.label(self.unit)})")
            if not self.low <= value <= self.high:
                told = shown.figure(value, self.unit, self.decimals) if math.isfinite(value) else str(value)
                raise InputError(f"{self.label}: {told} {shown.label(self.unit)} is outside {self.range_text(shown)}")
            return float(value)
        allowed = [code for code, _ in self.choices]
        words = value if self.many and isinstance(value, (list, tuple)) else [value]
        for word in words:
            if word not in allowed:
                raise InputError(f"{self.label}: “{str(word)[:30]}” is not one of {', '.join(allowed)}")
        return tuple(dict.fromkeys(words)) if self.many else str(value)

    def parse(self, typed: str | list[str], shown: ShownUnits = TRADE) -> Value:
        """Return the stored form of what was typed or tapped; InputError as in `check`."""
        if not self.is_number:
            return self.check(typed)
        try:
            value = shown.parse(str(typed), self.unit)
        except InputError as error:
            raise InputError(f"{self.label}: {error}; allowed {self.range_text(shown)}") from None
        return self.check(value, shown)

    def edit_text(self, value: Any, shown: ShownUnits = TRADE) -> str:
        """Return the figure as it stands in an entry field: plain, ready to be typed over."""
        return shown.edit(float(value), self.unit, self.decimals)

    def show(self, value: Any, with_unit: bool = True, shown: ShownUnits = TRADE) -> str:
        """Return the value in words and figures as it is shown to a technician."""
        if self.is_number:
            if not with_unit:
                return shown.figure(float(value), self.unit, self.decimals)
            return shown.text(float(value), self.unit, self.decimals)
        words = dict(self.choices)
        return ", ".join(words[word] for word in (value if self.many else [value])) or "none"


_EVERYWHERE: Final[Mapping[str, tuple[Any, ...]]] = {}
_RECEIVER: Final = {"receiver": (True,)}
_VALVE: Final = {"metering": ("txv", "eev")}
_TXV: Final = {"metering": ("txv",)}
_AIR: Final = {"condensing": ("air",)}
_WALK_IN: Final = {"walk_in": (True,)}
_WATER: Final = {"condensing": ("water",)}
_PROGRAM: Final = {"defrost": ("off_cycle", "timed_air", "electric", "hot_gas")}
# Holds that make a reading of the circuit worthless, and ranges seen in service.
_COIL_HOLDS: Final = ("iced_coil", "fans_not_running", "settling")
_HEAD_HOLDS: Final = ("condenser_blocked", "condenser_fan_stopped")
_BOX_SEEN: Final[Mapping[str, Range]] = {"cooler": (20, 75), "freezer": (-25, 70)}
_COIL_SEEN: Final[Mapping[str, Range]] = {"cooler": (-20, 60), "freezer": (-45, 45)}
_HEAD_SEEN: Final[Mapping[str, Range]] = {"any": (40, 148)}
_LIVE: Final = "live work: rules and rated gloves first; slack leads and the wrong leg spoil it"
# Words for a line in the hand, warmest first.
_FEELS: Final = ("hot=hot, hand off", "warm=warm", "lukewarm", "cool", "cold", "sweating", "frosted")


def _words(*pairs: str) -> tuple[tuple[str, str], ...]:
    """Choices from "code=what is shown"; without "=", the code with spaces is what is shown."""
    split = (pair.partition("=") for pair in pairs)
    return tuple((code, shown or code.replace("_", " ")) for code, _, shown in split)


def _temp(key: str, label: str, group: Group, how: str, minutes: float = 1, low: float = -60, high: float = 150,
          tool: Tool = "probe", **more: Any) -> Observation:  # fmt: skip
    return Observation(key, label, group, tool, minutes, how, "°F", low, high, **more)


def _pressure(key: str, label: str, how: str, minutes: float, high: float, group: Group = "circuit", tool: Tool = "gauge",
              **more: Any) -> Observation:  # fmt: skip
    return Observation(key, label, group, tool, minutes, how, "psig", -14.7, high, **more)


def _figure(key: str, label: str, group: Group, unit: str, low: float, high: float, how: str, minutes: float = 2,
            tool: Tool = "meter", decimals: int = 1, **more: Any) -> Observation:  # fmt: skip
    return Observation(key, label, group, tool, minutes, how, unit, low, high, decimals, **more)


def _choice(key: str, label: str, group: Group, how: str, *words: str, minutes: float = 1, tool: Tool = "look",
            **more: Any) -> Observation:  # fmt: skip
    return Observation(key, label, group, tool, minutes, how, choices=_words(*words), **more)


# fmt: off
_LOCK_OUT = "Power locked out, leads lifted, capacitors discharged: "

_ENTRIES: Final = (
    # Safety first
    _choice("inside_release", "Inside release", "safety", "From inside, door pulled to, someone outside: does it open?", "works",
            "fails", only=_WALK_IN),
    _choice("latch_blocked", "Latch blocked", "safety", "Block the latch so that the door cannot shut on you", "yes", "no",
            minutes=0.5, only=_WALK_IN),
    _choice("power_locked_out", "Power locked out", "safety", "Lock, tag, and prove dead at the terminals", "yes", "no", minutes=3),
    _choice("parts_protected", "Boards, sensors, fans covered", "safety", "Sheet and tape over boards, sensors and motors", "yes",
            "no", minutes=3),
    _choice("left_ice", "Ice left at the last visit", "ice", "From the last visit's report", "yes", "no", tool="record", minutes=0.5),
    # Box and air
    _temp("box_temp_f", "Box air", "box", "Own thermometer, mid-box, out of the coil's stream", 2, plausible=_BOX_SEEN, fresh_min=45,
          spoils="standing in the coil's stream, by the door or a lamp, or not left long enough"),
    _temp("return_air_f", "Return air", "box", "Probe where air enters the coil", plausible=_BOX_SEEN, holds=_COIL_HOLDS,
          per_evaporator=True),
    _temp("supply_air_f", "Supply air", "box", "Probe where air leaves the coil, off the metal", holds=_COIL_HOLDS,
          plausible={"cooler": (10, 70), "freezer": (-35, 60)}, spoils="touching metal, a dead spot beside the stream",
          per_evaporator=True),
    _temp("product_temp_f", "Product", "box", "Probe between packs, two minutes", 3, plausible=_BOX_SEEN, fresh_min=60,
          spoils="a dry probe, the outer pack, pulled out too soon"),
    _temp("display_temp_f", "Display shows", "box", "Read what the controller shows", 0.5, tool="look", plausible=_BOX_SEEN, fresh_min=45,
          spoils="a display held through defrost, or one that shows an average"),
    _choice("box_trend", "Box is", "box", "Watch the box temperature for a few minutes", "falling", "steady", "rising", minutes=5),
    _choice("siblings", "Other boxes on the same plant", "box", "Look at every box on the same condensing unit or rack",
            "all_ok=all fine", "also_bad=also bad", "none=no others", minutes=3),
    _choice("warm_extent", "Warm where", "box", "Compare front, back, top and bottom", "whole_box", "part_of_box", minutes=2),
    # Ice and water
    _choice("ice_form", "Ice on the coil", "ice", "Torch on the coil, front and back, before anything is melted",
            "none=bare", "light_frost", "heavy_frost", "hard_ice", "snow", per_evaporator=True),
    _choice("ice_places", "Ice where", "ice", "Torch along coil, valve, pan, ceiling, frame and suction line",
            "coil_whole=whole coil", "coil_inlet_passes=first passes only", "coil_part=part of the coil",
            "coil_bottom=bottom of the coil", "valve_outlet=valve outlet", "distributor_tubes", "fan_guards", "ceiling",
            "drain_pan", "door_frame", "suction_line", "floor", many=True, per_evaporator=True),
    _choice("melt_water", "Melt water", "ice", "Watch the water as it runs off", "clear", "cloudy_foaming=cloudy, foaming",
            per_evaporator=True),
    _choice("drain", "Drain", "ice", "Pour a cup of water into the pan", "running", "slow", "blocked", "frozen", minutes=2,
            per_evaporator=True),
    _choice("drain_pan", "Drain pan", "ice", "Look into the pan", "dry", "wet", "overflowing", per_evaporator=True),
    _choice("drain_heater", "Drain heater", "ice", "Feel the drain line outside the pan", "none=has none", "warm", "cold",
            tool="feel", per_evaporator=True),
    # Airflow and doors
    _choice("evap_fans", "Coil fans", "air", "Look at each fan: turning, and blowing the right way", "running",
            "some_stopped=some off", "stopped", "reversed=backwards", per_evaporator=True),
    _choice("fans_still", "Fans standing still", "air", "Look at each fan, counted from the valve end", "none",
            *(f"fan_{n}=fan {n}" for n in range(1, 7)), many=True, per_evaporator=True),
    _choice("air_weak_at", "Air felt weak at", "air", "Hand along the coil from the valve end, or at every door of a case", "nowhere",
            "left=valve end", "middle", "right=far end", *(f"door_{n}=door {n}" for n in range(1, 6)), many=True, minutes=2,
            per_evaporator=True),
    _figure("evap_fan_supply_v", "Volts at the fan", "air", "V", 0, 600, "Meter at the fan's own leads, fan calling", 3,
            decimals=0, spoils=_LIVE, per_evaporator=True),
    _choice("evap_coil", "Coil face", "air", "Light through the fins; stock off the face", "clean", "dirty",
            "blocked_by_stock=stock on it", per_evaporator=True),
    _choice("door", "Door", "air", "Paper in the gasket, light at the frame, let it close by itself", "good", "gasket_gap",
            "left_open", "misaligned", "closer_failed", minutes=2),
    _choice("door_traffic", "Door traffic", "air", "Ask who goes in and how often", "light", "normal", "heavy", tool="ask"),
    _choice("door_switch", "Door switch", "air", "Press it by hand: do the fans answer?", "made", "open", "none=has none"),
    _choice("strip_curtain", "Strip curtain", "air", "Look", "present", "missing", "not_applicable=not needed", only=_WALK_IN),
    # Condenser
    _temp("ambient_f", "Air on condenser", "condenser", "Probe in the air entering the condenser, in shade", low=-40, high=140,
          plausible={"any": (-25, 125)}, fresh_min=60, spoils="sun on the probe, hot air coming round again", only=_AIR),
    _choice("condenser_coil", "Condenser coil", "condenser", "Torch through the fins", "clean", "dusty", "blocked", only=_AIR),
    _choice("condenser_fans", "Condenser fans", "condenser", "Look: turning, right way, full speed", "running", "slow",
            "stopped", "reversed=backwards", "cycling", only=_AIR),
    _temp("water_in_f", "Water in", "condenser", "Clamp on the inlet pipe", 2, 32, 140, plausible={"any": (35, 105)}, only=_WATER),
    _temp("water_out_f", "Water out", "condenser", "Clamp on the outlet pipe", 2, 32, 160, plausible={"any": (40, 130)}, only=_WATER),
    _choice("head_control", "Head-pressure valve", "condenser", "Feel its three ports", "normal", "bypassing_when_warm",
            "not_holding_when_cold", "none=has none", minutes=2, tool="feel"),
    # Circuit
    _pressure("suction_psig", "Suction", "Gauge at the suction service port", 4, 700, plausible=_COIL_SEEN, plausible_as="dew",
              holds=(*_COIL_HOLDS, "critical_charge")),
    _pressure("discharge_psig", "Discharge", "Gauge at the discharge service port", 4, 1200, plausible=_HEAD_SEEN, plausible_as="bubble",
              holds=(*_HEAD_HOLDS, "critical_charge")),
    _pressure("liquid_psig", "Liquid pressure", "Gauge at the receiver outlet or liquid port", 4, 1200, plausible=_HEAD_SEEN,
              plausible_as="bubble", holds=(*_HEAD_HOLDS, "critical_charge")),
    _pressure("resting_psig", "At rest", "Off until the gauge stands still, condenser fan turning: ten minutes or more", 12, 1200,
              tool="test", plausible={"any": (-10, 130)}, plausible_as="bubble", holds=("critical_charge",),
              spoils="not equalised yet, or liquid lying colder than the air"),
    _temp("suction_line_evap_f", "Line at bulb", "circuit", "Clamp on clean pipe beside the bulb", 2, plausible=_COIL_SEEN,
              holds=_COIL_HOLDS,
          per_evaporator=True),
    _temp("suction_line_comp_f", "Line at compressor", "circuit", "Clamp 6 in from the suction valve", 2, plausible={"any": (-30, 95)},
              holds=_COIL_HOLDS,
          spoils="suction and liquid line in one insulation, sun on the line"),
    _temp("discharge_line_f", "Discharge line", "circuit", "Clamp 6 in from the discharge valve; the pipe burns", 2, -20, 350,
          plausible={"any": (60, 290)}, holds=_HEAD_HOLDS),
    _temp("liquid_line_f", "Liquid line", "circuit", "Clamp on the liquid line at the condensing unit", 2, -20, 160,
          plausible={"any": (20, 145)}, holds=_HEAD_HOLDS),
    _temp("liquid_line_valve_f", "Liquid at valve", "circuit", "Clamp on the liquid line just before the valve", 2, -40, 160,
          plausible={"any": (0, 140)}, per_evaporator=True),
    _figure("drier_drop_f", "Drop over drier", "circuit", "°F diff", -2, 60, "Clamp both sides of the drier and compare", 2, "probe",
            plausible={"any": (-2, 40)}, spoils="two clamps that do not agree: swap them and read again"),
    _choice("sight_glass", "Sight glass", "circuit", "Torch on the glass after ten minutes running", "clear", "few_bubbles",
            "flashing", "empty", "none=has none", holds=("glass_alone",), fresh_min=30,
            spoils="bubbles right after start, a dirty glass, a condenser just sprayed", only=_RECEIVER),
    _choice("moisture_dot", "Moisture dot", "circuit", "Colour of the dot in the glass", "dry", "wet", "none=has none", only=_RECEIVER),
    _figure("receiver_level_pct", "Receiver level", "circuit", "%", 0, 100,
            "Tap down the shell, or warm it and feel where it stays cold", 4, "feel", decimals=0, only=_RECEIVER),
    # By touch, for those who work by feel
    _choice("coil_outlet_feel", "Line at bulb feels", "circuit", "Bare hand on the coil outlet, ten breaths", *_FEELS,
            "frost_comes_and_goes=frost comes and goes", tool="feel", minutes=0.5, holds=_COIL_HOLDS, per_evaporator=True),
    _choice("liquid_line_feel", "Liquid line feels", "circuit", "Bare hand on the liquid line at the condensing unit", *_FEELS,
            tool="feel", minutes=0.5, holds=_HEAD_HOLDS),
    _choice("discharge_line_feel", "Disch. line feels", "circuit", "Hand near first: it burns", *_FEELS[:4], tool="feel",
            minutes=0.5, holds=_HEAD_HOLDS),
    _choice("suction_line_feel", "Suction line feels", "circuit", "Hand on the line at the compressor", "warm", "cool",
            "sweating", "frosted", tool="feel", minutes=0.5),
    _choice("compressor_shell", "Compressor shell", "circuit", "Hand near, then on the shell", "hot", "warm", "sweating",
            "frosted", "cold", tool="feel", minutes=0.5),
    _choice("liquid_solenoid", "Liquid solenoid", "circuit", "Screwdriver tip for magnet pull; feel both sides", "open",
            "closed_no_pull=closed, no pull", "closed_pulled=pulled, no flow", "stuck_open", "none=has none", minutes=2,
            tool="feel", per_evaporator=True),
    _choice("valve_sound", "Valve sounds", "circuit", "Listen at the valve body", "steady", "hissing_gas", "silent",
            per_evaporator=True, only=_VALVE),
    _choice("bulb", "Bulb", "circuit", "Hand and eye: place, two tight straps, insulation", "tight_insulated=tight, insulated",
            "loose", "uninsulated", "wrong_place", minutes=2, per_evaporator=True, only=_TXV),
    _choice("valve_response", "Valve answers", "circuit", "Warm the bulb in the hand and watch suction rise",
            "untested", "as_expected", "partial", "none=no answer", minutes=8, tool="test", holds=("bulb_first",), per_evaporator=True,
            only=_TXV),
    _choice("oil_trace", "Oil trace", "circuit", "Torch and a clean rag along fittings and coil", "none", "at_fitting",
            "at_coil", "at_valve_stem", minutes=3),
    _choice("leak_test", "Leak test", "circuit", "Detector, then bubbles", "not_done", "none_found", "found", minutes=20,
            tool="test"),
    _figure("settled_min", "Minutes settled", "circuit", "min", 0, 1440,
            "Minutes since it started, defrosted or its door stood open", 0.5, "ask", decimals=0),
    _figure("adjusted_min", "Minutes since adjusted", "circuit", "min", 0, 1440, "Minutes since the valve was turned", 0.5,
            "ask", decimals=0),
    _figure("since_defrost_min", "Minutes since defrost", "circuit", "min", 0, 2880, "Read the log, or ask when the last one ended",
            1, "controller", 0, fresh_min=10),
    # Compressor and power
    _choice("compressor", "Compressor", "power", "Listen and feel", "running", "off", "humming", "tripping", "short_cycling",
            minutes=0.5, fresh_min=60),
    _figure("compressor_amps", "Compressor amps", "power", "A", 0, 300, "Clamp meter round one leg, running", 2,
                spoils="two wires in the clamp, the starting moment"),
    *(_figure(f"{side}_v_{pair}", f"{side.capitalize()} volts {pair[0]}–{pair[1]}", "power", "V", 0, 700,
              f"Meter on the {side} side of the contactor, live work rules apply", 1, decimals=0, spoils=_LIVE)
      for side in ("line", "load") for pair in ("12", "23", "31")),
    *(_figure(f"pole_drop_v_{pole}", f"Drop over pole {pole}", "power", "V", 0, 700,
              "Meter across the closed pole, live work rules apply", 1, decimals=1, spoils=_LIVE) for pole in "123"),
    _choice("contactor", "Contactor", "power", "Look and listen", "in=pulled in", "out=dropped out", "chattering", minutes=0.5),
    _choice("contactor_face", "Contact faces", "power", "Power locked out, cover off", "good", "pitted", "burnt", minutes=4,
            holds=("lock_out",)),
    *(_figure(f"winding_{pair}_ohm", f"Winding {pair.upper()[0]}–{pair.upper()[1]}", "power", "Ω", 0, 1e7,
              _LOCK_OUT + "meter between the terminals", 6, decimals=2, fresh_min=math.inf,
              holds=("lock_out",)) for pair in ("cs", "cr", "sr")),
    _figure("winding_ground_ohm", "Winding to ground", "power", "Ω", 0, 1e10, _LOCK_OUT + "meter from terminal to bare shell", 6,
            decimals=0, fresh_min=math.inf, holds=("lock_out",), spoils="paint or rust under the probe, leads not lifted"),
    _choice("crankcase_heater", "Crankcase heater", "power", "Feel with the back of the hand", "warm", "cold", "none=has none",
            tool="feel"),
    _pressure("pump_down_low_psig", "Pump-down reached", "Front-seat the king valve, watch the lowest suction", 8, 700, "power",
              "test"),
    _figure("pump_down_rise_psi", "Rise after pump-down", "power", "psi", 0, 250, "Pumped down and off: rise in five minutes", 12,
            "test"),
    _choice("start_parts", "Start parts", "power", "Power locked out: swap or measure relay and capacitor", "good",
            "relay_failed", "capacitor_failed", "none=has none", minutes=10, tool="meter"),
    _choice("high_pressure_switch", "High-pressure switch", "power", "Meter across it", "closed", "open", minutes=2, tool="meter"),
    _choice("low_pressure_switch", "Low-pressure switch", "power", "Meter across it", "closed", "open", minutes=2, tool="meter"),
    # Controls and defrost
    _choice("control_call", "Control", "controls", "Read the controller or the thermostat", "calling", "satisfied", "in_defrost",
            "no_power", tool="controller"),
    _temp("stat_cut_out_f", "Cut-out seen", "controls", "Own thermometer when it stops", 20, tool="test"),
    _temp("stat_cut_in_f", "Cut-in seen", "controls", "Own thermometer when it starts", 20, tool="test"),
    _figure("defrosts_per_day", "Defrosts a day", "controls", "a day", 0, 48, "Read the program", 1, "controller", 0),
    _figure("defrost_set_min", "Fail-safe set", "controls", "min", 0, 240, "Read the program", 1, "controller", 0),
    _figure("defrost_ran_min", "Defrost ran", "controls", "min", 0, 240, "Watch or read the last defrost", 3, "controller", 0),
    _choice("defrost_ended_by", "Defrost ended by", "controls", "Read the log or watch it end", "termination=temperature", "time",
            "unknown", minutes=3, tool="controller", only=_PROGRAM),
    _temp("termination_f", "Termination", "controls", "Read the program", low=0, high=120, tool="controller"),
    _choice("defrost_starts", "Defrost starts", "controls", "Start one by hand", "yes", "never", "stuck_in=stuck in defrost",
            minutes=4, tool="controller", only=_PROGRAM),
    _choice("compressor_in_defrost", "Compressor in defrost", "controls", "Listen during a defrost", "off", "running", minutes=4),
    _figure("heater_volts", "Heater volts", "controls", "V", 0, 700, "Meter at the heater terminals in defrost", 4, decimals=0),
    _figure("heater_amps", "Heater amps", "controls", "A", 0, 200, "Clamp meter on one heater leg in defrost", 4),
    _figure("heater_rated_w", "Heater rating", "controls", "W", 0, 50000, "Plate of the coil", 1, "look", 0),
    _choice("fans_in_defrost", "Fans in defrost", "controls", "Look during a defrost", "off", "running", minutes=4),
    _choice("coil_after_defrost", "Coil after defrost", "controls", "Torch on the coil right after one ends", "clear",
            "part_iced", "iced", minutes=5, per_evaporator=True, only=_PROGRAM),
    _pressure("lp_cut_in_psig", "LP cut-in", "Scale, then a gauge while it cycles", 10, 700, "controls"),
    _pressure("lp_cut_out_psig", "LP cut-out", "Scale, then a gauge while it cycles", 10, 700, "controls"),
    _figure("sensor_error_f", "Display − true", "controls", "°F diff", -210, 210, "Display minus own thermometer at the sensor", 3,
                "probe"),
    _choice("controller_alarm", "Alarm shown", "controls", "Read the controller", "none", "sensor_fault", "low_superheat",
            "open_control_circuit", "high_temperature", tool="controller"),
)
# fmt: on

REGISTRY: Final[dict[str, Observation]] = {entry.key: entry for entry in _ENTRIES}


def get(key: str) -> Observation:
    """Return the entry of a key; InputError names the key and the nearest known one."""
    if key in REGISTRY:
        return REGISTRY[key]
    near = difflib.get_close_matches(key, REGISTRY, n=1, cutoff=0.0)
    raise InputError(f"observation “{key[:40]}” is not known; the nearest known key is “{near[0]}”")
