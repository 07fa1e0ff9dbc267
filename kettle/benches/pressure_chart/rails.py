"""The saturation ladder: pressure on one side, temperature on the other, a rung for dew and one for bubble.

Heights are counted from the top of the rails. The temperature rail is linear; a pressure stands at the height of its dew
temperature, so that a dew rung is level and a bubble rung falls by the glide.
"""

from dataclasses import dataclass
from typing import Final, Literal

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import INHG_PER_PSI, ShownUnits
from kettle.knowledge.refrigerants import Refrigerant

Line = Literal["dew", "bubble"]
LOW_F: Final = -60.0
HIGH_F: Final = 150.0
# Heights a mark needs around it to be read.
BETWEEN_MARKS: Final = 23.0
VACUUM_INHG: Final = (25, 20, 15, 10, 5)
# Figures a pressure rail is marked with, by the unit it is read in.
PRESSURE_MARKS: Final[dict[str, tuple[float, ...]]] = {
    "psig": (0, 5, 10, 15, 20, 30, 40, 50, 60, 80, 100, 125, 150, 175, 200, 250, 300, 350, 400, 500, 600, 800, 1000),
    "bar": (0, 0.5, 1, 1.5, 2, 3, 4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 25, 30, 40, 50, 60, 70),
    "kPa": (0, 50, 100, 150, 200, 300, 400, 500, 600, 800, 1000, 1200, 1400, 1600, 2000, 2500, 3000, 4000, 5000, 6000),
}
TEMPERATURE_STEP: Final = {"°F": 10, "°C": 5}


@dataclass(frozen=True)
class Mark:
    """A mark on a rail: its height and what stands beside it."""

    y: float
    label: str


@dataclass(frozen=True)
class Rung:
    """A pressure with its height on the pressure rail (that of dew) and the height of bubble on the temperature rail."""

    y_dew: float
    y_bubble: float


@dataclass(frozen=True)
class Rails:
    """Both rails of a refrigerant, as they are drawn; heights grow downwards from the top."""

    height: float
    low_f: float
    high_f: float
    pressures: tuple[Mark, ...]
    temperatures: tuple[Mark, ...]
    rungs: tuple[Rung, ...]

    def y_of(self, temperature_f: float) -> float:
        """Return the height of a temperature in °F."""
        return self.height * (self.high_f - temperature_f) / (self.high_f - self.low_f)


@dataclass(frozen=True)
class Looked:
    """One look-up: gauge pressure psig with its dew, bubble and mid-point, °F."""

    psig: float
    dew_f: float
    bubble_f: float

    @property
    def mid_f(self) -> float:
        """The mid-point of dew and bubble."""
        return (self.dew_f + self.bubble_f) / 2.0

    @property
    def glide_f(self) -> float:
        """Dew less bubble at this pressure."""
        return self.dew_f - self.bubble_f


def at_pressure(refrigerant: Refrigerant, psig: float, altitude_ft: float = 0.0) -> Looked:
    """Return the look-up at a gauge pressure in psig; InputError outside the table."""
    return Looked(psig, refrigerant.dew_f(psig, altitude_ft), refrigerant.bubble_f(psig, altitude_ft))


def at_temperature(refrigerant: Refrigerant, temperature_f: float, line: Line, altitude_ft: float = 0.0) -> Looked:
    """Return the look-up at a temperature in °F on the dew or the bubble line; InputError outside the table."""
    if line not in ("dew", "bubble"):
        raise InputError(f"“{str(line)[:20]}” is not one of dew, bubble")
    look_up = refrigerant.dew_psig if line == "dew" else refrigerant.bubble_psig
    return at_pressure(refrigerant, look_up(temperature_f, altitude_ft), altitude_ft)


def rails(refrigerant: Refrigerant, altitude_ft: float, shown: ShownUnits, height: float) -> Rails:
    """Return both rails of a refrigerant at an altitude in ft, marked in a person's units, `height` high."""
    low, high = max(LOW_F, refrigerant.low_f), min(HIGH_F, refrigerant.high_f)
    bare = Rails(height, low, high, (), (), ())
    candidates = [(-inhg / INHG_PER_PSI, f"{inhg} inHg") for inhg in VACUUM_INHG]
    pressure = shown.measure("psig")
    candidates += [(pressure.to_stored(figure), f"{figure:g}") for figure in PRESSURE_MARKS[pressure.label]]
    pressures: list[Mark] = []
    rungs: list[Rung] = []
    for psig, label in candidates:
        try:
            looked = at_pressure(refrigerant, psig, altitude_ft)
        except InputError:
            continue
        y = bare.y_of(looked.dew_f)
        if low <= looked.dew_f <= high and (not pressures or pressures[-1].y - y >= BETWEEN_MARKS):
            pressures.append(Mark(y, label))
            rungs.append(Rung(y, min(bare.y_of(looked.bubble_f), height)))
    degrees = shown.measure("°F")
    step = TEMPERATURE_STEP[degrees.label]
    first = -(-degrees.to_shown(low) // step) * step
    count = int((degrees.to_shown(high) - first) // step) + 1
    figures = [first + step * i for i in range(count)]
    temperatures = [Mark(bare.y_of(degrees.to_stored(figure)), f"{figure:g}".replace("-", "−")) for figure in figures]
    return Rails(height, low, high, tuple(pressures), tuple(temperatures), tuple(rungs))


def card(refrigerant: Refrigerant, temperatures_f: list[float], altitude_ft: float = 0.0) -> list[tuple[float | None, float | None]]:
    """Return dew and bubble pressure in psig at each temperature in °F; None outside the table."""
    inside = [refrigerant.low_f <= t <= refrigerant.high_f for t in temperatures_f]
    return [
        (refrigerant.dew_psig(t, altitude_ft), refrigerant.bubble_psig(t, altitude_ft)) if known else (None, None)
        for t, known in zip(temperatures_f, inside, strict=True)
    ]
