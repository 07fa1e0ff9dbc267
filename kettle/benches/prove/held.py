"""Did it hold? From the answers, a shop's own record: how often the first suspect was right, how long it took, what comes back."""

from collections import Counter, defaultdict
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from statistics import median
from typing import Final

ANSWERS: Final = {"held": "held", "came_back": "came back", "something_else": "something else"}
# A visit on which nothing came of it within so many days is asked about.
ASKED_AFTER_DAYS: Final = 7
BINS: Final = ((0.0, 0.25), (0.25, 0.5), (0.5, 0.7), (0.7, 0.85), (0.85, 0.95), (0.95, 1.01))
FEW: Final = 5


@dataclass(frozen=True)
class Case:
    """One closed call: first suspect and its probability, the cause found (codes; empty where none was named), minutes to it,
    and what was done.

    `answer` is a word of `ANSWERS`, empty where nobody said yet; `unit` names the unit, `year` the year it was closed.
    """

    suspects: tuple[str, ...]
    probability: float
    found: tuple[str, ...]
    minutes: float | None
    done: tuple[str, ...]
    answer: str
    unit: str
    year: int

    @property
    def right(self) -> bool | None:
        """Whether the first suspect was what was found; None where no cause was named."""
        return None if not self.found else bool(set(self.suspects) & set(self.found)) and bool(self.suspects)


@dataclass(frozen=True)
class Rate:
    """How many of how many, with its name; `mean` is the mean stated probability where it is of stated ones."""

    name: str
    of: int
    count: int
    mean: float | None = None

    @property
    def share(self) -> float:
        """The share, 0 to 1."""
        return self.of / self.count if self.count else 0.0

    @property
    def few(self) -> bool:
        """Whether they are too few to say much."""
        return self.count < FEW


@dataclass(frozen=True)
class Record:
    """A shop's record: first suspect right in all, by stated probability and by cause; median minutes;
    call-backs by cause, repair, unit and year.
    """

    first_right: Rate
    by_probability: tuple[Rate, ...]
    by_cause: tuple[Rate, ...]
    minutes: float | None
    back: Rate
    back_by_cause: tuple[Rate, ...]
    back_by_repair: tuple[Rate, ...]
    back_by_unit: tuple[Rate, ...]
    back_by_year: tuple[Rate, ...]


def record(cases: Sequence[Case]) -> Record:
    """Return the record of closed calls; a call without an answer counts in no call-back, one without a named cause in no first suspect."""
    named = [case for case in cases if case.right is not None]
    bins = []
    for low, high in BINS:
        inside = [case for case in named if low <= case.probability < high]
        if inside:
            name = f"{100 * low:.0f} to {min(100 * high, 100):.0f} %"
            bins.append(Rate(name, sum(bool(case.right) for case in inside), len(inside), sum(c.probability for c in inside) / len(inside)))
    causes: dict[str, list[bool]] = defaultdict(list)
    for case in named:
        for code in case.found:
            causes[code].append(bool(case.right))
    answered = [case for case in cases if case.answer]
    took = [case.minutes for case in named if case.minutes is not None]
    return Record(
        Rate("all", sum(bool(case.right) for case in named), len(named)), tuple(bins),
        tuple(sorted((Rate(code, sum(rights), len(rights)) for code, rights in causes.items()), key=lambda rate: -rate.count)),
        median(took) if took else None, Rate("all", sum(case.answer == "came_back" for case in answered), len(answered)),
        _back(answered, lambda case: case.found), _back(answered, lambda case: tuple(dict.fromkeys(case.done))),
        _back(answered, lambda case: (case.unit,)), _back(answered, lambda case: (str(case.year),)),
    )  # fmt: skip


def _back(answered: Sequence[Case], names: Callable[[Case], tuple[str, ...]]) -> tuple[Rate, ...]:
    back, count = Counter[str](), Counter[str]()
    for case in answered:
        for name in names(case):
            count[name] += 1
            back[name] += case.answer == "came_back"
    return tuple(sorted((Rate(name, back[name], count[name]) for name in count), key=lambda rate: (-rate.of, -rate.count, rate.name)))
