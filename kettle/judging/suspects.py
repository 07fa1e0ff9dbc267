"""Suspects: the ranked answers with the evidence on each.

A pair whose second cause nothing shows is counted with its first.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from kettle.judging.evidence import Evidence, Feature, state_words
from kettle.judging.network import Figures, Network
from kettle.knowledge import causes
from kettle.knowledge.causes.model import Cause
from kettle.knowledge.observations import Value, words_of

SHOWN_FROM: Final = 0.002
TOLD_SHARE: Final = 0.92
WORTH_SAYING: Final = 0.15
# A pair is named only where both causes together fit that many times better than either alone.
PAIR_EARNS: Final = 4.0
HOW_MANY: Final = {2: "Two", 3: "Three", 4: "Four", 5: "Five"}
# Two answers closer than this factor are said to be close.
CLOSE_CALL: Final = 2.0


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
        return f"{HOW_MANY[len(self.causes)]} things at once. {both}" if len(self.causes) > 1 else both

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


def remedies(suspect: Suspect, seen: Mapping[str, Value]) -> tuple[str, ...]:
    """Return how to put a suspect right: where it was looked at which of its several remedies it wants, that one."""
    if not suspect.causes:
        return suspect.correct
    found = []
    for cause in suspect.causes:
        key, each = cause.splits or ("", {})
        looked = [each[word] for word in words_of(seen.get(key)) if word in each]
        found.append(_merged(looked) if looked else cause.correct)
    return _merged(found)


def _merged(lists: Iterable[tuple[str, ...]]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(text for one in lists for text in one))


def normalised(score: Figures) -> Figures:
    """Return probabilities from log scores; they sum to 1."""
    raw: Figures = np.exp(score - score.max())
    raw /= raw.sum()
    return raw


def fold(network: Network, likelihood: Figures, posterior: Figures) -> Figures:
    """The posterior with every pair that does not earn its second cause counted with the better single of the two, three that do not earn
    their third with the best of their pairs, and every single that earns nothing beside what is given with that."""
    folded = posterior.copy()
    if len(network.threes):
        rows, pairs = network.threes[:, 0], network.threes[:, 1:]
        best = pairs[np.arange(len(rows)), np.argmax(likelihood[pairs], axis=1)]
        idle = likelihood[rows] - likelihood[best] < math.log(PAIR_EARNS)
        np.add.at(folded, best[idle], folded[rows][idle])
        folded[rows[idle]] = 0.0
    first, second = network.first_of_pair, network.second_of_pair
    better = np.where(likelihood[first] + network.log_prior[first] >= likelihood[second] + network.log_prior[second], first, second)
    earns = likelihood[network.pairs] - np.maximum(likelihood[first], likelihood[second]) >= math.log(PAIR_EARNS)
    np.add.at(folded, better[~earns], folded[network.pairs][~earns])
    folded[network.pairs][~earns] = 0.0
    if network.given:
        singles = slice(1, 1 + network.inferred)
        idle = likelihood[singles] - likelihood[0] < math.log(PAIR_EARNS)
        folded[0] += folded[singles][idle].sum()
        folded[singles][idle] = 0.0
    return folded


def rank(network: Network, weighed: Sequence[tuple[Feature, Figures]], folded: Figures) -> tuple[Suspect, ...]:
    """Every hypothesis worth naming; where readings contradict each other so that many small ones share the doubt, most of that."""
    order = np.argsort(-folded, kind="stable")
    worth = int((folded >= SHOWN_FROM).sum())
    most = int(np.searchsorted(np.cumsum(folded[order]), TOLD_SHARE)) + 1
    rows = (int(row) for row in order[: max(worth, most)])
    return tuple(suspect_at(network, row, float(folded[row]), weighed) for row in rows)


def suspect_at(network: Network, row: int, probability: float, weighed: Sequence[tuple[Feature, Figures]]) -> Suspect:
    """A hypothesis with its evidence, told against a sound unit; a sound unit is told against the mix of single causes."""
    members = network.members[row]
    singles = slice(1, 1 + network.inferred)
    nothing = network.rows[frozenset()]
    prior = np.exp(network.log_prior[singles])
    speaks_for, against = [], []
    for feature, told in weighed:
        mixed = None if members else feature.share * math.log(float(np.exp(told[singles] / feature.share) @ prior) / prior.sum())
        weight = float(told[row]) - (float(told[nothing]) if mixed is None else mixed)
        of = ""
        if len(members) > 1:
            by_itself = [abs(float(told[network.rows[frozenset((cause.code,))]] - told[nothing])) for cause in members]
            of = members[by_itself.index(max(by_itself))].label
        if weight >= WORTH_SAYING:
            speaks_for.append(Evidence(feature.key, feature.text, weight, of, feature.stage))
        elif weight <= -WORTH_SAYING and feature.key not in network.columns:
            against.append(Evidence(feature.key, feature.text, weight, of, feature.stage))
        elif weight <= -WORTH_SAYING:
            shape = network.shape(row, feature.key)
            expected = max(shape, key=lambda state: shape[state])
            likeliest_seen = max(feature.seen, key=lambda state: feature.seen[state])
            plain = expected == likeliest_seen or network.columns[feature.key].many
            less = "less usual with this" if plain else f"expected {state_words(feature.key, expected)}"
            against.append(Evidence(feature.key, f"{feature.text}; {less}", weight, of, feature.stage))
    return Suspect(
        members,
        probability,
        tuple(sorted(speaks_for, key=lambda e: -e.weight)),
        tuple(sorted(against, key=lambda e: e.weight)),
    )


def close_call(ranking: Sequence[Suspect]) -> str:
    """Return that two answers lie close together, in words; empty where they do not."""
    if len(ranking) < 2 or not (ranking[0].speaks_for or ranking[0].speaks_against):
        return ""
    one, other = ranking[:2]
    if one.probability > CLOSE_CALL * other.probability:
        return ""
    return f"Close between {one.label.lower()} and {other.label.lower()}: one more check before hands go on."
