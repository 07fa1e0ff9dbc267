"""The demo scenario as data: an invented shop in an invented valley. No person or place in it exists.

Circuit readings are given as temperatures (`Circuit`), so that their pressures come out of the refrigerant's own table.
"""

from dataclasses import dataclass, field

SHOP = "Tamarack Valley Cold Service"
PASSWORD = "orange-kettle-demo"
PEOPLE = (("wren", "Wren Aldersey"), ("tobin", "Tobin Marrack"), ("sunniva", "Sunniva Oake"))


@dataclass(frozen=True)
class Circuit:
    """What the circuit runs at, °F: saturation in and out, and the lines against it."""

    sst: float
    sct: float
    superheat: float
    gain: float = 8.0
    subcooling: float = 5.0
    discharge_above_sct: float = 60.0


@dataclass(frozen=True)
class DemoCall:
    """One visit: how many days ago, at what hour, by whom, what was seen and done."""

    days_ago: int
    hour: int
    by: str
    complaint: str
    circuit: Circuit | None = None
    seen: dict = field(default_factory=dict)
    turns: tuple = ()
    settings: tuple = ()
    words: dict = field(default_factory=dict)
    next_in_days: int | None = None
    next_why: str = ""
    open: bool = False


@dataclass(frozen=True)
class DemoUnit:
    """A unit of a site with its visits."""

    site: str
    name: str
    plate: dict
    calls: tuple = ()
    notes: str = ""


SITES = {
    "Flower auction hall": 4100,
    "Cheese-ageing cave": 4350,
    "Seed library": 4200,
    "School canteen": 4150,
    "Mushroom barn": 4400,
    "Chocolate works": 4120,
    "Bakery academy": 4130,
    "Lakeside boathouse": 3980,
    "Village co-op": 4160,
    "Research lodge": 6900,
}

_SOUND = {
    "evap_fans": "running",
    "condenser_fans": "running",
    "condenser_coil": "clean",
    "compressor": "running",
    "ice_form": "light_frost",
}

UNITS = (
    DemoUnit(
        "Seed library",
        "Freezer 1",
        {
            "kind": "walk_in_freezer",
            "refrigerant": "R-404A",
            "metering": "txv",
            "receiver": True,
            "defrost": "electric",
            "set_f": -5,
            "differential_f": 3,
            "compressor_rla_a": 14.1,
            "nameplate_v": 230,
            "phases": 3,
        },
        (
            DemoCall(
                212,
                9,
                "tobin",
                "Yearly service.",
                Circuit(-16, 93, 7, 14, 4),
                {
                    **_SOUND,
                    "box_temp_f": -4.5,
                    "ambient_f": 76,
                    "return_air_f": -4.0,
                    "supply_air_f": -12.5,
                    "compressor_amps": 9.6,
                    "sight_glass": "clear",
                    "bulb": "tight_insulated",
                    "receiver_level_pct": 55,
                },
                words={"found": "Runs well: superheat 7, glass clear.", "done": "Cleaned the condenser, checked the drain heater."},
            ),
            DemoCall(
                61,
                7,
                "wren",
                "Ice on the ceiling by the fan.",
                None,
                {"ice_form": "light_frost", "ice_places": ["ceiling", "fan_guards"], "box_temp_f": -2.0},
                settings=(
                    ("defrosts_per_day", "8", "4", "every defrost ran on past a clear coil"),
                    ("fail_safe", "45", "30", "cleared in 24 min by own watch"),
                ),
                words={
                    "found": "Defrosts far too long: the coil was clear after 24 min of 45.",
                    "done": "Four defrosts a day, fail-safe 30 min.",
                },
            ),
            DemoCall(
                0,
                6,
                "wren",
                "It is not getting cold. Seeds must stay below zero.",
                Circuit(-31.8, 92.7, 30.3, 9, 5.7, 78),
                {
                    "evap_fans": "running",
                    "ice_form": "light_frost",
                    "ice_places": ["coil_inlet_passes"],
                    "box_temp_f": 3.0,
                    "display_temp_f": 2.0,
                    "siblings": "none",
                    "ambient_f": 75.0,
                    "condenser_coil": "dusty",
                    "condenser_fans": "running",
                    "compressor": "running",
                    "sight_glass": "clear",
                    "compressor_amps": 7.9,
                },
                open=True,
            ),
        ),
        notes="Key at the reading desk. The inside release was replaced last winter.",
    ),
    DemoUnit(
        "Mushroom barn",
        "Cooler 1",
        {
            "kind": "walk_in_cooler",
            "refrigerant": "R-448A",
            "metering": "txv",
            "receiver": True,
            "defrost": "timed_air",
            "set_f": 36,
            "compressor_rla_a": 9.4,
            "nameplate_v": 230,
            "phases": 3,
        },
        (
            DemoCall(
                148,
                14,
                "sunniva",
                "Iced again.",
                None,
                {
                    "ice_form": "hard_ice",
                    "ice_places": ["coil_whole", "coil_bottom"],
                    "box_temp_f": 47.0,
                    "door": "closer_failed",
                    "door_traffic": "heavy",
                    "strip_curtain": "missing",
                },
                words={
                    "found": "Hard ice over the whole coil. Door does not close by itself; no curtain.",
                    "done": "Melted it all, set the closer.",
                    "advice": "Strip curtain.",
                    "declined": "Strip curtain, for now.",
                },
            ),
            DemoCall(
                73,
                6,
                "sunniva",
                "Iced up, third time this year.",
                None,
                {
                    "ice_form": "hard_ice",
                    "ice_places": ["coil_whole"],
                    "box_temp_f": 45.5,
                    "door_traffic": "heavy",
                    "strip_curtain": "missing",
                    "coil_after_defrost": "part_iced",
                    "defrost_ended_by": "time",
                },
                settings=(("fail_safe", "20", "30", "coil part-iced after every defrost"),),
                words={
                    "found": "Hard ice again. Defrost ends by time with ice left.",
                    "done": "Melted clear, fail-safe 30 min.",
                    "advice": "Strip curtain.",
                    "declined": "Strip curtain.",
                },
                next_in_days=2,
                next_why="look at the coil after the wet week",
            ),
            DemoCall(
                0,
                5,
                "sunniva",
                "Water on the floor and 46 in the box.",
                None,
                {
                    "box_temp_f": 46.5,
                    "display_temp_f": 45.0,
                    "door": "gasket_gap",
                    "door_traffic": "heavy",
                    "evap_fans": "running",
                    "ice_form": "hard_ice",
                    "ice_places": ["coil_whole", "door_frame"],
                    "compressor": "running",
                },
                open=True,
            ),
        ),
    ),
    DemoUnit(
        "Flower auction hall",
        "Flower cooler",
        {
            "kind": "walk_in_cooler",
            "refrigerant": "R-448A",
            "metering": "txv",
            "receiver": True,
            "set_f": 36,
            "evaporators": 2,
            "compressor_rla_a": 16.0,
            "nameplate_v": 460,
            "phases": 3,
        },
        (
            DemoCall(
                95,
                10,
                "tobin",
                "Yearly service.",
                Circuit(25, 100, 9, 10, 5),
                {
                    **_SOUND,
                    "box_temp_f": 36.4,
                    "return_air_f": 36.8,
                    "supply_air_f": 28.5,
                    "ambient_f": 79,
                    "compressor_amps": 12.9,
                    "sight_glass": "clear",
                    "bulb": "tight_insulated",
                    "ice_form": "none",
                },
                words={"found": "In order.", "done": "Cleaned both coils."},
            ),
            DemoCall(
                0,
                8,
                "tobin",
                "Head pressure alarm before the auction.",
                Circuit(29, 131, 8, 10, 2, 92),
                {
                    "evap_fans": "running",
                    "ice_form": "none",
                    "box_temp_f": 40.0,
                    "return_air_f": 40.5,
                    "supply_air_f": 33.0,
                    "ambient_f": 88,
                    "condenser_coil": "blocked",
                    "condenser_fans": "running",
                    "compressor": "running",
                    "compressor_amps": 17.2,
                    "sight_glass": "few_bubbles",
                    "bulb": "tight_insulated",
                    "siblings": "none",
                },
                open=True,
            ),
        ),
    ),
    DemoUnit(
        "School canteen",
        "Reach-in 1",
        {
            "kind": "reach_in_cooler",
            "refrigerant": "R-134a",
            "metering": "cap_tube",
            "receiver": False,
            "set_f": 37,
            "compressor_rla_a": 5.2,
            "nameplate_v": 115,
            "phases": 1,
        },
        (
            DemoCall(
                40,
                13,
                "wren",
                "Lunch milk at 46.",
                Circuit(24, 141, 9, 18, 4, 70),
                {
                    "box_temp_f": 45.0,
                    "ambient_f": 84,
                    "condenser_fans": "stopped",
                    "condenser_coil": "dusty",
                    "compressor": "tripping",
                    "evap_fans": "running",
                },
                words={
                    "found": "Condenser fan seized, compressor tripping on heat.",
                    "done": "New fan motor, coil cleaned. Pulled down to 38 in 50 min.",
                },
                next_in_days=3,
                next_why="see that it holds through a lunch",
            ),
        ),
    ),
    DemoUnit(
        "School canteen",
        "Reach-in 2",
        {
            "kind": "reach_in_cooler",
            "refrigerant": "R-134a",
            "metering": "cap_tube",
            "receiver": False,
            "set_f": 37,
            "compressor_rla_a": 5.2,
            "nameplate_v": 115,
            "phases": 1,
        },
        (
            DemoCall(
                0,
                7,
                "wren",
                "Back half is warm.",
                None,
                {
                    "box_temp_f": 44.0,
                    "evap_fans": "some_stopped",
                    "evap_fan_supply_v": 117,
                    "ice_form": "heavy_frost",
                    "ice_places": ["coil_part"],
                    "compressor": "running",
                    "condenser_fans": "running",
                    "condenser_coil": "clean",
                },
                words={
                    "found": "One of two coil fans dead with full voltage at its leads.",
                    "done": "Motor and blade replaced, coil melted clear.",
                },
                next_in_days=3,
                next_why="temperatures after the weekend",
                open=True,
            ),
        ),
    ),
    DemoUnit(
        "Chocolate works",
        "Under-counter 3",
        {
            "kind": "reach_in_cooler",
            "refrigerant": "R-290",
            "critical_charge_oz": 4.9,
            "set_f": 38,
            "compressor_rla_a": 3.1,
            "nameplate_v": 115,
            "phases": 1,
        },
        (
            DemoCall(
                18,
                11,
                "tobin",
                "Slow to come down after loading.",
                None,
                {
                    "box_temp_f": 43.0,
                    "box_trend": "falling",
                    "evap_fans": "running",
                    "condenser_coil": "blocked",
                    "condenser_fans": "running",
                    "compressor": "running",
                },
                words={
                    "found": "Cocoa dust on the condenser; nothing else. No gauges were put on.",
                    "done": "Condenser cleaned. Down to 38 within the hour.",
                    "advice": "A filter before the condenser.",
                },
                next_in_days=5,
                next_why="condenser again, before the holidays",
            ),
        ),
    ),
    DemoUnit(
        "Bakery academy",
        "Dough freezer",
        {
            "kind": "reach_in_freezer",
            "refrigerant": "R-404A",
            "metering": "txv",
            "receiver": True,
            "defrost": "electric",
            "set_f": 0,
            "compressor_rla_a": 8.8,
            "nameplate_v": 230,
            "phases": 1,
        },
        (
            DemoCall(
                9,
                8,
                "sunniva",
                "Not freezing.",
                Circuit(-34, 86, 22, 10, 0.5, 84),
                {
                    "box_temp_f": 9.0,
                    "ambient_f": 74,
                    "evap_fans": "running",
                    "ice_form": "light_frost",
                    "ice_places": ["coil_inlet_passes"],
                    "condenser_coil": "clean",
                    "condenser_fans": "running",
                    "compressor": "running",
                    "compressor_amps": 4.6,
                    "sight_glass": "flashing",
                    "receiver_level_pct": 8,
                    "oil_trace": "at_fitting",
                    "bulb": "tight_insulated",
                },
                words={
                    "found": "Short of refrigerant: glass flashing, receiver nearly empty, oil at a flare.",
                    "done": "Flare remade, pressure-tested, evacuated, 3 lb 2 oz weighed in.",
                },
                next_in_days=4,
                next_why="check the flare and the glass",
            ),
        ),
    ),
    DemoUnit(
        "Cheese-ageing cave",
        "Cave cooler",
        {
            "kind": "walk_in_cooler",
            "refrigerant": "R-134a",
            "metering": "txv",
            "receiver": True,
            "set_f": 52,
            "bands": {"td_f": [5, 10]},
            "compressor_rla_a": 7.5,
            "nameplate_v": 230,
            "phases": 3,
        },
        (
            DemoCall(
                120,
                15,
                "tobin",
                "Humidity too low.",
                Circuit(41, 96, 10, 8, 5),
                {**_SOUND, "box_temp_f": 52.2, "ambient_f": 74, "ice_form": "none", "sight_glass": "clear", "bulb": "tight_insulated"},
                words={"found": "Works as built; TD 11 is wide for a cave.", "done": "Explained; fan speed to low."},
            ),
        ),
        notes="Kept at high humidity: a narrow TD is wanted.",
    ),
    DemoUnit(
        "Lakeside boathouse",
        "Bottle cooler 2",
        {"kind": "bottle_cooler", "refrigerant": "R-134a", "metering": "cap_tube", "box_control": "suction_pressure", "set_f": 37},
        (
            DemoCall(
                54,
                16,
                "wren",
                "Bottles freeze at the back.",
                None,
                {"box_temp_f": 31.0, "evap_fans": "running"},
                settings=(("lp_cut_out", "8", "14", "cut-out far below the coldest air wanted"),),
                words={"found": "Pressure control set too cold.", "done": "Cut-out raised."},
            ),
        ),
    ),
    DemoUnit(
        "Village co-op",
        "Freezer case 2",
        {
            "kind": "display_freezer",
            "refrigerant": "R-404A",
            "metering": "txv",
            "receiver": True,
            "defrost": "electric",
            "set_f": -2,
            "compressor_rla_a": 21.0,
        },
    ),
    DemoUnit(
        "Research lodge",
        "Meat room",
        {
            "kind": "provision_room_freezer",
            "refrigerant": "R-404A",
            "metering": "txv",
            "receiver": True,
            "set_f": 0,
            "compressor_rla_a": 18.0,
            "nameplate_v": 460,
            "phases": 3,
        },
        (
            DemoCall(
                0,
                9,
                "tobin",
                "Frost on the compressor.",
                Circuit(-9, 92, 1.5, 4, 5, 40),
                {
                    "box_temp_f": 2.0,
                    "evap_fans": "running",
                    "ice_form": "light_frost",
                    "siblings": "all_ok",
                    "compressor": "running",
                    "sight_glass": "clear",
                    "bulb": "tight_insulated",
                    "compressor_shell": "frosted",
                    "suction_line_feel": "frosted",
                },
                turns=(("in", "0.5", "raise", ""),),
                open=True,
            ),
        ),
    ),
)
