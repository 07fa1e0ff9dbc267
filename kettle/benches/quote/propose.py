"""Lines of a quote proposed: for each cause found, what puts it right for now, for good, or the whole unit anew."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Final

from kettle.benches.quote.price import Line
from kettle.knowledge import causes
from kettle.knowledge.acts import ACTS, Act
from kettle.knowledge.equipment import Unit

OPTIONS: Final = {"now": "Put right for now", "good": "Put right for good", "replace": "Replace the unit"}
# About how long work on a part takes, hours; judgement of the trade. One whose circuit is opened takes the evacuation besides.
HOURS: Final[Mapping[str, float]] = {
    "coil": 1.5, "evap_fan": 1.0, "door": 1.0, "stock": 0.3, "drain": 0.7, "drain_heater": 1.0, "condenser": 1.0, "condenser_fan": 1.2,
    "head_control": 1.5, "bulb": 0.4, "valve": 1.5, "cap_tube": 2.0, "drier": 1.0, "liquid_solenoid": 1.0, "regulator": 0.5, "charge": 1.0,
    "leak": 1.5, "air": 1.0, "compressor": 3.0, "contactor": 0.7, "start_parts": 0.7, "supply": 0.5, "wiring": 0.7, "heater": 1.5,
    "timer": 0.7, "relay": 0.7, "termination": 0.6, "sensor": 0.5, "thermostat": 0.6, "pressure_control": 0.7, "program": 0.5,
    "parameters": 0.5, "control": 0.2, "hot_gas_valve": 1.2, "frame_heater": 1.5, "water_valve": 1.0,
}  # fmt: skip
OPENS_H: Final = 2.0
NITROGEN: Final = "nitrogen"
# Shares of `removes`: what puts right for good, and what is worth trying for now.
FOR_GOOD, FOR_NOW = 0.75, 0.3
TEMPORARY: Final = ("evap_fan.delay_bridged", "compressor.rested", "condenser.blocked_on_purpose", "condenser.unblocked", "valve.exercised",
                    "charge.added", "relay.freed", "evap_fan.freed", "contactor.tightened", "drain.thawed", "coil.melted")  # fmt: skip
# Short of gas is a leak: it is searched for and repaired with it, and the gas alone is a call-back.
SHORT: Final = "undercharge"
REPAIRED: Final = "leak.repaired"
SEARCH_H: Final = 1.5
SEARCHED: Final = "Leak searched: detector, bubbles, standing pressure"
NOT_QUOTED: Final = ("leak.given_up", "charge.recovered", "condenser.blocked_on_purpose", "condenser.unblocked")


@dataclass(frozen=True)
class Proposed:
    """One option: its code of `OPTIONS`, and its lines."""

    option: str
    lines: tuple[Line, ...]


def proposed(unit: Unit, found: Sequence[str], done: Sequence[str], leak_found: bool = False) -> list[Proposed]:
    """Return what to quote for the causes found beyond what was done, by codes: for now where that is other, for good, all anew.

    `leak_found`: where it leaks is known, and nobody is paid for looking for it.
    """
    good: list[Act] = []
    now: list[Act] = []
    for code in dict.fromkeys(found):
        if code not in causes.CATALOGUE:
            continue
        able = sorted(
            (act for act in ACTS.values() if act.removes.get(code, 0.0) >= FOR_NOW and act.exists_on(unit) and act.code not in NOT_QUOTED),
            key=lambda act: -act.removes[code],
        )
        lasting = [act for act in able if act.removes[code] >= FOR_GOOD and act.code not in TEMPORARY]
        if code == SHORT and unit.critical_charge_oz is None:
            # No label says what to weigh in: gas by its weight to what the glass and the readings ask for.
            lasting = [act for act in able if act.code == "charge.added"]
        # A label charge is weighed in or it is not right: a little more of it is no cure for now either.
        by_label = code == SHORT and unit.critical_charge_oz is not None
        quick = [act for act in able if (act.code in TEMPORARY or not act.spares) and not (by_label and act.code == "charge.added")]
        if any(act.code in done for act in lasting):
            # What lasts was done: nothing of it is left to quote.
            continue
        if (lasting or able) and (lasting or able)[0].code not in done:
            good.append((lasting or able)[0])
        # Gas alone is the answer for now, and with the leak repaired it is the one for good.
        if quick and quick[0].code not in done and (quick[0] not in good or code == SHORT):
            now.append(quick[0])
    leaks = SHORT in found and REPAIRED not in done
    searched = () if not leaks or leak_found else (Line(SEARCHED, "labour", _hours(SEARCH_H)),)
    if leaks:
        good.insert(0, ACTS[REPAIRED])
    options = [Proposed(option, (*searched, *_lines(acts))) for option, acts in (("now", now), ("good", good)) if acts]
    if options:
        whole = (Line(f"New {unit.kind.label.lower()}, delivered and started", "whole", Decimal(1)), Line("Travel", "travel", Decimal(1)))
        options.append(Proposed("replace", whole))
    return options


def of_change(label: str, needs: Sequence[str], hours: float) -> tuple[Line, ...]:
    """Return the lines of a part changed step by step: what its steps need, and their hours."""
    parts = [Line(label, "part", Decimal(1)), *(Line(what, "part", Decimal(1)) for what in dict.fromkeys(needs) if what)]
    return (*parts, Line(f"{label}: changed, evacuated, run in", "labour", _hours(hours)), Line("Travel", "travel", Decimal(1)))


def _lines(acts: Sequence[Act]) -> tuple[Line, ...]:
    lines, opened = [], False
    for act in {act.code: act for act in acts}.values():
        lines += [Line(part[:1].upper() + part[1:], "part", Decimal(1)) for part in act.spares]
        opens = NITROGEN in act.spares
        hours = HOURS[act.part] + (OPENS_H if opens and not opened else 0.0)
        opened = opened or opens
        lines.append(Line(act.label, "labour", _hours(hours)))
    kept = {(line.what, line.kind): line for line in lines}
    return (*kept.values(), Line("Travel", "travel", Decimal(1)))


def _hours(hours: float) -> Decimal:
    return Decimal(str(round(hours * 4) / 4))
