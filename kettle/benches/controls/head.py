"""The high side: from a wanted condensing temperature to the pressures of its switches, their order, and the head over the year."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.controls.pressure import Problem
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.refrigerants import Refrigerant
from kettle.knowledge.units import format_number

SCT_F: Final = (40.0, 160.0)
# A fan that is switched needs room between in and out, psi; a cut-out over the highest head of a hot day, psi.
LEAST_FAN_PSI: Final = 25.0
CUT_OUT_ROOM_PSI: Final = 40.0
# A condenser's split at full load, °F, where nothing was measured.
USUAL_SPLIT_F: Final = 20.0


@dataclass(frozen=True)
class FanSwitch:
    """A condenser fan by pressure: its motor starts at the first pressure and stops at the second, psig."""

    in_psig: float
    out_psig: float


def psig_at(refrigerant: Refrigerant, altitude_ft: float, sct_f: float) -> float:
    """Return the head at a condensing temperature, °F; FieldErrors outside what condensers see."""
    if not SCT_F[0] <= sct_f <= SCT_F[1]:
        low, high = (format_number(end, 0) for end in SCT_F)
        raise FieldErrors({"sct_f": f"Condensing temperature: {format_number(sct_f)} °F is outside {low} to {high} °F"})
    return refrigerant.bubble_psig(sct_f, altitude_ft)


def head_over(refrigerant: Refrigerant, altitude_ft: float, outdoor_f: Sequence[float], split_f: float, held_f: float) -> list[float]:
    """Return the head at each outdoor temperature, psig: condensing at outdoors plus the split, but not below what is held (°F).

    Beyond the refrigerant's table it is the highest that has.
    """
    return [refrigerant.bubble_psig(min(max(one + split_f, held_f), refrigerant.high_f), altitude_ft) for one in outdoor_f]


def shares_pct(heads: Sequence[float]) -> list[float]:
    """Return heads as % of the highest, as bars are drawn."""
    highest = max(heads)
    return [100.0 * max(one, 0.0) / highest for one in heads]


def problems(fans: Sequence[FanSwitch], cut_out_psig: float, hottest_head_psig: float) -> list[Problem]:
    """Return what is wrong between fan switches (first to start first) and the high-pressure cut-out."""
    found = []
    for number, fan in enumerate(fans, 1):
        if fan.out_psig >= fan.in_psig:
            found.append(Problem(f"Fan {number}: it stops at or above where it starts", refused=True))
        elif fan.in_psig - fan.out_psig < LEAST_FAN_PSI:
            between = format_number(fan.in_psig - fan.out_psig, 0)
            found.append(Problem(f"Fan {number}: {between} psi between in and out makes it start and stop all the time", refused=False))
        if fan.in_psig >= cut_out_psig:
            found.append(Problem(f"Fan {number} starts at or above the high-pressure cut-out: it trips first", refused=True))
    for number, (first, second) in enumerate(zip(fans, fans[1:], strict=False), 1):
        if second.in_psig <= first.in_psig:
            found.append(Problem(f"Fan {number + 1} starts no later than fan {number}: set it above", refused=False))
        elif second.out_psig < first.out_psig:
            found.append(Problem(f"Fan {number + 1} runs on below where fan {number} stops: they hunt", refused=False))
    if cut_out_psig < hottest_head_psig + CUT_OUT_ROOM_PSI:
        room = format_number(cut_out_psig - hottest_head_psig, 0)
        found.append(Problem(f"On the hottest day {room} psi are left to the cut-out: a dusty condenser trips it", refused=False))
    return found
