"""The head side: the condenser and the air through it."""

from kettle.causes.model import OFTEN, SOME, Cause
from kettle.cautions import words

_AIR = {"condensing": ("air",)}
_HOT_HEAD = {
    "split_f": {"high": 0.87},
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
        "The condenser is clogged with dirt and cannot give off its heat.",
        0.1,
        {**_HOT_HEAD, "condenser_coil": {"blocked": 0.68, "dusty": 0.25}},
        ("Torch behind the coil: no light through the fins",),
        ("Clean through, fins straight, then read again before any thought of charge",),
        words("lock_out", "ladder"),
        only=_AIR,
    ),
    Cause(
        "condenser_fan_failed",
        "Condenser fan failed",
        "The fan that cools the condenser has stopped.",
        0.04,
        {**_HOT_HEAD, "condenser_fans": {"stopped": 0.74, "slow": 0.13, "reversed": 0.08}},
        ("Look: stopped, slow or backwards; measure motor and capacitor",),
        ("Replace motor, blade or capacitor, or mend its control", "Clean the coil while it is open"),
        words("lock_out", "ladder", "hot_line"),
        only=_AIR,
        variants=(
            # Fan cycling stops a sound fan in the cold, so a still fan says less there.
            ({"head_control": "fan_cycling"}, {"condenser_fans": {"stopped": SOME, "slow": 0.1, "cycling": 0.15}}),
        ),
    ),
)
