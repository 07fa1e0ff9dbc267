"""Keep the ohms of a compressor's windings, taken between its pins in any order, and to bare shell."""

from kettle.electrical import windings
from kettle.knowledge import observations
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import TRADE
from web.logbook.actions import stopped
from web.logbook.actions.acting import on_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.holds import taken_on

# What a meter shows where there is no way between two pins, in words, and as it is kept.
OPEN_WORDS = ("ol", "open", "∞", "inf")
FIELDS = {"pins_12": "Pins 1–2", "pins_23": "Pins 2–3", "pins_31": "Pins 3–1", "pins_shell": "Lowest pin to shell"}
# On three phases the pairs are kept as they come.
_AS_THEY_COME = ("winding_cs_ohm", "winding_sr_ohm", "winding_cr_ohm")


def _ohms(typed, key):
    """What was typed, Ω; an open pair as the most that can be kept."""
    text = typed.strip().lower()
    return observations.get(key).high if text in OPEN_WORDS else TRADE.parse(typed, "Ω")


@on_call
def keep_windings(user, call, judgement, typed):
    """Store three readings between pins and one to the shell; return what they say. FieldErrors names what is wrong by field."""
    if not judgement.facts.is_("power_locked_out", "yes") and "resistance_test" not in taken_on(call):
        words = "Ohms wait for the lock-out: lock out, prove dead at the terminals and say so, or give a reason on Judge"
        stopped.tell(call, words)
        raise FieldErrors({"pins_12": words})
    ohms, wrong = {}, {}
    for field, label in FIELDS.items():
        try:
            key = "winding_ground_ohm" if field == "pins_shell" else "winding_cs_ohm"
            ohms[field] = observations.get(key).check(_ohms(typed.get(field, ""), key))
        except InputError as error:
            wrong[field] = f"{label}: {error}"
    if wrong:
        raise FieldErrors(wrong)
    three = tuple(ohms[field] for field in ("pins_12", "pins_23", "pins_31"))
    told = (windings.three_phase if judgement.facts.unit.phases == 3 else windings.single_phase)(*three)
    for (one, other), value, as_it_comes in zip(windings.PAIRS, three, _AS_THEY_COME, strict=True):
        names = {told.names.get(one, ""), told.names.get(other, "")}
        named = {frozenset(("common", "start")): "winding_cs_ohm", frozenset(("common", "run")): "winding_cr_ohm"}
        key = named.get(frozenset(names), "winding_sr_ohm") if told.names else as_it_comes
        record_reading(user, call, key, value, words=f"{one}–{other}")
    record_reading(user, call, "winding_ground_ohm", ohms["pins_shell"], words="pin to shell")
    return told.says, windings.to_ground(ohms["pins_shell"]).says
