"""The lessons of the yard: an ordered set, each a practice call with its aim, what must be shown, and how it works."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge import acts, observations
from kettle.knowledge.equipment import resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE
from kettle.knowledge.parameters import PARAMETERS
from kettle.plant.simulate import PRESETS
from kettle.yard.drawn import Draw
from kettle.yard.practice import ASKED, DID, MELTED, METERED, PUT, SET, STOPPED, Step

GROUPS: Final[Mapping[str, str]] = {
    "ice": "Ice", "air": "Air", "defrost": "Defrost", "controls": "Controls", "valve": "Valve", "charge": "Charge",
    "electrical": "Electrical", "refrigerant": "Refrigerant work", "proving": "Proving", "pairs": "Two at once",
}  # fmt: skip
NAMED, SAFE, HELD, PAINTED, HALF_MELT = "named", "safe", "held", "painted", "none left"
# A painted face that says what is there on so much of it is painted.
PAINTED_FROM: Final = 0.7


@dataclass(frozen=True)
class Lesson:
    """One lesson: aim, the unit and what is wrong with it (code, severity), and what must be shown.

    `must` are observations to take, acts to do, parameters to set, and words of this module (named, safe, held, painted). `how` is the
    page that shows how it works.
    """

    code: str
    group: str
    title: str
    aim: str
    kind: str
    wrong: tuple[tuple[str, float], ...]
    symptom: str
    story: str
    must: tuple[str, ...]
    how: str
    outside_f: float = 85.0
    before: tuple[tuple[str, str, float], ...] = ()
    help: str = "all"

    @property
    def draw(self) -> Draw:
        """The practice call it is."""
        difficulty = "several" if len(self.wrong) > 1 else "worked_on" if self.before else "one"
        number = 1_000_000 + list(LESSONS).index(self.code)
        return Draw(number, PRESETS[self.kind], self.outside_f, difficulty, self.wrong, self.before, self.symptom, self.story)

    @property
    def must_words(self) -> tuple[tuple[str, str], ...]:
        """What must be shown, each with its words."""
        return tuple((one, _words(one)) for one in self.must)


_WORDS: Final = {
    NAMED: "Name it as what it is", SAFE: "Nothing that had to be stopped", HELD: "Put it right so that it holds for a week",
    PAINTED: "Paint the ice as it is, before it is melted", HALF_MELT: "Melt all of it, back and corners too",
    "meter": "Measure between two points of the circuit", "program": "Keep the program as found, then as left",
    "leak": "Find the place that leaks",
}  # fmt: skip


def _words(must: str) -> str:
    if must in _WORDS:
        return _WORDS[must]
    if must in observations.REGISTRY:
        return f"Take: {observations.get(must).label.lower()}"
    if must in acts.ACTS:
        return f"Do: {acts.ACTS[must].label[:1].lower()}{acts.ACTS[must].label[1:]}"
    return f"Set: {PARAMETERS[must].label.lower()}"


_DONE: Final = (NAMED, SAFE)
# fmt: off
LESSONS: Final[dict[str, Lesson]] = {one.code: one for one in (
    # Ice.
    Lesson("iced-all-over", "ice", "Iced all over: melt first", "Nothing read on an iced coil counts. Record the ice, make safe, melt all of it, then "
         "judge.", "walk_in_freezer", (("defrost_never_starts", 1.0),), "iced", "The cook of an inn calls: “It is one white wall in there.”",
         ("ice_form", PAINTED, "power_locked_out", HALF_MELT, *_DONE), "defrost"),
    Lesson("ice-first-rows", "ice", "Ice on the first rows", "Ice at the valve end and a bare far end: little liquid arrives. Read it after the melt, "
         "not before.", "walk_in_freezer", (("undercharge", 0.85),), "iced", "A butcher calls: “Half of it is ice, and it does not get cold.”",
         ("ice_form", PAINTED, HALF_MELT, "sight_glass", "suction_psig", *_DONE), "coil_ices"),
    Lesson("ice-left", "ice", "Ice that was left", "Somebody melted half of it. What is left comes back within days: melt all, back and corners too.",
         "walk_in_freezer", (("residual_ice", 1.0), ("defrost_too_little", 0.9)), "iced", "The kitchen calls: “You were here last week, and it is iced again.”",
         ("left_ice", "ice_form", HALF_MELT, NAMED), "coil_ices"),
    Lesson("ice-drain", "ice", "Ice in the pan", "A drain that freezes fills its pan, and the ice climbs. The coil itself is sound.",
         "walk_in_freezer", (("drain_blocked", 1.0),), "water", "A school calls: “There is water on the floor every morning, and ice under it.”",
         ("drain", "drain_pan", "drain_heater", *_DONE), "defrost"),
    # Air.
    Lesson("fan-dead", "air", "A coil fan that stands", "A fan that stands with volts at it is a dead fan. Look before you put gauges on.",
         "walk_in_cooler", (("evap_fan_failed", 1.0),), "warm", "A farm shop calls: “It gets warmer by the hour.”",
         ("evap_fans", "evap_fan_supply_v", *_DONE), "no_air"),
    Lesson("fan-no-volts", "air", "A fan without volts", "The same standing fan, and no volts at it: the motor is sound, what feeds it is not.",
         "walk_in_cooler", (("evap_fan_no_power", 1.0),), "warm", "An inn calls: “No wind in the cold room.”",
         ("evap_fans", "evap_fan_supply_v", "meter", *_DONE), "no_air"),
    Lesson("coil-dirty", "air", "A coil choked with dirt", "Suction low, superheat low, box warm, fans running: the coil is short of air. Look into it.",
         "reach_in_cooler", (("evap_airflow_low", 1.0),), "warm", "A bakery calls: “It never gets cold before noon.”",
         ("evap_coil", "evap_fans", NAMED), "no_air"),
    Lesson("door-open", "air", "A door that stands open", "Warm wet air through the door looks like everything else. Watch the door before you judge.",
         "walk_in_cooler", (("door_infiltration", 1.0), ), "warm", "A grocery calls: “It works day and night and does not get there.”",
         ("door", "door_traffic", "box_temp_f", NAMED), "thermostat", 105.0),
    # Defrost.
    Lesson("clock-stands", "defrost", "Defrosts that never start", "Read the program, then see whether it does what it says. A clock that stands "
         "is no program that is wrong.", "display_freezer", (("defrost_never_starts", 1.0),), "iced",
         "A village grocery calls: “The case is full of snow.”", ("defrost_starts", "program", "timer.replaced", HELD, NAMED), "defrost"),
    Lesson("too-little", "defrost", "Too little defrost", "The clock runs, and gives too little. What the coil needs is told by a defrost that ends by "
         "temperature with a clear coil.", "walk_in_freezer", (("defrost_too_little", 1.0),), "iced",
         "A butcher calls: “Every few days it is white behind the fans.”",
         ("defrosts_per_day", "defrost_set_min", "coil_after_defrost", "program", NAMED), "defrost"),
    Lesson("element-open", "defrost", "Elements that do not heat", "It defrosts by the clock and stays iced: amps against the rating say how much of "
         "the bank works.", "walk_in_freezer", (("defrost_heater_open", 1.0),), "iced", "A canteen calls: “It defrosts, and the ice stays.”",
         ("heater_amps", "heater_rated_w", "power_locked_out", *_DONE), "defrost"),
    Lesson("never-ends", "defrost", "A defrost that does not end", "Only its time ends it, long after the coil is bare: the box warms, and steam "
         "freezes on the ceiling.", "walk_in_freezer", (("defrost_not_terminating", 1.0),), "warm",
         "An inn calls: “Four times a day it gets warm, and the ceiling drips.”", ("defrost_ended_by", "termination_f", *_DONE), "defrost"),
    # Controls.
    Lesson("dial-off", "controls", "A thermostat that is off", "Hold your own thermometer beside its bulb when it switches: how far off is it?",
         "walk_in_cooler", (("stat_calibration", 1.0),), "warm", "A deli calls: “It shows 34 and the milk is warm.”",
         ("box_temp_f", "display_temp_f", "stat_cut_out_f", NAMED), "thermostat"),
    Lesson("sensors-swapped", "controls", "Two sensors changed places", "A display far from your own thermometer: warm one sensor in the hand and see "
         "which display moves.", "walk_in_cooler", (("sensor_mixup", 1.0),), "warm", "A shop calls: “It shows what it should, and the butter runs.”",
         ("display_temp_f", "box_temp_f", "circuit_extra", NAMED), "thermostat"),
    Lesson("cut-in-high", "controls", "A cut-in that is never reached", "Suction stands below the cut-in, and the compressor with it: read the scale, "
         "then the air.", "walk_in_cooler", (("lp_control_misset", 1.0),), "does_not_run", "A farm shop calls: “It does not start any more.”",
         ("low_pressure_switch", "lp_cut_in_psig", "pressure_control.adjusted", HELD, NAMED), "pump_down"),
    Lesson("short-cycling", "controls", "It starts and stops", "Count its starts in an hour, then look at the differential before you blame the gas.",
         "walk_in_cooler", (("short_cycle", 1.0),), "starts_and_stops", "A counter calls: “One hears it click all day.”",
         ("compressor", "stat_cut_in_f", "stat_cut_out_f", NAMED), "thermostat"),
    # Valve.
    Lesson("starved", "valve", "A valve that feeds too little", "High superheat with a clear glass and no drop over the drier: then, and only then, the "
         "valve. Bulb and strainer before the stem.", "walk_in_cooler", (("txv_underfeeding", 1.0),), "warm",
         "A grocery calls: “It runs all day and stays warm.”",
         ("sight_glass", "drier_drop_f", "bulb", "suction_psig", "suction_line_evap_f", *_DONE), "valve"),
    Lesson("flooded", "valve", "A valve that feeds too much", "No superheat, a cold shell, a line that sweats back: liquid comes home.",
         "walk_in_cooler", (("txv_overfeeding", 1.0),), "warm", "A dairy calls: “It hums deeper than it used to.”",
         ("suction_line_comp_f", "compressor_shell", "bulb", *_DONE), "flooding"),
    Lesson("bulb-loose", "valve", "A loose bulb", "A bulb that hangs in the air opens the valve. Put the hand on it before the key on the stem.",
         "walk_in_freezer", (("bulb_fault", 1.0),), "warm", "A freezer store calls: “It gets warm, and the line to the machine is white.”",
         ("bulb", "bulb.clamped", HELD, NAMED), "valve"),
    Lesson("solenoid-shut", "valve", "A solenoid that does not open", "The low side is empty, the valve silent, the line before it warm: does the coil "
         "pull?", "walk_in_freezer", (("liquid_solenoid_closed", 1.0),), "warm", "An inn calls: “It runs a moment and stops again.”",
         ("liquid_solenoid", "valve_sound", *_DONE), "pump_down"),
    # Charge.
    Lesson("short-of-gas", "charge", "Short of gas", "Bubbles alone do not say it. Bubbles, high superheat, low head and a low receiver do; then find "
         "where it went.", "walk_in_cooler", (("undercharge", 0.85),), "starts_and_stops", "A butcher calls: “Since last week it starts and stops, and hardly cools.”",
         ("sight_glass", "suction_psig", "liquid_line_f", "receiver_level_pct", *_DONE), "coil_ices"),
    Lesson("too-much-gas", "charge", "Too much gas", "Head and subcooling high, the condenser clean, its fan running: somebody was generous.",
         "reach_in_cooler", (("overcharge", 1.0),), "warm", "A theatre bar calls: “It was filled up in spring and is worse since.”",
         ("condenser_coil", "discharge_psig", "liquid_line_f", "last_touched", NAMED), "tube"),
    Lesson("air-in-it", "charge", "Air in the circuit", "Stopped, with its fan on, both sides should stand at the saturation of the air. What stands above "
         "it is air.", "walk_in_cooler", (("noncondensables", 1.0),), "warm", "A kitchen calls: “It was repaired in May and draws more since.”",
         ("resting_psig", "ambient_f", "discharge_psig", NAMED), "head", 105.0),
    Lesson("drier-clogged", "charge", "A clogged drier", "Two thermometers, one before and one behind the drier. Gas put in here only fills the receiver.",
         "walk_in_cooler", (("liquid_restriction", 1.0),), "warm", "A florist calls: “Warm since the compressor was changed.”",
         ("drier_drop_f", "sight_glass", "liquid_line_f", *_DONE), "restriction"),
    Lesson("tube-clogged", "charge", "A capillary tube that is clogged", "A starved coil with a full condenser: on a tube that is not gas that is missing.",
         "reach_in_cooler", (("cap_tube_restricted", 1.0),), "warm", "A canteen calls: “It hardly cools, and it runs all the time.”",
         ("suction_psig", "discharge_psig", "liquid_line_f", NAMED), "tube"),
    # Electrical.
    Lesson("pole-open", "electrical", "A pole that is burnt open", "It hums and does not start: volts over each pole, pulled in, before the motor is "
         "condemned.", "walk_in_cooler", (("contactor_pole_open", 1.0),), "does_not_run", "An inn calls: “It only hums.”",
         ("contactor", "pole_drop_v_1", "load_v_12", *_DONE), "thermostat"),
    Lesson("capacitor-dead", "electrical", "Start gear that failed", "On one phase the start gear comes before the windings, and both before the "
         "compressor.", "reach_in_freezer", (("start_parts_failed", 1.0),), "does_not_run", "A bakery calls: “It clicks every two minutes.”",
         ("compressor", "start_parts", "power_locked_out", *_DONE), "thermostat"),
    Lesson("to-ground", "electrical", "A winding to ground", "Lock out, prove dead, leads off, ohms to bare shell. Never on again after that.",
         "walk_in_freezer", (("compressor_grounded", 1.0),), "does_not_run", "A freezer store calls: “The breaker jumps out at once.”",
         ("breaker", "power_locked_out", "winding_ground_ohm", *_DONE), "thermostat"),
    Lesson("winding-open", "electrical", "An open winding", "Three pairs of pins tell a winding from an overload that only has to cool down.",
         "walk_in_cooler", (("compressor_open_winding", 1.0),), "does_not_run", "A butcher calls: “It growls and trips.”",
         ("power_locked_out", "winding_cs_ohm", "winding_cr_ohm", "winding_sr_ohm", *_DONE), "thermostat"),
    Lesson("no-call", "electrical", "Nothing calls for cold", "A dead quiet unit: follow the call from the control to the coil, two points at a time.",
         "display_cooler", (("no_call", 1.0),), "does_not_run", "A grocery calls: “Dead. Not a sound.”", ("control_call", "contactor", "meter", *_DONE),
         "thermostat"),
    # Refrigerant work.
    Lesson("find-the-leak", "refrigerant", "Find the leak", "Gas does not wear out. Go over the likely places first, twice where it signals, and its "
         "neighbours.", "walk_in_cooler", (("undercharge", 0.85),), "warm", "A farm shop calls: “You filled it in spring.”",
         ("oil_trace", "leak", *_DONE), "coil_ices", 105.0),
    Lesson("dirty-condenser", "refrigerant", "Before any gas: the condenser", "Head high on a hot day: look at the fins before the gauges, clean them "
         "before anything is judged.", "walk_in_cooler", (("condenser_dirty", 1.0),), "warm", "A kitchen calls on the hottest day: “It does not keep up.”",
         ("condenser_coil", "ambient_f", "power_locked_out", "condenser.cleaned", HELD, NAMED), "head", 100.0),
    Lesson("worn-valves", "refrigerant", "A worn compressor", "Suction high, head low, amps low, and it does not pull down a shut suction: its valves "
         "are worn. Prove that before it is condemned.", "walk_in_cooler", (("compressor_inefficient", 1.0),), "warm",
         "A dairy calls: “It runs all day and night.”", ("suction_psig", "discharge_psig", "compressor_amps", "pump_down_low_psig", *_DONE), "head", 105.0),
    # Proving.
    Lesson("prove-a-fan", "proving", "A repair that holds", "A new fan is not the end of it: melt what iced meanwhile, and see the box come down.",
         "walk_in_cooler", (("evap_fan_failed", 1.0),), "warm", "A farm shop calls: “It blows nothing.”",
         ("evap_fans", "power_locked_out", "evap_fan.replaced", "box_trend", HELD, *_DONE), "no_air"),
    Lesson("prove-a-program", "proving", "A program that holds", "Set what is wrong with the program, and let a week of it pass before you believe it.",
         "walk_in_freezer", (("defrost_too_little", 1.0),), "iced", "An inn calls: “Iced again, the third time.”",
         ("program", HALF_MELT, "fail_safe", HELD, NAMED), "defrost"),
    # Two at once.
    Lesson("dirty-and-short", "pairs", "A dirty condenser that hides a leak", "Clean first: a dirty condenser holds the head up that low gas lets down.",
         "walk_in_cooler", (("condenser_dirty", 1.0), ("undercharge", 0.7)), "warm", "A shop calls: “It got worse all summer.”",
         ("condenser_coil", "condenser.cleaned", "sight_glass", NAMED), "head", 105.0, (), "covered"),
    Lesson("fan-and-ice", "pairs", "A dead fan and a clock that stands", "What is seen with the eyes is there. What is left after it is put right is the "
         "other one.", "walk_in_freezer", (("evap_fan_failed", 1.0), ("defrost_never_starts", 1.0)), "iced", "A store calls: “All ice, all warm.”",
         ("evap_fans", HALF_MELT, "defrost_starts", NAMED), "no_air", 85.0, (), "covered"),
    Lesson("turned-before", "pairs", "Somebody turned the valve", "Ask who was there and what he did; put back what he did before you judge what was "
         "wrong.", "walk_in_cooler", (("undercharge", 0.85),), "warm", "A butcher calls: “The other firm was here, and it is no better.”",
         ("last_touched", "sight_glass", NAMED), "valve", 105.0, (("valve", "turned_out", 1.5),), "covered"),
)}
# fmt: on


def get(code: str) -> Lesson:
    """Return a lesson by its code; InputError where there is none."""
    if code not in LESSONS:
        raise InputError(f"lesson “{code[:30]}” is none of the {len(LESSONS)} there are")
    return LESSONS[code]


def shown(lesson: Lesson, steps: Sequence[Step], told: Mapping[str, object] | None) -> dict[str, bool]:
    """Return which of what a lesson asks for was shown by the steps of a practice call, and by its debrief once it is told.

    `told` has named (right), held and painted (0 to 1) under `right`, `held`, `painted`.
    """
    done = {step.of for step in steps if step.what in (ASKED, PUT, DID, SET) and (step.value is not None or step.what == DID)}
    whats = {step.what for step in steps}
    ended = told or {}
    facts = {
        NAMED: ended.get("right") is True, SAFE: told is not None and STOPPED not in whats, HELD: ended.get("held") is True,
        PAINTED: float(str(ended.get("painted") or 0.0)) >= PAINTED_FROM, HALF_MELT: MELTED in whats or "coil.melted" in done,
        "meter": METERED in whats, "program": "program" in {step.of for step in steps} or bool(done & {"fail_safe", "defrosts_per_day"}),
        "leak": "leak_look" in whats,
    }  # fmt: skip
    return {one: facts.get(one, one in done) for one in lesson.must}


def unit_words(lesson: Lesson) -> str:
    """Return the unit of a lesson in words."""
    unit = resolve(PRESETS[lesson.kind])
    return f"{unit.build}, {unit.refrigerant.name}, {TRADE.text(lesson.outside_f, '°F', 0)} outside"
