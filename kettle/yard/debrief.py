"""After a practice call: what it was, when it could be known, one's own path beside the shortest, and what was done for nothing."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kettle.judging.course import judge_course
from kettle.judging.readings import implied_by
from kettle.knowledge import acts, causes, observations
from kettle.knowledge.observations import Value
from kettle.plant.observer.rig import OWN_DOING
from kettle.yard.drawn import Draw
from kettle.yard.follow import AT_A_GLANCE, FIRST, SURE, follow
from kettle.yard.practice import ASKED, PUT, STOPPED, Practice, Step, begin, opens_stage
from kettle.yard.put_there import LEAD_OFF

# An act that puts a cause right in at least this share of cases is one for it.
CURES_FROM: Final = 0.5
# Whoever repaired a warm box comes back so often, a day apart, while the way down ices its coil.
COMES_BACK: Final = 3
DAY_MIN: Final = 24.0 * 60.0
WEEK_MIN: Final = 7.0 * DAY_MIN
ICED: Final = ("heavy_frost", "hard_ice")
# A box holds where its mean over a week lies this near its set, °F, with a compressor that may run; a coil packed to this share does not.
HOLDS_WITHIN_F: Final = 4.0
LAST_DAY_H: Final = 24.0


@dataclass(frozen=True)
class Debrief:
    """What came of a practice call; minutes from its beginning. `known_at_min` is when what was asked sufficed, None where it never did;
    `gave_away` what was asked last before; `shortest` the codes, minutes and number of things asked by holds and next checks alone, `path`
    its steps."""

    codes: tuple[str, ...]
    named: tuple[str, ...]
    right: bool
    minutes: float
    known_at_min: float | None
    gave_away: str
    asked: int
    shortest: tuple[tuple[str, ...], float, int]
    stopped: tuple[Step, ...]
    for_nothing: tuple[str, ...]
    gas_oz: float
    held: bool | None
    path: tuple[Step, ...] = ()

    def _part_of_it(self, codes: tuple[str, ...]) -> bool:
        return bool(codes) and set(codes) < set(self.codes)

    @property
    def words(self) -> tuple[str, ...]:
        """The debrief in sentences."""
        short = "" if self.right or not self.named else ", and more" if self._part_of_it(self.named) else ", which it is not"
        lines = [
            f"It was: {_labels(self.codes)}",
            f"You said: {_labels(self.named) or 'nothing'}{short}",
        ]
        if self.known_at_min is None:
            lines.append(f"By what you asked it never stood clear; you took {self.minutes:.0f} min and asked {self.asked} things")
        else:
            lines.append(f"It stood clear after {self.known_at_min:.0f} min, with {self.gave_away}; you took {self.minutes:.0f} min "
                         f"and asked {self.asked} things")  # fmt: skip
        codes, minutes, asked = self.shortest
        rest = ", the rest after that is put right" if self._part_of_it(codes) else ""
        lines.append(f"By holds and next checks alone: {minutes:.0f} min, {asked} things asked, {_labels(codes) or 'not found'}{rest}")
        lines += [f"Stopped: {step.says}" for step in self.stopped]
        lines += [f"Done for nothing: {label}" for label in self.for_nothing]
        if self.gas_oz:
            lines.append(f"Gas moved for nothing: {self.gas_oz:.0f} oz")
        if self.held is not None:
            lines.append("A week later it holds" if self.held else "A week later it is back: the repair did not hold")
        return tuple(lines)


def debrief(practice: Practice) -> Debrief:
    """Return what came of a practice call; where something was done, the unit is run on for a week to see whether it holds."""
    one = practice.draw
    known, gave_away = _known(practice)
    did = [acts.get(step.part, step.did) for step in practice.done]
    idle = [
        act
        for act in did
        if act.spares and act.part != "charge" and not any(act.removes.get(code, 0.0) >= CURES_FROM for code in one.codes)
    ]
    gas = sum(step.value or 0.0 for step, act in zip(practice.done, did, strict=True)
              if act.part == "charge" and act.unit == "oz" and not set(act.removes) & set(one.codes))  # fmt: skip
    named = practice.named or ()
    found, other = _shortest(one)
    return Debrief(
        one.codes, named, set(named) == set(one.codes), practice.minutes, known, gave_away,
        sum(step.what in (ASKED, PUT) for step in practice.steps),
        (found, other.minutes, sum(step.what in (ASKED, PUT) for step in other.steps)),
        tuple(step for step in practice.steps if step.what == STOPPED), tuple(act.label for act in idle), gas,
        holds_for_a_week(practice) if did and not one.laid_open else None, tuple(other.steps),
    )  # fmt: skip


def _labels(codes: tuple[str, ...]) -> str:
    return " and ".join(causes.get(code).label for code in codes)


def _known(practice: Practice) -> tuple[float | None, str]:
    """After how many minutes Judge stood clear at what it is, and what was asked last before."""
    stages: list[dict[str, Value]] = [{key: value for key, value in practice.stages[0].items() if key == "complaint"}]
    done = 0
    for step in practice.steps:
        if opens_stage(step, practice.rig.unit):
            done += 1
            stages.append({key: value for key, value in stages[-1].items() if key in OWN_DOING})
        if step.what not in (ASKED, PUT) or step.value is None:
            continue
        stages[-1][step.of] = step.value
        for implied, said in implied_by(step.of, stages[-1]).items():
            stages[-1].setdefault(implied, said)
        was = judge_course(practice.rig.unit, stages, practice.done[:done]).was
        if was and was[0].probability >= SURE and set(was[0].codes) == set(practice.draw.codes):
            return step.at_min + step.minutes, observations.get(step.of).label.lower()
    return None, ""


def _shortest(one: Draw) -> tuple[tuple[str, ...], Practice]:
    """What holds and next checks alone come to, and the work that took: the quicker of two that find it, one with a glance first and one
    that looks at all that costs nothing."""
    ways = []
    for looks in (AT_A_GLANCE, FIRST):
        other = begin(one)
        ways.append((follow(other, looks), other))
    found = [way for way in ways if set(way[0]) == set(one.codes)]
    return min(found, key=lambda way: way[1].minutes) if found else ways[-1]


def holds_for_a_week(practice: Practice) -> bool:
    """Run the unit on for a week, all switched on again, jumpers away; return whether box, coil and drain are well over the last day.

    Before the week, ice of the way down from a warm box is melted off: whoever repaired it comes back the next day, three times at most.
    """
    rig = practice.rig
    rig.own.clear()
    # A jumper over a switch or an output is no repair; a lead that stays lifted is one more fault.
    rig.put = {part: way for part, way in rig.put.items() if way in ("", LEAD_OFF)}
    rig.rebuild()
    for _ in range(COMES_BACK):
        rig.wait(DAY_MIN)
        if rig.look("ice_form") not in ICED:
            break
        rig.do("coil", "melted")
    # What stood on the floor was mopped up: water that comes now is new.
    rig.course.state.floor_lb[:] = 0.0
    rig.wait(WEEK_MIN)
    over_f = float(np.mean(rig.series("air_f", LAST_DAY_H))) - rig.unit.set_f
    dry = rig.look("drain_pan") != "overflowing"
    return bool(abs(over_f) <= HOLDS_WITHIN_F and rig.parts.can_run > 0 and rig.look("ice_form") not in ICED and dry)
