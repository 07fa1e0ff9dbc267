"""A standing-pressure test with dry nitrogen: what temperature did, what was lost, and the smallest leak it can tell.

Ideal gas at constant volume: absolute pressure goes with absolute temperature.
"""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import TRADE, ShownUnits, atmosphere_psia, format_number
from kettle.knowledge.refrigerants.line import RANKINE

# How well a gauge and a thermometer are read: share of the pressure, psi at least, °F.
GAUGE_SHARE: Final = 0.0025
GAUGE_PSI: Final = 0.25
THERMOMETER_F: Final = 1.0
PSIG: Final = (20.0, 650.0)
TEMPERATURE_F: Final = (-40.0, 150.0)
MINUTES: Final = (1.0, 14400.0)


@dataclass(frozen=True)
class Stood:
    """A test: psig due by temperature alone, what was lost, psi, what is told from nothing, psi and psi an hour, in words."""

    due_psig: float
    lost_psi: float
    tells_psi: float
    tells_psi_h: float
    says: str

    @property
    def leaks(self) -> bool:
        """Whether more was lost than reading it can explain."""
        return self.lost_psi > self.tells_psi


def stood(
    start_psig: float, start_f: float, now_psig: float, now_f: float, minutes: float, altitude_ft: float = 0.0, shown: ShownUnits = TRADE,
) -> Stood:  # fmt: skip
    """Return what a standing-pressure test says, psig and °F at its start and now; FieldErrors by field."""
    wrong = {}
    for name, label, value, span, unit in (
        ("start_psig", "Pressure at the start", start_psig, PSIG, "psig"), ("now_psig", "Pressure now", now_psig, (0.0, PSIG[1]), "psig"),
        ("start_f", "Temperature at the start", start_f, TEMPERATURE_F, "°F"), ("now_f", "Temperature now", now_f, TEMPERATURE_F, "°F"),
        ("minutes", "Stood", minutes, MINUTES, "min"),
    ):  # fmt: skip
        if not span[0] <= value <= span[1]:
            wrong[name] = f"{label}: {format_number(value, 1)} {unit} is outside {span[0]:g} to {span[1]:g} {unit}"
    if wrong:
        raise FieldErrors(wrong)
    air = atmosphere_psia(altitude_ft)
    absolute = start_psig + air
    due = absolute * (now_f + RANKINE) / (start_f + RANKINE) - air
    tells = 2.0 * max(GAUGE_SHARE * start_psig, GAUGE_PSI) + absolute * THERMOMETER_F / (start_f + RANKINE)
    lost, an_hour = due - now_psig, tells * 60.0 / minutes
    due_words = f"by temperature alone {shown.text(due, 'psig', 1)}"
    least = f"a leak under {shown.text(an_hour, 'psi', 1)} an hour cannot be told in {format_number(minutes, 0)} min"
    if lost > tells:
        says = f"Lost {shown.text(lost, 'psi', 1)}: {due_words}. It leaks"
    elif lost < -tells:
        says = f"It rose over what temperature explains, {due_words}: read both again, or a valve passes"
    else:
        says = f"Nothing lost that can be told: {due_words}; {least}"
    return Stood(due, lost, tells, an_hour, says)
