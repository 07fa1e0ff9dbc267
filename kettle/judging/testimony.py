"""What speaks for or against causes by itself, without an observation: a circuit that was measured, a part seen broken, a named cause."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from kettle.judging.evidence import Feature
from kettle.judging.network import Figures, Network

# How its features are told from those of observations.
HEARD: Final = "heard."
# Log-likelihood by which what was seen with the eyes goes before what the same could be taken for.
SEEN_SO: Final = 8.0


@dataclass(frozen=True)
class Testimony:
    """How well causes fit something that was heard, as log-likelihoods.

    `causes` maps codes to theirs, `rest` is that of every other cause, `sound` that of a unit with nothing wrong; a pair fits as well as
    the better of its two. `exact` maps whole sets of causes to theirs and goes before. `shown` are observations that explain it as well,
    with how well (key, state, log-likelihood): a cause fits by how often it shows them. `mutes` are features that tell the same again.
    `against` is what it takes from every hypothesis that holds a cause, whatever is beside it. `beyond_doubt` is what was seen with the
    eyes: its causes are there, and others are beside them.
    """

    key: str
    text: str
    causes: Mapping[str, float] = field(default_factory=dict)
    rest: float = 0.0
    sound: float = 0.0
    exact: Mapping[frozenset[str], float] = field(default_factory=dict)
    shown: tuple[tuple[str, str, float], ...] = ()
    mutes: tuple[str, ...] = ()
    against: Mapping[str, float] = field(default_factory=dict)
    beyond_doubt: bool = False


def weighed(network: Network, one: Testimony, stage: int = 0) -> tuple[Feature, Figures]:
    """Return a testimony as a feature with its log-likelihood under every hypothesis of a network."""
    by_cause = np.array([*(one.causes.get(code, one.rest) for code in network.codes), -np.inf])
    told: Figures = by_cause[network.parts].max(axis=1)
    told[network.rows[frozenset()]] = one.sound
    if one.against:
        taken = np.array([*(one.against.get(code, 0.0) for code in network.codes), 0.0])
        told = told + taken[network.parts].sum(axis=1)
    for codes, fit in one.exact.items():
        # What was seen beside it changes nothing of it.
        for row in network.beside(codes):
            told[row] = fit
    for key, state, fit in one.shown:
        if key in network.columns:
            columns = network.columns[key]
            shows = network.table[:, columns.start + columns.states.index(state)]
            told = np.log((1.0 - shows) * np.exp(told) + shows * math.exp(fit))
    return Feature(HEARD + one.key, {}, 1.0, one.text, stage), told
