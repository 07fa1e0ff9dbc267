"""Defrost: what leaves frost on the coil, or never takes it off."""

from kettle.causes.model import MOSTLY, OFTEN, Cause
from kettle.cautions import words

_PROGRAMMED = {"defrost": ("timed_air", "electric", "hot_gas", "off_cycle")}

CAUSES = (
    Cause(
        "defrost_never_starts",
        "Defrost never starts",
        "The defrost that should clear the coil does not start.",
        0.015,
        {
            "defrost_starts": {"never": 0.88},
            "ice_form": {"heavy_frost": 0.6, "hard_ice": 0.25},
            "ice_places": {"coil_whole": 0.85},
            "box_temp_f": {"high": MOSTLY},
            "siblings": {"all_ok": 0.92},
            "coil_after_defrost": {"iced": 0.7, "part_iced": 0.2},
        },
        ("Start a defrost by hand and meter the heater circuit", "Watch the clock reach a defrost time"),
        ("Replace the clock, contact or board; melt the coil clear",),
        words("lock_out", "wet"),
        prior_freezer=0.045,
        only=_PROGRAMMED,
    ),
    Cause(
        "defrost_too_little",
        "Too little defrost",
        "Defrosts are too short or too few for the frost this box makes, so ice builds up.",
        0.03,
        {
            "ice_form": {"hard_ice": 0.55, "heavy_frost": 0.28},
            "ice_places": {"coil_bottom": 0.45, "coil_whole": 0.35, "coil_part": 0.25, "drain_pan": 0.15},
            "coil_after_defrost": {"part_iced": 0.75, "iced": 0.15},
            "defrost_ended_by": {"time": 0.9},
            "box_temp_f": {"high": OFTEN},
            "siblings": {"all_ok": 0.9},
        },
        (
            "Watch one defrost: minutes until the coil is clear against the fail-safe",
            "What ended it: time or temperature",
        ),
        ("Melt it all once, then set fail-safe and starts for the frost load",),
        words("wet"),
        prior_freezer=0.06,
        only=_PROGRAMMED,
    ),
    Cause(
        "residual_ice",
        "Ice left from the last melt",
        "Ice was left inside the coil at an earlier visit and has grown again.",
        0.008,
        {
            "left_ice": {"yes": 0.9},
            "ice_form": {"hard_ice": OFTEN, "heavy_frost": 0.2},
            "ice_places": {"coil_part": 0.4, "coil_bottom": 0.3, "coil_whole": 0.2},
            "box_temp_f": {"high": OFTEN},
            "siblings": {"all_ok": 0.92},
        },
        ("The last visit left ice; everything else checks out",),
        ("Melt all of it, inside corners and back included, and prove it bare",),
        words("wet"),
    ),
)
