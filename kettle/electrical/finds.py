"""What a fault of the circuit is called as a cause, and which measurements are observations of their own."""

from itertools import combinations
from typing import Final

from kettle.electrical.circuit import Circuit
from kettle.electrical.faults import Fault

# Start of a part's key -> (way or any, code of the cause it stands for), the first that fits.
CAUSES: Final[tuple[tuple[str, str, str], ...]] = (
    ("pole_", "", "contactor_pole_open"),
    ("winding_", "grounded", "compressor_grounded"), ("winding_", "", "compressor_open_winding"), ("overload", "", "compressor_overload"),
    ("start_", "", "start_parts_failed"), ("run_capacitor", "", "start_parts_failed"),
    ("disconnect_", "", "voltage_problem"), ("fuse_", "", "voltage_problem"), ("control_fuse", "", "no_call"), ("stat", "", "no_call"),
    ("contactor_coil", "", "no_call"),
    ("comp_relay", "welded", "compressor_runs_in_defrost"), ("comp_relay", "", "no_call"), ("transformer", "", "no_call"),
    ("relay_coil", "", "start_parts_failed"), ("lead_", "", "voltage_problem"), ("solenoid", "", "liquid_solenoid_closed"),
    ("fan_delay", "open", "fan_delay_waiting"), ("fan_output", "open", "evap_fan_no_power"), ("fan_lead", "", "evap_fan_no_power"),
    ("door_switch", "open", "evap_fan_no_power"), ("fan_", "", "evap_fan_failed"),
    ("condenser_", "", "condenser_fan_failed"),
    ("element_", "grounded", "heater_grounded"), ("element_", "", "defrost_heater_open"), ("heater_limit", "open", "defrost_heater_open"),
    ("defrost_pole", "open", "defrost_heater_open"), ("defrost_coil", "", "defrost_heater_open"),
    ("timer_heat", "open", "defrost_never_starts"), ("defrost_output", "open", "defrost_never_starts"),
    ("heater_feed", "", "defrost_heater_open"), ("hot_gas_coil", "open", "hot_gas_valve_shut"), ("frame_heater", "", "frame_heater_dead"),
    ("liquid_output", "open", "liquid_solenoid_closed"), ("timer_motor", "", "defrost_never_starts"),
    ("termination", "closed", "defrost_never_starts"),
    ("timer_cool", "welded", "compressor_runs_in_defrost"), ("timer_cool", "open", "no_call"), ("drain_heater", "", "drain_blocked"),
)  # fmt: skip


# A switch that a pressure opens is no fault of the wiring: part and way -> the observation it is, whose causes are Judge's.
OPENED: Final[dict[tuple[str, str], tuple[str, str]]] = {
    ("lp_switch", "open"): ("low_pressure_switch", "open"), ("hp_switch", "open"): ("high_pressure_switch", "open"),
}  # fmt: skip


def opened(circuit: Circuit, one: str, other: str) -> tuple[str, str] | None:
    """Return the observation that full volts between two points are, where they are the ends of a switch that a pressure opens."""
    ends = {part.key: {part.a, part.b} for part in circuit.parts}
    return next((seen for (part, _), seen in OPENED.items() if ends.get(part) == {one, other}), None)


# What is asked once a part was found, before a new one goes in: by cause, else by the kind of part.
AFTERWARDS: Final[dict[str, tuple[str, ...]]] = {
    "contactor_pole_open": (
        "Why did it burn? Volts at its coil and in the line, starts an hour, amps against the plate, a loose lug",
        "The motor behind it is not grounded, its windings are right",
    ),
    "compressor_grounded": ("Leave it off. Why did it burn? Volts, pole drops, oil, what the start gear looked like",),
    "start_parts_failed": ("Windings right and not grounded before new start parts go in; note the wires by function first",),
    "compressor_overload": ("Why did it run hot? Charge, head, airflow, volts, start gear",),
    "heater_grounded": ("Leave it off: the new element's ohms to ground are read before it has volts",),
    "defrost_heater_open": ("The others cold, and each to ground; the limit and what should have ended the defrost",),
    "compressor_runs_in_defrost": ("Why did it weld? Its load is not grounded, starts an hour, amps against its rating",),
}
OPENED_AFTERWARDS: Final = ("Which pressure opened it? Read it against where the switch is set before anything is changed",)
LEADS_AFTERWARDS: Final = ("A burnt or loose lead: prove that what it feeds is not grounded before it is put on again",)


def afterwards(fault: Fault) -> tuple[str, ...]:
    """Return what to ask or prove once a fault was found and before a new part goes in."""
    leads = LEADS_AFTERWARDS if "lead" in fault.part else ()
    pressure = OPENED_AFTERWARDS if (fault.part, fault.way) in OPENED else ()
    return (*leads, *pressure, *AFTERWARDS.get(cause_of(fault), ()))


def cause_of(fault: Fault) -> str:
    """Return the code of the cause a fault stands for; empty where it is none of the catalogue."""
    if sum(one.part.startswith("winding_") and one.way == "open" for one in fault.each) == len(fault.each) > 2:
        # What opens all of them at once is no winding but the protector among them.
        return "compressor_overload"
    return next((code for start, way, code in CAUSES if fault.part.startswith(start) and way in ("", fault.way)), "")


# Start of a part's key, state -> the observation its amps are.
AMPS: Final = (
    ("lead_", "calling", "compressor_amps"), ("defrost_pole", "defrosting", "heater_amps"), ("heater_feed", "defrosting", "heater_amps"),
)  # fmt: skip
# Two pins of a compressor -> the observation their ohms are; on three phases the pairs are kept as they come.
_WINDINGS: Final = {
    frozenset("12"): "winding_cs_ohm", frozenset("23"): "winding_sr_ohm", frozenset("13"): "winding_cr_ohm",
    frozenset("CS"): "winding_cs_ohm", frozenset("SR"): "winding_sr_ohm", frozenset("CR"): "winding_cr_ohm",
}  # fmt: skip
# Observations are of a unit that calls; a heater's volts are of one in a defrost: at any other time 0 V there is right.
TAKEN_IN: Final = {"heater_volts": "defrosting"}


def taken_in(key: str) -> str:
    """Return the state of the circuit that an observation of its volts is of."""
    return TAKEN_IN.get(key, "calling")


def observed_in(circuit: Circuit, one: str, other: str, state: str) -> str:
    """Return the key of the observation that volts between two points are in a state; empty where they are none then."""
    key = observed_as(circuit, one, other)
    return key if key and taken_in(key) == state else ""


def observed_as(circuit: Circuit, one: str, other: str) -> str:
    """Return the key of the observation that volts between two points can be; empty where they are none."""
    pair = {one, other}
    common = circuit.common
    for side, letter in (("line", "L"), ("load", "T")):
        for pins in ("12", "23", "31"):
            if circuit.phases == 3 and pair == {f"{letter}{pins[0]}", f"{letter}{pins[1]}"}:
                return f"{side}_v_{pins}"
        # Of one phase the second leg is neutral, or what a second pole makes of it.
        if circuit.phases == 1 and pair == {f"{letter}1", "T2" if side == "load" and circuit.has("pole_2") else common}:
            return f"{side}_v_12"
    for n in "123":
        if pair == {common if circuit.phases == 1 and n == "2" else f"L{n}", f"T{n}"}:
            return f"pole_drop_v_{n}"
    if pair == {"H1", common}:
        return "heater_volts"
    return "evap_fan_supply_v" if pair == {"M1", common} else ""


def observed_amps(part: str, state: str) -> str:
    """Return the key of the observation that amps round a part's lead are in a state; empty where they are none."""
    return next((key for start, when, key in AMPS if part.startswith(start) and when == state), "")


def observed_ohms(circuit: Circuit, one: str, other: str) -> str:
    """Return the key of the observation that ohms between two points are, of a compressor's windings or to its shell; else empty."""
    pins = {"C1": "1", "C2": "2", "C3": "3"} if circuit.phases == 3 else {"C": "C", "S": "S", "R": "R", circuit.common: "R", "T2": "R"}
    pair = {one, other}
    if circuit.ground in pair and any(one[:1] == "E" and one[1:].isdigit() for one in pair):
        return "heater_ground_ohm"
    if circuit.ground in pair:
        return "winding_ground_ohm" if pair - {circuit.ground} <= set(pins) - {circuit.common, "T2"} else ""
    if not pair <= set(pins):
        return ""
    return _WINDINGS.get(frozenset(pins[key] for key in pair), "")


def leads_of(circuit: Circuit, key: str) -> tuple[str, str] | None:
    """Return the two points an observation is measured between; None where it is none of this circuit's volts."""
    pairs = combinations((point.key for point in circuit.points), 2)
    return next((pair for pair in pairs if observed_as(circuit, *pair) == key), None)
