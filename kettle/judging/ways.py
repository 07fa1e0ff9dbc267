"""How what was done may have come out: every way the acts against a hypothesis may have worked or not, and what was seen gone since."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final

import numpy as np

from kettle.judging.network import Figures, Network
from kettle.knowledge import observations
from kettle.knowledge.acts import Act
from kettle.knowledge.observations import Value

# Log-odds by which an answer to the facts as found is beyond what any act could bring back.
HOPELESS: Final = 14.0
# A look that finds a part as on a sound unit: how often it is so there at the least, how often a cause leaves it so at the most, how often
# that cause shows what was seen before at the least; and how often it goes though nobody wrote down what was done. Judgement of the trade.
USUALLY: Final = 0.5
HARDLY: Final = 0.3
CLEARLY: Final = 0.12
SEEN_GONE: Final = 0.15
# A circuit that is tight again has not its gas again.
TELLS_OF_ITS_ACT: Final = ("leak_test",)
LOOKED: Final = Act("", "looked", "Looked at again", still=True)


@dataclass(frozen=True)
class Try:
    """One act against one cause: when it was done and how often it works."""

    stage: int
    share: float
    act: Act


def tries_of(done: Sequence[Act]) -> dict[str, list[Try]]:
    """Every act against each cause it may put right, in order; acts count from the stage they opened."""
    found: dict[str, list[Try]] = {}
    for stage, one in enumerate(done, start=1):
        for code, share in one.removes.items():
            found.setdefault(code, []).append(Try(stage, share, one))
    return found


def with_looks(tries: Mapping[str, Sequence[Try]], network: Network, stages: Sequence[Mapping[str, Value]]) -> dict[str, list[Try]]:
    """The acts against each cause, and for those nothing was done against the looks that found them gone: where a part was seen as the
    cause leaves it, and later as it is on a sound unit, the cause went in between, whoever did it."""
    found = {code: list(one) for code, one in tries.items()}
    for key in network.columns.keys() & {key for stage in stages[1:] for key in stage}:
        columns = network.columns[key]
        if columns.many or key in TELLS_OF_ITS_ACT or key not in observations.REGISTRY or observations.get(key).is_number:
            continue
        before: set[str] = set()
        for place, stage in enumerate(stages):
            word = stage.get(key)
            if not isinstance(word, str) or word not in columns.states:
                continue
            if before and network.shape(network.rows[frozenset()], key)[word] >= USUALLY:
                for code in _left_by(network, key, word, before):
                    if code not in tries:
                        found.setdefault(code, []).append(Try(place, SEEN_GONE, LOOKED))
            before.add(word)
    return found


def _left_by(network: Network, key: str, word: str, before: set[str]) -> list[str]:
    """The causes that leave a part as it was seen before, and hardly ever as it is seen now."""
    found = []
    for code in network.codes:
        shows = network.shape(network.rows[frozenset((code,))], key)
        if shows[word] <= HARDLY and max(shows[one] for one in before) >= CLEARLY:
            found.append(code)
    return found


@dataclass(frozen=True)
class _Way:
    """One way the acts against one or two causes may have come out: its chance, which causes (by place) went, and who was still there
    from stage to stage: (first, end, places)."""

    log_chance: float
    spans: tuple[tuple[int, int, tuple[int, ...]], ...]
    gone: tuple[int, ...]


def _ways_out(tried: Sequence[Sequence[Try]], stages: int) -> list[_Way]:
    """Every way the acts against the causes of a hypothesis may have come out; one nothing was done against is there throughout."""
    found = []
    for way in product(*(_ways(one) for one in tried)):
        since = [moment for _, moment in way]
        moments = sorted({0, *(moment for moment in since if moment is not None)})
        spans = tuple(
            (start, end, tuple(place for place, moment in enumerate(since) if moment is None or start < moment))
            for start, end in zip(moments, (*moments[1:], stages), strict=True)
        )
        gone = tuple(place for place, moment in enumerate(since) if moment is not None)
        found.append(_Way(math.log(max(math.prod(share for share, _ in way), 1e-12)), spans, gone))
    return found


def _ways(tried: Sequence[Try]) -> list[tuple[float, int | None]]:
    """How the acts against one cause may have come out: probability, and the stage from which it was gone (None: never)."""
    ways, not_yet = [], 1.0
    for one in tried:
        ways.append((not_yet * one.share, one.stage))
        not_yet *= 1.0 - one.share
    return [*ways, (not_yet, None)]


def over_the_ways(
    network: Network, by_itself: Sequence[Figures], again: Sequence[Figures], tries: Mapping[str, Sequence[Try]]
) -> tuple[Figures, list[np.ndarray], dict[int, list[tuple[float, frozenset[str]]]]]:
    """Return each hypothesis' likelihood over all ways; the row each stage is seen from in its likeliest way; and what remains, by row.

    `by_itself` is the log-likelihood of each stage's facts under every hypothesis, `again` where the same is wrong as in the stage before.
    """
    likelihood: Figures = by_itself[0] + np.sum(again[1:], axis=0)
    likeliest = [np.arange(len(network.members)) for _ in by_itself]
    remains: dict[int, list[tuple[float, frozenset[str]]]] = {}
    # What each hypothesis scores where its stage begins something new, and what repeating it from the second stage on has added up to.
    fresh = [one.tolist() for one in by_itself]
    repeats = np.cumsum([np.zeros_like(likelihood), *again[1:]], axis=0).tolist()
    found = network.log_prior + by_itself[0]
    hopeless = float(found.max()) - HOPELESS
    known: dict[tuple[str, ...], list[_Way]] = {}
    for row in np.flatnonzero(found >= hopeless).tolist():
        members = network.members[row]
        codes = tuple(cause.code if cause.code in tries else "" for cause in members)
        if not any(codes):
            continue
        if codes not in known:
            known[codes] = _ways_out([tries.get(code, ()) for code in codes], len(by_itself))
        outcomes = []
        for way in known[codes]:
            score, segments = way.log_chance, []
            for start, end, still in way.spans:
                at = row if len(still) == len(members) else network.rows[frozenset(members[place].code for place in still)]
                score += fresh[start][at] + repeats[end - 1][at] - repeats[start][at]
                segments.append((start, end, at))
            outcomes.append((score, segments, frozenset(members[place].code for place in way.gone)))
        # Few ways each: plain floats are quicker here than arrays.
        best = max(outcomes, key=lambda outcome: outcome[0])
        total = best[0] + math.log(sum(math.exp(score - best[0]) for score, _, _ in outcomes))
        likelihood[row] = total
        remains[row] = [(math.exp(score - total), gone) for score, _, gone in outcomes]
        for start, end, at in best[1]:
            if at != row:
                for place in range(start, end):
                    likeliest[place][row] = at
    return likelihood, likeliest, remains
