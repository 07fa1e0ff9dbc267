"""What is heard of a set of probes on a line: bounded in every way, so that no device can hold up or wear out whoever listens."""

from collections import deque
from dataclasses import dataclass, field
from datetime import datetime
from typing import Final

from kettle.benches.probes.protocol import LONGEST_LINE, Live, is_greeting, read_message
from kettle.knowledge.errors import InputError

# More probes than a technician carries, more lines a second than they send.
MOST_PROBES: Final = 32
MOST_LINES_A_SECOND: Final = 200
# What is remembered of each observation: so often at the most, s, and so many of them (two hours and more).
REMEMBERED_EVERY_S: Final = 5.0
MOST_REMEMBERED: Final = 1500


@dataclass
class Hearing:
    """One connection: bytes as they come in, the last reading of each probe, and what is wrong.

    Nothing is believed before the greeting of the protocol; a wrong one, or a line without an end, ends the connection.
    """

    heard: dict[str, Live] = field(default_factory=dict)
    complaint: str = ""
    greeted: bool = False
    past: dict[str, deque[tuple[datetime, float]]] = field(default_factory=dict)
    _rest: bytes = b""
    _second: datetime | None = None
    _lines: int = 0

    def take(self, chunk: bytes, now: datetime) -> bool:
        """Take what came in; False where the connection is to be closed."""
        *lines, self._rest = (self._rest + chunk).split(b"\n")
        for line in lines:
            if line.strip() and not self._line(line, now):
                return False
        if len(self._rest) > LONGEST_LINE:
            self.complaint, self._rest = f"the probes sent a line of over {LONGEST_LINE} letters", b""
            return False
        return True

    def _line(self, line: bytes, now: datetime) -> bool:
        if len(line) > LONGEST_LINE:
            self.complaint = f"the probes sent a line of over {LONGEST_LINE} letters"
            return False
        if self._second is None or (now - self._second).total_seconds() >= 1.0:
            self._second, self._lines = now, 0
        self._lines += 1
        if self._lines > MOST_LINES_A_SECOND:
            self.complaint = f"the probes send over {MOST_LINES_A_SECOND} lines a second; the rest is not heard"
            return True
        try:
            if not self.greeted:
                self.greeted = is_greeting(line)
                return True
            reading = read_message(line, now)
        except InputError as error:
            self.complaint = str(error)
            return self.greeted
        if reading is None:
            return True
        if reading.probe not in self.heard and len(self.heard) >= MOST_PROBES:
            self.complaint = f"over {MOST_PROBES} probes answer; the rest is not heard"
            return True
        self.heard[reading.probe] = reading
        self._remember(reading)
        return True

    def _remember(self, reading: Live) -> None:
        """Keep a reading among those of the last hours; two probes for one observation are not mixed: the first one speaks."""
        first = next(name for name, one in self.heard.items() if one.key == reading.key)
        kept = self.past.setdefault(reading.key, deque(maxlen=MOST_REMEMBERED))
        if first == reading.probe and (not kept or (reading.at - kept[-1][0]).total_seconds() >= REMEMBERED_EVERY_S):
            kept.append((reading.at, reading.value))

    def since(self, key: str, moment: datetime) -> list[tuple[float, float]]:
        """Return what was heard of an observation from a moment on: (minutes since then, value in the stored unit)."""
        return [((at - moment).total_seconds() / 60.0, value) for at, value in self.past.get(key, ()) if at >= moment]
