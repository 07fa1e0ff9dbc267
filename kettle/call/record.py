"""The record of a call: its unit and everything that happened, in order; cut after any event it is a record again."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property
from typing import Any, Final

from kettle.call.events import Event
from kettle.electrical.circuit import Circuit
from kettle.electrical.presets import circuit_of
from kettle.electrical.wiring import USUAL, Wiring
from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import Unit, check_figure
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.parameters import PARAMETERS

# A follow-up looks at the same unit days later: nothing of it is a wait.
SAME_DAY_MIN: Final = 12 * 60.0


@dataclass(frozen=True)
class Record:
    """One call as data.

    `unit` is the unit as it was found, `events` what happened, `coils` the names of its coils in walking order (one unnamed where it has
    one). `wiring` is what of its circuit differs from the usual one, `label_charge_oz` the charge of its plate, `program` and `settings`
    what was known of it before. `beside` names the other boxes on its plant, `found_before` causes of earlier visits. `now` is the moment
    it is told at (None: that of the last event), `clocked` whether times count at all, `shown` the units its words are in. `quotes_first`
    says whether work waits for an accepted quote here.
    """

    unit: Unit
    events: tuple[Event, ...] = ()
    coils: tuple[str, ...] = ("",)
    wiring: Wiring = USUAL
    label_charge_oz: float | None = None
    program: Mapping[str, Any] = field(default_factory=dict)
    settings: Mapping[str, Any] = field(default_factory=dict)
    beside: tuple[str, ...] = ()
    found_before: tuple[str, ...] = ()
    now: datetime | None = None
    clocked: bool = True
    shown: ShownUnits = TRADE
    quotes_first: bool = False

    def upto(self, number: int) -> "Record":
        """Return the record after its first so many events, told at the time of the last of them."""
        return replace(self, events=tuple(event for event in self.events if event.number <= number), now=None)

    @cached_property
    def standing(self) -> tuple[Event, ...]:
        """The events that were not taken back, in the order of their times; without times in the order they were written down."""
        kept = [event for event in self.events if not event.undone]
        if any(event.at is None for event in kept):
            return tuple(sorted(kept, key=lambda event: event.number))
        return tuple(sorted(kept, key=lambda event: (event.at, event.number)))

    @cached_property
    def of_kind(self) -> Mapping[str, tuple[Event, ...]]:
        """The standing events by kind."""
        found: dict[str, list[Event]] = {}
        for event in self.standing:
            found.setdefault(event.kind, []).append(event)
        return {kind: tuple(events) for kind, events in found.items()}

    def all_of(self, *kinds: str) -> tuple[Event, ...]:
        """Return the standing events of some kinds, in order."""
        if len(kinds) == 1:
            return self.of_kind.get(kinds[0], ())
        return tuple(event for event in self.standing if event.kind in kinds)

    def last(self, kind: str, fits: Callable[[Event], bool] = lambda event: True) -> Event | None:
        """Return the last standing event of a kind that fits; None where there is none."""
        return next((event for event in reversed(self.of_kind.get(kind, ())) if fits(event)), None)

    @cached_property
    def place(self) -> Mapping[int, int]:
        """Where each standing event stands in the order: number -> place."""
        return {event.number: place for place, event in enumerate(self.standing)}

    def after(self, event: Event) -> Iterator[Event]:
        """Yield the standing events after one."""
        yield from self.standing[self.place[event.number] + 1 :]

    @cached_property
    def at(self) -> datetime | None:
        """The moment it is told at."""
        if self.now is not None:
            return self.now
        return max((event.at for event in self.standing if event.at is not None), default=None)

    def minutes_since(self, event: Event) -> float | None:
        """Return how long ago an event was, minutes; None where times are not known."""
        if event.at is None or self.at is None:
            return None
        return (self.at - event.at).total_seconds() / 60.0

    @cached_property
    def unit_now(self) -> Unit:
        """The unit as it is now: after a retrofit of another refrigerant, and with what its control was set to."""
        changed = self.last("retrofit")
        unit = self.unit if changed is None else replace(self.unit, refrigerant=refrigerants.get(changed.data["to"]))
        return replace(unit, **self._set_to())

    def _set_to(self) -> dict[str, Any]:
        """The fields of the plate that a setting was left at, by the last of each."""
        found = {}
        for event in self.all_of("setting"):
            parameter, left = PARAMETERS[event.data["parameter"]], event.get("left")
            if parameter.plate and left not in (None, ""):
                try:
                    figure = float(left) if isinstance(left, (int, float)) else TRADE.parse(str(left), parameter.unit)
                    found[parameter.plate] = check_figure(parameter.plate, figure)
                except InputError:
                    # Words that are no figure were kept as words.
                    continue
        return found

    @cached_property
    def circuit(self) -> Circuit:
        """The unit's circuit."""
        return circuit_of(self.unit, self.wiring)

    @property
    def label_charge(self) -> float | None:
        """The charge of its plate, oz; None where nobody said."""
        return self.label_charge_oz if self.label_charge_oz is not None else self.unit.critical_charge_oz

    @property
    def several(self) -> bool:
        """Whether it has more coils than one."""
        return len(self.coils) > 1

    def coil_name(self, number: int | None) -> str:
        """Return a coil's name for a sentence: its own, else its number where there are several; empty for the whole unit."""
        if number is None or not self.several:
            return ""
        return self.coils[number - 1] or str(number)

    def on_words(self, number: int | None) -> str:
        """Return which coil, ready to stand behind a noun; empty where nobody needs to be told."""
        name = self.coil_name(number)
        return f" on coil {name}" if name else ""
