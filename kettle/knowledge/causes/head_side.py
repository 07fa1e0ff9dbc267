"""The head side: the condenser and the air through it."""

from kettle.knowledge.causes.model import OFTEN, SOME, Cause
from kettle.knowledge.cautions import words

_AIR = {"condensing": ("air",)}
_WATER = {"condensing": ("water",)}
_MIXING = {"head_control": ("mixing_valve", "mixing_valve_and_fan")}
_CONTROLLED = {"head_control": ("mixing_valve", "mixing_valve_and_fan", "fan_cycling", "fan_speed")}
_HOT_HEAD = {
    "split_f": {"high": 0.87},
    "high_pressure_switch": {"open": 0.25},
    "amps_pct": {"high": OFTEN},
    "discharge_line_f": {"high": 0.55},
    "subcooling_f": {"low": 0.3},
    "box_temp_f": {"high": 0.55},
    "td_f": {"low": 0.15},
    "siblings": {"also_bad": 0.65},
    "compressor": {"running": 0.62, "tripping": 0.2, "short_cycling": 0.1},
    "compressor_shell": {"hot": 0.5},
}

CAUSES = (
    Cause(
        "condenser_dirty",
        "Condenser dirty",
        "The condenser is clogged with dirt or scale and cannot give off its heat.",
        prior=0.1,
        shows={**_HOT_HEAD, "condenser_coil": {"blocked": 0.68, "dusty": 0.25}},
        confirm=(
            "Torch behind the coil: no light through the fins",
            "On water: approach high, and the water's rise no higher than it should be",
        ),
        correct=("Clean through, fins straight (on water: descale), then read again before any thought of charge",),
        caution=words("lock_out", "ladder"),
        variants=(({"condensing": "water"}, {"approach_f": {"high": 0.9}, "rise_f": {"low": 0.5}}),),
        mimics=(
            ("overcharge", "clean it first: subcooling stays normal or low behind a dirty condenser"),
            ("condenser_fan_failed", "look at the fan"),
            ("water_flow_low", "the water's rise: high with too little water, low or normal behind scale"),
        ),
        comes="slow",
        was="The coil that gives off the heat was clogged with dirt or scale.",
    ),
    Cause(
        "condenser_fan_failed",
        "Condenser fan failed",
        "The fan that cools the condenser has stopped.",
        prior=0.04,
        shows={**_HOT_HEAD, "condenser_fans": {"stopped": 0.74, "slow": 0.13, "reversed": 0.08}},
        confirm=("Look: stopped, slow or backwards; measure motor and capacitor",),
        correct=("Replace motor, blade or capacitor, or mend its control", "Clean the coil while it is open"),
        caution=words("lock_out", "ladder", "hot_line"),
        only=_AIR,
        variants=(
            # Fan cycling stops a sound fan in the cold, so a still fan says less there.
            ({"head_control": "fan_cycling"}, {"condenser_fans": {"stopped": SOME, "slow": 0.1, "cycling": 0.15}}),
        ),
        mimics=(("condenser_dirty", "light through the fins, fan standing"),),
        comes="sudden",
        was="The fan of the coil that gives off the heat had stopped.",
    ),
    Cause(
        "water_flow_low",
        "Too little cooling water",
        "Not enough water comes through the condenser, so it cannot give off its heat.",
        prior=0.05,
        shows={
            **_HOT_HEAD,
            "split_f": {"high": 0.85},
            # What little water comes leaves hot, close to the gas.
            "approach_f": {"low": 0.25, "high": 0.2},
            "rise_f": {"high": 0.93},
            "water_valve": {"stays_shut": 0.6},
        },
        confirm=(
            "Water out minus water in: high",
            "Strainer, supply pressure, then the water valve: open it by hand and see the head fall",
        ),
        correct=("Clean the strainer, bring the supply back, set or replace the water valve",),
        caution=words("pressure", "hot_line"),
        only=_WATER,
        mimics=(("condenser_dirty", "the water's rise: high here, low or normal behind scale"),),
        was="Not enough water came through the coil that gives off the heat.",
    ),
    Cause(
        "water_valve_open",
        "Water valve does not close",
        "The valve that lets in the cooling water stays open: water is wasted, and the head stands too low to feed the coil.",
        prior=0.02,
        shows={
            "water_valve": {"stays_open": 0.92},
            "rise_f": {"low": 0.9},
            "split_f": {"low": 0.4},
            "sight_glass": {"few_bubbles": 0.2, "flashing": 0.1},
            "superheat_evap_f": {"high": 0.3},
            "td_f": {"high": 0.25},
            "siblings": {"also_bad": SOME},
        },
        confirm=("Water runs while the compressor rests", "The head under its setting with cold water"),
        correct=("Clean or replace the water valve, set it to its head",),
        caution=words("pressure"),
        only=_WATER,
        mimics=(("undercharge", "the water: running at full flow here, its rise next to nothing"),),
        was="The valve for the cooling water stayed open and held the pressure too low.",
    ),
    Cause(
        "head_control_stuck_bypass",
        "Head-pressure valve passes hot gas",
        "The valve that holds the head up in winter sends hot gas past the condenser in warm weather.",
        prior=0.02,
        shows={
            "head_control": {"bypassing_when_warm": 0.9},
            "subcooling_f": {"low": 0.7},
            "sight_glass": {"flashing": 0.45, "few_bubbles": 0.35},
            "split_f": {"high": 0.45},
            "receiver_level_pct": {"low": 0.15},
            "superheat_evap_f": {"high": 0.45},
            "box_temp_f": {"high": 0.6},
            "siblings": {"also_bad": 0.6},
        },
        confirm=("Feel its three ports: hot gas and receiver line both hot in warm weather",),
        correct=("Replace the valve or its element",),
        caution=words("licensed", "pressure", "ladder"),
        only=_MIXING,
        variants=(({"outside": "cold"}, {"head_control": {"bypassing_when_warm": 0.3}}),),
        mimics=(("undercharge", "the valve's ports and the liquid line: hot here, not just short"),),
        was="The valve that keeps the pressure up in winter sent hot gas past the coil in warm weather.",
    ),
    Cause(
        "head_control_not_holding",
        "Head control does not hold in the cold",
        "In cold weather nothing holds the head pressure up, so the valve is not fed.",
        prior=0.02,
        shows={
            "since_when": {"cold_weather": 0.6},
            "head_control": {"not_holding_when_cold": 0.85},
            "split_f": {"low": 0.2},
            "superheat_evap_f": {"high": 0.2},
            "sight_glass": {"few_bubbles": 0.15},
        },
        confirm=("Block part of the condenser: does everything come right?", "Head against its setting"),
        correct=("Replace or set the head control",),
        caution=words("ladder", "pressure"),
        only=_CONTROLLED,
        variants=(
            (
                {"outside": "cold"},
                {
                    "split_f": {"low": 0.75},
                    "superheat_evap_f": {"high": 0.65},
                    "superheat_comp_f": {"high": 0.5},
                    "td_f": {"high": 0.6},
                    "sight_glass": {"flashing": 0.5, "few_bubbles": 0.3},
                    "subcooling_f": {"low": 0.35},
                    "box_temp_f": {"high": 0.7},
                    "low_pressure_switch": {"open": 0.3},
                    "siblings": {"also_bad": 0.6},
                },
            ),
        ),
        mimics=(("winter_charge_short", "the head: low when nothing holds it, held up with an empty receiver when gas is short"),),
        # It shows in the cold alone: a quarter of the calls, and nearly all of its own.
        by_weather={"cold": 4.0, "mild": 0.3, "hot": 0.1},
        was="In cold weather nothing kept the pressure up, so the cooling coil was not fed.",
    ),
    Cause(
        "winter_charge_short",
        "Charge short for the winter",
        "In cold weather the condenser keeps liquid back, and there is not enough charge for both.",
        prior=0.02,
        shows={"since_when": {"cold_weather": 0.6}, "siblings": {"also_bad": 0.6}},
        confirm=("Fine in warm weather; level and glass fall below about 50 °F outside", "Block the condenser: the glass clears"),
        correct=("Add the winter charge by calculation; return above 70 °F to verify", "Look for a leak as well"),
        caution=words("licensed", "pressure"),
        only=_MIXING,
        variants=(
            (
                {"outside": "cold"},
                {
                    "sight_glass": {"flashing": 0.6, "few_bubbles": 0.28},
                    "receiver_level_pct": {"low": 0.85},
                    "superheat_evap_f": {"high": 0.75},
                    "superheat_comp_f": {"high": 0.6},
                    "td_f": {"high": 0.65},
                    "split_f": {"ok": 0.9},
                    "subcooling_f": {"low": 0.6},
                    "box_temp_f": {"high": 0.75},
                },
            ),
        ),
        mimics=(("undercharge", "the weather, and a leak test"),),
        # It shows in the cold alone: a quarter of the calls, and nearly all of its own.
        by_weather={"cold": 4.0, "mild": 0.3, "hot": 0.1},
        was="There was not enough refrigerant for cold weather.",
    ),
)
