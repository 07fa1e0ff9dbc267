"""The winter charge of a condenser that is flooded to hold its head.

Published method of flooded-condenser head control: what stays at work of the condenser is the design split over the difference between the
held condensing temperature and the outdoor air; the rest stands full of liquid, and that liquid has to be there in winter and to find room
in the receiver in summer (ASHRAE Handbook, Refrigeration, ch. Liquid Recirculating and Halocarbon Systems: head-pressure control by
flooding).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import pi
from typing import Final

from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number
from kettle.knowledge.refrigerants import Refrigerant
from kettle.plant.sizing import sized

# A receiver is never filled further with all of the charge pumped in, at the warmest liquid it sees, °F.
FULL_SHARE: Final = 0.8
PUMPED_IN_F: Final = 100.0
# Rules of thumb of the schools: on top of the summer charge.
THUMB: Final = (0.10, 0.15)
# Of a summer charge so much lies in the receiver while it runs, of one.
STORED_SHARE: Final = 0.5
VOLUME_FT3: Final = (0.001, 50.0)
SPLIT_F: Final = (5.0, 45.0)
HELD_F: Final = (60.0, 120.0)
AMBIENT_F: Final = (-60.0, 110.0)
SUMMER_LB: Final = (0.1, 2000.0)
FEET: Final = (1.0, 20000.0)
BORE_IN: Final = (0.1, 2.0)
# A day warm enough to charge by the glass, °F, and a split where none is known.
WARM_DAY_F: Final = 75.0
USUAL_SPLIT_F: Final = 20.0


@dataclass(frozen=True)
class Winter:
    """The winter charge: share of the condenser flooded on the coldest day, liquid density there lb/ft³, pounds to add; with the summer
    charge known the receiver that holds all of it, ft³, and what the schools' rules of thumb would add, lb."""

    flooded: float
    density_lb_ft3: float
    add_lb: float
    receiver_ft3: float | None
    thumb_lb: tuple[float, float] | None

    @property
    def flooded_pct(self) -> float:
        """The flooded share of the condenser, %."""
        return 100.0 * self.flooded


def volume_of_tube_ft3(feet: float, bore_in: float) -> float:
    """Return the inside of so many feet of tube, ft³, by its inner diameter, in; FieldErrors by field."""
    wrong = {}
    if not FEET[0] <= feet <= FEET[1]:
        wrong["tube_ft"] = f"Tube: {format_number(feet, 0)} ft is outside {FEET[0]:g} to {FEET[1]:g} ft"
    if not BORE_IN[0] <= bore_in <= BORE_IN[1]:
        wrong["bore_in"] = f"Inside: {format_number(bore_in, 3)} in is outside {BORE_IN[0]:g} to {BORE_IN[1]:g} in"
    if wrong:
        raise FieldErrors(wrong)
    return feet * pi * (bore_in / 24.0) ** 2


def usual_volume_ft3(unit: Unit, summer_lb: float) -> float:
    """Return about what a condenser holds where only the summer charge is known, ft³: as the plant model's to its charge."""
    parts = sized(unit).parts
    return float(parts.condenser_ft3[0] / parts.charge_lb[0]) * summer_lb


def flooded_share(split_f: float, held_f: float, ambient_f: float) -> float:
    """Return the share of a condenser that stands full of liquid: 1 - design split / (held condensing - outdoor air), of one."""
    apart = held_f - ambient_f
    return 0.0 if apart <= split_f else 1.0 - split_f / apart


def winter(
    refrigerant: Refrigerant, volume_ft3: float, split_f: float, held_f: float, ambient_f: float, summer_lb: float | None = None,
) -> Winter:  # fmt: skip
    """Return the winter charge for the lowest outdoor air; FieldErrors by field.

    The liquid counts at the mean of held condensing and outdoor air: it enters at the one and cools towards the other.
    """
    wrong = {}
    for name, label, value, span, unit in (
        ("volume_ft3", "Condenser", volume_ft3, VOLUME_FT3, "ft³"), ("split_f", "Design split", split_f, SPLIT_F, "°F"),
        ("held_f", "Held at", held_f, HELD_F, "°F"), ("ambient_f", "Lowest outdoor air", ambient_f, AMBIENT_F, "°F"),
        ("summer_lb", "Summer charge", summer_lb, SUMMER_LB, "lb"),
    ):  # fmt: skip
        if value is not None and not span[0] <= value <= span[1]:
            wrong[name] = f"{label}: {format_number(value, 3)} {unit} is outside {span[0]:g} to {span[1]:g} {unit}"
    if wrong:
        raise FieldErrors(wrong)
    flooded = flooded_share(split_f, held_f, ambient_f)
    density = refrigerant.liquid_lb_ft3.at(max((held_f + ambient_f) / 2.0, refrigerant.low_f))
    add = volume_ft3 * flooded * density
    if summer_lb is None:
        return Winter(flooded, density, add, None, None)
    hot = refrigerant.liquid_lb_ft3.at(min(PUMPED_IN_F, refrigerant.high_f))
    low, high = THUMB
    return Winter(flooded, density, add, (summer_lb + add) / (FULL_SHARE * hot), (low * summer_lb, high * summer_lb))


# The hottest of the days that are looked at, °F, and how many there are to the coldest.
HOT_F: Final = 95.0
STEPS: Final = 6


def days_f(coldest_f: float) -> list[float]:
    """Return the outdoor temperatures that are looked at, °F: from a hot day down to the coldest in even steps."""
    return [HOT_F + (coldest_f - HOT_F) * n / STEPS for n in range(STEPS + 1)]


@dataclass(frozen=True)
class Filling:
    """How condenser and receiver are filled at an outdoor temperature: shares of one; `over` where the receiver cannot hold it."""

    ambient_f: float
    condenser: float
    receiver: float

    @property
    def condenser_pct(self) -> float:
        """How much of the condenser is full, %."""
        return 100.0 * self.condenser

    @property
    def receiver_pct(self) -> float:
        """How much of the receiver would be full, %; over 100 where it cannot hold it."""
        return 100.0 * self.receiver

    @property
    def drawn_pct(self) -> float:
        """The receiver as it is drawn, %: no more than full."""
        return min(self.receiver_pct, 100.0)

    @property
    def over(self) -> bool:
        """Whether it is fuller than it may be."""
        return self.receiver > FULL_SHARE

    @property
    def empty(self) -> bool:
        """Whether nothing is left in it: gas goes into the liquid line."""
        return self.receiver <= 0.0


def over_the_year(
    refrigerant: Refrigerant, volume_ft3: float, split_f: float, held_f: float, outdoor_f: Sequence[float], receiver_ft3: float,
    summer_level_pct: float, extra_lb: float,
) -> list[Filling]:  # fmt: skip
    """Return how condenser and receiver are filled at each outdoor temperature, °F.

    `summer_level_pct` is the summer charge's level in the receiver on a day on which nothing is flooded, %; `extra_lb` what is on top.
    """
    found = []
    for ambient in outdoor_f:
        flooded = flooded_share(split_f, held_f, ambient)
        sct = max(ambient + split_f, held_f)
        in_condenser = volume_ft3 * flooded * refrigerant.liquid_lb_ft3.at(max((held_f + ambient) / 2.0, refrigerant.low_f))
        density = refrigerant.liquid_lb_ft3.at(min(sct, refrigerant.high_f))
        stored = summer_level_pct / 100.0 * receiver_ft3 * density + extra_lb - in_condenser
        found.append(Filling(ambient, flooded, max(stored, 0.0) / (receiver_ft3 * density)))
    return found


def usual_summer_level_pct(refrigerant: Refrigerant, summer_lb: float, receiver_ft3: float) -> float:
    """Return about how full a receiver stands in summer where nobody looked, %: half of the summer charge lies in it."""
    return 100.0 * STORED_SHARE * summer_lb / (receiver_ft3 * refrigerant.liquid_lb_ft3.at(min(PUMPED_IN_F, refrigerant.high_f)))


def block_to_f(split_f: float | None) -> float:
    """Return the condensing temperature that mimics a warm day: the day and the split, °F; the usual split where none was read warm."""
    return WARM_DAY_F + (split_f if split_f is not None and split_f > 0.0 else USUAL_SPLIT_F)
