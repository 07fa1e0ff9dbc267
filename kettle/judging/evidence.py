"""Evidence: what was seen as features of the network, each with its weight, in words.

Figures enter softly around the edges of their band, a verdict that is trusted less counts less, what is not observed says nothing.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from kettle.judging import stopped
from kettle.judging.facts import Facts
from kettle.judging.network import Figures, Network
from kettle.judging.verdicts import Verdict
from kettle.knowledge import observations
from kettle.knowledge.bands import NO_UPPER_END
from kettle.knowledge.causes.usual import ECHOES
from kettle.knowledge.measures import ShownUnits, ohms_text
from kettle.knowledge.quantities import QUANTITIES

TRUST_SHARE: Final = {"good": 1.0, "weak": 0.6, "none": 0.0}
# The tables are kept wide, so that no one reading decides; together they are surer than their product says. The exponent is that at
# which chances stated on simulated units (all but the held-out) come true: benchmarks.technician.
SPEAKS: Final = 1.4
SHARPEST_EDGE: Final = 0.5
SOFTEST_EDGE: Final = 4.0
# Insulation has no upper end that anybody minds.
ENDLESS_OHM: Final = 1e9
# A hiss at rest may be the last of a pump-down too: it counts less than the valve found stuck open.
HISS_SHARE: Final = 0.7
# A head that stands over its air tells that the compressor ran minutes ago; how it runs (short cycles, a trip to come) only a look does.
HEAD_SHARE: Final = 0.7
# What lies no further outside than this, in bands, a sound unit may show as its table says; the least that is left of it far out. Judgement
# of the trade.
NEAR_BANDS: Final = 0.5
FAR_SHARE: Final = 0.1
# How far these lie outside says how long it has been so, not what it comes of; but a box that stays warm while its unit runs is none that
# only wants time.
GROWS_WITH_TIME: Final = ("box_temp_f", "held_warm_f", "product_over_air_f", "rest_off_f", "lp_open_off_f")
NOT_WHILE_IT_RUNS: Final = ("held_warm_f",)
# A state that a sound unit shows so often now is none that it shows by chance.
USUAL_NOW: Final = 0.25
STATE_WORDS: Final = {"low": "low", "ok": "in band", "high": "high"}


@dataclass(frozen=True)
class Evidence:
    """One piece of evidence: the key it comes from, words, its log-odds against a sound unit, of a pair whose it is, and its stage."""

    key: str
    text: str
    weight: float
    of: str = ""
    stage: int = 0


@dataclass(frozen=True)
class Feature:
    """One thing weighed: how much of each state was seen, how far it counts (0 to 1), and the stage it was seen in.

    `by_chance` is how much of what a sound unit shows of that state reaches so far out, `rests_on` the observations it was told from where
    nobody looked at the thing itself.
    """

    key: str
    seen: Mapping[str, float]
    share: float
    text: str
    stage: int = 0
    by_chance: float = 1.0
    rests_on: tuple[str, ...] = ()

    @property
    def likeliest(self) -> str:
        """The state that was seen most."""
        return max(self.seen, key=lambda one: self.seen[one])


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


def features(facts: Facts, found: tuple[Verdict, ...], network: Network) -> list[Feature]:
    """Return everything seen that the network knows, each with how much of each state was seen and how far it counts."""
    shown = facts.shown
    # In its first minutes no box comes down yet.
    runs = facts.is_("compressor", "running") and facts.moment != "just_started"
    features = []
    for verdict in found:
        if verdict.quantity in network.columns and verdict.state != "impossible":
            share = TRUST_SHARE[verdict.trust] * echo_share(verdict.quantity, facts)
            seen = membership(verdict.value, verdict.low, verdict.high, verdict.spread)
            if verdict.quantity in NO_UPPER_END:
                seen = {"low": seen["low"], "ok": 1.0 - seen["low"], "high": 0.0}
            far = by_chance(verdict, runs)
            features.append(Feature(verdict.quantity, seen, share, verdict_words(verdict, shown), by_chance=far))
    # In the order of their keys, so that the order of entry does not even move the last digit.
    for key, value in sorted(facts.seen.items()):
        columns = network.columns.get(key)
        if columns is None or isinstance(value, float) or stopped.says_nothing(key, facts):
            continue
        entry = observations.get(key).on(facts.unit)
        words = [word for word in (value if isinstance(value, tuple) else (value,)) if word in columns.states]
        # Several places of one list tell much the same story: together they count as their number's root.
        share = echo_share(key, facts) / math.sqrt(len(words) or 1)
        for word in words:
            text = f"{entry.label}: {entry.show((word,) if entry.many else word)}"
            features.append(Feature(key, {word: 1.0}, share, text))
    if stopped.hisses_at_rest(facts) and "liquid_solenoid" in network.columns:
        hiss = "The valve hisses though the unit stands"
        features.append(Feature("liquid_solenoid", {"stuck_open": 1.0}, HISS_SHARE, hiss, rests_on=("valve_sound", "compressor")))
    if stopped.runs_by_its_head(facts) and "compressor" in network.columns:
        head = f"The head stands {shown.text(facts.head_over_air_f or 0.0, '°F diff', 0)} over its air: the compressor runs"
        features.append(Feature("compressor", {"running": 1.0}, HEAD_SHARE, head, rests_on=("discharge_psig", "liquid_psig", "ambient_f")))
    return features


def by_chance(verdict: Verdict, runs: bool = False) -> float:
    """Return the share of what a sound unit shows beyond its band that reaches as far as a figure lies: all of it at the edge, less the
    more bands it lies outside, never less than a tenth. `runs` is whether its compressor runs."""
    width, quantity = verdict.high - verdict.low, verdict.quantity
    grows = quantity in GROWS_WITH_TIME and not (runs and quantity in NOT_WHILE_IT_RUNS)
    if width <= 0 or quantity in NO_UPPER_END or grows:
        return 1.0
    outside = max(verdict.low - verdict.value, verdict.value - verdict.high, 0.0) / width
    return max(math.exp(-max(0.0, outside - NEAR_BANDS)), FAR_SHARE)


def echo_share(key: str, facts: Facts) -> float:
    """Return how far a feature counts that repeats another one which was seen too."""
    originals, share = ECHOES.get(key, ((), 1.0))
    return share if any(original in facts.seen or original in facts.derived for original in originals) else 1.0


def quantity_name(key: str) -> tuple[str, str, int]:
    """Return label, unit and decimals of a quantity worked out or of an observed figure."""
    if key in QUANTITIES:
        quantity = QUANTITIES[key]
        return quantity.label, quantity.unit, quantity.decimals
    entry = observations.get(key)
    return entry.label, entry.unit, entry.decimals


def verdict_words(verdict: Verdict, shown: ShownUnits) -> str:
    """Return a verdict in words: what it is, where it stands, against which band."""
    label, unit, decimals = quantity_name(verdict.quantity)
    where = {"low": "below", "high": "above", "ok": "inside", "impossible": "cannot be against"}[verdict.state]
    about = "about " if verdict.spread else ""
    if unit == "Ω":
        span = f"{ohms_text(verdict.low)} to {ohms_text(verdict.high)}" if verdict.high < ENDLESS_OHM else ohms_text(verdict.low)
        return f"{label} {ohms_text(verdict.value)} is {where} {span}"
    low, high = (shown.figure(edge, unit, 0) for edge in (verdict.low, verdict.high))
    if verdict.quantity in NO_UPPER_END:
        over = "is not over" if verdict.state == "low" else "is over"
        return f"{label} {about}{shown.text(verdict.value, unit, 0 if about else decimals)} {over} {low}"
    return f"{label} {about}{shown.text(verdict.value, unit, 0 if about else decimals)} is {where} {low} to {high}"


def state_words(key: str, state: str) -> str:
    """Return a state of a feature in words."""
    entry = observations.REGISTRY.get(key)
    if entry is not None and not entry.is_number:
        return dict(entry.choices)[state]
    return STATE_WORDS[state]


def weigh(network: Network, features: Sequence[Feature]) -> list[tuple[Feature, Figures]]:
    """Every feature that counts, with its share-weighted log-likelihood under every hypothesis."""
    weighed = []
    for feature in features:
        if feature.share > 0:
            columns = network.columns[feature.key]
            weights = np.array([feature.seen.get(state, 0.0) for state in columns.states])
            shows = network.table[:, columns.place] @ weights
            shows = not_by_chance(shows, float(shows[network.rows[frozenset()]]), feature)
            weighed.append((feature, SPEAKS * feature.share * np.log(shows)))
    return weighed


def not_by_chance(shows: Figures, sound: float, feature: Feature) -> Figures:
    """Return how often hypotheses show a state (`sound`: a sound unit) that lies as far out as a feature does.

    So far out a figure is not a sound unit's scatter: what a cause shows no more often than that does not explain it.
    """
    if feature.by_chance >= 1.0 or sound >= USUAL_NOW:
        return shows
    less: Figures = shows - np.minimum(shows, sound) * (1.0 - feature.by_chance)
    return less


def log_likelihood(network: Network, weighed: Sequence[tuple[Feature, Figures]]) -> Figures:
    """Return the log-likelihood of every hypothesis, all features together."""
    total: Figures = np.zeros(len(network.members))
    for _, told in weighed:
        total = total + told
    return total
