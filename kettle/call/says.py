"""What of a call is written up: each kind of event has its sentence, in its section, before and after the repair apart.

Records that are one thing to a reader are one sentence: lots of gas, turns of a stem, the steps of a change, an evacuation. Readings are told
by what they show: as they were found where they were wrong or decided, and as they were left.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from kettle.benches.controls.registers import REGISTERS
from kettle.benches.defrost.program import clock, parse_clock
from kettle.benches.ice import map as ice_map
from kettle.benches.ice.melt import METHODS
from kettle.benches.refrigerant.change import PARTS, step_of
from kettle.benches.refrigerant.compressor import OIL
from kettle.benches.refrigerant.leaks import BACKGROUND, BY_CODE
from kettle.call import looks
from kettle.call.asks import lower, placed_words, still_there
from kettle.call.call import FOUND, LEFT, Call
from kettle.call.events import Event
from kettle.call.hears import (
    drawn,
    figure,
    ice_read,
    moved_oz,
    places_found,
    program_before,
    program_changed,
    setting_changed,
    stood,
)
from kettle.call.proves import READ_FOR
from kettle.call.turns import turn_words, turns
from kettle.judging import running, verdicts
from kettle.judging.evidence import quantity_name
from kettle.judging.holds import ACTIONS
from kettle.knowledge import acts, anatomy, causes, observations
from kettle.knowledge.causes.usual import USUAL
from kettle.knowledge.parameters import PARAMETERS
from kettle.knowledge.units import format_number, ohms_text
from kettle.power.circuit import STATES

SECTIONS: Final = {"found": "What was found", "done": "What was done", "left": "How it was left", "advice": "Advice"}
# A word seen on fewer sound units than this is worth writing down.
UNUSUAL: Final = 0.3
# And one seen at least so often is right.
USUALLY: Final = 0.45
NOT_WRITTEN: Final = ("told", "safety")
TRUSTED: Final = ("good", "weak")
MOST_MEASURED: Final = 16
# Figures that are told as they were left wherever they were read after the work, in this order.
AS_LEFT: Final = (
    "box_temp_f", "return_air_f", "product_temp_f", "superheat_evap_f", "suction_psig", "discharge_psig", "subcooling_f", "split_f",
    "receiver_level_pct", "compressor_amps", "lp_cut_in_psig", "lp_cut_out_psig",
)  # fmt: skip
# Words that are told as they were left.
WORDS_LEFT: Final = ("sight_glass", "coil_outlet_feel", "drain", "drain_pan", "compressor_shell", "discharge_line_feel")
# Raw figures that are told with what is worked out from them where that is out of its band.
RAW_FOR: Final = {
    "superheat_evap_f": ("suction_psig",), "superheat_comp_f": ("suction_psig",), "td_f": ("suction_psig",), "split_f": ("discharge_psig",),
}  # fmt: skip
# Figures that are told as found whenever they were read, wrong or right: what is set, what the weather was, what was weighed against.
ALWAYS_FOUND: Final = ("ambient_f", "product_temp_f", "receiver_level_pct", "drier_drop_f", "display_temp_f")
# Words that follow a label by themselves.
SAYS_ITSELF: Final = ("feels", "sounds", "by", "at", "is", "shows")
WORN: Final = ("control_call", "compressor", "contactor", "power_locked_out", "box_trend", "door_traffic", "suction_line_feel", "ice_form")
RIGHT_GROUPS: Final = ("ice", "air", "condenser", "circuit", "power")


@dataclass(frozen=True)
class Sentence:
    """One sentence of the write-up: its section, its text, the events it was written from, and what kind of thing it tells.

    `follows` names what it follows from where it is of no event by itself.
    """

    section: str
    text: str
    events: tuple[Event, ...]
    kind: str = ""
    follows: tuple[str, ...] = ()

    @property
    def refs(self) -> tuple[str, ...]:
        """The references of the records it was written from."""
        return tuple(dict.fromkeys((*(event.ref or f"event:{event.number}" for event in self.events), *self.follows)))


def _sentence(section: str, text: str, events: Iterable[Event], kind: str = "") -> Sentence:
    text = text.strip().rstrip(".")
    return Sentence(section, f"{text[:1].upper()}{text[1:]}.", tuple(events), kind)


def listed(words: Sequence[str]) -> str:
    """Return words as a list in a sentence."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def plain(value: float) -> str:
    """Return a figure without decimals it does not need."""
    return format_number(value, 0 if value == int(value) else 1)


def day(at: datetime | str) -> str:
    """Return a day as it is said."""
    return f"{datetime.fromisoformat(at) if isinstance(at, str) else at:%-d %B}"


# Observations ------------------------------------------------------------------------------------------------------------------------


def reading(call: Call, event: Event) -> list[Sentence]:
    """What an observation shows: as found where it was wrong, unusual or decided, as left where it was read after the work."""
    return observed(call, event, event.data["key"], event.data["value"])


def observed(call: Call, event: Event, key: str, value: object) -> list[Sentence]:
    """Return what an observation shows, whichever kind of event it came by."""
    entry = observations.get(key).on(call.record.unit)
    if key == "complaint" and isinstance(value, (list, tuple)):
        return [_sentence("found", f"Called about: {lower(entry.show(value))}", (event,), "told")]
    if key == "inside_release" and value == "fails":
        return [_sentence("found", "The inside release fails", (event,), "safety")]
    phase = call.phase(event)
    if phase == LEFT and call.staged.steps:
        return _left_reading(call, event, key, value)
    if phase != FOUND:
        return _between(call, event, key, value)
    if entry.is_number:
        return _found_figure(call, event, key)
    return _found_word(call, event, key, value)


def _latest_found(call: Call, key: str, coil: int | None) -> Event | None:
    """The last event of a key before the first repair, on a coil."""
    mine = [
        one.event
        for one in call.staged.sightings
        if one.observed.key == key and call.phase(one.event) == FOUND and one.observed.on in (None, coil)
    ]
    return mine[-1] if mine else None


def _found_figure(call: Call, event: Event, key: str) -> list[Sentence]:
    record, coil = call.record, event.on or 1
    first = next(one.event for one in call.staged.sightings if one.observed.key == key and one.observed.on in (None, event.on))
    shown, found = call.shown, []
    entry = observations.get(key).on(record.unit)
    if key in ("box_temp_f",):
        if first is not event:
            return []
        own = shown.text(float(event.data["value"]), "°F")
        return [_sentence("found", f"Box {own}, set {shown.text(record.unit.set_f, '°F', 0)}", (event,), "reading")]
    if _latest_found(call, key, event.on) is not event:
        return []
    facts = call.facts_found(coil)
    told_raw = False
    for one in verdicts.on(facts):
        needs = READ_FOR.get(one.quantity, (one.quantity,))
        if key not in needs or one.trust not in TRUSTED or one.quantity == "box_temp_f" or one.spread:
            continue
        floods = one.quantity.startswith("superheat") and one.value <= 3.0
        if one.state in ("low", "high") or floods:
            found.append(_verdict(call, one, event))
    value = event.get("value")
    raw = any(key in raw_keys for quantity, raw_keys in RAW_FOR.items() if _is_off(call, quantity, coil))
    changed = any(p.observed == key and _was_changed(call, code) for code, p in PARAMETERS.items()) or _cycles_show(call, key)
    if not told_raw and isinstance(value, (int, float)) and (raw or changed or key in ALWAYS_FOUND) and not found or raw and isinstance(value, (int, float)):
        found.append(_sentence("found", f"{entry.label} {_figure_words(call, key, float(value))}", (event,), "reading"))
    return found


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


def _verdict(call: Call, one: verdicts.Verdict, event: Event) -> Sentence:
    label, unit, decimals = quantity_name(one.quantity)
    value = ohms_text(one.value) if unit == "Ω" else call.shown.text(one.value, unit, decimals)
    if unit == "Ω" or one.quantity in ("sensor_error_f",):
        return _sentence("found", f"{label} {value}", (event,), "verdict")
    limits = f"{call.shown.figure(one.low, unit, 0)} to {call.shown.text(one.high, unit, 0)}"
    state = one.state if one.state != "ok" else "in band"
    return _sentence("found", f"{_name(label)} {value}{call.record.on_words(event.on)}, {state} for {limits}", (event,), "verdict")


# What a technician calls some of the quantities.
_CALLED: Final = {"Superheat, coil": "Superheat at the coil", "Superheat, comp.": "Superheat at the compressor"}


def _name(label: str) -> str:
    return _CALLED.get(label, label)


def _found_word(call: Call, event: Event, key: str, value: object) -> list[Sentence]:
    entry = observations.get(key).on(call.record.unit)
    if entry.group in NOT_WRITTEN or _latest_found(call, key, event.on) is not event:
        return []
    facts = call.facts_found(event.on or 1)
    if running.says_nothing(key, facts) or key in WORN:
        return []
    usual = USUAL.get(key, {})
    if isinstance(value, (list, tuple)):
        bad = [word for word in value if word not in ("nowhere", "none")]
        return (
            [_sentence("found", f"{entry.label}: {lower(entry.show(tuple(bad)))}{call.record.on_words(event.on)}", (event,), "word")]
            if bad
            else []
        )
    if value in ("none", "untested", "not_done", "unknown", "not_applicable"):
        return []
    wrong = not usual or (usual.get(str(value), 1.0) < UNUSUAL and value != max(usual, key=lambda word: usual[word]))
    words = lower(dict(entry.choices)[str(value)])
    if wrong:
        return [_sentence("found", f"{labelled(entry.label, words)}{call.record.on_words(event.on)}", (event,), "word")]
    if entry.group in RIGHT_GROUPS and usual.get(str(value), 0.0) >= USUALLY:
        return [_sentence("found", f"{lower(entry.label)} {words}{call.record.on_words(event.on)}", (event,), "right")]
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
    if not wrong or running.says_nothing(key, facts) or key == "leak_test":
        return []
    words = lower(dict(entry.choices)[value])
    return [_sentence("found", f"then {lower(labelled(entry.label, words))}{call.record.on_words(event.on)}", (event,), "word")]


def _left_reading(call: Call, event: Event, key: str, value: object) -> list[Sentence]:
    coil = event.on
    later = [
        one for one in call.staged.sightings
        if one.observed.key == key and one.observed.on in (None, coil) and call.record.place[one.event.number] > call.record.place[event.number]
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
            else [_sentence("left", f"superheat at the coil {shown.text(superheat, '°F diff')}{on}", (event,), "figure")]
        )
    if key == "liquid_line_f" and "subcooling_f" in facts.derived:
        return [_sentence("left", f"subcooling {shown.text(facts.derived['subcooling_f'], '°F diff')}", (event,), "figure")]
    if entry.is_number and key in AS_LEFT and isinstance(value, (int, float)):
        words = entry.show(float(value), True, shown)
        set_words = f", set {shown.text(call.record.unit.set_f, '°F', 0)}" if key == "box_temp_f" else ""
        label = "box" if key == "box_temp_f" else lower(entry.label)
        return [_sentence("left", f"{label} {words}{on}{set_words}", (event,), "figure")]
    if key == "air_weak_at" and tuple(value) == ("nowhere",) if isinstance(value, (list, tuple)) else False:
        return [_sentence("left", f"air felt at every section{on}", (event,), "figure")]
    if not entry.is_number and key in WORDS_LEFT and isinstance(value, str) and not running.says_nothing(key, facts):
        return [
            _sentence("left", f"{lower(labelled(entry.label, lower(dict(entry.choices)[value]))).replace(':', '')}{on}", (event,), "figure")
        ]
    return []


def measured(call: Call, event: Event) -> list[Sentence]:
    """What a meter showed, by the state it was in; amps of the compressor's legs together."""
    phase = call.phase(event)
    if event.data["what"] == "amps" and event.data["one"].startswith("lead_") and phase == LEFT:
        return _legs(call, event)
    state = event.get("state", "calling")
    run = [
        one
        for one in call.record.all_of("measured")
        if one.get("state", "calling") == state and call.phase(one) == phase and not _is_leg(one)
    ]
    if not run or run[0] is not event:
        return []
    last: dict[tuple[str, frozenset[str]], Event] = {}
    for one in run:
        last.pop((one.data["what"], frozenset((one.data["one"], one.get("other", "")))), None)
        last[one.data["what"], frozenset((one.data["one"], one.get("other", "")))] = one
    shown = list(last.values())[-MOST_MEASURED:]
    words = "; ".join(measured_words(call, one) for one in shown)
    section = "left" if phase == LEFT and call.staged.steps else "found"
    return [_sentence(section, f"measured, {STATES[state]}: {words}", run, "measured")]


def _is_leg(event: Event) -> bool:
    return bool(event.data["what"] == "amps" and event.data["one"].startswith("lead_"))


def _legs(call: Call, event: Event) -> list[Sentence]:
    last = {one.data["one"]: one for one in call.record.all_of("measured") if _is_leg(one) and call.phase(one) == LEFT}
    legs = [last[key] for key in sorted(last)]
    if min(legs, key=lambda one: call.record.place[one.number]) is not event:
        return []
    figures = listed([f"{format_number(figure(one))} A" for one in legs])
    return [_sentence("left", f"compressor draws {figures}" + (" on its legs" if len(legs) > 1 else ""), legs, "figure")]


UNITS: Final = {"volts": "V", "amps": "A", "microfarads": "µF"}


def measured_figure(event: Event) -> str:
    """Return what a meter showed with its unit: 0.30 Ω is not 0 Ω, and OL is a reading."""
    if event.data["value"] == "OL":
        return "OL"
    value = float(event.data["value"])
    if event.data["what"] == "ohms":
        return ohms_text(value)
    return f"{plain(value)} {UNITS[event.data['what']]}"


def measured_words(call: Call, event: Event) -> str:
    """Return a measurement in words: what, and between which points, by name."""
    circuit = call.record.circuit
    labels = {point.key: point.label for point in circuit.points} | {part.key: part.label.lower() for part in circuit.parts}

    def name(key: str) -> str:
        return f"{key} ({labels[key]})" if key in labels and event.get("other") else labels.get(key, key)

    value = measured_figure(event)
    if not event.get("other"):
        return f"{value} at the {name(event.data['one'])}"
    return f"{value} {event.data['one']} to {event.data['other']} ({labels.get(event.data['one'], '')} to {labels.get(event.data['other'], '')})"


def looked(call: Call, event: Event) -> list[Sentence]:
    """A part as it was seen."""
    look = looks.get(event.data["part"], event.data["state"])
    note = f" ({event.data['note']})" if event.get("note") else ""
    section = "left" if call.phase(event) == LEFT and call.staged.steps else "found"
    return [_sentence(section, f"{look.label}{call.record.on_words(event.on)}{note}", (event,), "word")]


def ice(call: Call, event: Event) -> list[Sentence]:
    """Ice as it was found, and a coil seen bare."""
    form, places = ice_read(call.record, event)
    painted = drawn(event)
    on = call.record.on_words(event.on)
    melted = any(
        step.did.code == "coil.melted"
        and step.did.on in (None, event.on)
        and call.record.place[step.event.number] < call.record.place[event.number]
        for step in call.staged.steps
    )
    if form == "none" and not (painted and painted.iced_places):
        later = [
            one
            for one in call.record.all_of("ice")
            if one.on in (None, event.on) and call.record.place[one.number] > call.record.place[event.number]
        ]
        if not melted:
            return (
                []
                if painted is None and event.get("covers_pct") is None
                else [_sentence("found", f"Coil bare of ice{on}", (event,), "right")]
            )
        behind = ", back and corners too" if painted is not None and all(painted.places.get(p) == "none" for p in ice_map.HIDDEN) else ""
        when = f" on {day(event.at)}" if event.at is not None and _another_day(call, event) else ""
        return [] if later else [_sentence("left", f"Coil seen bare{on}{when}{behind}", (event,), "proof")]
    words = ice_map.FORM_WORDS.get(form, form)
    covered = event.get("covers_pct")
    if painted is not None:
        covered = ice_map.read(painted, event.get("face_ft2", 1.0)).covered_pct
        labels = [lower(ice_map.PLACES[code].label) for code in painted.iced_places]
    else:
        known = dict(observations.get("ice_places").choices) | {code: place.label for code, place in ice_map.PLACES.items()}
        labels = [lower(known[code]) for code in event.get("places", ()) if code != "coil_whole"]
    share = f" over {format_number(float(covered), 0)} % of the coil" if covered is not None else ""
    at = f", at {listed(labels)}" if labels else ", over the whole coil" if "coil_whole" in places and not share else ""
    section = "left" if melted else "found"
    name = call.record.coil_name(event.on)
    where = f" on coil {name}" if name else ""
    if name:
        share = share.replace(" of the coil", " of it")
    return [_sentence(section, f"{words}{where}{share}{at}", (event,), "ice")]


def _another_day(call: Call, event: Event) -> bool:
    first = next((one.at for one in call.record.standing if one.at is not None), None)
    return first is not None and event.at is not None and event.at.date() != first.date()


# Acts --------------------------------------------------------------------------------------------------------------------------------


def act(call: Call, event: Event) -> list[Sentence]:
    """Something done: two equal ones are *twice*, turns of a stem with whether they answered, gas without a scale."""
    part, did = event.data["part"], event.data["did"]
    if part == "valve" and did in ("turned_in", "turned_out"):
        return _turned(call, event)
    if part == "charge":
        return _gas_by_hand(call, event)
    same = [one for one in call.record.all_of("act") if _same(one, event)]
    if same[0] is not event:
        return []
    entry = acts.get(part, did)
    amount = f", {call.shown.plain(float(event.data['value']), entry.unit)}" if event.get("value") is not None and entry.unit else ""
    again = {1: "", 2: ", twice"}.get(len(same), f", {len(same)} times")
    notes = list(dict.fromkeys(lower(str(one.data["note"])) for one in same if one.get("note")))
    note = f" ({'; '.join(notes)})" if notes else ""
    section = "advice" if f"{part}.{did}" == "leak.given_up" else "done"
    return [_sentence(section, f"{entry.label}{call.record.on_words(event.on)}{amount}{again}{note}", same, "act")]


def _same(one: Event, event: Event) -> bool:
    return all(one.get(name) == event.get(name) for name in ("part", "did", "value")) and one.on == event.on


def _turned(call: Call, event: Event) -> list[Sentence]:
    """Turns of one stem: those alike in a row are one sentence, with what they brought."""
    coil = event.on or 1
    every = turns(call.staged, coil)
    answers = {one.event.number: one for one in every}
    run = _run_of_turns(call, event)
    if not run:
        return []
    again = {1: "", 2: ", twice"}.get(len(run), f", {len(run)} times")
    told = [answers[one.number].answered for one in run if one.number in answers]
    last = answers.get(run[-1].number)
    answer = ""
    if told and all(one is False for one in told):
        answer = ", no answer"
    elif last is not None and last.answered and last.after_f is not None and last.before_f is not None:
        answer = f": {call.shown.text(last.before_f, '°F diff')} before, {call.shown.text(last.after_f, '°F diff')} after"
    notes = [lower(str(one.data["note"])) for one in run if one.get("note")]
    note = f" ({'; '.join(dict.fromkeys(notes))})" if notes else ""
    way = "in" if event.data["did"] == "turned_in" else "out"
    against = [one for one in run if one.get("reason")]
    went_on = (
        f", against advice ({lower(str(against[0].get('against', 'it was to wait')))}), because {lower(str(against[0].data['reason']))}"
        if against
        else ""
    )
    size = turn_words(float(event.get("value", 0.0)))
    return [_sentence("done", f"Valve turned {way} {size}{call.record.on_words(event.on)}{again}{answer}{note}{went_on}", run, "act")]


def _run_of_turns(call: Call, event: Event) -> list[Event]:
    """The turns alike in a row that an event begins; empty where it goes on with one before."""
    mine = [one for one in call.record.all_of("act") if one.data["part"] == "valve" and one.on == event.on]
    place = mine.index(event)
    if place and _alike(mine[place - 1], event):
        return []
    run = [event]
    for after in mine[place + 1 :]:
        if not _alike(after, event):
            break
        run.append(after)
    return run


def _alike(one: Event, other: Event) -> bool:
    return one.data["did"] == other.data["did"] and one.get("value") == other.get("value") and not one.get("note") and not other.get("note")


def _gas_by_hand(call: Call, event: Event) -> list[Sentence]:
    words = {"added": "added", "recovered": "recovered", "weighed_in": "weighed in"}[event.data["did"]]
    gas = refrigerant_at(call, event)
    note = f" ({lower(str(event.data['note']))})" if event.get("note") else ""
    if event.get("value") is None or event.get("by_eye"):
        amount = f", about {call.shown.text(float(event.data['value']), 'oz', 0)}" if event.get("value") else ""
        return [_sentence("done", f"{gas} {words} by eye, without a scale{amount}{note}", (event,), "act")]
    return [_sentence("done", f"{ounces(call, float(event.data['value']))} of {gas} {words}{note}", (event,), "act")]


def refrigerant_at(call: Call, event: Event) -> str:
    """Return the refrigerant that was in the unit when something happened: that of the plate until it was changed for another."""
    name = call.record.unit.refrigerant.name
    for one in call.record.all_of("retrofit"):
        if call.record.place[one.number] <= call.record.place[event.number]:
            name = str(one.data["to"])
    return name


def ounces(call: Call, oz: float) -> str:
    """Return a weight of gas, without decimals it does not need."""
    return call.shown.plain(oz, "oz")


def melt(call: Call, event: Event) -> list[Sentence]:
    """How the ice was taken off, and whether all of it."""
    method = METHODS[event.data["method"]].label
    minutes = f" in {format_number(float(event.data['minutes']), 0)} min" if event.get("minutes") is not None else ""
    clear = {True: ", all clear", False: ", ice left"}.get(event.get("all_clear"), "")
    why = f" ({lower(str(event.data['left_why']))})" if event.get("left_why") else ""
    name = call.record.coil_name(event.on)
    coil = f"Coil {name}" if name else "Coil"
    return [_sentence("done", f"{coil} melted{minutes}, {_how(event.data['method'], method)}{clear}{why}", (event,), "act")]


def _how(code: str, label: str) -> str:
    return {
        "own_heaters": "by its own heaters, power on", "fans_only": "by its fans alone, box held open", "flame": "with a flame",
        "heat_gun": "with a heat gun", "hose": "with a hose",
    }.get(code, f"with {lower(label.partition(',')[0])}")  # fmt: skip


def weighed(call: Call, event: Event) -> list[Sentence]:
    """Gas by the scale: lots from one cylinder in a row are one sentence, with what it came to."""
    run = [one for one in call.record.all_of("weighed") if _one_lot(one, event)]
    if run[0] is not event:
        return []
    words = {"added": "added", "recovered": "recovered", "weighed_in": "weighed in"}[event.data["did"]]
    gas = event.get("refrigerant") or refrigerant_at(call, event)
    cylinder = event.get("cylinder")
    into = f" {'into' if words == 'recovered' else 'from'} cylinder {cylinder}" if cylinder else ""
    form = f" as {event.data['form']}" if event.get("form") else ""
    lots = [moved_oz(one) for one in run]
    whole = ounces(call, sum(lots))
    if len(lots) > 1:
        each = listed([f"{plain(one)}" for one in lots])
        whole = f"{whole} in {len(lots)} lots ({each} oz)"
    notes = [lower(str(one.data["note"])) for one in run if one.get("note")]
    note = f" ({'; '.join(dict.fromkeys(notes))})" if notes else ""
    scale = [f"{plain(float(one.data['before_oz']))} to {plain(float(one.data['after_oz']))}" for one in run]
    return [_sentence("done", f"{gas} {words}{form}{into}: {whole}, scale {listed(scale)} oz{note}", run, "act")]


def _one_lot(one: Event, event: Event) -> bool:
    return all(one.get(name) == event.get(name) for name in ("did", "refrigerant", "cylinder", "form"))


def program(call: Call, event: Event) -> list[Sentence]:
    """Defrosts as they were found, and what they were changed to and why."""
    if event.data["side"] == "found":
        last = call.record.last("program", lambda e: e.data["side"] == "left" and program_changed(call.record, e))
        if last is not None and program_before(call.record, last) is event:
            return []
        return [_sentence("found", f"Defrosts {_starts(event)}", (event,), "program")]
    if not program_changed(call.record, event):
        return []
    before = program_before(call.record, event)
    why = f", because {lower(str(event.data['why']))}" if event.get("why") else ""
    return [
        _sentence(
            "done", f"Defrosts changed from {_starts(before)} to {_starts(event)}{why}", (before, event) if before else (event,), "program"
        )
    ]


def _starts(event: Event | None) -> str:
    if event is None:
        return "nobody read"
    starts = [clock(parse_clock(one)) for one in event.get("starts", ())]
    at = f" ({' '.join(starts)})" if starts else ""
    figures = event.get("figures", {})
    most = f", at most {plain(float(figures['fail_safe_min']))} min" if figures.get("fail_safe_min") else ""
    ends = f", ending at {call_f(figures['termination_f'])}" if figures.get("termination_f") else ""
    return f"{len(starts)} a day{at}{most}{ends}"


def call_f(value: float) -> str:
    """Return a setting in °F as a plate has it."""
    return f"{plain(float(value))} °F"


def setting(call: Call, event: Event) -> list[Sentence]:
    """Settings changed for one reason in a row are one sentence; those read and right are told as found."""
    if not setting_changed(event):
        if event.get("found") in (None, ""):
            return []
        return [_sentence("found", f"{PARAMETERS[event.data['parameter']].label} {_set_words(event, 'found')}, right", (event,), "setting")]
    run = [one for one in call.record.all_of("setting") if setting_changed(one) and one.get("why") == event.get("why")]
    if run[0] is not event:
        return []
    last = {one.data["parameter"]: one for one in run}
    first = {one.data["parameter"]: one for one in reversed(run)}
    changes = [_changed_words(first[code], last[code]) for code in last]
    why = f", because {lower(str(event.data['why']))}" if event.get("why") else ""
    return [_sentence("done", f"{'; '.join([changes[0], *(lower(one) for one in changes[1:])])}{why}", run, "setting")]


def _changed_words(first: Event, last: Event) -> str:
    parameter = PARAMETERS[last.data["parameter"]]
    if last.data["parameter"] == "other":
        return f"{_set_words(first, 'found')} changed to {_set_words(last, 'left')}"
    return f"{parameter.label} from {_set_words(first, 'found')} to {_set_words(last, 'left')}"


def _set_words(event: Event, side: str) -> str:
    value = event.get(side, "")
    if isinstance(value, (int, float)):
        unit = PARAMETERS[event.data["parameter"]].unit.replace(" diff", "")
        return f"{plain(float(value))} {unit}".strip()
    return str(value) or "not set"


def watched(call: Call, event: Event) -> list[Sentence]:
    """A defrost watched: how long, what ended it, the coil after it."""
    if not event.get("ended_by"):
        return []
    ended = {"termination": "ended by temperature", "time": "ended by time", "hand": "ended by hand"}.get(
        event.data["ended_by"], "seen to end"
    )
    minutes = f" after {format_number(float(event.data['minutes']), 0)} min" if event.get("minutes") is not None else ""
    coil = {"clear": ", coil clear", "part_iced": ", part of the coil still iced", "iced": ", coil still iced"}.get(
        event.get("coil_after", ""), ""
    )
    fans = {"off": ", fans off", "running": ", fans running"}.get(event.get("fans", ""), "")
    section = "left" if call.phase(event) == LEFT and call.staged.steps else "found"
    return [_sentence(section, f"one defrost watched{call.record.on_words(event.on)}: {ended}{minutes}{coil}{fans}", (event,), "proof")]


def cycle(call: Call, event: Event) -> list[Sentence]:
    """The cycles watched, together."""
    run = [one for one in call.record.all_of("cycle") if call.phase(one) == call.phase(event)]
    if run[0] is not event:
        return []
    section = "left" if call.phase(event) == LEFT and call.staged.steps else "found"
    parts = []
    for on, name in (("on_min", "on"), ("off_min", "off")):
        minutes = [plain(float(one.data[on])) for one in run if one.get(on) is not None]
        if minutes:
            parts.append(f"{listed(minutes)} min {name}")
    last = run[-1]
    parts += [
        f"{label} {plain(float(last.data[name]))} psig"
        for name, label in (("cut_in_psig", "cut-in"), ("cut_out_psig", "cut-out"))
        if last.get(name) is not None
    ]
    if last.get("box_low_f") is not None and last.get("box_high_f") is not None:
        parts.append(f"box {call.shown.span(float(last.data['box_low_f']), float(last.data['box_high_f']), '°F')}")
    many = {1: "one cycle", 2: "two cycles"}.get(len(run), f"{len(run)} cycles")
    return [_sentence(section, f"{many} watched: {', '.join(parts)}" if parts else f"{many} watched", run, "proof")]


def leak_look(call: Call, event: Event) -> list[Sentence]:
    """A leak's place where it was found, how; the repair looked at again; a search that found nothing."""
    looks_at = [one for one in call.record.all_of("leak_look") if one.data["place"] != BACKGROUND]
    place = event.data["place"]
    if place == BACKGROUND:
        return []
    label, on = lower(BY_CODE[place].label), call.record.on_words(event.on)
    before = [one for one in looks_at if call.record.place[one.number] < call.record.place[event.number] and one.data["place"] == place]
    if place in places_found(call.record, event) and not (before and place in places_found(call.record, before[-1])):
        how = "bubbles" if event.data["heard"] == "bubbles" else "signalled twice, its neighbours quiet"
        reads = f", detector {plain(float(event.data['reading']))}" if event.get("reading") is not None else ""
        return [_sentence("found", f"Leak found at the {label}{on}: {how}{reads}", (event,), "leak")]
    if event.data["heard"] == "no" and any(one.data["heard"] in ("bubbles", "twice") for one in before):
        return [_sentence("done", f"No bubbles any more at the {label}{on}", (event,), "proof")]
    quiet = [
        one
        for one in looks_at
        if one.data["heard"] == "no" and not any(o.data["heard"] != "no" for o in looks_at if o.data["place"] == one.data["place"])
    ]
    if quiet and quiet[0] is event and not any(places_found(call.record, one) for one in looks_at):
        places = list(dict.fromkeys(lower(BY_CODE[one.data["place"]].label) for one in quiet))
        return [_sentence("found", f"Searched for a leak, none found at: {'; '.join(places)}", quiet, "leak")]
    return []


def nitrogen(call: Call, event: Event) -> list[Sentence]:
    """A pressure test, held or lost."""
    told, d, shown = stood(call.record, event), event.data, call.shown
    pressures = f"{shown.text(float(d['start_psig']), 'psig', 0)} at {shown.text(float(d['start_f']), '°F', 0)}"
    now = f"{shown.text(float(d['now_psig']), 'psig', 1)} at {shown.text(float(d['now_f']), '°F', 0)}"
    minutes = format_number(float(d["minutes"]), 0)
    word = "lost pressure" if told.leaks else "held"
    return [_sentence("done", f"Dry nitrogen, {pressures}, {word} over {minutes} min: {now}", (event,), "test")]


def vacuum(call: Call, event: Event) -> list[Sentence]:
    """An evacuation: how low, and what it held without the pump."""
    run = call.group(event, "vacuum", apart=("nitrogen", "weighed", "first_start"))
    if not run:
        return []
    low = min((float(one.data["microns"]) for one in run if one.get("pump", True)), default=None)
    off = [one for one in run if not one.get("pump", True)]
    words = f"Evacuated to {format_number(low, 0)} microns" if low is not None else "Evacuated"
    if off:
        shut = next((one for one in reversed(run) if one.get("pump", True)), None)
        held = format_number(float(off[-1].data["microns"]), 0)
        minutes = (off[-1].at - shut.at).total_seconds() / 60.0 if shut is not None and shut.at and off[-1].at else None
        after = (
            f" {format_number(minutes, 0)} min after the pump was shut off" if minutes is not None and minutes > 0 else " without the pump"
        )
        words += f"; {held} microns{after}"
    return [_sentence("done", words, run, "test")]


def step(call: Call, event: Event) -> list[Sentence]:
    """The steps of a change, together, each with its note."""
    run = [one for one in call.record.all_of("step") if one.data["of"] == event.data["of"]]
    if run[0] is not event:
        return []
    of = event.data["of"]
    words = []
    for code in dict.fromkeys(one.data["step"] for one in run):
        known = step_of(of, code)
        notes = [str(one.data["note"]) for one in run if one.data["step"] == code and one.get("note")]
        note = f" ({'; '.join(dict.fromkeys(notes))})" if notes else ""
        words.append(f"{lower(known.does) if known else code}{note}")
    title = "Triple evacuation" if of == "triple" else f"Change of the {lower(PARTS[of])}"
    return [_sentence("done", f"{title}: {'; '.join(words)}", run, "step")]


def first_start(call: Call, event: Event) -> list[Sentence]:
    """The first half hour of a new compressor."""
    run = list(call.record.all_of("first_start"))
    if run[0] is not event:
        return []
    shown = call.shown
    each = [
        f"after {plain(float(one.data['minute']))} min {format_number(float(one.data['amps']))} A, suction "
        f"{shown.text(float(one.data['suction_psig']), 'psig', 0)}, discharge {shown.text(float(one.data['discharge_psig']), 'psig', 0)}, "
        f"oil {OIL[one.data['oil']]}"
        for one in run
    ]
    return [_sentence("done", f"First start: {'; '.join(each)}", run, "test")]


def wires(call: Call, event: Event) -> list[Sentence]:
    """That the wires of the start gear were noted; the drawing shows which."""
    words = "as found" if event.data["which"] == "found" else "for the new parts"
    return [_sentence("done", f"Wires of the start gear noted by function, {words}", (event,), "step")]


def retrofit(call: Call, event: Event) -> list[Sentence]:
    """The refrigerant changed, the old one named."""
    before = call.record.unit.refrigerant.name
    for one in call.record.all_of("retrofit"):
        if one is event:
            break
        before = one.data["to"]
    oil = f", oil {event.data['oil']}" if event.get("oil") else ""
    return [_sentence("done", f"Refrigerant changed from {before} to {event.data['to']}{oil}", (event,), "act")]


def placed(call: Call, event: Event) -> list[Sentence]:
    """What still stands there, and what no longer happens by itself; what is gone again is told as done."""
    if event in still_there(call):
        return [_sentence("left", f"Still there: {lower(placed_words(event))}", (event,), "left_there")]
    return [_sentence("done", f"{placed_words(event)}, taken away again", (event,), "act")]


def found(call: Call, event: Event) -> list[Sentence]:
    """What the technician says it is."""
    if call.record.last("found", lambda e: e.on == event.on) is not event:
        return []
    labels = " and ".join(lower(cause_label(call, code)) for code in event.data["causes"]) or "nothing wrong found"
    return [_sentence("found", f"The cause{call.record.on_words(event.on)}: {labels}", (event,), "cause")]


def cause_label(call: Call, code: str) -> str:
    """Return what a cause is called on a call: a charge that never was complete is no leak."""
    if code == "undercharge" and _first_fill(call):
        return "Charge not complete yet"
    return causes.get(code).label


def _first_fill(call: Call) -> bool:
    return any(done.first_fill for done in call.staged.done(1))


# Two or three words for a hold, where somebody went on against it.
HELD: Final = {
    "iced_coil": "coil iced", "fans_not_running": "fans not running", "condenser_blocked": "condenser blocked",
    "condenser_fan_stopped": "condenser fan standing", "box_far_from_set": "box far from set", "settling": "not settled yet",
    "glass_alone": "bubbles alone", "receiver_subcooling": "receiver in the circuit", "critical_charge": "critical charge",
    "bulb_first": "bulb first", "as_found_first": "settings not read", "flammable": "flammable refrigerant", "lock_out": "no lock-out",
    "licensed_work": "licensed work", "lone_working": "alone in the box", "grounded_compressor": "winding to ground",
    "grounded_heater": "heater to ground",
}  # fmt: skip


def override(call: Call, event: Event) -> list[Sentence]:
    """What he went on with against a hold, in a few words, and why; only where he did go on."""
    if event.get("action") == "close":
        return [_sentence("left", f"Left so: {lower(str(event.data['reason']))}", (event,), "override")]
    held = listed([HELD.get(code, code.replace("_", " ")) for code in event.get("holds", ())]) if event.get("holds") else "advice"
    what = ACTIONS.get(event.get("action", ""), "went on")
    return [_sentence("done", f"{what} against {held}, because {lower(str(event.data['reason']))}", (event,), "override")]


def sibling(call: Call, event: Event) -> list[Sentence]:
    """How the other boxes on the plant were found."""
    run = list({one.data["name"]: one for one in call.record.all_of("sibling")}.values())
    if run[0] is not event and call.record.all_of("sibling")[0] is not event:
        return []
    if call.record.all_of("sibling")[0] is not event:
        return []
    words = [
        f"{one.data['name']} {'fine' if one.data['state'] == 'ok' else 'bad too'}" + (f" ({one.data['words']})" if one.get("words") else "")
        for one in run
    ]
    return [_sentence("found", f"On the same plant: {'; '.join(words)}", run, "word")]


def decided(call: Call, event: Event) -> list[Sentence]:
    """What the customer decided."""
    by = f" by the {event.data['by']}" if event.get("by") else ""
    if event.data["what"] == "declined":
        return [_sentence("advice", f"Declined{by}: {event.get('reason', 'what was advised')}", (event,), "decided")]
    if event.data["what"] == "charge_without_repair":
        why = f", because {lower(str(event.data['reason']))}" if event.get("reason") else ""
        return [_sentence("advice", f"Gas without the repair was decided{by}{why}", (event,), "decided")]
    why = f": {event.data['reason']}" if event.get("reason") else ""
    return [_sentence("advice", f"Decided{by}, {lower(str(event.data['what']).replace('_', ' '))}{why}", (event,), "decided")]


def left_so(call: Call, event: Event) -> list[Sentence]:
    """The answer to something left, with its reason."""
    if not event.get("reason") or call.record.last("left_so", lambda e: e.data["what"] == event.data["what"]) is not event:
        return []
    what = LEFT_SO.get(str(event.data["what"]).partition(":")[0], "")
    return [_sentence("left", f"{what}{': ' if what else ''}{lower(str(event.data['reason']))}", (event,), "left_so")]


LEFT_SO: Final = {
    "inside_release": "Inside release", "ice_left": "Ice left", "still_defrosting": "Left in a defrost", "box_not_read": "Box not read",
    "left_there": "Left there", "opened_circuit": "Circuit left open", "leak_open": "Leak left open", "service_mode": "Service mode",
    "not_proved": "Left before it was proved", "quote": "Quote", "unasked": "Without a quote", "unconfirmed": "Not confirmed",
}  # fmt: skip


def visit(call: Call, event: Event) -> list[Sentence]:
    """A later visit on the same record, and what it was for."""
    why = f" for: {lower(str(event.data['why']))}" if event.get("why") else ""
    when = f" on {day(event.at)}" if event.at is not None else ""
    return [_sentence("done", f"Came again{when}{why}", (event,), "visit")]


def kept(call: Call, event: Event) -> list[Sentence]:
    """A promise kept, and how it was found."""
    held = {True: ": it held", False: ": it did not hold"}.get(event.get("held"), "")
    return [_sentence("found", f"Promised before: {lower(str(event.data['what']))}{held}", (event,), "promise")]


def promise(call: Call, event: Event) -> list[Sentence]:
    """What is promised, and by when; one that a later visit kept is told there."""
    if any(one.data["what"] == event.data["what"] for one in call.record.all_of("kept")):
        return []
    again = came_back(call, event)
    if again is not None and again.at is not None:
        return [_sentence("left", f"Looked at again on {day(again.at)}, as promised: {lower(str(event.data['what']))}", (event,), "proof")]
    why = f" ({lower(str(event.data['why']))})" if event.get("why") else ""
    return [_sentence("advice", f"We come back by {day(event.data['due'])}: {lower(str(event.data['what']))}{why}", (event,), "promise")]


def came_back(call: Call, promise: Event) -> Event | None:
    """Return the first thing that happened on the day a promise was due for, or later; None where nothing did yet."""
    due = str(promise.data["due"])
    return next((event for event in call.record.after(promise) if event.at is not None and event.at.date().isoformat() >= due), None)


def used(call: Call, event: Event) -> list[Sentence]:
    """The parts used, together."""
    run = list(call.record.all_of("used"))
    if run[0] is not event:
        return []
    words = [f"{_amount(one)}{one.data['what']}" for one in run]
    return [_sentence("done", f"Used: {', '.join(words)}", run, "part")]


def _amount(event: Event) -> str:
    amount = event.get("amount")
    if amount is None:
        return ""
    return f"{plain(float(amount))} × " if isinstance(amount, (int, float)) else f"{amount} "


def note(call: Call, event: Event) -> list[Sentence]:
    """Words that nothing else takes, where they stand in time."""
    steps = call.staged.steps
    first = min((call.record.place[one.event.number] for one in steps), default=None)
    section = "found" if first is None or call.record.place[event.number] < first else "done"
    part = f"{anatomy.PARTS[event.data['part']].label}: " if event.get("part") else ""
    return [_sentence(section, f"{part}{event.data['text']}", (event,), "note")]


def talked(call: Call, event: Event) -> list[Sentence]:
    """What was written to the controller and read back, or what went wrong."""
    if event.get("complaint"):
        return [_sentence("done", f"Controller: {lower(str(event.data['complaint']))}", (event,), "test")]
    if not event.get("wrote"):
        return []
    labels = [lower(REGISTERS[role].label) if role in REGISTERS else role.replace("_", " ") for role in event.data["wrote"]]
    against = f", although it did not look like this unit's, because {lower(str(event.data['reason']))}" if event.get("reason") else ""
    return [_sentence("done", f"Written to the controller and read back: {listed(labels)}{against}", (event,), "test")]
