"""The case files and how well the judgement does on them; a fifth of them is kept out of sight while tables are tuned."""

import hashlib
import json
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from kettle import case
from kettle.judging.coils import judge_coil
from kettle.judging.judge import Judgement

FOLDER = Path(__file__).parent / "cases"
EXPECTED = json.loads((FOLDER / "expected.json").read_text())
BINS = (0.0, 0.2, 0.4, 0.6, 0.8, 1.0001)


def out_of_sight(name):
    """Whether a case is kept out of sight while the tables are tuned: about a fifth, by its name alone."""
    return int(hashlib.sha256(name.encode()).hexdigest(), 16) % 5 == 0


@cache
def judged(name) -> Judgement:
    """The judgement of a case file, once for all that is asked of it."""
    read = case.read((FOLDER / f"{name}.json").read_text())
    return judge_coil(read.resolved(), read.coils())


@dataclass
class Score:
    """How many of some cases come out on top and among the first three, and stated probability against hits."""

    cases: int = 0
    top: int = 0
    first_three: int = 0

    def __str__(self):
        return f"{self.top} of {self.cases} on top, {self.first_three} among the first three"


def score(names):
    """Return the score of some cases, and per bin of stated probability: answers, hits, mean probability."""
    total, bins = Score(), [[0, 0, 0.0] for _ in BINS[1:]]
    for name in names:
        wanted, ranking = set(EXPECTED[name]["causes"]), judged(name).ranking
        total.cases += 1
        total.top += set(ranking[0].codes) == wanted
        total.first_three += any(set(suspect.codes) == wanted for suspect in ranking[:3])
        for suspect in ranking:
            place = next(i for i, edge in enumerate(BINS[1:]) if suspect.probability < edge)
            bins[place][0] += 1
            bins[place][1] += set(suspect.codes) == wanted
            bins[place][2] += suspect.probability
    return total, bins


def report():
    """Return accuracy in sight and out of sight, and the reliability table, as text."""
    lines = []
    for label, hidden in (("in sight while tuning", False), ("out of sight", True)):
        total, bins = score([name for name in EXPECTED if out_of_sight(name) == hidden])
        lines.append(f"{label}: {total}")
        for (low, high), (answers, hits, summed) in zip(zip(BINS, BINS[1:], strict=False), bins, strict=True):
            if answers:
                lines.append(
                    f"  stated {low:.1f} to {min(high, 1):.1f}: {answers} answers, mean {summed / answers:.2f}, right {hits / answers:.2f}"
                )
    return "\n".join(lines)
