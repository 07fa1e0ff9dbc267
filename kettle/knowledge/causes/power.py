"""Power: the way of the current to the motor."""

from kettle.knowledge.causes.compressor import DEAD
from kettle.knowledge.causes.model import SOME, Cause
from kettle.knowledge.cautions import words

CAUSES = (
    Cause(
        "contactor_pole_open",
        "Contactor pole burnt open",
        "One contact of the switch that feeds the compressor no longer passes current.",
        0.03,
        {
            **DEAD,
            "compressor": {"off": 0.3, "humming": 0.4, "tripping": 0.25},
            "contactor": {"in": 0.93},
            "contactor_face": {"burnt": 0.7, "pitted": 0.22},
            "pole_drop_v": {"high": 0.95},
            "breaker": {"trips_warm": 0.25},
            "load_loss_v": {"high": 0.7},
            "volts_imbalance_pct": {"ok": 0.95},
        },
        (
            "Volts across each closed pole: about 0 is good, line volts is open",
            "Phase to phase at the load can mislead: the motor feeds back",
        ),
        ("Replace the contactor; find why it burnt",),
        words("lock_out"),
        mimics=(("voltage_problem", "measure before and after the contactor"), ("compressor_open_winding", "volts across the poles")),
        comes="sudden",
    ),
    Cause(
        "start_parts_failed",
        "Start relay or capacitor failed",
        "The parts that help the compressor start have failed.",
        0.03,
        {
            **DEAD,
            "compressor": {"humming": 0.6, "tripping": 0.32, "off": 0.06},
            "start_parts": {"capacitor_failed": 0.5, "relay_failed": 0.42},
            "breaker": {"trips_warm": 0.25},
            "contactor": {"in": 0.93},
            "load_loss_v": {"ok": 0.97},
            "winding_highest_ohm": {"ok": 0.96},
            "compressor_shell": {"hot": 0.5, "warm": 0.4},
        },
        ("Hums and trips; windings right", "Capacitor microfarads; relay coil and contact ohms"),
        ("Replace relay and capacitors as a set of the right size",),
        words("lock_out"),
        only={"phases": (1,)},
        by_kind={"reach_in": 1.6, "bottle": 1.6, "prep": 1.6},
        mimics=(("compressor_open_winding", "the three winding readings"),),
        comes="sudden",
    ),
    Cause(
        "voltage_problem",
        "Supply voltage wrong",
        "The supply is low, unbalanced or has lost a phase.",
        0.025,
        {
            "volts_imbalance_pct": {"high": 0.75},
            "volts_off_pct": {"low": 0.5, "high": 0.15},
            "compressor": {"off": 0.15, "humming": 0.25, "tripping": 0.35},
            "contactor": {"chattering": SOME},
            "breaker": {"trips_warm": 0.25},
            "pole_drop_v": {"ok": 0.97},
            "amps_pct": {"high": 0.5},
            "compressor_shell": {"hot": 0.5},
            "box_temp_f": {"high": 0.7},
            "box_trend": {"rising": 0.6},
            "siblings": {"also_bad": 0.6},
        },
        ("At the disconnect, all three pairs, running: more than 2 % apart or 10 % off the plate",),
        ("Supply, fuses and terminals; call the utility or the electrician",),
        words("lock_out"),
        mimics=(("contactor_pole_open", "measure before the contactor"),),
        comes="sudden",
    ),
)
