"""How it works: a unit of the model run on, moment by moment, so that a drawing moves with it; and what is to be seen in it, in words."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

from kettle.knowledge.equipment import resolve
from kettle.knowledge.errors import InputError
from kettle.plant.observer import Rig, stand
from kettle.plant.observer.seen import blocked
from kettle.plant.simulate import PRESETS


@dataclass(frozen=True)
class How:
    """One page: what is to be seen, in sentences, and the run it is seen in.

    `kind`, `wrong` (code, severity), `outside_f` and `before_h` are the unit and how long it ran already, `comes_min` when what is wrong
    comes on (0: it was there), `span_min` what is shown in so many `frames`; `seen` are the figures drawn under it. It is reached from `parts` of a unit and from `parameters` of its controls.
    """

    code: str
    title: str
    says: tuple[str, ...]
    kind: str
    wrong: tuple[tuple[str, float], ...] = ()
    outside_f: float = 85.0
    before_h: float = 54.0
    comes_min: float = 0.0
    span_min: float = 60.0
    frames: int = 120
    seen: tuple[str, ...] = ("air_f", "coil_f", "sst_f", "superheat_f")
    parts: tuple[str, ...] = ()
    parameters: tuple[str, ...] = ()


# What is drawn of a figure: its label and unit.
FIGURES: Final[Mapping[str, tuple[str, str]]] = {
    "air_f": ("Box air", "°F"), "coil_f": ("Coil", "°F"), "sst_f": ("SST", "°F"), "sct_f": ("SCT", "°F"),
    "superheat_f": ("Superheat", "°F diff"), "subcooling_f": ("Subcooling", "°F diff"), "suction_psig": ("Suction", "psig"),
    "discharge_psig": ("Discharge", "psig"), "amps": ("Amps", "A"), "frost_lb": ("Ice on the coil", "lb"), "opening_pct": ("Valve open", "%"),
}  # fmt: skip
# fmt: off
HOW: Final[dict[str, How]] = {one.code: one for one in (
    How("thermostat", "A box kept cold: what the thermostat does", (
        "The thermostat starts the unit when the box has warmed by half its differential above set, and stops it as far below.",
        "While it runs the coil is colder than the air by its TD; when it stops the coil warms to the air, and its frost may melt.",
        "A small differential gives many short runs, a wide one long swings."),
        "walk_in_cooler", span_min=150.0, seen=("air_f", "coil_f", "sst_f"), parts=("thermostat", "control", "box", "sensor", "contactor"),
        parameters=("set_point", "differential", "anti_short_cycle", "starts_per_hour", "alarm_high", "alarm_low", "probe_role")),
    How("pump_down", "A pump-down: the solenoid shuts, the low side empties", (
        "The thermostat does not stop the compressor: it shuts the liquid solenoid. The compressor empties the coil until the low-pressure "
        "switch opens at its cut-out.",
        "Called again, the solenoid opens, suction rises past the cut-in, and the compressor starts on gas and not on liquid.",
        "A solenoid that leaks lets suction creep up again: the unit starts and stops with nobody calling."),
        "walk_in_freezer", span_min=120.0, seen=("air_f", "suction_psig", "sst_f"), parts=("liquid_solenoid", "pressure_control", "compressor"),
        parameters=("lp_cut_in", "lp_cut_out")),
    How("coil_ices", "A coil that ices: little liquid, ice on the first rows", (
        "With too little liquid only the first rows of the coil boil it. They lie far below freezing and carry all the frost; the rest stays "
        "bare and warm.",
        "Frost takes the air its way: suction falls further, the ice turns hard, and nothing read on it counts.",
        "Melt all of it, then read: what is left then is the cause."),
        "walk_in_freezer", (("undercharge", 0.8),), before_h=2.0, span_min=26 * 60.0, frames=156,
        seen=("air_f", "sst_f", "superheat_f", "frost_lb"), parts=("coil", "leak", "glass")),
    How("no_air", "No air over the coil: ice all over", (
        "A coil fan that stands gives the coil no heat: suction falls, superheat falls, and the valve closes what it can.",
        "The whole coil ices from its surface on, and the box warms while everything reads cold.",
        "Volts at the fan tell which it is: the motor, its lead, or a delay that waits for a cold coil."),
        "walk_in_cooler", (("evap_fan_failed", 1.0),), before_h=54.0, comes_min=60.0, span_min=10 * 60.0, seen=("air_f", "coil_f", "sst_f", "frost_lb"),
        parts=("evap_fan",)),
    How("defrost", "A defrost from its first minute to the last drop", (
        "The clock starts it: compressor off, heaters on. First the ice warms, then it melts at 32 °F while the coil hardly warms.",
        "Bare, the coil climbs fast to its termination, which ends it; then it drips, and the fans wait until the coil has frozen its water.",
        "One that ends by its fail-safe time has left ice, or has a heater or a termination that does not work."),
        "walk_in_freezer", before_h=56.8, span_min=70.0, frames=140, seen=("air_f", "coil_f", "frost_lb"),
        parts=("heater", "timer", "termination", "program", "drain", "drain_heater", "relay"),
        parameters=("defrosts_per_day", "fail_safe", "termination", "drip", "fan_delay", "demand", "alarm_delay")),
    How("valve", "An expansion valve at work", (
        "The bulb feels how warm the line is behind the coil, the valve how high suction is: it opens until superheat is what its spring asks.",
        "Much load, much opening; near set it closes. A start is never the moment to turn a stem: wait until superheat stands still.",
        "A quarter turn, and twenty minutes: the coil answers slowly, and one that hunts swings round its superheat."),
        "walk_in_cooler", outside_f=95.0, span_min=90.0, seen=("superheat_f", "opening_pct", "sst_f", "air_f"), parts=("valve", "bulb"),
        parameters=("target_superheat", "refrigerant", "unit_type")),
    How("flooding", "A valve stuck open: liquid comes back", (
        "A valve that is stuck open feeds more than the coil can boil: superheat goes to nothing, the line sweats back to the compressor.",
        "Suction stands high, amps too; the box may be cold enough, and the compressor dies of it.",
        "The hand on its shell knows: it is cold where it should be warm."),
        "walk_in_cooler", (("txv_overfeeding", 1.0),), before_h=54.5, comes_min=30.0, span_min=120.0, seen=("superheat_f", "sst_f", "amps", "air_f"),
        parts=("air",)),
    How("head", "A dirty condenser: head climbs, everything else follows", (
        "Heat leaves through fins and their air. With both clogged SCT climbs above the air it stands in, and so do amps and discharge.",
        "The compressor moves less gas the higher its ratio: suction rises, the box warms on the hottest day first.",
        "Clean it before anything else is judged by the high side."),
        "walk_in_cooler", (("condenser_dirty", 0.7),), 95.0, before_h=54.0, comes_min=60.0, span_min=180.0, seen=("sct_f", "discharge_psig", "amps", "air_f"),
        parts=("condenser", "condenser_fan", "head_control", "water_valve", "receiver"), parameters=("hp_cut_out", "fan_cycling_cut_in")),
    How("tube", "A capillary tube: nothing moves but the pressures", (
        "A tube has no spring and no bulb: what goes through depends on the head before it and on whether liquid or bubbles arrive.",
        "So its charge must be right to the ounce: too little starves the coil, too much floods it, and both look like the tube.",
        "At rest both sides come together through it: give it three minutes before it starts again."),
        "reach_in_cooler", span_min=120.0, seen=("suction_psig", "discharge_psig", "superheat_f", "air_f"), parts=("cap_tube", "charge")),
    How("restriction", "A liquid line that is restricted: cold behind the drier", (
        "Where a drier clogs, the pressure behind it is lost before the valve: liquid flashes there, and the line is colder after than before.",
        "Before it liquid stands up: subcooling is high, head may be ordinary. Behind it the coil starves as if gas were missing.",
        "Gas put in fills the receiver and changes nothing: measure the drop first."),
        "walk_in_cooler", (("liquid_restriction", 0.75),), before_h=54.0, comes_min=40.0, span_min=120.0,
        seen=("subcooling_f", "superheat_f", "sst_f", "air_f"), parts=("drier",)),
    How("door", "A door that stands open: warm, wet air", (
        "Air through a door brings heat and water. The box climbs, the unit runs on and on, and the water ends as frost on the coil.",
        "Everything reads as if the unit were too small: suction and TD rise with the load, superheat is the valve's own.",
        "A frame heater that is dead, a gasket that gapes and stock that came in warm look the same from the machine: look at the door first."),
        "walk_in_freezer", (("door_infiltration", 1.0),), before_h=54.0, comes_min=120.0, span_min=12 * 60.0,
        seen=("air_f", "sst_f", "frost_lb"), parts=("door", "frame_heater", "stock")),
    How("regulator", "A suction regulator that shuts too far", (
        "A regulator in the suction line keeps the coil above a pressure. Shut too far it keeps gas back: the coil warms, and so does the box.",
        "Before it suction stands high, behind it low, and the compressor runs on little gas: it is read on both sides.",
        "Opened a turn, it answers in minutes; the valve has then to be read anew."),
        "walk_in_cooler", (("suction_regulator_shut", 0.8),), before_h=54.0, comes_min=60.0, span_min=240.0,
        seen=("suction_psig", "sst_f", "superheat_f", "air_f"), parts=("regulator",)),
    How("dead", "A unit that stands: the box warms by itself", (
        "Supply, contactor, start gear, motor: whatever of them fails, the compressor stands and both sides of the circuit come together.",
        "The box warms through its walls, quickly at first; frost melts off the coil and the pan fills.",
        "Follow the call from the control to the coil and the volts from the supply to the motor; what stands has nothing to read with gauges."),
        "walk_in_cooler", (("contactor_pole_open", 1.0),), before_h=54.0, comes_min=60.0, span_min=10 * 60.0,
        seen=("air_f", "suction_psig", "discharge_psig", "amps"), parts=("supply", "wiring", "start_parts"), parameters=("interlock",)),
    How("hot_gas", "Defrost by heat: what melts, and what is left", (
        "Elements or hot gas bring the same heat: the coil stays at 32 °F while its ice melts, and climbs when it is bare.",
        "With half of the heat missing the clock ends it before the ice is gone, and each defrost leaves a little more.",
        "What stays on the coil turns hard: it is melted off by hand before anything is judged."),
        "walk_in_freezer", (("defrost_heater_open", 0.6),), before_h=38.5, span_min=18 * 60.0, frames=150,
        seen=("coil_f", "frost_lb", "air_f"), parts=("hot_gas_valve",)),
)}
# fmt: on


@dataclass(frozen=True)
class Frame:
    """One moment: minutes from the beginning, the figures seen, how full of ice each section is (0 to 1), and what runs (flags)."""

    minute: float
    figures: Mapping[str, float]
    ice: tuple[float, ...]
    running: bool
    fans: bool
    defrosting: bool
    opening: float


def get(code: str) -> How:
    """Return a page by its code; InputError where there is none."""
    if code not in HOW:
        raise InputError(f"how “{code[:30]}” is none of {', '.join(HOW)}")
    return HOW[code]


def of_part(part: str) -> str:
    """Return the code of the page that shows how a part works; empty where none does."""
    return next((one.code for one in HOW.values() if part in one.parts), "")


def of_parameter(code: str) -> str:
    """Return the code of the page that shows what a parameter does; empty where none does."""
    return next((one.code for one in HOW.values() if code in one.parameters), "")


@lru_cache(maxsize=16)
def moving(code: str) -> tuple[Frame, ...]:
    """Return the frames of a page, the model run on between them; the same each time."""
    how = get(code)
    rig = stand(resolve(PRESETS[how.kind]), () if how.comes_min else how.wrong, how.before_h, how.outside_f)
    frames = [_frame(rig, how, 0.0)]
    step_min = how.span_min / how.frames
    for place in range(1, how.frames + 1):
        if how.comes_min and place * step_min >= how.comes_min and not rig.wrong:
            rig.wrong = dict(how.wrong)
            rig.rebuild()
        rig.wait(step_min)
        frames.append(_frame(rig, how, place * step_min))
    return tuple(frames)


def _frame(rig: Rig, how: How, minute: float) -> Frame:
    state, flows = rig.state, rig.flows
    unit = rig.unit
    figures = {
        "air_f": float(state.air_f), "coil_f": float(state.metal_f.mean()), "sst_f": float(state.sst_f), "sct_f": float(state.sct_f),
        "superheat_f": float(flows.superheat_f) if rig.running else float("nan"),
        "subcooling_f": float(flows.subcooling_f) if rig.running else float("nan"),
        "suction_psig": unit.refrigerant.dew_psig(float(state.sst_f), unit.altitude_ft),
        "discharge_psig": unit.refrigerant.bubble_psig(float(state.sct_f), unit.altitude_ft),
        "amps": float(flows.amps) if rig.running else 0.0, "frost_lb": float(state.frost_lb.sum() + state.ice_lb.sum()),
        "opening_pct": 100.0 * float(state.opening),
    }  # fmt: skip
    return Frame(
        round(minute, 2), {name: figures[name] for name in how.seen}, tuple(round(float(min(share, 1.0)), 3) for share in blocked(rig)),
        rig.running, bool(state.fans > 0 and rig.parts.fan_flow > 0.1), rig.defrosting, round(float(state.opening), 3),
    )  # fmt: skip
