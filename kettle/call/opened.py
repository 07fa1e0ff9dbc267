"""Opened is a state: from all gas out or a part of the circuit changed, until it is held by nitrogen, dry by microns, filled, started."""

from dataclasses import dataclass
from typing import Final

from kettle.benches.refrigerant.vacuum import HOLD_MICRONS, HOLD_MIN, TARGET_MICRONS
from kettle.call.events import Event
from kettle.call.hears import stood
from kettle.call.stages import Staged, Step
from kettle.knowledge.acts import OPENS

# Weighed in counts as full from this share of the plate's charge.
FULL_SHARE: Final = 0.9


@dataclass(frozen=True)
class Opened:
    """Where a circuit stands: what opened it (none: nothing did), whether its gas is out, whether it was held and is dry since, the last
    microns, whether it was filled again, and the event that opened it last."""

    by: tuple[Step, ...] = ()
    emptied: bool = False
    held: bool = False
    lost: bool = False
    dry: bool = False
    microns: float | None = None
    filled: bool = False
    started: bool = False
    last: Event | None = None

    @property
    def open(self) -> bool:
        """Whether it may not be left yet: opened, and not yet held and dry."""
        return bool(self.by) and not (self.held and self.dry)

    @property
    def empty(self) -> bool:
        """Whether no gas is in it."""
        return self.emptied and not self.filled

    @property
    def runs_again(self) -> bool:
        """Whether something that runs can be asked of it: never opened, or closed, filled and not waiting for its first start."""
        return not self.open and not self.empty

    @property
    def missing(self) -> tuple[str, ...]:
        """What it lacks before it may be left or filled, in words, in order."""
        if not self.by:
            return ()
        found = [] if self.held else ["a pressure test with dry nitrogen"]
        return (*found, *(() if self.dry else (f"a vacuum under {TARGET_MICRONS:.0f} microns that holds under {HOLD_MICRONS:,.0f}",)))


def opened(staged: Staged) -> Opened:
    """Return where the circuit of a call stands.

    A test counts from the act that opened it last. Dry: seen under 500 microns, and under 1,000 ten minutes after without the pump.
    """
    record, label = staged.record, staged.record.label_charge
    by: list[Step] = []
    emptied = False
    last: Event | None = None
    for step in staged.steps:
        if staged.empties(step):
            emptied = True
            by, last = [step], step.event
        elif step.did.code in OPENS:
            by.append(step)
            last = step.event
    if last is None:
        return Opened()
    since = list(record.after(last))
    tests = [event for event in since if event.kind == "nitrogen"]
    leaks = bool(tests) and stood(record, tests[-1]).leaks
    vacuums = [event for event in since if event.kind == "vacuum"]
    went_in = 0.0
    for step in staged.steps:
        if record.place[step.event.number] > record.place[last.number] and step.did.part == "charge" and step.did.did != "recovered":
            went_in += step.did.value or (label or 1.0)
    filled = went_in > 0 and (label is None or went_in >= FULL_SHARE * label)
    started = any(event.kind == "first_start" for event in since)
    return Opened(
        tuple(by), emptied, bool(tests) and not leaks, leaks, _dry(vacuums), vacuums[-1].data["microns"] if vacuums else None, filled,
        started, last,
    )  # fmt: skip


def _dry(vacuums: list[Event]) -> bool:
    """Whether an evacuation proved itself."""
    low = any(event.data["microns"] < TARGET_MICRONS for event in vacuums)
    shut: Event | None = None
    proved = False
    for event in vacuums:
        if event.get("pump", True):
            shut, proved = event, False
            continue
        if event.data["microns"] >= HOLD_MICRONS:
            return False
        shut = shut or event
        if event.at is None or shut.at is None or (event.at - shut.at).total_seconds() / 60.0 >= HOLD_MIN:
            proved = True
    return low and proved
