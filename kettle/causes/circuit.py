"""Charge and liquid supply: too little, too much, something else in it, or something in the way."""

from kettle.causes.model import MOSTLY, OFTEN, SOME, Cause
from kettle.cautions import words

# What a coil that gets too little liquid shows, whatever keeps the liquid away.
STARVED = {
    "td_f": {"high": 0.78},
    "superheat_evap_f": {"high": 0.85},
    "superheat_comp_f": {"high": 0.76},
    "amps_pct": {"low": 0.55},
    "suction_line_feel": {"warm": 0.62},
    "compressor_shell": {"hot": 0.45},
    "box_temp_f": {"high": MOSTLY},
    "ice_places": {"coil_inlet_passes": 0.33, "valve_outlet": 0.25, "distributor_tubes": 0.22},
}

CAUSES = (
    Cause(
        "undercharge",
        "Charge low, a leak",
        "The unit has lost refrigerant through a leak.",
        0.14,
        {
            **STARVED,
            "subcooling_f": {"low": 0.75},
            "split_f": {"low": 0.48},
            "discharge_line_f": {"high": 0.25},
            "sight_glass": {"flashing": 0.56, "few_bubbles": 0.28, "empty": 0.08},
            "receiver_level_pct": {"low": 0.86},
            "valve_sound": {"hissing_gas": OFTEN},
            "leak_test": {"found": 0.8},
            "oil_trace": {"at_fitting": 0.3, "at_coil": 0.15, "at_valve_stem": 0.08},
            "melt_water": {"cloudy_foaming": 0.2},
            "siblings": {"also_bad": 0.65},
        },
        (
            "Low subcooling or receiver level, with airflow and condensing cleared",
            "Find the leak: oil, detector, bubbles",
        ),
        ("Find and repair the leak, evacuate, weigh in", "If the customer declines the search, record it"),
        words("licensed", "pressure"),
    ),
    Cause(
        "overcharge",
        "Too much charge",
        "There is more refrigerant in the unit than it can hold.",
        0.045,
        {
            "subcooling_f": {"high": 0.82},
            "split_f": {"high": 0.76},
            "amps_pct": {"high": OFTEN},
            "receiver_level_pct": {"high": 0.8},
            "discharge_line_f": {"high": 0.25},
            "box_temp_f": {"high": SOME},
            "sight_glass": {"clear": 0.96},
            "compressor": {"tripping": 0.1, "short_cycling": 0.08},
        },
        (
            "High subcooling with a clean condenser and its fan running",
            "Rule out air in it: at rest, head against ambient",
        ),
        ("Recover down to the right charge, in small steps, and log what came out",),
        words("licensed", "pressure"),
        variants=(
            (
                {"metering": "cap_tube"},
                {
                    "superheat_evap_f": {"low": 0.7},
                    "superheat_comp_f": {"low": 0.6},
                    "td_f": {"low": 0.5},
                    "suction_line_feel": {"sweating": 0.45, "frosted": 0.35},
                    "compressor_shell": {"sweating": 0.35, "frosted": 0.1},
                },
            ),
        ),
    ),
    Cause(
        "noncondensables",
        "Air in the system",
        "Air or nitrogen is trapped with the refrigerant.",
        0.015,
        {
            "subcooling_f": {"high": 0.72},
            "split_f": {"high": MOSTLY},
            "amps_pct": {"high": OFTEN},
            "discharge_line_f": {"high": OFTEN},
            "box_temp_f": {"high": SOME},
        },
        ("Shut down, let it equalise, compare the head with saturation at ambient: higher means air",),
        ("Recover, evacuate deep, weigh in new; a new drier",),
        words("licensed", "pressure"),
    ),
    Cause(
        "liquid_restriction",
        "Liquid line restricted",
        "Something blocks the liquid line: drier, strainer or a half-shut valve.",
        0.05,
        {
            **STARVED,
            "subcooling_f": {"high": 0.48},
            "split_f": {"low": 0.25},
            "sight_glass": {"clear": 0.62, "few_bubbles": 0.2, "flashing": 0.17},
            "drier_drop_f": {"high": 0.8},
            "receiver_level_pct": {"high": 0.4},
            "siblings": {"all_ok": 0.85},
        },
        ("A temperature drop or frost at one place: feel along drier, strainer and valves",),
        ("Open the half-shut valve, or replace drier or strainer; evacuate and weigh in",),
        words("licensed", "pressure"),
    ),
    Cause(
        "cap_tube_restricted",
        "Capillary tube plugged",
        "The capillary tube that feeds the coil is plugged or the wrong one.",
        0.05,
        {
            **STARVED,
            "subcooling_f": {"high": 0.72},
            "split_f": {"low": 0.4},
            "valve_sound": {"silent": 0.4},
        },
        ("Weigh in the label charge; suction still very low with high subcooling",),
        ("Replace tube and drier; evacuate and weigh in",),
        words("licensed", "pressure"),
        only={"metering": ("cap_tube",)},
    ),
)
