"""What each stage of a course weighs: its evidence under every hypothesis, seen for the first time or again, before and after acts."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Final

import numpy as np

from kettle.judging.checks import PERSISTS
from kettle.judging.evidence import Feature, log_likelihood, weigh
from kettle.judging.facts import Facts
from kettle.judging.network import Figures, Network
from kettle.judging.suspects import fold, normalised
from kettle.judging.testimony import HEARD, Testimony
from kettle.judging.testimony import weighed as weigh_heard
from kettle.judging.ways import Try, carried, over_the_ways, seen_again
from kettle.knowledge import observations
from kettle.knowledge.acts import Act
from kettle.knowledge.observations import Value
from kettle.knowledge.quantities import QUANTITIES

# What is told of the ice on a coil, and the forms that are more than frost.
ICE_OF: Final = ("ice_form", "ice_places")
ICED: Final = ("heavy_frost", "hard_ice", "snow")
# A figure that proves an act shows the same again where it did not work: nothing else was changed that could have moved it.
PROOF_PERSISTS: Final = 0.98
# Beside each two of so many causes that were worked on, and were this likely there, a third is looked for.
WORKED_ON_FROM: Final = 0.05
WORKED_ON: Final = 3


@dataclass(frozen=True)
class Stage:
    """A stage as it is weighed: its network and features, and what each does to every hypothesis.

    `read` holds the figures that rest on something seen in it, `last` the state each feature was last seen in before (empty: never).
    `likelihood` is that of its facts by themselves; `again` where the same is wrong as in the stage before, so that what was seen before is
    expected to be seen again.
    """

    network: Network
    weighed: list[tuple[Feature, Figures]]
    last: list[str]
    likelihood: Figures
    again: Figures
    derived: Mapping[str, float]
    read: Mapping[str, float]


@dataclass(frozen=True)
class Work:
    """A course as it was worked out: its stages, the likelihood of each row over all ways the acts may have come out, the row each stage
    is seen from in the likeliest, what remains of each row, and how each feature was last seen."""

    network: Network
    weighed: list[Stage]
    likelihood: Figures
    likeliest: list[np.ndarray]
    remains: Mapping[int, Sequence[tuple[float, frozenset[str]]]]
    folded: Figures
    last_seen: Mapping[tuple[str, str], str]


def work_out_stages(
    every: Sequence[Facts], seen: Sequence[Sequence[Feature]], networks: Sequence[Network], stages: Sequence[Mapping[str, Value]],
    did: Sequence[Act], tries: Mapping[str, Sequence[Try]], spoken: Sequence[Sequence[Testimony]],
) -> Work:  # fmt: skip
    """Return a course worked out: `every` stage's facts and what was `seen` in it as features of its network, what was done between them,
    the acts and looks that may have ended each cause (`tries`), and what was `spoken` by itself."""
    weighed: list[Stage] = []
    last_seen: dict[tuple[str, str], str] = {}
    for place in range(len(stages)):
        weighed.append(_weigh(every[place], seen[place], networks[place], stages, did, place, last_seen, spoken[place]))
    network = networks[0]
    likelihood, likeliest, remains = over_the_ways(
        network,
        [one.likelihood for one in weighed],
        [one.again for one in weighed],
        [partial(carried, one.network, one.weighed, one.last) for one in weighed],
        tries,
    )
    folded = fold(network, likelihood, normalised(network.log_prior + likelihood))
    return Work(network, weighed, likelihood, likeliest, remains, folded, last_seen)


def first_and_again(weighed: Sequence[Stage]) -> tuple[list[tuple[Feature, Figures]], float]:
    """Return what was seen for the first time in any stage, and how likely what was seen again is of a unit nobody understands."""
    first, again = [], 0.0
    for stage in weighed:
        for (feature, told), last in zip(stage.weighed, stage.last, strict=True):
            if last:
                again += feature.share * math.log(PERSISTS if last == feature.likeliest else (1.0 - PERSISTS) / 2.0)
            else:
                first.append((feature, told))
    return first, again


def worked_on(worked: Work, tries: Mapping[str, Sequence[Try]]) -> frozenset[str]:
    """The causes something was done against that were likeliest there as the unit was found; a few."""
    was = was_by_cause(worked.network, worked.folded)
    found = sorted((code for code in tries if was.get(code, 0.0) >= WORKED_ON_FROM), key=lambda code: -was[code])
    return frozenset(found[:WORKED_ON])


def was_by_cause(network: Network, folded: Figures) -> dict[str, float]:
    """How likely each cause was there as the unit was found, alone or with others."""
    was: dict[str, float] = {}
    for row in np.flatnonzero(folded > 0):
        for cause in network.members[row]:
            was[cause.code] = was.get(cause.code, 0.0) + float(folded[row])
    return was


def _weigh(
    facts: Facts, found: Sequence[Feature], network: Network, stages: Sequence[Mapping[str, Value]], did: Sequence[Act], place: int,
    before: dict[tuple[str, str], str], heard: Sequence[Testimony],
) -> Stage:  # fmt: skip
    """A stage's features: those that rest on something seen in it, and that no act before it made its own; and what was heard in it.

    `before` holds the state each was last seen in, and is brought up to this stage.
    """
    muted = {key for one in did[:place] for key in one.mutes} | {key for one in heard for key in one.mutes}
    fresh = set(stages[place])
    if muted & fresh and facts.is_("ice_form", *ICED):
        # Ice that is back on a coil that was bare: nothing tells more, and none of it was seen before.
        muted -= set(ICE_OF)
        for key in [key for key in before if key[0] in ICE_OF]:
            del before[key]
    counted = [feature for feature in found if feature.key not in muted and fresh & (set(feature.rests_on) or needs_of(feature.key))]
    if place:
        counted = [replace(feature, stage=place) for feature in counted]
    weighed = [*weigh(network, counted), *(weigh_heard(network, one, place) for one in heard)]
    likelihood = log_likelihood(network, weighed)
    again: Figures = np.zeros_like(likelihood)
    lasts = []
    for feature, told in weighed:
        if feature.key.startswith(HEARD):
            again = again + told
            lasts.append("")
            continue
        # Several words of one list are looked for one by one.
        which = (feature.key, feature.likeliest if network.columns[feature.key].many else "")
        last = before.get(which, "")
        persists = PROOF_PERSISTS if place and _is_proof(feature.key, did[place - 1]) else PERSISTS
        again = again + (feature.share * seen_again(network, feature.key, last, feature.likeliest, persists) if last else told)
        lasts.append(last)
        before[which] = feature.likeliest
    figures = {**{key: value for key, value in facts.seen.items() if isinstance(value, float)}, **facts.derived}
    read = {key: value for key, value in figures.items() if fresh & needs_of(key)}
    return Stage(network, weighed, lasts, likelihood, again, facts.derived, read)


def _is_proof(key: str, act: Act) -> bool:
    """Whether a figure is what proves an act."""
    return key in act.proof and (key in QUANTITIES or observations.get(key).is_number)


def needs_of(key: str) -> set[str]:
    """Return the observations a feature rests on."""
    return set(QUANTITIES[key].needs) | {"return_air_f"} if key in QUANTITIES else {key}


def as_seen_from(stage: Stage, rows: np.ndarray) -> list[tuple[Feature, Figures]]:
    """A stage's evidence on every hypothesis, as it is in the likeliest way its acts came out.

    Where an act put something right, what is seen after it tells by how much better it fits than if the same were still wrong; what is
    only seen again tells nothing new.
    """
    found, own = [], np.arange(len(rows))
    for (feature, told), last in zip(stage.weighed, stage.last, strict=True):
        untouched = np.zeros_like(told) if last and last == feature.likeliest else told - told[0]
        found.append((feature, told[0] + np.where(rows == own, untouched, told[rows] - told)))
    return found
