"""Truth table of what switches: each terminal's volts in cooling and in defrost, beside what was measured.

A timer: in cooling its compressor contact has line volts and its heater contact none, in defrost the other way round; both live is a
welded timer. A terminal that is as it should be clears the timer, and what does not follow it is the relay behind it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kettle.electrical.circuit import Circuit
from kettle.electrical.measure import Reading
from kettle.electrical.solve import solve

STATES: Final = ("calling", "defrosting")
# The terminals in the order of the table, as far as a circuit has them.
TERMINALS: Final = ("K1", "4", "3", "K2", "KF", "KR", "T1", "H1", "M1")
DEAD_SHARE, LIVE_SHARE = 0.2, 0.8

# Parts of a circuit that does something else in a defrost.
DEFROSTS: Final = ("defrost_coil", "heater_feed", "hot_gas_coil", "timer_cool")


@dataclass(frozen=True)
class Cell:
    """A terminal in a state: volts that are right there, what was measured, and whether that is as it should be (None: not measured)."""

    state: str
    expected: float
    measured: float | None
    right: bool | None


@dataclass(frozen=True)
class Row:
    """A terminal: its point, what it is called, and its two cells."""

    key: str
    label: str
    cells: tuple[Cell, ...]


def table(circuit: Circuit, readings: Sequence[Reading]) -> list[Row]:
    """Return the terminals of timer, controller and relays with volts to the common, expected and measured."""
    common = circuit.common
    took = {(frozenset((r.one, r.other)), r.state): r.value for r in readings if r.what == "volts"}
    # A circuit that cuts nothing in a defrost has one column.
    states = STATES if any(circuit.has(part) for part in DEFROSTS) else STATES[:1]
    rows = []
    for key in (key for key in TERMINALS if any(point.key == key for point in circuit.points)):
        cells = []
        for state in states:
            expected = float(solve(circuit, state).between(key, common)[0])
            measured = took.get((frozenset((key, common)), state))
            cells.append(Cell(state, expected, measured, None if measured is None else _same(measured, expected, circuit.volts)))
        rows.append(Row(key, circuit.point(key).label, tuple(cells)))
    return rows


def _same(measured: float, expected: float, supply: float) -> bool:
    return (measured > LIVE_SHARE * supply) if expected > LIVE_SHARE * supply else (measured < DEAD_SHARE * supply)


def comes_to(circuit: Circuit, rows: Sequence[Row], runs_in_defrost: bool | None, heater_amps: float | None) -> list[str]:
    """Return what the table comes to, a line each. `runs_in_defrost` is the compressor seen then, `heater_amps` those measured then."""
    at = {(row.key, cell.state): cell for row in rows for cell in row.cells}
    timer = "timer" if circuit.has("timer_motor") else "controller"
    cool, heat = ("4" if any(row.key == "4" for row in rows) else "K2"), "3"
    said = []
    if _live(at.get((cool, "defrosting")), circuit) and _live(at.get((heat, "defrosting")), circuit):
        said.append(f"Both contacts live in a defrost: the {timer}'s cooling contact has welded")
    elif _live(at.get((heat, "calling")), circuit):
        said.append(f"The heater contact is live while it cools: the {timer}'s defrost contact has welded")
    if _dead(at.get(("K1", "calling")), circuit):
        said.append("No volts come to the control at all: its fuse, or what feeds it")
    elif _dead(at.get((cool, "calling")), circuit):
        said.append(f"The {timer} has volts and does not give them to the compressor: its cooling contact, or no call")
    if _dead(at.get((heat, "defrosting")), circuit):
        said.append(f"No volts at the heater contact in a defrost: the {timer}")
    if _dead(at.get((cool, "defrosting")), circuit) and runs_in_defrost:
        said.append("The contact has let go and the compressor still draws: the relay or contactor behind it has welded. "
                    "Tap it: if it drops out, that is proved")  # fmt: skip
    if _live(at.get((heat, "defrosting")), circuit) and _dead(at.get(("H1", "defrosting")), circuit):
        said.append("The heater contact is live and the heaters have no volts: the relay between them, its coil or its contact")
    if _live(at.get(("H1", "defrosting")), circuit) and heater_amps is not None and heater_amps < 0.5:
        said.append("The heaters have their volts and draw nothing: an open element or limit")
    if _live(at.get(("KF", "calling")), circuit) and _dead(at.get(("M1", "calling")), circuit):
        said.append("The output is live and the fan has no volts: the wire or a switch between them")
    elif _dead(at.get(("KF", "calling")), circuit):
        said.append("The controller should give volts to its fans and does not: its output is dead")
    return said


def _live(cell: Cell | None, circuit: Circuit) -> bool:
    return cell is not None and cell.measured is not None and cell.measured > LIVE_SHARE * circuit.volts


def _dead(cell: Cell | None, circuit: Circuit) -> bool:
    return cell is not None and cell.measured is not None and cell.measured < DEAD_SHARE * circuit.volts
