"""Refrigerant work: gas in and out, leaks, tests, evacuation, the steps of a change, the first start."""

from kettle.benches.refrigerant.change import PARTS, step_of
from kettle.benches.refrigerant.compressor import OIL
from kettle.benches.refrigerant.leaks import BACKGROUND, BY_CODE
from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.hears import (
    leak_place,
    moved_oz,
    places_found,
    stood,
)
from kettle.call.says.sentence import Sentence, sentence
from kettle.call.words import listed, lower, plain
from kettle.knowledge.measures import format_number


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


def _gas_by_hand(call: Call, event: Event) -> list[Sentence]:
    words = {"added": "added", "recovered": "recovered", "weighed_in": "weighed in"}[event.data["did"]]
    gas = refrigerant_at(call, event)
    note = f" ({lower(str(event.data['note']))})" if event.get("note") else ""
    if event.get("value") is None or event.get("by_eye"):
        amount = f", about {call.shown.text(float(event.data['value']), 'oz', 0)}" if event.get("value") else ""
        return [sentence("done", f"{gas} {words} by eye, without a scale{amount}{note}", (event,), "act")]
    return [sentence("done", f"{ounces(call, float(event.data['value']))} of {gas} {words}{note}", (event,), "act")]


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
    lost_oz = sum(float(one.get("lost_oz", 0.0)) for one in run)
    lost = f", {plain(lost_oz)} oz lost in the hose" if lost_oz else ""
    return [sentence("done", f"{gas} {words}{form}{into}: {whole}, scale {listed(scale)} oz{lost}{note}", run, "act")]


def _one_lot(one: Event, event: Event) -> bool:
    return all(one.get(name) == event.get(name) for name in ("did", "refrigerant", "cylinder", "form"))


def leak_look(call: Call, event: Event) -> list[Sentence]:
    """A leak's place where it was found, how; the repair looked at again; a search that found nothing."""
    looks_at = [one for one in call.record.all_of("leak_look") if one.data["place"] != BACKGROUND]
    if event.data["place"] == BACKGROUND:
        return []
    place = leak_place(call.record, event)
    label, on = lower(BY_CODE[event.data["place"]].label), call.record.on_words(event.on)
    earlier = [one for one in looks_at if call.record.place[one.number] < call.record.place[event.number]]
    before = [one for one in earlier if leak_place(call.record, one) == place]
    # A place may be named by its neighbours' silence, after it was gone over itself.
    known = places_found(call.record, earlier[-1]) if earlier else ()
    new = [code for code in places_found(call.record, event) if code not in known]
    if new:
        return [_found_at(call, code, [*earlier, event]) for code in new]
    if event.data["heard"] == "no" and any(one.data["heard"] in ("bubbles", "twice") for one in before):
        return [sentence("done", f"No bubbles any more at the {label}{on}", (event,), "proof")]
    quiet = [
        one
        for one in looks_at
        if one.data["heard"] == "no"
        and not any(o.data["heard"] != "no" for o in looks_at if leak_place(call.record, o) == leak_place(call.record, one))
    ]
    if quiet and quiet[0] is event and not any(places_found(call.record, one) for one in looks_at):
        places = list(dict.fromkeys(lower(BY_CODE[one.data["place"]].label) for one in quiet))
        return [sentence("found", f"Searched for a leak, none found at: {'; '.join(places)}", quiet, "leak")]
    return []


def _found_at(call: Call, place: str, looks_at: list[Event]) -> Sentence:
    """That a leak was found at a place, and how."""
    look = next(one for one in reversed(looks_at) if leak_place(call.record, one) == place)
    how = "bubbles" if look.data["heard"] == "bubbles" else "signalled twice, its neighbours quiet"
    reads = f", detector {plain(float(look.data['reading']))}" if look.get("reading") is not None else ""
    label, on = lower(BY_CODE[look.data["place"]].label), call.record.on_words(look.on)
    return sentence("found", f"Leak found at the {label}{on}: {how}{reads}", (look,), "leak")


def nitrogen(call: Call, event: Event) -> list[Sentence]:
    """A pressure test, held or lost."""
    told, d, shown = stood(call.record, event), event.data, call.shown
    pressures = f"{shown.text(float(d['start_psig']), 'psig', 0)} at {shown.text(float(d['start_f']), '°F', 0)}"
    now = f"{shown.text(float(d['now_psig']), 'psig', 1)} at {shown.text(float(d['now_f']), '°F', 0)}"
    minutes = format_number(float(d["minutes"]), 0)
    word = "lost pressure" if told.leaks else "held"
    return [sentence("done", f"Dry nitrogen, {pressures}, {word} over {minutes} min: {now}", (event,), "test")]


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
    return [sentence("done", words, run, "test")]


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
    return [sentence("done", f"{title}: {'; '.join(words)}", run, "step")]


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
    return [sentence("done", f"First start: {'; '.join(each)}", run, "test")]


def wires(call: Call, event: Event) -> list[Sentence]:
    """That the wires of the start gear were noted; the drawing shows which."""
    words = "as found" if event.data["which"] == "found" else "for the new parts"
    return [sentence("done", f"Wires of the start gear noted by function, {words}", (event,), "step")]


def retrofit(call: Call, event: Event) -> list[Sentence]:
    """The refrigerant changed, the old one named."""
    before = call.record.unit.refrigerant.name
    for one in call.record.all_of("retrofit"):
        if one is event:
            break
        before = one.data["to"]
    oil = f", oil {event.data['oil']}" if event.get("oil") else ""
    return [sentence("done", f"Refrigerant changed from {before} to {event.data['to']}{oil}", (event,), "act")]
