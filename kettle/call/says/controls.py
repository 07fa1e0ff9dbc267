"""Programs and settings as found and as left, defrosts and cycles watched, what the controller was told."""

from kettle.benches.controls.registers import REGISTERS
from kettle.benches.defrost.program import clock, parse_clock
from kettle.call.call import LEFT, Call
from kettle.call.events import Event
from kettle.call.hears import (
    program_before,
    program_changed,
    setting_changed,
    whole_cycle,
)
from kettle.call.says.sentence import Sentence, sentence
from kettle.call.words import listed, lower, plain
from kettle.knowledge.measures import format_number
from kettle.knowledge.parameters import PARAMETERS


def program(call: Call, event: Event) -> list[Sentence]:
    """Defrosts as they were found, and what they were changed to and why."""
    if event.data["side"] == "found":
        last = call.record.last("program", lambda e: e.data["side"] == "left" and program_changed(call.record, e))
        if last is not None and program_before(call.record, last) is event:
            return []
        return [sentence("found", f"Defrosts {_starts(event)}", (event,), "program")]
    if not program_changed(call.record, event):
        return []
    before = program_before(call.record, event)
    why = f", because {lower(str(event.data['why']))}" if event.get("why") else ""
    return [
        sentence(
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
    ends = f", ending at {plain(float(figures['termination_f']))} °F" if figures.get("termination_f") else ""
    return f"{len(starts)} a day{at}{most}{ends}"


def setting(call: Call, event: Event) -> list[Sentence]:
    """Settings changed for one reason in a row are one sentence; those read and right are told as found."""
    if not setting_changed(event):
        if event.get("found") in (None, ""):
            return []
        return [sentence("found", f"{PARAMETERS[event.data['parameter']].label} {set_words(event, 'found')}, right", (event,), "setting")]
    run = [one for one in call.record.all_of("setting") if setting_changed(one) and one.get("why") == event.get("why")]
    if run[0] is not event:
        return []
    last = {one.data["parameter"]: one for one in run}
    first = {one.data["parameter"]: one for one in reversed(run)}
    changes = [_changed_words(first[code], last[code]) for code in last]
    why = f", because {lower(str(event.data['why']))}" if event.get("why") else ""
    return [sentence("done", f"{'; '.join([changes[0], *(lower(one) for one in changes[1:])])}{why}", run, "setting")]


def _changed_words(first: Event, last: Event) -> str:
    parameter = PARAMETERS[last.data["parameter"]]
    if last.data["parameter"] == "other":
        was, now = set_words(first, "found").split(), set_words(last, "left").split()
        same = 0
        while same < min(len(was), len(now)) and was[same] == now[same]:
            same += 1
        name, was_at, now_at = (" ".join(words) for words in (was[:same], was[same:], now[same:]))
        return f"{name} from {was_at} to {now_at}" if name and was_at and now_at else f"{' '.join(was)} changed to {' '.join(now)}"
    return f"{parameter.label} from {set_words(first, 'found')} to {set_words(last, 'left')}"


def set_words(event: Event, side: str) -> str:
    """Return a setting as found or left (`side`) with its unit, as it was written down."""
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
    return [sentence(section, f"one defrost watched{call.record.on_words(event.on)}: {ended}{minutes}{coil}{fans}", (event,), "proof")]


def cycle(call: Call, event: Event) -> list[Sentence]:
    """The cycles watched, together."""
    run = [one for one in call.record.all_of("cycle") if whole_cycle(one) and call.phase(one) == call.phase(event)]
    if not run or run[0] is not event:
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
    return [sentence(section, f"{many} watched: {', '.join(parts)}" if parts else f"{many} watched", run, "proof")]


def talked(call: Call, event: Event) -> list[Sentence]:
    """What was written to the controller and read back, or what went wrong."""
    if event.get("complaint"):
        return [sentence("done", f"Controller: {lower(str(event.data['complaint']))}", (event,), "test")]
    if not event.get("wrote"):
        return []
    labels = [lower(REGISTERS[role].label) if role in REGISTERS else role.replace("_", " ") for role in event.data["wrote"]]
    against = f", although it did not look like this unit's, because {lower(str(event.data['reason']))}" if event.get("reason") else ""
    return [sentence("done", f"Written to the controller and read back: {listed(labels)}{against}", (event,), "test")]
