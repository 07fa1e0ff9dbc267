"""What people found it to be, decided, promised, put there and left."""

from typing import Final

from kettle.call.asks import placed_words, still_there
from kettle.call.call import Call
from kettle.call.events import Event
from kettle.call.says.sentence import Sentence, sentence
from kettle.call.words import day, listed, lower, plain
from kettle.judging.holds import ACTIONS
from kettle.knowledge import anatomy, causes


def placed(call: Call, event: Event) -> list[Sentence]:
    """What still stands there, and what no longer happens by itself; what is gone again is told as done."""
    if event in still_there(call):
        return [sentence("left", f"Still there: {lower(placed_words(event))}", (event,), "left_there")]
    return [sentence("done", f"{placed_words(event)}, taken away again", (event,), "act")]


def found(call: Call, event: Event) -> list[Sentence]:
    """What the technician says it is."""
    if call.record.last("found", lambda e: e.on == event.on) is not event:
        return []
    labels = " and ".join(lower(cause_label(call, code)) for code in event.data["causes"]) or "nothing wrong found"
    return [sentence("found", f"The cause{call.record.on_words(event.on)}: {labels}", (event,), "cause")]


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
        what = f" ({'; '.join(lower(text) for text in event.data['texts'])})" if event.get("texts") else ""
        return [sentence("left", f"Left so{what}: {lower(str(event.data['reason']))}", (event,), "override")]
    if event.get("action") == "lone_working":
        return [sentence("done", f"Went in although the inside release fails: {lower(str(event.data['reason']))}", (event,), "override")]
    held = listed([HELD.get(code, code.replace("_", " ")) for code in event.get("holds", ())]) if event.get("holds") else "advice"
    what = ACTIONS.get(event.get("action", ""), "went on")
    return [sentence("done", f"{what} against {held}, because {lower(str(event.data['reason']))}", (event,), "override")]


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
    return [sentence("found", f"On the same plant: {'; '.join(words)}", run, "word")]


def decided(call: Call, event: Event) -> list[Sentence]:
    """What the customer decided."""
    by = f" by the {event.data['by']}" if event.get("by") else ""
    if event.data["what"] == "declined":
        return [sentence("advice", f"Declined{by}: {event.get('reason', 'what was advised')}", (event,), "decided")]
    if event.data["what"] == "charge_without_repair":
        why = f", because {lower(str(event.data['reason']))}" if event.get("reason") else ""
        return [sentence("advice", f"Gas without the repair was decided{by}{why}", (event,), "decided")]
    why = f": {event.data['reason']}" if event.get("reason") else ""
    return [sentence("advice", f"Decided{by}, {lower(str(event.data['what']).replace('_', ' '))}{why}", (event,), "decided")]


def left_so(call: Call, event: Event) -> list[Sentence]:
    """The answer to something left, with its reason."""
    if not event.get("reason") or call.record.last("left_so", lambda e: e.data["what"] == event.data["what"]) is not event:
        return []
    what = LEFT_SO.get(str(event.data["what"]).partition(":")[0], "")
    return [sentence("left", f"{what}{': ' if what else ''}{lower(str(event.data['reason']))}", (event,), "left_so")]


LEFT_SO: Final = {
    "inside_release": "Inside release", "ice_left": "Ice left", "still_defrosting": "Left in a defrost", "box_not_read": "Box not read",
    "left_there": "Left there", "opened_circuit": "Circuit left open", "leak_open": "Leak left open", "service_mode": "Service mode",
    "not_proved": "Left before it was proved", "quote": "Quote", "unasked": "Without a quote", "unconfirmed": "Not confirmed",
}  # fmt: skip


def visit(call: Call, event: Event) -> list[Sentence]:
    """A later visit on the same record, and what it was for."""
    why = f" for: {lower(str(event.data['why']))}" if event.get("why") else ""
    when = f" on {day(event.at)}" if event.at is not None else ""
    return [sentence("done", f"Came again{when}{why}", (event,), "visit")]


def kept(call: Call, event: Event) -> list[Sentence]:
    """A promise kept, and how it was found."""
    held = {True: ": it held", False: ": it did not hold"}.get(event.get("held"), "")
    return [sentence("found", f"Promised before: {lower(str(event.data['what']))}{held}", (event,), "promise")]


def promise(call: Call, event: Event) -> list[Sentence]:
    """What is promised, and by when; one that a later visit kept is told there."""
    if any(one.data["what"] == event.data["what"] for one in call.record.all_of("kept")):
        return []
    again = came_back(call, event)
    if again is not None and again.at is not None:
        return [sentence("left", f"Looked at again on {day(again.at)}, as promised: {lower(str(event.data['what']))}", (event,), "proof")]
    why = f" ({lower(str(event.data['why']))})" if event.get("why") else ""
    return [sentence("advice", f"We come back by {day(event.data['due'])}: {lower(str(event.data['what']))}{why}", (event,), "promise")]


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
    return [sentence("done", f"Used: {', '.join(words)}", run, "part")]


def _amount(event: Event) -> str:
    amount = event.get("amount")
    if amount is None:
        return ""
    return f"{plain(float(amount))} × " if isinstance(amount, (int, float)) else f"{amount} "


def note(call: Call, event: Event) -> list[Sentence]:
    """Words that nothing else takes, where they stand in time; what was told stands at the head of the report."""
    if event.get("about"):
        return []
    steps = call.staged.steps
    first = min((call.record.place[one.event.number] for one in steps), default=None)
    section = "found" if first is None or call.record.place[event.number] < first else "done"
    part = f"{anatomy.PARTS[event.data['part']].label}: " if event.get("part") else ""
    return [sentence(section, f"{part}{event.data['text']}", (event,), "note")]
