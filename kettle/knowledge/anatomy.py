"""The parts of a unit in the order of a walk: what is observed on each, and what can be done to it.

Every observation has one part, and so a standing place; acts name their part by the same code. Drawings, sheets and lists walk this table.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Final

from kettle.knowledge import acts
from kettle.knowledge.acts import Act
from kettle.knowledge.equipment import Unit
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import REGISTRY, Observation

# Areas of a unit in the order of a walk.
AREAS: Final = {
    "told": "What was told",
    "box": "Box and door",
    "coil": "Coil, fans, drain",
    "valve": "Valve, liquid line, gas",
    "condenser": "Condenser and head",
    "compressor": "Compressor and power",
    "controls": "Controls and defrost",
}


@dataclass(frozen=True)
class Part:
    """One part: what it is called, the area it stands in, its observations in order, and what kind of unit has it (`only`)."""

    code: str
    label: str
    area: str
    keys: tuple[str, ...] = ()
    only: Mapping[str, tuple[Any, ...]] = field(default_factory=dict)

    @property
    def per_coil(self) -> bool:
        """Whether a unit with several coils has one of it on each."""
        return self.code in PER_COIL

    def exists_on(self, unit: Unit) -> bool:
        """Whether a unit built like this has the part; one nobody can look at or do anything to has no sheet."""
        built = all(getattr(unit, name) in having for name, having in self.only.items())
        return built and bool(self.observed_on(unit) or acts.PARTS.get(self.code))

    def observed_on(self, unit: Unit) -> tuple[Observation, ...]:
        """What can be observed of it on a unit."""
        return tuple(REGISTRY[key].on(unit) for key in self.keys if REGISTRY[key].exists_on(unit))

    def acts_on(self, unit: Unit) -> tuple[Act, ...]:
        """What can be done to it on a unit, by its own sheet; what a bench of its own records is left to the bench."""
        found = (acts.ACTS[f"{self.code}.{did}"] for did in acts.PARTS.get(self.code, ()))
        return tuple(act for act in found if not act.bench and act.exists_on(unit))


PER_COIL: Final = ("coil", "evap_fan", "drain", "drain_heater", "heater", "valve", "bulb", "cap_tube", "liquid_solenoid")
_VALVE: Final = {"metering": ("txv", "eev")}
_TXV: Final = {"metering": ("txv",)}
_WALK_IN: Final = {"walk_in": (True,)}
_PROGRAM: Final = {"defrost": ("off_cycle", "timed_air", "electric", "hot_gas")}
_HEATED: Final = {"defrost": ("electric",)}
_RECEIVER: Final = {"receiver": (True,)}

# fmt: off
_ALL: Final = (
    Part("told", "What was told", "told", ("complaint", "since_when", "last_touched", "left_ice", "season")),
    Part("box", "Box", "box", ("box_temp_f", "display_temp_f", "box_trend", "warm_extent", "product_temp_f", "siblings")),
    Part("stock", "Stock", "box"),
    Part("door", "Door", "box", ("door", "door_habits", "door_open_h", "door_traffic", "strip_curtain", "door_switch", "inside_release",
        "latch_blocked", "someone_outside")),
    Part("frame_heater", "Door frame heater", "box", ("frame_heater",), {"frame_heated": (True,)}),
    Part("coil", "Coil", "coil", ("ice_form", "ice_places", "evap_coil", "melt_water", "coil_after_defrost", "return_air_f",
                                  "supply_air_f", "air_weak_at", "suction_line_evap_f", "coil_outlet_feel")),
    Part("evap_fan", "Coil fans", "coil", ("evap_fans", "fans_still", "fan_delay", "fans_in_defrost", "evap_fan_supply_v")),
    Part("drain", "Drain and pan", "coil", ("drain", "drain_pan", "drain_fault")),
    Part("drain_heater", "Drain heater", "coil", ("drain_heater",)),
    Part("heater", "Defrost heater", "coil", ("heater_amps", "heater_volts", "heater_rated_w", "heater_ground_ohm"), _HEATED),
    Part("hot_gas_valve", "Hot-gas valve", "coil", ("hot_gas_valve",), {"defrost": ("hot_gas",)}),
    Part("valve", "Expansion valve", "valve", ("valve_sound", "valve_response", "adjusted_min"), _VALVE),
    Part("bulb", "Bulb", "valve", ("bulb", "bulb_clock"), _TXV),
    Part("cap_tube", "Capillary tube", "valve", (), {"metering": ("cap_tube",)}),
    Part("liquid_solenoid", "Liquid solenoid", "valve", ("liquid_solenoid",), _VALVE),
    Part("drier", "Drier", "valve", ("drier_drop_f", "liquid_line_valve_f")),
    Part("glass", "Sight glass", "valve", ("sight_glass", "moisture_dot")),
    Part("receiver", "Receiver", "valve", ("receiver_level_pct",), _RECEIVER),
    Part("charge", "Charge", "valve", ("suction_psig", "discharge_psig", "liquid_psig", "resting_psig", "liquid_line_f",
                                       "liquid_line_feel", "charge_weighed", "settled_min", "since_defrost_min")),
    Part("leak", "Leaks", "valve", ("oil_trace", "leak_test", "vacuum_micron")),
    Part("air", "Air in the circuit", "valve"),
    Part("regulator", "Suction regulator", "valve", ("suction_regulator", "regulator_before_psig", "regulator_after_psig"), _VALVE),
    Part("condenser", "Condenser", "condenser", ("ambient_f", "condenser_coil", "condenser_blocking", "water_in_f", "water_out_f")),
    Part("water_valve", "Water valve", "condenser", ("water_valve",), {"condensing": ("water",)}),
    Part("condenser_fan", "Condenser fan", "condenser", ("condenser_fans",), {"condensing": ("air",)}),
    Part("head_control", "Head control", "condenser", ("head_control",)),
    Part("compressor", "Compressor", "compressor", ("compressor", "compressor_amps", "compressor_shell", "discharge_line_f",
        "discharge_line_feel", "suction_line_comp_f", "suction_line_feel", "suction_line_size", "crankcase_heater", "pump_down_low_psig",
        "pump_down_rise_psi", "winding_cs_ohm", "winding_cr_ohm", "winding_sr_ohm", "winding_ground_ohm")),
    Part("contactor", "Contactor", "compressor", ("contactor", "contactor_face", "pole_drop_v_1", "pole_drop_v_2", "pole_drop_v_3",
                                                  "load_v_12", "load_v_23", "load_v_31")),
    Part("start_parts", "Start parts", "compressor", ("start_parts",)),
    Part("supply", "Supply", "compressor", ("breaker", "power_locked_out", "parts_protected", "line_v_12", "line_v_23", "line_v_31")),
    Part("wiring", "Wiring", "compressor", ("circuit_extra",)),
    Part("control", "Control", "controls", ("control_call", "controller_alarm")),
    Part("thermostat", "Thermostat", "controls", ("stat_cut_in_f", "stat_cut_out_f"), {"box_control": ("thermostat",)}),
    Part("sensor", "Sensor", "controls", ("sensor_error_f",)),
    Part("pressure_control", "Pressure controls", "controls", ("lp_cut_in_psig", "lp_cut_out_psig", "low_pressure_switch",
                                                               "high_pressure_switch")),
    Part("timer", "Defrost timer", "controls", ("defrost_starts", "defrosts_per_day", "defrost_set_min", "defrost_ran_min",
                                                "compressor_in_defrost"), _PROGRAM),
    Part("termination", "Termination", "controls", ("termination_f", "defrost_ended_by"), _PROGRAM),
    Part("relay", "Relays", "controls"),
    Part("program", "Defrost program", "controls"),
    Part("parameters", "Parameters", "controls"),
)
# fmt: on
# An observation that no part names stands on the part of its group: a new one needs no second entry.
_OF_GROUP: Final = {
    "told": "told",
    "safety": "supply",
    "box": "box",
    "ice": "coil",
    "air": "evap_fan",
    "condenser": "condenser",
    "circuit": "charge",
    "power": "compressor",
    "controls": "control",
}  # fmt: skip


def _with_unnamed(part: Part) -> Part:
    named = {key for one in _ALL for key in one.keys}
    more = tuple(key for key, entry in REGISTRY.items() if key not in named and _OF_GROUP[entry.group] == part.code)
    return replace(part, keys=(*part.keys, *more))


PARTS: Final[dict[str, Part]] = {part.code: _with_unnamed(part) for part in _ALL}
OF_KEY: Final[dict[str, Part]] = {key: part for part in PARTS.values() for key in part.keys}


def get(code: str) -> Part:
    """Return a part by its code; InputError if there is none."""
    if code not in PARTS:
        raise InputError(f"part “{code[:40]}” is not known")
    return PARTS[code]


def part_of(key: str) -> Part:
    """Return the part an observation stands on."""
    return OF_KEY.get(key) or PARTS[_OF_GROUP[REGISTRY[key].group]]


def on(unit: Unit) -> tuple[Part, ...]:
    """Return the parts a unit has that something can be seen of or done to, in the order of a walk."""
    return tuple(part for part in PARTS.values() if part.exists_on(unit) and (part.observed_on(unit) or part.acts_on(unit)))
