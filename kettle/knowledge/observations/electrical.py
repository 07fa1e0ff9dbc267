"""What is measured at compressor, contactor and supply."""

import math
from typing import Final

from kettle.knowledge.observations.make import LIVE, LOCK_OUT, choice, figure, pressure
from kettle.knowledge.observations.model import Observation

# fmt: off
ENTRIES: Final[tuple[Observation, ...]] = (
    # Compressor and power
    choice("compressor", "Compressor", "power", "Listen and feel", "running", "off", "humming", "tripping", "short_cycling",
            minutes=0.5, fresh_min=60),
    figure("compressor_amps", "Compressor amps", "power", "A", 0, 300, "Clamp meter round one leg, running", 2,
                spoils="two wires in the clamp, the starting moment"),
    choice("breaker", "Breaker", "power", "Closed once, standing aside, unless a winding is known to lie to ground", "holds",
            "trips_at_once=trips at once", "trips_warm=trips once warm", minutes=2, tool="record"),
    *(figure(f"{side}_v_{pair}", f"{side.capitalize()} volts {pair[0]}–{pair[1]}", "power", "V", 0, 700,
              f"Meter on the {side} side of the contactor, live work rules apply", 1, decimals=0, spoils=LIVE)
      for side in ("line", "load") for pair in ("12", "23", "31")),
    *(figure(f"pole_drop_v_{pole}", f"Drop over pole {pole}", "power", "V", 0, 700,
              "Meter across the closed pole, live work rules apply", 1, decimals=1, spoils=LIVE) for pole in "123"),
    choice("contactor", "Contactor", "power", "Look and listen", "in=pulled in", "out=dropped out", "chattering", minutes=0.5),
    choice("contactor_face", "Contact faces", "power", "Power locked out, cover off", "good", "pitted", "burnt", minutes=4,
            holds=("lock_out",)),
    *(figure(f"winding_{pair}_ohm", f"Winding {pair.upper()[0]}–{pair.upper()[1]}", "power", "Ω", 0, 1e7,
              LOCK_OUT + "meter between the terminals", 6, decimals=2, fresh_min=math.inf,
              holds=("lock_out",)) for pair in ("cs", "cr", "sr")),
    figure("winding_ground_ohm", "Winding to ground", "power", "Ω", 0, 1e10, LOCK_OUT + "meter from terminal to bare shell", 6,
            decimals=0, fresh_min=math.inf, holds=("lock_out",), spoils="paint or rust under the probe, leads not lifted"),
    figure("heater_ground_ohm", "Heater to ground", "power", "Ω", 0, 1e10,
            LOCK_OUT + "meter from each element's lead to bare metal, the lowest", 6, decimals=0, fresh_min=math.inf, holds=("lock_out",),
            only={"defrost": ("electric",)}, spoils="a wet element: dry it and read again; leads not lifted"),
    choice("crankcase_heater", "Crankcase heater", "power", "Feel with the back of the hand", "warm", "cold", "none=has none",
            tool="feel"),
    pressure("pump_down_low_psig", "Pump-down reached", "Front-seat the king valve, watch the lowest suction", 8, 700, "power",
              "test"),
    figure("pump_down_rise_psi", "Rise after pump-down", "power", "psi", 0, 250, "Pumped down and off: rise in five minutes", 12,
            "test"),
    choice("start_parts", "Start parts", "power", "Power locked out: swap or measure relay and capacitor", "good",
            "relay_failed", "capacitor_failed", "none=has none", minutes=10, tool="meter"),
    choice("high_pressure_switch", "High-pressure switch", "power", "Meter across it", "closed", "open", minutes=2, tool="meter"),
    choice("low_pressure_switch", "Low-pressure switch", "power", "Meter across it", "closed", "open", minutes=2, tool="meter"),
)
