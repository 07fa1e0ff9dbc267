"""Acts: what can be done to a part, what it removes and how surely, what it makes untrue, when it shows and what proves it.

The shares in `removes` say how often the act, done as one does it, puts that cause right; they are judgement of the trade, not counts.
"""

import difflib
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Final

from kettle.knowledge.cautions import words
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import REGISTRY

UP: Final = "up"
DOWN: Final = "down"
# The most of a unit that one act is taken to be.
MOST: Final = {"turns": 12.0, "oz": 4000.0}


@dataclass(frozen=True)
class Act:
    """One thing that can be done to a part.

    `removes` maps causes to the share of times it puts them right; `sets` what then stands without being looked at; `voids` what was
    seen before and is not true any more; `mutes` what from then on tells of the act and not of the unit; `settles_min` minutes until it
    shows; `proof` quantities or observations of which one has to be seen after it, `prove` the same in words; `leaves` causes whose
    signs it takes away while they stay (gas added: the leak), `closes` what another act so left. `still` marks what does not change how
    the unit runs. `unit` is that of its value, empty where it has none. `bench` marks what a bench of its own records, `held_as` the
    action of the case format that a hold can block, `shows` which way it should move a quantity where it was needed (UP or DOWN),
    `only` the units it can be done on, `spares` the parts and stuff it takes, the first being what is put in. `plain` is what was done in
    the customer's words, `mends` what of a list of things wrong it puts right (observation -> words) while the rest stays, `no_effect`
    why it puts nothing right where it does not.
    """

    part: str
    did: str
    label: str
    removes: Mapping[str, float] = field(default_factory=dict)
    sets: Mapping[str, str] = field(default_factory=dict)
    voids: tuple[str, ...] = ()
    mutes: tuple[str, ...] = ()
    settles_min: float = 15.0
    proof: tuple[str, ...] = ()
    prove: str = ""
    leaves: Mapping[str, str] = field(default_factory=dict)
    caution: tuple[str, ...] = ()
    unit: str = ""
    still: bool = False
    closes: tuple[str, ...] = ()
    bench: bool = False
    held_as: str = ""
    shows: Mapping[str, str] = field(default_factory=dict)
    only: Mapping[str, tuple[Any, ...]] = field(default_factory=dict)
    spares: tuple[str, ...] = ()
    plain: str = ""
    mends: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    no_effect: str = ""

    @property
    def code(self) -> str:
        """Part and word together."""
        return f"{self.part}.{self.did}"

    def exists_on(self, unit: Any) -> bool:
        """Whether it can be done on a unit built like this (`only`: field of the unit -> values that have it)."""
        return all(getattr(unit, name) in having for name, having in self.only.items())

    def check(self, value: float | None) -> float | None:
        """Return how much of it was done, oz or turns as the act has it (None without a unit); InputError names value, range and unit."""
        if value is None or not self.unit:
            return None
        if not 0 < value <= MOST[self.unit]:
            raise InputError(f"{self.label}: {value:g} {self.unit} is outside 0 to {MOST[self.unit]:g} {self.unit}")
        return value


# Read or felt on a running unit: any act that changes how it runs makes it past.
RUNNING: Final = tuple(
    entry.key
    for entry in REGISTRY.values()
    if (entry.group == "circuit" and entry.tool in ("gauge", "probe", "feel") and entry.key != "bulb")
    or entry.key in ("sight_glass", "compressor_amps", "return_air_f", "supply_air_f", "valve_sound", "valve_response")
    or entry.key in ("superheat_read_f", "subcooling_read_f", "regulator_before_psig", "regulator_after_psig")
)
SUPERHEAT: Final = ("superheat_evap_f", "superheat_comp_f", "coil_outlet_feel")
_AT_SET: Final = "Superheat in its band with the box near set, read 15 min later"
_LOCKED: Final = words("lock_out")
_LICENSED: Final = words("licensed", "pressure")
_LIVE: Final = words("lock_out", "live")
_RUNS: Final = ("compressor", "compressor_amps", "amps_pct")
_ICE: Final = ("ice_form", "ice_places")
# The power was off over an hour or more: what ran or stood before it says nothing of what does so after.
_STARTED_ANEW: Final = ("compressor", "contactor", "control_call")
_TXV: Final = {"metering": ("txv",)}
_AIR: Final = {"condensing": ("air",)}
_WATER: Final = {"condensing": ("water",)}
_WATERED: Final = ("rise_f", "approach_f", "split_f", "water_valve")
_GAS: Final = {"defrost": ("hot_gas",)}
_HOT_GAS: Final = ("hot_gas_valve", "coil_after_defrost", "defrost_ended_by", "defrost_ran_min")
_FRAME: Final = {"frame_heated": (True,)}
_PLUGGED: Final = {"drain_blocked": 0.8}
# Read at rest, of the gas that is in it.
_REST: Final = ("resting_psig",)
# What is measured at a contactor, and of it what lies behind its poles.
_LOAD: Final = ("load_v_12", "load_v_23", "load_v_31")
_POLES: Final = ("pole_drop_v_1", "pole_drop_v_2", "pole_drop_v_3", *_LOAD)


def _valve(did: str, label: str, removes: Mapping[str, float], settles_min: float = 15.0, **more: Any) -> Act:
    return Act("valve", did, label, removes, proof=SUPERHEAT, prove=_AT_SET, settles_min=settles_min, **more)


# fmt: off
_ALL: Final = (
    Act("coil", "melted", "Coil melted", {"residual_ice": 0.9}, {"ice_form": "none"}, (*_ICE, *_STARTED_ANEW), _ICE, 30.0,
        ("coil_after_defrost", "ice_form"), "A look at the whole coil, back and corners, and a defrost seen to its end",
        caution=words("lock_out", "drips", "scald"), bench=True),
    Act("coil", "cleaned", "Coil cleaned", {"evap_airflow_low": 0.92}, {"evap_coil": "clean"}, ("evap_coil", "air_weak_at"), (), 15.0,
        ("td_f", "delta_t_f", "air_weak_at"), "Air felt at every section, and TD in its band", caution=_LOCKED),
    Act("evap_fan", "freed", "Fan freed", {"evap_fan_failed": 0.6}, {"evap_fans": "running"}, ("evap_fans", "fans_still", "air_weak_at"),
        (), 15.0, ("evap_fans", "fans_still", "air_weak_at"), "Every fan turning, air felt at every section", caution=_LOCKED),
    Act("evap_fan", "replaced", "Fan replaced", {"evap_fan_failed": 0.95}, {"evap_fans": "running"},
        ("evap_fans", "fans_still", "air_weak_at"), (), 15.0, ("evap_fans", "fans_still", "air_weak_at"),
        "Every fan turning, air felt at every section", caution=_LOCKED),
    Act("evap_fan", "capacitor_replaced", "Fan capacitor replaced", {"evap_fan_failed": 0.3}, {"evap_fans": "running"},
        ("evap_fans", "fans_still", "air_weak_at"), (), 15.0, ("evap_fans", "fans_still", "air_weak_at"),
        "Every fan turning, air felt at every section", caution=_LOCKED),
    Act("evap_fan", "delay_bridged", "Fan delay bridged for now", {"fan_delay_waiting": 0.95}, {"evap_fans": "running"},
        ("evap_fans", "fans_still", "air_weak_at", "fan_delay", "evap_fan_supply_v"), (), 5.0, ("evap_fans", "fan_delay"),
        "The bridge out again, the fans let go by themselves on a cold coil",
        {"fan_delay_waiting": "The bridge taken out, and the delay seen to let the fans go"}, _LIVE),
    Act("evap_fan", "delay_set", "Fan delay set or replaced", {"fan_delay_waiting": 0.9}, {}, ("fan_delay",), (), 15.0,
        ("fan_delay", "evap_fans"), "The fans let go by themselves on a cold coil", caution=_LOCKED, closes=("fan_delay_waiting",)),
    Act("door", "adjusted", "Door adjusted", {"door_seal": 0.8}, {"door": "good"}, ("door",), (), 0.0, ("door",),
        "Paper held all round, and it closes by itself", still=True),
    Act("door", "gasket_replaced", "Gasket replaced", {"door_seal": 0.92}, {"door": "good"}, ("door",), (), 0.0, ("door",),
        "Paper held all round, and it closes by itself", still=True),
    Act("door", "curtain_hung", "Curtain hung", {"door_infiltration": 0.6}, {"strip_curtain": "present"}, ("strip_curtain",), (), 0.0,
        ("ice_form",), "The coil at the next visit, in a few days", still=True),
    Act("door", "kept_shut", "Door kept shut", {"door_infiltration": 0.5}, {}, ("door_traffic",), (), 0.0, ("ice_form",),
        "The coil at the next visit, in a few days", still=True),
    Act("stock", "moved", "Stock moved off the coil", {"evap_airflow_low": 0.9}, {"evap_coil": "clean"}, ("evap_coil", "air_weak_at"), (),
        15.0, ("td_f", "delta_t_f", "air_weak_at"), "Air felt at every section, and TD in its band"),
    Act("drain", "cleared", "Drain cleared", _PLUGGED, {"drain": "running"}, ("drain", "drain_pan"), (), 0.0,
        ("drain", "drain_pan"), "Water poured into the pan seen to leave outside", still=True, mends={"drain_fault": ("plugged",)}),
    Act("drain", "thawed", "Drain thawed", {"drain_blocked": 0.45}, {"drain": "running"}, ("drain", "drain_pan"), (), 0.0,
        ("drain_heater",), "The drain line heater warm: what froze once freezes again", caution=words("scald"), still=True),
    Act("drain", "resealed", "Pan or drain resealed", {"drain_blocked": 0.6}, {}, ("drain_pan",), (), 0.0,
        ("drain_pan", "drain"), "Pan and floor dry after a defrost", still=True, mends={"drain_fault": ("pan_leaking",)}),
    Act("drain", "trap_set", "Drain trap put right", {"drain_blocked": 0.6}, {}, ("drain", "drain_pan"), (), 0.0, ("drain", "drain_pan"),
        "Water poured into the pan seen to leave outside, the fans running", still=True, mends={"drain_fault": ("trap_wrong",)}),
    Act("drain", "condensate_mended", "Condensate float or heater mended", {"drain_blocked": 0.6}, {}, ("drain_pan",), (), 0.0,
        ("drain_pan",), "Its water gone within the hour", caution=_LOCKED, still=True, mends={"drain_fault": ("condensate_pan",)}),
    Act("drain_heater", "replaced", "Drain heater replaced", {"drain_blocked": 0.85}, {"drain_heater": "warm"}, ("drain_heater",), (), 10.0,
        ("drain_heater", "drain"), "The drain line warm outside the pan, water seen to leave", caution=_LOCKED, still=True,
        mends={"drain_fault": ("line_heater_dead",)}),
    Act("condenser", "cleaned", "Condenser cleaned", {"condenser_dirty": 0.93}, {"condenser_coil": "clean"}, ("condenser_coil",), (), 15.0,
        ("split_f", "condenser_coil"), "Split in its band", caution=words("lock_out", "ladder")),
    Act("condenser", "blocked_on_purpose", "Condenser blocked on purpose", {}, {"condenser_blocking": "on_purpose"}, (),
        ("condenser_coil", "split_f"), 10.0, only=_AIR),
    Act("condenser", "unblocked", "Condenser clear again", {}, {"condenser_blocking": "none"}, (), (), 10.0, only=_AIR),
    Act("condenser_fan", "replaced", "Condenser fan replaced", {"condenser_fan_failed": 0.95}, {"condenser_fans": "running"},
        ("condenser_fans",), (), 15.0, ("split_f", "condenser_fans"), "Turning the right way, split in its band", caution=_LOCKED),
    Act("condenser_fan", "capacitor_replaced", "Condenser fan capacitor replaced", {"condenser_fan_failed": 0.35},
        {"condenser_fans": "running"}, ("condenser_fans",), (), 15.0, ("split_f", "condenser_fans"),
        "Turning the right way, at full speed, split in its band", caution=_LOCKED),
    Act("condenser", "descaled", "Condenser descaled", {"condenser_dirty": 0.9}, {}, ("water_in_f", "water_out_f"), (), 15.0,
        ("approach_f", "rise_f"), "Approach in its band at the same water", caution=_LICENSED, only=_WATER),
    Act("water_valve", "adjusted", "Water valve adjusted", {"water_flow_low": 0.5, "water_valve_open": 0.5}, {},
        ("water_valve", "water_out_f"), (), 15.0, _WATERED, "Head at its setting, water and compressor stop together", only=_WATER),
    Act("water_valve", "replaced", "Water valve replaced", {"water_flow_low": 0.8, "water_valve_open": 0.95}, {},
        ("water_valve", "water_out_f"), (), 15.0, _WATERED, "Head at its setting, water and compressor stop together",
        caution=words("pressure", "hot_line"), only=_WATER),
    Act("water_valve", "strainer_cleaned", "Water strainer cleaned", {"water_flow_low": 0.6}, {}, ("water_out_f",), (), 15.0,
        _WATERED, "Rise and approach in their bands", only=_WATER),
    Act("head_control", "adjusted", "Head control adjusted", {"head_control_not_holding": 0.6, "head_control_stuck_bypass": 0.4}, {},
        ("head_control",), (), 15.0, ("split_f", "sight_glass"), "Head where it should stand in this weather, glass clear"),
    Act("head_control", "replaced", "Head control replaced", {"head_control_not_holding": 0.95, "head_control_stuck_bypass": 0.95}, {},
        ("head_control",), (), 15.0, ("split_f", "sight_glass"), "Head where it should stand in this weather, glass clear",
        caution=_LICENSED),
    Act("bulb", "moved", "Bulb moved", {"bulb_fault": 0.9}, {"bulb": "tight_insulated"}, ("bulb", "bulb_clock"), (), 15.0, SUPERHEAT,
        _AT_SET),
    Act("bulb", "clamped", "Bulb clamped", {"bulb_fault": 0.92}, {"bulb": "tight_insulated"}, ("bulb", "bulb_clock"), (), 15.0, SUPERHEAT,
        _AT_SET),
    Act("bulb", "insulated", "Bulb insulated", {"bulb_fault": 0.7}, {"bulb": "tight_insulated"}, ("bulb", "bulb_clock"), (), 15.0,
        SUPERHEAT, _AT_SET),
    _valve("turned_in", "Valve turned in", {"txv_overfeeding": 0.35}, unit="turns", bench=True, held_as="txv_adjust"),
    _valve("turned_out", "Valve turned out", {"txv_underfeeding": 0.3}, unit="turns", bench=True, held_as="txv_adjust"),
    _valve("exercised", "Valve run in, out and back", {"txv_underfeeding": 0.5, "txv_overfeeding": 0.5}, held_as="txv_adjust", only=_TXV),
    _valve("strainer_cleaned", "Valve strainer cleaned", {"txv_underfeeding": 0.5, "liquid_restriction": 0.4}, held_as="open_circuit"),
    _valve("element_replaced", "Power element replaced", {"txv_underfeeding": 0.7, "txv_overfeeding": 0.4}, only=_TXV),
    _valve("replaced", "Valve replaced", {"txv_underfeeding": 0.95, "txv_overfeeding": 0.95}),
    Act("cap_tube", "replaced", "Capillary tube replaced", {"cap_tube_restricted": 0.93}, {}, (), (), 30.0,
        ("superheat_evap_f", "td_f", "box_temp_f"), "Suction and box where they should run on the weighed charge", caution=_LICENSED),
    Act("drier", "replaced", "Drier replaced", {"liquid_restriction": 0.85}, {}, ("drier_drop_f", "moisture_dot"), (), 15.0,
        ("drier_drop_f", "superheat_evap_f"), "No drop across it, superheat in band", caution=_LICENSED),
    Act("liquid_solenoid", "coil_replaced", "Solenoid coil replaced", {"liquid_solenoid_closed": 0.75}, {"liquid_solenoid": "open"},
        ("liquid_solenoid",), (), 10.0, ("suction_psig", "liquid_solenoid"), "Liquid flows: suction up, line cold after the valve",
        caution=_LOCKED),
    Act("liquid_solenoid", "replaced", "Solenoid replaced", {"liquid_solenoid_closed": 0.95, "solenoid_leaking": 0.93},
        {"liquid_solenoid": "open"}, ("liquid_solenoid", "pump_down_rise_psi"), (), 10.0, ("suction_psig", "pump_down_rise_psi"),
        "It opens on a call, and holds pumped down", caution=_LICENSED),
    Act("regulator", "opened", "Suction regulator opened", {"suction_regulator_shut": 0.85}, {}, (), (), 15.0, ("td_f", "box_trend"),
        "Box falling, pressure about the same on both sides", unit="turns"),
    Act("regulator", "closed", "Suction regulator closed", {}, {}, (), (), 15.0, unit="turns"),
    Act("charge", "added", "Refrigerant added", {"undercharge": 0.75, "winter_charge_short": 0.75}, {}, _REST, (), 15.0,
        ("sight_glass", "subcooling_f", "superheat_evap_f"), "Glass, level or subcooling right near set",
        {"undercharge": "The leak: found and repaired, or given up by name"}, _LICENSED, "oz", held_as="charge_add"),
    Act("charge", "recovered", "Refrigerant recovered", {"overcharge": 0.75, "noncondensables": 0.3}, {}, _REST, (), 15.0,
        ("subcooling_f", "split_f"), "Head and subcooling in their bands", {}, _LICENSED, "oz"),
    Act("charge", "weighed_in", "Charge weighed in", {"undercharge": 0.93, "overcharge": 0.95, "noncondensables": 0.9},
        {"charge_weighed": "yes"}, _REST, (),
        20.0, ("superheat_evap_f", "td_f", "subcooling_f"), "Suction and box where they should run on the weighed charge",
        {"undercharge": "The leak: found and repaired, or given up by name"}, _LICENSED, "oz"),
    Act("leak", "repaired", "Leak repaired", {}, {}, ("leak_test", "oil_trace"), ("leak_test",), 0.0,
        ("leak_test",), "Nitrogen held, or no find by detector and bubbles", caution=_LICENSED, still=True,
        closes=("undercharge",)),
    Act("leak", "given_up", "Leak left open by the customer", {}, {}, (), (), 0.0, (), "", caution=_LICENSED, still=True,
        closes=("undercharge",), bench=True),
    Act("air", "purged", "Air taken out", {"noncondensables": 0.85}, {}, ("resting_psig",), (), 15.0, ("split_f", "resting_psig"),
        "At rest the pressure of the air around it, running the normal split", caution=_LICENSED),
    Act("compressor", "rested", "Left to cool", {"compressor_overload": 0.5}, {},
        ("compressor", "winding_cs_ohm", "winding_cr_ohm", "winding_sr_ohm"), (), 60.0, _RUNS,
        "It starts and stays on, and why it was hot is known", caution=words("hot_line")),
    Act("compressor", "replaced", "Compressor replaced",
        dict.fromkeys(("compressor_inefficient", "compressor_grounded", "compressor_open_winding", "compressor_overload"), 0.96), {},
        ("compressor", "winding_cs_ohm", "winding_cr_ohm", "winding_sr_ohm", "winding_ground_ohm", "pump_down_low_psig"), (), 60.0, _RUNS,
        "Amps on each leg, started twice", caution=_LICENSED),
    Act("contactor", "tightened", "Contactor tightened", {"contactor_pole_open": 0.4}, {}, (*_POLES, "contactor"), (), 2.0,
        ("pole_drop_v", *_RUNS),
        "Next to no volts over each closed pole, amps on each leg", caution=_LIVE),
    Act("contactor", "replaced", "Contactor replaced", {"contactor_pole_open": 0.96}, {"contactor_face": "good"},
        (*_POLES, "contactor", "contactor_face"), (), 2.0, ("pole_drop_v", *_RUNS),
        "Next to no volts over each closed pole, amps on each leg", caution=_LIVE),
    Act("start_parts", "replaced", "Start parts replaced", {"start_parts_failed": 0.94}, {"start_parts": "good"},
        ("start_parts", "compressor"), (), 2.0, _RUNS, "Started twice, amps on each leg", caution=_LOCKED),
    Act("supply", "restored", "Supply restored", {"voltage_problem": 0.9}, {},
        ("line_v_12", "line_v_23", "line_v_31", *_LOAD, "compressor"), (), 2.0, ("volts_off_pct", *_RUNS),
        "Volts on each pair in band, and it runs", caution=_LIVE, held_as="power_on"),
    Act("wiring", "put_right", "Wiring put right", {"evap_fan_no_power": 0.8, "no_call": 0.5}, {"evap_fans": "running"},
        ("evap_fans", "fans_still", "evap_fan_supply_v", "control_call", "contactor"), (), 5.0, ("evap_fans", "control_call", *_RUNS),
        "It does what its control asks, seen twice", caution=_LIVE),
    Act("wiring", "output_moved", "Output moved for now", {"evap_fan_no_power": 0.9, "no_call": 0.5}, {},
        ("evap_fans", "fans_still", "evap_fan_supply_v", "fan_delay", "control_call", "contactor", "air_weak_at"), (), 15.0,
        ("evap_fans", "evap_fan_supply_v", "control_call", *_RUNS), "What it feeds runs, and stops when it should", caution=_LIVE,
        bench=True),
    Act("wiring", "delay_removed", "Delay timer taken out", {"delay_timer_left": 0.97, "no_call": 0.4, "short_cycle": 0.3}, {},
        ("compressor", "contactor", "controller_alarm"), (), 5.0, ("compressor", "control_call"),
        "It starts when its control calls", caution=_LIVE, mends={"circuit_extra": ("delay_timer",)}),
    Act("door", "switch_adjusted", "Door switch adjusted", {"evap_fan_no_power": 0.6}, {"door_switch": "made"},
        ("door_switch", "evap_fans", "fans_still", "evap_fan_supply_v", "air_weak_at"), (), 5.0, ("evap_fans", "evap_fan_supply_v"),
        "Fans run with the door shut, stop with it open", only={"walk_in": (True,)}, caution=_LIVE),
    Act("door", "switch_replaced", "Door switch replaced", {"evap_fan_no_power": 0.55}, {"door_switch": "made"},
        ("door_switch", "evap_fans", "fans_still", "evap_fan_supply_v", "air_weak_at"), (), 5.0, ("evap_fans", "evap_fan_supply_v"),
        "Fans run with the door shut, stop with it open", only={"walk_in": (True,)}, caution=_LOCKED),
    Act("heater", "replaced", "Defrost heater replaced", {"defrost_heater_open": 0.95, "heater_grounded": 0.95}, {},
        ("heater_amps", "coil_after_defrost", "heater_ground_ohm", "breaker"), (), 0.0,
        ("heater_pct", "coil_after_defrost", "heater_ground_ohm"),
        "Amps of every element, and a defrost seen to its end", caution=_LOCKED, still=True),
    Act("hot_gas_valve", "coil_replaced", "Hot-gas valve coil replaced", {"hot_gas_valve_shut": 0.7}, {"hot_gas_valve": "opens"},
        _HOT_GAS, (), 0.0, ("hot_gas_valve", "coil_after_defrost"),
        "Hot behind it in a defrost, a defrost seen to its end", caution=_LOCKED,
        only=_GAS),
    Act("hot_gas_valve", "replaced", "Hot-gas valve replaced", {"hot_gas_valve_shut": 0.95, "hot_gas_valve_leaking": 0.95},
        {"hot_gas_valve": "opens"}, (*_HOT_GAS, "pump_down_rise_psi"), (), 15.0, ("hot_gas_valve", "coil_after_defrost", "td_f"),
        "Hot behind it in a defrost, as cold as the coil while it cools", caution=_LICENSED, only=_GAS),
    Act("frame_heater", "replaced", "Door frame heater replaced", {"frame_heater_dead": 0.95}, {"frame_heater": "warm"},
        ("frame_heater",), (), 20.0, ("frame_heater",), "The frame warm all round, the seal free", caution=_LOCKED, still=True,
        only=_FRAME),
    Act("timer", "set", "Timer set", {"defrost_too_little": 0.7, "defrost_too_much": 0.7}, {},
        ("defrosts_per_day", "defrost_set_min", "defrost_ran_min", "defrost_ended_by", "coil_after_defrost"), (), 0.0,
        ("coil_after_defrost",),
        "A defrost seen to its end, the coil clear", still=True),
    Act("timer", "replaced", "Timer replaced", {"defrost_never_starts": 0.93}, {},
        ("defrost_starts", "coil_after_defrost", "defrosts_per_day", "defrost_set_min", "defrost_ran_min"), (), 0.0,
        ("defrost_starts", "coil_after_defrost"), "A defrost that starts by itself", caution=_LOCKED, still=True),
    Act("relay", "freed", "Relay freed", {"compressor_runs_in_defrost": 0.5, "evap_fan_no_power": 0.4, "no_call": 0.3}, {},
        ("compressor_in_defrost", "evap_fans", "control_call"), (), 5.0, ("compressor_in_defrost", "evap_fans", "control_call"),
        "It pulls in and drops out twice", caution=_LIVE),
    Act("relay", "replaced", "Relay replaced", {"compressor_runs_in_defrost": 0.93, "evap_fan_no_power": 0.6}, {},
        ("compressor_in_defrost", "evap_fans"), (), 5.0, ("compressor_in_defrost", "evap_fans"), "It pulls in and drops out twice",
        caution=_LOCKED),
    Act("termination", "replaced", "Termination replaced", {"defrost_not_terminating": 0.93, "defrost_never_starts": 0.3}, {},
        ("defrost_ended_by", "defrost_ran_min", "termination_f"),
        (), 0.0, ("defrost_ended_by",), "A defrost that ends by temperature", caution=_LOCKED, still=True),
    Act("sensor", "moved", "Sensor moved", {"stat_calibration": 0.6, "sensor_mixup": 0.7}, {}, ("display_temp_f", "sensor_error_f"), (),
        20.0, ("sensor_error_f",), "Display and own thermometer agree at the sensor", still=True),
    Act("sensor", "replaced", "Sensor replaced", {"stat_calibration": 0.8}, {}, ("display_temp_f", "sensor_error_f"), (), 20.0,
        ("sensor_error_f",), "Display and own thermometer agree at the sensor", still=True),
    Act("sensor", "swapped_back", "Sensors swapped back", {"sensor_mixup": 0.93}, {}, ("display_temp_f", "sensor_error_f"), (), 20.0,
        ("sensor_error_f",), "Each display follows its own box", still=True,
        mends={"circuit_extra": ("probe_wrong_role",)}),
    Act("thermostat", "adjusted", "Thermostat adjusted", {"stat_calibration": 0.75, "short_cycle": 0.5}, {},
        ("stat_cut_in_f", "stat_cut_out_f"), (), 0.0, ("stat_off_f", "stat_span_f", "stat_cut_out_f"), "Two cycles inside the limits",
        still=True),
    Act("thermostat", "replaced", "Thermostat replaced", {"stat_calibration": 0.95, "no_call": 0.6}, {},
        ("stat_cut_in_f", "stat_cut_out_f", "control_call"), (), 0.0, ("stat_off_f", "control_call"), "Two cycles inside the limits",
        caution=_LOCKED),
    Act("pressure_control", "adjusted", "Pressure control adjusted", {"lp_control_misset": 0.85, "short_cycle": 0.5}, {},
        ("lp_cut_in_psig", "lp_cut_out_psig", "low_pressure_switch"), (), 0.0, ("lp_cut_in_psig", "lp_cut_in_off_f"),
        "Two or three cycles inside the limits"),
    Act("program", "changed", "Program changed", {"defrost_too_little": 0.75, "defrost_too_much": 0.75}, {},
        ("defrosts_per_day", "defrost_set_min", "defrost_ran_min", "defrost_ended_by", "coil_after_defrost", "termination_f"), (), 0.0,
        ("coil_after_defrost",), "A defrost seen to its end, the coil clear", still=True, bench=True),
    Act("parameters", "changed", "Parameters set", {"wrong_parameters": 0.85, "short_cycle": 0.5}, {}, ("controller_alarm",), (), 15.0,
        ("controller_alarm", "superheat_evap_f"), "Read back, no alarm, superheat in its band"),
    Act("parameters", "interlock_set", "Interlock set as it is wired", {"wrong_parameters": 0.8, "no_call": 0.4}, {},
        ("controller_alarm", "control_call", "compressor", "contactor"), (), 5.0, ("controller_alarm", "compressor"),
        "Read back, no alarm, it starts when called", mends={"circuit_extra": ("interlock_not_wired",)},
        only={"box_control": ("controller",)}),
    Act("control", "set_calling", "Control set calling", {"no_call": 0.9}, {"control_call": "calling"},
        ("control_call", "compressor", "contactor"), (), 5.0, _RUNS, "It runs, and the box falls", caution=words("live"),
        held_as="power_on"),
)
# fmt: on
# Which way each should move what is read, where it was needed.
_SHOWS: Final[dict[str, dict[str, str]]] = {
    "coil.cleaned": {"td_f": DOWN, "superheat_evap_f": UP},
    "stock.moved": {"td_f": DOWN, "superheat_evap_f": UP},
    "evap_fan.freed": {"td_f": DOWN},
    "evap_fan.replaced": {"td_f": DOWN},
    "evap_fan.delay_bridged": {"td_f": DOWN},
    "condenser.cleaned": {"split_f": DOWN, "amps_pct": DOWN},
    "condenser.blocked_on_purpose": {"split_f": UP},
    "condenser.unblocked": {"split_f": DOWN},
    "condenser_fan.replaced": {"split_f": DOWN, "amps_pct": DOWN},
    "bulb.moved": {"superheat_evap_f": UP, "superheat_comp_f": UP},
    "bulb.clamped": {"superheat_evap_f": UP, "superheat_comp_f": UP},
    "bulb.insulated": {"superheat_evap_f": UP, "superheat_comp_f": UP},
    "valve.turned_in": {"superheat_evap_f": UP},
    "valve.turned_out": {"superheat_evap_f": DOWN},
    "cap_tube.replaced": {"superheat_evap_f": DOWN, "td_f": DOWN},
    "drier.replaced": {"superheat_evap_f": DOWN, "drier_drop_f": DOWN},
    "liquid_solenoid.coil_replaced": {"td_f": DOWN},
    "regulator.opened": {"td_f": DOWN},
    "charge.added": {"superheat_evap_f": DOWN, "subcooling_f": UP, "td_f": DOWN},
    "charge.recovered": {"subcooling_f": DOWN, "split_f": DOWN},
    "air.purged": {"split_f": DOWN},
    "compressor.replaced": {"pump_down_low_psig": DOWN},
    "contactor.tightened": {"pole_drop_v": DOWN},
    "contactor.replaced": {"pole_drop_v": DOWN},
    "heater.replaced": {"heater_pct": UP},
}
# An opened circuit is closed with a new drier and a full evacuation.
_OPENED: Final = ("drier", "nitrogen", "refrigerant by weight")
# What it takes.
_SPARES: Final[dict[str, tuple[str, ...]]] = {
    "coil.cleaned": ("coil cleaner that is safe for the fins",),
    "evap_fan.replaced": ("fan motor by volts, watts and turning",),
    "evap_fan.capacitor_replaced": ("capacitor by µF and volts",),
    "condenser_fan.capacitor_replaced": ("capacitor by µF and volts",),
    "condenser.descaled": ("descaler that is safe for the tubes",),
    "door.switch_replaced": ("door switch by volts and load",),
    "evap_fan.delay_set": ("fan delay by its temperatures",),
    "door.gasket_replaced": ("gasket by the door's size and profile",),
    "door.curtain_hung": ("strip curtain as wide as the opening",),
    "drain.resealed": ("sealant that sets in the cold",),
    "drain.trap_set": ("trap by the line's size",),
    "drain.condensate_mended": ("float or heater of the condensate pan",),
    "drain_heater.replaced": ("drain line heater by length and volts",),
    "condenser_fan.replaced": ("fan motor by volts, watts and turning", "capacitor where it has one"),
    "head_control.replaced": ("head-pressure valve by its setting", *_OPENED),
    "bulb.clamped": ("two bulb straps", "insulation"),
    "bulb.moved": ("two bulb straps", "insulation"),
    "bulb.insulated": ("insulation",),
    "valve.strainer_cleaned": ("strainer or its gasket", *_OPENED),
    "valve.element_replaced": ("power element by charge and refrigerant", *_OPENED),
    "valve.replaced": ("valve by refrigerant, capacity and equaliser", *_OPENED),
    "cap_tube.replaced": ("capillary tube by bore and length", *_OPENED),
    "drier.replaced": ("drier by size", "nitrogen", "refrigerant by weight"),
    "liquid_solenoid.coil_replaced": ("solenoid coil by volts",),
    "liquid_solenoid.replaced": ("solenoid by size and volts", *_OPENED),
    "charge.added": ("refrigerant by weight",),
    "charge.weighed_in": ("refrigerant by weight", "drier"),
    "charge.recovered": ("recovery cylinder with room",),
    "leak.repaired": ("nitrogen", "drier"),
    "air.purged": ("recovery cylinder with room",),
    "compressor.replaced": ("compressor by model", "start parts that go with it", *_OPENED),
    "contactor.replaced": ("contactor by amps, poles and coil volts",),
    "start_parts.replaced": ("relay and capacitors by the compressor's model",),
    "hot_gas_valve.coil_replaced": ("valve coil by volts",),
    "hot_gas_valve.replaced": ("hot-gas valve by size and volts", *_OPENED),
    "frame_heater.replaced": ("frame heater by length, watts and volts",),
    "water_valve.replaced": ("water valve by pipe and refrigerant",),
    "heater.replaced": ("heater by watts, volts and length",),
    "timer.replaced": ("defrost timer by volts and cycle",),
    "relay.replaced": ("relay by coil volts and contact load",),
    "termination.replaced": ("termination by its temperatures",),
    "sensor.replaced": ("sensor by its curve",),
    "thermostat.replaced": ("thermostat by range and load",),
}
# What it is in the customer's words.
_PLAIN: Final[dict[str, str]] = {
    "coil.melted": "We melted the ice off the cooling coil",
    "coil.cleaned": "We cleaned the cooling coil",
    "evap_fan.freed": "We freed a fan that was stuck",
    "evap_fan.replaced": "We put in a new fan",
    "evap_fan.capacitor_replaced": "We put in a new capacitor for a fan",
    "condenser_fan.capacitor_replaced": "We put in a new capacitor for the fan of the coil that gives off the heat",
    "condenser.descaled": "We cleaned the scale out of the coil that the water runs through",
    "door.switch_replaced": "We put in a new switch for the door",
    "evap_fan.delay_bridged": "We bridged the switch that holds the fans back, for now",
    "evap_fan.delay_set": "We set the switch that holds the fans back",
    "door.adjusted": "We set the door so that it closes",
    "door.gasket_replaced": "We put a new seal on the door",
    "door.curtain_hung": "We hung a strip curtain in the doorway",
    "door.kept_shut": "We agreed that the door is kept shut",
    "stock.moved": "We moved stock away from the cooling coil",
    "drain.cleared": "We cleared the drain",
    "drain.thawed": "We thawed the drain",
    "drain.resealed": "We sealed the drain pan",
    "drain.trap_set": "We put the drain's trap right",
    "drain.condensate_mended": "We mended the pan that dries up the water",
    "drain_heater.replaced": "We put in a new heater for the drain",
    "condenser.cleaned": "We cleaned the coil that gives off the heat",
    "condenser.blocked_on_purpose": "We covered part of the coil that gives off the heat, to test it",
    "condenser.unblocked": "We uncovered the coil that gives off the heat again",
    "condenser_fan.replaced": "We put in a new fan for the coil that gives off the heat",
    "head_control.adjusted": "We set the valve that keeps the pressure up in the cold",
    "head_control.replaced": "We put in a new valve that keeps the pressure up in the cold",
    "bulb.moved": "We moved the valve's sensor to where it belongs",
    "bulb.clamped": "We fastened the valve's sensor",
    "bulb.insulated": "We insulated the valve's sensor",
    "valve.turned_in": "We set the valve that feeds the coil",
    "valve.turned_out": "We set the valve that feeds the coil",
    "valve.exercised": "We freed the valve that feeds the coil",
    "valve.strainer_cleaned": "We cleaned the strainer before the valve",
    "valve.element_replaced": "We put a new head on the valve that feeds the coil",
    "valve.replaced": "We put in a new valve that feeds the coil",
    "cap_tube.replaced": "We put in a new feed tube",
    "drier.replaced": "We put in a new filter",
    "liquid_solenoid.coil_replaced": "We put a new coil on the electric valve",
    "liquid_solenoid.replaced": "We put in a new electric valve",
    "regulator.opened": "We opened the pressure regulator",
    "regulator.closed": "We closed the pressure regulator",
    "charge.added": "We added refrigerant",
    "charge.recovered": "We took refrigerant out",
    "charge.weighed_in": "We filled it with the right weight of refrigerant",
    "leak.repaired": "We repaired the leak",
    "leak.given_up": "The leak stays open, as you decided",
    "air.purged": "We took air out of the system",
    "compressor.rested": "We let the compressor cool down",
    "compressor.replaced": "We put in a new compressor",
    "contactor.tightened": "We tightened the main switch",
    "contactor.replaced": "We put in a new main switch",
    "start_parts.replaced": "We put in new starting parts",
    "supply.restored": "We brought the power back",
    "wiring.put_right": "We put the wiring right",
    "heater.replaced": "We put in a new defrost heater",
    "hot_gas_valve.coil_replaced": "We put a new coil on the valve that clears the ice",
    "hot_gas_valve.replaced": "We put in a new valve that clears the ice",
    "frame_heater.replaced": "We put a new heater in the door frame",
    "water_valve.adjusted": "We set the valve for the cooling water",
    "water_valve.replaced": "We put in a new valve for the cooling water",
    "water_valve.strainer_cleaned": "We cleaned the strainer of the cooling water",
    "timer.set": "We set the defrost clock",
    "timer.replaced": "We put in a new defrost clock",
    "relay.freed": "We freed a switch that was stuck",
    "relay.replaced": "We put in a new relay",
    "termination.replaced": "We put in the sensor that ends the defrost, new",
    "sensor.moved": "We moved a temperature sensor",
    "sensor.replaced": "We put in a new temperature sensor",
    "sensor.swapped_back": "We put the sensors back where they belong",
    "thermostat.adjusted": "We set the thermostat",
    "thermostat.replaced": "We put in a new thermostat",
    "pressure_control.adjusted": "We set the pressure switch",
    "program.changed": "We changed when and how long it defrosts",
    "parameters.interlock_set": "We set the controller for how it is wired",
    "parameters.changed": "We set the controller for this unit",
    "control.set_calling": "We turned the cooling back on",
    "wiring.output_moved": "We fed it from another output of its controller, for now",
    "wiring.delay_removed": "We took out a delay timer that held it back",
    "door.switch_adjusted": "We set the switch of the door",
}
# Why some acts put nothing right by themselves.
_NO_EFFECT: Final[dict[str, str]] = {
    "condenser.blocked_on_purpose": "it mimics a warm day", "condenser.unblocked": "it ends what mimicked a warm day",
    "regulator.closed": "it holds a box up, and is no fault's cure", "leak.repaired": "the shortage goes with gas, the leak with this",
    "leak.given_up": "a decision of the customer",
}  # fmt: skip
ACTS: Final[dict[str, Act]] = {
    act.code: replace(
        act,
        shows=_SHOWS.get(act.code, {}),
        spares=_SPARES.get(act.code, ()),
        plain=_PLAIN[act.code],
        no_effect=_NO_EFFECT.get(act.code, ""),
    )
    for act in _ALL
}
# They open the circuit: it is not left before it is held by nitrogen and dry.
OPENS: Final = frozenset((
    "compressor.replaced", "drier.replaced", "cap_tube.replaced", "valve.replaced", "valve.element_replaced", "valve.strainer_cleaned",
    "liquid_solenoid.replaced", "head_control.replaced", "hot_gas_valve.replaced",
))  # fmt: skip
# They prepare or end something and repair nothing: what is read after them is still of the unit as found.
PREPARES: Final = frozenset((
    "coil.melted", "condenser.blocked_on_purpose", "condenser.unblocked", "charge.recovered", "compressor.rested", "leak.given_up",
))  # fmt: skip
# What puts a cause right most surely: cause -> code of the act. A part that only rests is not replaced because that would end it too.
SUREST: Final[dict[str, str]] = {
    cause: max((act for act in _ALL if cause in act.removes), key=lambda act: act.removes[cause]).code
    for cause in dict.fromkeys(cause for act in _ALL for cause in act.removes)
} | {"compressor_overload": "compressor.rested"}
PARTS: Final[dict[str, tuple[str, ...]]] = {part: tuple(act.did for act in _ALL if act.part == part) for part in {a.part: 0 for a in _ALL}}


def get(part: str, did: str) -> Act:
    """Return what was done to a part; InputError names the nearest known part or word."""
    if part not in PARTS:
        near = difflib.get_close_matches(part, PARTS, n=1, cutoff=0.0)[0]
        raise InputError(f"part “{part[:40]}” is not known; the nearest known is “{near}”")
    if did not in PARTS[part]:
        near = difflib.get_close_matches(did, PARTS[part], n=1, cutoff=0.0)[0]
        raise InputError(f"“{did[:40]}” cannot be done to {part}; the nearest that can is “{near}”")
    return ACTS[f"{part}.{did}"]


# What opens a stage without being done: a look that finds gone what had been seen to be there.
LOOKED: Final = ("", "looked")
_LOOKED: Final = Act(*LOOKED, "Looked at again", still=True)


def that_opens(part: str, did: str) -> Act:
    """Return what opened a stage: an act as `get` has it, or a look (`LOOKED`)."""
    return _LOOKED if (part, did) == LOOKED else get(part, did)


def voided(act: Act) -> frozenset[str]:
    """Return the observations that are past once an act was done: its own, and all that was read while the unit ran otherwise."""
    return frozenset(act.voids if act.still else (*act.voids, *RUNNING))
