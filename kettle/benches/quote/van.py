"""The parts a van carries: what was used of them on a call, what they cost, and what has to be got."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Final

# What follows the name of a part where it is said how to choose it.
CHOSEN_BY: Final = re.compile(r"\s(?:by|as|that|with|where|or its|of the)\s", re.IGNORECASE)
NOT_PARTS: Final = ("recovery cylinder", "refrigerant")


@dataclass(frozen=True)
class Carried:
    """A part of a van: what, how many are in it, how many should be, what one costs in cents (None: not said)."""

    what: str
    carried: Decimal
    wanted: Decimal = Decimal(0)
    cents: int | None = None

    @property
    def short(self) -> Decimal:
        """How many have to be got, none where there are enough."""
        return max(self.wanted - self.carried, Decimal(0))


def short_name(what: str) -> str:
    """Return what a part is called without what to choose it by: "fan motor by volts and watts" is a fan motor."""
    return CHOSEN_BY.split(" ".join(what.split()), maxsplit=1)[0].rstrip(",")


def known_as(what: str) -> str:
    """Return a part's name as it is compared: capitals, spaces and what it is chosen by make no other part of it."""
    return short_name(what).casefold()


def fitting(parts: Sequence[Carried], what: str) -> list[Carried]:
    """Return the parts of a van that can be what is asked for: that very name, or one that goes on from it (a fan motor, 9 W)."""
    asked = known_as(what)
    return [one for one in parts if known_as(one.what) == asked or known_as(one.what).startswith((f"{asked} ", f"{asked},"))]


def price_of(parts: Sequence[Carried], what: str) -> int | None:
    """Return what a part costs by a van's list, cents; None where the van has none of it, or several at different prices."""
    told = {one.cents for one in fitting(parts, what)}
    return next(iter(told)) if len(told) == 1 else None


def to_get(parts: Sequence[Carried]) -> list[tuple[str, Decimal]]:
    """Return what has to be got: (what, how many), in the van's order."""
    return [(one.what, one.short) for one in parts if one.short]


def proposed(spares: Sequence[str], used: Sequence[str]) -> list[str]:
    """Return the parts that what was done takes (by short names) and that nobody noted as used, each once; no tools, and no refrigerant,
    which the ledger counts."""
    have = [Carried(what, Decimal(1)) for what in used]
    names = dict.fromkeys(short_name(what) for what in spares)
    return [what for what in names if what not in NOT_PARTS and not fitting(have, what)]
