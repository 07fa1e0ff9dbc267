"""What to come back for: proposed by what was done and left, with when and why."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final

from kettle.knowledge.equipment import Unit

COLD_DAY_F: Final = 70.0


@dataclass(frozen=True)
class Proposal:
    """A follow-up: its code, what to look at, why, and in how many days (soonest, latest); `from_f` where a day that warm is waited for."""

    code: str
    what: str
    why: str
    days: tuple[int, int]
    from_f: float | None = None


# fmt: off
ICE_LEFT: Final = Proposal("ice_left", "Look for ice, back and corners", "Melted with ice left", (2, 4))
MELTED: Final = Proposal("melted", "Look at the coil for new ice", "It was iced and melted", (2, 4))
COLD_CHARGE: Final = Proposal("cold_charge", "Check the charge by its glass", "Charged on a cold day", (14, 180), COLD_DAY_F)
QUOTE: Final = Proposal("quote", "Ask for the answer to the quote", "A quote waits", (3, 7))
TEMPORARY: Final = Proposal("temporary", "Put it right for good", "A temporary measure was left", (1, 7))
FREED: Final = Proposal("valve_freed", "Superheat again; the valve is due for replacement", "The valve was freed, not replaced", (7, 14))
LEAK_OPEN: Final = Proposal("leak_open", "What it lost, and the repair", "The leak was left open", (14, 30))
GAS_ADDED: Final = Proposal("gas_added", "Level and glass: does it lose again?", "Gas was added and no leak repaired", (7, 30))
BURN_OUT: Final = Proposal("compressor", "Acid test, suction drier, amps", "The compressor was replaced", (2, 7))
NOT_PROVED: Final = Proposal("not_proved", "Prove what could not be seen", "Left before it was proved", (1, 3))
CONTROLLER: Final = Proposal("controller", "Read the controller again", "Not confirmed when it was left", (1, 3))
RELEASE: Final = Proposal("inside_release", "The inside release", "It failed", (0, 1))
DEFROSTING: Final = Proposal("defrosting", "Box and coil after the defrost", "Left in a defrost", (1, 2))
OPENED: Final = Proposal("opened", "Test and evacuate the circuit", "Left open", (0, 1))
PROGRAM: Final = Proposal("program", "Coil after a defrost, ended by what", "The defrosts were changed", (3, 7))
# fmt: on
PROPOSALS: Final = {
    one.code: one
    for one in (
        ICE_LEFT,
        MELTED,
        COLD_CHARGE,
        QUOTE,
        TEMPORARY,
        FREED,
        LEAK_OPEN,
        GAS_ADDED,
        BURN_OUT,
        NOT_PROVED,
        CONTROLLER,
        PROGRAM,
        RELEASE,
        DEFROSTING,
        OPENED,
    )
}  # fmt: skip


@dataclass(frozen=True)
class Left:
    """How a visit is left: acts done (codes), observations that stand, and what else is on record."""

    unit: Unit
    done: Sequence[str] = ()
    seen: Mapping[str, Any] | None = None
    melted: bool = False
    ice_left: bool = False
    temporary: tuple[str, ...] = ()
    quote_waits: bool = False
    proved: bool = True


def proposed(left: Left) -> list[Proposal]:
    """Return what to come back for, most pressing first."""
    seen, done = left.seen or {}, set(left.done)
    found = []
    if left.temporary:
        found.append(TEMPORARY)
    if left.ice_left:
        found.append(ICE_LEFT)
    elif left.melted:
        found.append(MELTED)
    if "compressor.replaced" in done:
        found.append(BURN_OUT)
    if "valve.exercised" in done and not {"valve.replaced", "valve.element_replaced"} & done:
        found.append(FREED)
    gas = {"charge.added", "charge.weighed_in"} & done
    if "leak.given_up" in done:
        found.append(LEAK_OPEN)
    elif "charge.added" in done and "leak.repaired" not in done:
        found.append(GAS_ADDED)
    ambient = seen.get("ambient_f")
    if gas and left.unit.receiver and ambient is not None and float(ambient) < COLD_DAY_F and "condenser.blocked_on_purpose" not in done:
        found.append(COLD_CHARGE)
    if {"program.changed", "timer.set", "heater.replaced", "termination.replaced"} & done and not (left.melted or left.ice_left):
        found.append(PROGRAM)
    if left.quote_waits:
        found.append(QUOTE)
    if not left.proved:
        found.append(NOT_PROVED)
    return found
