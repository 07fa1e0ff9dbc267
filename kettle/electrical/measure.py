"""Where a fault lies, by what was measured; and where to put the leads next."""

import math
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import islice
from typing import Final

import numpy as np

from kettle.electrical.circuit import PLACES, Circuit, check_state
from kettle.electrical.faults import SOUND, Fault, every_fault, together, way_of, weight_of
from kettle.electrical.solve import Figures, Solved, resistances, solve
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import format_number

# What a reading is good to: volts as a share of the supply and at least, amps, ohms as a factor (natural logarithm).
VOLTS_SHARE, LEAST_VOLTS = 0.03, 1.0
AMPS_SHARE, LEAST_AMPS = 0.12, 0.15
OHMS_LOG: Final = 0.3
OPEN_SHOWN_OHM: Final = 1e7
# Below this anything lies to ground; how far a path there is told by its ohms, decades.
GROUND: Final = "G"
LIES_TO_GROUND_OHM: Final = 1e5
GROUND_DECADES: Final = 2.0
# A reading that nothing explains is a slip this often; what is seen to run or stand is seen wrong so often.
SLIP: Final = 1e-3
SEEN_WRONG: Final = 0.02
WORTH_BITS: Final = 0.02
CLAMPED: Final = ("winding", "motor", "heater", "pole")
MOST_V, MOST_A = 1000.0, 600.0
# What a meter's own leads and a clean contact come to: below it one closed switch is as good as another.
LEADS_OHM: Final = 0.5
# A meter put on costs this long besides reaching its points; where one is already, nothing more.
MEASURE_MIN: Final = 0.5
HERE_MIN: Final = 0.2


@dataclass(frozen=True)
class Reading:
    """A measurement: volts or ohms between two points, or amps round the lead of a part (`one`), with the state it was taken in."""

    what: str
    one: str
    other: str
    value: float
    state: str = "calling"
    lifted: bool = False


# What carries so much of a motor's amps carries mainly that motor.
MAINLY: Final = 0.5


@dataclass(frozen=True)
class Seen:
    """A motor, a coil or a heater that was seen to work, or not to; `silent` where it does not even try.

    With `beside` it is said of it and of those together: that all of them work, or that not all of them do; with `some` that at least
    one of them works, or that none does.
    """

    load: str
    works: bool
    state: str = "calling"
    silent: bool = False
    beside: tuple[str, ...] = ()
    some: bool = False

    def told(self, circuit: Circuit, faults: Sequence[Fault]) -> Figures:
        """Return the log-likelihood of what was seen under every fault of a circuit."""
        solved = solve(circuit, self.state, faults)
        works = solved.runs(self.load)
        for load in self.beside:
            works = works | solved.runs(load) if self.some else works & solved.runs(load)
        return np.where(works == self.works, math.log(1.0 - SEEN_WRONG), math.log(SEEN_WRONG))


@dataclass(frozen=True)
class Suspicion:
    """A fault with how likely it is, and how it is said."""

    fault: Fault
    probability: float
    label: str


@dataclass(frozen=True)
class Lead:
    """Where to put the leads next: the two points (or a part for a clamp), what is expected there when all is sound, gain and cost, why,
    and the parts it would find."""

    what: str
    one: str
    other: str
    expected: float
    gain_bits: float
    minutes: float
    why: str
    finds: tuple[str, ...] = ()


def checked(circuit: Circuit, reading: Reading, live_ohms: bool = False) -> Reading:
    """Return a reading that can be; InputError says what cannot, with range and unit.

    `live_ohms`: ohms were taken on without a lock-out, with a reason.
    """
    check_state(reading.state)
    unit, most = {"volts": ("V", MOST_V), "amps": ("A", MOST_A), "ohms": ("Ω", math.inf)}.get(reading.what, ("", 0.0))
    if not unit:
        raise InputError(f"“{reading.what[:20]}” is not measured here: volts, amps or ohms")
    if reading.what == "amps":
        circuit.part(reading.one)
    else:
        for key in (reading.one, reading.other):
            circuit.point(key)
        if reading.one == reading.other:
            raise InputError("Both leads are on one point: it always shows nothing")
    if not 0.0 <= reading.value <= most:
        raise InputError(f"{format_number(reading.value)} {unit} is outside 0 to {format_number(most, 0)} {unit}")
    if reading.what == "ohms" and reading.state != "locked_out" and not live_ohms:
        raise InputError("Ohms are taken with the power locked out and proved dead: with it on the meter shows anything, and may burn")
    return reading


def expected(circuit: Circuit, reading: Reading, faults: Sequence[Fault]) -> Figures:
    """Return what a meter would show for a reading under each fault: V, A, or Ω (at most `OPEN_SHOWN_OHM`)."""
    if reading.what == "ohms":
        if reading.state != "locked_out":
            # With the power on a meter shows anything: it tells the faults apart by nothing.
            return np.full(len(faults), max(min(reading.value, OPEN_SHOWN_OHM), 0.05))
        keys = [point.key for point in circuit.points]
        alone = between(circuit, reading.one, reading.other) if reading.lifted else circuit
        own = tuple(together(one for one in fault.each if alone.has(one.part)) for fault in faults) if reading.lifted else tuple(faults)
        table = resistances(alone, own)
        shown: Figures = np.minimum(table[:, keys.index(reading.one), keys.index(reading.other)], OPEN_SHOWN_OHM)
        return shown
    solved = solve(circuit, reading.state, faults)
    return solved.through(reading.one) if reading.what == "amps" else solved.between(reading.one, reading.other)


def between(circuit: Circuit, one: str, other: str) -> Circuit:
    """Return what lies between two points once their leads are lifted: the parts that join them, and those of a motor they belong to."""
    pair = {one, other}
    own = {part.key for part in circuit.parts if {part.a, part.b} == pair or (circuit.ground in pair and {part.a, part.b} & pair)}
    for parts in circuit.motors.values():
        inside = {part.key for part in circuit.parts if part.key in parts or part.kind == "overload"}
        if pair - {circuit.ground} <= {end for key in inside for end in (circuit.part(key).a, circuit.part(key).b)}:
            own |= inside
    kept = tuple(part for part in circuit.parts if part.key in own)
    return replace(circuit, supply={}, parts=kept, motors={name: parts for name, parts in circuit.motors.items() if set(parts) <= own})


def _apart(what: str, value: Figures) -> Figures:
    """By how much two readings of about this value have to differ to be told apart."""
    share, least = (VOLTS_SHARE, LEAST_VOLTS) if what == "volts" else (AMPS_SHARE, LEAST_AMPS)
    return share * value + least


def log_likelihood(reading: Reading, shown: Figures) -> Figures:
    """Return how well a reading fits what would be shown, as a log-likelihood with room for a slip.

    Ohms to ground say by themselves whether a part lies to it; how many they are says little of where.
    """
    if reading.what == "ohms" and GROUND in (reading.one, reading.other):
        lies = reading.value < LIES_TO_GROUND_OHM
        near = np.abs(np.log10(np.maximum(shown, 0.05) / max(min(reading.value, OPEN_SHOWN_OHM), 0.05))) / GROUND_DECADES
        fits_ground: Figures = np.log(np.where((shown < LIES_TO_GROUND_OHM) == lies, 1.0 - SLIP, SLIP)) - 0.5 * np.minimum(near, 3.0) ** 2
        return fits_ground
    if reading.what == "ohms":
        off = np.log(np.maximum(shown, LEADS_OHM) / max(min(reading.value, OPEN_SHOWN_OHM), LEADS_OHM)) / OHMS_LOG
    else:
        off = (shown - reading.value) / _apart(reading.what, np.maximum(shown, reading.value))
    fits: Figures = np.log((1.0 - SLIP) * np.exp(-0.5 * np.minimum(np.square(off), 60.0)) + SLIP)
    return fits


def standing(circuit: Circuit, readings: Iterable[Reading] = (), seen: Iterable[Seen] = ()) -> tuple[list[Fault], Figures]:
    """Return every single fault and those that come together, and how likely each is by now; they sum to one."""
    faults = every_fault(circuit)
    told = np.log([weight_of(circuit, fault) for fault in faults])
    for one in seen:
        told = told + one.told(circuit, faults)
    for reading in readings:
        told = told + log_likelihood(reading, expected(circuit, checked(circuit, reading, live_ohms=True), faults))
    likely: Figures = np.exp(told - told.max())
    return faults, likely / likely.sum()


def by_part(circuit: Circuit, faults: Sequence[Fault], likely: Figures) -> list[Suspicion]:
    """Return each part in each way it can have failed, alone or with others, the likeliest first; a sound circuit is one of them."""
    found: dict[tuple[str, str], float] = {}
    for fault, chance in zip(faults, likely, strict=True):
        for one in fault.each or (SOUND,):
            # Worn is worn, however much of its volts a pole drops.
            way = one.way.partition("_")[0]
            found[one.part, way] = found.get((one.part, way), 0.0) + float(chance)
    ranked = sorted(found.items(), key=lambda pair: -pair[1])
    return [Suspicion(fault, chance, fault_in_words(circuit, fault)) for (part, way), chance in ranked for fault in (Fault(part, way),)]


def suspects(circuit: Circuit, readings: Iterable[Reading] = (), seen: Iterable[Seen] = (), most: int = 8) -> list[Suspicion]:
    """Return the likeliest faults, likeliest first."""
    faults, likely = standing(circuit, readings, seen)
    order = np.argsort(-likely, kind="stable")[:most]
    return [Suspicion(faults[place], float(likely[place]), fault_in_words(circuit, faults[place])) for place in order]


def fault_in_words(circuit: Circuit, fault: Fault) -> str:
    """Return a fault in words."""
    if fault == SOUND:
        return "Nothing wrong in the circuit"
    return " and ".join(f"{part.label}: {way_of(part, one.way).label}" for one in fault.each for part in (circuit.part(one.part),))


def pairs(circuit: Circuit) -> list[tuple[str, str]]:
    """Return the pairs of points worth a lead: every part's ends, every point against the common, and the supply's legs."""
    common = circuit.common
    hidden = {"Y"}
    found = [(part.a, part.b) for part in circuit.parts]
    found += [(point.key, common) for point in circuit.points]
    if circuit.phases == 3:
        found += [(f"{side}{n}", f"{side}{m}") for side in "LT" for n, m in ((1, 2), (2, 3), (3, 1))]
    if circuit.phases == 1 and any(point.key == "T2" for point in circuit.points):
        found.append(("T1", "T2"))
    unique = {frozenset(pair): pair for pair in found if pair[0] != pair[1] and not hidden & set(pair) and "G" not in pair}
    return list(unique.values())


def known_dead(circuit: Circuit, seen: Iterable[Seen]) -> set[frozenset[str]]:
    """Return what a clamp would show next to nothing round: what carries mainly a motor that neither turns nor hums."""
    found: set[frozenset[str]] = set()
    for one in (one for one in seen if one.silent and one.load in circuit.motors):
        sound = solve(circuit, one.state)
        own = max(float(sound.through(key)[0]) for key in circuit.motors[one.load])
        found |= {frozenset((part.key,)) for part in circuit.parts if own and float(sound.through(part.key)[0]) > MAINLY * own}
    return found


def next_leads(
    circuit: Circuit, faults: Sequence[Fault], likely: Figures, state: str, at: Collection[str] = ("panel",), most: int = 3,
    measured: Collection[frozenset[str]] = (),
) -> list[Lead]:  # fmt: skip
    """Return where to put the leads next in a state: most bits a minute, live volts or a clamp.

    Each possible reading parts the faults into those that would show the same; the gain is what that tells (Shannon 1948), the cost how
    long it takes to get there. `at` are places already open.
    """
    some = np.flatnonzero(likely > 1e-4)
    weights = likely[some] / likely[some].sum()
    solved = solve(circuit, state, faults)
    found = []
    for one, other in pairs(circuit):
        if frozenset((one, other)) in measured:
            continue
        shown = solved.between(one, other)
        gain = _parting_bits("volts", shown[some], weights)
        minutes = MEASURE_MIN + max(HERE_MIN if place in at else PLACES[place][1] for place in _places(circuit, one, other))
        if gain > WORTH_BITS:
            found.append(Lead("volts", one, other, float(shown[0]), gain, minutes, ""))
    for part in circuit.parts:
        # A clamp round the lead of what should draw; what draws too little to be told from nothing is not clamped.
        shown = solved.through(part.key)
        if part.kind not in CLAMPED or shown[0] < LEAST_AMPS or frozenset((part.key,)) in measured:
            continue
        gain = _parting_bits("amps", shown[some], weights)
        minutes = MEASURE_MIN + (HERE_MIN if circuit.point(part.a).place in at else PLACES[circuit.point(part.a).place][1])
        if gain > WORTH_BITS:
            found.append(Lead("amps", part.key, "", float(shown[0]), gain, minutes, ""))
    found.sort(key=lambda lead: -lead.gain_bits / lead.minutes)
    told = (_with_why(circuit, lead, solved, faults, likely) for lead in found)
    # One that finds none of those under suspicion only tells the unlikely apart.
    return list(islice((lead for lead in told if lead.finds), most))


def _places(circuit: Circuit, *keys: str) -> set[str]:
    return {circuit.point(key).place for key in keys}


def _parting_bits(what: str, shown: Figures, weights: Figures) -> float:
    """The entropy of the groups that readings part into, bits: what lies too close to be told apart shows the same."""
    order = np.argsort(shown)
    group = np.concatenate([[0], np.cumsum(np.diff(shown[order]) > _apart(what, shown[order][1:]))])
    shares = np.bincount(group, weights=weights[order])
    shares = shares[shares > 0]
    return float(-(shares * np.log2(shares)).sum())


def _with_why(circuit: Circuit, lead: Lead, solved: Solved, faults: Sequence[Fault], likely: Figures) -> Lead:
    """The same with one line of why: whom it clears, and whom it would find."""
    shown = solved.through(lead.one) if lead.what == "amps" else solved.between(lead.one, lead.other)
    same = np.abs(shown - lead.expected) <= _apart(lead.what, np.maximum(shown, lead.expected))
    suspected = [place for place in np.argsort(-likely) if likely[place] > 0.01 and faults[place].part]
    finds = list(dict.fromkeys(circuit.part(faults[place].part).label for place in suspected if not same[place]))
    figure = f"{format_number(lead.expected, 1)} A" if lead.what == "amps" else f"{format_number(lead.expected, 0)} V"
    why = f"{figure} clears {len(finds)} of {len({faults[p].part for p in suspected})} parts"
    if finds:
        why += f": {', '.join(finds[:3])}" + (" and more" if len(finds) > 3 else "")
    return Lead(lead.what, lead.one, lead.other, lead.expected, lead.gain_bits, lead.minutes, why, tuple(finds))
