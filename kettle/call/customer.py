"""A call in the customer's words: what was wrong, what was done, how it is now, what they must do, what we promised.

Found in the past once it is put right; only parts the unit has; only what was promised as promised; hazards first.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from kettle.call.asks import Doubt, placed_words, still_there
from kettle.call.call import Call
from kettle.call.says import came_back
from kettle.call.words import day, lower
from kettle.knowledge import acts, causes
from kettle.knowledge.equipment import Unit

_SHUT: Final = "Keep the door shut: prop it open for deliveries only, and shut it between the carts"
_CLEAN: Final = "Have the coil that gives off the heat cleaned twice a year, more often beside flour, dust or grease"


@dataclass(frozen=True)
class Can:
    """Something the customer can do, and on which units (`only`: walk_in or door; empty on all)."""

    words: str
    only: str = ""


def _has(unit: Unit, name: str) -> bool:
    if name == "walk_in":
        return unit.walk_in
    if name == "door":
        return unit.kind.code != "prep_rail"
    return True


# fmt: off
# A cause -> what the customer can do about it.
YOU_CAN: Final[Mapping[str, tuple[Can, ...]]] = {
    "door_infiltration": (Can(_SHUT, "door"),), "door_seal": (Can("Wipe the door's seal and tell us when it tears", "door"),),
    "hot_stock": (Can("Let hot food cool before it goes in; little at a time comes down faster"),),
    "evap_airflow_low": (Can("Keep stock a hand's width away from the cooling coil and its fans"),),
    "defrost_too_little": (Can(_SHUT, "door"),), "residual_ice": (Can("Tell us at the first new ice; a little is melted in minutes"),),
    "drain_blocked": (Can("Keep packaging off the floor drain", "walk_in"), Can("Mop up water at once and tell us: it freezes")),
    "condenser_dirty": (Can(_CLEAN), Can("Keep boxes away from where the machine breathes")),
    "condenser_fan_failed": (Can("Keep leaves and boxes away from where the machine breathes"),),
    "stat_calibration": (Can("Leave the dial where it is set, and read your own thermometer"),),
    "no_call": (Can("Leave the switch and the dial as they are"),),
    "lp_control_misset": (Can("Leave the switch as it is set, and read your own thermometer"),),
}
# A cause -> what to watch for.
WATCH_FOR: Final[Mapping[str, str]] = {
    "door_infiltration": "Watch for ice that grows on the coil, and call us before the fans freeze in",
    "drain_blocked": "Watch for water or ice below the coil", "defrost_too_little": "Watch for ice at the bottom or back of the coil",
    "compressor_overload": "If it stops and starts every few minutes, switch it off and call us",
}
# fmt: on
WARM_AGAIN: Final = {
    True: "If it stays too warm for two hours with the door shut, call us",
    False: "If it stays too warm for two hours, call us",
}  # fmt: skip
RELEASE: Final = (
    "The handle that opens the door from inside fails: nobody may be shut in. Block the door open while anybody is inside, and have it "
    "repaired"
)
LOST_AGAIN: Final = "If it warms up slowly over days, call us: it may lose refrigerant again"
DECLINED: Final = "You decided against"


@dataclass(frozen=True)
class ForCustomer:
    """What the customer reads: each part in whole sentences."""

    found: str
    done: str
    now: str
    you: tuple[str, ...]
    we: tuple[str, ...]


def for_customer(call: Call, doubts: tuple[Doubt, ...]) -> ForCustomer:
    """Return a call for the customer; nothing is said of what is not on record."""
    return ForCustomer(_found(call), _done(call), _now(call, doubts), _you(call, doubts), _we(call))


def _found(call: Call) -> str:
    left = set(call.causes_left)
    found = []
    for code in call.causes_were:
        cause = causes.get(code)
        if code == "undercharge" and any(done.first_fill for done in call.staged.done(1)):
            found.append("It did not hold its whole charge of refrigerant yet.")
        elif code in left or not call.staged.openings:
            found.append(cause.plain)
        else:
            found.append(cause.was)
    return " ".join(dict.fromkeys(found))


def _done(call: Call) -> str:
    words = [acts.get(step.did.part, step.did.did).plain for step in call.staged.steps]
    words += [f"We changed its refrigerant to {event.data['to']}" for event in call.record.all_of("retrofit")]
    return " ".join(f"{one}." for one in dict.fromkeys(words))


def _now(call: Call, doubts: tuple[Doubt, ...]) -> str:
    found = []
    last = call.record.last("reading", lambda e: e.data["key"] in ("box_temp_f", "return_air_f"))
    if last is not None:
        unit, value = call.record.unit_now, float(last.data["value"])
        box = call.shown.text(value, "°F", 0)
        most = unit.set_f + unit.differential_f / 2.0 + 1.0
        state = "It stands" if value <= most else "It is coming down and stood" if call.staged.steps else "It stood"
        found.append(f"{state} at {box}, set {call.shown.text(unit.set_f, '°F', 0)}.")
    for event in still_there(call):
        found.append(f"For now: {lower(placed_words(event))}.")
    if any(doubt.code == "opened_circuit" for doubt in doubts):
        found.append("Its refrigerant circuit is open: it does not run until we have closed and filled it.")
    elif any(doubt.code == "leak_open" for doubt in doubts) or any(step.did.code == "leak.given_up" for step in call.staged.steps):
        found.append("The leak is still open.")
    if any(doubt.code == "ice_left" for doubt in doubts):
        found.append("Some ice is left on the coil.")
    return " ".join(found)


def _you(call: Call, doubts: tuple[Doubt, ...]) -> tuple[str, ...]:
    found = [RELEASE] if any(doubt.code == "inside_release" for doubt in doubts) else []
    left = set(call.causes_left)
    for code in call.causes_were:
        found += [can.words for can in YOU_CAN.get(code, ()) if _has(call.record.unit, can.only)]
        if code in WATCH_FOR:
            found.append(WATCH_FOR[code])
    if "undercharge" in left or any(doubt.code == "leak_open" for doubt in doubts):
        found.append(LOST_AGAIN)
    found += [
        f"{DECLINED}: {event.get('reason', 'what we advised')}"
        for event in call.record.all_of("decided")
        if event.data["what"] == "declined"
    ]
    if call.record.standing:
        found.append(WARM_AGAIN[_has(call.record.unit, "door")])
    return tuple(f"{one.rstrip('.')}." for one in dict.fromkeys(found))


def _we(call: Call) -> tuple[str, ...]:
    kept = {event.data["what"] for event in call.record.all_of("kept")}
    return tuple(
        f"We come again by {day(event.data['due'])}: {lower(str(event.data['what']))}."
        for event in call.record.all_of("promise")
        if event.data["what"] not in kept and came_back(call, event) is None
    )
