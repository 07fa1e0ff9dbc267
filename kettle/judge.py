"""From what is known to what is likely: evidence, suspects and the next best checks.

The model is naive Bayes over "healthy" and each single cause: log-odds against a sound unit add up, one term per
feature, so that every term can be shown. Figures enter softly around the edges of their band, and a verdict that is
trusted less counts less. After Pearl, Probabilistic Reasoning in Intelligent Systems (1988), ch. 2.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from kettle import bands, causes, holds, observations, problems, readings
from kettle.bands import Verdict
from kettle.causes.model import Cause
from kettle.causes.usual import ECHOES, States
from kettle.facts import Facts
from kettle.holds import Hold
from kettle.observations import Value
from kettle.problems import Problem
from kettle.quantities import QUANTITIES
from kettle.unit import CHOICES, Unit
from kettle.units import TRADE, ShownUnits

TRUST_SHARE: Final = {"good": 1.0, "weak": 0.6, "none": 0.0}
SHARPEST_EDGE: Final = 0.5
SOFTEST_EDGE: Final = 4.0
SHOWN_FROM: Final = 0.005
WORTH_SAYING: Final = 0.15
WORTH_CHECKING_BITS: Final = 0.03
CHECKS_SHOWN: Final = 5
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
    """One piece of evidence on one cause: the key it comes from, words, and its log-odds against a sound unit."""

    key: str
    text: str
    weight: float


@dataclass(frozen=True)
class Suspect:
    """One ranked answer: its cause (HEALTHY where nothing is wrong), its probability and the evidence on it."""

    cause: Cause
    probability: float
    speaks_for: tuple[Evidence, ...]
    speaks_against: tuple[Evidence, ...]

    @property
    def codes(self) -> tuple[str, ...]:
        """The cause codes of the case format; empty for healthy."""
        return (self.cause.code,) if self.cause.code else ()


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
    """Everything worked out about a unit at one moment; the shape of the case format's answer."""

    facts: Facts
    verdicts: tuple[Verdict, ...]
    problems: tuple[Problem, ...]
    holds: tuple[Hold, ...]
    ranking: tuple[Suspect, ...]
    next_checks: tuple[Check, ...]
    assumed: tuple[str, ...]

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


def judge(unit: Unit, seen: Mapping[str, Value], ages_min: Mapping[str, float] | None = None, shown: ShownUnits = TRADE) -> Judgement:
    """Work out and judge a unit from the observations that stand (key -> checked value).

    `ages_min` gives their ages in minutes where times are known; `shown` the units the words are written in.
    """
    facts = readings.work_out(unit, seen, ages_min, shown)
    found = tuple(bands.verdicts(facts))
    in_force = tuple(holds.standing(facts))
    features = _features(facts, found)
    table = causes.usual(unit)
    hypotheses = [causes.HEALTHY, *(c for c in causes.CATALOGUE.values() if c.possible_on(unit))]
    shapes = {c.code: {key: _shape(table, c, unit, key) for key in table} for c in hypotheses}
    posterior = _posterior(unit, hypotheses, features, shapes)
    # Every cause is told against a sound unit; "healthy" is told against the mix of all causes.
    bases: dict[str, Mapping[str, States]] = {cause.code: shapes[""] for cause in hypotheses}
    bases[""] = _mix(unit, hypotheses[1:], shapes)
    ranking = sorted(
        (
            _suspect(cause, posterior[cause.code], features, shapes[cause.code], bases[cause.code])
            for cause in hypotheses
            if posterior[cause.code] >= SHOWN_FROM
        ),
        key=lambda suspect: -suspect.probability,
    )
    return Judgement(
        facts=facts,
        verdicts=found,
        problems=tuple(problems.found(facts)),
        holds=in_force,
        ranking=tuple(ranking),
        next_checks=tuple(_next_checks(facts, hypotheses, posterior, shapes, in_force)),
        assumed=_assumed(unit, found),
    )


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


def _features(facts: Facts, found: tuple[Verdict, ...]) -> list[_Feature]:
    shown = facts.shown
    table = causes.usual(facts.unit)
    features = []
    for verdict in found:
        if verdict.quantity in table and verdict.state != "impossible":
            share = TRUST_SHARE[verdict.trust] * _echo_share(verdict.quantity, facts)
            seen = membership(verdict.value, verdict.low, verdict.high, verdict.spread)
            features.append(_Feature(verdict.quantity, seen, share, _verdict_words(verdict, shown)))
    for key, value in facts.seen.items():
        states = table.get(key)
        if states is None or isinstance(value, float):
            continue
        entry = observations.get(key)
        words = [word for word in (value if isinstance(value, tuple) else (value,)) if word in states]
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
    where = {"low": "below", "high": "above", "ok": "inside"}[verdict.state]
    about = "about " if verdict.spread else ""
    low, high = (shown.figure(edge, unit, 0) for edge in (verdict.low, verdict.high))
    return f"{label} {about}{shown.text(verdict.value, unit, 0 if about else decimals)} is {where} {low} to {high}"


def _shape(table: Mapping[str, States], cause: Cause, unit: Unit, key: str) -> States:
    """What a cause shows in one feature; states it does not name share the rest as on a sound unit."""
    base = table[key]
    named = cause.effects_on(unit).get(key)
    if named is None:
        return base
    if key in observations.REGISTRY and observations.REGISTRY[key].many:
        return {**base, **named}
    rest = 1.0 - sum(named.values())
    base_rest = sum(p for state, p in base.items() if state not in named)
    return {state: named[state] if state in named else p * rest / base_rest for state, p in base.items()}


def _likelihood(seen: Mapping[str, float], shape: States) -> float:
    return sum(share * shape[state] for state, share in seen.items())


def _weight(feature: _Feature, shape: States, base: States) -> float:
    return feature.share * math.log(_likelihood(feature.seen, shape) / _likelihood(feature.seen, base))


def _posterior(
    unit: Unit, hypotheses: list[Cause], features: list[_Feature], shapes: Mapping[str, Mapping[str, States]]
) -> dict[str, float]:
    """Return the probability of each hypothesis by code; they sum to 1."""
    base = shapes[""]
    scores = {
        cause.code: math.log(cause.prior_on(unit)) + sum(_weight(f, shapes[cause.code][f.key], base[f.key]) for f in features)
        for cause in hypotheses
    }
    top = max(scores.values())
    raw = {code: math.exp(score - top) for code, score in scores.items()}
    total = sum(raw.values())
    return {code: value / total for code, value in raw.items()}


def _mix(unit: Unit, hypotheses: list[Cause], shapes: Mapping[str, Mapping[str, States]]) -> dict[str, States]:
    """Return what the causes show together, each weighed by how common it is."""
    priors = {cause.code: cause.prior_on(unit) for cause in hypotheses}
    total = sum(priors.values())
    return {
        key: {state: sum(p * shapes[code][key][state] for code, p in priors.items()) / total for state in states}
        for key, states in shapes[""].items()
    }


def _suspect(
    cause: Cause,
    probability: float,
    features: list[_Feature],
    shape: Mapping[str, States],
    base: Mapping[str, States],
) -> Suspect:
    speaks_for, against = [], []
    for feature in features:
        weight = _weight(feature, shape[feature.key], base[feature.key])
        if weight >= WORTH_SAYING:
            speaks_for.append(Evidence(feature.key, feature.text, weight))
        elif weight <= -WORTH_SAYING:
            expected = max(shape[feature.key], key=lambda state: shape[feature.key][state])
            likeliest_seen = max(feature.seen, key=lambda state: feature.seen[state])
            less = "less usual with this" if expected == likeliest_seen else f"expected {_state_words(feature.key, expected)}"
            against.append(Evidence(feature.key, f"{feature.text}; {less}", weight))
    return Suspect(
        cause,
        probability,
        tuple(sorted(speaks_for, key=lambda e: -e.weight)),
        tuple(sorted(against, key=lambda e: e.weight)),
    )


def _state_words(key: str, state: str) -> str:
    entry = observations.REGISTRY.get(key)
    if entry is not None and not entry.is_number:
        return dict(entry.choices)[state]
    return STATE_WORDS[state]


def _next_checks(
    facts: Facts,
    hypotheses: list[Cause],
    posterior: Mapping[str, float],
    shapes: Mapping[str, Mapping[str, States]],
    in_force: tuple[Hold, ...],
) -> list[Check]:
    """Return the checks not yet made that would settle most per minute, at most CHECKS_SHOWN.

    Gain is the mutual information of cause and answer, in bits (Shannon 1948); what a hold blocks is left out.
    """
    blocked = {action for hold in in_force for action in hold.blocks}
    checks: dict[str, Check] = {}
    for feature in shapes[""]:
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
        gain, meaning = _gain(feature, hypotheses, posterior, shapes)
        gain *= _echo_share(feature, facts)
        minutes = sum(entry.minutes for entry in missing)
        first = missing[0]
        known = checks.get(first.key)
        if gain >= WORTH_CHECKING_BITS and (known is None or gain / minutes > known.gain_bits / known.minutes):
            checks[first.key] = Check(first.key, first.label, first.how, meaning, gain, minutes)
    return sorted(checks.values(), key=lambda check: -check.gain_bits / check.minutes)[:CHECKS_SHOWN]


def _band_missing(unit: Unit, feature: str) -> bool:
    """Whether a figure has no band on this unit, or what it is measured against is not on the plate."""
    entry = observations.REGISTRY.get(feature)
    if entry is not None and not entry.is_number:
        return False
    if feature == "amps_pct" and not unit.compressor_rla_a:
        return True
    return bands.default_band(unit, feature) is None


def _gain(
    feature: str,
    hypotheses: list[Cause],
    posterior: Mapping[str, float],
    shapes: Mapping[str, Mapping[str, States]],
) -> tuple[float, str]:
    gain = 0.0
    leaders: dict[str, list[str]] = {}
    for state in shapes[""][feature]:
        joint = {c.code: posterior[c.code] * shapes[c.code][feature][state] for c in hypotheses}
        total = sum(joint.values())
        gain += sum(p * math.log2(p / (total * posterior[code])) for code, p in joint.items() if p > 0 and posterior[code] > 0)
        leader = max(hypotheses, key=lambda c: joint[c.code] - total * posterior[c.code])
        leaders.setdefault(leader.label, []).append(_state_words(feature, state))
    meaning = "; ".join(f"{' or '.join(states)} points at {label.lower()}" for label, states in leaders.items())
    return gain, meaning[:1].upper() + meaning[1:]


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
