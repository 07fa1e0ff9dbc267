"""Everything known about one unit at one moment, as the tables of bands, holds and causes ask for it."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from kettle.knowledge import observations
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.observations import Value

PULL_DOWN_F = 5.0
SETTLING_MIN = 15.0
# What takes longer than a start to settle stands here until it has.
STILL_SETTLING_MIN = 14.9
AFTER_DEFROST_MIN = 45.0
# A box that was well before its defrost, or before its door was opened, is no warmer than this over set.
AFTER_DEFROST_F = 15.0
COLD_OUTSIDE_F = 60.0
HOT_OUTSIDE_F = 100.0


def rises_with_its_door(seen: Mapping[str, Value], over_set_f: float) -> bool:
    """Return whether a box (°F over set) rises since its door stands open, as it does at a delivery, and was well before."""
    return seen.get("door") == "left_open" and seen.get("box_trend") == "rising" and over_set_f <= AFTER_DEFROST_F


@dataclass(frozen=True)
class Felt:
    """A quantity estimated without the instrument it needs: its middle, half its width, and what it rests on."""

    value: float
    spread: float
    why: str


@dataclass(frozen=True)
class Facts:
    """A unit, the observations that stand (key -> value) and the quantities worked out from them (key -> value).

    `felt` holds quantities that are only estimated from touch, `ages_min` how old each observation is where times are
    known, `shown` the units in which words about it are written.
    """

    unit: Unit
    seen: Mapping[str, Value]
    derived: Mapping[str, float] = field(default_factory=dict)
    felt: Mapping[str, Felt] = field(default_factory=dict)
    ages_min: Mapping[str, float] = field(default_factory=dict)
    shown: ShownUnits = TRADE

    def number(self, key: str) -> float | None:
        """Return an observed figure in the unit of its observation, None when it was not taken."""
        value = self.seen.get(key)
        return value if isinstance(value, float) else None

    def is_(self, key: str, *words: str) -> bool:
        """Whether an observation stands at one of the words; for a list, whether one of the words is in it."""
        value = self.seen.get(key)
        if isinstance(value, tuple):
            return any(word in value for word in words)
        return value in words

    def is_old(self, key: str) -> bool:
        """Whether an observation was taken longer ago than it stays fresh."""
        return self.ages_min.get(key, 0.0) > observations.get(key).stays_fresh_min

    @property
    def box_over_set_f(self) -> float | None:
        """How far the box is above its set temperature, °F; None when the box was not measured."""
        box = self.number("box_temp_f")
        if box is None:
            box = self.number("return_air_f")
        return None if box is None else box - self.unit.set_f

    @property
    def stock_is_cold(self) -> bool:
        """Whether the stock is where the box belongs: the air has not been warm for long."""
        stock = self.number("product_temp_f")
        return stock is not None and stock <= self.unit.set_f + self.unit.differential_f

    @property
    def is_cold_outside(self) -> bool:
        """Whether the air on the condenser is cold enough to change how the head side works."""
        ambient = self.number("ambient_f")
        return ambient is not None and ambient < COLD_OUTSIDE_F

    @property
    def is_hot_outside(self) -> bool:
        """Whether the air on the condenser is hotter than units are usually read in."""
        ambient = self.number("ambient_f")
        return ambient is not None and ambient > HOT_OUTSIDE_F

    @property
    def head_over_air_f(self) -> float | None:
        """How far the head's saturation (bubble, of discharge or liquid pressure) stands over the air on the condenser, °F; None where
        either was not read or water cools it."""
        head, ambient = self.number("discharge_psig"), self.number("ambient_f")
        head = self.number("liquid_psig") if head is None else head
        if head is None or ambient is None or self.unit.condensing != "air":
            return None
        try:
            return self.unit.refrigerant.bubble_f(head, self.unit.altitude_ft) - ambient
        except InputError:
            return None

    @property
    def is_rightly_off(self) -> bool:
        """Whether the unit is satisfied, and the box is where that may be said of it."""
        over = self.box_over_set_f
        off = self.is_("control_call", "satisfied") and self.is_("compressor", "off")
        return off and over is not None and over <= self.unit.differential_f

    @property
    def coming_down(self) -> str:
        """Why a warm box may be only of the moment: it falls, was never cold yet, was just defrosted, or rises while its door stands open
        (a delivery); empty where nothing says so."""
        over = self.box_over_set_f
        if over is None or over <= self.unit.differential_f:
            return ""
        if self.is_("complaint", "first_start") and not self.is_("box_trend", "steady", "rising"):
            return "first_start"
        since = self.number("since_defrost_min")
        was_well = over <= AFTER_DEFROST_F or self.stock_is_cold
        if since is not None and since < AFTER_DEFROST_MIN and was_well and not self.is_("box_trend", "rising"):
            return "after_defrost"
        if rises_with_its_door(self.seen, over):
            return "door_open"
        return "falling" if self.is_("box_trend", "falling") else ""

    @property
    def moment(self) -> str:
        """The moment the readings were taken in, as the band tables name it."""
        settled, over = self.number("settled_min"), self.box_over_set_f
        if settled is not None and settled < SETTLING_MIN:
            return "just_started"
        since_defrost = self.number("since_defrost_min")
        if since_defrost is not None and since_defrost < AFTER_DEFROST_MIN:
            return "just_started" if since_defrost < SETTLING_MIN else "after_defrost"
        if over is not None and over > PULL_DOWN_F:
            return "pull_down"
        if self.unit.condensing == "air":
            if self.is_cold_outside:
                return "low_ambient"
            if self.is_hot_outside:
                return "high_ambient"
        return "steady"
