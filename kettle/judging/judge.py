"""From what is known to what is likely: evidence, suspects and the next best checks of one unit at one moment.

A small Bayesian network over causes (kettle/judging/network.py) is evaluated exactly over a sound unit, every single cause and
every plausible pair.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kettle.judging import holds, problems, readings, stopped, unknown, verdicts
from kettle.judging.checks import Check, next_checks
from kettle.judging.evidence import Evidence, Feature, features, log_likelihood, quantity_name, verdict_words, weigh
from kettle.judging.facts import Facts
from kettle.judging.given import given
from kettle.judging.holds import Hold
from kettle.judging.network import Figures, Network, network_of
from kettle.judging.problems import Problem
from kettle.judging.suspects import Suspect, close_call, fold, normalised, rank, suspect_at
from kettle.judging.testimony import Testimony
from kettle.judging.testimony import weighed as weigh_heard
from kettle.judging.verdicts import Verdict
from kettle.knowledge import causes, observations
from kettle.knowledge.equipment import CHOICES, Unit
from kettle.knowledge.measures import TRADE, ShownUnits
from kettle.knowledge.observations import Value
from kettle.knowledge.quantities import QUANTITIES

# Why a warm box says nothing of itself.
COMING_WORDS: Final = {
    "falling": "it is coming down: warm is usual on the way",
    "first_start": "it was never cold yet",
    "after_defrost": "a defrost ended a short while ago",
    "door_open": "its door stands open, and it rises with it",
}
NOT_BUILT_SO: Final = "This unit is not built so that it could have it"
# Fields of a unit that move a judgement, as an assumption about them is worded.
LEANED_ON: Final = {
    "metering": "metering",
    "condensing": "condensing",
    "receiver": "receiver",
    "head_control": "head control",
    "defrost": "defrost",
    "set_f": "set temperature",
    "altitude_ft": "altitude",
}


@dataclass(frozen=True)
class Judgement:
    """Everything worked out about a unit at one moment; the shape of the case format's answer.

    `discounted` lists what was read and counts for nothing now, each with why; `close_call` says where two answers lie
    close together; `given` are the causes that were seen to be there, which every suspect holds; `beyond` those worked on, of which
    two may be there with a third; `something_else` is how likely none of the known causes is there, where that is worth telling (else 0),
    and `does_not_fit` what was seen that the best answer hardly ever shows.
    """

    facts: Facts
    verdicts: tuple[Verdict, ...]
    problems: tuple[Problem, ...]
    holds: tuple[Hold, ...]
    ranking: tuple[Suspect, ...]
    next_checks: tuple[Check, ...]
    assumed: tuple[str, ...]
    discounted: tuple[tuple[str, str], ...] = ()
    close_call: str = ""
    given: frozenset[str] = frozenset()
    beyond: frozenset[str] = frozenset()
    something_else: float = 0.0
    does_not_fit: tuple[str, ...] = ()

    @property
    def has_evidence(self) -> bool:
        """Whether anything known so far moves any suspect."""
        return any(s.speaks_for or s.speaks_against for s in self.ranking)


def judge(
    unit: Unit,
    seen: Mapping[str, Value],
    ages_min: Mapping[str, float] | None = None,
    shown: ShownUnits = TRADE,
    history: tuple[str, ...] = (),
    overridden: frozenset[str] = frozenset(),
    answers: bool = True,
    heard: Sequence[Testimony] = (),
) -> Judgement:
    """Work out and judge a unit from the observations that stand (key -> checked value).

    `ages_min` gives their ages in minutes where times are known; `shown` the units the words are written in; `history`
    the causes found at earlier visits; `overridden` the actions a technician has taken on against a hold; `heard` what speaks for causes by
    itself. `answers` is false where suspects and next checks follow from more than what stands: they are then left out.
    """
    facts = readings.work_out(unit, seen, ages_min, shown)
    wrong = tuple(problems.found(facts))
    found = verdicts_of(facts)
    in_force = tuple(holds.standing(facts))
    network = network_of(unit, context_of(facts), history, given([facts], heard))
    ranking: tuple[Suspect, ...] = ()
    checks: tuple[Check, ...] = ()
    none_known: float = 0.0
    odd: tuple[str, ...] = ()
    if answers:
        muted = {key for one in heard for key in one.mutes}
        seen_now = [feature for feature in features(facts, found, network) if feature.key not in muted]
        weighed = [*weigh(network, seen_now), *(weigh_heard(network, one) for one in heard)]
        likelihood = log_likelihood(network, weighed)
        folded = fold(network, likelihood, normalised(network.log_prior + likelihood))
        ranking, checks = rank(network, weighed, folded), tuple(next_checks(facts, network, folded, in_force, overridden))
        none_known, odd = beside_the_known(network, weighed, likelihood, folded)
        ranking = shared_with(ranking, none_known)
    return Judgement(
        facts=facts,
        verdicts=found,
        problems=wrong,
        holds=in_force,
        ranking=ranking,
        next_checks=checks,
        assumed=_assumed(unit, found),
        discounted=_discounted(facts, found, network),
        close_call=close_call(ranking),
        given=network.given,
        something_else=none_known,
        does_not_fit=odd,
    )


def beside_the_known(
    network: Network, weighed: Sequence[tuple[Feature, Figures]], likelihood: Figures, folded: Figures, repeated: float = 0.0
) -> tuple[float, tuple[str, ...]]:
    """Return how likely none of the known causes is there, where that is worth telling (else 0), and what does not fit the best of them.

    `repeated` is the log-likelihood of what was only seen again.
    """
    none_known = unknown.something_else(network, weighed, likelihood, repeated)
    if none_known < unknown.TOLD_FROM:
        return 0.0, ()
    return none_known, unknown.does_not_fit(weighed, int(np.argmax(folded)))


def shared_with(ranking: tuple[Suspect, ...], none_known: float) -> tuple[Suspect, ...]:
    """Return the ranked answers with what is left to them beside that none of them is it."""
    return tuple(replace(one, probability=one.probability * (1.0 - none_known)) for one in ranking) if none_known else ranking


def _discounted(facts: Facts, found: Sequence[Verdict], network: Network) -> tuple[tuple[str, str], ...]:
    """What was read or seen and counts for nothing now, in words, with why."""
    figures = [(verdict_words(v, facts.shown), v.why) for v in found if v.trust == "none" and v.quantity in network.columns]
    words = [
        (f"{observations.get(key).label}: {observations.get(key).show(value)}", stopped.says_nothing(key, facts))
        for key, value in facts.seen.items()
        if stopped.says_nothing(key, facts)
    ]
    if facts.coming_down:
        figures += [
            (verdict_words(v, facts.shown), COMING_WORDS[facts.coming_down])
            for v in found
            if v.quantity == "box_temp_f" and v.state == "high"
        ]
    return tuple(figures + words)


def verdicts_of(facts: Facts) -> tuple[Verdict, ...]:
    """Return the verdicts on what is known, those that rest on readings which contradict each other trusted no more."""
    wrong = tuple(problems.found(facts))
    return tuple(_doubted(verdict, wrong) for verdict in verdicts.on(facts))


def checks_of(
    judged: Judgement, likely: Figures, history: tuple[str, ...], overridden: frozenset[str], before: Mapping[str, str] | None = None
) -> tuple[Check, ...]:
    """Return the next checks of a unit as it stands, where its hypotheses are as likely as is told (rows of its network); `before` as in
    `next_checks`."""
    network = network_of(judged.facts.unit, context_of(judged.facts), history, judged.given, judged.beyond)
    return tuple(next_checks(judged.facts, network, likely, judged.holds, overridden, before))


def context_of(facts: Facts) -> dict[str, str]:
    """Return the context effects are looked up in: the moment, and the weather as cold, mild or hot."""
    ambient = facts.number("ambient_f")
    outside = "mild"
    if ambient is not None and facts.unit.condensing == "air":
        outside = "cold" if facts.is_cold_outside else "hot" if facts.is_hot_outside else "mild"
    fans = {"evap_fans": "none"} if facts.is_("evap_fans", "none") else {}
    coming = {"coming": facts.coming_down} if facts.coming_down else {}
    return {"moment": facts.moment, "outside": outside, **fans, **coming}


def suspect_of(judged: Judgement, code: str, history: tuple[str, ...] = ()) -> Suspect:
    """Return one single cause with its evidence, however unlikely: "why not overcharge?"; InputError for no such cause."""
    cause = causes.get(code)
    network = network_of(judged.facts.unit, context_of(judged.facts), history, judged.given, judged.beyond)
    if code not in network.singles:
        why = "It does not go together with what was seen" if cause.possible_on(judged.facts.unit) else NOT_BUILT_SO
        return Suspect((cause,), 0.0, (), (Evidence(code, why, -9.0),))
    weighed = weigh(network, features(judged.facts, judged.verdicts, network))
    likelihood = log_likelihood(network, weighed)
    folded = fold(network, likelihood, normalised(network.log_prior + likelihood))
    row = network.singles[code]
    return suspect_at(network, row, float(folded[row]), weighed)


def _doubted(verdict: Verdict, wrong: Sequence[Problem]) -> Verdict:
    """A verdict that rests on readings which contradict each other is not trusted: they are reported, not averaged."""
    needs = QUANTITIES[verdict.quantity].needs if verdict.quantity in QUANTITIES else (verdict.quantity,)
    for problem in wrong:
        if problem.spoils and set(problem.keys) & set(needs):
            return replace(verdict, trust="none", why=f"{verdict.why}, a reading to resolve first")
    return verdict


def _assumed(unit: Unit, found: tuple[Verdict, ...]) -> tuple[str, ...]:
    """Say which defaults of the kind the judgement leaned on: fields nobody gave, and bands in use."""
    notes = []
    for name in unit.assumed:
        if name in LEANED_ON:
            value = getattr(unit, name)
            words = CHOICES[name][value] if name in CHOICES else f"{value:g}" if isinstance(value, float) else value
            words = {True: "yes", False: "no"}.get(words, words) if isinstance(words, bool) else words
            notes.append(f"{LEANED_ON[name]} {words}: default for the kind")
    notes += [
        f"{quantity_name(v.quantity)[0].lower()} band: default for the kind"
        for v in found
        if v.quantity not in unit.bands and not (v.quantity == "box_temp_f" and "set_f" not in unit.assumed)
    ]
    return tuple(notes)
