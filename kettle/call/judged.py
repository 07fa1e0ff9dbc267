"""The judgement of a call: each coil's course, over the stages its acts opened, by everything that was heard."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property

from kettle.call.circuit import Wired
from kettle.call.heaters import unproved
from kettle.call.stages import CLOCKS, Staged
from kettle.call.turns import testimony, turns
from kettle.judging.coils import judge_coil
from kettle.judging.course import Course, as_found, judge_course
from kettle.judging.holds import ACTIONS, BLOCKS, GROUNDED_HEATER, unproved_heater
from kettle.judging.judge import Judgement
from kettle.judging.testimony import Testimony
from kettle.knowledge.observations import Value


@dataclass(frozen=True)
class Judged:
    """The courses of a record's coils, each worked out when it is asked for. `what_if` (key -> value) stands on a coil as if read now."""

    staged: Staged
    what_if: Mapping[str, Value] | None = None

    @cached_property
    def wired(self) -> Wired:
        """What was measured in the circuit."""
        return Wired(self.staged)

    @cached_property
    def overridden(self) -> frozenset[str]:
        """The actions taken on against a hold."""
        found: set[str] = set()
        for event in self.staged.record.all_of("override"):
            if event.get("action") in ACTIONS:
                found.add(event.data["action"])
            else:
                found |= {action for code in event.get("holds", ()) for action in BLOCKS.get(code, ())}
        return frozenset(found)

    @cached_property
    def _courses(self) -> dict[int, Course]:
        return {}

    def course(self, coil: int = 1) -> Course:
        """Return the course of one coil: what it was, and what is left after what was done."""
        if coil not in self._courses:
            self._courses[coil] = self._judge(coil)
        return self._courses[coil]

    @cached_property
    def _seen(self) -> list[dict[str, Value]]:
        return [self.staged.seen_now(coil) for coil in range(1, len(self.staged.record.coils) + 1)]

    @cached_property
    def _nows(self) -> dict[int, Judgement]:
        return {}

    def now(self, coil: int = 1) -> Judgement:
        """Return verdicts, holds and problems of what stands on one coil, its suspects and next checks left out once hands were on it."""
        if coil not in self._nows:
            record, seen = self.staged.record, [dict(one) for one in self._seen]
            seen[coil - 1] |= self.what_if or {}
            ages = [self.staged.ages_min(number) for number in range(1, len(seen) + 1)]
            heard = self._heard(coil)[0]
            now = judge_coil(
                record.unit_now, seen, coil, ages, record.shown, record.found_before, self.overridden, not self.staged.openings, heard
            )
            why = unproved(record)
            if why and not any(hold.code == GROUNDED_HEATER for hold in now.holds):
                now = replace(now, holds=(unproved_heater(why), *now.holds))
            self._nows[coil] = now
        return self._nows[coil]

    def _heard(self, coil: int) -> list[list[Testimony]]:
        heard = self.staged.spoken(coil)
        stages = {step.event.number: step.stage for step in self.staged.steps}
        for turn in turns(self.staged, coil):
            said = testimony(turn)
            if said is not None:
                heard[stages[turn.event.number]].append(said)
        for stage, spoken in self.wired.spoken.items():
            heard[stage] = [*heard[stage], *spoken]
        return heard

    def _judge(self, coil: int) -> Course:
        now, record = self.now(coil), self.staged.record
        if not self.staged.openings:
            return as_found(now)
        stages = list(self.staged.stages(coil))
        stages[-1] |= {key: value for key, value in now.facts.seen.items() if key in CLOCKS} | dict(self.what_if or {})
        if "siblings" in now.facts.seen:
            stages[0].setdefault("siblings", now.facts.seen["siblings"])
        told = judge_course(
            record.unit_now, stages, self.staged.done(coil), self.staged.ages_min(coil), record.shown, record.found_before,
            self.overridden, self._heard(coil),
        )  # fmt: skip
        # Verdicts and holds are of what stands; what it was, and what settles it, of the whole course.
        return told.standing_as(now, record.found_before, self.overridden)

    def left_single(self, coil: int = 1) -> dict[str, float]:
        """Return how likely each cause is left on a coil by itself; of a pair either may be what speaks. "" is nothing left."""
        found: dict[str, float] = {}
        for one in self.course(coil).left:
            if len(one.codes) <= 1:
                code = "".join(one.codes)
                found[code] = found.get(code, 0.0) + one.probability
        return found

    def left_by_cause(self, coil: int = 1) -> dict[str, float]:
        """Return how likely each cause is left on a coil, alone or with another."""
        found: dict[str, float] = {}
        for one in self.course(coil).left:
            for code in one.codes:
                found[code] = found.get(code, 0.0) + one.probability
        return found
