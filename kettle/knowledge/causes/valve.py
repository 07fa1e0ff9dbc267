"""The expansion valve and its bulb."""

from kettle.knowledge.causes.circuit import STARVED
from kettle.knowledge.causes.model import SOME, Cause
from kettle.knowledge.cautions import words

_TXV = {"metering": ("txv",)}
_VALVE = {"metering": ("txv", "eev")}
_OVERFED = {
    "superheat_evap_f": {"low": 0.88},
    "superheat_comp_f": {"low": 0.72},
    "td_f": {"low": SOME},
    "amps_pct": {"high": 0.3},
    "suction_line_feel": {"sweating": 0.4, "frosted": 0.48},
    "compressor_shell": {"sweating": 0.45, "frosted": 0.3},
    "discharge_line_f": {"low": 0.3},
    "box_temp_f": {"high": 0.45},
    "sight_glass": {"few_bubbles": 0.15, "flashing": 0.08},
    "siblings": {"all_ok": 0.92},
}

CAUSES = (
    Cause(
        "txv_underfeeding",
        "Valve feeding too little",
        "The valve that feeds the coil lets too little refrigerant through.",
        prior=0.08,
        shows={
            **STARVED,
            "over_pump_down_psi": {"low": 0.06},
            "subcooling_f": {"high": 0.34},
            "split_f": {"low": 0.16},
            "sight_glass": {"clear": 0.95},
            "receiver_level_pct": {"high": 0.25},
            "valve_response": {"none": 0.42, "partial": 0.3},
            "siblings": {"all_ok": 0.94},
        },
        confirm=(
            "Clear glass and no drop over the drier, still starved",
            "Warm the bulb in the hand: no answer means the element",
        ),
        correct=(
            "Bulb and strainer first; then open the stem ¼ to ½ turn and wait 10 to 15 min",
            "No answer: element or valve",
        ),
        caution=words("pressure", "licensed"),
        only=_VALVE,
        mimics=(("undercharge", "the glass: clear here, flashing when charge is short"), ("liquid_restriction", "the drop over the drier")),
        comes="slow",
        after=("valve",),
        was="The valve that feeds the coil let too little refrigerant through.",
    ),
    Cause(
        "txv_overfeeding",
        "Valve feeding too much",
        "The valve that feeds the coil lets too much refrigerant through.",
        prior=0.03,
        shows={**_OVERFED, "bulb": {"tight_insulated": 0.93}, "valve_response": {"partial": 0.3, "none": 0.25}},
        confirm=("Bulb found right, and superheat still near zero", "Chill the bulb: the valve should close down"),
        correct=("Close the stem ¼ to ½ turn and wait 10 to 15 min", "Stuck or worn: replace the valve"),
        caution=words("slugging", "pressure", "licensed"),
        only=_VALVE,
        mimics=(("bulb_fault", "the bulb, by hand and eye: it is nearly always the bulb"), ("evap_airflow_low", "air over the coil")),
        comes="slow",
        after=("valve",),
        was="The valve that feeds the coil let too much refrigerant through.",
    ),
    Cause(
        "bulb_fault",
        "Bulb loose or misplaced",
        "The sensing bulb of the valve does not feel the pipe, so the valve feeds too much.",
        prior=0.06,
        shows={
            **_OVERFED,
            "bulb": {"loose": 0.38, "uninsulated": 0.31, "wrong_place": 0.18, "loose_wrong_place": 0.07},
            "bulb_clock": {"bottom": 0.3},
            "valve_response": {"partial": SOME, "none": 0.1},
        },
        confirm=("Hand and eye: two tight straps, clean pipe, right clock position, insulation",),
        correct=("Clamp it right, insulate it, wait 15 min and read again before touching the stem",),
        caution=words("slugging"),
        only=_TXV,
        comes="made",
        after=("valve", "parts"),
        was="The sensing bulb of the valve did not feel its pipe, so the valve fed too much.",
    ),
)
