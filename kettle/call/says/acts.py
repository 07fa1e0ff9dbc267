"""What was done to a part: two equal acts are twice, turns of a stem with what they brought."""

from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.says.gas import _gas_by_hand
from kettle.call.says.sentence import Sentence, sentence
from kettle.call.turns import turn_words, turns
from kettle.call.words import lower
from kettle.knowledge import acts

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
    return [sentence(section, f"{entry.label}{call.record.on_words(event.on)}{amount}{again}{note}", same, "act")]


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
    return [sentence("done", f"Valve turned {way} {size}{call.record.on_words(event.on)}{again}{answer}{note}{went_on}", run, "act")]


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
