"""Air and doors: what keeps air from the coil, or lets warm air in."""

from kettle.causes.model import MOSTLY, OFTEN, SELDOM, SOME, Cause
from kettle.cautions import words

_STARVED_OF_AIR = {
    "td_f": {"high": OFTEN},
    "superheat_evap_f": {"low": OFTEN},
    "superheat_comp_f": {"low": 0.5},
    "delta_t_f": {"high": OFTEN},
    "amps_pct": {"low": SOME},
    "suction_line_feel": {"sweating": 0.35, "frosted": 0.4},
    "compressor_shell": {"sweating": 0.3, "frosted": 0.12},
    "box_temp_f": {"high": MOSTLY},
    "ice_form": {"heavy_frost": 0.45, "hard_ice": 0.2},
    "ice_places": {"coil_whole": 0.4, "suction_line": 0.3, "valve_outlet": 0.15},
    "siblings": {"all_ok": 0.93},
    "air_weak_at": {
        "nowhere": SELDOM,
        "left": 0.3,
        "middle": 0.3,
        "right": 0.3,
        **{f"door_{number}": 0.25 for number in range(1, 6)},
    },
}
_FAN_STILL = {**_STARVED_OF_AIR, "evap_fans": {"stopped": 0.52, "some_stopped": 0.4, "reversed": 0.04}}

CAUSES = (
    Cause(
        "evap_fan_failed",
        "Coil fan failed",
        "A fan on the cooling coil has failed, so cold air is not moved through the box.",
        0.06,
        {**_FAN_STILL, "evap_fan_supply_v": {"ok": 0.95}, "warm_extent": {"part_of_box": 0.4}},
        ("Right voltage at the fan's own leads while it stands still", "Spin the blade by hand: stiff or seized"),
        ("Replace motor or blade, same turn and pitch", "Melt the coil clear, then read again"),
        words("lock_out", "wet"),
    ),
    Cause(
        "evap_fan_no_power",
        "Coil fan without power",
        "The fan on the cooling coil is sound but gets no power.",
        0.035,
        {**_FAN_STILL, "evap_fan_supply_v": {"low": 0.95}, "door_switch": {"open": SOME}},
        ("No voltage at the fan's leads; blade spins free", "Press the door switch; measure at the controller output"),
        ("Follow the wire back to where the voltage is lost: switch, relay, fan delay, output",),
        words("lock_out"),
    ),
    Cause(
        "evap_airflow_low",
        "Coil short of air",
        "The cooling coil is dirty or blocked by stock, so too little air gets through.",
        0.05,
        {**_STARVED_OF_AIR, "evap_coil": {"dirty": 0.6, "blocked_by_stock": 0.32}},
        ("Light through the fins; a hand's width between stock and coil",),
        ("Clean the coil, move the stock, show the customer the load line",),
        words("lock_out"),
    ),
    Cause(
        "door_infiltration",
        "Warm air through the door",
        "Doors standing open let in warm wet air, which freezes on the coil.",
        0.07,
        {
            "ice_form": {"hard_ice": 0.45, "heavy_frost": 0.25, "snow": 0.15},
            "ice_places": {"coil_whole": 0.5, "ceiling": 0.25, "door_frame": 0.2, "floor": 0.2, "fan_guards": 0.15},
            "door": {"left_open": 0.25, "closer_failed": 0.2, "misaligned": 0.1, "good": 0.4},
            "door_traffic": {"heavy": 0.7},
            "strip_curtain": {"missing": OFTEN},
            "coil_after_defrost": {"part_iced": 0.45, "iced": 0.15},
            "defrost_ended_by": {"time": 0.55},
            "box_temp_f": {"high": OFTEN},
            "siblings": {"all_ok": 0.9},
            "superheat_evap_f": {"high": SELDOM, "low": SELDOM},
        },
        ("Readings normal once the coil is melted clear", "Watch the door for ten minutes of use"),
        ("Curtain, closer, door habits; set defrosts for the load",),
        words("inside"),
    ),
)
