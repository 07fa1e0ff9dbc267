"""One thing that happened on a call, and what others hear of it: observations, acts, and what speaks for a cause by itself."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any, Final

from kettle.judging.course import Done
from kettle.judging.testimony import Testimony
from kettle.knowledge import acts
from kettle.knowledge.acts import Act
from kettle.knowledge.observations import Value


@dataclass(frozen=True, eq=False)
class Event:
    """One event: its number in the record (1 is the first), kind, when, on which coil (1 is the first; None: the whole unit), and what it
    carries (`kettle/call/carries.py`). `ref` names the record it is kept as; one taken back (`undone`) says nothing anywhere."""

    number: int
    kind: str
    data: Mapping[str, Any] = field(default_factory=dict)
    at: datetime | None = None
    on: int | None = None
    ref: str = ""
    undone: bool = False

    def get(self, name: str, default: Any = None) -> Any:
        """Return what it carries under a name; `default` where it carries nothing there."""
        found = self.data.get(name)
        return default if found is None else found


@dataclass(frozen=True)
class Observed:
    """An observation an event is: its key, checked value and coil (None: the whole unit, or every coil)."""

    key: str
    value: Value
    on: int | None = None


@dataclass(frozen=True)
class Did:
    """An act an event is: part, word, amount where it has one, and coil (None: the whole unit)."""

    part: str
    did: str
    value: float | None = None
    on: int | None = None

    @property
    def act(self) -> Act:
        """The act in the table."""
        return acts.that_opens(self.part, self.did)

    @property
    def code(self) -> str:
        """Part and word together."""
        return f"{self.part}.{self.did}"

    def seen_from(self, coil: int, coils: int) -> Done:
        """Return the act as it concerns one coil of a unit with so many."""
        return Done(self.part, self.did, self.value, self.on is not None and self.on != coil, self.on is not None and coils > 1)


@dataclass(frozen=True)
class Spoken:
    """What an event says of causes by itself, of one coil or of all: `as_found` where it is of the unit as it was found, whenever said."""

    testimony: Testimony
    on: int | None = None
    as_found: bool = False


Heard = Observed | Did | Spoken
NOTHING: Final[tuple[Heard, ...]] = ()
