"""Live readings of wireless probes: what a message says, whether it is sound, and whether the probe is still there.

The protocol is newline-delimited JSON; docs/probes.md describes it.
"""

import json
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Final, Literal, TypeGuard

from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE

PROTOCOL: Final = "orange-kettle/probes"
VERSION: Final = 1
LONGEST_LINE: Final = 2000
LARGEST_FIGURE: Final = 1e12
# A probe sends about every second; silent this long it is late, then lost.
LATE_S: Final = 5.0
LOST_S: Final = 12.0
LOW_BATTERY_PCT: Final = 15
State = Literal["live", "late", "lost"]


@dataclass(frozen=True)
class Live:
    """One reading of a probe: its name and label, the observation, its value in the stored unit, time, battery."""

    probe: str
    label: str
    key: str
    value: float
    at: datetime
    battery_pct: int | None

    def age_s(self, now: datetime) -> float:
        """Return how old the reading is, seconds."""
        return max(0.0, (now - self.at).total_seconds())

    def state(self, now: datetime) -> State:
        """Return whether the probe is live, late or lost by the age of its last reading."""
        age = self.age_s(now)
        return "live" if age < LATE_S else "late" if age < LOST_S else "lost"

    @property
    def battery_low(self) -> bool:
        """Whether the battery is about to give out."""
        return self.battery_pct is not None and self.battery_pct <= LOW_BATTERY_PCT


def _object(line: bytes | str) -> dict[str, Any]:
    """The object of one line; InputError for anything else, however it is nested or how long its figures are."""
    try:
        data: Any = json.loads(line)
    except (ValueError, RecursionError):
        raise InputError("the probes sent a line that is not JSON") from None
    if not isinstance(data, dict):
        raise InputError("the probes sent a line that is not an object")
    return data


def _words(value: Any, longest: int) -> str:
    """A name as it may be shown: what can be printed of it, no longer than a screen has room for."""
    return "".join(letter for letter in str(value)[: 4 * longest] if letter.isprintable())[:longest].strip()


def is_greeting(line: bytes | str) -> bool:
    """Whether a line is the greeting of this protocol; InputError names the one that it is of, or that it is none."""
    data = _object(line)
    if data.get("type") != "hello":
        raise InputError(f"the probes did not greet as {PROTOCOL} {VERSION} does")
    if data.get("protocol") != PROTOCOL or data.get("version") != VERSION:
        spoken = f"{_words(data.get('protocol'), 40)} {_words(data.get('version'), 10)}"
        raise InputError(f"the probes speak {spoken}, not {PROTOCOL} {VERSION}")
    return True


def read_message(line: bytes | str, now: datetime) -> Live | None:
    """Return the reading of one line; None for the greeting and for kinds of message this version does not know.

    Raises InputError for a line that is not of the protocol, a version that is not known, an observation or unit that does
    not exist, or a value out of its physical range. A probe whose clock runs ahead is taken at `now`.
    """
    data = _object(line)
    if data.get("type") == "hello":
        is_greeting(line)
        return None
    if data.get("type") != "reading":
        return None
    entry = observations.get(_words(data.get("key"), 40))
    value, battery = data.get("value"), data.get("battery_pct")
    if not _is_figure(value) or not entry.is_number:
        raise InputError(f"the probes sent no figure for {entry.label}")
    stored = entry.check(TRADE.parse(f"{value:.6f} {_words(data.get('unit', ''), 12)}", entry.unit))
    assert isinstance(stored, float)
    try:
        at = datetime.fromisoformat(_words(data.get("at"), 40))
        at = at if at.tzinfo else at.replace(tzinfo=UTC)
        at = min(at, now)
    except (ValueError, OverflowError):
        raise InputError("the probes sent a time that is not ISO 8601") from None
    name = _words(data.get("probe", ""), 20)
    if not name:
        raise InputError("the probes sent a reading without a name")
    return Live(
        probe=name,
        label=_words(data.get("label", ""), 60),
        key=entry.key,
        value=stored,
        at=at,
        battery_pct=round(battery) if _is_figure(battery) and 0 <= battery <= 100 else None,
    )


def _is_figure(value: Any) -> TypeGuard[float]:
    return isinstance(value, (int, float)) and not isinstance(value, bool) and abs(value) < LARGEST_FIGURE
