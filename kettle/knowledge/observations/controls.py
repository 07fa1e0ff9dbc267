"""What is read off controls, and seen of a defrost."""

from typing import Final

from kettle.knowledge.observations.make import HOT_GAS, PROGRAM, choice, figure, pressure, temp
from kettle.knowledge.observations.model import Observation

# fmt: off
ENTRIES: Final[tuple[Observation, ...]] = (
    # Controls and defrost
    choice("circuit_extra", "Found in the control circuit", "controls", "Trace it from the neutral: what stands between control and coil?",
            "nothing=nothing odd", "delay_timer=a delay timer left in", "interlock_not_wired=interlock set, not wired",
            "jumper=a jumper left in", "probe_wrong_role=probe in the wrong role", minutes=8),
    choice("control_call", "Control", "controls", "Read the controller or the thermostat", "calling", "satisfied", "in_defrost",
            "no_power", tool="controller"),
    temp("stat_cut_out_f", "Cut-out seen", "controls", "Own thermometer when it stops", 20, tool="test"),
    temp("stat_cut_in_f", "Cut-in seen", "controls", "Own thermometer when it starts", 20, tool="test"),
    figure("defrosts_per_day", "Defrosts", "controls", "a day", 0, 48, "Read the program", 1, "controller", 0),
    figure("defrost_set_min", "Fail-safe set", "controls", "min", 0, 240, "Read the program", 1, "controller", 0),
    figure("defrost_ran_min", "Defrost ran", "controls", "min", 0, 240, "Watch or read the last defrost", 3, "controller", 0),
    choice("defrost_ended_by", "Defrost ended by", "controls", "Read the log or watch it end", "termination=temperature", "time",
            "unknown", minutes=3, tool="controller", only=PROGRAM),
    temp("termination_f", "Termination", "controls", "Read the program", low=0, high=120, tool="controller"),
    choice("defrost_starts", "Defrost starts", "controls", "Start one by hand", "yes", "never", "stuck_in=stuck in defrost",
            minutes=4, tool="controller", only=PROGRAM),
    choice("compressor_in_defrost", "Compressor in defrost", "controls", "Listen during a defrost", "off", "running", minutes=4),
    figure("heater_volts", "Heater volts", "controls", "V", 0, 700, "Meter at the heater terminals in defrost", 4, decimals=0),
    figure("heater_amps", "Heater amps", "controls", "A", 0, 200, "Clamp meter on one heater leg in defrost", 4),
    figure("heater_rated_w", "Heater rating", "controls", "W", 0, 50000, "Plate of the coil", 1, "look", 0),
    choice("hot_gas_valve", "Hot-gas valve", "controls", "Hand near its outlet: hot within a minute of a defrost, cool while it cools",
            "opens=opens and shuts", "stays_shut", "lets_by=lets gas by while it cools", minutes=4, tool="feel", only=HOT_GAS),
    choice("fans_in_defrost", "Fans in defrost", "controls", "Look during a defrost", "off", "running", minutes=4),
    choice("coil_after_defrost", "Coil after defrost", "controls", "Torch on the coil right after one ends", "clear",
            "part_iced", "iced", minutes=5, per_evaporator=True, only=PROGRAM),
    pressure("lp_cut_in_psig", "LP cut-in", "Scale, then a gauge while it cycles", 10, 700, "controls"),
    pressure("lp_cut_out_psig", "LP cut-out", "Scale, then a gauge while it cycles", 10, 700, "controls"),
    figure("sensor_error_f", "Display off by", "controls", "°F diff", -210, 210, "Display minus own thermometer at the sensor", 3,
                "probe"),
    choice("controller_alarm", "Alarm shown", "controls", "Read the controller", "none", "sensor_fault", "low_superheat",
            "open_control_circuit", "high_temperature", tool="controller"),
)
