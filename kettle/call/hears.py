"""What the judgement hears of each kind of event: observations, acts, and what speaks for a cause by itself.

A wiring measurement is an observation where it is one, whatever it was measured for; what the whole circuit says of its parts is worked out
of all of them together (`kettle/call/circuit.py`).
"""

from typing import Any, Final

from kettle.benches.controls.cycles import LEAST_MIN
from kettle.benches.ice import map as ice
from kettle.benches.refrigerant import leaks, nitrogen
from kettle.call.events import NOTHING, Did, Event, Heard, Observed, Spoken
from kettle.call.record import Record
from kettle.electrical import finds
from kettle.judging.siblings import together
from kettle.judging.testimony import SEEN_SO, Testimony
from kettle.knowledge import anatomy, causes, looks, observations
from kettle.knowledge.causes.seen import ICES_WITHIN_H
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE
from kettle.knowledge.observations import Value, words_of
from kettle.knowledge.parameters import PARAMETERS

# Log-likelihood by which what a technician says it is goes before everything that was only inferred.
SAID_SO: Final = 12.0
# A coil is bare so; from so many hours after a melt that says something, at most so much (log).
BARE: Final = ("none", "light_frost")
BARE_FROM_H, BARE_AT_MOST = 2.0, 3.0
# More amps than a clamp reads of nothing; beyond this share of rated ones a compressor does not run, it tries to.
DRAWS_A: Final = 0.4
TURNS_UP_TO: Final = 1.7
NOT_TURNING: Final = ("humming", "tripping")
# The point behind the thermostat, and the share of the supply that is live there.
CALL: Final = "K2"
LIVE_SHARE: Final = 0.8
# Cycles shorter than this, minutes from start to start, are short.
SHORT_CYCLE_MIN: Final = 10.0
# What is read of a new compressor sooner is of its start.
RUNS_IN_MIN: Final = 10
# Ohms to ground, and the part that was renewed where they are read of a new one.
HEATER_GROUND: Final = "heater_ground_ohm"
GROUNDS: Final = {"winding_ground_ohm": "compressor", HEATER_GROUND: "heater"}
OPEN_LOOP: Final = "OL"


def value_of(key: str, value: Any) -> Value:
    """Return a stored value as the core takes it."""
    return observations.get(key).check(tuple(value) if isinstance(value, list) else value)


def reading(record: Record, event: Event) -> tuple[Heard, ...]:
    """An observation."""
    key = event.data["key"]
    seen = Observed(key, value_of(key, event.data["value"]), event.on)
    split = [cause for cause in causes.CATALOGUE.values() if cause.splits and cause.splits[0] == key]
    wants = [cause for cause in split if cause.splits and {*words_of(seen.value)} & {*cause.splits[1]}]
    if key == "ice_form" and seen.value in BARE:
        return (seen, *_bare_since(record, event))
    if not wants or key in causes.USUAL:
        return (seen,)
    # Which of several remedies it wants is seen only where it is there.
    words = f"{observations.get(key).label}: {observations.get(key).show(seen.value)}"
    there = dict.fromkeys((cause.code for cause in wants), 0.0)
    return (seen, Spoken(Testimony(f"seen.{key}", words, there, -SEEN_SO, -SEEN_SO, beyond_doubt=len(wants) == 1), event.on))


def _bare_since(record: Record, event: Event) -> tuple[Spoken, ...]:
    """What a coil that is bare hours after it was melted says against what would have iced it by now (a mean time, exponential)."""
    before = record.standing[: record.place[event.number]]
    melted = next((one for one in reversed(before) if _melts(one) and one.on in (None, event.on)), None)
    if melted is None or melted.at is None or event.at is None:
        return ()
    hours = (event.at - melted.at).total_seconds() / 3600.0
    if hours < BARE_FROM_H:
        return ()
    against = {code: -min(hours / mean, BARE_AT_MOST) for code, mean in ICES_WITHIN_H.items()}
    return (Spoken(Testimony("bare_since", f"Bare {hours:.0f} h after it was melted", against=against), event.on),)


def _melts(event: Event) -> bool:
    return event.kind == "melt" or (event.kind == "act" and (event.data["part"], event.data["did"]) == ("coil", "melted"))


def figure(event: Event) -> float:
    """Return what a meter showed, V, Ω or µF as the event says; open loop is more than it can show."""
    value = event.data["value"]
    return float("inf") if value == OPEN_LOOP else float(value)


def measured(record: Record, event: Event) -> tuple[Heard, ...]:
    """Volts, amps or ohms that are an observation of their own."""
    what, one, other = event.data["what"], event.data["one"], event.get("other", "")
    state, value = event.get("state", "calling"), figure(event)
    if what == "volts":
        key = finds.observed_in(record.circuit, one, other, state)
        called = _stands(record, one, other, state, value)
        return (*called, Observed(key, value_of(key, value), event.on)) if key else called
    if what == "amps":
        return _clamped(record, event, one, state, value)
    key = finds.observed_ohms(record.circuit, one, other) if what == "ohms" else ""
    if not key:
        return NOTHING
    most = observations.get(key).high
    lowest = min(value, most, *_to_ground(record, event, key)) if key in GROUNDS else min(value, most)
    return (Observed(key, value_of(key, lowest)),)


def _stands(record: Record, one: str, other: str, state: str, volts: float) -> tuple[Observed, ...]:
    """What full volts say of the control while it should call: behind the thermostat it calls, over a pressure switch that is open."""
    if state != "calling" or volts < LIVE_SHARE * record.circuit.volts:
        return ()
    if {one, other} == {CALL, record.circuit.common}:
        return (Observed("control_call", "calling"),)
    seen = finds.opened(record.circuit, one, other)
    return (Observed(*seen),) if seen else ()


def _to_ground(record: Record, event: Event, key: str) -> list[float]:
    """What was read of this compressor, or of these heaters, to ground before: one that lies to it is not cleared by another."""
    found: list[float] = []
    for one in record.standing[: record.place[event.number]]:
        if one.kind == "act" and (one.data["part"], one.data["did"]) == (GROUNDS[key], "replaced"):
            found = []
        elif one.kind == "measured" and one.data["what"] == "ohms" and observes(record, one) == key:
            found.append(figure(one))
    return found


def _clamped(record: Record, event: Event, one: str, state: str, value: float) -> tuple[Heard, ...]:
    key = finds.observed_amps(one, state)
    found: list[Heard] = [Observed(key, value_of(key, value))] if key else []
    if key == "compressor_amps" and value >= DRAWS_A:
        rated = record.unit.compressor_rla_a
        word = record.last("reading", lambda e: e.data["key"] == "compressor" and record.place[e.number] < record.place[event.number])
        tries = word is not None and word.data["value"] in NOT_TURNING
        if (rated and value <= TURNS_UP_TO * rated) or (not rated and not tries):
            found.append(Observed("compressor", "running"))
    return tuple(found)


def observes(record: Record, event: Event) -> str:
    """Return the observation that ohms between two points are; empty where they are none."""
    return finds.observed_ohms(record.circuit, event.data["one"], event.get("other", ""))


def looked(record: Record, event: Event) -> tuple[Heard, ...]:
    """A part seen in a state."""
    look = looks.get(event.data["part"], event.data["state"])
    found: list[Heard] = [Observed(*look.says, event.on)] if look.says else []
    if look.causes:
        there = dict.fromkeys(look.causes, 0.0)
        found.append(Spoken(Testimony(f"looked.{look.part}", look.label, there, -SEEN_SO, -SEEN_SO, beyond_doubt=True), event.on))
    return tuple(found)


def drawn(event: Event) -> ice.IceMap | None:
    """Return an ice map of an event; None where only its form was said."""
    painted = event.get("map")
    return ice.parse(painted["rows"], painted.get("places", {})) if painted else None


def ice_read(record: Record, event: Event) -> tuple[str, tuple[str, ...]]:
    """Return form and places of the ice of a drawing, as the observations they are."""
    painted = drawn(event)
    if painted is not None:
        read = ice.read(painted, event.get("face_ft2", record.unit.kind.face_ft2))
        return read.ice_form, read.ice_places
    known = {code for code, _ in observations.get("ice_places").choices}
    places = list(event.get("places", ()))
    hidden = [place for place in places if place in ice.HIDDEN]
    found = [place for place in places if place in known] + (["coil_part"] if hidden else [])
    return event.get("form", "none"), tuple(dict.fromkeys(found))


def ice_drawn(record: Record, event: Event) -> tuple[Heard, ...]:
    """Form and places of the ice; oil marked on a map is what foams."""
    form, places = ice_read(record, event)
    found: list[Heard] = [Observed("ice_form", form, event.on), Observed("ice_places", places, event.on)]
    if form in BARE:
        found += _bare_since(record, event)
    if event.get("map", {}).get("oil"):
        found += [Observed("melt_water", "cloudy_foaming", event.on), Observed("oil_trace", "at_coil", event.on)]
    return tuple(found)


def melt(record: Record, event: Event) -> tuple[Heard, ...]:
    """A coil melted; one left with ice on it is iced still."""
    did = Did("coil", "melted", None, event.on)
    if event.get("all_clear") is not False:
        return (did,)
    before = next(
        (
            ice_read(record, e)[0] if e.kind == "ice" else e.data["value"]
            for e in reversed(record.standing)
            if record.place[e.number] < record.place[event.number]
            and (e.kind == "ice" or (e.kind == "reading" and e.data["key"] == "ice_form"))
            and e.on in (None, event.on)
        ),
        None,
    )
    left = before if before in ice.ICED_FORMS else None
    return (did, Observed("ice_form", left, event.on), Observed("ice_places", ("coil_part",), event.on)) if left else (did,)


def act(record: Record, event: Event) -> tuple[Heard, ...]:
    """An act."""
    return (Did(event.data["part"], event.data["did"], event.get("value"), event.on),)


def weighed(record: Record, event: Event) -> tuple[Heard, ...]:
    """Gas in or out by the scale."""
    return (Did("charge", event.data["did"], moved_oz(event), event.on),)


def moved_oz(event: Event) -> float:
    """Return what went in or out by a cylinder's two weights, less what stayed in hoses, oz."""
    return max(0.0, abs(float(event.data["before_oz"]) - float(event.data["after_oz"])) - float(event.get("lost_oz", 0.0)))


def _program_says(event: Event) -> tuple[Observed, ...]:
    figures = event.get("figures", {})
    found = [Observed("defrosts_per_day", float(len(event.get("starts", ()))))]
    found += [
        Observed(key, value_of(key, figures[role]))
        for role, key in (("fail_safe_min", "defrost_set_min"), ("termination_f", "termination_f"))
        if figures.get(role) is not None
    ]
    return tuple(found)


def program_before(record: Record, event: Event) -> Event | None:
    """Return the program as found that one as left is held against; None where nobody read it."""
    return record.last("program", lambda e: e.data["side"] == "found" and record.place[e.number] < record.place[event.number])


def program_changed(record: Record, event: Event) -> bool:
    """Whether a program was left otherwise than it was found."""
    found = program_before(record, event)
    if found is None or event.data["side"] != "left":
        return False
    same = tuple(found.get("starts", ())) == tuple(event.get("starts", ()))
    return not same or dict(found.get("figures", {})) != dict(event.get("figures", {}))


def program(record: Record, event: Event) -> tuple[Heard, ...]:
    """A defrost program: as found it is evidence, left otherwise it is an act, and what was left is what is set from then on."""
    says = _program_says(event)
    if event.data["side"] == "found":
        return says
    return (Did("program", "changed"), *says) if program_changed(record, event) else NOTHING


def setting(record: Record, event: Event) -> tuple[Heard, ...]:
    """A setting as found, and as left where it was changed."""
    parameter = PARAMETERS[event.data["parameter"]]
    found: list[Heard] = []
    key = parameter.observed
    if key:
        found += _set_to(key, parameter.unit, event.get("found"))
    if not setting_changed(event):
        return tuple(found)
    part, did = parameter.act
    if part:
        exists = anatomy.get(part).exists_on(record.unit)
        found.append(Did(part, did) if exists else Did("parameters", "changed"))
    if key:
        found += _set_to(key, parameter.unit, event.get("left"))
    return tuple(found)


def _set_to(key: str, unit: str, said: Any) -> list[Observed]:
    if said is None or said == "":
        return []
    try:
        return [Observed(key, value_of(key, float(said) if isinstance(said, (int, float)) else TRADE.parse(str(said), unit)))]
    except InputError:
        return []


def setting_changed(event: Event) -> bool:
    """Whether a setting was left otherwise than it was found."""
    return str(event.get("found", "")).strip() != str(event.get("left", "")).strip()


def watched(record: Record, event: Event) -> tuple[Heard, ...]:
    """One defrost seen to its end."""
    if not event.get("ended_by"):
        return NOTHING
    found: list[Heard] = [Observed("defrost_starts", "yes")]
    if event.data["ended_by"] in ("termination", "time", "unknown"):
        found.append(Observed("defrost_ended_by", event.data["ended_by"]))
    if event.get("minutes") is not None:
        found.append(Observed("defrost_ran_min", value_of("defrost_ran_min", float(event.data["minutes"]))))
    if event.get("coil_after"):
        found.append(Observed("coil_after_defrost", event.data["coil_after"], event.on))
    if event.get("fans") in ("off", "running"):
        found.append(Observed("fans_in_defrost", event.data["fans"]))
    return tuple(one for one in found if not isinstance(one, Observed) or observations.get(one.key).exists_on(record.unit))


def whole_cycle(event: Event) -> bool:
    """Return whether a cycle ran and rested at all: one of no minutes was tapped after the event."""
    return all(event.get(name) is None or float(event.data[name]) >= LEAST_MIN for name in ("on_min", "off_min"))


def cycle(record: Record, event: Event) -> tuple[Heard, ...]:
    """A cycle watched: where it cut in and out, and whether it was a short one."""
    if not whole_cycle(event):
        return NOTHING
    found: list[Heard] = [
        Observed(key, value_of(key, float(event.data[name])))
        for name, key in (("cut_in_psig", "lp_cut_in_psig"), ("cut_out_psig", "lp_cut_out_psig"))
        if event.get(name) is not None and record.unit.box_control == "suction_pressure"
    ]
    on, off = event.get("on_min"), event.get("off_min")
    if on is not None and off is not None:
        found.append(Observed("compressor", "short_cycling" if on + off < SHORT_CYCLE_MIN else "running"))
    return tuple(found)


def leak_place(record: Record, event: Event) -> str:
    """Return the code of the place an event of the search for a leak is of: of its coil, where there are several."""
    place = event.data["place"]
    return place if place == leaks.BACKGROUND or not record.several else leaks.code_of(place, event.on)


def leaks_heard(record: Record, until: Event | None = None) -> tuple[dict[str, str], dict[str, float]]:
    """Return what each place gave last in the search for a leak, and what the detector read there, in its units, up to an event."""
    heard: dict[str, str] = {}
    readings: dict[str, float] = {}
    for event in record.all_of("leak_look"):
        if until is not None and record.place[event.number] > record.place[until.number]:
            break
        place = leak_place(record, event)
        heard.pop(place, None)
        heard[place] = event.data["heard"]
        if event.get("reading") is not None:
            readings[place] = float(event.data["reading"])
    air = {place: word for place, word in heard.items() if place != leaks.BACKGROUND}
    return air, readings


def places_found(record: Record, until: Event | None = None) -> tuple[str, ...]:
    """Return the places a leak was found at by the search, as it stood at an event: bubbles, or two signals with quiet neighbours."""
    heard, readings = leaks_heard(record, until)
    return leaks.named(record.unit, heard, readings)


def leak_look(record: Record, event: Event) -> tuple[Heard, ...]:
    """A place searched: found, or nothing any more where it was found before."""
    if places_found(record, event):
        return (Observed("leak_test", "found"),)
    before = [e for e in record.all_of("leak_look") if record.place[e.number] < record.place[event.number]]
    had = any(leak_place(record, e) == leak_place(record, event) and e.data["heard"] in ("bubbles", "twice") for e in before)
    return (Observed("leak_test", "none_found"),) if had and event.data["heard"] == "no" else NOTHING


def stood(record: Record, event: Event) -> nitrogen.Stood:
    """Return what a standing-pressure test says."""
    start_psig, start_f, now_psig, now_f, minutes = (
        float(event.data[name]) for name in ("start_psig", "start_f", "now_psig", "now_f", "minutes")
    )
    return nitrogen.stood(start_psig, start_f, now_psig, now_f, minutes, record.unit.altitude_ft, record.shown)


def nitrogen_test(record: Record, event: Event) -> tuple[Heard, ...]:
    """Pressure that was lost says that it leaks; held, that it does not."""
    return (Observed("leak_test", "found" if stood(record, event).leaks else "none_found"),)


def vacuum(record: Record, event: Event) -> tuple[Heard, ...]:
    """Microns."""
    return (Observed("vacuum_micron", value_of("vacuum_micron", float(event.data["microns"]))),)


def first_start(record: Record, event: Event) -> tuple[Heard, ...]:
    """A new compressor that runs; its figures count once the first minutes are over."""
    found = [Observed("compressor", "running")]
    if event.data["minute"] >= RUNS_IN_MIN:
        found += [
            Observed(key, value_of(key, float(event.data[name])))
            for name, key in (("amps", "compressor_amps"), ("suction_psig", "suction_psig"), ("discharge_psig", "discharge_psig"))
            if event.get(name) is not None
        ]
    return tuple(found)


# What is put there for the time being and works as an act, whatever it was entered on.
PLACED_ACTS: Final = {"output_moved": ("wiring", "output_moved"), "cover": ("condenser", "blocked_on_purpose")}
GONE_ACTS: Final = {"cover": ("condenser", "unblocked")}


def placed(record: Record, event: Event) -> tuple[Heard, ...]:
    """Something put there that works as an act."""
    does = PLACED_ACTS.get(event.data["what"])
    return (Did(*does),) if does else NOTHING


def gone(record: Record, event: Event) -> tuple[Heard, ...]:
    """Something taken away again that works as an act."""
    does = GONE_ACTS.get(event.data["what"])
    return (Did(*does),) if does else NOTHING


def found(record: Record, event: Event) -> tuple[Heard, ...]:
    """What the technician says it is: the strongest evidence there is, and of the unit as it was found."""
    if record.last("found", lambda e: e.on == event.on) is not event:
        return NOTHING
    named = frozenset(event.data["causes"])
    exact = {named: 0.0, **({frozenset((a, b)): 0.0 for a in named for b in named if a != b} if len(named) > 2 else {})}
    each = dict.fromkeys(named, -SAID_SO / 2.0)
    told = Testimony("found", "The technician says so", each, -SAID_SO, 0.0 if not named else -SAID_SO, exact)
    return (Spoken(told, event.on, as_found=True),)


def sibling(record: Record, event: Event) -> tuple[Heard, ...]:
    """How the other boxes on the plant do, all that are known of."""
    every = record.all_of("sibling")
    if every[-1] is not event:
        # They are told together, by the last word on any of them.
        return NOTHING
    states: dict[str, str | None] = dict.fromkeys(record.beside)
    states |= {one.data["name"]: one.data["state"] for one in every}
    says = together(list(states.values())).observation
    return (Observed("siblings", says),) if says else NOTHING
