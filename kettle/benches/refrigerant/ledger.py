"""The ledger of refrigerant: what each cylinder and each unit took and gave, balances, counter-entries, and leak rates.

Rates as leak rules reckon them: annualised (what was added, over the charge, by the days since the last addition) or rolling (all that was
added in the last year, over the charge). Which one holds and from what rate on is local law.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from kettle.knowledge.measures import OZ_PER_LB

YEAR_DAYS: Final = 365.0
# Scales and hoses leave so much open, oz.
SCALE_OZ: Final = 2.0


@dataclass(frozen=True)
class Kind:
    """A kind of move: its word, and what it does to a cylinder and to a unit (+1 gains, -1 gives, 0 has none)."""

    label: str
    cylinder: int
    unit: int


KINDS: Final[dict[str, Kind]] = {
    "bought": Kind("bought, or brought", 1, 0), "added": Kind("into a unit", -1, 1), "recovered": Kind("out of a unit", 1, -1),
    "returned": Kind("returned to the dealer", -1, 0), "disposed": Kind("destroyed", -1, 0), "lost": Kind("lost from the cylinder", -1, 0),
}  # fmt: skip
METHODS: Final = {"annualised": "annualised", "rolling": "rolling year"}


@dataclass(frozen=True)
class Move:
    """One line: day, kind, ounces (negative for a counter-entry), refrigerant, cylinder and unit where there are any."""

    day: date
    kind: str
    oz: float
    refrigerant: str
    cylinder: str = ""
    unit: str = ""


def balance_of(sums_oz: Mapping[str, float]) -> float:
    """Return what a cylinder should hold by the sums of its moves of each kind, oz."""
    return sum(KINDS[kind].cylinder * oz for kind, oz in sums_oz.items())


def wrong_with(balance: float, limit_lb: float | None) -> str:
    """Return what is wrong with what a cylinder should hold, oz, against its limit, lb; empty where nothing is."""
    if balance < -SCALE_OZ:
        return "more came out than went in: a line is missing, or wrong"
    if limit_lb is not None and balance / OZ_PER_LB > limit_lb:
        return "over its limit: let none more in"
    return ""


def counter(move: Move, day: date) -> Move:
    """Return the counter-entry that takes a move back."""
    return Move(day, move.kind, -move.oz, move.refrigerant, move.cylinder, move.unit)


@dataclass(frozen=True)
class Rate:
    """A leak rate, % a year, with what it rests on, in words."""

    pct: float
    says: str


def leak_rate(moves: Sequence[Move], unit: str, charge_oz: float, today: date, method: str) -> Rate | None:
    """Return the leak rate of a unit, % of its charge a year; None where nothing was added or its charge is not known.

    Annualised: the last addition over the days since the one before, a year where there is none; at most a year counts.
    """
    added = sorted((one for one in moves if one.unit == unit and one.kind == "added"), key=lambda one: one.day)
    if charge_oz <= 0.0 or sum(one.oz for one in added) <= 0.0:
        return None
    if method == "rolling":
        since = today - timedelta(days=int(YEAR_DAYS))
        whole = max(sum(one.oz for one in added if one.day > since), 0.0)
        return Rate(100.0 * whole / charge_oz, f"{whole:.1f} oz in the last year of a charge of {charge_oz:.0f} oz")
    last = added[-1].day
    on_last = max(sum(one.oz for one in added if one.day == last), 0.0)
    before = [one.day for one in added if one.day < last]
    days = min(max((last - before[-1]).days, 1), YEAR_DAYS) if before else YEAR_DAYS
    return Rate(
        100.0 * on_last / charge_oz * YEAR_DAYS / days, f"{on_last:.1f} oz after {days:.0f} days, of a charge of {charge_oz:.0f} oz"
    )
