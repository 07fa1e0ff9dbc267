"""A unit that does not run, followed along its current: what to look at in which order, and what each finding comes to.

Order of the trade: call, each safety, contactor coil, line, load, drop over each closed pole, amps of each leg.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.electrical import supplied
from kettle.electrical.capacitors import IMBALANCE_LIMIT_PCT
from kettle.electrical.circuit import Circuit
from kettle.electrical.measure import Reading
from kettle.electrical.solve import solve
from kettle.knowledge.measures import format_number

# Line volts may lie so far off the plate, %; a sound pole under load drops at most so much, V.
OFF_PLATE_PCT: Final = 10.0
WORN_POLE_V: Final = 2.0
NOTHING_SHARE, WHOLE_SHARE = 0.1, 0.9
# What is measured, in the order of the trade.
ORDER: Final = ("call", "safety", "coil", "line", "load", "drop", "amps")
AMPS_PAIRS: Final = (("1", "2"), ("2", "3"), ("3", "1"))


@dataclass(frozen=True)
class Step:
    """One measurement of the order: of what (a word of `ORDER`), where the leads go (or whose lead is clamped), what is right there, what
    was measured, and what that is: good, bad, or nothing yet."""

    of: str
    label: str
    what: str
    one: str
    other: str
    expected: float
    measured: float | None = None
    verdict: str = ""


def along(circuit: Circuit, readings: Sequence[Reading]) -> list[Step]:
    """Return the order of a dead unit with what was measured of it while it should run."""
    common = circuit.common
    back = next((part.b for part in circuit.parts if part.key == "contactor_coil"), common)
    share = supplied.share_of_plate(circuit, readings)
    took = {(r.what, frozenset((r.one, r.other) if r.what == "volts" else (r.one,))): r.value for r in readings if r.state == "calling"}
    # Behind the line everything is held against what comes in: a low supply is told once, at the line.
    solved = solve(supplied.as_measured(circuit, readings), "calling")
    steps = []

    def volts(of: str, label: str, one: str, other: str, right: float, good: str = "full") -> None:
        measured = took.get(("volts", frozenset((one, other))))
        steps.append(Step(of, label, "volts", one, other, right, measured, _verdict(measured, circuit.volts, right, good)))

    volts("call", "Call", "K2", back, float(solved.between("K2", back)[0]))
    for part in circuit.parts:
        if part.kind in ("switch", "contact") and part.key in ("lp_switch", "hp_switch", "comp_relay", "timer_cool"):
            volts("safety", part.label, part.a, part.b, 0.0, "none")
    coil = next((part for part in circuit.parts if part.key == "contactor_coil"), None)
    if coil:
        volts("coil", "Contactor coil", coil.a, coil.b, share * coil.rated_v)
    legs = AMPS_PAIRS if circuit.phases == 3 else (("1", ""),)
    two = "T2" if circuit.has("pole_2") else common
    for side, letter, right in (("Line", "L", circuit.volts), ("Load", "T", share * circuit.volts)):
        for one, other in legs:
            end = f"{letter}{other}" if other else (two if letter == "T" else common)
            volts(side.lower(), f"{side} {one}{other or ''}".strip(), f"{letter}{one}", end, right)
    for part in circuit.parts:
        if part.kind == "pole":
            volts("drop", f"Drop over pole {part.key[-1]}", part.a, part.b, 0.0, "drop")
    for part in circuit.parts:
        if part.kind == "wire" and part.key.startswith("lead_"):
            right = float(solved.through(part.key)[0])
            measured = took.get(("amps", frozenset((part.key,))))
            verdict = "" if measured is None else "good" if 0.5 * right < measured < 1.4 * right else "bad"
            steps.append(Step("amps", f"Amps, leg {part.key[-1]}", "amps", part.key, "", right, measured, verdict))
    return steps


def _verdict(measured: float | None, supply: float, right: float, good: str) -> str:
    if measured is None:
        return ""
    if good == "full":
        return "good" if measured >= WHOLE_SHARE * right else "bad"
    return "good" if measured <= (WORN_POLE_V if good == "drop" else NOTHING_SHARE * supply) else "bad"


def comes_to(circuit: Circuit, steps: Sequence[Step], pulled_in: bool | None) -> str:
    """Return what the order comes to so far, in one line; empty while nothing does. `pulled_in` is the contactor's armature, None unseen.

    The rules, each by what the trade reads out of it: a bad line is the supply; a fed coil with its armature out is the coil; a drop near
    the line's volts is that pole; one load pair at nothing with the others whole is feed-back through the motor; a few volts of drop are a
    worn pole; all of it right and still no run is the motor or its overload.
    """

    def of(what: str) -> list[Step]:
        return [step for step in steps if step.of == what and step.measured is not None]

    line, load, drops = of("line"), of("load"), of("drop")
    if said := _supply(circuit, [step.measured or 0.0 for step in line]):
        return said
    if any(step.verdict == "bad" for step in of("call")):
        return "No call comes through: the control, or what feeds it"
    shut = next((step for step in of("safety") if step.verdict == "bad"), None)
    if shut:
        return f"{shut.label}: open, with the call standing before it"
    coil = next(iter(of("coil")), None)
    if coil and coil.verdict == "bad":
        return "No volts at the contactor coil: something before it is open"
    if coil and pulled_in is False:
        return "The coil is fed and the armature is out: the contactor's coil"
    whole = next((step for step in drops if (step.measured or 0.0) > 0.5 * circuit.volts), None)
    if whole:
        return f"{whole.label}: nearly the whole line's volts. That pole does not make"
    if circuit.phases == 3 and len(load) == 3:
        lost = [step for step in load if (step.measured or 0.0) < NOTHING_SHARE * circuit.volts]
        if len(lost) == 1:
            return f"{lost[0].label} shows nothing with the other two whole: fed back. Either pole of that pair; measure across each"
    worn = next((step for step in drops if step.verdict == "bad"), None)
    if worn:
        return f"{worn.label}: {format_number(worn.measured or 0.0, 1)} V under load. The pole is worn"
    poles = sum(part.kind == "pole" for part in circuit.parts)
    if len(drops) == poles and line and pulled_in:
        return "Every pole makes and the line is good: the motor, its start gear, or an overload that is still hot"
    return ""


def _supply(circuit: Circuit, line: Sequence[float]) -> str:
    """What is wrong with the line by the volts measured there."""
    if any(value < NOTHING_SHARE * circuit.volts for value in line):
        return "A leg of the line is lost: the supply, its fuse or its disconnect"
    off = [value for value in line if abs(value - circuit.volts) > OFF_PLATE_PCT / 100.0 * circuit.volts]
    if off:
        return f"The line has {format_number(off[0], 0)} V against {format_number(circuit.volts, 0)} V on the plate: the supply"
    if len(line) == 3:
        mean = sum(line) / 3.0
        imbalance = 100.0 * max(abs(value - mean) for value in line) / mean
        if imbalance > IMBALANCE_LIMIT_PCT:
            limit = format_number(IMBALANCE_LIMIT_PCT, 0)
            return f"The line is {format_number(imbalance, 1)} % out of balance, {limit} % is the limit: the supply"
    return ""


# What a breaker does when it is closed once, and what that says.
BREAKER: Final[Mapping[str, str]] = {
    "trips_at_once": "A dead short or a winding to ground: leave it off, lock out, and measure each winding to the shell",
    "trips_warm": "Too many amps for too long: locked rotor, a lost leg, high head, or a breaker that is worn or loose",
    "holds": "No short to ground now",
}
