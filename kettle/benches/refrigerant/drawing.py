"""Drawings of refrigerant work: microns over time on a scale of tens, and where the places of a leak search lie on a circuit."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import log10
from typing import Final

from kettle.benches.refrigerant.vacuum import HOLD_MICRONS, TARGET_MICRONS

WIDTH: Final = 720.0
LEFT, RIGHT, TOP, HIGH = 78.0, 20.0, 16.0, 220.0
LOW_MICRONS, HIGH_MICRONS = 50.0, 1_000_000.0
TICKS: Final = (100.0, 1000.0, 10_000.0, 100_000.0, 1_000_000.0)
LEAST_SPAN_MIN: Final = 15.0

# Where each place of a leak search lies on the circuit, which is drawn 420 wide and 400 high.
SPOTS: Final[dict[str, tuple[float, float]]] = {
    "coil_left": (62, 92), "coil_right": (138, 92), "coil_joints": (192, 142), "valve": (250, 60), "tube": (250, 128),
    "flares": (314, 60), "lines": (382, 60),
    "drier": (382, 128), "receiver": (382, 212), "condenser": (300, 340), "compressor": (76, 340), "rubs": (152, 340), "caps": (76, 266),
    "cores": (40, 204),
}  # fmt: skip


@dataclass(frozen=True)
class Drawn:
    """The drawing: the line, its dots (x, y, microns in words, pump running), ticks, the two wanted lines, where the pump was shut off."""

    line: str
    dots: tuple[tuple[float, float, str, bool], ...]
    ticks: tuple[tuple[float, str], ...]
    target_y: float
    hold_y: float
    shut_x: float | None
    minutes: tuple[tuple[float, str], ...]


def drawn(readings: Sequence[tuple[float, float, bool]]) -> Drawn:
    """Return readings (minute, microns, whether the pump ran) as they are drawn, from the first on."""
    begins = readings[0][0] if readings else 0.0
    span = max(readings[-1][0] - begins if readings else 0.0, LEAST_SPAN_MIN)

    def x(at_min: float) -> float:
        return round(LEFT + (WIDTH - LEFT - RIGHT) * (at_min - begins) / span, 1)

    def y(microns: float) -> float:
        held = min(max(microns, LOW_MICRONS), HIGH_MICRONS)
        return round(TOP + HIGH * (log10(HIGH_MICRONS) - log10(held)) / (log10(HIGH_MICRONS) - log10(LOW_MICRONS)), 1)

    dots = tuple((x(at), y(microns), f"{microns:.0f} microns", pump) for at, microns, pump in readings)
    shut = next((at for at, _, pump in readings if not pump), None)
    step = next(one for one in (5.0, 10.0, 15.0, 30.0, 60.0, 120.0, 1e6) if span / one <= 8.0)
    return Drawn(
        line=" ".join(f"{one[0]},{one[1]}" for one in dots),
        dots=dots,
        ticks=tuple((y(tick), f"{tick:,.0f}") for tick in TICKS),
        target_y=y(TARGET_MICRONS),
        hold_y=y(HOLD_MICRONS),
        shut_x=None if shut is None else x(shut),
        minutes=tuple((x(begins + step * n), f"{step * n:.0f}") for n in range(int(span // step) + 1)),
    )
