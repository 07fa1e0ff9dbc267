"""What gauges, clamps, meters and controls say of a simulated unit."""

from collections.abc import Callable
from typing import Final

from kettle.knowledge.observations import Value
from kettle.knowledge.units import psia_to_psig
from kettle.plant.oracle.rig import Rig, volts

Answer = Callable[[Rig], Value | None]
BTU_H_PER_W: Final = 3.412
# Windings, Ω: single-phase common–start, common–run, start–run; three-phase each pair. To ground: sound insulation.
SINGLE_OHM: Final = {"cs": 4.2, "cr": 1.3, "sr": 5.5}
THREE_OHM: Final = 1.8
SOUND_GROUND_OHM: Final = 5e8
POLE_DROP_V: Final = 0.4
LOCKED_ROTOR: Final = 5.0
# A sound compressor pulls a shut suction down to this; one that lost half its efficiency holds at the other, psig.
PULLS_DOWN_PSIG, WORN_PULLS_PSIG = 1.0, 16.0
OFF_H: Final = 0.3


def _running(value: Callable[[Rig], float]) -> Answer:
    return lambda rig: float(value(rig)) if rig.running else None


def _gauge(rig: Rig, psia: float) -> float:
    return psia_to_psig(psia, rig.unit.altitude_ft)


def _suction(rig: Rig) -> float:
    if rig.running:
        return _gauge(rig, float(rig.flows.suction_psia))
    # At rest gas stands over what is left in the coil: at the coil's own temperature, or pumped down.
    pumped = rig.parts.pump_down > 0 and rig.state.liquid_call <= 0
    return (
        _gauge(rig, float(rig.parts.lp_out_psia)) if pumped else rig.unit.refrigerant.dew_psig(float(rig.state.sst_f), rig.unit.altitude_ft)
    )


def _discharge(rig: Rig) -> float:
    if rig.running:
        return _gauge(rig, float(rig.flows.discharge_psia))
    return rig.unit.refrigerant.bubble_psig(float(rig.state.sct_f), rig.unit.altitude_ft) + float(rig.parts.air_psi)


def _resting(rig: Rig) -> float:
    """Stopped for it, its condenser fan on, until both sides stand at the air: saturation there, and what air is in with it."""
    return rig.unit.refrigerant.bubble_psig(rig.outside_f, rig.unit.altitude_ft) + float(rig.parts.air_psi)


def _winding(pair: str) -> Answer:
    return lambda rig: THREE_OHM if rig.unit.phases == 3 else SINGLE_OHM[pair]


def _line(rig: Rig) -> float:
    return volts(rig.unit) if rig.own.get("power_locked_out") != "yes" else 0.0


def _load(rig: Rig) -> float:
    return _line(rig) - POLE_DROP_V if rig.contactor_in else 0.0


def _drop(rig: Rig) -> float | None:
    return POLE_DROP_V if rig.contactor_in else None


def _amps(rig: Rig) -> float:
    """The leg's amps; one that hums or trips draws its locked rotor's."""
    if rig.running:
        return float(rig.flows.amps)
    return LOCKED_ROTOR * float(rig.parts.rla_a) if rig.marks("compressor") in ("humming", "tripping") and rig.contactor_in else 0.0


def _heater_w(rig: Rig) -> float:
    return float(rig.parts.heater_rated_btu_h) / BTU_H_PER_W


def _heater_amps(rig: Rig) -> float | None:
    """Of a defrost started by hand for it: what still works of the rating."""
    if rig.unit.defrost != "electric":
        return None
    shared = 3.0**0.5 if rig.unit.phases == 3 else 1.0
    return float(rig.parts.heater_btu_h) / BTU_H_PER_W / (volts(rig.unit) * shared)


def _pump_down(rig: Rig) -> float | None:
    if not rig.running:
        return None
    lost = min(max(1.0 - float(rig.parts.efficiency), 0.0), 1.0)
    return PULLS_DOWN_PSIG + (WORN_PULLS_PSIG - PULLS_DOWN_PSIG) * min(lost / 0.5, 1.5)


def _low_pressure_switch(rig: Rig) -> str:
    """Open once its suction fell out, until it rises to the cut-in."""
    if rig.parts.lp_out_psia <= 0 and rig.parts.lp_in_psia <= 0:
        return "closed"
    held = not rig.running and rig.parts.can_run > 0 and rig.state.calling > 0 and rig.state.since_stop_h > 0.05
    return "open" if held and rig.flows.suction_psia < rig.parts.lp_in_psia else "closed"


def _lp_setting(rig: Rig, psia: float) -> float | None:
    """What the scale of the low-pressure switch says; None where there is no switch."""
    return _gauge(rig, psia) if psia > 0 else None


def _control_call(rig: Rig) -> str:
    if rig.defrosting:
        return "in_defrost"
    return "calling" if rig.state.calling > 0 else "satisfied"


def _cut(rig: Rig, side: float) -> float:
    return float(rig.unit.set_f + side * rig.parts.differential_f / 2.0 - rig.parts.sensor_error_f)


def _defrost_ran(rig: Rig) -> float | None:
    return float(rig.state.last_defrost_min) if rig.state.defrosts > 0 else None


def _ended_by(rig: Rig) -> str:
    if rig.state.defrosts <= 0:
        return "unknown"
    return "time" if rig.state.ended_by_time > 0 else "termination"


# fmt: off
METERED: Final[dict[str, Answer]] = {
    "box_temp_f": lambda rig: float(rig.state.air_f), "product_temp_f": lambda rig: float(rig.state.product_f),
    "display_temp_f": lambda rig: float(rig.state.air_f + rig.parts.sensor_error_f),
    "sensor_error_f": lambda rig: float(rig.parts.sensor_error_f),
    "return_air_f": lambda rig: float(rig.state.air_f) if rig.state.fans > 0 else None,
    "supply_air_f": lambda rig: float(rig.flows.supply_f) if rig.state.fans > 0 and rig.running else None,
    "evap_fan_supply_v": lambda rig: volts(rig.unit),
    "heater_amps": _heater_amps, "heater_volts": lambda rig: volts(rig.unit) if rig.unit.defrost == "electric" else None,
    "heater_rated_w": lambda rig: _heater_w(rig) if rig.unit.defrost == "electric" else None,
    "suction_psig": _suction, "discharge_psig": _discharge, "liquid_psig": lambda rig: _discharge(rig) - 2.0, "resting_psig": _resting,
    "suction_line_evap_f": _running(lambda rig: rig.state.sst_f + rig.flows.superheat_f),
    "suction_line_comp_f": _running(lambda rig: rig.flows.suction_line_f),
    "discharge_line_f": _running(lambda rig: rig.flows.discharge_line_f),
    "liquid_line_f": _running(lambda rig: rig.flows.liquid_f),
    "liquid_line_valve_f": _running(lambda rig: rig.flows.valve_inlet_f),
    "drier_drop_f": _running(lambda rig: max(0.0, float(rig.flows.liquid_f - rig.flows.valve_inlet_f))),
    "receiver_level_pct": _running(lambda rig: 100.0 * rig.flows.receiver_share),
    "settled_min": lambda rig: float(rig.state.since_start_h) * 60.0 if rig.running else None,
    "since_defrost_min": lambda rig: min(float(rig.state.since_defrost_h) * 60.0, 1440.0) if rig.state.defrosts > 0 else None,
    "adjusted_min": lambda rig: None,
    "ambient_f": lambda rig: rig.outside_f,
    "water_in_f": lambda rig: float(rig.flows.coolant_f), "water_out_f": _running(lambda rig: rig.flows.coolant_f + rig.flows.rise_f),
    "compressor_amps": _amps,
    "pump_down_low_psig": _pump_down,
    "pump_down_rise_psi": lambda rig: 1.0 + 200.0 * float(rig.parts.solenoid_leak),
    "winding_cs_ohm": _winding("cs"), "winding_cr_ohm": _winding("cr"), "winding_sr_ohm": _winding("sr"),
    "winding_ground_ohm": lambda rig: SOUND_GROUND_OHM,
    "pole_drop_v_1": _drop, "pole_drop_v_2": _drop, "pole_drop_v_3": _drop,
    "load_v_12": _load, "load_v_23": _load, "load_v_31": _load,
    "line_v_12": _line, "line_v_23": _line, "line_v_31": _line,
    "control_call": _control_call, "controller_alarm": lambda rig: "none",
    "stat_cut_in_f": lambda rig: _cut(rig, 1.0), "stat_cut_out_f": lambda rig: _cut(rig, -1.0),
    "lp_cut_in_psig": lambda rig: _lp_setting(rig, float(min(rig.parts.lp_in_psia, 150.0))),
    "lp_cut_out_psig": lambda rig: _lp_setting(rig, float(rig.parts.lp_out_psia)),
    "low_pressure_switch": _low_pressure_switch, "high_pressure_switch": lambda rig: "open" if rig.state.hp_open > 0 else "closed",
    "defrost_starts": lambda rig: "yes" if rig.parts.defrosts_per_day > 0 else None,
    "defrosts_per_day": lambda rig: float(rig.parts.defrosts_per_day),
    "defrost_set_min": lambda rig: float(rig.parts.fail_safe_min), "defrost_ran_min": _defrost_ran,
    "compressor_in_defrost": lambda rig: "off" if rig.unit.defrost != "hot_gas" else "running",
    "termination_f": lambda rig: min(float(rig.parts.termination_f), 120.0), "defrost_ended_by": _ended_by,
}
# fmt: on
