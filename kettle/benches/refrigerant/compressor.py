"""A compressor: whether it pumps, and what it should do by the maker's ten coefficients."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.refrigerant.retrofit import oil
from kettle.knowledge.bands import default_band
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import TRADE, ShownUnits, format_number

# A sound one pulls this far below its usual suction and does not come back by more in five minutes, psi.
PULLS_PSIG: Final = {False: 0.0, True: -7.0}
RISES_PSI: Final = 5.0
COEFFICIENTS: Final = 10
# When a new one is read after its first start, minutes; what its oil may look like.
FIRST_MIN: Final = (1, 10, 30)
OIL: Final = {"in_glass": "in the glass", "foaming": "foaming", "low": "low", "no_glass": "no glass"}
# Share of rated amps above which a run-in is not left.
MOST_AMPS_PCT: Final = 110.0
INCHES: Final = (0.1, 6.0)


@dataclass(frozen=True)
class Pumped:
    """What a pumping test says: whether it is good, in words."""

    good: bool
    says: str


def pumping(unit: Unit, lowest_psig: float, rise_psi: float, shown: ShownUnits = TRADE) -> Pumped:
    """Return what the lowest suction reached and the rise in five minutes say of a compressor, psig and psi.

    Rules of the trade: a cooler's pulls below 0 psig, a freezer's to about 15 inches; it comes back slowly where valves and rings hold. A
    liquid valve that leaks brings it back too.
    """
    least = PULLS_PSIG[unit.kind.freezer]
    told, back = shown.text(lowest_psig, "psig", 0), shown.text(rise_psi, "psi", 0)
    if lowest_psig > least:
        return Pumped(False, f"It pulls to {told} only, {shown.text(least, 'psig', 0)} is due: valves, rings, or gas that comes past the "
                             "liquid valve")  # fmt: skip
    if rise_psi > RISES_PSI:
        return Pumped(False, f"It pulls to {told} but comes back by {back} in five minutes: valves, or the liquid valve leaks. Shut the "
                             "discharge service valve and look again")  # fmt: skip
    return Pumped(True, f"It pulls to {told} and comes back by {back}: it pumps")


def by_maker(coefficients: Sequence[float], sst_f: float, sct_f: float) -> float:
    """Return a compressor's capacity, power, amps or flow by ten coefficients (AHRI 540).

    C1 + C2 S + C3 D + C4 S² + C5 S D + C6 D² + C7 S³ + C8 D S² + C9 S D² + C10 D³, S and D evaporating and condensing dew temperature °F.
    FieldErrors for another count.
    """
    if len(coefficients) != COEFFICIENTS:
        raise FieldErrors({"coefficients": f"Coefficients: {len(coefficients)} given, ten are the maker's"})
    s, d = sst_f, sct_f
    terms = (1.0, s, d, s * s, s * d, d * d, s**3, d * s * s, s * d * d, d**3)
    return float(sum(c * term for c, term in zip(coefficients, terms, strict=True)))


def against(due: float, now: float, what: str) -> str:
    """Return how a measured figure stands to the maker's, in words."""
    pct = 100.0 * now / due
    return f"{what}: {format_number(now)} of {format_number(due)}, {format_number(pct, 0)} %"


def to_match(unit: Unit) -> dict[str, str]:
    """Return what a new compressor must match, by the step of a change it belongs to, as far as the unit's record knows it."""
    sst, sct = (round(_design(unit)[0]), round(_design(unit)[1]))
    volts = f"{format_number(unit.nameplate_v, 0)} V" if unit.nameplate_v else "volts by the plate"
    rated = f", {format_number(unit.compressor_rla_a)} A" if unit.compressor_rla_a else ""
    start = "contactor and overload" if unit.phases == 3 else "its own relay, start and run capacitor, never the old ones"
    about = format_number(unit.kind.capacity_btu_h, 0)
    return {
        "matched": f"{unit.refrigerant.name}, {oil(unit.refrigerant)} oil",
        "match_capacity": f"At {sst} °F evaporating, {sct} °F condensing: about {about} Btu/h for this kind, better by the old plate",
        "match_volts": f"{volts}, {'three' if unit.phases == 3 else 'single'} phase{rated}",
        "match_stubs": "Suction line no smaller than its stub",
        "match_start": start[0].upper() + start[1:],
    }


def _design(unit: Unit) -> tuple[float, float]:
    """Evaporating and condensing temperature at the middle of the unit's bands, °F."""
    from kettle.plant.sizing import DESIGN_OUTSIDE_F, DESIGN_WATER_F

    td, lift = default_band(unit, "td_f"), default_band(unit, "approach_f" if unit.condensing == "water" else "split_f")
    assert td is not None and lift is not None
    coolant = DESIGN_WATER_F if unit.condensing == "water" else DESIGN_OUTSIDE_F
    return unit.set_f - sum(td) / 2.0, coolant + sum(lift) / 2.0


@dataclass(frozen=True)
class FirstStart:
    """What was read after the first start of a new compressor: minute of `FIRST_MIN`, amps, psig, how the oil looked (word of `OIL`)."""

    minute: int
    amps: float
    suction_psig: float
    discharge_psig: float
    oil: str


def first_start(unit: Unit, read: Sequence[FirstStart]) -> list[str]:
    """Return what is wrong with the first half hour of a new compressor, in words; empty where it runs in well so far.

    In the first minute high amps and foam are the pull-down's; later they are not. Rules of the trade.
    """
    says = []
    for one in read:
        if one.discharge_psig <= one.suction_psig:
            says.append(f"At {one.minute} min no pressure is made: it turns the wrong way, or does not pump. Off")
        if one.minute < FIRST_MIN[1]:
            continue
        if unit.compressor_rla_a and 100.0 * one.amps / unit.compressor_rla_a > MOST_AMPS_PCT:
            pct = format_number(100.0 * one.amps / unit.compressor_rla_a, 0)
            says.append(f"At {one.minute} min it draws {pct} % of its rated amps: head, volts, or gas")
        if one.suction_psig < 0.0:
            says.append(f"At {one.minute} min it pulls a vacuum: supply, drier, or short of gas")
        if one.oil == "foaming":
            says.append(f"At {one.minute} min the oil still foams: liquid comes back, superheat first")
        if one.oil == "low":
            says.append(f"At {one.minute} min the oil is low: it stays out in the lines, or too little went in")
    return says


def line_and_stub(line_in: float, stub_in: float) -> tuple[str, str]:
    """Return the word of *suction line size* and what it means, from the line's and the stub's inside, inches; FieldErrors by field.

    At the same flow the pressure lost in a pipe goes about with the fifth power of its bore (Darcy and Weisbach).
    """
    wrong = {
        name: f"{label}: {format_number(value, 3)} in is outside {INCHES[0]:g} to {INCHES[1]:g} in"
        for name, label, value in (("line_in", "Line", line_in), ("stub_in", "Stub", stub_in)) if not INCHES[0] <= value <= INCHES[1]
    }  # fmt: skip
    if wrong:
        raise FieldErrors(wrong)
    if line_in >= stub_in:
        return "as_stub", "The line is no smaller than its stub"
    times = (stub_in / line_in) ** 5
    return "smaller", f"The line is smaller than its stub: each foot loses {format_number(times)} times as much. A finding of its own"
