"""Siblings on one plant: what their state clears and what stays in question."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

STATES: Final = ("ok", "bad")
# What one plant shares, and what each box has of its own.
SHARED: Final = "Compressor, condenser, charge, liquid supply"
BRANCH: Final = "This box: solenoid, strainer, valve, coil, fans, defrost, sensor"


@dataclass(frozen=True)
class Together:
    """What the siblings say: the `siblings` observation, whether shared part and own branch are cleared, and words."""

    observation: str | None
    shared_cleared: bool
    branch_cleared: bool
    text: str


def together(states: Sequence[str | None]) -> Together:
    """Return what the states of all siblings (ok, bad, None for not looked at) say together.

    Trade rule: the others fine, then look at this box's own branch; all bad, then look upstream.
    """
    seen = [state for state in states if state is not None]
    if not states:
        return Together(None, False, False, "No other box on the same plant.")
    if len(seen) < len(states):
        return Together(None, False, False, f"{len(states) - len(seen)} of {len(states)} not looked at yet.")
    if all(state == "ok" for state in seen):
        return Together("all_ok", True, False, f"The others are fine: {SHARED.lower()} are cleared. Look at this box's own branch.")
    if all(state == "bad" for state in seen):
        return Together("also_bad", False, True, "All of them are bad: look upstream, at what they share, before this box.")
    return Together(None, False, False, "Some are bad too, and some are fine: both the shared part and this branch stay in question.")
