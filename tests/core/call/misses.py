"""What the judgement once got wrong on real work, one kind a case, in invented figures; none of them moved a figure of a table.

A case is the unit, what happened, and what must be told of it: `was` and `left` as least and most of all answers that name a cause
(`""` is nothing wrong), the rest as jobs have it (`tests/core/call/expected.py`).
"""

from tests.core.call.made import COOLER, FREEZER, REACH_IN, did, happened, read
from tests.core.judging.stories import ran

MEAT = COOLER | {"refrigerant": "R-134a", "set_f": 34, "name": "Meat cooler"}
DAIRY = COOLER | {"refrigerant": "R-449A", "set_f": 38, "name": "Dairy cooler"}
ICE_CREAM = FREEZER | {"refrigerant": "R-507A", "set_f": -12, "name": "Ice cream store"}
LOWBOY = REACH_IN | {"metering": "cap_tube", "name": "Lowboy"}
RUNS = {"compressor": "running", "evap_fans": "running"}
LITTLE, NONE_OF_IT, MUCH, LIKELY, CLEAR = (0.0, 0.2), (0.0, 0.08), (0.4, 1.0), (0.6, 1.0), (0.85, 1.0)


def seen(*at, **observations):
    """Readings taken at one time, minutes after the call began."""
    return [read(key, list(value) if isinstance(value, tuple) else value, *at) for key, value in observations.items()]


def circuit(plate, at, *figures, **observations):
    """A circuit read while it ran (`tests.core.judging.stories.ran`), at a minute of the call."""
    return seen(at, **ran(plate, *figures, **RUNS, **observations))


BARE = happened("ice", 20, form="none", covers_pct=0, places=[])
# Coils that are fed far too little, behind a full glass.
STARVED_MEAT = circuit(MEAT, 10, 44, 12, 26, 101, 9, sight_glass="clear", bulb="tight_insulated", drier_drop_f=0.6, evap_coil="clean")

MISSES = {
    # What was seen with the eyes is there.
    "a rolled gasket is not blamed for the fan that stands beside it": (
        DAIRY,
        seen(3, box_temp_f=53, compressor="running", evap_fans="some_stopped", evap_fan_supply_v=231, door="gasket_gap"),
        {"was": {"evap_fan_failed": CLEAR}, "first_holds": ["evap_fan_failed", "door_seal"]},
    ),
    "fans that wait for a cold coil and a leak, behind a furred condenser": (
        ICE_CREAM,
        seen(2, box_temp_f=24, compressor="running", evap_fans="stopped", fan_delay="waits_cold", evap_fan_supply_v=0,
             condenser_coil="blocked", condenser_fans="running", ambient_f=79)
        + seen(9, suction_psig=0.5, coil_outlet_feel="warm", sight_glass="empty", oil_trace="at_fitting", receiver_level_pct=4),
        {"was": {"undercharge": LIKELY, "condenser_dirty": CLEAR}, "first_holds": ["condenser_dirty", "undercharge"]},
    ),
    "a seized compressor is seen, and the door beside it": (
        MEAT,
        seen(2, box_temp_f=58, door="gasket_gap") + [happened("looked", 5, part="compressor", state="seized")],
        {"first_holds": ["door_seal"], "was": {"undercharge": NONE_OF_IT, "evap_fan_failed": NONE_OF_IT}},
    ),
    "ice that is painted after the dead fan was changed, and before it is melted, lay there before": (
        DAIRY,
        seen(2, box_temp_f=61, evap_fans="stopped", evap_fan_supply_v=231)
        + [did("evap_fan", "replaced", 55)]
        + seen(58, ice_form="heavy_frost", ice_places=("coil_whole",))
        + [did("coil", "melted", 95)]
        + seen(120, evap_fans="running", ice_form="none", box_temp_f=57),
        {"was": {"evap_fan_failed": CLEAR},
         "left": {"evap_fan_failed": LITTLE, "evap_airflow_low": LITTLE, "defrost_never_starts": LITTLE}},
    ),
    # Normal moments are answers.
    "a first start pulls down and is not short of gas": (
        DAIRY,
        seen(0, complaint="first_start", compressor="running", evap_fans="running", box_temp_f=71, box_trend="falling", settled_min=12)
        + seen(12, sight_glass="few_bubbles"),
        {"was": {"undercharge": LITTLE, "": MUCH}, "charge": ["no", "first"]},
    ),
    "a freezer on its way down is not starved by its valve": (
        FREEZER,
        circuit(FREEZER, 4, 33, 8, 14, 108, 5, box_trend="falling", sight_glass="clear", since_when="today"),
        {"was": {"txv_underfeeding": LITTLE, "undercharge": NONE_OF_IT}},
    ),
    "just after a defrost, stock cold": (
        FREEZER,
        seen(4, box_temp_f=13, since_defrost_min=8, product_temp_f=-3, compressor="running", evap_fans="running"),
        {"was": {"hot_stock": NONE_OF_IT, "": (0.3, 1.0)}},
    ),
    "satisfied and pumped down is no fault": (
        MEAT,
        seen(4, box_temp_f=34, control_call="satisfied", compressor="off", suction_psig=4, liquid_solenoid="closed_no_pull"),
        {"was": {"": MUCH, "liquid_solenoid_closed": LITTLE, "undercharge": NONE_OF_IT}, "runs": ["off_rightly"]},
    ),
    "a box that falls towards set speaks for what was done": (
        MEAT,
        STARVED_MEAT + [did("valve", "replaced", 60)] + seen(70, box_temp_f=41, box_trend="falling", compressor="running",
                                                             evap_fans="running"),
        {"was": {"txv_underfeeding": MUCH}, "left": {"evap_airflow_low": NONE_OF_IT, "": MUCH}},
    ),
    "a box read again fifty degrees lower accuses no fan": (
        FREEZER,
        seen(2, box_temp_f=47, compressor="running") + seen(190, box_temp_f=-3),
        {"was": {"evap_fan_failed": NONE_OF_IT}, "left": {"evap_fan_failed": NONE_OF_IT}},
    ),
    # What runs explains what rests.
    "a condenser fan stands behind an open pole": (
        FREEZER,
        seen(3, box_temp_f=22, compressor="humming", contactor="in", condenser_fans="stopped")
        + seen(7, line_v_12=231, line_v_23=229, line_v_31=230, load_v_12=230, load_v_23=112, load_v_31=109),
        {"was": {"contactor_pole_open": CLEAR, "condenser_fan_failed": NONE_OF_IT}, "holds_not": ["condenser_fan_stopped"]},
    ),
    "the pole is new and the fan turns": (
        FREEZER,
        seen(3, box_temp_f=22, compressor="humming", contactor="in", condenser_fans="stopped")
        + seen(7, line_v_12=231, line_v_23=229, line_v_31=230, load_v_12=230, load_v_23=112, load_v_31=109)
        + [did("contactor", "replaced", 30)]
        + seen(36, compressor="running", condenser_fans="running", load_v_12=229, load_v_23=228, load_v_31=230),
        {"was": {"contactor_pole_open": CLEAR}, "left": {"": CLEAR, "contactor_pole_open": NONE_OF_IT, "condenser_fan_failed": NONE_OF_IT}},
    ),
    "pumped down and off after the clock was repaired": (
        FREEZER,
        seen(2, box_temp_f=19, ice_form="hard_ice", ice_places=("coil_whole",), defrost_starts="never")
        + [did("coil", "melted", 60), did("timer", "replaced", 80)]
        + seen(150, box_temp_f=-5, control_call="satisfied", compressor="off", low_pressure_switch="open", suction_psig=2),
        {"was": {"defrost_never_starts": LIKELY}, "left": {"": LIKELY, "lp_control_misset": NONE_OF_IT, "undercharge": NONE_OF_IT}},
    ),
    "a bare coil is no shut solenoid": (
        FREEZER,
        seen(2, box_temp_f=-4, compressor="off", control_call="satisfied") + [BARE],
        {"was": {"liquid_solenoid_closed": LITTLE}},
    ),
    "a compressor that runs is called by something": (
        DAIRY,
        seen(2, box_temp_f=49, compressor="running"),
        {"was": {"no_call": NONE_OF_IT}, "next_not": ["control_call", "contactor"]},
    ),
    "fans that run wait for nothing": (
        FREEZER,
        seen(2, box_temp_f=14, compressor="running", evap_fans="running", fan_delay="let_go"),
        {"was": {"fan_delay_waiting": NONE_OF_IT, "evap_fan_no_power": NONE_OF_IT}, "next_not": ["evap_fan_supply_v", "fan_delay"]},
    ),
    # A later look beats an earlier one.
    "running after stopped, without a line for what was done": (
        DAIRY,
        seen(2, box_temp_f=52, evap_fans="stopped", evap_fan_supply_v=230, compressor="running") + seen(50, evap_fans="running"),
        {"was": {"evap_fan_failed": CLEAR}, "left": {"evap_fan_failed": NONE_OF_IT}},
    ),
    "clean after blocked, without a line for what was done": (
        DAIRY,
        seen(2, box_temp_f=47, condenser_coil="blocked", compressor="running") + seen(50, condenser_coil="clean"),
        {"was": {"condenser_dirty": CLEAR}, "left": {"condenser_dirty": LITTLE, "": LIKELY}},
    ),
    "a drain seen to run on both coils": (
        FREEZER | {"coils": ["left", "right"]},
        [read("drain", "blocked", 2, on="left"), read("ice_places", ["drain_pan"], 2, on="left"),
         did("drain", "cleared", 20, on="left"), read("drain", "running", 30, on="left"), read("drain", "running", 31, on="right")],
        {"was": {"drain_blocked": CLEAR}, "left": {"drain_blocked": (0.0, 0.15)}},
    ),
    "ice back after an all-clear melt": (
        FREEZER,
        seen(2, box_temp_f=17, ice_form="hard_ice", ice_places=("coil_whole",), compressor="running", evap_fans="running")
        + [happened("melt", 60, method="warm_water", minutes=50, all_clear=True)]
        + [happened("visit", 60 * 28, why="ice again")]
        + seen(60 * 28 + 5, box_temp_f=15, ice_form="hard_ice", ice_places=("coil_whole",), door="good", drain="running"),
        {"left": {"": NONE_OF_IT, "residual_ice": NONE_OF_IT}},
    ),
    "six bare hours with the door as before speak against the door": (
        FREEZER,
        seen(2, box_temp_f=16, ice_form="heavy_frost", ice_places=("coil_whole",), door_traffic="heavy", compressor="running")
        + [happened("melt", 60, method="warm_water", minutes=45, all_clear=True)]
        + seen(420, ice_form="none", box_temp_f=-4, door_traffic="heavy"),
        {"left": {"door_infiltration": (0.0, 0.35)}},
    ),
    # An act without an answer counts, one undone cures nothing.
    "two turns without an answer": (
        MEAT,
        STARVED_MEAT + [did("valve", "turned_out", 20, value=0.5)] + circuit(MEAT, 42, 44, 12, 26, 101, 9)
        + [did("valve", "turned_out", 45, value=0.5)] + circuit(MEAT, 66, 44, 12, 26, 101, 9),
        {"left": {"txv_underfeeding": LIKELY, "undercharge": NONE_OF_IT}, "valve": ["no"], "charge": ["no", "stop"]},
    ),
    "a new element without an answer": (
        MEAT,
        STARVED_MEAT + [did("valve", "element_replaced", 60)] + circuit(MEAT, 85, 44, 12, 26, 101, 9),
        {"left": {"": NONE_OF_IT, "undercharge": NONE_OF_IT}, "valve": ["no", "wait"], "charge": ["no", "first"]},
    ),
    "turned back to where it stood cures nothing": (
        MEAT,
        STARVED_MEAT + [did("valve", "turned_out", 20, value=0.5)] + circuit(MEAT, 42, 44, 12, 26, 101, 9)
        + [did("valve", "turned_in", 45, value=0.5)],
        {"left": {"txv_underfeeding": LIKELY}},
    ),
    "turns that answer speak for the valve": (
        MEAT,
        circuit(MEAT, 10, 42, 14, 33, 102, 9, sight_glass="clear", bulb="tight_insulated")
        + [did("valve", "turned_out", 15, value=0.5)] + circuit(MEAT, 36, 41, 17, 27, 102, 9)
        + [did("valve", "turned_out", 40, value=0.5)] + circuit(MEAT, 62, 40, 20, 21, 102, 8),
        {"was": {"txv_underfeeding": LIKELY, "liquid_restriction": LITTLE}, "left": {"liquid_restriction": LITTLE}},
    ),
    # Figures against figures.
    "a line as warm as the air is a bare coil": (
        MEAT,
        seen(4, box_temp_f=55, compressor="running", evap_fans="running", suction_psig=2, suction_line_evap_f=55,
             sight_glass="empty", oil_trace="at_fitting"),
        {"was": {"undercharge": LIKELY, "txv_underfeeding": LITTLE}},
    ),
    "satisfied long ago: line as warm as the air, suction near the dew of the box": (
        FREEZER,
        seen(4, box_temp_f=31, compressor="off", low_pressure_switch="closed", suction_psig=72, suction_line_evap_f=30,
             control_call="calling"),
        {"was": {"undercharge": LITTLE, "liquid_solenoid_closed": (0.0, 0.3)}},
    ),
    "a switch that stands open below its cut-in is set wrong": (
        DAIRY,
        seen(3, box_temp_f=48, compressor="off", control_call="calling", ambient_f=77, low_pressure_switch="open", suction_psig=61,
             lp_cut_in_psig=92, lp_cut_out_psig=22),
        {"was": {"lp_control_misset": LIKELY, "compressor_overload": LITTLE}},
    ),
    "a switch in line with a coil that is in is made": (
        FREEZER,
        seen(3, box_temp_f=20, compressor="humming", contactor="in"),
        {"next_not": ["high_pressure_switch", "low_pressure_switch", "contactor"]},
    ),
    "iced with two short defrosts a day": (
        FREEZER,
        seen(2, box_temp_f=11, ice_form="hard_ice", ice_places=("coil_whole",), compressor="running", evap_fans="running",
             defrosts_per_day=2, defrost_set_min=18, defrost_starts="yes", heater_amps=18.5),
        {"was": {"defrost_too_little": LIKELY}},
    ),
    "iced with eight long defrosts a day": (
        FREEZER,
        seen(2, box_temp_f=11, ice_form="hard_ice", ice_places=("coil_whole",), compressor="running", evap_fans="running",
             defrosts_per_day=8, defrost_set_min=55, defrost_starts="yes"),
        {"was": {"defrost_too_little": LITTLE}},
    ),
    # Every observation bears.
    "label charge weighed in: a tube, not gas": (
        LOWBOY,
        seen(3, box_temp_f=51, compressor="running", evap_fans="running", condenser_coil="clean", charge_weighed="yes",
             suction_psig=-4, coil_outlet_feel="warm", compressor_shell="hot", drier_drop_f=0.4),
        {"was": {"cap_tube_restricted": LIKELY, "undercharge": (0.0, 0.25)}, "charge": ["no", "stop", "first"]},
    ),
    "product colder than the air": (
        FREEZER,
        seen(3, box_temp_f=9, product_temp_f=-4, since_defrost_min=11),
        {"was": {"hot_stock": NONE_OF_IT}},
    ),
    "warm stock put in this morning": (
        FREEZER,
        seen(3, box_temp_f=9, product_temp_f=38, compressor="running", evap_fans="running", box_trend="falling"),
        {"was": {"hot_stock": MUCH}},
    ),
    "the liquid line goes cold on its way": (
        DAIRY,
        circuit(DAIRY, 8, 47, 12, 28, 104, 10, bulb="tight_insulated", liquid_line_valve_f=61.0),
        {"was": {"liquid_restriction": LIKELY, "undercharge": NONE_OF_IT}, "charge": ["no", "stop", "first"]},
    ),
    "no volts at the heater is no dead element": (
        FREEZER,
        seen(3, box_temp_f=12, ice_form="hard_ice", ice_places=("coil_whole",), control_call="in_defrost", heater_volts=0, heater_amps=0),
        {"was": {"defrost_heater_open": LITTLE}},
    ),
    "volts at the heater and no amps, without a rating": (
        FREEZER,
        seen(3, box_temp_f=12, ice_form="hard_ice", ice_places=("coil_whole",), control_call="in_defrost", heater_volts=229, heater_amps=0),
        {"was": {"defrost_heater_open": CLEAR}},
    ),
    "a hiss at the valve of a satisfied unit": (
        MEAT,
        seen(3, box_temp_f=34, control_call="satisfied", compressor="off", valve_sound="hissing_gas"),
        {"was": {"solenoid_leaking": (0.3, 1.0), "undercharge": NONE_OF_IT}},
    ),
    "four minutes after a turn are four minutes": (
        MEAT,
        circuit(MEAT, 8, 37, 20, 21, 100, 8, adjusted_min=4, bulb="tight_insulated"),
        {"holds": ["settling"], "valve": ["wait", "no"]},
    ),
    "a cool suction line at a warm box does not clear the charge": (
        DAIRY,
        seen(3, box_temp_f=46, compressor="running", evap_fans="running", sight_glass="flashing", receiver_level_pct=6,
             oil_trace="at_coil", suction_line_feel="cool"),
        {"was": {"undercharge": LIKELY}},
    ),
    # Never praised, never invented.
    "gas into a flooding valve is no progress": (
        MEAT,
        circuit(MEAT, 5, 40, 30, 1.2, 98, 8, bulb="tight_insulated", sight_glass="clear", evap_coil="clean")
        + [did("charge", "added", 15, value=10.0)] + circuit(MEAT, 40, 40, 31, -0.5, 103, 12, sight_glass="clear"),
        {"said_not": {"any": ["as it should"]}, "left": {"txv_overfeeding": MUCH, "undercharge": NONE_OF_IT}, "charge": ["no", "stop"]},
    ),
    "superheat under its band is no sign of short gas": (
        MEAT,
        circuit(MEAT, 5, 41, 31, 2, 99, 3, gain=3, bulb="tight_insulated"),
        {"was": {"undercharge": LITTLE}, "charge": ["no", "stop"]},
    ),
    "a hiss at a flooding valve is no short gas": (
        MEAT,
        circuit(MEAT, 5, 41, 31, 1.5, 100, 7, gain=3, bulb="tight_insulated", valve_sound="hissing_gas"),
        {"was": {"undercharge": LITTLE, "txv_overfeeding": MUCH}},
    ),
    "a superheat under nothing is liquid": (
        MEAT,
        circuit(MEAT, 5, 43, 34, -3, 99, 6, gain=1, bulb="tight_insulated", compressor_shell="sweating"),
        {"was": {"compressor_inefficient": LITTLE}},
    ),
    "a set point moved is no controller of another unit": (
        DAIRY,
        seen(3, box_temp_f=44) + [happened("setting", 6, parameter="set_point", found=42, left=38, why="the customer had turned it up")]
        + seen(200, box_temp_f=38.5),
        {"was": {"wrong_parameters": LITTLE}, "left": {"wrong_parameters": NONE_OF_IT}},
    ),
    "a box without a clock has no defrost that never starts": (
        DAIRY,
        seen(3, box_temp_f=48, ice_form="heavy_frost", ice_places=("coil_whole",), compressor="running", evap_fans="running"),
        {"was": {"defrost_never_starts": NONE_OF_IT}},
    ),
    "proved beats suspected": (
        MEAT,
        circuit(MEAT, 5, 41, 31, 1, 100, 7, gain=3, bulb="tight_insulated", sight_glass="clear")
        + [did("valve", "turned_in", 15, value=0.5)] + circuit(MEAT, 45, 35, 24, 8, 98, 6, sight_glass="clear"),
        {"proved": ["superheat"], "left": {"": CLEAR, "txv_overfeeding": NONE_OF_IT}},
    ),
    # Pairs of the textbook.
    "low volts and the overload they trip": (
        FREEZER,
        seen(3, box_temp_f=21, compressor="tripping", compressor_shell="hot", contactor="in", line_v_12=193, line_v_23=195, line_v_31=194,
             load_v_12=192, load_v_23=194, load_v_31=193),
        {"was": {"voltage_problem": LIKELY}},
    ),
    "fans without volts, and no delay on the control": (
        DAIRY,
        seen(3, box_temp_f=50, compressor="running", evap_fans="stopped", evap_fan_supply_v=0, fan_delay="none"),
        {"was": {"evap_fan_no_power": LIKELY, "fan_delay_waiting": NONE_OF_IT}},
    ),
    "fans without volts that wait for their coil": (
        FREEZER,
        seen(3, box_temp_f=29, compressor="running", evap_fans="stopped", evap_fan_supply_v=0, fan_delay="waits_cold",
             coil_outlet_feel="warm"),
        {"was": {"fan_delay_waiting": MUCH}},
    ),
    # What it says next, and what holds know.
    "no gauge where gauges stay off": (
        LOWBOY | {"refrigerant": "R-290", "critical_charge_oz": 5.3},
        seen(3, box_temp_f=47, compressor="running"),
        {"holds": ["critical_charge"], "next_not": ["suction_psig", "discharge_psig"]},
    ),
    "nothing live behind a lock-out": (
        FREEZER,
        seen(3, box_temp_f=21, compressor="off", power_locked_out="yes", winding_ground_ohm=300),
        {"was": {"compressor_grounded": CLEAR}, "next_not": ["contactor", "load_v_12", "line_v_12", "compressor_amps"],
         "holds": ["grounded_compressor"]},
    ),
    "a cooler has no drain heater to feel": (
        MEAT,
        seen(3, drain_pan="overflowing", complaint="water"),
        {"next_not": ["drain_heater"]},
    ),
    "a settled matter is done, not asked": (
        DAIRY,
        seen(3, box_temp_f=51, compressor="running", evap_fans="stopped", evap_fan_supply_v=230),
        {"was": {"evap_fan_failed": CLEAR}, "next_not": ["ice_form", "drain", "door"]},
    ),
    "bubbles with oil at a fitting are not bubbles alone": (
        DAIRY,
        seen(3, box_temp_f=46, compressor="running", evap_fans="running", sight_glass="flashing", oil_trace="at_fitting"),
        {"holds_not": ["glass_alone"]},
    ),
    "a full receiver behind a clear glass holds gas": (
        DAIRY,
        circuit(DAIRY, 6, 45, 14, 28, 101, 8, sight_glass="clear", receiver_level_pct=82, bulb="tight_insulated"),
        {"charge": ["no", "stop"]},
    ),
    "a turn on one coil holds that coil": (
        FREEZER | {"coils": ["left", "right"]},
        [did("valve", "turned_in", 20, value=0.25, on="left"), read("box_temp_f", -3, 22)],
        {"on": "left", "holds": ["settling"]},
    ),
    "and not the other": (
        FREEZER | {"coils": ["left", "right"]},
        [did("valve", "turned_in", 20, value=0.25, on="left"), read("box_temp_f", -3, 22)],
        {"on": "right", "holds_not": ["settling"]},
    ),
    "a setting found right starts no clock": (
        DAIRY,
        circuit(DAIRY, 5, 39, 28, 9, 100, 5) + [happened("setting", 8, parameter="differential", found=3, left=3)],
        {"holds_not": ["settling"]},
    ),
    "fans that wait for gas do not keep it out": (
        FREEZER,
        seen(3, box_temp_f=27, compressor="running", evap_fans="stopped", fan_delay="waits_cold", suction_psig=0, coil_outlet_feel="warm",
             sight_glass="empty", condenser_coil="clean", condenser_fans="running", ambient_f=80, oil_trace="at_fitting"),
        {"was": {"fan_delay_waiting": CLEAR, "undercharge": CLEAR}, "charge": ["first"], "charge_text": ["leak"]},
    ),
}  # fmt: skip
