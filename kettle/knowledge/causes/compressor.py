"""The compressor itself."""

from kettle.knowledge.causes.model import MOSTLY, SOME, Cause
from kettle.knowledge.cautions import words

# A compressor that does not run: the box warms, nothing moves in the circuit.
DEAD = {
    "box_temp_f": {"high": 0.92},
    "box_trend": {"rising": 0.75},
    "siblings": {"also_bad": 0.6},
    "control_call": {"calling": 0.9},
    "ice_form": {"none": 0.6},
    "suction_line_feel": {"warm": 0.7},
}

CAUSES = (
    Cause(
        "compressor_inefficient",
        "Compressor worn inside",
        "The compressor runs but no longer pumps as it should.",
        prior=0.035,
        shows={
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
        confirm=("Pump-down test: it will not pull low, or does not hold", "Suction high and head low at once"),
        correct=("Replace it, with fresh drier and start parts; find what killed it first",),
        caution=words("licensed", "lock_out", "pressure"),
        mimics=(("suction_regulator_shut", "pump-down: a worn one cannot"),),
        comes="slow",
        was="The compressor ran but no longer pumped as it should.",
    ),
    Cause(
        "compressor_overload",
        "Compressor off on its protector",
        "The compressor's own protector has switched it off because it ran hot.",
        prior=0.03,
        shows={
            **DEAD,
            "compressor": {"off": 0.5, "tripping": 0.4, "humming": 0.02},
            "compressor_shell": {"hot": 0.92},
            "contactor": {"in": 0.93},
            "load_loss_v": {"ok": 0.97},
            "winding_highest_ohm": {"high": 0.35},
            # It lies before common: start and run are still joined by their windings.
            "winding_sr_ohm": {"ok": 0.97},
            "winding_ground_ohm": {"ok": 0.97},
        },
        confirm=("Hot shell, contactor in, right volts at the terminals", "Let it cool: does it start? Then find why it ran hot"),
        correct=("Find the cause: low charge, high head, bad supply, weak start parts",),
        caution=words("lock_out", "hot_line"),
        # In a star it lies in its middle, and parts all three.
        variants=(({"phases": 3}, {"winding_sr_ohm": {"high": 0.33}}),),
        mimics=(("compressor_open_winding", "cooling: the protector closes again, a winding does not"),),
        comes="sudden",
        was="The compressor's own protector had switched it off because it ran hot.",
    ),
    Cause(
        "compressor_grounded",
        "Compressor winding to ground",
        "A winding of the compressor touches its shell. It must not be switched on again.",
        prior=0.012,
        shows={
            **DEAD,
            "compressor": {"off": 0.85, "humming": 0.05, "tripping": 0.08},
            "winding_ground_ohm": {"low": 0.96},
            "breaker": {"trips_at_once": 0.85},
            "control_call": {"no_power": 0.4},
        },
        confirm=("The breaker trips at once", "Locked out, leads lifted: next to no ohms to the shell"),
        correct=("Replace the compressor; burn-out clean-up if the oil says so", "Never switch it on again to try it"),
        caution=words("lock_out", "licensed"),
        comes="sudden",
        was="A winding inside the compressor touched its shell: it was burnt out.",
    ),
    Cause(
        "compressor_open_winding",
        "Compressor winding open",
        "A winding inside the compressor is broken.",
        prior=0.012,
        shows={
            **DEAD,
            "compressor": {"humming": 0.5, "off": 0.35, "tripping": 0.12},
            "winding_highest_ohm": {"high": 0.93},
            # Whichever of the two it is, the way from start to run leads through it.
            "winding_sr_ohm": {"high": 0.92},
            "winding_mismatch_pct": {"high": 0.8},
            "contactor": {"in": 0.9},
            "load_loss_v": {"ok": 0.96},
            "compressor_shell": {"warm": 0.4, "cold": 0.45},
        },
        confirm=("Cooled down: one pair still open; the two smaller add to the largest on a sound one",),
        correct=("Replace the compressor, with fresh start parts and drier",),
        caution=words("lock_out", "licensed"),
        variants=(({"phases": 3}, {"winding_sr_ohm": {"high": 0.62}}),),
        mimics=(("compressor_overload", "cold shell: a protector would have closed"), ("start_parts_failed", "the windings read right")),
        comes="sudden",
        was="A winding inside the compressor was broken.",
    ),
)
