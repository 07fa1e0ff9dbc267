"""The judgement against an opponent that knows nothing of its tables: simulated units, and a technician who only does as he is told.

He gets kind, plate and complaint, looks at what costs nothing, and then follows the application's own holds and next checks: melts when
told to, waits when told to, until one answer stands above 90 % or 25 checks are spent. He never sees the fault.

    python -m benchmarks.technician [--kinds a,b] [--causes a,b] [--seeds N] [--at-once N] [--all] [--held-out]

Prints what was told first and among three by cause and kind, checks and minutes, harm, and how well stated chances hold.
Kinds and seeds of HELD_OUT are left out unless asked for: they are not to be looked at while the tables or the model are worked on.
"""

import argparse
import sys
from collections import Counter, defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from functools import cache
from itertools import combinations, product
from statistics import median
from time import perf_counter

from benchmarks.visit import Visit
from kettle.knowledge import causes
from kettle.knowledge.equipment import resolve
from kettle.plant import faults
from kettle.plant.observer import stand
from kettle.plant.simulate import PRESETS

SEVERITIES, OUTSIDE_F, HOURS = (0.6, 1.0), (60.0, 85.0, 100.0), 54.0
HELD_OUT_KINDS, HELD_OUT_SEEDS = ("display_freezer",), (3,)
# Of all plausible pairs, and of three at once, one in so many is tried.
EVERY = {2: 8, 3: 60}
CAUSES_OF_STOCK = ("hot_stock",)
# What comes of an answer that would hurt: act on gas, on the stem, on a compressor.
HARM = {
    "undercharge": ("gas added to a unit that is not short", ("undercharge", "winter_charge_short", "solenoid_leaking")),
    "txv_underfeeding": ("a valve turned for a fault elsewhere", ("txv_underfeeding", "wrong_parameters", "bulb_fault")),
    "txv_overfeeding": ("a valve turned for a fault elsewhere", ("txv_overfeeding", "wrong_parameters", "bulb_fault")),
    "compressor_inefficient": ("a sound compressor condemned", ("compressor_inefficient",)),
    "compressor_grounded": ("a sound compressor condemned", ("compressor_grounded",)),
    "compressor_open_winding": ("a sound compressor condemned", ("compressor_open_winding",)),
}
ACTED_ON_FROM = 0.9
BINS = (0.0, 0.2, 0.4, 0.6, 0.8, 0.9, 1.01)


@dataclass
class Told:
    """What came of one unit: what was wrong, what was told and how surely, how many checks and minutes it took."""

    kind: str
    wrong: tuple
    severity: float
    outside_f: float
    seed: int
    ranking: list = field(default_factory=list)
    answers: list = field(default_factory=list)
    paid: list = field(default_factory=list)
    checks: int = 0
    spent: Counter = field(default_factory=Counter)
    symptom: str = ""
    said: dict = field(default_factory=dict)

    @property
    def minutes(self):
        """All minutes of his: checks, melting, and waiting until it can be read."""
        return sum(self.spent.values())

    @property
    def first(self):
        """Whether the first answer is the truth, and all of it."""
        return set(self.ranking[0][0]) == set(self.wrong) if self.ranking else False

    @property
    def place(self):
        """The place of the whole truth among the answers, from 0; none beyond five."""
        return next((n for n, (codes, _) in enumerate(self.ranking[:5]) if set(codes) == set(self.wrong)), None)

    @property
    def found_all(self):
        """Whether as many answers as there are faults, each after the one before was put right, name all that is wrong."""
        return set(self.wrong) <= {code for codes in self.answers[: len(self.wrong)] for code in codes}

    @property
    def holds_it(self):
        """Whether the first answer names what is wrong, alone or with something beside it."""
        return bool(self.ranking) and set(self.wrong) <= set(self.ranking[0][0])


def symptom_of(rig):
    """Why somebody would call; empty where nobody would."""
    over = float(rig.state.air_f) - rig.unit.set_f
    if over > 5.0:
        return "warm"
    if over < -5.0:
        return "cold"
    if rig.look("ice_form") in ("heavy_frost", "hard_ice"):
        return "iced"
    if rig.look("drain_pan") == "overflowing":
        return "water"
    return "off" if rig.parts.can_run <= 0 else ""


@cache
def shows_alone(kind, code, outside_f):
    """Whether somebody would call about this fault by itself."""
    return bool(symptom_of(stand(resolve(PRESETS[kind]), [(code, 1.0)], HOURS, outside_f)))


def one(job):
    """Judge one unit; None where nobody would call about it, or about one of two faults by itself."""
    kind, wrong, severity, outside_f, seed = job
    if len(wrong) > 1 and not all(shows_alone(kind, code, outside_f) for code in wrong):
        return None
    unit = resolve(PRESETS[kind])
    rig = stand(unit, [(code, severity) for code in wrong], HOURS, outside_f, seed)
    told = Told(kind, wrong, severity, outside_f, seed)
    told.symptom = symptom_of(rig)
    gone = "residual_ice" in wrong and not (rig.state.frost_lb.sum() + rig.state.ice_lb.sum())
    if (wrong and not told.symptom) or gone:
        # Nobody calls; or the ice melted on a unit that stood, and is no fault any more.
        return None
    visit = Visit(rig, told)
    visit.find()
    for _ in wrong[1:]:
        visit.put_right_and_find()
    return told


def _together(one, other):
    return causes.plausible_pair(causes.get(one), causes.get(other))


def jobs(kinds, named, seeds, at_once):
    """Everything that can be wrong on each kind, by severity, weather and seed; sound units too."""
    found = []
    for kind, outside_f, seed in product(kinds, OUTSIDE_F, seeds):
        unit = resolve(PRESETS[kind])
        possible = [
            code for code in faults.FAULTS if faults.possible(code, unit) and code not in CAUSES_OF_STOCK and (not named or code in named)
        ]
        if at_once > 1:
            some = [one for one in combinations(possible, at_once) if all(_together(*two) for two in combinations(one, 2))]
            found += [(kind, one, 1.0, outside_f, seed) for one in some[:: EVERY[at_once]]]
            continue
        found += [(kind, (code,), severity, outside_f, seed) for code in possible for severity in SEVERITIES]
        if not named:
            found.append((kind, (), 0.0, outside_f, seed))
    return found


def report(results, unseen, seconds):
    """Print what came of all units."""
    faulty = [r for r in results if r.wrong]
    sound = [r for r in results if not r.wrong]
    total = len(faulty) or 1
    print(
        f"{len(faulty)} faulty units somebody calls about, {unseen} nobody would (of two: about one alone), "
        f"{len(sound)} sound; {seconds:.0f} s"
    )
    top, three = sum(r.first for r in faulty), sum(r.place is not None and r.place < 3 for r in faulty)
    named = sum(r.holds_it for r in faulty)
    print(f"on top {top / total:.1%}, named in the first answer {named / total:.1%}, among three {three / total:.1%}")
    if any(len(r.wrong) > 1 for r in faulty):
        print(f"all in as many answers, each put right before the next: {sum(r.found_all for r in faulty) / total:.1%}")
    if faulty:
        print(f"median checks {median(r.checks for r in faulty)}, minutes {median(r.minutes for r in faulty):.0f}")
        for what in ("checks", "melt", "waiting"):
            print(f"  {what}: mean {sum(r.spent[what] for r in faulty) / total:.0f}, on {sum(r.spent[what] > 0 for r in faulty)} units")
    harm = Counter()
    for r in results:
        codes, sure = r.ranking[0] if r.ranking else ((), 0.0)
        for code in codes:
            if code in HARM and sure >= ACTED_ON_FROM and not set(HARM[code][1]) & set(r.wrong):
                harm[HARM[code][0]] += 1
    print(f"harmful advice {sum(harm.values()) / (len(results) or 1):.2%} {dict(harm)}")
    blamed = [r for r in sound if r.ranking and r.ranking[0][0] and r.ranking[0][1] > 0.5]
    print(f"sound units told a fault above 50 %: {len(blamed)} of {len(sound)} {Counter('+'.join(r.ranking[0][0]) for r in blamed)}")
    for what, most in (("first answers", 1), ("all answers told", 5)):
        told = [(p, set(codes) == set(r.wrong)) for r in results for codes, p in r.ranking[:most]]
        error = 0.0
        print(f"stated chances, {what}")
        for low, high in zip(BINS, BINS[1:], strict=False):
            inside = [(p, hit) for p, hit in told if low <= p < high]
            if inside:
                stated, right = (sum(pair[n] for pair in inside) / len(inside) for n in (0, 1))
                error += abs(stated - right) * len(inside) / len(told)
                print(f"  {low:.1f} to {min(high, 1.0):.1f}: {len(inside):4} answers, mean {stated:.2f}, right {right:.2f}")
        print(f"  expected calibration error {error:.3f}")
    checks_paid(results)
    for title, key in (("by cause", lambda r: "+".join(r.wrong)), ("by kind", lambda r: r.kind)):
        groups = defaultdict(list)
        for r in faulty:
            groups[key(r)].append(r)
        print(title)
        for name, group in sorted(groups.items(), key=lambda pair: sum(r.first for r in pair[1]) / len(pair[1])):
            instead = Counter("+".join(r.ranking[0][0]) or "nothing wrong" for r in group if r.ranking and not r.first).most_common(3)
            hits, among = sum(r.first for r in group), sum(r.place is not None and r.place < 3 for r in group)
            print(f"  {name:28} {hits:3} of {len(group):3} on top, {among:3} among three  {', '.join(f'{w} {n}' for w, n in instead)}")


def checks_paid(results):
    """Print what the checks promised and what they brought, by what they cost: bits, and bits a minute."""
    by_key = defaultdict(list)
    for r in results:
        for key, promised, brought, minutes in r.paid:
            by_key[key].append((promised, brought, minutes))
    every = [one for paid in by_key.values() for one in paid]
    promised, brought, minutes = (sum(one[n] for one in every) for n in range(3))
    print(f"{len(every)} checks: {promised / minutes:.3f} bits a minute promised, {brought / minutes:.3f} brought")
    for key, paid in sorted(by_key.items(), key=lambda pair: -sum(one[2] for one in pair[1])):
        said, came, took = (sum(one[n] for one in paid) / len(paid) for n in range(3))
        print(f"  {key:24} {len(paid):4} times, {took:4.1f} min: {said:.2f} bits promised, {came:.2f} brought")


def main():
    """Run them all on all processors and print the tables."""
    asked = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    asked.add_argument("--kinds", default="")
    asked.add_argument("--causes", default="")
    asked.add_argument("--seeds", type=int, default=1)
    asked.add_argument("--at-once", type=int, default=1, choices=(1, 2, 3), help="so many faults on each unit")
    asked.add_argument("--held-out", action="store_true", help="only what is never looked at while tuning")
    asked.add_argument("--show", action="store_true", help="every unit told wrongly, with what was seen")
    args = asked.parse_args()
    kinds = args.kinds.split(",") if args.kinds else [kind for kind in PRESETS if kind not in HELD_OUT_KINDS]
    seeds = tuple(range(1, args.seeds + 1))
    if args.held_out:
        kinds, seeds = (list(HELD_OUT_KINDS), seeds) if not args.kinds else (kinds, HELD_OUT_SEEDS)
    work = jobs(kinds, args.causes.split(",") if args.causes else (), seeds, args.at_once)
    begun = perf_counter()
    with ProcessPoolExecutor() as pool:
        found = list(pool.map(one, work, chunksize=4))
    results = [told for told in found if told is not None]
    report(results, len(found) - len(results), perf_counter() - begun)
    if args.show:
        for r in results:
            if not r.first:
                ranking = [("+".join(codes) or "nothing", round(p, 2)) for codes, p in r.ranking[:3]]
                print(r.kind, r.wrong, r.severity, r.outside_f, r.symptom, ranking, r.said, r.answers)


if __name__ == "__main__":
    sys.exit(main())
