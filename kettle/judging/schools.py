"""Schools of the trade: where practitioners disagree, the shop chooses, and wording and order follow; arithmetic never does."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.judging.checks import Check
from kettle.judging.suspects import Suspect, remedies
from kettle.knowledge import observations
from kettle.knowledge.observations import Value

# field -> (question, choices): code -> what it says.
CHOICES: Final[dict[str, tuple[str, dict[str, str]]]] = {
    "valve": ("The expansion valve", {"symptom": "a valve that needs adjusting is a symptom", "tune": "set to target at every visit"}),
    "work": ("The work", {"repair": "repaired at once", "quote": "quoted and approved first"}),
}
VALVE_CAUSES: Final = {"txv_underfeeding", "txv_overfeeding"}
TUNE_FIRST: Final = "Box near set and bulb right: bring superheat to target with the stem, ¼ to ½ turn, and wait 10 to 15 min"
ASK_WHY: Final = "A good valve never needs adjusting after start-up: find what changed (bulb, strainer, element, charge) before the stem"
QUOTE_FIRST: Final = "Quote it and have it approved before parts or circuit are touched; record what is declined"
BY_HAND: Final = ("look", "feel", "ask")


@dataclass(frozen=True)
class Schools:
    """What a shop and a person hold with: `valve` symptom or tune, `work` repair or quote, lines told by feel or not."""

    valve: str = "symptom"
    work: str = "repair"
    by_feel: bool = False


def steps(suspect: Suspect, schools: Schools, seen: Mapping[str, Value] | None = None) -> tuple[str, ...]:
    """Return how to put a suspect right, in the order and words of the school; `seen` tells which of several remedies it wants."""
    found = list(remedies(suspect, seen or {}))
    if VALVE_CAUSES & set(suspect.codes):
        found.insert(0, TUNE_FIRST if schools.valve == "tune" else ASK_WHY)
    if suspect.causes and schools.work == "quote":
        found.insert(0, QUOTE_FIRST)
    return tuple(found)


def in_order(checks: Sequence[Check], schools: Schools) -> list[Check]:
    """Return the next checks in the order of the school: by feel, what hand and eye can tell comes first."""
    if not schools.by_feel:
        return list(checks)
    return sorted(checks, key=lambda check: observations.get(check.key).tool not in BY_HAND)
