"""A pressure switch drawn: one tall scale, temperature even on one side, this refrigerant's pressure on the other, two handles."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.benches.controls.cycles import Cycle
from kettle.benches.controls.pressure import Setting, scale_marks
from kettle.knowledge.measures import ShownUnits
from kettle.knowledge.refrigerants import Refrigerant

HIGH: Final = 520.0
TOP: Final = 24.0
ROOM_F: Final = 12.0
BETWEEN: Final = 15.0
HANDLE: Final = 26.0
FAR_F: Final = 25.0


@dataclass(frozen=True)
class Mark:
    """Something on the scale: its height, and what stands beside it."""

    y: float
    label: str


@dataclass(frozen=True)
class Handle:
    """An end of the switch: `cut_in` or `cut_out`, its height, pressure and saturation in words."""

    end: str
    label: str
    y: float
    psig: str
    sat: str


@dataclass(frozen=True)
class Scale:
    """The scale: its height, °F at top and foot (for dragging), marks of both sides, what is marked, and the two handles."""

    high: float
    top_f: float
    foot_f: float
    rungs: tuple[tuple[float, str, str], ...]
    marks: tuple[Mark, ...]
    handles: tuple[Handle, ...]
    table: tuple[tuple[float, float], ...]

    @property
    def between(self) -> float:
        """The height between the two handles, in units of the drawing."""
        return max(self.handles[1].y - self.handles[0].y, 0.0)


@dataclass(frozen=True)
class Bar:
    """A watched cycle as drawn from its start on: its number, how much of the longest it ran, and how much it stood, %."""

    number: int
    on_pct: float
    off_pct: float


def bars(cycles: Sequence[Cycle]) -> list[Bar]:
    """Return watched cycles lined up at their starts, each in % of the longest."""
    longest = max((one.on_min + one.off_min for one in cycles), default=0.0)
    return (
        [Bar(number, 100.0 * one.on_min / longest, 100.0 * one.off_min / longest) for number, one in enumerate(cycles, 1)]
        if longest > 0
        else []
    )


def drawn(refrigerant: Refrigerant, altitude_ft: float, setting: Setting, marks: Sequence[tuple[str, float]], shown: ShownUnits) -> Scale:
    """Return the scale of a switch with what is marked on it (words, °F), in the units of a person.

    `table` gives height and psig in small steps, from which dragging reads a pressure.
    """
    ends = (refrigerant.dew_f(setting.cut_in_psig, altitude_ft), refrigerant.dew_f(setting.cut_out_psig, altitude_ft))
    # What lies far above would press the rest together.
    top = max(*ends, *(at for _, at in marks if at < ends[0] + FAR_F)) + ROOM_F
    foot = min(*ends, *(at for _, at in marks)) - ROOM_F

    top, foot = min(top, refrigerant.high_f), max(foot, refrigerant.low_f)

    def y(at_f: float) -> float:
        return TOP + (HIGH - 2 * TOP) * (top - at_f) / (top - foot)

    # A handle covers what stands beside a rung.
    rungs = tuple(
        (y(at), shown.text(at, "°F", 0), "" if min(abs(y(at) - y(end)) for end in ends) < HANDLE else shown.text(psig, "psig", 0))
        for at, psig in scale_marks(refrigerant, altitude_ft, foot, top)
    )
    placed: list[Mark] = []
    for label, at in sorted((one for one in marks if foot < one[1] < top), key=lambda one: -one[1]):
        height = y(at)
        if placed and height - placed[-1].y < BETWEEN:
            height = placed[-1].y + BETWEEN
        placed.append(Mark(height, f"{label} {shown.text(at, '°F', 0)}"))
    handles = tuple(
        Handle(end, label, y(at), shown.text(psig, "psig", 0), shown.text(at, "°F", 0))
        for end, label, at, psig in (
            ("cut_in", "cut-in", ends[0], setting.cut_in_psig),
            ("cut_out", "cut-out", ends[1], setting.cut_out_psig),
        )
    )
    steps = 60
    table = tuple(
        (round(y(at), 1), round(shown.measure("psig").to_shown(refrigerant.dew_psig(at, altitude_ft)), 2))
        for at in (foot + (top - foot) * n / steps for n in range(steps + 1))
    )
    return Scale(HIGH, top, foot, rungs, tuple(placed), handles, table)
