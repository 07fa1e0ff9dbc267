"""What gauges, clamps, meters and controls say of a simulated unit."""

from collections.abc import Callable
from typing import Final

from kettle.knowledge.measures import psia_to_psig
from kettle.knowledge.observations import Value
from kettle.plant.observer.rig import BTU_H_PER_W, Rig

Answer = Callable[[Rig], Value | None]
# Between which points of the circuit a meter is put for it, by phases; both legs of a lone phase end at neutral.
LINE: Final = {"12": ("L1", "L2"), "23": ("L2", "L3"), "31": ("L3", "L1")}
LOAD: Final = {"12": ("T1", "T2"), "23": ("T2", "T3"), "31": ("T3", "T1")}
# A sound compressor pulls a shut suction down to this; one that lost half its efficiency holds at the other, psig.
PULLS_DOWN_PSIG, WORN_PULLS_PSIG = 1.0, 16.0
OFF_H: Final = 0.3


def _running(value: Callable[[Rig], float]) -> Answer:
    return lambda rig: float(value(rig)) if rig.running else None


def _regulated(value: Callable[[Rig], float]) -> Answer:
    return lambda rig: float(value(rig)) if rig.running and rig.has_regulator else None


def _gauge(rig: Rig, psia: float) -> float:
    return psia_to_psig(psia, rig.unit.altitude_ft)


def _at_suction(rig: Rig) -> float:
    """Saturation at the suction that stands, °F."""
    return float(rig.unit.refrigerant.dew_f(_suction(rig), rig.unit.altitude_ft))


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


def _winding(pins: str) -> Answer:
    return lambda rig: rig.wired.winding_ohm(pins)


def _volts(side: dict[str, tuple[str, str]], legs: str) -> Answer:
    """Volts between two legs before or behind the contactor, as its circuit stands now; a lone phase has the first pair alone."""

    def answer(rig: Rig) -> float | None:
        one, other = side[legs]
        circuit = rig.wired.circuit
        if rig.unit.phases == 1 and legs != "12":
            return None
        back = "T2" if one == "T1" and circuit.has("pole_2") else circuit.common
        return rig.wired.volts(one, other if rig.unit.phases == 3 else back, rig.circuit_state)

    return answer


def _drop(pole: int) -> Answer:
    has = f"pole_{pole}"
    return lambda rig: (
        rig.wired.volts(f"L{pole}", f"T{pole}", rig.circuit_state) if rig.contactor_in and rig.wired.circuit.has(has) else None
    )


def _amps(rig: Rig) -> float:
    """The leg's amps; one that stands still and has volts draws its locked rotor's, which its circuit knows."""
    if rig.running:
        return float(rig.flows.amps)
    return rig.wired.leg_amps(rig.circuit_state) if rig.contactor_in else 0.0


def _fan_volts(rig: Rig) -> float | None:
    """Of a coil's fan that should turn now."""
    resting = rig.defrosting and rig.unit.defrost in ("electric", "hot_gas")
    return None if resting else rig.wired.volts("M1", rig.wired.circuit.common, rig.circuit_state)


def _heater_volts(rig: Rig) -> float | None:
    """Of a defrost started by hand for it."""
    return rig.wired.volts("H1", rig.wired.circuit.common, "defrosting") if rig.unit.defrost == "electric" else None


def _heater_amps(rig: Rig) -> float | None:
    """Of a defrost started by hand for it, in the leg that draws least: what still works of the rating."""
    return rig.wired.heater_amps() if rig.unit.defrost == "electric" else None


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
    return float(rig.dial_f + side * rig.parts.differential_f / 2.0 - rig.parts.sensor_error_f)


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
    "evap_fan_supply_v": _fan_volts, "heater_amps": _heater_amps, "heater_volts": _heater_volts,
    "heater_rated_w": lambda rig: float(rig.parts.heater_rated_btu_h) / BTU_H_PER_W if rig.unit.defrost == "electric" else None,
    "regulator_after_psig": _regulated(_suction),
    "regulator_before_psig": _regulated(
        lambda rig: rig.unit.refrigerant.dew_psig(_at_suction(rig) + float(rig.parts.regulator_f), rig.unit.altitude_ft)
    ),
    "suction_psig": _suction, "discharge_psig": _discharge, "liquid_psig": lambda rig: _discharge(rig) - 2.0, "resting_psig": _resting,
    "suction_line_evap_f": _running(lambda rig: rig.state.sst_f + rig.flows.superheat_f),
    "suction_line_comp_f": _running(lambda rig: rig.flows.suction_line_f),
    "discharge_line_f": _running(lambda rig: rig.flows.discharge_line_f),
    "liquid_line_f": _running(lambda rig: rig.flows.liquid_f),
    "liquid_line_valve_f": _running(lambda rig: rig.flows.valve_inlet_f),
    "superheat_read_f": _running(lambda rig: rig.flows.superheat_f),
    "subcooling_read_f": _running(lambda rig: rig.flows.subcooling_f),
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
    "winding_ground_ohm": _winding("g"), "heater_ground_ohm": lambda rig: rig.wired.heater_ground_ohm(),
    "breaker": lambda rig: "trips_at_once" if rig.wired.to_ground else "holds",
    "pole_drop_v_1": _drop(1), "pole_drop_v_2": _drop(2), "pole_drop_v_3": _drop(3),
    "load_v_12": _volts(LOAD, "12"), "load_v_23": _volts(LOAD, "23"), "load_v_31": _volts(LOAD, "31"),
    "line_v_12": _volts(LINE, "12"), "line_v_23": _volts(LINE, "23"), "line_v_31": _volts(LINE, "31"),
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
