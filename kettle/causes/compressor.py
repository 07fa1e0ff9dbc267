"""The compressor itself."""

from kettle.causes.model import MOSTLY, SOME, Cause
from kettle.cautions import words

CAUSES = (
    Cause(
        "compressor_inefficient",
        "Compressor worn inside",
        "The compressor runs but no longer pumps as it should.",
        0.035,
        {
            "td_f": {"low": 0.78},
            "split_f": {"low": 0.68},
            "amps_pct": {"low": 0.66},
            "pump_down_low_psig": {"high": 0.92},
            "superheat_comp_f": {"high": 0.25},
            "subcooling_f": {"low": 0.15},
            "compressor_shell": {"hot": 0.5},
            "discharge_line_f": {"high": SOME},
            "box_temp_f": {"high": MOSTLY},
            "siblings": {"also_bad": 0.75},
        },
        ("Pump-down test: it will not pull low, or does not hold", "Suction high and head low at once"),
        ("Replace it, with fresh drier and start parts; find what killed it first",),
        words("licensed", "lock_out", "pressure"),
    ),
)
