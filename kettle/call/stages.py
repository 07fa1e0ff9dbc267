"""What was heard of a call, in the stages that its acts open: what was seen in each, on each coil, how old it is, and what still settles.

A setting is one act with the others of the same device changed within minutes; what was found on them is of the stage before. Where the
line at the bulb reads as before and nobody read the suction again, the suction stands as before: a valve that had answered would have moved
both.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import cached_property
from typing import Final

from kettle.call.events import Did, Event, Heard, Observed, Spoken
from kettle.call.record import Record
from kettle.judging import stopped
from kettle.judging.course import LIVE, Done, standing_at
from kettle.judging.facts import STILL_SETTLING_MIN, Facts
from kettle.judging.given import seen_there
from kettle.judging.readings import implied_by, told_with, work_out
from kettle.judging.testimony import SEEN_SO, Testimony
from kettle.knowledge import observations
from kettle.knowledge.acts import LOOKED, OPENS, RUNNING
from kettle.knowledge.causes.seen import SEEN
from kettle.knowledge.observations import Value, words_of

AT_ONE_GO: Final = timedelta(minutes=10)
# Sooner than this another word puts right a slip of the finger, and nothing was done between.
NO_SLIP: Final = timedelta(minutes=5)
# What the clocks of a call say by themselves.
CLOCKS: Final = ("adjusted_min", "settled_min")
# A line that moved less than this has not moved, °F; suction stands beside it for so long, minutes.
LINE_STANDS_F: Final = 1.0
SUCTION_STANDS_MIN: Final = 90.0
# A circuit that gave so much of its plate's charge is empty.
MOST_OF_IT: Final = 0.5
# Which way a turn moves the stem; nearer than this, in turns, it stands where it stood.
TURNS: Final = {"turned_out": 1.0, "turned_in": -1.0}
SAME_PLACE: Final = 0.02
MOVES_THE_LINE: Final = ("valve", "bulb")
# Ice on the coil, and how long a bare one takes at least until it is iced like that.
ICE: Final = ("ice_form", "ice_places")
ICED: Final = ("heavy_frost", "hard_ice", "snow")
ICED_PLACES: Final = ("coil_whole", "coil_inlet_passes", "coil_part")
STOOD: Final = "The condenser fan stood while the compressor ran"
MELTED: Final = "coil.melted"
ICE_GROWS: Final = timedelta(hours=4)


def _taken_back(done: list[Done]) -> set[int]:
    """The places of the turns of a stem that stands where it was found again, or where it stood when something else was done to it."""
    back: set[int] = set()
    turns: list[int] = []
    out = 0.0
    for place, one in enumerate(done):
        if one.part != "valve" or one.elsewhere:
            continue
        if one.did not in TURNS or one.value is None:
            turns, out = [], 0.0
            continue
        turns.append(place)
        out += TURNS[one.did] * one.value
        if abs(out) < SAME_PLACE:
            back |= set(turns)
            turns, out = [], 0.0
    return back


@dataclass(frozen=True)
class Step:
    """An act of a call: what, the event it is, when (of several changed at one go, the last), and the stage it opens (1 is the first)."""

    did: Did
    event: Event
    stage: int
    at: datetime | None
    events: tuple[Event, ...] = ()

    @property
    def settled_at(self) -> datetime | None:
        """When its clock has run out, on the minute that is shown for it; None for one that starts none by itself."""
        act = self.did.act
        if self.at is None or act.still or act.part in ("coil", "program") or not act.settles_min:
            return None
        return (self.at + timedelta(minutes=act.settles_min)).replace(second=0, microsecond=0)


def _settled_at(step: Step) -> datetime:
    assert step.settled_at is not None
    return step.settled_at


@dataclass(frozen=True)
class Sighting:
    """An observation in its place: what, of which event, in which stage."""

    observed: Observed
    event: Event
    stage: int


@dataclass(frozen=True)
class Staged:
    """A record with what was heard of each of its events (`kinds.heard`)."""

    record: Record
    heard: tuple[tuple[Event, tuple[Heard, ...]], ...]

    @cached_property
    def _walked(self) -> tuple[tuple[Step, ...], tuple[Sighting, ...], tuple[tuple[Spoken, int], ...]]:
        steps: list[Step] = []
        seen: list[Sighting] = []
        spoken: list[tuple[Spoken, int]] = []
        latest: dict[tuple[str, int | None], Value] = {}
        for event, items in self.heard:
            go_on = self._goes_on(steps, event, items)
            for item in items:
                if isinstance(item, Did):
                    if go_on:
                        last = steps[-1]
                        steps[-1] = Step(last.did, last.event, last.stage, event.at, (*last.events, event))
                        go_on = False
                    else:
                        steps.append(Step(item, event, len(steps) + 1, event.at, (event,)))
                elif isinstance(item, Observed):
                    if self._finds_it_gone(item, event, seen, len(steps)):
                        steps.append(Step(Did(*LOOKED, on=item.on), event, len(steps) + 1, event.at, (event,)))
                    # What was found on a setting that goes on with the one before is of the stage before both.
                    stage = len(steps) - 1 if go_on else 0 if self._lay_there(item, event, steps) else len(steps)
                    seen.append(Sighting(item, event, stage))
                    latest[item.key, item.on] = item.value
                    seen += [Sighting(one, event, stage) for one in self._implied(item, latest)]
                else:
                    spoken.append((item, 0 if item.as_found else len(steps)))
        return tuple(steps), tuple(seen), tuple(spoken)

    def _lay_there(self, item: Observed, event: Event, steps: list[Step]) -> bool:
        """Whether ice that is seen after an act lay there before it: nothing was melted since, and so much does not grow in hours."""
        here = [step for step in steps if step.did.on in (None, item.on)]
        if item.key not in ICE or not here or any(step.did.code == MELTED for step in here):
            return False
        iced = item.value in ICED if item.key == "ice_form" else bool(set(words_of(item.value)) & set(ICED_PLACES))
        soon = event.at is not None and here[0].at is not None and event.at - here[0].at < ICE_GROWS
        return iced and self.record.clocked and soon

    def _finds_it_gone(self, item: Observed, event: Event, seen: list[Sighting], stage: int) -> bool:
        """Whether a look finds gone what was seen to be there earlier in its stage, with no line for what was done between."""
        codes = SEEN.get(item.key, {})
        if not codes or not self.record.clocked or event.at is None or codes.get(str(item.value)):
            return False
        own = [one for one in seen if one.observed.on in (None, item.on)]
        before = next((one for one in reversed(own) if one.observed.key == item.key and one.stage == stage), None)
        if before is None or before.event.at is None or event.at - before.event.at < NO_SLIP:
            return False
        known = {one.observed.key: one.observed.value for one in own}
        return codes.get(str(before.observed.value)) in seen_there(work_out(self.record.unit, known))

    def _goes_on(self, steps: list[Step], event: Event, items: Iterable[Heard]) -> bool:
        """Whether an event goes on with the act before it: settings of one device, changed one after another."""
        mine = next((item for item in items if isinstance(item, Did)), None)
        if mine is None or not steps or event.kind != "setting" or steps[-1].event.kind != "setting" or steps[-1].did.code != mine.code:
            return False
        before = steps[-1].at
        return event.at is None or before is None or event.at - before < AT_ONE_GO

    def _implied(self, item: Observed, latest: Mapping[tuple[str, int | None], Value]) -> list[Observed]:
        """The observations that one says together with those that stand: display and own thermometer, fans one by one."""
        if not told_with(item.key):
            return []
        known = {key: value for (key, on), value in latest.items() if on in (None, item.on)}
        return [Observed(key, value, item.on) for key, value in implied_by(item.key, known).items()]

    @property
    def openings(self) -> tuple[Step, ...]:
        """What opened each stage, in order: what was done, and looks that found gone what had been seen to be there."""
        return self._walked[0]

    @cached_property
    def steps(self) -> tuple[Step, ...]:
        """What was done, in order; each opens a stage."""
        return tuple(step for step in self.openings if step.did.part)

    @cached_property
    def sightings(self) -> tuple[Sighting, ...]:
        """What was observed, in order; without what shows that the power is locked out and nothing else: what was known before stands."""
        locked, found = False, []
        for one in self._walked[1]:
            key, value = one.observed.key, one.observed.value
            if key == "power_locked_out":
                locked = value == "yes"
            if not (locked and stopped.shows_lock_out(key, value)):
                found.append(one)
        return tuple(found)

    def sees(self, observed: Observed, coil: int) -> bool:
        """Return whether an observation is one of a coil: of the whole unit, of every coil, or its own."""
        entry = observations.get(observed.key)
        return entry.exists_on(self.record.unit) and (not entry.per_evaporator or observed.on in (None, coil))

    @cached_property
    def last_stage(self) -> int:
        """The stage that stands."""
        return len(self.openings)

    @cached_property
    def clock(self) -> Step | None:
        """The act whose settling clock runs longest now, on any coil; None where none does."""
        clocks = [one for coil in range(1, len(self.record.coils) + 1) if (one := self.clock_on(coil)) is not None]
        return max(clocks, key=_settled_at, default=None)

    def clock_on(self, coil: int) -> Step | None:
        """Return the act whose settling clock runs longest now on a coil: one on another coil holds that coil, and not this one."""
        at = self.record.at
        if at is None or not self.record.clocked:
            return None
        running = [step for step in self.steps if step.did.on in (None, coil) and step.settled_at is not None and step.settled_at > at]
        return max(running, key=_settled_at, default=None)

    def settles_on(self, coil: int) -> float:
        """Return how many whole minutes the clock of a coil still runs; 0 where none does."""
        return self._minutes_of(self.clock_on(coil))

    @property
    def settles_min(self) -> float:
        """How many whole minutes the clock still runs; 0 where none does."""
        return self._minutes_of(self.clock)

    def _minutes_of(self, clock: Step | None) -> float:
        if clock is None or clock.settled_at is None or self.record.at is None:
            return 0.0
        return float(max(1, -(-int((clock.settled_at - self.record.at).total_seconds()) // 60)))

    def _never_settled(self, one: Sighting) -> bool:
        """Whether a figure of the running circuit was taken inside a clock that has run out since: it never was one of a settled unit."""
        at, now = one.event.at, self.record.at
        if not self.record.clocked or one.observed.key not in RUNNING or at is None or now is None:
            return False
        return any(step.at is not None and step.settled_at is not None and step.at <= at < step.settled_at <= now for step in self.steps)

    @cached_property
    def _by_coil(self) -> Mapping[int, tuple[tuple[dict[str, Value], ...], dict[str, Event]]]:
        """For each coil what was seen in each stage, and the event each key was seen last in."""
        return {coil: self._of_coil(coil) for coil in range(1, len(self.record.coils) + 1)}

    def _of_coil(self, coil: int) -> tuple[tuple[dict[str, Value], ...], dict[str, Event]]:
        stages: tuple[dict[str, Value], ...] = tuple({} for _ in range(len(self.openings) + 1))
        events: dict[str, Event] = {}
        for one in self.sightings:
            if self.sees(one.observed, coil):
                events[one.observed.key] = one.event
                if not self._never_settled(one):
                    stages[one.stage][one.observed.key] = one.observed.value
        if self.record.clocked:
            self._carry_suction(stages)
        return stages, events

    def _carry_suction(self, stages: tuple[dict[str, Value], ...]) -> None:
        """Where the line reads as before a turn and the suction was not read again, it stands as it did."""
        line: float | None = None
        suction: tuple[float, int] | None = None
        for place, stage in enumerate(stages):
            now = stage.get("suction_line_evap_f")
            read = stage.get("suction_psig")
            moved = place > 0 and self.openings[place - 1].did.part in MOVES_THE_LINE
            stands = isinstance(now, float) and line is not None and abs(now - line) < LINE_STANDS_F
            if moved and stands and read is None and suction is not None and self._near(suction[1], place):
                stage["suction_psig"] = suction[0]
            if isinstance(now, float):
                line = now
            if isinstance(read, float):
                suction = (read, place)

    def _near(self, stage: int, other: int) -> bool:
        """Whether two stages lie near enough for a suction to stand."""
        then = self.openings[stage - 1].at if stage else min((e.at for e in self.record.standing if e.at is not None), default=None)
        now = self.openings[other - 1].at
        return then is None or now is None or (now - then).total_seconds() / 60.0 <= SUCTION_STANDS_MIN

    def stages(self, coil: int = 1) -> tuple[dict[str, Value], ...]:
        """Return what was seen in each stage, key -> value, as seen from one coil; one stage more than there are acts."""
        return tuple(dict(stage) for stage in self._by_coil[coil][0])

    def seen_in(self, stage: int, coil: int = 1) -> dict[str, Value]:
        """Return what was seen of one coil in a stage and not before it, key -> value."""
        return self._by_coil[coil][0][stage]

    def last_seen(self, key: str, coil: int = 1) -> Event | None:
        """Return the event a key was seen last in, from one coil; None where nobody looked."""
        return self._by_coil[coil][1].get(key)

    def done(self, coil: int = 1) -> list[Done]:
        """Return what was done, as it concerns one coil; gas into a circuit that held none before is marked as a first fill."""
        found = [step.did.seen_from(coil, len(self.record.coils)) for step in self.openings]
        first = any("first_start" in words for one in self.sightings if isinstance(words := one.observed.value, tuple))
        emptied = False
        for place, step in enumerate(self.openings):
            if step.did.part == "charge":
                emptied = emptied or self.empties(step)
                if step.did.did != "recovered" and (first or emptied):
                    found[place] = replace(found[place], first_fill=True)
        for place in _taken_back(found):
            found[place] = replace(found[place], undone=True)
        return found

    def empties(self, step: Step) -> bool:
        """Whether all gas came out: most of the plate's charge; where nobody knows that, what was then opened, pressed or pumped empty."""
        if (step.did.part, step.did.did) != ("charge", "recovered"):
            return False
        label = self.record.label_charge
        if label is not None and step.did.value is not None:
            return step.did.value >= MOST_OF_IT * label
        return self._worked_on_empty(step)

    def _worked_on_empty(self, step: Step) -> bool:
        """Whether, from this on and before gas went in again, the circuit was opened, held by nitrogen or pumped down to microns."""
        for event in self.record.after(step.event):
            did = (event.data.get("part"), event.data.get("did"))
            if event.kind in ("vacuum", "nitrogen") or f"{did[0]}.{did[1]}" in OPENS:
                return True
            if (did[0] == "charge" or event.kind == "weighed") and did[1] in ("added", "weighed_in"):
                return False
        return False

    def standing(self, coil: int = 1, stage: int | None = None) -> dict[str, Value]:
        """Return what stands on one coil in a stage (left out: now), without what the clocks say.

        What was seen while it rightly stood says nothing of a unit that runs since.
        """
        stages, last = self._by_coil[coil][0], self.last_stage if stage is None else stage
        seen = standing_at(stages, self.done(coil), last)
        for key in [key for key in stopped.RESTS if key in seen and key not in stages[last]]:
            then = max((place for place in range(last) if key in stages[place]), default=None)
            if then is None or seen.get("compressor") not in LIVE:
                continue
            if stopped.rested(key, work_out(self.record.unit, standing_at(stages, self.done(coil), then))):
                del seen[key]
        return seen

    def seen_now(self, coil: int = 1) -> dict[str, Value]:
        """Return what stands on one coil now, with what the settling clock says: it holds the next turn, and what is read while it runs
        is of a circuit that has not settled."""
        seen, clock = self.standing(coil), self.clock_on(coil)
        if clock is not None and clock.at is not None and self.record.at is not None:
            since = (self.record.at - clock.at).total_seconds() / 60.0
            # Some acts take longer to settle than a start: until then it counts as not settled, whatever the minutes.
            seen["adjusted_min"] = min(since, STILL_SETTLING_MIN)
            read = [self.last_seen(key, coil) for key in RUNNING if key in seen]
            if any(event is not None and event.at is not None and event.at > clock.at for event in read):
                seen["settled_min"] = seen["adjusted_min"]
        return seen

    def ages_min(self, coil: int = 1) -> dict[str, float]:
        """Return how old what stands on one coil is, minutes, where times are known."""
        seen = self.standing(coil)
        ages = {}
        for key, event in self._by_coil[coil][1].items():
            minutes = self.record.minutes_since(event)
            if minutes is not None and key in seen:
                ages[key] = max(0.0, minutes)
        return ages

    def facts_at(self, stage: int, coil: int = 1) -> Facts:
        """Return what was known of one coil at the end of a stage, worked out."""
        return work_out(self.record.unit, self.standing(coil, stage), None, self.record.shown)

    def spoken(self, coil: int = 1) -> list[list[Testimony]]:
        """Return what speaks for causes by itself in each stage, as it concerns one coil."""
        found: list[list[Testimony]] = [[] for _ in range(len(self.openings) + 1)]
        for one, stage in self._walked[2]:
            if one.on in (None, coil):
                found[stage].append(one.testimony)
        for stage, words in enumerate(self._by_coil[coil][0]):
            found[stage] += self._stood_while_it_ran(stage, words, coil)
        return found

    def _stood_while_it_ran(self, stage: int, words: Mapping[str, Value], coil: int) -> list[Testimony]:
        """What was seen to stand while the compressor ran is there, though that stands since and the look by itself would say nothing."""
        codes = SEEN["condenser_fans"]
        code = codes.get(str(words.get("condenser_fans")))
        if code is None or not stopped.says_nothing("condenser_fans", self.facts_at(stage, coil)):
            return []
        known: dict[str, Value] = {}
        there = False
        for one in self.sightings:
            if one.stage <= stage and self.sees(one.observed, coil):
                known[one.observed.key] = one.observed.value
                if one.observed.key == "condenser_fans":
                    there = code in seen_there(work_out(self.record.unit, known))
        return [Testimony("stood.condenser_fans", STOOD, {code: 0.0}, -SEEN_SO, -SEEN_SO, beyond_doubt=True)] if there else []

    def stage_of(self, event: Event) -> int:
        """Return the stage an event lies in: how many acts were done before it, itself not counted; a look that opens one lies in it."""
        place = self.record.place[event.number]
        return sum(self.record.place[step.event.number] < place or (not step.did.part and step.event is event) for step in self.openings)
