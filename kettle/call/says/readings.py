"""What observations are told as: found where they were wrong, unusual or decided, left where they were read after the work."""

from typing import Final

from kettle.call.call import FOUND, LEFT, Call
from kettle.call.events import Event
from kettle.call.hears import places_found, setting_changed
from kettle.call.proves import READ_FOR
from kettle.call.says.sentence import Sentence, sentence
from kettle.call.words import lower
from kettle.judging import stopped, verdicts
from kettle.judging.evidence import quantity_name
from kettle.knowledge import observations
from kettle.knowledge.causes.usual import USUAL
from kettle.knowledge.measures import ohms_text
from kettle.knowledge.parameters import PARAMETERS

# A word seen on fewer sound units than this is worth writing down.
UNUSUAL: Final = 0.3
# And one seen at least so often is right.
USUALLY: Final = 0.45
NOT_WRITTEN: Final = ("told", "safety")
TRUSTED: Final = ("good", "weak")
# Figures that are told as they were left wherever they were read after the work, in this order.
AS_LEFT: Final = (
    "box_temp_f", "return_air_f", "product_temp_f", "superheat_evap_f", "suction_psig", "discharge_psig", "subcooling_f", "split_f",
    "receiver_level_pct", "compressor_amps", "lp_cut_in_psig", "lp_cut_out_psig", "line_v_12", "line_v_23", "line_v_31",
    "load_v_12", "load_v_23", "load_v_31", "pole_drop_v_1", "pole_drop_v_2", "pole_drop_v_3",
)  # fmt: skip
# Words that are told as they were left.
WORDS_LEFT: Final = ("sight_glass", "coil_outlet_feel", "drain", "drain_pan", "compressor_shell", "discharge_line_feel")
# Raw figures that are told with what is worked out from them where that is out of its band.
RAW_FOR: Final = {
    "superheat_evap_f": ("suction_psig",), "superheat_comp_f": ("suction_psig",), "td_f": ("suction_psig",), "split_f": ("discharge_psig",),
    "load_loss_v": ("line_v_12", "line_v_23", "line_v_31", "load_v_12", "load_v_23", "load_v_31"),
    "volts_off_pct": ("line_v_12", "line_v_23", "line_v_31"), "volts_imbalance_pct": ("line_v_12", "line_v_23", "line_v_31"),
    "pole_drop_v": ("pole_drop_v_1", "pole_drop_v_2", "pole_drop_v_3"),
}  # fmt: skip
# What several readings come to is told at the first of them.
TOLD_AT: Final = {"volts_off_pct": ("line_v_12",), "volts_imbalance_pct": ("line_v_31",)}
# What a compressor does that is a find of its own; whether it ran when it was looked at is not.
TRIES: Final = ("humming", "tripping", "short_cycling")
# Where a reading was worked out of a measurement, and the amps that are.
WORKED_OUT: Final = "worked out"
AMPS_KEYS: Final = ("compressor_amps", "heater_amps")
# Superheat so low is liquid at the bulb.
FLOODS_F: Final = 3.0
# Figures that are told as found whenever they were read, wrong or right: what is set, what the weather was, what was weighed against.
ALWAYS_FOUND: Final = ("ambient_f", "product_temp_f", "receiver_level_pct", "drier_drop_f", "display_temp_f")
# Words that follow a label by themselves.
SAYS_ITSELF: Final = ("feels", "sounds", "by", "at", "is", "shows")
WORN: Final = (
    "control_call",
    "compressor",
    "contactor",
    "power_locked_out",
    "box_trend",
    "door_traffic",
    "suction_line_feel",
    "ice_form",
    "valve_response",
)
RIGHT_GROUPS: Final = ("ice", "air", "condenser", "circuit", "power")


# Observations ------------------------------------------------------------------------------------------------------------------------


def reading(call: Call, event: Event) -> list[Sentence]:
    """What an observation shows: as found where it was wrong, unusual or decided, as left where it was read after the work.

    What was worked out of a measurement is told with that.
    """
    if event.get("source") == WORKED_OUT and event.data["key"] in AMPS_KEYS:
        return []
    if event.data["key"] in ("ice_form", "ice_places") and any(one.on in (None, event.on) for one in call.record.all_of("ice")):
        return []
    if event.data["key"] == "leak_test" and any(places_found(call.record, one) for one in call.record.all_of("leak_look")):
        return []
    if not any(one.event is event for one in call.staged.sightings):
        # It shows that the power was locked out, and nothing of the unit.
        return []
    return observed(call, event, event.data["key"], event.data["value"])


def observed(call: Call, event: Event, key: str, value: object) -> list[Sentence]:
    """Return what an observation shows, whichever kind of event it came by."""
    entry = observations.get(key).on(call.record.unit)
    if key == "complaint" and isinstance(value, (list, tuple)):
        return [sentence("found", f"Called about: {lower(entry.show(value))}", (event,), "told")]
    if key == "inside_release" and value == "fails":
        return [sentence("found", "The inside release fails", (event,), "safety")]
    phase = call.phase(event)
    if phase == LEFT and call.staged.steps:
        return _left_reading(call, event, key, value)
    if phase != FOUND:
        return _between(call, event, key, value)
    if entry.is_number:
        return _found_figure(call, event, key)
    return _found_word(call, event, key, value)


def _is_told_found(call: Call, event: Event, key: str) -> bool:
    """Whether an event is the last of its key before the first repair, or before a look that found gone what it shows."""
    mine = [
        one.event
        for one in call.staged.sightings
        if one.observed.key == key and call.phase(one.event) == FOUND and one.observed.on in (None, event.on)
    ]
    looks = {opening.event for opening in call.staged.openings if not opening.did.part}
    return any(one is event and (later is None or later in looks) for one, later in zip(mine, [*mine[1:], None], strict=True))


def _found_figure(call: Call, event: Event, key: str) -> list[Sentence]:
    """A figure as found: the box as it was read first, the rest as read last before the first repair."""
    record, shown = call.record, call.shown
    if key == "box_temp_f":
        first = next(one.event for one in call.staged.sightings if one.observed.key == key and one.observed.on in (None, event.on))
        own = shown.text(float(event.data["value"]), "°F")
        words = f"Box found at {own}, set {shown.text(record.unit.set_f, '°F', 0)}"
        return [sentence("found", words, (event,), "reading")] if first is event else []
    if not _is_told_found(call, event, key):
        return []
    coil = event.on or 1
    found = [_verdict(call, one, event) for one in verdicts.on(call.facts_found(coil)) if _rests_on(one, key) and _is_told(one)]
    raw = any(key in raw_keys and _is_off(call, quantity, coil) for quantity, raw_keys in RAW_FOR.items())
    changed = any(p.observed == key and _was_changed(call, code) for code, p in PARAMETERS.items()) or _cycles_show(call, key)
    value = event.get("value")
    if isinstance(value, (int, float)) and (raw or (not found and (changed or key in ALWAYS_FOUND))):
        label = observations.get(key).on(record.unit).label
        found.append(sentence("found", f"{label} {_figure_words(call, key, float(value))}", (event,), "reading"))
    return found


def _rests_on(one: verdicts.Verdict, key: str) -> bool:
    return key in (READ_FOR | TOLD_AT).get(one.quantity, (one.quantity,))


def _is_told(one: verdicts.Verdict) -> bool:
    """Whether a verdict is worth a sentence: out of its band and trusted, or superheat so low that liquid comes back; not by feel alone."""
    floods = one.quantity.startswith("superheat") and one.value <= FLOODS_F
    return one.trust in TRUSTED and not one.spread and one.quantity != "box_temp_f" and (one.state in ("low", "high") or floods)


def _is_off(call: Call, quantity: str, coil: int) -> bool:
    facts = call.facts_found(coil)
    return any(one.quantity == quantity and one.state != "ok" and one.trust in TRUSTED for one in verdicts.on(facts))


def _was_changed(call: Call, parameter: str) -> bool:
    return any(event.data["parameter"] == parameter and setting_changed(event) for event in call.record.all_of("setting"))


def _cycles_show(call: Call, key: str) -> bool:
    return key in ("lp_cut_in_psig", "lp_cut_out_psig") and bool(call.record.all_of("cycle"))


def _figure_words(call: Call, key: str, value: float) -> str:
    """A figure with its unit, and for a pressure that has one its saturation."""
    entry = observations.get(key)
    words = entry.show(value, True, call.shown)
    if key in ("suction_psig", "lp_cut_in_psig", "lp_cut_out_psig"):
        facts = call.judged.now(1).facts
        try:
            sst = call.record.unit_now.refrigerant.dew_f(value, facts.unit.altitude_ft)
        except ValueError:
            return words
        return f"{words}, a coil of {call.shown.text(sst, '°F', 0)}"
    return words


# What a technician calls some of the quantities.
_CALLED: Final = {"Superheat, coil": "Superheat at the coil", "Superheat, comp.": "Superheat at the compressor"}


def _verdict(call: Call, one: verdicts.Verdict, event: Event) -> Sentence:
    if one.quantity == "volts_off_pct":
        way = "less" if one.value < 0 else "more"
        plate_v = call.record.unit.nameplate_v
        meant = f"the plate’s {plate_v:.0f} V" if plate_v else "the nearest usual supply"
        words = f"The line has {abs(one.value):.0f} % {way} than {meant}"
        return sentence("found", words, (event,), "verdict")
    if one.quantity == "volts_imbalance_pct":
        return sentence("found", f"The legs are {one.value:.1f} % out of balance, {one.high:.0f} % is the limit", (event,), "verdict")
    label, unit, decimals = quantity_name(one.quantity)
    value = ohms_text(one.value) if unit == "Ω" else call.shown.text(one.value, unit, decimals)
    if unit == "Ω" or one.quantity in ("sensor_error_f",):
        return sentence("found", f"{label} {value}", (event,), "verdict")
    shown = call.shown.figure(one.value, unit, decimals)
    if shown in (call.shown.figure(one.low, unit, decimals), call.shown.figure(one.high, unit, decimals)):
        # Out of its band by less than is told of it.
        return sentence("found", f"{_name(label)} {value}{call.record.on_words(event.on)}", (event,), "verdict")
    limits = f"{call.shown.figure(one.low, unit, 0)} to {call.shown.text(one.high, unit, 0)}"
    state = one.state if one.state != "ok" else "in band"
    return sentence("found", f"{_name(label)} {value}{call.record.on_words(event.on)}, {state} for {limits}", (event,), "verdict")


def _name(label: str) -> str:
    return _CALLED.get(label, label)


def _found_word(call: Call, event: Event, key: str, value: object) -> list[Sentence]:
    entry = observations.get(key).on(call.record.unit)
    if entry.group in NOT_WRITTEN or not _is_told_found(call, event, key):
        return []
    facts = call.facts_found(event.on or 1)
    if stopped.says_nothing(key, facts) or (key in WORN and not (key == "compressor" and value in TRIES)):
        return []
    if any(opening.event is event and not opening.did.part for opening in call.staged.openings):
        words = f"{entry.label}: {lower(dict(entry.choices)[str(value)])} when looked at again, with nothing written down for it"
        return [sentence("found", f"{words}{call.record.on_words(event.on)}", (event,), "word")]
    usual = USUAL.get(key, {})
    if isinstance(value, (list, tuple)):
        bad = [word for word in value if word not in ("nowhere", "none")]
        return (
            [sentence("found", f"{entry.label}: {lower(entry.show(tuple(bad)))}{call.record.on_words(event.on)}", (event,), "word")]
            if bad
            else []
        )
    if value in ("none", "untested", "not_done", "unknown", "not_applicable"):
        return []
    wrong = not usual or (usual.get(str(value), 1.0) < UNUSUAL and value != max(usual, key=lambda word: usual[word]))
    words = lower(dict(entry.choices)[str(value)])
    if wrong:
        return [sentence("found", f"{labelled(entry.label, words)}{call.record.on_words(event.on)}", (event,), "word")]
    if entry.group in RIGHT_GROUPS and usual.get(str(value), 0.0) >= USUALLY:
        return [sentence("found", f"{lower(entry.label)} {words}{call.record.on_words(event.on)}", (event,), "right")]
    return []


def labelled(label: str, words: str) -> str:
    """Return a label with what it shows."""
    return f"{label} {words}" if label.endswith(SAYS_ITSELF) else f"{label}: {words}"


def _between(call: Call, event: Event, key: str, value: object) -> list[Sentence]:
    """Seen between two repairs: told where it is another thing wrong, which the next one was for."""
    entry = observations.get(key).on(call.record.unit)
    if entry.is_number or entry.group in NOT_WRITTEN or not isinstance(value, str) or key in WORN or key in WORDS_LEFT:
        return []
    facts = call.staged.facts_at(call.staged.stage_of(event), event.on or 1)
    usual = USUAL.get(key, {})
    wrong = not usual or (usual.get(value, 1.0) < UNUSUAL and value != max(usual, key=lambda word: usual[word]))
    if not wrong or stopped.says_nothing(key, facts) or key == "leak_test":
        return []
    words = lower(dict(entry.choices)[value])
    return [sentence("found", f"then {lower(labelled(entry.label, words))}{call.record.on_words(event.on)}", (event,), "word")]


def _left_reading(call: Call, event: Event, key: str, value: object) -> list[Sentence]:
    """What was read after the work, told once, as it was read last."""
    coil, place = event.on, call.record.place
    later = [
        one for one in call.staged.sightings
        if one.observed.key == key and one.observed.on in (None, coil) and place[one.event.number] > place[event.number]
    ]  # fmt: skip
    if later:
        return []
    entry, shown, on = observations.get(key).on(call.record.unit), call.shown, call.record.on_words(coil)
    facts = call.judged.now(coil or 1).facts
    if key == "suction_line_evap_f":
        superheat = facts.derived.get("superheat_evap_f")
        return (
            []
            if superheat is None
            else [sentence("left", f"superheat at the coil {shown.text(superheat, '°F diff')}{on}", (event,), "figure")]
        )
    if key == "liquid_line_f" and "subcooling_f" in facts.derived:
        return [sentence("left", f"subcooling {shown.text(facts.derived['subcooling_f'], '°F diff')}", (event,), "figure")]
    if entry.is_number and key in AS_LEFT and isinstance(value, (int, float)):
        words = entry.show(float(value), True, shown)
        set_words = f", set {shown.text(call.record.unit.set_f, '°F', 0)}" if key == "box_temp_f" else ""
        label = "box" if key == "box_temp_f" else lower(entry.label)
        return [sentence("left", f"{label} {words}{on}{set_words}", (event,), "figure")]
    if key == "air_weak_at" and tuple(value) == ("nowhere",) if isinstance(value, (list, tuple)) else False:
        return [sentence("left", f"air felt at every section{on}", (event,), "figure")]
    if key == "compressor" and value == "running" and call.facts_found(coil or 1).is_(key, *TRIES):
        return [sentence("left", "compressor running", (event,), "figure")]
    if not entry.is_number and key in WORDS_LEFT and isinstance(value, str) and not stopped.says_nothing(key, facts):
        return [
            sentence("left", f"{lower(labelled(entry.label, lower(dict(entry.choices)[value]))).replace(':', '')}{on}", (event,), "figure")
        ]
    return []
