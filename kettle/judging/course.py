"""The course of a call: what was it, judged from every stage; and what is left, after what the acts so far removed.

Causes are hypotheses about the unit as it was found. Each act opens a stage. The facts of a stage are judged under a hypothesis less what
the acts before it put right, and the stages' likelihoods multiply. Whether an act did put its cause right is itself unknown: every
hypothesis is taken over all the ways its acts may have worked or not, weighed by how often each does (`kettle/knowledge/acts.py`).
Facts that exist because of an act never speak, and one that was not looked at again in a stage is not counted again. Where nothing was
put right that a hypothesis holds, what was seen before is expected to be seen again: a second look at it says little.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from kettle.judging.evidence import Evidence, Feature, features
from kettle.judging.facts import Facts
from kettle.judging.given import given
from kettle.judging.judge import Judgement, beside_the_known, checks_of, context_of, judge, shared_with, suspect_of, verdicts_of
from kettle.judging.network import Figures, Network, network_of
from kettle.judging.readings import work_out
from kettle.judging.suspects import Suspect, close_call, rank, suspect_at
from kettle.judging.testimony import Testimony
from kettle.judging.ways import Try, tries_of, with_looks
from kettle.judging.weighing import Stage, as_seen_from, first_and_again, needs_of, was_by_cause, work_out_stages, worked_on
from kettle.knowledge import acts, bands, causes, observations
from kettle.knowledge.acts import Act
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.observations import Value, words_of

# A treated cause this likely to have been there is told until it is proved.
WORTH_PROVING: Final = 0.1
LEFT_SHOWN_FROM: Final = 0.01
# What moves less than this has not answered.
MOVED: Final = 1.0


@dataclass(frozen=True)
class Done:
    """One act of a call: what was done to which part, with its value (turns, ounces) where it has one, here or on another coil.

    `one_of_several` marks what was done on one coil of a unit that has more: what the whole unit shows stays true. `first_fill` marks gas
    into a circuit that held none before: nothing was lost, and no leak stays behind it. `undone` marks what a later act took back, and
    that act: neither cures anything.
    """

    part: str
    did: str
    value: float | None = None
    elsewhere: bool = False
    one_of_several: bool = False
    first_fill: bool = False
    undone: bool = False

    @property
    def act(self) -> Act:
        """The act in the table; one on another coil opens a stage and changes nothing here."""
        found = acts.that_opens(self.part, self.did)
        if self.elsewhere:
            return Act(found.part, found.did, found.label, still=True)
        return replace(found, removes={}) if self.undone else found

    @property
    def voids(self) -> frozenset[str]:
        """The observations that are past once it was done; an act on one coil of several leaves those of the whole unit."""
        gone = acts.voided(self.act)
        if not self.one_of_several:
            return gone
        return frozenset(key for key in gone if observations.get(key).per_evaporator or key in self.act.voids)


@dataclass(frozen=True)
class _Workings:
    """What a course was judged by: the network, the evidence of all stages, and how likely each row is."""

    network: Network
    told: list[tuple[Feature, Figures]]
    folded: Figures


@dataclass(frozen=True)
class Left:
    """One answer to what is left: causes still there (none for healthy), how likely, and what would prove each treated one."""

    suspect: Suspect
    probability: float
    to_prove: tuple[str, ...] = ()

    @property
    def codes(self) -> tuple[str, ...]:
        """The cause codes; empty for healthy."""
        return self.suspect.codes


@dataclass(frozen=True)
class Effect:
    """What an act did to one quantity: read before and after it, and whether it moved the way it should (None: next to nothing moved).

    `past` is one that stood beyond its band on that side before: it moved as the act moves it, and that is no good.
    """

    stage: int
    quantity: str
    before: float
    after: float
    way: str
    past: bool = False

    @property
    def came(self) -> bool | None:
        """Whether it went the way it should."""
        moved = self.after - self.before
        if abs(moved) < MOVED:
            return None
        return (moved > 0) == (self.way == acts.UP)


@dataclass(frozen=True)
class Course:
    """A call judged over its stages: the unit as it stands now, whose ranking tells what it was, and what is left.

    `likely` is how likely each row of the network is by now, for whoever asks what would settle it; `before` holds what was worked out
    last before the acts (key -> value), whether it still stands or not; `effects` what each act did to what it should move; `looked` how
    parts were seen last, where the last act brought nothing.
    """

    now: Judgement
    left: tuple[Left, ...]
    done: tuple[Done, ...] = ()
    likely: Figures | None = field(default=None, compare=False, repr=False)
    before: Mapping[str, float] = field(default_factory=dict)
    effects: tuple[Effect, ...] = ()
    looked: Mapping[str, str] = field(default_factory=dict)
    workings: "_Workings | None" = field(default=None, compare=False, repr=False)

    def suspect(self, code: str, history: tuple[str, ...] = ()) -> Suspect:
        """Return one single cause with its evidence from every stage, however unlikely; InputError for no such cause."""
        if self.workings is None or code not in self.workings.network.singles:
            return suspect_of(self.now, code, history)
        row = self.workings.network.singles[code]
        return suspect_at(self.workings.network, row, float(self.workings.folded[row]), self.workings.told)

    def stage_words(self, stage: int) -> str:
        """Return what a stage is called."""
        return f"After: {self.done[stage - 1].act.label.lower()}" if stage else "As found"

    def words_of(self, item: Evidence) -> str:
        """Return a piece of evidence in words, with the stage it was seen in where an act came before."""
        return f"{self.stage_words(item.stage)}: {item.text}" if item.stage else item.text

    @property
    def was(self) -> tuple[Suspect, ...]:
        """What was wrong as the unit was found."""
        return self.now.ranking

    def standing_as(self, now: Judgement, history: tuple[str, ...] = (), overridden: frozenset[str] = frozenset()) -> "Course":
        """The same course over another judgement of what stands: its verdicts, holds and problems, and what settles what is left."""
        now = replace(now, given=self.now.given, beyond=self.now.beyond)
        checks = now.next_checks if self.likely is None else checks_of(now, self.likely, history, overridden, self.looked)
        told = replace(
            now,
            ranking=self.now.ranking,
            close_call=self.now.close_call,
            next_checks=checks,
            something_else=self.now.something_else,
            does_not_fit=self.now.does_not_fit,
        )
        return replace(self, now=told)


def as_found(now: Judgement) -> Course:
    """The course of a call on which nothing was done yet: what it was is what is left."""
    return Course(now, tuple(Left(suspect, suspect.probability) for suspect in now.ranking))


# A compressor that does any of these has its power.
LIVE: Final = ("running", "short_cycling", "tripping", "humming")


def standing_at(stages: Sequence[Mapping[str, Value]], done: Sequence[Done], stage: int) -> dict[str, Value]:
    """Return what stands in a stage: all that was seen up to it, less what the acts made untrue, with what they set."""
    seen: dict[str, Value] = {}
    for place in range(stage + 1):
        if place:
            act, voids = done[place - 1].act, done[place - 1].voids
            seen = {key: value for key, value in seen.items() if key not in voids} | dict(act.sets)
            for key, words in act.mends.items():
                still = tuple(word for word in words_of(seen.get(key)) if word not in words)
                seen = {other: value for other, value in seen.items() if other != key} | ({key: still} if still else {})
            live = stages[place].get("compressor") in LIVE or stages[place].get("evap_fans") == "running"
            if live and "power_locked_out" not in stages[place]:
                # Seen with power on it since: the lock is off, whoever forgot to say so.
                seen.pop("power_locked_out", None)
        seen |= stages[place]
    return seen


def judge_course(
    unit: Unit,
    stages: Sequence[Mapping[str, Value]],
    done: Sequence[Done] = (),
    ages_min: Mapping[str, float] | None = None,
    shown: ShownUnits = TRADE,
    history: tuple[str, ...] = (),
    overridden: frozenset[str] = frozenset(),
    heard: Sequence[Sequence[Testimony]] = (),
) -> Course:
    """Judge a call from what was seen in each stage (key -> value; one more stage than acts) and what was done between them.

    `ages_min` are the ages of what stands now, `heard` what speaks by itself in each stage; the rest as in `judge`. InputError for an act
    that is not known.
    """
    spoken = [tuple(heard[place]) if place < len(heard) else () for place in range(len(stages))]
    now = judge(unit, standing_at(stages, done, len(done)), ages_min, shown, history, overridden, answers=not done, heard=spoken[0])
    if not done:
        return as_found(now)
    every = [work_out(unit, standing_at(stages, done, place), None, shown) for place in range(len(stages))]
    there = given(every, [one for stage in spoken for one in stage])
    did = [one.act for one in done]
    tries = tries_of(did)
    networks = [network_of(unit, context_of(facts), history, there) for facts in every]
    seen = [features(facts, verdicts_of(facts), network) for facts, network in zip(every, networks, strict=True)]
    looks = with_looks(tries, networks[0], stages)
    worked = work_out_stages(every, seen, networks, stages, did, looks, spoken)
    beyond = worked_on(worked, tries)
    if len(beyond) > 1:
        # Two that were worked on leave no room for a third among pairs: it is looked for beside them.
        networks = [network_of(unit, context_of(facts), history, there, beyond) for facts in every]
        worked = work_out_stages(every, seen, networks, stages, did, looks, spoken)
    network, likelihood, folded = worked.network, worked.likelihood, worked.folded
    told = [pair for stage, rows in zip(worked.weighed, worked.likeliest, strict=True) for pair in as_seen_from(stage, rows)]
    first, again = first_and_again(worked.weighed)
    none_known, odd = beside_the_known(network, first, likelihood, folded, again)
    ranking = shared_with(rank(network, told, folded), none_known)
    left_by_row = _left(network, folded, worked.remains, done)
    current = _rows_of(network, left_by_row)
    now = replace(now, given=network.given, beyond=beyond, something_else=none_known, does_not_fit=odd)
    before_acts, effects = _effects(unit, worked.weighed, done)
    looked = {key: state for (key, word), state in worked.last_seen.items() if not word} if _brought_nothing(effects, len(done)) else {}
    checks = checks_of(now, current, history, overridden, looked)
    now = replace(now, ranking=ranking, close_call=close_call(ranking), next_checks=checks)
    return Course(
        now,
        _told(network, left_by_row, folded, stages, done, tries, unit, worked.weighed),
        tuple(done),
        current,
        before_acts,
        effects,
        looked,
        _Workings(network, told, folded),
    )


def _past_it(unit: Unit, key: str, before: float, way: str) -> bool:
    """Whether a quantity stood beyond its band before an act on the side the act moves it to."""
    band = bands.default_band(unit, key)
    return band is not None and (before < band[0] if way == acts.DOWN else before > band[1])


def _effects(unit: Unit, weighed: Sequence[Stage], done: Sequence[Done]) -> tuple[dict[str, float], tuple[Effect, ...]]:
    """Return what was worked out last before the acts, and what each act did to what it should move, where both were read."""
    before: dict[str, float] = {}
    known: dict[str, float] = {}
    effects = []
    for place, stage in enumerate(weighed):
        if place:
            shows = done[place - 1].act.shows
            effects += [
                Effect(place, key, known[key], stage.read[key], way, _past_it(unit, key, known[key], way))
                for key, way in shows.items()
                if key in known and key in stage.read
            ]
        if place < len(weighed) - 1:
            before |= stage.derived
        known |= stage.read
    return before, tuple(effects)


def _left(
    network: Network, folded: Figures, remains: Mapping[int, Sequence[tuple[float, frozenset[str]]]], done: Sequence[Done]
) -> dict[frozenset[str], float]:
    """How likely each set of causes is still there."""
    stays = {code for one in done for code in one.act.leaves if not one.first_fill} - {code for one in done for code in one.act.closes}
    left: dict[frozenset[str], float] = {}
    for row in np.flatnonzero(folded > 0):
        codes = frozenset(cause.code for cause in network.members[row])
        for share, gone in remains.get(int(row), [(1.0, frozenset())]):
            still = codes - (gone - stays)
            left[still] = left.get(still, 0.0) + float(folded[row]) * share
    return left


def _brought_nothing(effects: Sequence[Effect], last: int) -> bool:
    """Whether what the last act should have moved was read since, and none of it moved."""
    own = [one for one in effects if one.stage == last]
    return bool(own) and not any(one.came for one in own)


def _rows_of(network: Network, left: Mapping[frozenset[str], float]) -> Figures:
    current: Figures = np.zeros(len(network.members))
    for codes, share in left.items():
        current[network.rows[codes]] += share
    return current


def _told(
    network: Network, left: Mapping[frozenset[str], float], folded: Figures, stages: Sequence[Mapping[str, Value]], done: Sequence[Done],
    tries: Mapping[str, Sequence[Try]], unit: Unit, weighed: Sequence[Stage],
) -> tuple[Left, ...]:  # fmt: skip
    """What is left, likeliest first; a treated cause stays until what proves it was seen."""
    was = was_by_cause(network, folded)
    missing = {code: _missing(code, tried, stages, done, unit) for code, tried in tries.items() if was.get(code, 0.0) >= WORTH_PROVING}
    missing = {code: texts for code, texts in missing.items() if texts}
    listed = {codes: share for codes, share in left.items() if share >= LEFT_SHOWN_FROM or codes & set(missing)}
    for code in missing:
        if not any(code in codes for codes in listed):
            listed[frozenset((code,))] = left.get(frozenset((code,)), 0.0)
    answers = []
    blind = {code for code in missing if not any(stage.weighed for stage in weighed[tries[code][-1].stage :])}
    ordered = sorted(listed.items(), key=lambda pair: (-pair[1], sorted(pair[0])))
    if ordered and not ordered[0][0] and blind:
        # Nothing was read since: that it is gone is a hope, and what was treated is told first.
        ordered.sort(key=lambda pair: not pair[0] & blind)
    for codes, share in ordered:
        members = tuple(causes.get(code) for code in sorted(codes))
        to_prove = tuple(dict.fromkeys(text for code in sorted(codes) for text in missing.get(code, ())))
        answers.append(Left(Suspect(members, share, (), ()), share, to_prove))
    return tuple(answers)


def _missing(code: str, tried: Sequence[Try], stages: Sequence[Mapping[str, Value]], done: Sequence[Done], unit: Unit) -> tuple[str, ...]:
    """What is not yet seen that would prove that a treated cause is gone."""
    last = tried[-1]
    seen = {key for place in range(last.stage, len(stages)) for key in _seen_in(stages, done, place, unit)}
    texts = [] if not last.act.proof or seen & set(last.act.proof) else [last.act.prove]
    closed = {one for act in done for one in act.act.closes}
    if code not in closed:
        texts += [text for one in done for left, text in one.act.leaves.items() if left == code and not one.first_fill]
    return tuple(dict.fromkeys(texts))


def _seen_in(stages: Sequence[Mapping[str, Value]], done: Sequence[Done], place: int, unit: Unit) -> set[str]:
    facts: Facts = work_out(unit, standing_at(stages, done, place))
    fresh = set(stages[place])
    return fresh | {key for key in facts.derived if fresh & needs_of(key)}
