"""Something else: that none of the known causes is there, as an answer that may win.

What nobody knows may show anything: each thing seen is as likely as on a unit with any of the known faults, or by chance alone. Where
the known causes explain what was seen, this is far behind them; where nothing fits, it comes out on top.
"""

import math
from collections.abc import Sequence
from typing import Final

import numpy as np

from kettle.judging.evidence import SPEAKS, Feature
from kettle.judging.network import Figures, Network
from kettle.judging.testimony import HEARD

# How often a call is about none of the known causes, and how far it then shows anything at all. Judgement of the trade.
PRIOR: Final = 0.02
ANYHOW: Final = 0.5
# A word of a list is there by chance that often.
WORD_BY_CHANCE: Final = 0.3
# It is told from here on, and shown less often than this by the best answer a thing counts as not fitting.
TOLD_FROM: Final = 0.25
HARDLY_FITS: Final = 0.12
MOST_NAMED: Final = 4
# Nobody is surer than this that nobody knows it.
SUREST: Final = 0.98


def something_else(network: Network, weighed: Sequence[tuple[Feature, Figures]], likelihood: Figures, repeated: float = 0.0) -> float:
    """Return how likely it is that none of the known causes is there (0 to 1).

    `weighed` holds each thing when it was first seen, with its log-likelihood under every hypothesis; `likelihood` that of everything
    under every hypothesis, `repeated` the log-likelihood of what was seen of the same things later.
    """
    singles = slice(1, 1 + network.inferred)
    score = math.log(PRIOR) + repeated
    for feature, told in weighed:
        if feature.key.startswith(HEARD):
            score += float(np.median(told[singles]))
            continue
        power = SPEAKS * feature.share
        columns = network.columns[feature.key]
        by_chance = WORD_BY_CHANCE if columns.many else 1.0 / len(columns.states)
        any_fault = float(np.exp(told[singles] / power).mean())
        score += power * math.log((1.0 - ANYHOW) * any_fault + ANYHOW * by_chance)
    known = float(np.logaddexp.reduce(likelihood + network.log_prior))
    return min(SUREST, 1.0 / (1.0 + math.exp(min(known - score, 700.0))))


def does_not_fit(weighed: Sequence[tuple[Feature, Figures]], row: int) -> tuple[str, ...]:
    """Return what was seen that a hypothesis hardly ever shows, in words, the least likely first."""
    odd = [(float(told[row]) / (SPEAKS * feature.share), feature.text) for feature, told in weighed if not feature.key.startswith(HEARD)]
    return tuple(text for fits, text in sorted(odd) if fits < math.log(HARDLY_FITS))[:MOST_NAMED]
