"""How entries are written: what they exist on, what spoils them, ranges seen in service, and one maker for each sort."""

from collections.abc import Mapping
from typing import Any, Final

from kettle.knowledge.observations.model import Group, Observation, Range, Tool

RECEIVER: Final = {"receiver": (True,)}
VALVE: Final = {"metering": ("txv", "eev")}
TXV: Final = {"metering": ("txv",)}
AIR: Final = {"condensing": ("air",)}
WALK_IN: Final = {"walk_in": (True,)}
WATER: Final = {"condensing": ("water",)}
FRAME: Final = {"frame_heated": (True,)}
HOT_GAS: Final = {"defrost": ("hot_gas",)}
PROGRAM: Final = {"defrost": ("off_cycle", "timed_air", "electric", "hot_gas")}
# Holds that make a reading of the circuit worthless, and ranges seen in service.
COIL_HOLDS: Final = ("iced_coil", "fans_not_running", "settling")
HEAD_HOLDS: Final = ("condenser_blocked", "condenser_fan_stopped")
BOX_SEEN: Final[Mapping[str, Range]] = {"cooler": (20, 75), "freezer": (-25, 70)}
COIL_SEEN: Final[Mapping[str, Range]] = {"cooler": (-20, 60), "freezer": (-45, 45)}
HEAD_SEEN: Final[Mapping[str, Range]] = {"any": (40, 148)}
LIVE: Final = "live work: rules and rated gloves first; slack leads and the wrong leg spoil it"
LOCK_OUT: Final = "Power locked out, leads lifted, capacitors discharged: "
# Words for a line in the hand, warmest first.
FEELS: Final = ("hot=hot, hand off", "warm=warm", "lukewarm", "cool", "cold", "sweating", "frosted")


def _choices(*pairs: str) -> tuple[tuple[str, str], ...]:
    """Choices from "code=what is shown"; without "=", the code with spaces is what is shown."""
    split = (pair.partition("=") for pair in pairs)
    return tuple((code, shown or code.replace("_", " ")) for code, _, shown in split)


def temp(key: str, label: str, group: Group, how: str, minutes: float = 1, low: float = -60, high: float = 150,
          tool: Tool = "probe", **more: Any) -> Observation:  # fmt: skip
    """Return a temperature, °F."""
    return Observation(key, label, group, tool, minutes, how, "°F", low, high, **more)


def pressure(key: str, label: str, how: str, minutes: float, high: float, group: Group = "circuit", tool: Tool = "gauge",
              **more: Any) -> Observation:  # fmt: skip
    """Return a gauge pressure, psig."""
    return Observation(key, label, group, tool, minutes, how, "psig", -14.7, high, **more)


def figure(key: str, label: str, group: Group, unit: str, low: float, high: float, how: str, minutes: float = 2,
            tool: Tool = "meter", decimals: int = 1, **more: Any) -> Observation:  # fmt: skip
    """Return a figure in a unit."""
    return Observation(key, label, group, tool, minutes, how, unit, low, high, decimals, **more)


def choice(key: str, label: str, group: Group, how: str, *words: str, minutes: float = 1, tool: Tool = "look",
            **more: Any) -> Observation:  # fmt: skip
    """Return a choice of one word, or of several."""
    return Observation(key, label, group, tool, minutes, how, choices=_choices(*words), **more)
