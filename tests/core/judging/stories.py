"""Whole stories as data: what was seen in each stage, what was done between them, what it was, and what is left in the end.

Figures are invented: saturated temperatures against the air, as a circuit with that fault runs, with what eyes and hands find.
"""

from kettle.knowledge import refrigerants

FREEZER = {"kind": "walk_in_freezer", "refrigerant": "R-404A", "set_f": -5, "compressor_rla_a": 14.0, "nameplate_v": 230, "phases": 3}
COOLER = {"kind": "walk_in_cooler", "refrigerant": "R-448A", "set_f": 36, "compressor_rla_a": 9.4}


def ran(plate, box, sst, superheat, sct, subcooling, gain=12, outside=80.0, **seen):
    """A circuit read while it ran: gauges from saturation, clamps from superheat and subcooling, °F."""
    refrigerant = refrigerants.get(plate["refrigerant"])
    return {
        "box_temp_f": float(box),
        "ambient_f": float(outside),
        "suction_psig": round(refrigerant.dew_psig(sst), 1),
        "suction_line_evap_f": float(sst + superheat),
        "suction_line_comp_f": float(sst + superheat + gain),
        "discharge_psig": round(refrigerant.bubble_psig(sct), 1),
        "liquid_line_f": float(sct - subcooling),
        **seen,
    }


OUTDOORS = FREEZER | {"head_control": "mixing_valve"}
# The coil of a freezer whose fans stand: no air over it.
NO_AIR = {"box_temp_f": 26.0, "compressor": "running", "evap_fans": "stopped", "evap_fan_supply_v": 1.0}
STARVED = ran(FREEZER, -1, -31, 27, 98, 6, gain=10, sight_glass="clear")
WELL = ran(FREEZER, -3, -15, 7, 99, 4, sight_glass="clear")
COOL_WELL = ran(COOLER, 37, 26, 8, 104, 4, compressor_shell="warm")
# name -> plate, stages, acts (part, did, value), cause it was, causes still likely left after the last stage (empty: healthy)
STORIES = {
    "ice of a door left open is melted, and the ice goes on speaking": (
        COOLER,
        [
            {"ice_form": "hard_ice", "ice_places": ["coil_whole", "ceiling"], "box_temp_f": 47.0, "door": "left_open",
             "door_traffic": "heavy", "strip_curtain": "missing"},
            {"ice_form": "none", "ice_places": [], "drain": "running"},
        ],
        [("coil", "melted", None)],
        "door_infiltration",
        {"door_infiltration"},
    ),
    "a curtain against it": (
        COOLER,
        [
            {"ice_form": "hard_ice", "ice_places": ["coil_whole", "ceiling"], "box_temp_f": 47.0, "door": "left_open",
             "door_traffic": "heavy", "strip_curtain": "missing"},
            {"ice_form": "none", "drain": "running"},
            {"strip_curtain": "present", "door": "good"},
            COOL_WELL,
        ],
        [("coil", "melted", None), ("door", "curtain_hung", None), ("door", "kept_shut", None)],
        "door_infiltration",
        set(),
    ),
    "a foaming leak is charged, and stays open until it is repaired": (
        FREEZER,
        [
            {"ice_form": "heavy_frost", "ice_places": ["coil_inlet_passes"], "box_temp_f": 13.0,
             "fans_still": ["none"], "evap_fans": "running"},
            {"ice_form": "none", "melt_water": "cloudy_foaming", "oil_trace": "at_coil",
             **ran(FREEZER, 2, -31, 26, 91, 0.5, sight_glass="flashing", receiver_level_pct=7.0)},
            ran(FREEZER, -2, -14, 7, 100, 4, sight_glass="clear", receiver_level_pct=44.0),
        ],
        [("coil", "melted", None), ("charge", "added", 56.0)],
        "undercharge",
        {"undercharge"},
    ),
    "a leak repaired after gas": (
        FREEZER,
        [
            {"oil_trace": "at_fitting", **ran(FREEZER, 6, -28, 24, 92, 0.6, sight_glass="flashing", receiver_level_pct=9.0)},
            ran(FREEZER, -2, -14, 8, 100, 4, sight_glass="clear", receiver_level_pct=41.0),
            {"leak_test": "none_found"},
        ],
        [("charge", "added", 48.0), ("leak", "repaired", None)],
        "undercharge",
        set(),
    ),
    "a bulb clamped right": (
        COOLER,
        [ran(COOLER, 40, 32, 1, 106, 3, gain=3, bulb="loose", compressor_shell="sweating", suction_line_feel="frosted"), COOL_WELL],
        [("bulb", "clamped", None)],
        "bulb_fault",
        set(),
    ),
    "a valve that answers no turn, replaced": (
        FREEZER,
        [{**STARVED, "bulb": "tight_insulated", "drier_drop_f": 0.3, "liquid_solenoid": "open"}, STARVED, STARVED, WELL],
        [("valve", "turned_out", 0.5), ("valve", "turned_out", 0.5), ("valve", "replaced", None)],
        "txv_underfeeding",
        set(),
    ),
    "a stem turned the wrong way first, then the right one": (
        FREEZER,
        [{**STARVED, "bulb": "tight_insulated", "liquid_solenoid": "open"},
         ran(FREEZER, 0, -33, 30, 98, 6, gain=10, sight_glass="clear"), WELL],
        [("valve", "turned_in", 0.25), ("valve", "turned_out", 0.75)],
        "txv_underfeeding",
        set(),
    ),
    "a drain with a dead heater": (
        FREEZER,
        [
            {"ice_places": ["drain_pan", "floor"], "drain": "frozen", "drain_pan": "overflowing", "drain_heater": "cold",
             "box_temp_f": -4.0},
            {"drain": "running"},
            {"drain_heater": "warm", "drain": "running", "drain_pan": "dry"},
        ],
        [("drain", "thawed", None), ("drain_heater", "replaced", None)],
        "drain_blocked",
        set(),
    ),
    "defrosts too long, cut by half": (
        FREEZER,
        [
            {"ice_places": ["ceiling", "fan_guards"], "defrosts_per_day": 8.0, "defrost_ran_min": 45.0, "defrost_ended_by": "time",
             "coil_after_defrost": "clear", "box_temp_f": 2.0, "termination_f": 55.0},
            {"defrosts_per_day": 4.0, "defrost_ran_min": 21.0, "defrost_ended_by": "termination", "coil_after_defrost": "clear"},
        ],
        [("program", "changed", None)],
        "defrost_too_much",
        set(),
    ),
    "an overfeeding valve freed": (
        COOLER,
        [
            ran(COOLER, 38, 33, 0.5, 105, 3, gain=3, bulb="tight_insulated", compressor_shell="sweating"),
            ran(COOLER, 38, 33, 1, 105, 3, gain=3, compressor_shell="sweating"),
            COOL_WELL,
        ],
        [("valve", "turned_in", 0.5), ("valve", "exercised", None)],
        "txv_overfeeding",
        set(),
    ),
    "a condenser cleaned": (
        COOLER,
        [ran(COOLER, 44, 30, 9, 128, 3, condenser_coil="blocked", compressor_shell="hot"), {**COOL_WELL, "condenser_coil": "clean"}],
        [("condenser", "cleaned", None)],
        "condenser_dirty",
        set(),
    ),
    "a burnt contactor": (
        FREEZER,
        [
            {"box_temp_f": 22.0, "compressor": "humming", "contactor": "in", "line_v_12": 231.0, "line_v_23": 230.0, "line_v_31": 232.0,
             "pole_drop_v_1": 0.2, "pole_drop_v_2": 0.3, "pole_drop_v_3": 133.0, "contactor_face": "burnt"},
            {"compressor": "running", "compressor_amps": 10.4, "pole_drop_v_1": 0.2, "pole_drop_v_2": 0.2, "pole_drop_v_3": 0.1},
        ],
        [("contactor", "replaced", None)],
        "contactor_pole_open",
        set(),
    ),
    "charge short in the winter, the condenser blocked to see": (
        OUTDOORS,
        [
            ran(OUTDOORS, 6, -24, 24, 86, 1, outside=28, sight_glass="flashing", receiver_level_pct=6.0, condenser_coil="clean",
                condenser_fans="cycling", evap_fans="running", head_control="normal", since_when="cold_weather"),
            {"sight_glass": "clear"},
            ran(OUTDOORS, -3, -15, 7, 88, 3, outside=28, sight_glass="clear", receiver_level_pct=35.0),
        ],
        [("condenser", "blocked_on_purpose", None), ("charge", "added", 64.0)],
        "winter_charge_short",
        set(),
    ),
    "fans that wait for a coil only gas can make cold": (
        FREEZER,
        [
            {**NO_AIR, "fan_delay": "waits_cold", "receiver_level_pct": 4.0, "sight_glass": "flashing", "oil_trace": "at_fitting",
             "condenser_coil": "clean", "condenser_fans": "running", "ambient_f": 81.0},
            {"fans_still": ["none"], "evap_fans": "running", **ran(FREEZER, 19, -24, 30, 90, 0.4, sight_glass="flashing")},
            ran(FREEZER, -1, -14, 7, 100, 4, sight_glass="clear", receiver_level_pct=43.0),
            {"leak_test": "none_found"},
            {"fan_delay": "let_go", "evap_fans": "running"},
        ],
        [("evap_fan", "delay_bridged", None), ("charge", "added", 72.0), ("leak", "repaired", None), ("evap_fan", "delay_set", None)],
        "undercharge",
        set(),
    ),
}  # fmt: skip
