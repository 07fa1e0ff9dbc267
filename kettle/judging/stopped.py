"""What runs, and with it what can be evidence of anything and what can be asked for.

A unit that stands still says nothing by its glass, its sounds or its lines; fans that rest in a defrost are no fault; behind a winding
that lies to ground nothing is measured that needs power.
"""

from collections.abc import Mapping
from typing import Final

from kettle.judging.facts import SETTLING_MIN, Facts
from kettle.knowledge import acts, bands, observations
from kettle.knowledge.observations import Observation, Value
from kettle.knowledge.quantities import QUANTITIES

# What runs, in words.
WORDS: Final = {
    "dead": "Should run, and does not",
    "off": "Off, as it should be",
    "still": "Not running",
    "defrosting": "In a defrost",
    "pumped_down": "Pumped down",
    "running": "Running",
    "": "",
}
# Below this a winding counts as lying to ground (over 1 MΩ is wanted).
GROUNDED_OHM: Final = 1e6
# A head this far over the air on the condenser is one of a unit that runs; air in the gas of one that stands holds it some 8 °F over, °F.
HEAD_OF_A_RUN_F: Final = 12.0
# The box of a unit at rest that holds liquid is met by its suction within this; far below, it was pumped down, °F.
AT_REST_F: Final = 10.0
# They need flow, or the fan that only runs with the compressor.
FLOW: Final = (
    "sight_glass", "valve_sound", "coil_outlet_feel", "liquid_line_feel", "discharge_line_feel", "suction_line_feel", "drier_drop_f",
    "head_control", "liquid_line_valve_f", "receiver_level_pct", "moisture_dot", "supply_air_f", "return_air_f", "valve_response",
)  # fmt: skip
FANS: Final = ("evap_fans", "fans_still", "air_weak_at", "evap_fan_supply_v", "fan_delay")
# A unit that should run and does not is followed along its current: call, safeties, contactor, line, load, poles, windings.
CURRENT: Final = (
    "control_call", "low_pressure_switch", "suction_psig", "high_pressure_switch", "contactor", "line_v_12", "load_v_12", "pole_drop_v_1",
    "power_locked_out", "winding_cs_ohm", "winding_ground_ohm", "start_parts",
)  # fmt: skip
# What cannot be seen with the power off, nor wanted on a winding that lies to ground.
DEAD_WHILE_LOCKED: Final = ("contactor", "control_call", "compressor")
# In series with the contactor's coil.
IN_SERIES: Final = ("control_call", "high_pressure_switch", "low_pressure_switch")
# What stands rightly in a defrost, and the words for it.
AT_REST: Final[dict[str, tuple[str, ...]]] = {
    "compressor": ("off",), "contactor": ("out",), "condenser_fans": ("stopped",), "low_pressure_switch": ("open",),
    "liquid_solenoid": ("closed_no_pull",),
}  # fmt: skip
# What is seen of these while the unit stands says nothing once it runs.
RESTS: Final = ("condenser_fans", "low_pressure_switch", "contactor", "evap_fans", "fans_still", "liquid_solenoid", "sight_glass")
# What a unit that is satisfied, and rightly so, shows besides.
RIGHTLY_OFF: Final[dict[str, tuple[str, ...]]] = {
    "compressor": ("off",), "contactor": ("out",), "control_call": ("satisfied",), "low_pressure_switch": ("open",),
    "compressor_shell": ("cold",), "liquid_solenoid": ("closed_no_pull",),
}  # fmt: skip
# More than this over a closed contactor is lost in it, V.
LOST_V: Final = 20.0
# A warm box that comes down since it was started, or falls: its coil takes all the valve lets through.
PULLS_DOWN: Final = ("first_start", "falling")
CYCLES_THE_FAN: Final = ("fan_cycling", "mixing_valve_and_fan")
BUBBLES: Final = ("few_bubbles", "flashing", "empty")
NO_AIR: Final = ("some_stopped", "stopped", "reversed", "held_by_ice")
# These stand alone: nobody asks how other boxes on the same plant do.
SELF_CONTAINED: Final = ("reach_in", "bottle", "prep_rail")
# Dead behind an open contactor, whatever its poles are worth.
BEHIND_CONTACTOR: Final = ("load_v", "pole_drop")
# Under so many volts a meter shows that it is dead (NFPA 70E: from 50 V on it counts as live), and these words the same of what turns.
DEAD_BELOW_V: Final = 50.0
AT_REST_LOCKED: Final[dict[str, str]] = {"condenser_fans": "stopped", "evap_fans": "stopped"}
POWERED: Final = ("line_v", "load_v", "pole_drop", "compressor_amps", "heater_amps", "heater_volts", "evap_fan_supply_v")


def contactor_is_out(seen: Mapping[str, Value]) -> bool:
    """Whether the contactor is known to be out, by itself or since what stands before it is open."""
    if "contactor" in seen:
        return seen["contactor"] == "out"
    if seen.get("low_pressure_switch") == "open" or seen.get("high_pressure_switch") == "open":
        return True
    return seen.get("control_call") in ("satisfied", "no_power") and seen.get("compressor") == "off"


def is_grounded(f: Facts) -> bool:
    """Whether a winding is known to lie to ground."""
    ohms = f.number("winding_ground_ohm")
    return ohms is not None and ohms < GROUNDED_OHM


def shows_lock_out(key: str, value: Value) -> bool:
    """Whether something seen with the power locked out shows that alone: volts that prove it dead, a fan that stands."""
    if isinstance(value, float):
        return key.startswith(POWERED) and value < DEAD_BELOW_V
    return AT_REST_LOCKED.get(key) == value


def ground_unread(f: Facts) -> bool:
    """Whether a compressor that trips or hums is locked out and nobody read its windings to ground: that comes before the next try,
    however sure the rest is."""
    return f.is_("power_locked_out", "yes") and f.is_("compressor", "tripping", "humming") and "winding_ground_ohm" not in f.seen


def state(f: Facts) -> str:
    """Return what runs: a key of `WORDS`, empty where nobody looked."""
    if f.is_("control_call", "in_defrost"):
        return "defrosting"
    if f.is_("compressor", "running", "short_cycling"):
        return "running"
    if not f.is_("compressor", "off", "humming", "tripping"):
        return ""
    if f.is_("compressor", "humming", "tripping") or f.is_("control_call", "calling"):
        return "dead"
    over = f.box_over_set_f
    if f.is_("control_call", "satisfied") and (over is None or over <= 2 * f.unit.differential_f):
        return "off"
    if f.derived.get("rest_off_f", 0.0) < -AT_REST_F and not f.is_("control_call", "no_power"):
        return "pumped_down"
    if over is not None and over > f.unit.differential_f:
        return "dead"
    return "still"


def hisses_at_rest(f: Facts) -> bool:
    """Whether something goes through the valve of a unit that stands, with its liquid valve not looked at: it does not shut."""
    return f.is_("compressor", "off") and f.is_("valve_sound", "hissing_gas") and "liquid_solenoid" not in f.seen


def runs_by_its_head(f: Facts) -> bool:
    """Whether a compressor nobody looked at is told to run by its gauges: the head of one that stands falls to its air within minutes."""
    looked = {"compressor", "contactor", "power_locked_out"} & set(f.seen)
    over = f.head_over_air_f
    stands = looked or f.is_("control_call", "satisfied", "no_power", "in_defrost")
    return not stands and over is not None and over >= HEAD_OF_A_RUN_F


def lost_a_leg(f: Facts) -> bool:
    """Whether less comes out of the contactor than goes in: whatever hangs on its load side may have lost its supply with it."""
    worst = max(f.derived.get("load_loss_v", 0.0), f.derived.get("pole_drop_v", 0.0))
    return f.is_("contactor", "in") and worst > LOST_V


def waits_for_head(f: Facts) -> bool:
    """Whether a condenser fan that stands may only wait for the head: it is switched by it, and the air on the condenser is cold."""
    return f.unit.head_control in CYCLES_THE_FAN and f.is_cold_outside and f.is_("condenser_fans", "stopped")


def stands_still(f: Facts) -> bool:
    """Whether the compressor is known not to run for longer than a try."""
    return f.is_("compressor", "off") or f.is_("power_locked_out", "yes")


def says_nothing(key: str, f: Facts) -> str:
    """Return why something seen is no evidence of anything now, in words; empty where it speaks."""
    if key in FANS and f.is_("control_call", "in_defrost"):
        return "the fans rest in a defrost"
    if key.startswith(BEHIND_CONTACTOR) and contactor_is_out(f.seen):
        return "behind an open contactor nothing is live"
    if f.is_("control_call", "in_defrost") and key in AT_REST and f.is_(key, *AT_REST[key]):
        return "it rests in a defrost"
    if key == "low_pressure_switch" and f.is_(key, "open") and f.is_("control_call", "satisfied"):
        return "open after a pump-down, as it should be"
    if key in RIGHTLY_OFF and f.is_(key, *RIGHTLY_OFF[key]) and f.is_rightly_off:
        return "satisfied and off, as it should be"
    if key == "condenser_fans" and f.is_(key, "stopped", "slow") and lost_a_leg(f):
        return "the contactor loses a leg, and the fan hangs on it"
    if key == "sight_glass" and f.is_(key, *BUBBLES):
        if f.is_("evap_fans", *NO_AIR) and not f.is_("fan_delay", "waits_cold"):
            return "without air over the coil a glass bubbles whatever the charge"
        settled = f.number("settled_min")
        if settled is not None and settled < SETTLING_MIN:
            return "it has not settled yet"
        if f.is_(key, "few_bubbles") and f.coming_down in PULLS_DOWN:
            return "a few bubbles are usual while a warm box pulls down"
    if f.is_("compressor", "off"):
        # On its contactor it stands with the compressor; on a pressure switch it waits for the head besides.
        waits = f.unit.head_control in CYCLES_THE_FAN or not f.is_("contactor", "in")
        if key == "condenser_fans" and waits and f.is_(key, "stopped", "slow", "cycling"):
            return "the condenser fan stands with the compressor"
        if key in FLOW:
            return "nothing flows while it stands"
    if key in FLOW and f.is_("compressor", "humming"):
        return "nothing flows while it only hums"
    if key == "contactor" and f.is_("compressor", "running", "short_cycling"):
        return "it goes with the compressor"
    return ""


def rested(key: str, then: Facts) -> bool:
    """Return whether something was seen while it rightly stood or said nothing, so that it says nothing of a unit that runs since."""
    return key in RESTS and bool(says_nothing(key, then))


def can_be_asked(entry: Observation, f: Facts) -> bool:
    """Whether an observation makes sense to take now."""
    key = entry.key
    if key == "someone_outside" and not f.is_("inside_release", "fails"):
        return False
    if key in FANS and (f.is_("evap_fans", "none") or (f.is_("control_call", "in_defrost") and key != "fan_delay")):
        return False
    if key == "fans_in_defrost" and f.is_("evap_fans", "none"):
        return False
    if key == "fan_delay" and not f.is_("evap_fans", "stopped"):
        return False
    if key in IN_SERIES and f.is_("contactor", "in"):
        # It is pulled in: everything in series with its coil is closed.
        return False
    if key == "drain_heater" and not f.unit.kind.freezer:
        # Nothing freezes in the drain of a cooler.
        return False
    if key in DEAD_WHILE_LOCKED and (f.is_("power_locked_out", "yes") or is_grounded(f)):
        return False
    if key == "siblings" and f.unit.kind.code.startswith(SELF_CONTAINED):
        return False
    if key.startswith(BEHIND_CONTACTOR) and contactor_is_out(f.seen):
        return False
    if key == "contactor" and f.is_("compressor", "running", "short_cycling"):
        return False
    powered, locked = key.startswith(POWERED), f.is_("power_locked_out", "yes")
    if locked and powered:
        return False
    if is_grounded(f) and (powered or key in acts.RUNNING or key == "start_parts"):
        return False
    if f.is_("compressor", "humming") and key != "compressor_amps" and (key in FLOW or key in acts.RUNNING):
        return False
    if key == "compressor_shell" or (key == "liquid_solenoid" and f.is_("control_call", "calling") and not locked):
        # A shell that stands hot tells of its protector; a coil that is called pulls whether the compressor runs or not.
        return True
    return not (stands_still(f) and (key in acts.RUNNING or key in FLOW or key.startswith(("pump_down", "condenser_fans"))))


def quantity_can_be_asked(feature: str, f: Facts) -> bool:
    """Whether everything a feature needs makes sense to take now; what is worked out of a running unit needs one that runs."""
    needs = QUANTITIES[feature].needs if feature in QUANTITIES else (feature,)
    if feature in bands.COIL_QUANTITIES and f.is_("control_call", "in_defrost"):
        return False
    if feature == "rest_over_air_f":
        return f.unit.condensing == "air"
    if feature == "lp_open_off_f":
        return f.is_("low_pressure_switch", "open")
    if feature == "rest_off_f":
        return f.is_("compressor", "off")
    return all(key in f.seen or can_be_asked(observations.get(key), f) for key in needs)
