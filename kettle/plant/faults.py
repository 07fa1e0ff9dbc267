"""What each cause changes in a plant: the part that is wrong, never the reading.

A fault has a severity from 0 (as new) to 1 (as bad as it comes); `seen` is what eyes and hands find at the part itself.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Final

import numpy as np

from kettle.knowledge.equipment import Unit, UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.plant.box import ICE_LB_FT3
from kettle.plant.parts import Plant
from kettle.plant.rows import Figures
from kettle.plant.sizing import sized

Change = Callable[[Plant, Figures], None]
Mark = Callable[[Any, Plant, Figures], None]


def _scale(name: str, per_severity: float) -> Change:
    """A part that loses (or gains) a share of its size with severity."""

    def change(plant: Plant, severity: Figures) -> None:
        plant.parts[name] *= np.maximum(1.0 + per_severity * severity, 0.0)

    return change


def _add(name: str, amount: float) -> Change:
    """A figure that moves by an amount at full severity."""

    def change(plant: Plant, severity: Figures) -> None:
        plant.parts[name] += amount * severity

    return change


def _set(name: str, value: float) -> Change:
    """A part that is in another state as soon as the fault is there at all."""

    def change(plant: Plant, severity: Figures) -> None:
        plant.parts[name] = np.where(severity > 0, value, plant.parts[name])

    return change


def _all(*changes: Change) -> Change:
    def change(plant: Plant, severity: Figures) -> None:
        for one in changes:
            one(plant, severity)

    return change


def _warm_stock(s: Any, plant: Plant, severity: Figures) -> None:
    s.product_f = s.product_f + 30.0 * severity
    s.core_f = s.core_f + 30.0 * severity


def _old_ice(s: Any, plant: Plant, severity: Figures) -> None:
    s.ice_lb += (0.9 * plant.parts.gap_ft3 * ICE_LB_FT3 * severity)[:, None] * np.array([0.1, 0.2, 0.3, 0.4])


@dataclass(frozen=True)
class Fault:
    """A cause in the plant: what it changes in the parts, what in the state at the start, and what is seen at the part.

    `wiring` is what it does in the unit's circuit (keys of `kettle.electrical.faults.Fault`, the first whose parts are there), `legs` the
    share of its volts each leg of the supply has.
    """

    code: str
    change: Change | None = None
    at_start: Mark | None = None
    seen: Mapping[str, Value] = field(default_factory=dict)
    wiring: tuple[str, ...] = ()
    legs: tuple[float, ...] = ()


# The units a fault can be on: field of the unit -> values that have the part; those left out can be on any.
_VALVE: Final = {"metering": ("txv", "eev")}
_HEATED: Final = {"defrost": ("electric", "hot_gas")}
_PROGRAM: Final = {"defrost": ("timed_air", "electric", "hot_gas")}
_AIR: Final = {"condensing": ("air",)}
_WATER: Final = {"condensing": ("water",)}
_GAS: Final = {"defrost": ("hot_gas",)}
_HELD: Final = {"head_control": ("mixing_valve", "mixing_valve_and_fan", "fan_cycling", "fan_speed")}
ONLY: Final[Mapping[str, Mapping[str, tuple[Any, ...]]]] = {
    "cap_tube_restricted": {"metering": ("cap_tube",)}, "txv_underfeeding": _VALVE, "txv_overfeeding": _VALVE,
    "bulb_fault": {"metering": ("txv",)}, "liquid_solenoid_closed": _VALVE, "solenoid_leaking": _VALVE, "suction_regulator_shut": _VALVE,
    "defrost_heater_open": {"defrost": ("electric",)}, "heater_grounded": {"defrost": ("electric",)},
    "defrost_never_starts": _PROGRAM, "defrost_too_little": _PROGRAM,
    "defrost_too_much": _PROGRAM, "defrost_not_terminating": _HEATED, "compressor_runs_in_defrost": {"defrost": ("electric",)},
    "hot_gas_valve_shut": _GAS, "hot_gas_valve_leaking": _GAS, "frame_heater_dead": {"frame_heated": (True,)},
    "water_flow_low": _WATER, "water_valve_open": _WATER, "condenser_fan_failed": _AIR,
    "head_control_stuck_bypass": _HELD, "head_control_not_holding": _HELD,
    "winter_charge_short": _HELD, "wrong_parameters": {"metering": ("eev",)}, "start_parts_failed": {"phases": (1,)},
    "fan_delay_waiting": _HEATED, "lp_control_misset": _VALVE,
}  # fmt: skip
_DEAD: Final = _set("can_run", 0.0)
# A bank has so many elements; each is whole or open.
ELEMENTS: Final = 3


def elements_open(severity: float) -> int:
    """Return how many elements of a bank are open at a severity: one as soon as there is any, all at its worst."""
    return min(ELEMENTS, int(np.ceil(severity * ELEMENTS)))


def _foul(plant: Plant, severity: Figures) -> None:
    """Dirt takes surface and air from fins; scale takes surface from tubes and lets the water by."""
    plant.parts.condenser *= 1.0 - 0.6 * severity
    if plant.unit.condensing == "air":
        plant.parts.condenser_flow *= 1.0 - 0.45 * severity


def _burn_elements(plant: Plant, severity: Figures) -> None:
    plant.parts.heater_btu_h *= 1.0 - np.minimum(np.ceil(severity * ELEMENTS), ELEMENTS) / ELEMENTS


# fmt: off
FAULTS: Final[dict[str, Fault]] = {f.code: f for f in (
    Fault("door_infiltration", _scale("infiltration_lb_h", 5.0), seen={"door": "left_open", "door_traffic": "heavy"}),
    Fault("door_seal", _scale("infiltration_lb_h", 1.5), seen={"door": "gasket_gap"}),
    Fault("hot_stock", at_start=_warm_stock, seen={"door_traffic": "heavy"}),
    Fault("evap_fan_failed", _scale("fan_flow", -0.97), seen={"evap_fans": "stopped"}, wiring=("fan_1:open+fan_2:open",)),
    Fault("evap_fan_no_power", _scale("fan_flow", -0.97), seen={"evap_fans": "stopped"},
          wiring=("fan_output:open", "fan_lead_1:open+fan_lead_2:open")),
    Fault("fan_delay_waiting", _scale("fan_flow", -0.97),
          seen={"evap_fans": "stopped", "fan_delay": "waits_cold"}, wiring=("fan_delay:open",)),
    Fault("evap_airflow_low", _all(_scale("fan_flow", -0.75), _scale("coil_air", -0.4)), seen={"evap_coil": "dirty"}),
    Fault("defrost_never_starts", _scale("defrosts_per_day", -1.0), seen={"defrost_starts": "never"}),
    Fault("defrost_heater_open", _burn_elements),
    # Its breaker has opened in a defrost: nothing runs.
    Fault("heater_grounded", _DEAD, seen={"compressor": "off", "control_call": "no_power"}, wiring=("element_1:grounded",)),
    Fault("defrost_too_little", _all(_scale("fail_safe_min", -0.8), _scale("defrosts_per_day", -0.5))),
    Fault("defrost_too_much", _all(_scale("defrosts_per_day", 1.5), _add("termination_f", 25.0))),
    Fault("defrost_not_terminating", _all(_add("termination_f", 400.0), _scale("fail_safe_min", 0.8))),
    Fault("compressor_runs_in_defrost", _set("runs_in_defrost", 1.0), seen={"compressor_in_defrost": "running"}),
    Fault("drain_blocked", _all(_set("drain_lb_h", 0.0), _set("drain_heater", 0.0)), seen={"drain": "blocked", "drain_pan": "overflowing"}),
    Fault("residual_ice", at_start=_old_ice, seen={"left_ice": "yes"}),
    Fault("undercharge", _scale("charge_lb", -0.8)),
    Fault("overcharge", _scale("charge_lb", 1.1)),
    Fault("noncondensables", _add("air_psi", 70.0)),
    Fault("liquid_restriction", _add("liquid_drop_psi", 150.0)),
    Fault("cap_tube_restricted", _scale("valve", -0.7)),
    Fault("txv_underfeeding", _all(_scale("valve", -0.72), _add("superheat_set_f", 6.0))),
    Fault("txv_overfeeding", _set("valve_stuck", 1.0)),
    Fault("bulb_fault", _add("bulb_error_f", 25.0), seen={"bulb": "loose"}),
    Fault("liquid_solenoid_closed", _set("solenoid_open", 0.001), seen={"liquid_solenoid": "closed_no_pull", "valve_sound": "silent"}),
    Fault("solenoid_leaking", _add("solenoid_leak", 0.06), seen={"liquid_solenoid": "stuck_open", "pump_down_rise_psi": 18.0}),
    Fault("hot_gas_valve_shut", _scale("heater_btu_h", -0.999), seen={"hot_gas_valve": "stays_shut"}, wiring=("hot_gas_coil:open",)),
    # Gas that goes round is compressed again.
    Fault("hot_gas_valve_leaking", _scale("efficiency", -0.5), seen={"hot_gas_valve": "lets_by", "pump_down_rise_psi": 18.0}),
    Fault("frame_heater_dead", seen={"frame_heater": "cold", "ice_places": ("door_frame",)}, wiring=("frame_heater:open",)),
    Fault("condenser_dirty", _foul, seen={"condenser_coil": "blocked"}),
    Fault("water_flow_low", _scale("condenser_flow", -0.6), seen={"water_valve": "stays_shut"}),
    Fault("water_valve_open", _scale("condenser_flow", 1.5), seen={"water_valve": "stays_open"}),
    Fault("condenser_fan_failed", _scale("condenser_flow", -0.62), seen={"condenser_fans": "stopped"}),
    Fault("head_control_stuck_bypass", _set("head_held_f", 130.0), seen={"head_control": "bypassing_when_warm"}),
    Fault("head_control_not_holding", _all(_set("head_held_f", -99.0), _set("fan_in_f", -99.0)),
          seen={"head_control": "not_holding_when_cold"}),
    Fault("winter_charge_short", _scale("charge_lb", -0.35)),
    Fault("compressor_inefficient", _scale("efficiency", -0.6)),
    Fault("compressor_overload", _DEAD, seen={"compressor": "tripping", "compressor_shell": "hot"},
          wiring=("overload:open", "winding_1:open+winding_2:open+winding_3:open")),
    Fault("compressor_grounded", _DEAD, seen={"compressor": "tripping"}, wiring=("winding_run:grounded", "winding_1:grounded")),
    Fault("compressor_open_winding", _DEAD, seen={"compressor": "humming"}, wiring=("winding_start:open", "winding_1:open")),
    Fault("contactor_pole_open", _DEAD, seen={"compressor": "humming"}, wiring=("pole_1:open",)),
    Fault("start_parts_failed", _DEAD, seen={"compressor": "humming", "start_parts": "capacitor_failed"}, wiring=("start_capacitor:open",)),
    Fault("voltage_problem", _DEAD, seen={"compressor": "tripping"}, legs=(0.72, 1.0, 0.96)),
    Fault("no_call", _DEAD, seen={"control_call": "no_power"}, wiring=("stat:open",)),
    Fault("stat_calibration", _add("sensor_error_f", -8.0)),
    Fault("sensor_mixup", _add("sensor_error_f", -20.0), seen={"circuit_extra": "probe_wrong_role"}),
    Fault("lp_control_misset", _set("lp_in_psia", 400.0), seen={"low_pressure_switch": "open", "compressor": "off"},
          wiring=("lp_switch:open",)),
    # What it holds back is the contactor's coil, which is as if it were open.
    Fault("delay_timer_left", _DEAD, seen={"circuit_extra": "delay_timer", "compressor": "off"}, wiring=("contactor_coil:open",)),
    Fault("short_cycle", _all(_scale("differential_f", -0.9), _scale("least_off_h", -0.8))),
    Fault("suction_regulator_shut", _add("regulator_f", 30.0)),
    Fault("wrong_parameters", _add("superheat_set_f", 14.0), seen={"controller_alarm": "low_superheat"}),
)}
# fmt: on


def get(code: str) -> Fault:
    """Return a fault by the code of its cause; InputError names the nearest ones known."""
    if code not in FAULTS:
        raise InputError(f"fault “{code[:40]}” is not known; known are {', '.join(FAULTS)}")
    return FAULTS[code]


def possible(code: str, unit: Unit) -> bool:
    """Whether a fault can be on a unit built like this."""
    return all(getattr(unit, name) in having for name, having in ONLY.get(code, {}).items())


def changes(code: str) -> tuple[str, ...]:
    """Return the parts a fault changes, by trying it."""
    plant = sized(resolve(UnitSpec("walk_in_freezer", "R-404A")))
    before = plant.parts.copy()
    change = get(code).change
    if change is not None:
        change(plant, np.array([0.5]))
    return tuple(name for name in plant.parts.dtype.names if not np.array_equal(before[name], plant.parts[name], equal_nan=True))


def apply(plant: Plant, state: Any, code: str, severity: float | Figures = 1.0) -> None:
    """Put a fault into a plant and its state, each variant by its own severity (0 to 1).

    Raises InputError for a fault that is not known or cannot be on this unit, or a severity outside 0 to 1.
    """
    get(code)
    if not possible(code, plant.unit):
        raise InputError(f"{code} cannot be on a {plant.unit.build}")
    grade = np.broadcast_to(np.asarray(severity, dtype=float), (plant.count,))
    if not ((grade >= 0) & (grade <= 1)).all():
        raise InputError(f"severity of {code} is outside 0 to 1")
    fault = get(code)
    if fault.change is not None:
        fault.change(plant, grade)
    if fault.at_start is not None:
        fault.at_start(state, plant, grade)
