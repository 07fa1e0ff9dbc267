"""Stated chances against what was so, over everything that can be scored: simulated units, case files, and whole jobs, together and apart.

    python -m benchmarks.calibration [--every N]

A tenth of the chances a line: how often stated, how sure on average, how often right, and what would have hurt. `--every` takes one in N
of the simulated units (they take two minutes on two processors). What is right of a job at a moment is what its file expects there.
"""

import argparse
import json
import sys
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

from benchmarks.technician import ACTED_ON_FROM, HARM, HELD_OUT_KINDS, jobs, one
from kettle import case
from kettle.call import tell
from kettle.judging.coils import judge_coil
from kettle.plant.simulate import PRESETS
from tests.core.judging.scoring import EXPECTED, FOLDER

JOBS = Path(__file__).parent.parent / "tests" / "core" / "call" / "jobs"
TENTHS = 10
TOLD = 5


def harms(codes, wrong):
    """Whether acting on an answer would hurt: gas, stem or compressor for a fault elsewhere."""
    return any(code in HARM and not set(HARM[code][1]) & set(wrong) for code in codes)


def of_units(every):
    """Simulated units after the automatic technician's visit: (chance, whether right, whether it would hurt)."""
    work = jobs([kind for kind in PRESETS if kind not in HELD_OUT_KINDS], (), (1,), 1)[::every]
    with ProcessPoolExecutor() as pool:
        found = [told for told in pool.map(one, work, chunksize=4) if told is not None]
    return [(p, set(codes) == set(r.wrong), harms(codes, r.wrong)) for r in found for codes, p in r.ranking[:TOLD]]


def of_cases():
    """The case files, each judged once."""
    rows = []
    for name, expected in EXPECTED.items():
        read = case.read((FOLDER / f"{name}.json").read_text())
        wrong = expected["causes"]
        ranking = judge_coil(read.resolved(), read.coils()).ranking[:TOLD]
        rows += [(one.probability, set(one.codes) == set(wrong), harms(one.codes, wrong)) for one in ranking]
    return rows


def of_jobs():
    """Every moment of a job whose file says what it was: its first answers, each right where one of those it wants."""
    rows = []
    for path in sorted(JOBS.glob("*.json")):
        job = json.loads(path.read_text())
        record = case.read_call(json.dumps(job["call"]))
        for want in job["expect"]:
            if "was" not in want:
                continue
            told = tell(record.upto(want["after"]) if "after" in want else record)
            right = [set(codes) for codes in want["was"]]
            every = {code for codes in right for code in codes}
            rows += [(one.probability, set(one.codes) in right, harms(one.codes, every)) for one in told.was.was[:TOLD]]
    return rows


def report(title, rows):
    """Print one table."""
    print(f"{title}: {len(rows)} answers")
    error = 0.0
    for tenth in range(TENTHS):
        low, high = tenth / TENTHS, (tenth + 1) / TENTHS
        inside = [row for row in rows if low <= row[0] < high or (tenth == TENTHS - 1 and row[0] >= high)]
        if not inside:
            continue
        stated, right = (sum(row[n] for row in inside) / len(inside) for n in (0, 1))
        error += abs(stated - right) * len(inside) / len(rows)
        hurt = sum(row[2] and not row[1] for row in inside)
        print(f"  {low:.1f} to {high:.1f}: {len(inside):5}, mean {stated:.2f}, right {right:.2f}, wrong and harmful {hurt}")
    acted = sum(p >= ACTED_ON_FROM and not right and hurt for p, right, hurt in rows)
    print(f"  calibration error {error:.3f}; wrong, harmful and sure enough to be acted on: {acted}")


def main():
    """Judge all of them and print the tables."""
    asked = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    asked.add_argument("--every", type=int, default=1, help="one in so many simulated units")
    args = asked.parse_args()
    tables = {"simulated units": of_units(args.every), "case files": of_cases(), "jobs, by moment": of_jobs()}
    for title, rows in tables.items():
        report(title, rows)
    report("all together", [row for rows in tables.values() for row in rows])


if __name__ == "__main__":
    sys.exit(main())
