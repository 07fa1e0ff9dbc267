"""What eyes, hands, ears and the customer say of a simulated unit."""

from collections.abc import Callable
from typing import Final

from kettle.knowledge.observations import Value
from kettle.plant.box import ICE_LB_FT3
from kettle.plant.observer.rig import TREND_H, Rig
from kettle.plant.rows import SECTIONS

Answer = Callable[[Rig], Value | None]
# Shares of the free room of a section, from which frost is called light, and heavy.
LIGHT, HEAVY = 0.02, 0.45
# Bare skin: from which temperature, °F, a pipe is called so.
HOT_F, WARM_F, LUKEWARM_F = 115.0, 92.0, 78.0
DEW_F, FREEZING_F = 55.0, 33.0
CLEAR_FLASH, SOME_FLASH = 0.01, 0.05
# Lb of frost on the ceiling, of ice in the pan, of water over its rim that anyone sees.
CEILING_SEEN_LB, PAN_ICE_SEEN_LB, FLOOR_SEEN_LB, PAN_WET_LB = 0.3, 0.2, 0.5, 0.3
WARM_OVER_F, COLD_UNDER_F = 5.0, 5.0
# The share of those with a leak whose oil shows, and where.
OIL_SHOWS: Final = 0.6
OIL_AT: Final = ("at_fitting", "at_valve_stem", "at_coil")


def always(word: Value) -> Answer:
    """The same on every unit on which no fault says otherwise."""
    return lambda rig: word


def feel(temperature_f: float) -> str:
    """What a hand calls a pipe: by its temperature, °F."""
    if temperature_f >= HOT_F:
        return "hot"
    if temperature_f >= WARM_F:
        return "warm"
    if temperature_f >= LUKEWARM_F:
        return "lukewarm"
    if temperature_f > DEW_F:
        return "cool"
    return "sweating" if temperature_f > FREEZING_F else "frosted"


def blocked(rig: Rig) -> list[float]:
    """Return how full of frost and ice each section of the coil is, 0 to 1, from the valve on."""
    room = rig.parts.gap_ft3 / SECTIONS
    return [float(rig.state.frost_ft3[k] + rig.state.ice_lb[k] / ICE_LB_FT3) / room for k in range(SECTIONS)]


def _ice_form(rig: Rig) -> str:
    most = max(blocked(rig))
    if most < LIGHT:
        return "none"
    if most < HEAVY:
        return "light_frost"
    return "hard_ice" if float(rig.state.ice_lb.sum()) > float(rig.state.frost_lb.sum()) else "heavy_frost"


def _ice_places(rig: Rig) -> tuple[str, ...]:
    """By section along the refrigerant's path: all, the first alone, or some; ceiling and pan by what lies there."""
    iced = [share >= HEAVY for share in blocked(rig)]
    places = []
    if all(iced):
        places.append("coil_whole")
    elif iced[0] and not any(iced[2:]):
        places.append("coil_inlet_passes")
    elif any(iced):
        places.append("coil_part")
    if rig.state.ceiling_lb > CEILING_SEEN_LB:
        places.append("ceiling")
    if rig.state.pan_ice_lb + rig.state.line_ice_lb > PAN_ICE_SEEN_LB:
        places.append("drain_pan")
    if rig.marks("door") == "gasket_gap":
        places.append("door_frame")
    return tuple(places)


def _coil_after(rig: Rig) -> str | None:
    s = rig.state
    if s.defrosts <= 0:
        return None
    left = s.last_left_lb / (rig.parts.gap_ft3 * ICE_LB_FT3)
    return "clear" if left < 0.01 else "part_iced" if left < HEAVY else "iced"


def _air_weak(rig: Rig) -> tuple[str, ...]:
    shares = blocked(rig)
    ends = {"left": shares[0], "middle": (shares[1] + shares[2]) / 2, "right": shares[3]}
    weak = tuple(word for word, share in ends.items() if share >= HEAVY)
    if rig.parts.fan_flow * (1.0 if rig.state.fans > 0 else 0.0) < 0.6 and not rig.defrosting:
        return ("left", "middle", "right")
    return weak or ("nowhere",)


def _evap_fans(rig: Rig) -> str:
    return "running" if rig.state.fans > 0 and rig.parts.fan_flow > 0.1 else "stopped"


def _trend(rig: Rig) -> str:
    air = rig.series("air_f", TREND_H)
    moved = float(air[-1] - air[0])
    return "falling" if moved < -1.5 else "rising" if moved > 1.5 else "steady"


def _complaint(rig: Rig) -> str:
    """What the customer sees first."""
    over = float(rig.state.air_f) - rig.unit.set_f
    if rig.state.floor_lb > FLOOR_SEEN_LB:
        return "water"
    if over > WARM_OVER_F and rig.parts.can_run <= 0:
        return "does_not_run"
    if _ice_form(rig) in ("hard_ice", "heavy_frost"):
        return "iced"
    if over > WARM_OVER_F:
        return "warm"
    if over < -COLD_UNDER_F:
        return "freezing_product"
    return "starts_and_stops" if rig.short_cycles else "service"


def _drain(rig: Rig) -> str:
    return "frozen" if rig.state.line_ice_lb > PAN_ICE_SEEN_LB else "running"


def _pan(rig: Rig) -> str:
    if rig.state.floor_lb > FLOOR_SEEN_LB:
        return "overflowing"
    return "wet" if rig.state.pan_lb > PAN_WET_LB else "dry"


def _drain_heater(rig: Rig) -> str:
    if not rig.unit.kind.freezer:
        return "none"
    return "warm" if rig.parts.drain_heater > 0 else "cold"


def _valve_sound(rig: Rig) -> str | None:
    if not rig.running:
        return None
    if rig.flows.flow_lb_h <= 1.0:
        return "silent"
    return "hissing_gas" if rig.flows.flash > SOME_FLASH else "steady"


def _glass(rig: Rig) -> str | None:
    if not rig.running:
        return None
    flash = float(rig.flows.flash)
    return "clear" if flash < CLEAR_FLASH else "few_bubbles" if flash < SOME_FLASH else "flashing"


def _shell(rig: Rig) -> str:
    if not rig.running:
        return "warm"
    above = float(rig.flows.suction_line_f) - float(rig.state.sst_f)
    if above < 3.0:
        return "frosted" if rig.flows.suction_line_f < FREEZING_F else "sweating"
    return "hot" if rig.flows.discharge_line_f > 235.0 else "sweating" if rig.flows.suction_line_f < 40.0 else "warm"


def _of(field: str) -> Answer:
    return lambda rig: feel(float(getattr(rig.flows, field))) if rig.running else None


def _outlet(rig: Rig) -> str | None:
    if not rig.running:
        return None
    return feel(float(rig.state.sst_f) + float(rig.flows.superheat_f))


def _suction_feel(rig: Rig) -> str | None:
    word = feel(float(rig.flows.suction_line_f)) if rig.running else None
    return "warm" if word in ("hot", "warm", "lukewarm") else word


def _discharge_feel(rig: Rig) -> str | None:
    word = feel(float(rig.flows.discharge_line_f)) if rig.running else None
    return "cool" if word in ("sweating", "frosted") else word


def _leak_part(rig: Rig) -> str:
    """Where the oil of a leak shows, where it does."""
    chance = rig.chance("leak")
    shows = "undercharge" in rig.wrong and chance.random() < OIL_SHOWS
    return OIL_AT[chance.randrange(len(OIL_AT))] if shows else "none"


def _condenser_fans(rig: Rig) -> str:
    if rig.short_cycles:
        # Seen turning whenever the compressor does.
        return "running"
    if not rig.contactor_in:
        return "stopped"
    return "running" if rig.state.condenser_fan > 0 or not rig.running else "cycling"


def _valve_response(rig: Rig) -> str | None:
    """The bulb warmed in the hand: a valve that is stuck or has lost its element answers not at all, one that is small a little."""
    if not rig.running:
        return None
    stuck = rig.parts.valve_stuck == rig.parts.valve_stuck
    if stuck or rig.parts.element < 0.5:
        return "none"
    sound = rig.wrong.get("txv_underfeeding", 0.0)
    return "partial" if sound > 0.3 else "as_expected"


# fmt: off
SEEN: Final[dict[str, Answer]] = {
    "complaint": _complaint,
    "since_when": lambda rig: "today" if rig.parts.can_run <= 0 else "weeks" if max(rig.wrong.values(), default=0) < 0.8 else "days",
    "last_touched": lambda rig: "charge" if "overcharge" in rig.wrong else "settings" if "wrong_parameters" in rig.wrong else "nothing",
    "left_ice": always("no"),
    "season": lambda rig: "humid" if rig.parts.outdoor_rh > 0.7 else "dry",
    "box_trend": _trend,
    "warm_extent": lambda rig: "part_of_box" if rig.parts.fan_flow < 0.6 else "whole_box",
    "siblings": always("none"),
    "door": always("good"), "door_habits": always("shut"), "door_open_h": always(0.0), "door_traffic": always("normal"),
    "strip_curtain": always("present"), "door_switch": always("made"), "inside_release": always("works"),
    "ice_form": _ice_form, "ice_places": _ice_places, "evap_coil": always("clean"), "coil_after_defrost": _coil_after,
    "melt_water": lambda rig: "cloudy_foaming" if _leak_part(rig) == "at_coil" else "clear",
    "air_weak_at": _air_weak, "coil_outlet_feel": _outlet,
    "evap_fans": _evap_fans, "fans_still": lambda rig: ("none",) if _evap_fans(rig) == "running" or rig.defrosting else ("fan_1", "fan_2"),
    "fan_delay": lambda rig: "waits_cold" if rig.state.fans_wait_h > 0 and not rig.defrosting else "let_go",
    "fans_in_defrost": lambda rig: "off" if rig.unit.defrost in ("electric", "hot_gas") else "running",
    "hot_gas_valve": always("opens"), "frame_heater": always("warm"), "water_valve": always("follows"),
    "drain": _drain, "drain_pan": _pan, "drain_heater": _drain_heater,
    "drain_fault": lambda rig: ("line_heater_dead",) if _drain_heater(rig) == "cold" else ("plugged",),
    "suction_regulator": lambda rig: "fitted" if rig.has_regulator else "none",
    "valve_sound": _valve_sound, "valve_response": _valve_response,
    "bulb": always("tight_insulated"), "bulb_clock": always("side"),
    "liquid_solenoid": lambda rig: "open" if rig.parts.pump_down > 0 and rig.state.liquid_call > 0 else "none",
    "sight_glass": _glass, "moisture_dot": always("dry"),
    "liquid_line_feel": _of("liquid_f"), "suction_line_size": always("as_stub"),
    # A charged circuit has none.
    "vacuum_micron": lambda rig: None,
    "oil_trace": _leak_part, "leak_test": lambda rig: "found" if _leak_part(rig) != "none" else "none_found",
    "condenser_coil": always("clean"), "condenser_fans": _condenser_fans, "head_control": lambda rig: "none" if
    rig.unit.head_control == "none" else "normal",
    "compressor": lambda rig: "short_cycling" if rig.short_cycles else "running" if rig.running else "off", "compressor_shell": _shell,
    "discharge_line_feel": _discharge_feel, "suction_line_feel": _suction_feel,
    "crankcase_heater": lambda rig: "none" if rig.unit.metering == "cap_tube" else "warm",
    "contactor": lambda rig: "in" if rig.contactor_in else "out", "contactor_face": always("good"),
    "start_parts": lambda rig: "none" if rig.unit.phases == 3 else "good",
    "circuit_extra": always("nothing"),
}
# fmt: on
