"""The high side: from a wanted condensing temperature to the pressures of its switches, their order, and the head over the year."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.controls.pressure import Problem
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number
from kettle.knowledge.refrigerants import Refrigerant

SCT_F: Final = (40.0, 160.0)
# A fan that is switched needs room between in and out, psi; a cut-out over the highest head of a hot day, psi.
LEAST_FAN_PSI: Final = 25.0
CUT_OUT_ROOM_PSI: Final = 40.0
# What holds the head up in the cold: what it is called.
HOLDERS: Final = {
    "fan_switch": "fan by pressure", "ambient_stat": "fan by outdoor thermostat", "fan_speed": "fan speed", "mixing_valve": "mixing valve",
}  # fmt: skip
# A fan-speed control slows from full to its least over so many psi.
SPEED_BAND_PSI: Final = 60.0
# A condenser's split at full load, °F, where nothing was measured.
USUAL_SPLIT_F: Final = 20.0


@dataclass(frozen=True)
class FanSwitch:
    """A condenser fan by pressure: its motor starts at the first pressure and stops at the second, psig."""

    in_psig: float
    out_psig: float


def psig_at(refrigerant: Refrigerant, altitude_ft: float, sct_f: float) -> float:
    """Return the head at a condensing temperature, °F; FieldErrors outside what condensers see. Beyond the table: its end."""
    if not SCT_F[0] <= sct_f <= SCT_F[1]:
        low, high = (format_number(end, 0) for end in SCT_F)
        raise FieldErrors({"sct_f": f"Condensing temperature: {format_number(sct_f)} °F is outside {low} to {high} °F"})
    return refrigerant.bubble_psig(min(sct_f, refrigerant.high_f), altitude_ft)


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
    if hottest_head_psig < cut_out_psig < hottest_head_psig + CUT_OUT_ROOM_PSI:
        room = format_number(cut_out_psig - hottest_head_psig, 0)
        found.append(Problem(f"On the hottest day {room} psi are left to the cut-out: a dusty condenser trips it", refused=False))
    return found


def holder(kind: str, refrigerant: Refrigerant, altitude_ft: float, held_f: float, split_f: float) -> list[str]:
    """Return what to set on whatever holds the head, for a condensing temperature to hold and the split with the fan on, °F; in words.

    Rules of the trade: below outdoors = held - split the fan alone would pull the head down, so there each of them has to act.
    FieldErrors for what holds no head.
    """
    if kind not in HOLDERS:
        raise FieldErrors({"holder": f"Held by: “{kind[:20]}” is none of {', '.join(HOLDERS.values())}"})
    held, acts_f = psig_at(refrigerant, altitude_ft, held_f), held_f - split_f
    outdoor, pressure = format_number(acts_f, 0), format_number(held, 0)
    if kind == "fan_switch":
        out = format_number(psig_at(refrigerant, altitude_ft, max(held_f - split_f / 2.0, SCT_F[0])), 0)
        starts = format_number(psig_at(refrigerant, altitude_ft, min(held_f + split_f / 2.0, SCT_F[1])), 0)
        return [f"Starts at {starts} psig, stops at {out} psig: it holds {pressure} between them",
                f"Below {outdoor} °F outside the fan begins to cycle"]  # fmt: skip
    if kind == "ambient_stat":
        return [f"Fan off below {outdoor} °F outside: with it the head would fall under {pressure} psig there",
                "It knows outdoors, not the head: another fan or a mixing valve holds the rest, the cut-out guards it"]  # fmt: skip
    if kind == "fan_speed":
        full = format_number(held + SPEED_BAND_PSI, 0)
        return [f"Least speed at {pressure} psig, full speed at about {full} psig",
                f"Below {outdoor} °F outside it slows down; set the least speed where the motor still starts"]  # fmt: skip
    return [f"Set to {pressure} psig ({format_number(held_f, 0)} °F)",
            f"Below {outdoor} °F outside it floods the condenser: charge enough for that, a receiver that holds it in summer"]  # fmt: skip
