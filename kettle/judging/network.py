"""A small Bayesian network over causes, evaluated exactly over a sound unit, every single cause and every plausible pair.

Each feature depends on the causes that are there. One cause gives its own table; two combine by noisy-or with what a sound
unit shows as the leak (Pearl, Probabilistic Reasoning in Intelligent Systems, 1988, ch. 4.3; Henrion 1989): for a quantity
with a band each cause pushes up or down and opposite pushes can cancel; for words each cause may bring its word about.
"""

from collections import OrderedDict
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations
from threading import Lock
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from kettle.knowledge import acts, causes, observations
from kettle.knowledge.causes.model import Cause, States
from kettle.knowledge.causes.noticed import never_resting, states_noticed
from kettle.knowledge.equipment import Unit

Figures = NDArray[np.float64]
BAND_STATES: Final = ("low", "ok", "high")
# Of a state pushed the opposite way by the other cause: it stays, lands in band, or ends on the other side.
OPPOSED: Final = (0.35, 0.45, 0.20)
SMALLEST: Final = 1e-6


@dataclass(frozen=True)
class Columns:
    """Where one feature's states stand in the table: first column and the states in order; a list has no sum to one."""

    start: int
    states: tuple[str, ...]
    many: bool

    @property
    def place(self) -> slice:
        """The columns of the feature."""
        return slice(self.start, self.start + len(self.states))


@dataclass(frozen=True)
class Network:
    """Every hypothesis (row) with its log prior and what it shows in every feature's states (columns).

    Row 0 is a sound unit, then each single cause, then each plausible pair. Where causes are `given`, seen to be there, each of these rows
    has them besides; the same rows follow without some of them, as unlikely as can be as the unit was found, for what is left after they
    were put right. `members` holds the causes of a row, `parts` their places in `codes` (the last place is none), `rows` the row of a set
    of cause codes, `singles` the row of one cause beside what is given, `remedies` which rows one and the same set of acts puts right
    (remedies × rows, 0 or 1), `threes` the rows of three causes beside what is given, each with the rows of its pairs.
    """

    members: tuple[tuple[Cause, ...], ...]
    columns: Mapping[str, Columns]
    table: Figures
    log_prior: Figures
    singles: Mapping[str, int]
    first_of_pair: NDArray[np.int64]
    second_of_pair: NDArray[np.int64]
    rows: Mapping[frozenset[str], int]
    remedies: Figures
    codes: tuple[str, ...]
    parts: NDArray[np.int64]
    given: frozenset[str] = frozenset()
    inferred: int = 0
    threes: NDArray[np.int64] = field(default_factory=lambda: np.empty((0, 4), dtype=np.int64))

    @property
    def pairs(self) -> slice:
        """The rows of two causes beside what is given."""
        start = 1 + self.inferred
        return slice(start, start + len(self.first_of_pair))

    def beside(self, codes: frozenset[str]) -> list[int]:
        """Return the rows of a set of causes, with and without what is given besides; none where it cannot be."""
        others = [frozenset(some) for some in _subsets(sorted(self.given - codes))]
        return [self.rows[codes | some] for some in others if codes | some in self.rows]

    def shape(self, row: int, feature: str) -> dict[str, float]:
        """Return what a hypothesis shows in one feature: state -> probability."""
        columns = self.columns[feature]
        return dict(zip(columns.states, self.table[row, columns.place].tolist(), strict=True))


# Networks are some 3 MB each, more where causes are given, and take longer to build than to ask: the last used ones are kept.
KEPT_BYTES: Final = 90_000_000
# As unlikely, as log-probability, as that what was seen was not there.
NOT_SEEN: Final = -60.0
_kept: OrderedDict[tuple[object, ...], Network] = OrderedDict()
_keeping = Lock()
# A cause found before is there again more often than on a unit that never had it.
COMES_BACK: Final = 1.6


def network_of(
    unit: Unit,
    context: Mapping[str, str],
    history: tuple[str, ...] = (),
    given: frozenset[str] = frozenset(),
    beyond: frozenset[str] = frozenset(),
) -> Network:
    """Return the network of a unit in a context (moment, outside); `history` names causes found at earlier visits, `given` those seen to
    be there, `beyond` those of which two may be there with a third."""
    key: tuple[object, ...] = (
        unit.kind.code, unit.metering, unit.condensing, unit.receiver, unit.head_control, unit.defrost, unit.box_control, unit.phases,
        tuple(sorted(context.items())), history,
    )  # fmt: skip
    base = _keep(key, lambda: _built(unit, context, history))
    if given:
        plain, key = base, (*key, tuple(sorted(given)))
        base = _keep(key, lambda: _with_given(plain, unit, context, history, given))
    if len(beyond) < 2:
        return base
    return _keep((*key, "beyond", tuple(sorted(beyond))), lambda: _with_threes(base, unit, context, history, beyond))


def _keep(key: tuple[object, ...], build: Callable[[], Network]) -> Network:
    with _keeping:
        if key not in _kept:
            _kept[key] = build()
            while len(_kept) > 1 and sum(one.table.nbytes for one in _kept.values()) > KEPT_BYTES:
                _kept.popitem(last=False)
        _kept.move_to_end(key)
        return _kept[key]


def _built(unit: Unit, at: Mapping[str, str], history: tuple[str, ...]) -> Network:
    """The network of nothing, each cause, and each plausible pair."""
    usual = causes.usual(unit, at)
    columns: dict[str, Columns] = {}
    width = 0
    for key, states in usual.items():
        many = key in observations.REGISTRY and observations.REGISTRY[key].many
        columns[key] = Columns(width, tuple(states), many)
        width += len(states)
    found = [cause for cause in causes.CATALOGUE.values() if cause.possible_on(unit) and cause.possible_in(at)]
    base = _row(usual, usual)
    rows = np.array([_row(usual, _shapes(usual, cause, unit, at)) for cause in found])
    pairs = [(i, j) for i, j in combinations(range(len(found)), 2) if causes.plausible_pair(found[i], found[j])]
    first, second = (np.array([pair[side] for pair in pairs], dtype=np.int64) for side in (0, 1))
    priors = np.array([cause.prior_on(unit, at) * _often(cause, history) for cause in found])
    weights = np.concatenate([[causes.HEALTHY.prior], priors, causes.PAIR_SHARE * priors[first] * priors[second]])
    members = ((), *((cause,) for cause in found), *((found[i], found[j]) for i, j in pairs))
    codes = tuple(cause.code for cause in found)
    return Network(
        members=members,
        columns=columns,
        table=np.maximum(np.vstack([base[None, :], rows, _combined(base, rows[first], rows[second], columns)]), SMALLEST),
        log_prior=np.log(weights / weights.sum()),
        singles={cause.code: place for place, cause in enumerate(found, start=1)},
        first_of_pair=first + 1,
        second_of_pair=second + 1,
        rows={frozenset(cause.code for cause in one): row for row, one in enumerate(members)},
        remedies=_remedies(members),
        codes=codes,
        parts=_parts(members, codes),
        inferred=len(found),
    )


def _with_given(plain: Network, unit: Unit, at: Mapping[str, str], history: tuple[str, ...], given: frozenset[str]) -> Network:
    """The network of what goes together with the causes given, with them and with each part of them besides."""
    there = [cause for cause in causes.CATALOGUE.values() if cause.code in given and cause.possible_on(unit)]
    if not there:
        return plain
    fits = {
        cause.code
        for cause in (one for (one,) in plain.members[1 : 1 + plain.inferred])
        if cause not in there and all(causes.plausible_pair(cause, one) for one in there)
    }
    kept = np.array([row for row, one in enumerate(plain.members) if all(cause.code in fits for cause in one)], dtype=np.int64)
    inferred = [plain.members[row] for row in kept]
    found = [one[0] for one in inferred if len(one) == 1]
    place = {cause.code: n for n, cause in enumerate(found, start=1)}
    first, second = (np.array([place[one[side].code] for one in inferred if len(one) == 2], dtype=np.int64) for side in (0, 1))
    priors = np.array([1.0, *(cause.prior_on(unit, at) * _often(cause, history) for cause in found)])
    # Beside what is there another is as often as the second of a pair.
    share = causes.PAIR_SHARE
    weights = np.concatenate([[1.0], share * priors[1:], share * share * priors[first] * priors[second]])
    prior = np.log(weights / weights.sum())
    usual, nothing = causes.usual(unit, at), plain.table[0]
    blocks, order = [*reversed(_subsets(there))], _order()
    shown = {cause.code: _row(usual, _shapes(usual, cause, unit, at)) for cause in there}
    tables = [_with(plain.table[kept], nothing, [shown[cause.code] for cause in block], plain.columns) for block in blocks]
    members = tuple(_in_order((*block, *one), order) for block in blocks for one in inferred)
    codes = tuple(cause.code for cause in (*there, *found))
    return Network(
        members=members,
        columns=plain.columns,
        table=np.maximum(np.vstack(tables), SMALLEST),
        log_prior=np.concatenate([prior + (0.0 if len(block) == len(there) else NOT_SEEN) for block in blocks]),
        singles={**{cause.code: 0 for cause in there}, **place},
        first_of_pair=first,
        second_of_pair=second,
        rows={frozenset(cause.code for cause in one): row for row, one in enumerate(members)},
        remedies=_remedies(members),
        codes=codes,
        parts=_parts(members, codes),
        given=frozenset(cause.code for cause in there),
        inferred=len(found),
    )


def _with_threes(
    base: Network, unit: Unit, at: Mapping[str, str], history: tuple[str, ...], beyond: frozenset[str]
) -> Network:  # fmt: skip
    """The network with a third cause beside each pair of those in `beyond`, with and without what is given besides."""
    blocks = [*reversed(_subsets(sorted(base.given)))]
    pairs = [two for two in combinations(sorted(beyond - base.given), 2) if frozenset((*base.given, *two)) in base.rows]
    sets = list(dict.fromkeys(frozenset((*two, third)) for two in pairs for third in base.codes if _third_to(base, two, third)))
    members: list[tuple[Cause, ...]] = []
    priors: list[float] = []
    pair_rows, last_rows, threes, order = [], [], [], _order()
    for block in blocks:
        for codes in sets:
            two = next(two for two in pairs if codes > set(two))
            (third,) = codes - set(two)
            cause = causes.get(third)
            pair, found = base.rows[frozenset((*block, *two))], cause.prior_on(unit, at) * _often(cause, history)
            if len(block) == len(base.given):
                of = [base.rows[frozenset((*block, *some))] for some in combinations(sorted(codes), 2)]
                threes.append([len(base.members) + len(members), *of])
            members.append(_in_order((*base.members[pair], cause), order))
            priors.append(base.log_prior[pair] + np.log(causes.PAIR_SHARE * found))
            pair_rows.append(base.table[pair])
            last_rows.append(base.table[base.rows[frozenset((third,))]])
    if not members:
        return base
    nothing = base.table[base.rows[frozenset()]]
    everyone = (*base.members, *members)
    return replace(
        base,
        members=everyone,
        table=np.vstack([base.table, np.maximum(_combined(nothing, np.array(pair_rows), np.array(last_rows), base.columns), SMALLEST)]),
        log_prior=np.concatenate([base.log_prior, priors]),
        rows={frozenset(cause.code for cause in one): row for row, one in enumerate(everyone)},
        remedies=_remedies(everyone),
        parts=_parts(everyone, base.codes),
        threes=np.array(threes, dtype=np.int64),
    )


def _third_to(base: Network, two: tuple[str, ...], third: str) -> bool:
    """Whether a cause can be there as a third beside two."""
    return third not in (*two, *base.given) and all(frozenset((*base.given, one, third)) in base.rows for one in two)


def _often(cause: Cause, history: tuple[str, ...]) -> float:
    return COMES_BACK if cause.code in history else 1.0


def _in_order(some: Iterable[Cause], order: Mapping[str, int]) -> tuple[Cause, ...]:
    """Causes as the catalogue has them one after the other."""
    return tuple(sorted(some, key=lambda cause: order[cause.code]))


def _order() -> dict[str, int]:
    return {code: place for place, code in enumerate(causes.CATALOGUE)}


def _subsets(of: Sequence[Any]) -> list[tuple[Any, ...]]:
    """Every selection of a few, the smallest first."""
    return [some for size in range(len(of) + 1) for some in combinations(of, size)]


def _parts(members: Sequence[tuple[Cause, ...]], codes: Sequence[str]) -> NDArray[np.int64]:
    """The places of each row's causes among the codes, filled up with the place after the last."""
    places = {code: place for place, code in enumerate(codes)}
    table = np.full((len(members), max(map(len, members))), len(codes), dtype=np.int64)
    for row, one in enumerate(members):
        table[row, : len(one)] = [places[cause.code] for cause in one]
    return table


def _with(table: Figures, base: Figures, given: Sequence[Figures], columns: Mapping[str, Columns]) -> Figures:
    """What every hypothesis shows where the given causes are there besides."""
    for row in given:
        table = _combined(base, table, np.broadcast_to(row, table.shape), columns)
    return table


def _remedies(members: Sequence[tuple[Cause, ...]]) -> Figures:
    """Which rows the same acts put right: remedies × rows, 0 or 1."""
    wanted = [frozenset(acts.SUREST.get(cause.code, cause.code) for cause in one) for one in members]
    places = {remedy: place for place, remedy in enumerate(dict.fromkeys(wanted))}
    table: Figures = np.zeros((len(places), len(members)))
    table[[places[remedy] for remedy in wanted], np.arange(len(members))] = 1.0
    return table


def _row(usual: Mapping[str, States], shapes: Mapping[str, States]) -> Figures:
    return np.array([shapes[key][state] for key, states in usual.items() for state in states])


def _shapes(usual: Mapping[str, States], cause: Cause, unit: Unit, context: Mapping[str, str]) -> dict[str, States]:
    effects = cause.effects_on(unit, context)
    shapes = {key: _shape(base, effects.get(key), key) for key, base in usual.items()}
    shapes |= never_resting(cause, shapes, unit)
    return shapes | states_noticed(cause, shapes)


def _shape(base: States, named: Mapping[str, float] | None, key: str) -> States:
    """What a cause shows in one feature; states it does not name share the rest as on a sound unit."""
    if named is None:
        return base
    if key in observations.REGISTRY and observations.REGISTRY[key].many:
        return {**base, **named}
    rest = 1.0 - sum(named.values())
    base_rest = sum(p for state, p in base.items() if state not in named)
    return {state: named[state] if state in named else p * rest / base_rest for state, p in base.items()}


def _combined(base: Figures, one: Figures, other: Figures, columns: Mapping[str, Columns]) -> Figures:
    """What two causes show together, row by row (pairs × states)."""
    both = np.empty_like(one)
    many = np.array([at for f in columns.values() if f.many for at in range(f.place.start, f.place.stop)], dtype=np.int64)
    banded = np.array([range(f.place.start, f.place.stop) for f in columns.values() if _has_band(f)], dtype=np.int64)
    words = [f for f in columns.values() if not f.many and not _has_band(f)]
    if len(many):
        both[:, many] = _mixed(one[:, many], other[:, many], base[many])
    if len(banded):
        # The weaker push goes on top of the stronger: a cause that does nothing here then changes nothing.
        a, b, leak = one[:, banded], other[:, banded], base[banded]
        stronger = (np.abs(a - leak).sum(axis=2) >= np.abs(b - leak).sum(axis=2))[:, :, None]
        both[:, banded] = _pushed(np.where(stronger, a, b), np.where(stronger, b, a), leak)
    if words:
        at = np.concatenate([np.arange(f.place.start, f.place.stop) for f in words])
        sizes = np.array([len(f.states) for f in words])
        mixed = _mixed(one[:, at], other[:, at], base[at])
        sums = np.add.reduceat(mixed, np.concatenate([[0], np.cumsum(sizes)[:-1]]), axis=1)
        both[:, at] = mixed / np.repeat(sums, sizes, axis=1)
    return both


def _has_band(feature: Columns) -> bool:
    return not feature.many and feature.states == BAND_STATES


def _mixed(a: Figures, b: Figures, leak: Figures) -> Figures:
    """What two show of a state: either brings it about; or, where one leaves less of it than is usual, both leave their share of it."""
    less: Figures = np.where((a >= leak) & (b >= leak), _noisy_or(a, b, leak), a * b / leak)
    return less


def _noisy_or(a: Figures, b: Figures, leak: Figures) -> Figures:
    """Either brings it about, or it is there anyway."""
    joint: Figures = 1.0 - (1.0 - a) * (1.0 - b) / (1.0 - leak)
    return np.clip(joint, SMALLEST, 1.0 - SMALLEST)


def _pushed(a: Figures, b: Figures, leak: Figures) -> Figures:
    """A cause's low, ok, high (on the last axis) with the push of another on top; opposite pushes can cancel."""
    up = np.clip((b[..., 2] - leak[..., 2]) / (1.0 - leak[..., 2]), 0.0, 1.0)
    down = np.clip((b[..., 0] - leak[..., 0]) / (1.0 - leak[..., 0]), 0.0, 1.0)
    none = np.clip(1.0 - up - down, 0.0, 1.0)
    low, ok, high = a[..., 0], a[..., 1], a[..., 2]
    stays, cancels, turns = OPPOSED
    new_low = low * none + down * (low + ok) + low * up * stays + high * down * turns
    new_ok = ok * none + cancels * (low * up + high * down)
    new_high = high * none + up * (high + ok) + high * down * stays + low * up * turns
    made = np.stack([new_low, new_ok, new_high], axis=-1)
    shares: Figures = made / made.sum(axis=-1, keepdims=True)
    return shares
