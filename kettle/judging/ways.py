"""How what was done may have come out: every way the acts against a hypothesis may have worked or not, and what was seen gone since."""

import math
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Final, NamedTuple

import numpy as np

from kettle.judging.checks import PERSISTS
from kettle.judging.evidence import SPEAKS, Feature, not_by_chance
from kettle.judging.network import SMALLEST, Figures, Network
from kettle.knowledge import observations
from kettle.knowledge.acts import LOOKED, Act, that_opens
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
# What a repair makes less usual is still seen anew now and then.
HARDLY_ANEW: Final = 0.1


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
                        found.setdefault(code, []).append(Try(place, SEEN_GONE, that_opens(*LOOKED)))
            before.add(word)
    return found


def _left_by(network: Network, key: str, word: str, before: Collection[str]) -> list[str]:
    """The causes that leave a part as it was seen before, and hardly ever as it is seen now."""
    columns = network.columns[key]
    alone = network.table[[network.rows[frozenset((code,))] for code in network.codes], columns.place]
    now = alone[:, columns.states.index(word)]
    then = alone[:, [columns.states.index(one) for one in before]].max(axis=1)
    return [code for code, is_so in zip(network.codes, (now <= HARDLY) & (then >= CLEARLY), strict=True) if is_so]


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


def seen_again(network: Network, key: str, last: str, state: str, persists: float = PERSISTS) -> Figures | float:
    """Log-likelihood of seeing a state again, or another than before, where the same is wrong: it mostly stays (`persists`), and else turns
    to what each hypothesis shows besides."""
    if last == state:
        return math.log(persists)
    columns = network.columns[key]
    now, then = (network.table[:, columns.start + columns.states.index(one)] for one in (state, last))
    turned: Figures = np.log((1.0 - persists) * np.clip(now / np.maximum(1.0 - then, 1e-9), SMALLEST, 1.0))
    return turned


def carried(
    network: Network, weighed: Sequence[tuple[Feature, Figures]], last: Sequence[str], then: np.ndarray, now: np.ndarray
) -> Figures:  # fmt: skip
    """Return the log-likelihood of a stage's facts under the rows `now`, where the rows `then` were there before it.

    `last` is how each feature was last seen (empty: never). What a repair does not touch stays as it was seen: as far as both rows show
    the state seen before equally often, it is seen again as if nothing had been done; the rest is drawn anew from what `now` shows more
    often than `then` did (the maximal coupling of both: Lindvall, Lectures on the Coupling Method, 1992).
    """
    total: Figures = np.zeros(len(now))
    for (feature, told), before in zip(weighed, last, strict=True):
        if not before:
            total += told[now]
            continue
        columns = network.columns[feature.key]
        old, new = network.table[then, columns.place], network.table[now, columns.place]
        if not columns.many:
            seen_at, sound = columns.states.index(feature.likeliest), network.table[network.rows[frozenset()], columns.place]
            for rows in (old, new):
                rows[:, seen_at] = not_by_chance(rows[:, seen_at], float(sound[seen_at]), feature)
        stays = np.minimum(new[:, columns.states.index(before)] / old[:, columns.states.index(before)], 1.0)
        if columns.many:
            fresh = new[:, columns.states.index(feature.likeliest)] * HARDLY_ANEW
        else:
            seen = np.array([feature.seen.get(state, 0.0) for state in columns.states])
            more = np.maximum(new - old, 0.0)
            drawn = (more @ seen) / np.maximum(more.sum(axis=1), SMALLEST)
            fresh = (1.0 - HARDLY_ANEW) * drawn + HARDLY_ANEW * (new @ seen)
        kept = np.broadcast_to(np.exp(seen_again(network, feature.key, before, feature.likeliest)), len(network.members))[now]
        total += feature.share * np.log(np.maximum(stays * kept + (1.0 - stays) * fresh**SPEAKS, SMALLEST))
    return total


def over_the_ways(
    network: Network,
    by_itself: Sequence[Figures],
    again: Sequence[Figures],
    after: Sequence[Callable[[np.ndarray, np.ndarray], Figures]],
    tries: Mapping[str, Sequence[Try]],
) -> tuple[Figures, list[np.ndarray], dict[int, list[tuple[float, frozenset[str]]]]]:
    """Return each hypothesis' likelihood over all ways; the row each stage is seen from in its likeliest way; and what remains, by row.

    `by_itself` is the log-likelihood of each stage's facts under every hypothesis, `again` where the same is wrong as in the stage before,
    `after` (rows before it, rows in it) where something went before it.
    """
    likelihood: Figures = by_itself[0] + np.sum(again[1:], axis=0)
    likeliest = [np.arange(len(network.members)) for _ in by_itself]
    remains: dict[int, list[tuple[float, frozenset[str]]]] = {}
    # What each hypothesis scores by the facts as found, and what repeating it from the second stage on has added up to.
    first = by_itself[0].tolist()
    repeats = np.cumsum([np.zeros_like(likelihood), *again[1:]], axis=0).tolist()
    paths = _paths(network, by_itself[0], tries, len(by_itself))
    turned = _turned({turn for ways in paths.values() for _, spans in ways for turn in spans if turn.start}, after)
    for row, ways in paths.items():
        outcomes = []
        for way, spans in ways:
            score = way.log_chance
            for one in spans:
                score += turned[one.start, one.before, one.at] if one.start else first[one.at]
                score += repeats[one.end - 1][one.at] - repeats[one.start][one.at]
            outcomes.append((score, spans, frozenset(network.members[row][place].code for place in way.gone)))
        # Few ways each: plain floats are quicker here than arrays.
        best = max(outcomes, key=lambda outcome: outcome[0])
        total = best[0] + math.log(sum(math.exp(score - best[0]) for score, _, _ in outcomes))
        likelihood[row] = total
        remains[row] = [(math.exp(score - total), gone) for score, _, gone in outcomes]
        for one in best[1]:
            if one.at != row:
                for place in range(one.start, one.end):
                    likeliest[place][row] = one.at
    return likelihood, likeliest, remains


class _Span(NamedTuple):
    """A stretch of stages, first and end, with the row that is there and the row that was there before it."""

    start: int
    end: int
    before: int
    at: int


def _paths(
    network: Network, by_itself: Figures, tries: Mapping[str, Sequence[Try]], stages: int
) -> dict[int, list[tuple[_Way, tuple[_Span, ...]]]]:
    """Every way each hypothesis that holds a treated cause may have come out, with the rows it goes through."""
    found = network.log_prior + by_itself
    hopeless = float(found.max()) - HOPELESS
    known: dict[tuple[str, ...], list[_Way]] = {}
    paths = {}
    for row in np.flatnonzero(found >= hopeless).tolist():
        members = network.members[row]
        codes = tuple(cause.code if cause.code in tries else "" for cause in members)
        if not any(codes):
            continue
        if codes not in known:
            known[codes] = _ways_out([tries.get(code, ()) for code in codes], stages)
        paths[row] = [(way, _rows_through(network, row, way)) for way in known[codes]]
    return paths


def _rows_through(network: Network, row: int, way: _Way) -> tuple[_Span, ...]:
    members, before, found = network.members[row], row, []
    for start, end, still in way.spans:
        at = row if len(still) == len(members) else network.rows[frozenset(members[place].code for place in still)]
        found.append(_Span(start, end, before, at))
        before = at
    return tuple(found)


def _turned(turns: Collection[_Span], after: Sequence[Callable[[np.ndarray, np.ndarray], Figures]]) -> dict[tuple[int, int, int], float]:
    """What each stage that begins with something gone scores: (stage, row before it, row in it) -> log-likelihood."""
    by_stage: dict[int, set[tuple[int, int]]] = {}
    for one in turns:
        by_stage.setdefault(one.start, set()).add((one.before, one.at))
    scores = {}
    for stage, rows in by_stage.items():
        pairs = sorted(rows)
        then, now = np.array(pairs).T
        for (before, at), score in zip(pairs, after[stage](then, now).tolist(), strict=True):
            scores[stage, before, at] = score
    return scores
