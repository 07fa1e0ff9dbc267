"""What may not be done yet, why, and when it lifts: the holds, as a table walked by `standing`."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from kettle.judging import stopped
from kettle.judging.facts import COLD_OUTSIDE_F, PULL_DOWN_F, SETTLING_MIN, STILL_SETTLING_MIN, Facts
from kettle.judging.verdicts import FANS_NOT_RUNNING, coil_iced
from kettle.knowledge.bands import default_band
from kettle.knowledge.observations import Observation

ACTIONS: Final = {
    "txv_adjust": "turning the valve stem",
    "charge_add": "adding refrigerant",
    "charge_judge": "judging the charge",
    "superheat_judge": "judging superheat or TD",
    "gauges": "connecting gauges",
    "flame": "flame or heat gun",
    "power_on": "switching power on",
    "open_circuit": "opening the circuit",
    "resistance_test": "measuring resistance",
}

# What taking an observation does, by its tool.
TAKEN_WITH: Final = {"gauge": "gauges"}
# Superheat this many bands over its band is far too high; a drier with less drop than this is clear, °F.
FAR_OVER_BANDS: Final = 1.0
GROUNDED_HEATER: Final = "grounded_heater"
UNTIL_HEATER: Final = "the element is replaced and its ohms to ground are read clear"
LIES_TO_GROUND_OHM: Final = 1e5
DRIER_CLEAR_F: Final = 3.0
# A receiver this full behind a clear glass wants nothing.
FULL_PCT: Final = 75.0
# A suction this near nothing, on a coil outlet that is felt to be anything but cold, says that gas is short, psig.
NEXT_TO_NOTHING_PSIG: Final = 3.0
NOT_COLD: Final = ("hot", "warm", "lukewarm", "cool")


@dataclass(frozen=True)
class Hold:
    """One hold in force: code and blocked actions of the case format, a short title, why, and until when."""

    code: str
    blocks: tuple[str, ...]
    title: str
    text: str
    until: str


@dataclass(frozen=True)
class HoldRule:
    """A hold and when it applies: `why` returns the reason in words, or None where it does not apply."""

    code: str
    blocks: tuple[str, ...]
    title: str
    until: str
    why: Callable[[Facts], str | None]


def _box_far(f: Facts) -> str | None:
    over = f.box_over_set_f
    if over is None or over <= PULL_DOWN_F or f.unit.metering == "cap_tube" or _starved_by_the_valve(f):
        return None
    return f"Box is {f.shown.text(over, '°F diff', 0)} above set; superheat is tuned within {f.shown.text(PULL_DOWN_F, '°F diff', 0)} of it"


def _starved_by_the_valve(f: Facts) -> bool:
    """Superheat far too high with bulb, drier and supply cleared: a coil so starved never reaches set, and the stem need not wait."""
    superheat, band = f.derived.get("superheat_evap_f"), default_band(f.unit, "superheat_evap_f")
    if superheat is None or band is None or superheat < band[1] + FAR_OVER_BANDS * (band[1] - band[0]):
        return False
    drop = f.number("drier_drop_f")
    cleared = f.is_("bulb", "tight_insulated") and drop is not None and drop <= DRIER_CLEAR_F
    return cleared and (f.is_("sight_glass", "clear") or _fed(f))


def _fed(f: Facts) -> bool:
    subcooling, band = f.derived.get("subcooling_f"), default_band(f.unit, "subcooling_f")
    return subcooling is not None and band is not None and subcooling >= band[0]


def _settling(f: Facts) -> str | None:
    for key, since in (
        ("adjusted_min", "the last change"),
        ("settled_min", "start or door"),
        ("since_defrost_min", "the defrost"),
    ):
        minutes = f.number(key)
        if minutes is not None and minutes < SETTLING_MIN:
            return f"Only {minutes:.0f} min since {since}" if minutes < STILL_SETTLING_MIN else f"It still settles after {since}"
    return None


def gas_escapes(f: Facts) -> bool:
    """Whether it was seen that gas gets out: a leak found, oil at a fitting or stem, melt water that foams."""
    return (
        f.is_("leak_test", "found") or f.is_("oil_trace", "at_fitting", "at_coil", "at_valve_stem") or f.is_("melt_water", "cloudy_foaming")
    )


def _sucks_on_nothing(f: Facts) -> bool:
    """Whether a running compressor holds next to no suction over a coil that is not cold."""
    suction = f.number("suction_psig")
    runs = f.is_("compressor", "running", "short_cycling")
    return runs and suction is not None and suction <= NEXT_TO_NOTHING_PSIG and f.is_("coil_outlet_feel", *NOT_COLD)


def _charge_shows_low(f: Facts) -> bool:
    """Low subcooling, a low receiver, gas seen to get out, or no suction over a coil that is not cold: the second witness a flashing glass
    needs."""
    if (gas_escapes(f) and not _floods(f)) or _sucks_on_nothing(f):
        return True
    level, subcooling = f.number("receiver_level_pct"), f.derived.get("subcooling_f")
    if f.unit.receiver and _floods(f):
        # Behind a receiver a valve that floods takes the subcooling along: only the level tells then.
        subcooling = None
    low_level, low_subcooling = default_band(f.unit, "receiver_level_pct"), default_band(f.unit, "subcooling_f")
    if level is not None and low_level is not None and level < low_level[0]:
        return True
    return subcooling is not None and low_subcooling is not None and subcooling < low_subcooling[0]


def _fans_not_running(f: Facts) -> bool:
    return f.is_("evap_fans", *FANS_NOT_RUNNING) and not stopped.says_nothing("evap_fans", f)


def _fans_wait_for_gas(f: Facts) -> bool:
    """The fans wait for a coil that cannot get cold because it is short: a deadlock that only gas ends."""
    return f.is_("fan_delay", "waits_cold") and f.is_("evap_fans", "stopped") and _charge_shows_low(f)


def blocked_on_purpose(f: Facts) -> bool:
    """Whether the condenser was blocked by the technician, to raise the head in the cold."""
    return f.is_("condenser_blocking", "on_purpose")


def _floods(f: Facts) -> bool:
    """Whether superheat at the coil lies below its band: the valve lets liquid through."""
    superheat, band = f.derived.get("superheat_evap_f"), default_band(f.unit, "superheat_evap_f")
    return superheat is not None and band is not None and superheat < band[0]


def _short_besides(f: Facts) -> bool:
    """Whether bubbles do not stand alone: gas was seen to get out, or the receiver is low and frost lies on the first passes alone."""
    if _floods(f):
        return False
    level, band = f.number("receiver_level_pct"), default_band(f.unit, "receiver_level_pct")
    low = level is not None and band is not None and level < band[0]
    return gas_escapes(f) or (low and f.is_("ice_places", "coil_inlet_passes"))


def _glass_alone(f: Facts) -> str | None:
    if not f.is_("sight_glass", "few_bubbles", "flashing", "empty"):
        return None
    if _short_besides(f):
        return None
    ambient, on_water = f.number("ambient_f"), f.unit.condensing == "water"
    missing = [
        words
        for words, cleared in (
            ("coil fans", f.is_("evap_fans", "running", "none") or _fans_wait_for_gas(f)),
            ("condenser coil", f.is_("condenser_coil", "clean", "dusty") or on_water or blocked_on_purpose(f)),
            ("condenser fan", f.is_("condenser_fans", "running", "cycling") or on_water),
            (
                f"air on the condenser over {f.shown.text(COLD_OUTSIDE_F, '°F', 0)}",
                (ambient is not None and ambient >= COLD_OUTSIDE_F) or on_water or blocked_on_purpose(f),
            ),
            ("low subcooling or receiver level", _charge_shows_low(f)),
        )
        if not cleared
    ]
    return f"Bubbles alone do not say it is short. Still to clear: {', '.join(missing)}" if missing else None


def _full_already(f: Facts) -> str | None:
    """A receiver that is full, the glass before it clear or not looked at: nothing asks for gas, as little as bubbles alone do."""
    level = f.number("receiver_level_pct")
    if not f.unit.receiver or level is None or level < FULL_PCT or f.is_("sight_glass", "few_bubbles", "flashing", "empty"):
        return None
    clear = "The glass is clear and the receiver" if f.is_("sight_glass", "clear") else "The receiver"
    return f"{clear} stands at {level:.0f} %: it is full"


def _critical_charge(f: Facts) -> str | None:
    charge = f.unit.critical_charge_oz
    if charge is None or f.unit.receiver or f.is_("charge_weighed", "yes"):
        return None
    outside_sound = (
        f.is_("evap_fans", "running", "none")
        and (f.unit.condensing == "water" or (f.is_("condenser_coil", "clean", "dusty") and f.is_("condenser_fans", "running", "cycling")))
        and f.is_("compressor", "running")
    )
    over = f.box_over_set_f
    if outside_sound and over is not None and over > f.unit.differential_f:
        return None
    return f"Critically charged, {f.shown.text(charge, 'oz', 1)}: every hose on and off costs gas. Outside evidence first"


def _charge_by_weight(f: Facts) -> str | None:
    if f.unit.critical_charge_oz is None or f.unit.receiver or f.is_("charge_weighed", "yes") or _critical_charge(f):
        return None
    return f"Recover, evacuate, weigh in {f.shown.text(f.unit.critical_charge_oz, 'oz', 1)}, and only then judge the capillary tube"


def _bulb_first(f: Facts) -> str | None:
    if f.unit.metering != "txv" or f.is_("bulb", "tight_insulated"):
        return None
    return "The bulb is not right: put it right first" if "bulb" in f.seen else "Look at the bulb first: place, straps, insulation"


def _lock_out(f: Facts) -> str | None:
    trouble = (
        f.is_("compressor", "humming", "tripping", "off")
        or f.is_("evap_fans", "some_stopped", "stopped", "held_by_ice")
        or f.is_("condenser_fans", "stopped")
        or f.is_("contactor", "chattering")
        or f.is_("coil_after_defrost", "part_iced", "iced")
    )
    if not trouble or f.is_("power_locked_out", "yes"):
        return None
    return "Resistance and insulation are read with power locked out, leads lifted and capacitors discharged"


def _grounded(f: Facts) -> str | None:
    if not stopped.is_grounded(f):
        return None
    ohms = f.number("winding_ground_ohm") or 0.0
    if ohms >= LIES_TO_GROUND_OHM:
        return f"Only {ohms / 1e3:.0f} kΩ from a winding to ground, over 1 MΩ is wanted: do not switch it on to try it"
    return "A winding lies to ground: never switch it on again to try it"


def _heater_grounded(f: Facts) -> str | None:
    ohms = f.number("heater_ground_ohm")
    if ohms is None or ohms >= stopped.GROUNDED_OHM:
        return None
    if ohms >= LIES_TO_GROUND_OHM:
        return f"Only {ohms / 1e3:.0f} kΩ from a heater to ground, over 1 MΩ is wanted: dry it and read again before it has volts"
    return "A heater lies to ground: never switch it on again to try it"


def _lone(f: Facts) -> str | None:
    if not f.unit.walk_in or (f.is_("inside_release", "works") and f.is_("latch_blocked", "yes")):
        return None
    if f.is_("inside_release", "fails"):
        if f.is_("latch_blocked", "yes") and f.is_("someone_outside", "yes"):
            return None
        return "The inside release fails: do not go in alone, block the door open, someone outside knows where you are"
    return "Closed box: inside release proved, latch blocked, someone knows where you are"


def _as_found(f: Facts) -> str | None:
    touched = (
        f.is_("defrost_ended_by", "time")
        or f.is_("coil_after_defrost", "part_iced", "iced")
        or f.is_("controller_alarm", "sensor_fault", "low_superheat", "open_control_circuit")
        or f.is_("compressor", "short_cycling")
        or "stat_off_f" in f.derived
    )
    read = any(key in f.seen for key in ("defrost_set_min", "termination_f", "defrosts_per_day", "lp_cut_in_psig"))
    if not touched or read:
        return None
    return "Before any setting is changed, read and write down all of them as found; out of service mode at the end"


def _licensed(f: Facts) -> str | None:
    opened = f.is_("leak_test", "found") or f.is_("oil_trace", "at_fitting", "at_coil", "at_valve_stem")
    if not opened and not _charge_shows_low(f):
        return None
    return "Opening the circuit, recovering and charging are licensed work; no venting, local codes first"


# fmt: off
_RULES: Final = (
    HoldRule("grounded_compressor", ("power_on",), "Switching on", "the compressor is replaced, or a meter proves over 1 MΩ",
             _grounded),
    HoldRule(GROUNDED_HEATER, ("power_on",), "Switching on", UNTIL_HEATER, _heater_grounded),
    HoldRule("iced_coil", ("superheat_judge", "charge_judge", "charge_add", "txv_adjust", "gauges"),
             "Gauges, superheat, charge", "the coil is clear of ice, inside and back included",
             lambda f: "An iced coil tells nothing: record the ice, melt it all, then read" if coil_iced(f) else None),
    HoldRule("fans_not_running", ("superheat_judge", "charge_judge", "charge_add", "txv_adjust"),
             "Superheat, TD, charge", "every coil fan runs the right way",
             lambda f: "Coil fans are not all running: restore the airflow first"
             if _fans_not_running(f) and not _fans_wait_for_gas(f) else None),
    HoldRule("fans_not_running", ("superheat_judge", "charge_judge", "txv_adjust"),
             "Superheat, TD", "every coil fan runs the right way",
             lambda f: "The fans wait for a cold coil that only gas can give: gas may go in, nothing else is judged by it yet"
             if _fans_not_running(f) and _fans_wait_for_gas(f) else None),
    HoldRule("condenser_blocked", ("charge_judge", "charge_add"), "Charge", "light shows through the condenser",
             lambda f: "Condenser is blocked: clean it first"
             if f.is_("condenser_coil", "blocked") and not blocked_on_purpose(f) else None),
    HoldRule("condenser_fan_stopped", ("charge_judge", "charge_add"), "Charge", "the condenser fan runs the right way",
             lambda f: "Condenser fan is not moving air: put it right first"
             if f.is_("condenser_fans", "stopped", "reversed") and not stopped.says_nothing("condenser_fans", f)
             and not stopped.waits_for_head(f) else None),
    HoldRule("box_far_from_set", ("txv_adjust",), "Valve stem", "the box is near set", _box_far),
    HoldRule("settling", ("txv_adjust", "superheat_judge"), "Tuning superheat", "15 min after the last disturbance",
             lambda f: _settling(f) if f.unit.metering != "cap_tube" else None),
    HoldRule("settling", ("superheat_judge",), "Superheat, TD", "15 min after the last disturbance",
             lambda f: _settling(f) if f.unit.metering == "cap_tube" else None),
    HoldRule("glass_alone", ("charge_add",), "Adding gas", "airflow, condensing and outdoor air are cleared and a second sign is low",
             _glass_alone),
    HoldRule("glass_alone", ("charge_add",), "Adding gas", "the level falls and the glass flashes", _full_already),
    HoldRule("critical_charge", ("gauges", "charge_judge", "charge_add"), "Gauges",
             "fans, condenser and compressor are found right and the box is still warm", _critical_charge),
    HoldRule("critical_charge", ("charge_judge", "charge_add"), "Charge by gauges", "the label charge is weighed in",
             _charge_by_weight),
    HoldRule("bulb_first", ("txv_adjust",), "Valve stem", "the bulb is found tight and insulated", _bulb_first),
    HoldRule("receiver_subcooling", ("charge_judge",), "Charge by subcooling", "glass and receiver level agree",
             lambda f: "Behind a receiver subcooling alone does not set the charge"
             if f.unit.receiver and "subcooling_f" in f.derived and "sight_glass" not in f.seen
             and "receiver_level_pct" not in f.seen else None),
    HoldRule("lock_out", ("resistance_test",), "Ohms and megohms", "power is locked out and proved dead", _lock_out),
    HoldRule("licensed_work", ("open_circuit",), "Opening the circuit", "whoever does it is licensed for it here", _licensed),
    HoldRule("as_found_first", (), "Settings", "every setting is stored as found", _as_found),
    HoldRule("lone_working", (), "Going in", "inside release and latch are proved", _lone),
    HoldRule("flammable", ("flame",), "Flame, heat gun", "never on this unit",
             lambda f: f"{f.unit.refrigerant.name} burns ({f.unit.refrigerant.safety_class}): ventilate, gas detector, "
                       "rated tools, local code" if f.unit.refrigerant.flammable else None),
)
# fmt: on


# What each hold can block, by its code.
BLOCKS: Final[dict[str, tuple[str, ...]]] = {
    code: tuple(dict.fromkeys(action for rule in _RULES if rule.code == code for action in rule.blocks))
    for code in dict.fromkeys(rule.code for rule in _RULES)
}


def standing(facts: Facts) -> list[Hold]:
    """Return every hold in force, in the order of the table (the field's rules of what must come first)."""
    found = []
    for rule in _RULES:
        why = rule.why(facts)
        if why is not None:
            found.append(Hold(rule.code, rule.blocks, rule.title, why, rule.until))
    return found


def unproved_heater(text: str) -> Hold:
    """The hold of a heater that lay to ground and whose new one was not read yet."""
    return Hold(GROUNDED_HEATER, BLOCKS[GROUNDED_HEATER], "Switching on", text, UNTIL_HEATER)


def action_of(entry: Observation) -> str | None:
    """Return the action that taking an observation would be; None for one that nothing can hold."""
    return "resistance_test" if "lock_out" in entry.holds else TAKEN_WITH.get(entry.tool)


def blocking(holds: list[Hold], action: str) -> list[Hold]:
    """Return the holds that block an action of the case format."""
    return [hold for hold in holds if action in hold.blocks]
