"""From what is known to what is likely: evidence, suspects and the next best checks.

A small Bayesian network over causes (kettle/network.py) is evaluated exactly over a sound unit, every single cause and
every plausible pair. Figures enter softly around the edges of their band, a verdict that is trusted less counts less, and
what is not observed says nothing. A pair whose second cause nothing shows is counted with its first.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from kettle import bands, causes, holds, observations, problems, readings
from kettle.bands import Verdict
from kettle.causes.model import Cause
from kettle.causes.usual import ECHOES
from kettle.facts import Facts
from kettle.holds import Hold
from kettle.network import Figures, Network, network_of
from kettle.observations import Value
from kettle.problems import Problem
from kettle.quantities import QUANTITIES
from kettle.unit import CHOICES, Unit
from kettle.units import TRADE, ShownUnits

TRUST_SHARE: Final = {"good": 1.0, "weak": 0.6, "none": 0.0}
SHARPEST_EDGE: Final = 0.5
SOFTEST_EDGE: Final = 4.0
SHOWN_FROM: Final = 0.002
TOLD_SHARE: Final = 0.92
WORTH_SAYING: Final = 0.15
WORTH_CHECKING_BITS: Final = 0.03
CHECKS_SHOWN: Final = 5
# A pair is named only where both causes together fit that many times better than either alone.
PAIR_EARNS: Final = 2.0
# Two answers closer than this factor are said to be close.
CLOSE_CALL: Final = 2.0
# Look and feel before probe, probe before meter, meter before gauges, gauges before tests that open or stop something.
TIER: Final = {"record": 1.0, "ask": 1.0, "look": 1.0, "feel": 1.0, "controller": 0.9, "probe": 0.8, "meter": 0.6, "gauge": 0.45,
               "test": 0.35}  # fmt: skip
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
STATE_WORDS: Final = {"low": "low", "ok": "in band", "high": "high"}


@dataclass(frozen=True)
class Evidence:
    """One piece of evidence: the key it comes from, words, its log-odds against a sound unit, and of a pair whose it is."""

    key: str
    text: str
    weight: float
    of: str = ""


@dataclass(frozen=True)
class Suspect:
    """One ranked answer: no cause (nothing wrong), one or two, its probability and the evidence on it."""

    causes: tuple[Cause, ...]
    probability: float
    speaks_for: tuple[Evidence, ...]
    speaks_against: tuple[Evidence, ...]

    @property
    def codes(self) -> tuple[str, ...]:
        """The cause codes of the case format; empty for healthy."""
        return tuple(cause.code for cause in self.causes)

    @property
    def name(self) -> str:
        """Its codes as one word, for an address or an anchor."""
        return "+".join(self.codes) or "healthy"

    @property
    def _told(self) -> tuple[Cause, ...]:
        return self.causes or (causes.HEALTHY,)

    @property
    def label(self) -> str:
        """What it is called; two causes are joined."""
        return " + ".join(cause.label for cause in self._told)

    @property
    def plain(self) -> str:
        """What it is, in the customer's words."""
        both = " ".join(cause.plain for cause in self._told)
        return f"Two things at once. {both}" if len(self.causes) == 2 else both

    @property
    def confirm(self) -> tuple[str, ...]:
        """How to be sure."""
        return _merged(cause.confirm for cause in self._told)

    @property
    def correct(self) -> tuple[str, ...]:
        """How to put it right."""
        return _merged(cause.correct for cause in self._told)

    @property
    def caution(self) -> tuple[str, ...]:
        """The usual cautions."""
        return _merged(cause.caution for cause in self._told)

    @property
    def told_apart(self) -> tuple[tuple[str, str], ...]:
        """Causes it is taken for, by label, with what tells them apart."""
        pairs = [(causes.CATALOGUE[code].label, how) for cause in self.causes for code, how in cause.mimics]
        return tuple(pair for pair in pairs if pair[0] not in {cause.label for cause in self.causes})


def _merged(lists: Iterable[tuple[str, ...]]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(text for one in lists for text in one))


@dataclass(frozen=True)
class Check:
    """A check not yet made: the observation to take, how, what its answers mean, bits gained and minutes."""

    key: str
    label: str
    how: str
    meaning: str
    gain_bits: float
    minutes: float


@dataclass(frozen=True)
class Judgement:
    """Everything worked out about a unit at one moment; the shape of the case format's answer.

    `discounted` lists what was read and counts for nothing now, each with why; `close_call` says where two answers lie
    close together.
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

    @property
    def has_evidence(self) -> bool:
        """Whether anything known so far moves any suspect."""
        return any(s.speaks_for or s.speaks_against for s in self.ranking)


@dataclass(frozen=True)
class _Feature:
    """One thing weighed: how much of each state was seen, and how far it counts (0 to 1)."""

    key: str
    seen: Mapping[str, float]
    share: float
    text: str


def judge(
    unit: Unit,
    seen: Mapping[str, Value],
    ages_min: Mapping[str, float] | None = None,
    shown: ShownUnits = TRADE,
    history: tuple[str, ...] = (),
    overridden: frozenset[str] = frozenset(),
) -> Judgement:
    """Work out and judge a unit from the observations that stand (key -> checked value).

    `ages_min` gives their ages in minutes where times are known; `shown` the units the words are written in; `history`
    the causes found at earlier visits; `overridden` the actions a technician has taken on against a hold.
    """
    facts = readings.work_out(unit, seen, ages_min, shown)
    wrong = tuple(problems.found(facts))
    found = tuple(_doubted(verdict, wrong) for verdict in bands.verdicts(facts))
    in_force = tuple(holds.standing(facts))
    network = network_of(unit, context_of(facts), history)
    weighed = _weighed(network, _features(facts, found, network))
    likelihood = _log_likelihood(network, weighed)
    posterior = _normalised(network.log_prior + likelihood)
    folded = _folded(network, likelihood, posterior)
    ranking = _ranking(network, weighed, folded)
    return Judgement(
        facts=facts,
        verdicts=found,
        problems=wrong,
        holds=in_force,
        ranking=ranking,
        next_checks=tuple(_next_checks(facts, network, folded, in_force, overridden)),
        assumed=_assumed(unit, found),
        discounted=tuple((_verdict_words(v, shown), v.why) for v in found if v.trust == "none" and v.quantity in network.columns),
        close_call=_close_call(ranking),
    )


def context_of(facts: Facts) -> dict[str, str]:
    """Return the context effects are looked up in: the moment, and the weather as cold, mild or hot."""
    ambient = facts.number("ambient_f")
    outside = "mild"
    if ambient is not None and facts.unit.condensing == "air":
        outside = "cold" if facts.is_cold_outside else "hot" if facts.is_hot_outside else "mild"
    return {"moment": facts.moment, "outside": outside}


def suspect_of(judged: Judgement, code: str, history: tuple[str, ...] = ()) -> Suspect:
    """Return one single cause with its evidence, however unlikely: "why not overcharge?"; InputError for no such cause."""
    cause = causes.get(code)
    network = network_of(judged.facts.unit, context_of(judged.facts), history)
    if code not in network.singles:
        return Suspect((cause,), 0.0, (), (Evidence(code, "This unit is not built so that it could have it", -9.0),))
    weighed = _weighed(network, _features(judged.facts, judged.verdicts, network))
    likelihood = _log_likelihood(network, weighed)
    folded = _folded(network, likelihood, _normalised(network.log_prior + likelihood))
    row = network.singles[code]
    return _suspect(network, row, float(folded[row]), weighed)


def membership(value: float, low: float, high: float, spread: float = 0.0) -> dict[str, float]:
    """Return how far a figure counts as low, ok and high (they sum to 1), softly around the edges of its band.

    The edges are logistic with a width of an eighth of the band, within what a field reading is good to: a reading on
    an edge is half in, half out. An estimate's spread (half its width) softens them further.
    """
    width = math.hypot(min(max((high - low) / 8.0, SHARPEST_EDGE), SOFTEST_EDGE), spread / 2.0)

    def over(edge: float) -> float:
        return 1.0 / (1.0 + math.exp(-max(-50.0, min(50.0, (value - edge) / width))))

    above, below = over(high), 1.0 - over(low)
    return {"low": below, "ok": max(0.0, 1.0 - above - below), "high": above}


def _doubted(verdict: Verdict, wrong: Sequence[Problem]) -> Verdict:
    """A verdict that rests on readings which contradict each other is not trusted: they are reported, not averaged."""
    needs = QUANTITIES[verdict.quantity].needs if verdict.quantity in QUANTITIES else (verdict.quantity,)
    for problem in wrong:
        if problem.spoils and set(problem.keys) & set(needs):
            return replace(verdict, trust="none", why=f"{verdict.why}, a reading to resolve first")
    return verdict


def _features(facts: Facts, found: tuple[Verdict, ...], network: Network) -> list[_Feature]:
    shown = facts.shown
    features = []
    for verdict in found:
        if verdict.quantity in network.columns and verdict.state != "impossible":
            share = TRUST_SHARE[verdict.trust] * _echo_share(verdict.quantity, facts)
            seen = membership(verdict.value, verdict.low, verdict.high, verdict.spread)
            features.append(_Feature(verdict.quantity, seen, share, _verdict_words(verdict, shown)))
    # In the order of their keys, so that the order of entry does not even move the last digit.
    for key, value in sorted(facts.seen.items()):
        columns = network.columns.get(key)
        if columns is None or isinstance(value, float):
            continue
        entry = observations.get(key)
        words = [word for word in (value if isinstance(value, tuple) else (value,)) if word in columns.states]
        # Several places of one list tell much the same story: together they count as their number's root.
        share = _echo_share(key, facts) / math.sqrt(len(words) or 1)
        for word in words:
            text = f"{entry.label}: {entry.show((word,) if entry.many else word)}"
            features.append(_Feature(key, {word: 1.0}, share, text))
    return features


def _echo_share(key: str, facts: Facts) -> float:
    originals, share = ECHOES.get(key, ((), 1.0))
    return share if any(original in facts.seen or original in facts.derived for original in originals) else 1.0


def quantity_name(key: str) -> tuple[str, str, int]:
    """Return label, unit and decimals of a quantity worked out or of an observed figure."""
    if key in QUANTITIES:
        quantity = QUANTITIES[key]
        return quantity.label, quantity.unit, quantity.decimals
    entry = observations.get(key)
    return entry.label, entry.unit, entry.decimals


def _verdict_words(verdict: Verdict, shown: ShownUnits) -> str:
    label, unit, decimals = quantity_name(verdict.quantity)
    where = {"low": "below", "high": "above", "ok": "inside", "impossible": "cannot be against"}[verdict.state]
    about = "about " if verdict.spread else ""
    low, high = (shown.figure(edge, unit, 0) for edge in (verdict.low, verdict.high))
    return f"{label} {about}{shown.text(verdict.value, unit, 0 if about else decimals)} is {where} {low} to {high}"


def _weighed(network: Network, features: Sequence[_Feature]) -> list[tuple[_Feature, Figures]]:
    """Every feature that counts, with its share-weighted log-likelihood under every hypothesis."""
    weighed = []
    for feature in features:
        if feature.share > 0:
            columns = network.columns[feature.key]
            weights = np.array([feature.seen.get(state, 0.0) for state in columns.states])
            weighed.append((feature, feature.share * np.log(network.table[:, columns.place] @ weights)))
    return weighed


def _log_likelihood(network: Network, weighed: Sequence[tuple[_Feature, Figures]]) -> Figures:
    total: Figures = np.zeros(len(network.members))
    for _, told in weighed:
        total = total + told
    return total


def _normalised(score: Figures) -> Figures:
    raw: Figures = np.exp(score - score.max())
    raw /= raw.sum()
    return raw


def _folded(network: Network, likelihood: Figures, posterior: Figures) -> Figures:
    """The posterior with every pair that does not earn its second cause counted with the better single of the two."""
    singles = 1 + len(network.singles)
    first, second = network.first_of_pair, network.second_of_pair
    better = np.where(likelihood[first] + network.log_prior[first] >= likelihood[second] + network.log_prior[second], first, second)
    earns = likelihood[singles:] - np.maximum(likelihood[first], likelihood[second]) >= math.log(PAIR_EARNS)
    folded = posterior.copy()
    np.add.at(folded, better[~earns], posterior[singles:][~earns])
    folded[singles:][~earns] = 0.0
    return folded


def _ranking(network: Network, weighed: Sequence[tuple[_Feature, Figures]], folded: Figures) -> tuple[Suspect, ...]:
    """Every hypothesis worth naming; where readings contradict each other so that many small ones share the doubt, most of that."""
    order = np.argsort(-folded, kind="stable")
    worth = int((folded >= SHOWN_FROM).sum())
    most = int(np.searchsorted(np.cumsum(folded[order]), TOLD_SHARE)) + 1
    rows = (int(row) for row in order[: max(worth, most)])
    return tuple(_suspect(network, row, float(folded[row]), weighed) for row in rows)


def _suspect(network: Network, row: int, probability: float, weighed: Sequence[tuple[_Feature, Figures]]) -> Suspect:
    """A hypothesis with its evidence, told against a sound unit; a sound unit is told against the mix of single causes."""
    members = network.members[row]
    singles = slice(1, 1 + len(network.singles))
    prior = np.exp(network.log_prior[singles])
    speaks_for, against = [], []
    for feature, told in weighed:
        mixed = None if members else feature.share * math.log(float(np.exp(told[singles] / feature.share) @ prior) / prior.sum())
        weight = float(told[row]) - (float(told[0]) if mixed is None else mixed)
        of = ""
        if len(members) == 2:
            one, other = (float(told[network.singles[cause.code]] - told[0]) for cause in members)
            of = members[0].label if abs(one) >= abs(other) else members[1].label
        if weight >= WORTH_SAYING:
            speaks_for.append(Evidence(feature.key, feature.text, weight, of))
        elif weight <= -WORTH_SAYING:
            shape = network.shape(row, feature.key)
            expected = max(shape, key=lambda state: shape[state])
            likeliest_seen = max(feature.seen, key=lambda state: feature.seen[state])
            less = "less usual with this" if expected == likeliest_seen else f"expected {_state_words(feature.key, expected)}"
            against.append(Evidence(feature.key, f"{feature.text}; {less}", weight, of))
    return Suspect(
        members,
        probability,
        tuple(sorted(speaks_for, key=lambda e: -e.weight)),
        tuple(sorted(against, key=lambda e: e.weight)),
    )


def _close_call(ranking: Sequence[Suspect]) -> str:
    if len(ranking) < 2 or not (ranking[0].speaks_for or ranking[0].speaks_against):
        return ""
    one, other = ranking[:2]
    if one.probability > CLOSE_CALL * other.probability:
        return ""
    return f"Close between {one.label.lower()} and {other.label.lower()}: one more check before hands go on."


def _state_words(key: str, state: str) -> str:
    entry = observations.REGISTRY.get(key)
    if entry is not None and not entry.is_number:
        return dict(entry.choices)[state]
    return STATE_WORDS[state]


def _next_checks(facts: Facts, network: Network, posterior: Figures, in_force: tuple[Hold, ...], overridden: frozenset[str]) -> list[Check]:
    """Return the checks not yet made that would settle most per minute of effort, at most CHECKS_SHOWN.

    The hypotheses are those the ranking names: a second fault that nothing shows is not hunted for. Gain is the mutual
    information of hypothesis and answer, in bits (Shannon 1948), weighed by the safety order of tools
    (`TIER`); what a hold blocks is left out.
    """
    blocked = {action for hold in in_force for action in hold.blocks} - overridden
    likely = np.flatnonzero(posterior > 1e-5)
    weights, table = posterior[likely] / posterior[likely].sum(), network.table[likely]
    checks: dict[str, tuple[float, Check]] = {}
    for feature, columns in network.columns.items():
        needs = QUANTITIES[feature].needs if feature in QUANTITIES else (feature,)
        missing = [observations.get(key) for key in needs if key not in facts.seen]
        if not missing or (feature in bands.COIL_QUANTITIES and "superheat_judge" in blocked):
            continue
        if any(entry.many or entry.tool == "record" or not entry.exists_on(facts.unit) for entry in missing) or _band_missing(
            facts.unit, feature
        ):
            continue
        if "gauges" in blocked and any(entry.tool == "gauge" for entry in missing):
            continue
        if "resistance_test" in blocked and any("lock_out" in entry.holds for entry in missing):
            continue
        shape = table[:, columns.place]
        gain = _gain_bits(weights, shape) * _echo_share(feature, facts)
        minutes = sum(entry.minutes for entry in missing)
        first = missing[0]
        score = gain / minutes * min(TIER[entry.tool] for entry in missing)
        if gain >= WORTH_CHECKING_BITS and (first.key not in checks or score > checks[first.key][0]):
            meaning = _meaning(feature, columns.states, weights, shape, [network.members[row] for row in likely])
            checks[first.key] = (score, Check(first.key, first.label, first.how, meaning, gain, minutes))
    return [check for _, check in sorted(checks.values(), key=lambda scored: -scored[0])[:CHECKS_SHOWN]]


def _gain_bits(weights: Figures, shape: Figures) -> float:
    """Mutual information of hypothesis and state, bits; `shape` is hypotheses × states."""
    total = weights @ shape
    return float((weights[:, None] * shape * (np.log2(shape) - np.log2(total))).sum())


def _meaning(feature: str, states: Sequence[str], weights: Figures, shape: Figures, members: Sequence[tuple[Cause, ...]]) -> str:
    """What each answer would point at: the hypothesis it lifts most."""
    lifted = (shape - weights @ shape) * weights[:, None]
    leaders: dict[str, list[str]] = {}
    for place, state in enumerate(states):
        leader = members[int(np.argmax(lifted[:, place]))]
        label = " and ".join(cause.label for cause in leader) or causes.HEALTHY.label
        leaders.setdefault(label, []).append(_state_words(feature, state))
    meaning = "; ".join(f"{' or '.join(words)} points at {label.lower()}" for label, words in leaders.items())
    return meaning[:1].upper() + meaning[1:]


def _band_missing(unit: Unit, feature: str) -> bool:
    """Whether a figure has no band on this unit, or what it is measured against is not on the plate."""
    entry = observations.REGISTRY.get(feature)
    if entry is not None and not entry.is_number:
        return False
    if feature == "amps_pct" and not unit.compressor_rla_a:
        return True
    if feature == "volts_off_pct" and not unit.nameplate_v:
        return True
    return bands.default_band(unit, feature) is None


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
