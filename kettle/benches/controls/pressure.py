"""A pressure switch set by computation: as the only thermostat, or as pump-down and safety control.

Rules of the trade: a pressure means the temperature at which the refrigerant boils there. As a thermostat the cut-in is saturation at the
warmest air wanted (coil and box are equal then), well above freezing so that each off-cycle clears the coil; the cut-out is saturation at
the coldest air less the TD seen. As pump-down control the cut-out stays above 0 psig, and the cut-in below saturation at the coldest that
the low side meets, or it never restarts.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.knowledge.bands import default_band
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import format_number
from kettle.knowledge.refrigerants import Refrigerant

FREEZING_F: Final = 32.0
# Saturation at cut-in over freezing, °F, from which an off-cycle clears the coil; below the first it never does.
CLEARS_OVER_F: Final = 4.0
# Supply air lies about so much below the box, °F: beside produce it must not freeze.
SUPPLY_BELOW_F: Final = 4.0
# Gauges and scales of such switches lie, psi, either way.
SCALE_ERROR_PSI: Final = 2.0
# Pump-down: air must never be drawn in; room over 0, and over what the low side creeps up after a stop, psi.
LEAST_CUT_OUT_PSIG: Final = 2.0
CREEP_ROOM_PSI: Final = 5.0
# Saturation at the coldest the low side meets has to lie so far above cut-in, °F.
RESTART_ROOM_F: Final = 5.0
# Wanted air, °F, and TD, °F, that can be meant.
AIR_F: Final = (-40.0, 75.0)
TD_F: Final = (2.0, 45.0)
PSIG: Final = (-14.7, 250.0)
# How such switches are built: what its scales show, and what each of its screws moves.
BUILDS: Final = {"in_diff": "cut-in and differential", "out_diff": "cut-out and differential", "each": "cut-in and cut-out, each its own"}


@dataclass(frozen=True)
class Setting:
    """Where a low-pressure switch closes and opens, psig at the site."""

    cut_in_psig: float
    cut_out_psig: float

    @property
    def differential_psi(self) -> float:
        """The differential, psi."""
        return self.cut_in_psig - self.cut_out_psig


@dataclass(frozen=True)
class Proposal:
    """A setting with why, and how many psi a °F is about there."""

    setting: Setting
    reasons: tuple[str, ...]
    psi_per_f: float


@dataclass(frozen=True)
class Problem:
    """What is wrong with a setting: refused where nobody should leave it so, a warning else."""

    text: str
    refused: bool


def _checked(name: str, label: str, value: float, span: tuple[float, float], unit: str, wrong: dict[str, str]) -> None:
    if not span[0] <= value <= span[1]:
        low, high = (format_number(end, 0) for end in span)
        wrong[name] = f"{label}: {format_number(value, 1)} {unit} is outside {low} to {high} {unit}"


def usual_air_f(unit: Unit) -> tuple[float, float]:
    """Return the warmest and coldest air wanted of a unit where nobody said: half its differential about the set, °F."""
    half = unit.differential_f / 2.0
    return unit.set_f + half, unit.set_f - half


def usual_td_f(unit: Unit) -> float:
    """Return the TD of a unit where nobody saw it: the middle of its band, °F."""
    low, high = default_band(unit, "td_f") or TD_F
    return (low + high) / 2.0


def psi_per_f(refrigerant: Refrigerant, altitude_ft: float, warmest_f: float, coldest_f: float) -> float:
    """Return by how many psi saturation moves with a °F between two temperatures."""
    moved = refrigerant.dew_psig(warmest_f, altitude_ft) - refrigerant.dew_psig(coldest_f, altitude_ft)
    return moved / (warmest_f - coldest_f)


def as_thermostat(refrigerant: Refrigerant, altitude_ft: float, warmest_f: float, coldest_f: float, td_f: float) -> Proposal:
    """Return the setting of a switch that is the only thermostat, for the warmest and coldest air wanted and the TD seen, °F.

    Raises FieldErrors for air or TD outside what can be meant, or a coldest air that is not below the warmest.
    """
    wrong: dict[str, str] = {}
    _checked("warmest_f", "Warmest air", warmest_f, AIR_F, "°F", wrong)
    _checked("coldest_f", "Coldest air", coldest_f, AIR_F, "°F", wrong)
    _checked("td_f", "TD", td_f, TD_F, "°F", wrong)
    if not wrong and coldest_f >= warmest_f:
        wrong["coldest_f"] = f"Coldest air: {format_number(coldest_f)} °F is not below the warmest, {format_number(warmest_f)} °F"
    if wrong:
        raise FieldErrors(wrong)
    boils_f = coldest_f - td_f
    cut_in, cut_out = refrigerant.dew_psig(warmest_f, altitude_ft), refrigerant.dew_psig(boils_f, altitude_ft)
    per_f = psi_per_f(refrigerant, altitude_ft, warmest_f, boils_f)
    reasons = (
        f"Cut-in: at {format_number(warmest_f)} °F air the coil stands as warm, and {refrigerant.name} at {format_number(cut_in, 0)} psig",
        f"Cut-out: at {format_number(coldest_f)} °F air it boils at {format_number(boils_f)} °F, {format_number(cut_out, 0)} psig",
        f"Here 1 °F is about {format_number(per_f, 1)} psi",
    )
    return Proposal(Setting(cut_in, cut_out), reasons, per_f)


def fallback(unit: Unit) -> Setting:
    """Return a setting to draw where what was asked cannot be: by the unit's own air and TD."""
    return as_thermostat(unit.refrigerant, unit.altitude_ft, *usual_air_f(unit), usual_td_f(unit)).setting


# A pump-down stops so far over 0 where there is room, and its switch needs so much between its ends, psi.
USUAL_CUT_OUT_PSIG: Final = 5.0
LEAST_DIFFERENTIAL_PSI: Final = 5.0


def as_pump_down(refrigerant: Refrigerant, altitude_ft: float, coldest_f: float, creep_psi: float | None = None) -> Proposal:
    """Return the setting of a pump-down or safety switch by the coldest that the low side meets, °F, and how far suction creeps up after
    a pump-down, psi. FieldErrors for a temperature outside what can be meant."""
    wrong: dict[str, str] = {}
    low_f = max(AIR_F[0], refrigerant.low_f + RESTART_ROOM_F)
    _checked("coldest_met_f", "Coldest it meets", coldest_f, (low_f, AIR_F[1]), "°F", wrong)
    if wrong:
        raise FieldErrors(wrong)
    starts_f = coldest_f - RESTART_ROOM_F
    cut_in = refrigerant.dew_psig(starts_f, altitude_ft)
    between = max(LEAST_DIFFERENTIAL_PSI, (creep_psi or 0.0) + CREEP_ROOM_PSI)
    cut_out = max(min(USUAL_CUT_OUT_PSIG, cut_in - between), LEAST_CUT_OUT_PSIG)
    reasons = [
        f"Cut-in: at {format_number(coldest_f)} °F the low side has to come over it, so {format_number(RESTART_ROOM_F, 0)} °F below: "
        f"{format_number(cut_in, 0)} psig",
        f"Cut-out: {format_number(cut_out, 0)} psig keeps it over 0, so that no air is drawn in",
    ]
    if cut_in - cut_out < between:
        reasons.append("There is little room between the two: at this cold a thermostat that starts it directly is the surer way")
    if cut_in <= cut_out:
        cut_in = cut_out + LEAST_DIFFERENTIAL_PSI
    return Proposal(Setting(cut_in, cut_out), tuple(reasons), psi_per_f(refrigerant, altitude_ft, coldest_f, starts_f))


def thermostat_problems(refrigerant: Refrigerant, altitude_ft: float, setting: Setting, produce: bool) -> list[Problem]:
    """Return what is wrong with a setting as the only thermostat, the worst first."""
    found = _order(setting)
    if found:
        return found
    at_in = refrigerant.dew_f(setting.cut_in_psig, altitude_ft)
    if at_in <= FREEZING_F:
        found.append(Problem(f"Cut-in at {format_number(at_in)} °F never lets the coil thaw: it packs with ice", refused=True))
    elif at_in < FREEZING_F + CLEARS_OVER_F:
        found.append(
            Problem(f"Cut-in at {format_number(at_in)} °F clears the coil only just: watch that each off-cycle does", refused=False)
        )
    coldest = refrigerant.dew_f(setting.cut_out_psig, altitude_ft)
    if produce and coldest < FREEZING_F - SUPPLY_BELOW_F:
        found.append(Problem("Supply air falls below freezing before it stops: keep what may not freeze out of it", refused=False))
    per_psi = (at_in - coldest) / setting.differential_psi
    error = format_number(SCALE_ERROR_PSI * per_psi, 1)
    found.append(Problem(f"Scale and gauge lie by {format_number(SCALE_ERROR_PSI, 0)} psi, here {error} °F: watch cycles", refused=False))
    return found


def pump_down_problems(
    refrigerant: Refrigerant, altitude_ft: float, setting: Setting, coldest_f: float, creep_psi: float | None = None,
    least_psig: float = LEAST_CUT_OUT_PSIG,
) -> list[Problem]:  # fmt: skip
    """Return what is wrong with a setting as pump-down or safety control, the worst first.

    `coldest_f` is the coldest the low side meets (box, or outdoors in winter), `creep_psi` how far suction rises after a pump-down,
    `least_psig` what this compressor may be pulled down to.
    """
    found = _order(setting)
    if found:
        return found
    if setting.cut_out_psig < least_psig:
        low = format_number(least_psig, 0)
        found.append(Problem(f"Cut-out below {low} psig: air is drawn in through any leak, and the compressor runs hot", refused=True))
    there = refrigerant.dew_psig(coldest_f, altitude_ft)
    if setting.cut_in_psig >= there:
        stands = f"At {format_number(coldest_f)} °F the low side stands at {format_number(there, 0)} psig"
        found.append(Problem(f"{stands}, below cut-in: it does not start again", refused=True))
    elif setting.cut_in_psig > refrigerant.dew_psig(coldest_f - RESTART_ROOM_F, altitude_ft):
        found.append(
            Problem(f"Cut-in is close below what {format_number(coldest_f)} °F gives: on the coldest night it may stay off", refused=False)
        )
    if creep_psi is not None and setting.differential_psi < creep_psi + CREEP_ROOM_PSI:
        found.append(
            Problem(
                f"Suction creeps up {format_number(creep_psi, 0)} psi after a pump-down and the differential is "
                f"{format_number(setting.differential_psi, 0)} psi: it starts and stops. Wider, or a short delay; and the valve that leaks",
                refused=False,
            )
        )
    return found


# A delay that keeps a compressor from short-cycling, min: longer, and the low side fills while it waits.
DELAY_MIN: Final = (2.0, 5.0)
CREEP_OVER_MIN: Final = 5.0


def delay(setting: Setting, creep_psi: float | None) -> str:
    """Return what delay a pump-down needs by how far suction rises in five minutes after it, psi; empty where none is needed.

    The way from cut-out to cut-in, at that pace, is how soon it starts again.
    """
    if not creep_psi or creep_psi <= 0.0:
        return ""
    again_min = CREEP_OVER_MIN * setting.differential_psi / creep_psi
    shortest, longest = DELAY_MIN
    if again_min >= longest:
        return ""
    soon = f"At that creep it starts again after {format_number(again_min, 1)} min"
    wanted = format_number(max(shortest, min(longest, longest - again_min)), 0)
    return f"{soon}: a delay of {wanted} min on the start, and the valve that leaks. Not longer: the low side fills and liquid migrates"


@dataclass(frozen=True)
class Outdoors:
    """What a switch does where the low side meets an outdoor temperature: psig that stand there, and whether it starts again."""

    outdoor_f: float
    stands_psig: float
    starts: bool


def over_the_year(
    refrigerant: Refrigerant, altitude_ft: float, setting: Setting, box_f: float, outdoor_f: Sequence[float],
) -> list[Outdoors]:  # fmt: skip
    """Return what a pump-down or safety switch does at each outdoor temperature, °F: the colder of it and the box decides."""
    stands = [(one, refrigerant.dew_psig(min(one, box_f), altitude_ft)) for one in outdoor_f]
    return [Outdoors(one, psig, psig > setting.cut_in_psig) for one, psig in stands]


def _order(setting: Setting) -> list[Problem]:
    if setting.cut_out_psig >= setting.cut_in_psig:
        return [Problem("Cut-out is at or above cut-in: it can never run", refused=True)]
    return []


def checked(refrigerant: Refrigerant, altitude_ft: float, cut_in_psig: float, cut_out_psig: float) -> Setting:
    """Return a setting; FieldErrors for a pressure outside what such switches have, or outside the refrigerant's table."""
    wrong: dict[str, str] = {}
    table = (refrigerant.dew_psig(refrigerant.low_f, altitude_ft), refrigerant.dew_psig(refrigerant.high_f, altitude_ft))
    span = (max(PSIG[0], table[0]), min(PSIG[1], table[1]))
    _checked("cut_in_psig", "Cut-in", cut_in_psig, span, "psig", wrong)
    _checked("cut_out_psig", "Cut-out", cut_out_psig, span, "psig", wrong)
    if wrong:
        raise FieldErrors(wrong)
    return Setting(cut_in_psig, cut_out_psig)


def screws(build: str, now: Setting, wanted: Setting) -> list[str]:
    """Return which screw moves what, in the order in which nobody is surprised; empty where nothing has to move.

    The main screw of a switch moves one end and carries the other along, the differential's moves the other end alone: the main one
    first. InputError for a way of building that is not known.
    """
    if build not in BUILDS:
        raise InputError(f"Switch: “{build[:20]}” is none of {', '.join(BUILDS.values())}")
    if build == "out_diff":
        main, main_now, main_wanted = "cut-out", now.cut_out_psig, wanted.cut_out_psig
        other, carried, other_wanted = "cut-in", wanted.cut_out_psig + now.differential_psi, wanted.cut_in_psig
    else:
        main, main_now, main_wanted = "cut-in", now.cut_in_psig, wanted.cut_in_psig
        other, carried, other_wanted = "cut-out", wanted.cut_in_psig - now.differential_psi, wanted.cut_out_psig
    if build == "each":
        carried = now.cut_out_psig
    steps = []
    if abs(main_now - main_wanted) >= 0.5:
        along = f"; the {other} goes along to {format_number(carried, 0)}" if build != "each" else ""
        moved = f"{main} from {format_number(main_now, 0)} to {format_number(main_wanted, 0)} psig"
        steps.append(f"Main screw {_way(main_wanted - main_now)}: {moved}{along}")
    if abs(carried - other_wanted) >= 0.5:
        wider = other_wanted < carried if other == "cut-out" else other_wanted > carried
        screw = "Other screw" if build == "each" else f"Differential screw, {'wider' if wider else 'narrower'}"
        steps.append(f"{screw}: {other} from {format_number(carried, 0)} to {format_number(other_wanted, 0)} psig, the {main} stays")
    return steps


def _way(change: float) -> str:
    return "up the scale" if change > 0 else "down the scale"


def scale_marks(
    refrigerant: Refrigerant, altitude_ft: float, low_f: float, high_f: float, step_f: float = 10.0
) -> list[tuple[float, float]]:
    """Return the marks of a scale between two temperatures: °F in even steps, each with its psig at the site."""
    first = step_f * -(-low_f // step_f)
    count = int((high_f - first) // step_f) + 1
    return [(first + step_f * n, refrigerant.dew_psig(first + step_f * n, altitude_ft)) for n in range(count)]
