"""Physically consistent cases: pressures from the refrigerant's own saturation, temperatures that follow from them.

Each fault is written from what the circuit physically does, as temperatures against the air around it, never from the
cause tables.
"""

from kettle.knowledge import refrigerants
from kettle.knowledge.equipment import UnitSpec, resolve

FREEZER = UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", set_f=-5, compressor_rla_a=14.0, metering="txv", receiver=True)
COOLER = UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", set_f=36, compressor_rla_a=9.4, metering="txv", receiver=True)
REACH_IN = UnitSpec(kind="reach_in_cooler", refrigerant="R-134a", set_f=37, compressor_rla_a=5.0, metering="cap_tube", receiver=False)


def circuit(spec, *, box, ambient, td, split, superheat, subcooling, gain=9.0, lift=60.0, amps_pct=75.0, **seen):
    """Readings of a running circuit from its temperatures: td below box, split above ambient, superheat, subcooling."""
    refrigerant = refrigerants.get(spec.refrigerant)
    sst, sct = float(box - td), float(ambient + split)
    return {
        "box_temp_f": float(box),
        "ambient_f": float(ambient),
        "suction_psig": refrigerant.dew_psig(sst),
        "discharge_psig": refrigerant.bubble_psig(sct),
        "suction_line_evap_f": sst + superheat,
        "suction_line_comp_f": sst + superheat + gain,
        "liquid_line_f": sct - subcooling,
        "discharge_line_f": sct + lift,
        "compressor_amps": spec.compressor_rla_a * amps_pct / 100.0,
        "compressor": "running",
        **seen,
    }


def sound(spec, **changes):
    """Readings of a sound unit near set, with the changes given."""
    base = {
        "box": spec.set_f + 0.5,
        "ambient": 82,
        "td": 10 if spec.kind.startswith("walk") else 20,
        "split": 20 if spec.kind == "walk_in_freezer" else 24,
        "superheat": 8,
        "subcooling": 4 if spec.receiver else 9,
        "evap_fans": "running",
        "condenser_coil": "clean",
        "condenser_fans": "running",
        "ice_form": "light_frost",
    }
    if spec.receiver:
        base |= {"sight_glass": "clear", "receiver_level_pct": 50.0}
    if spec.metering == "txv":
        base |= {"bulb": "tight_insulated"}
    return circuit(spec, **(base | changes))


# cause -> [(unit, readings)]: the same fault on differently built units.
FAULTS = {
    # Little liquid: starved coil, warm vapour, an almost empty receiver, gas in the liquid line.
    "undercharge": [
        (
            FREEZER,
            sound(
                FREEZER, box=6, td=26, split=14, superheat=25, subcooling=0.5, amps_pct=48, sight_glass="flashing", receiver_level_pct=8.0
            ),
        ),
        (
            COOLER,
            sound(
                COOLER,
                box=43,
                td=27,
                split=17,
                superheat=24,
                subcooling=0.3,
                amps_pct=52,
                sight_glass="few_bubbles",
                receiver_level_pct=12.0,
            ),
        ),
        (REACH_IN, sound(REACH_IN, box=46, td=41, split=17, superheat=30, subcooling=1, amps_pct=50)),
    ],
    # Liquid stands in the condenser: less surface, higher head, colder liquid; the valve keeps its superheat.
    "overcharge": [
        (COOLER, sound(COOLER, split=40, subcooling=22, amps_pct=108, receiver_level_pct=96.0)),
        (FREEZER, sound(FREEZER, split=36, subcooling=20, amps_pct=106, receiver_level_pct=97.0)),
        (
            REACH_IN,
            sound(
                REACH_IN,
                box=41,
                td=12,
                split=44,
                superheat=1,
                subcooling=22,
                amps_pct=112,
                suction_line_feel="frosted",
                compressor_shell="sweating",
            ),
        ),
    ],
    # The valve throttles: starved coil, but the liquid backs up solid before it.
    "txv_underfeeding": [
        (FREEZER, sound(FREEZER, box=3, td=34, split=18, superheat=29, subcooling=6, amps_pct=55, drier_drop_f=0.5)),
        (
            COOLER,
            sound(COOLER, box=44, td=29, split=20, superheat=26, subcooling=8, amps_pct=58, valve_response="partial", drier_drop_f=0.0),
        ),
    ],
    # Liquid runs through the coil: superheat gone, suction up, cold shell; the bulb is found right.
    "txv_overfeeding": [
        (
            FREEZER,
            sound(
                FREEZER, box=-1, td=8, superheat=1, gain=3, lift=38, amps_pct=90, compressor_shell="frosted", suction_line_feel="frosted"
            ),
        ),
        (COOLER, sound(COOLER, box=39, td=8, superheat=0.5, gain=3, lift=35, amps_pct=95, compressor_shell="sweating")),
    ],
    # The same circuit, but the bulb hangs loose.
    "bulb_fault": [
        (FREEZER, sound(FREEZER, box=-1, td=8, superheat=1, gain=3, lift=38, amps_pct=90, bulb="loose", compressor_shell="sweating")),
        (COOLER, sound(COOLER, box=39, td=8, superheat=1, gain=3, lift=36, amps_pct=95, bulb="uninsulated")),
    ],
    # A choke in the liquid line: starved coil, full receiver, the drop in temperature at the drier.
    "liquid_restriction": [
        (
            FREEZER,
            sound(FREEZER, box=4, td=33, split=17, superheat=28, subcooling=9, amps_pct=52, drier_drop_f=12.0, receiver_level_pct=80.0),
        ),
        (COOLER, sound(COOLER, box=43, td=28, split=18, superheat=25, subcooling=11, amps_pct=55, drier_drop_f=8.0)),
        (REACH_IN, sound(REACH_IN, box=45, td=42, split=20, superheat=30, subcooling=17, amps_pct=52, drier_drop_f=10.0)),
    ],
    # Little air through the fins: everything on the head side is hot.
    "condenser_dirty": [
        (FREEZER, sound(FREEZER, box=0, split=42, subcooling=2, lift=85, amps_pct=110, condenser_coil="blocked")),
        (REACH_IN, sound(REACH_IN, box=43, td=17, split=52, subcooling=5, lift=75, amps_pct=112, condenser_coil="blocked")),
    ],
    "condenser_fan_failed": [
        (COOLER, sound(COOLER, box=41, split=52, subcooling=2, lift=85, amps_pct=120, condenser_fans="stopped", condenser_coil="dusty")),
        (REACH_IN, sound(REACH_IN, box=44, td=16, split=58, subcooling=4, lift=80, amps_pct=118, condenser_fans="stopped")),
    ],
    # No air over the coil: it cannot boil the liquid off, runs cold and ices.
    "evap_fan_failed": [
        (
            COOLER,
            sound(
                COOLER,
                box=46,
                td=38,
                superheat=1,
                amps_pct=55,
                evap_fans="stopped",
                evap_fan_supply_v=229.0,
                ice_form="heavy_frost",
                ice_places=("coil_whole",),
            ),
        ),
        (
            FREEZER,
            sound(
                FREEZER,
                box=8,
                td=30,
                superheat=2,
                amps_pct=50,
                evap_fans="some_stopped",
                evap_fan_supply_v=230.0,
                warm_extent="part_of_box",
            ),
        ),
    ],
    # Gas leaks back through the valves: suction will not come down, head will not come up.
    "compressor_inefficient": [
        (FREEZER, sound(FREEZER, box=12, td=4, split=8, superheat=9, subcooling=3, amps_pct=46, pump_down_low_psig=22.0)),
        (REACH_IN, sound(REACH_IN, box=48, td=9, split=12, superheat=10, subcooling=5, amps_pct=45)),
    ],
    # Air takes room in the condenser but does not stand as liquid: head up, receiver as it was.
    "noncondensables": [
        (COOLER, sound(COOLER, split=44, subcooling=20, lift=95, amps_pct=112, receiver_level_pct=50.0)),
    ],
    # Fins packed or stock against them: as with a dead fan, but the fans turn.
    "evap_airflow_low": [
        (COOLER, sound(COOLER, box=42, td=24, superheat=2, amps_pct=60, evap_coil="dirty", return_air_f=42.0, supply_air_f=22.0)),
        (REACH_IN, sound(REACH_IN, box=43, td=38, superheat=2, amps_pct=55, evap_coil="blocked_by_stock")),
    ],
    "evap_fan_no_power": [
        (COOLER, sound(COOLER, box=46, td=38, superheat=1, evap_fans="stopped", evap_fan_supply_v=0.0, door_switch="open")),
    ],
    # A tube almost shut: the coil empties, the liquid stands solid behind it.
    "cap_tube_restricted": [
        (
            REACH_IN,
            sound(REACH_IN, box=48, td=50, split=15, superheat=38, subcooling=19, amps_pct=45, valve_sound="silent", drier_drop_f=0.0),
        ),
    ],
    # Wet air through a door: the refrigeration is sound, the ice comes back with use.
    "door_infiltration": [
        (
            COOLER,
            {
                "box_temp_f": 44.0,
                "ice_form": "hard_ice",
                "ice_places": ("coil_whole", "ceiling"),
                "door": "left_open",
                "door_traffic": "heavy",
                "strip_curtain": "missing",
                "evap_fans": "running",
                "evap_coil": "clean",
            },
        ),
    ],
    # The defrost ends by the clock with ice left, lowest where the air is coldest.
    "defrost_too_little": [
        (
            FREEZER,
            {
                "box_temp_f": 2.0,
                "ice_form": "hard_ice",
                "ice_places": ("coil_bottom",),
                "coil_after_defrost": "part_iced",
                "defrost_ended_by": "time",
                "door_traffic": "light",
                "strip_curtain": "present",
                "evap_fans": "running",
            },
        ),
    ],
    "defrost_never_starts": [
        (
            FREEZER,
            {
                "box_temp_f": 8.0,
                "ice_form": "heavy_frost",
                "ice_places": ("coil_whole",),
                "defrost_starts": "never",
                "evap_fans": "running",
            },
        ),
    ],
    # The rest of the last melt, grown again within days on a sound unit.
    "residual_ice": [
        (COOLER, {"box_temp_f": 41.0, "left_ice": "yes", "ice_form": "hard_ice", "ice_places": ("coil_part",), "evap_fans": "running"}),
    ],
}

# What little is known early in a call, and what must then be among the first three.
EARLY = [
    (FREEZER, {"box_temp_f": 8.0, "evap_fans": "stopped"}, "evap_fan_failed"),
    (COOLER, {"condenser_coil": "blocked", "box_temp_f": 42.0}, "condenser_dirty"),
    (COOLER, {"sight_glass": "flashing", "box_temp_f": 43.0, "evap_fans": "running"}, "undercharge"),
    (FREEZER, {"bulb": "loose"}, "bulb_fault"),
    (COOLER, {"compressor_shell": "frosted", "suction_line_feel": "frosted", "bulb": "tight_insulated"}, "txv_overfeeding"),
    (REACH_IN, {"condenser_fans": "stopped", "compressor": "tripping"}, "condenser_fan_failed"),
    (FREEZER, {"pump_down_low_psig": 25.0, "box_temp_f": 10.0}, "compressor_inefficient"),
    (FREEZER, {"drier_drop_f": 11.0}, "liquid_restriction"),
    (
        FREEZER,
        {"ice_form": "light_frost", "ice_places": ("coil_inlet_passes",), "box_temp_f": 5.0, "sight_glass": "clear"},
        "txv_underfeeding",
    ),
    (COOLER, {"receiver_level_pct": 97.0}, "overcharge"),
]
HEALTHY = [(FREEZER, sound(FREEZER)), (COOLER, sound(COOLER)), (REACH_IN, sound(REACH_IN))]


def unit_of(spec):
    """The unit with its gaps filled."""
    return resolve(spec)
