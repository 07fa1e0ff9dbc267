"""One entry of the registry: what it holds, how it is checked, typed and shown."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Final, Literal

from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits, ohms_text

# "record" comes from the shop's own records: nobody is asked to go and look.
Tool = Literal["record", "ask", "look", "feel", "probe", "controller", "meter", "gauge", "test"]
Group = Literal["told", "safety", "box", "ice", "air", "condenser", "circuit", "power", "controls"]
# What a meter says that finds no way through; it is kept as the most that can be read.
OPEN_LOOP: Final = ("ol", "o.l", "o.l.", "0l", "open", "infinite", "infinity", "∞")
Value = float | str | tuple[str, ...]
Range = tuple[float, float]

# Where on the round a group of observations is taken.
STOP_OF_GROUP: Final[dict[Group, str]] = {
    "told": "arrive", "safety": "melt", "box": "arrive", "ice": "arrive", "air": "arrive", "condenser": "read", "circuit": "read",
    "power": "power", "controls": "programs",
}  # fmt: skip
# What spoils an observation, and how many minutes it stays fresh, by how it is taken; an entry may say its own.
SPOILED_BY: Final[dict[Tool, str]] = {
    "record": "a visit nobody wrote up",
    "ask": "hearsay: ask who saw it, and when",
    "look": "bad light and haste: torch, both sides",
    "feel": "gloves and cold hands; keep them off moving and live parts",
    "probe": "a loose clamp, dirt or paint on the pipe, air blowing on the probe",
    "controller": "a display that rounds, lags or holds its value",
    "meter": "slack leads, the wrong range, the wrong leg",
    "gauge": "a gauge off zero, a hose still full of liquid, pressure drop to the port",
    "test": "not waiting for it to settle",
}
FRESH_MIN: Final[dict[Tool, float]] = {"probe": 30, "gauge": 30, "meter": 30, "feel": 30, "controller": 120}


def words_of(value: Any) -> tuple[str, ...]:
    """Return the words of an observation of one word or of several; none of a figure, or of nothing."""
    if isinstance(value, str):
        return (value,)
    return tuple(value) if isinstance(value, (tuple, list)) else ()


@dataclass(frozen=True)
class Observation:
    """One thing that can be observed: a number with unit and physical range, one of several words, or a list of them.

    `low`, `high` bound what can be; `plausible` ("cooler", "freezer" or "any" -> range) what is seen in service, where
    `plausible_as` "dew" or "bubble" means that the range of a pressure is given as its saturation temperature.
    `spoils` says what makes it wrong, `fresh_min` how long it stands unquestioned, `holds` which holds of the case format
    make it worthless or forbid taking it. `no_bulb` are label and way of taking it where no bulb sits on the line.
    """

    key: str
    label: str
    group: Group
    tool: Tool
    minutes: float
    how: str
    unit: str = ""
    low: float = -math.inf
    high: float = math.inf
    decimals: int = 1
    choices: tuple[tuple[str, str], ...] = ()
    many: bool = False
    per_evaporator: bool = False
    only: Mapping[str, tuple[Any, ...]] = field(default_factory=dict)
    plausible: Mapping[str, Range] = field(default_factory=dict)
    plausible_as: str = ""
    spoils: str = ""
    fresh_min: float | None = None
    holds: tuple[str, ...] = ()
    no_bulb: tuple[str, str] = ("", "")

    def on(self, unit: Any) -> "Observation":
        """Return it as it is called and taken on a unit: one whose coil is fed without a bulb has no line at the bulb (`no_bulb`)."""
        label, how = self.no_bulb
        return replace(self, label=label, how=how) if label and unit.metering != "txv" else self

    def exists_on(self, unit: Any) -> bool:
        """Whether a unit built like this has the thing at all (`only`: field of the unit -> values that have it)."""
        return all(getattr(unit, name) in having for name, having in self.only.items())

    @property
    def is_number(self) -> bool:
        """Whether the value is a figure with a unit rather than a word."""
        return not self.choices

    @property
    def stop(self) -> str:
        """The stop of the round it is taken at."""
        return STOP_OF_GROUP[self.group]

    @property
    def spoiled_by(self) -> str:
        """What makes it wrong, in words."""
        return self.spoils or SPOILED_BY[self.tool]

    @property
    def stays_fresh_min(self) -> float:
        """How many minutes it stands before it is marked old; infinite for what does not change by itself."""
        return FRESH_MIN.get(self.tool, math.inf) if self.fresh_min is None else self.fresh_min

    def range_text(self, shown: ShownUnits = TRADE) -> str:
        """Return the physical range in words, with its unit."""
        converted = shown.measure(self.unit).factor != 1
        low, high = (shown.figure(v, self.unit, int(converted or v != int(v))) for v in (self.low, self.high))
        return f"{low} to {high} {shown.label(self.unit)}".strip()

    def check(self, value: Any, shown: ShownUnits = TRADE) -> Value:
        """Return the value in its stored form.

        Raises InputError naming label, value, range and unit, or the words that are allowed.
        """
        if self.is_number:
            if isinstance(value, bool) or not isinstance(value, (int, float)):
                raise InputError(f"{self.label}: “{str(value)[:30]}” is not a number ({shown.label(self.unit)})")
            if not self.low <= value <= self.high:
                told = shown.figure(value, self.unit, self.decimals) if math.isfinite(value) else str(value)
                raise InputError(f"{self.label}: {told} {shown.label(self.unit)} is outside {self.range_text(shown)}")
            return float(value)
        allowed = [code for code, _ in self.choices]
        words = value if self.many and isinstance(value, (list, tuple)) else [value]
        for word in words:
            if word not in allowed:
                raise InputError(f"{self.label}: “{str(word)[:30]}” is not one of {', '.join(allowed)}")
        return tuple(dict.fromkeys(words)) if self.many else str(value)

    def parse(self, typed: str | list[str], shown: ShownUnits = TRADE) -> Value:
        """Return the stored form of what was typed or tapped; InputError as in `check`."""
        if not self.is_number:
            return self.check(typed)
        if self.unit == "Ω" and str(typed).strip().lower() in OPEN_LOOP:
            return self.high
        try:
            value = shown.parse(str(typed), self.unit)
        except InputError as error:
            raise InputError(f"{self.label}: {error}; allowed {self.range_text(shown)}") from None
        return self.check(value, shown)

    def edit_text(self, value: Any, shown: ShownUnits = TRADE) -> str:
        """Return the figure as it stands in an entry field: plain, ready to be typed over."""
        return shown.edit(float(value), self.unit, self.decimals)

    def show(self, value: Any, with_unit: bool = True, shown: ShownUnits = TRADE) -> str:
        """Return the value in words and figures as it is shown to a technician."""
        if self.is_number:
            if self.unit == "Ω":
                if float(value) >= self.high:
                    return OPEN_LOOP[0].upper()
                return ohms_text(float(value)) if with_unit else ohms_text(float(value)).removesuffix(" Ω")
            if not with_unit:
                return shown.figure(float(value), self.unit, self.decimals)
            return shown.text(float(value), self.unit, self.decimals)
        words = dict(self.choices)
        return ", ".join(words[word] for word in words_of(value)) or "none"
