"""A record with what is worked out of it, each once and only when it is asked for; and where in the work each event lies."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Final

from kettle.call import advice, leads
from kettle.call.events import Event, Heard
from kettle.call.judged import Judged
from kettle.call.leads import Leads
from kettle.call.opened import Opened, opened
from kettle.call.record import Record
from kettle.call.runs import Runs, runs
from kettle.call.stages import Staged, Step
from kettle.judging.facts import Facts
from kettle.judging.readings import work_out
from kettle.judging.suspects import Suspect
from kettle.knowledge.acts import PREPARES
from kettle.knowledge.measures import ShownUnits
from kettle.knowledge.observations import Value

FOUND, BETWEEN, LEFT = "found", "between", "left"
# A cause is told as what it was from this on, where nobody named it.
TOLD_FROM: Final = 0.5


@dataclass(frozen=True)
class Call:
    """A record with what was heard of its events. `what_if` stands on a coil as if read now."""

    record: Record
    heard: tuple[tuple[Event, tuple[Heard, ...]], ...]
    what_if: tuple[tuple[str, Value], ...] = ()

    @cached_property
    def staged(self) -> Staged:
        """What was seen, in the stages of what was done."""
        return Staged(self.record, self.heard)

    @cached_property
    def judged(self) -> Judged:
        """The judgement of each coil."""
        return Judged(self.staged, dict(self.what_if))

    @cached_property
    def opened(self) -> Opened:
        """Where the circuit stands."""
        return opened(self.staged)

    @cached_property
    def runs(self) -> Runs:
        """What runs."""
        return runs(self.judged.now(1).facts, self.opened)

    @cached_property
    def charge(self) -> advice.Charge:
        """May gas go in."""
        return advice.charge(self.judged, self.opened)

    def valve(self, coil: int = 1) -> advice.Valve:
        """May the stem of a coil's valve be turned."""
        return advice.valve(self.judged, self.opened, coil)

    @cached_property
    def leads(self) -> Leads | None:
        """Where to measure next."""
        return leads.leads(self.judged, self.runs)

    @property
    def shown(self) -> ShownUnits:
        """The units its words are in."""
        return self.record.shown

    @property
    def coils(self) -> range:
        """The numbers of its coils."""
        return range(1, len(self.record.coils) + 1)

    @cached_property
    def repairs(self) -> tuple[Step, ...]:
        """The acts that repair or change something; those that only prepare or end something apart."""
        return tuple(step for step in self.staged.steps if step.did.code not in PREPARES)

    @cached_property
    def _edges(self) -> tuple[int, int]:
        """The places of the first repair and of the last (of the last act where nothing was repaired)."""
        place, steps = self.record.place, self.staged.steps
        if not steps:
            return len(place), len(place)
        first = place[self.repairs[0].event.number] if self.repairs else len(place)
        last = place[(self.repairs[-1] if self.repairs else steps[-1]).events[-1].number]
        return first, last

    def phase(self, event: Event) -> str:
        """Return where in the work an event lies: found before the first repair, left after the last, or between."""
        first, last = self._edges
        place = self.record.place[event.number]
        if place > last:
            return LEFT
        return FOUND if place < first else BETWEEN

    @cached_property
    def found_stage(self) -> int:
        """The stage in which the unit stood last as it was found: before the first repair."""
        return self.repairs[0].stage - 1 if self.repairs else self.staged.last_stage

    def facts_now(self, coil: int = 1) -> Facts:
        """Return what is known of one coil now, without judging it."""
        return work_out(self.record.unit_now, self.staged.seen_now(coil), self.staged.ages_min(coil), self.shown)

    def facts_found(self, coil: int = 1) -> Facts:
        """Return what was known of one coil before the first repair."""
        return self.staged.facts_at(self.found_stage, coil)

    @cached_property
    def named(self) -> tuple[str, ...]:
        """The causes the technician says it was, of all coils; empty where he named none."""
        latest = {event.on: event for event in self.record.all_of("found")}
        return tuple(dict.fromkeys(code for event in latest.values() for code in event.data["causes"]))

    def was(self, coil: int = 1) -> Suspect | None:
        """Return what was wrong on one coil where that is likely enough to be told; None where it is not."""
        ranking = self.judged.course(coil).was
        if not ranking or not self.judged.course(coil).now.has_evidence:
            return ranking[0] if ranking and self.judged.course(coil).done and ranking[0].probability >= TOLD_FROM else None
        return ranking[0] if ranking[0].probability >= TOLD_FROM else None

    @cached_property
    def causes_were(self) -> tuple[str, ...]:
        """What was wrong, of all coils: as the technician says, else as it was judged."""
        if self.named:
            return self.named
        found = [code for coil in self.coils if (one := self.was(coil)) is not None for code in one.codes]
        return tuple(dict.fromkeys(found))

    @cached_property
    def causes_left(self) -> tuple[str, ...]:
        """What is still wrong, of all coils, where that is likelier than nothing."""
        found = []
        for coil in self.coils:
            left = self.judged.course(coil).left
            if left and left[0].probability >= TOLD_FROM:
                found += list(left[0].codes)
        return tuple(dict.fromkeys(found))

    def group(self, event: Event, *kinds: str, apart: Sequence[str] = ()) -> tuple[Event, ...]:
        """Return the run of events of some kinds that an event begins: those after it until an event of a kind that sets them apart; empty
        where it is not the first of its run."""
        standing = self.record.standing
        place = self.record.place[event.number]
        for before in reversed(standing[:place]):
            if before.kind in apart:
                break
            if before.kind in kinds:
                return ()
        found = [event]
        for after in standing[place + 1 :]:
            if after.kind in apart:
                break
            if after.kind in kinds:
                found.append(after)
        return tuple(found)
