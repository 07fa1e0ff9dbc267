"""A part of the circuit changed: the steps in their order, what each needs, and about how long it takes."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError


@dataclass(frozen=True)
class Step:
    """One step of a change: its code, what is done, what it needs, minutes, and the cautions it brings (codes of the core's table)."""

    code: str
    does: str
    needs: str = ""
    minutes: float = 10.0
    caution: tuple[str, ...] = ()


# fmt: off
_BEFORE: Final = (
    Step("power", "Power locked out, proved dead", "Lock and meter", 5, ("lock_out",)),
    Step("isolated", "Pumped down behind shut valves, or all of it recovered", "Recovery machine, cylinder on a scale", 40,
         ("licensed", "pressure")),
)
_BRAZED: Final = (
    Step("nitrogen", "Dry nitrogen flowing while it is brazed", "Nitrogen with regulator, fire watch, extinguisher", 25,
         ("fire", "full_coil")),
    Step("caps", "Caps, cores and seals back or new", "Caps, cores, seals", 5),
)
_AFTER: Final = (
    Step("pressure", "Pressure test with dry nitrogen, held", "Nitrogen with regulator and relief", 45, ("pressure",)),
    Step("evacuated", "Evacuated under 500 microns and held under 1,000", "Pump, microns at the system", 60),
    Step("charged", "Weighed in", "Cylinder on a scale", 20, ("licensed", "pressure")),
    Step("run_in", "Run in: amps, pressures, superheat, glass", "Gauges, clamp", 30),
)
_OWN: Final[dict[str, tuple[Step, ...]]] = {
    "compressor": (
        Step("proved", "Proved bad by measuring: grounded, open, does not pump", "Power's findings, pumping test", 20,
             ("lock_out", "live")),
        Step("why", "Why it died: charge, flooding, dirty condenser, voltage", "Readings as found", 15),
        Step("matched", "Matches: refrigerant and oil", "", 3),
        Step("match_capacity", "Matches: capacity at these temperatures", "", 3),
        Step("match_volts", "Matches: volts, phases, amps", "", 3),
        Step("match_stubs", "Matches: stubs, feet, service valves", "Suction line no smaller than its stub", 3),
        Step("match_start", "Matches: start gear", "", 3),
        Step("labels", "Wires labelled by what they do", "Sheet of Power", 10, ("lock_out",)),
        Step("switches", "Pressure switches off before the flame", "", 5),
        Step("acid", "Oil looked at, acid test; after a burn-out suction drier and again in two days", "Acid test", 10),
        Step("heater", "Crankcase heater on, hours before the start", "", 5),
    ),
    "valve": (Step("matched", "Valve of this refrigerant, capacity, equalizer and connections", "", 10),
              Step("bulb", "Bulb on clean pipe, two straps, insulated", "Straps, insulation", 10)),
    "drier": (Step("direction", "Arrow with the flow, upright where it can be", "", 5),),
    "coil": (Step("matched", "Coil of this capacity, fins, voltage of its heaters and fans", "", 15),
             Step("drain", "Drain and heaters connected, water seen to leave", "", 15)),
    "cap_tube": (Step("matched", "Bore and length by the flow, cut square, not pinched", "Tube, file", 15),
                 Step("strainer", "Strainer drier new, tube half an inch inside it, not at the screen", "Strainer drier", 10)),
    "line": (Step("route", "Pitched back to the compressor, no trap that holds oil, free of the frame", "", 15),),
}
# fmt: on
PARTS: Final = {
    "compressor": "Compressor",
    "valve": "Expansion valve",
    "drier": "Drier",
    "coil": "Coil",
    "cap_tube": "Capillary tube",
    "line": "Part of a line",
}  # fmt: skip
DRIER: Final = Step("drier", "New drier in its place", "Drier", 10)
FIRST: Final = ("proved", "why", "matched", "match_capacity", "match_volts", "match_stubs", "match_start")
# fmt: off
TRIPLE: Final = (
    Step("to_1500", "Pulled to 1,500 microns", "", 30),
    Step("nitrogen_1", "Broken with dry nitrogen, to just above the air outside", "Nitrogen with regulator", 10, ("pressure",)),
    Step("to_1000", "Pulled to 1,000 microns", "", 25),
    Step("nitrogen_2", "Broken with dry nitrogen again", "Nitrogen with regulator", 10, ("pressure",)),
    Step("to_500", "Pulled under 500 microns, and held", "", 30),
)
# fmt: on


def steps(part: str, unit: Unit) -> list[Step]:
    """Return the steps of changing a part of a unit's circuit, or of a triple evacuation, in order; InputError for a part that is none."""
    if part == "triple":
        return list(TRIPLE)
    if part not in PARTS:
        raise InputError(f"Part: “{part[:20]}” is none of {', '.join(PARTS.values())}")
    own = _OWN[part]
    before = [step for step in own if step.code in FIRST]
    amid = [step for step in own if step.code not in FIRST and step.code != "heater"]
    drier = [] if part == "drier" or unit.metering == "cap_tube" else [DRIER]
    after = list(_AFTER)
    if part == "compressor":
        after.insert(3, next(step for step in own if step.code == "heater"))
    return [*before, *_BEFORE, *amid, *drier, *_BRAZED, *after]


def every_step() -> tuple[str, ...]:
    """Return the codes of all steps there are, of every part and of a triple evacuation."""
    every = [*_BEFORE, *_BRAZED, *_AFTER, DRIER, *TRIPLE, *(step for own in _OWN.values() for step in own)]
    return tuple(dict.fromkeys(step.code for step in every))


def step_of(part: str, code: str) -> Step | None:
    """Return a step of changing a part by its code; None for one it has not."""
    own = TRIPLE if part == "triple" else (*_OWN.get(part, ()), *_BEFORE, DRIER, *_BRAZED, *_AFTER)
    return next((step for step in own if step.code == code), None)


# What a step uses up, which a quote names; its tools are no part of it.
TAKES: Final = {
    "caps": "Caps, cores, seals", "drier": "Drier", "acid": "Acid test", "bulb": "Bulb straps, insulation", "strainer": "Strainer drier",
    "nitrogen": "Dry nitrogen", "charged": "Refrigerant by weight",
}  # fmt: skip


def takes(part: str, unit: Unit) -> tuple[str, ...]:
    """Return what changing a part uses up beside the part itself."""
    return tuple(dict.fromkeys(TAKES[step.code] for step in steps(part, unit) if step.code in TAKES))


def hours(part: str, unit: Unit) -> float:
    """Return about how many hours a change takes, by its steps."""
    return sum(step.minutes for step in steps(part, unit)) / 60.0
