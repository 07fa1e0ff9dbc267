"""Evacuation: how long it takes by volume, line and pump, and what the gauge says after the pump is shut off.

Conductance of a round tube for air at room temperature, molecular and viscous together (Knudsen; as in O'Hanlon, A User's Guide to Vacuum
Technology, ch. 3): molecular 12.1 d³/L, viscous 137 d⁴/L at the mean pressure, L/s with cm and torr.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log
from typing import Final, Literal

import numpy as np

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number

State = Literal["watch", "tight", "wet", "leaking"]
TARGET_MICRONS: Final = 500.0
HOLD_MICRONS: Final = 1000.0
HOLD_MIN: Final = 10.0
LEAST_READINGS: Final = 4
MICRONS: Final = (1.0, 2_000_000.0)
# A rise counts as standing where the last third rises slower than this, microns a minute.
STANDS_A_MIN: Final = 12.0
# A wet system levels off: an exponential has to fit so much better than a line, and its last third to rise this much slower than its first.
BETTER: Final = 0.55
SLOWS: Final = 0.5
TAUS_MIN: Final = tuple(np.geomspace(0.8, 40.0, 40))
ATMOSPHERE_TORR: Final = 760.0
LITRES_PER_FT3: Final = 28.317
LITRES_S_PER_CFM: Final = 0.4719
CM_PER_IN: Final = 2.54
CM_PER_FT: Final = 30.48
STEPS: Final = 200


@dataclass(frozen=True)
class Decay:
    """What a rise after shutting off says: its state, microns a minute late in it, where it levels off (wet), minutes still to watch."""

    state: State
    says: str
    rise_a_min: float = 0.0
    levels_at: float | None = None
    watch_min: float = 0.0


def read_decay(readings: Sequence[tuple[float, float]]) -> Decay:
    """Return what readings (minutes since the pump was shut off, microns) say; in their order.

    Tight and dry holds under 1,000 microns for ten minutes; moisture rises and levels off; a leak goes on in a straight line.
    """
    if len(readings) < LEAST_READINGS:
        left = LEAST_READINGS - len(readings)
        return Decay("watch", f"{left} more reading{'s' if left > 1 else ''} before it says anything", watch_min=HOLD_MIN)
    at, microns = (np.array(column, dtype=float) for column in zip(*readings, strict=True))
    at = at - at[0]
    span = float(at[-1])
    third = max(len(at) // 3, 2)
    late, early = _slope(at[-third:], microns[-third:]), _slope(at[:third], microns[:third])
    if span < HOLD_MIN and microns[-1] < HOLD_MICRONS:
        watch = HOLD_MIN - span
        return Decay(
            "watch", f"{format_number(float(microns[-1]), 0)} microns; watch {format_number(watch, 0)} more min", late, None, watch
        )
    if microns[-1] <= HOLD_MICRONS and (late < STANDS_A_MIN or microns[-1] + 5.0 * late < HOLD_MICRONS):
        return Decay("tight", f"Tight and dry: {format_number(float(microns[-1]), 0)} microns after {format_number(span, 0)} min", late)
    line_error, (curve_error, levels) = _line(at, microns), _curve(at, microns)
    if curve_error < BETTER * line_error and late < SLOWS * max(early, 1e-9):
        return Decay("wet", f"Wet: it levels off at about {format_number(levels, 0)} microns. Warm it, nitrogen through it, evacuate again",
                     late, levels)  # fmt: skip
    if span < HOLD_MIN / 2.0:
        return Decay("watch", f"Rising {format_number(late, 0)} microns a minute; watch {format_number(HOLD_MIN - span, 0)} more min", late,
                     None, HOLD_MIN - span)  # fmt: skip
    return Decay("leaking", f"Leaking: it goes on by {format_number(late, 0)} microns a minute. Hoses and cores first, then the system",
                 late)  # fmt: skip


def _slope(at: np.ndarray, of: np.ndarray) -> float:
    return float(np.polyfit(at, of, 1)[0]) if at[-1] > at[0] else 0.0


def _line(at: np.ndarray, of: np.ndarray) -> float:
    return float(np.sum((of - np.polyval(np.polyfit(at, of, 1), at)) ** 2))


def _curve(at: np.ndarray, of: np.ndarray) -> tuple[float, float]:
    """The least squares of start + rise (1 - exp(-t/tau)) over a row of taus, and where the best levels off."""
    best = (float("inf"), 0.0)
    for tau in TAUS_MIN:
        shape = np.column_stack([np.ones_like(at), 1.0 - np.exp(-at / tau)])
        found, *_ = np.linalg.lstsq(shape, of, rcond=None)
        best = min(best, (float(np.sum((of - shape @ found) ** 2)), float(found.sum())))
    return best


@dataclass(frozen=True)
class Pull:
    """How long a pump needs, minutes, and the share of its speed that the line lets through at the end, of one."""

    minutes: float
    let_through: float

    @property
    def let_through_pct(self) -> float:
        """The same in %."""
        return 100.0 * self.let_through


def pull_down(
    volume_ft3: float, pump_cfm: float, hose_ft: float, hose_bore_in: float, to_microns: float = TARGET_MICRONS,
) -> Pull:  # fmt: skip
    """Return how long a pump needs for a dry system of a volume through one line; FieldErrors by field. Water takes longer."""
    wrong = {}
    for name, label, value, span, unit in (
        ("volume_ft3", "Volume", volume_ft3, (0.005, 200.0), "ft³"), ("pump_cfm", "Pump", pump_cfm, (0.5, 60.0), "cfm"),
        ("hose_ft", "Hose", hose_ft, (0.5, 100.0), "ft"), ("hose_bore_in", "Its inside", hose_bore_in, (0.05, 2.0), "in"),
        ("to_microns", "Down to", to_microns, (20.0, 5000.0), "microns"),
    ):  # fmt: skip
        if not span[0] <= value <= span[1]:
            wrong[name] = f"{label}: {format_number(value, 3)} {unit} is outside {span[0]:g} to {span[1]:g} {unit}"
    if wrong:
        raise FieldErrors(wrong)
    litres, speed = volume_ft3 * LITRES_PER_FT3, pump_cfm * LITRES_S_PER_CFM
    bore, length = hose_bore_in * CM_PER_IN, hose_ft * CM_PER_FT
    target, seconds, through = to_microns / 1000.0, 0.0, 1.0
    step = log(ATMOSPHERE_TORR / target) / STEPS
    for n in range(STEPS):
        torr = ATMOSPHERE_TORR * exp(-step * (n + 0.5))
        conductance = (12.1 * bore**3 + 137.0 * bore**4 * torr / 2.0) / length
        through = conductance / (conductance + speed)
        seconds += litres * step / (speed * through)
    return Pull(seconds / 60.0, through)
