"""Live readings of wireless probes: what a message says, whether it is sound, and whether the probe is still there.

The protocol is newline-delimited JSON; docs/probes.md describes it.
"""

import json
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Final, Literal

from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.units import TRADE

PROTOCOL: Final = "orange-kettle/probes"
VERSION: Final = 1
LONGEST_LINE: Final = 2000
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


def read_message(line: bytes | str, now: datetime) -> Live | None:
    """Return the reading of one line; None for the greeting and for kinds of message this version does not know.

    Raises InputError for a line that is not of the protocol, a version that is not known, an observation or unit that does
    not exist, or a value out of its physical range. A probe whose clock runs ahead is taken at `now`.
    """
    try:
        data: Any = json.loads(line)
    except ValueError:
        raise InputError("the probes sent a line that is not JSON") from None
    if not isinstance(data, dict):
        raise InputError("the probes sent a line that is not an object")
    if data.get("type") == "hello":
        if data.get("protocol") != PROTOCOL or data.get("version") != VERSION:
            raise InputError(f"the probes speak {str(data.get('protocol'))[:40]} {str(data.get('version'))[:10]}, not {PROTOCOL} {VERSION}")
        return None
    if data.get("type") != "reading":
        return None
    entry = observations.get(str(data.get("key")))
    value, battery = data.get("value"), data.get("battery_pct")
    if isinstance(value, bool) or not isinstance(value, (int, float)) or not entry.is_number:
        raise InputError(f"the probes sent no figure for {entry.label}")
    stored = entry.check(TRADE.parse(f"{value:.6f} {data.get('unit', '')}", entry.unit))
    assert isinstance(stored, float)
    try:
        at = datetime.fromisoformat(str(data.get("at")))
    except ValueError:
        raise InputError("the probes sent a time that is not ISO 8601") from None
    at = at if at.tzinfo else at.replace(tzinfo=UTC)
    return Live(
        probe=str(data.get("probe", ""))[:20],
        label=str(data.get("label", ""))[:60],
        key=entry.key,
        value=stored,
        at=min(at, now),
        battery_pct=round(battery) if isinstance(battery, (int, float)) and 0 <= battery <= 100 else None,
    )
