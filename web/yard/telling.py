"""What is told of a practice call once it was named, kept with it: the unit is run on for a week, which takes a second."""

from kettle.benches.ice import map as ice
from kettle.call import tell
from kettle.knowledge import acts, causes, observations
from kettle.knowledge.parameters import PARAMETERS
from kettle.yard import practice as core
from kettle.yard.debrief import debrief
from kettle.yard.follow import SURE
from kettle.yard.shown import alike
from web.logbook.calls.record import record_of
from web.yard.lesson import lesson_shown
from web.yard.models import Practice
from web.yard.rigs import draw_of, made_new, rig_of
from web.yard.work import HINT, MARK, QUESTION, REPLY, SAID, SEEN, WATCHED

# So many more things may be asked than by holds and next checks alone, for few.
MORE_ASKED = 1.5
WORDS = {
    core.PUT: "", core.WAITED: "Let time pass", core.DOWN: "Thermostat turned down", core.BACK: "Thermostat back", core.STOPPED: "Stopped",
    core.BEGUN: "Melting begun", core.RESTED: "Melting rests", core.MELTED: "Melting ended", core.NAMED: "Named",
    core.WORSE: "Something else came on", SEEN: "Looked", HINT: "Hint", SAID: "Said", QUESTION: "Asked by who teaches", REPLY: "Answered",
    WATCHED: "Probes watched",
    "override": "Taken on against a hold", "mark": "Marked", "ice": "Ice painted", "progress": "Own progress shown",
}  # fmt: skip
# What was put on the circuit for now, and taken away.
PUT_ON = {core.PLACED: "For now, put on", core.GONE: "Taken away from"}


def told_of(practice, shown):
    """The debrief of a practice call that is over, worked out once."""
    if practice.told is None:
        practice.told = _worked_out(practice)
        Practice.objects.filter(pk=practice.pk).update(told=practice.told)
    must = lesson_shown(practice.lesson, rig_of(practice).steps, practice.told)
    path = path_of(practice, shown)
    return practice.told | {"must": must, "all_shown": bool(must) and all(there for _, there in must), "path": path}


def path_of(practice, shown):
    """Every step as a line, each with how who teaches marked it."""
    marks = {row.of: row.says for row in practice.steps.filter(what=MARK)}
    rows, lines = practice.steps.exclude(what=MARK).select_related("by"), []
    for row in rows:
        line = line_of(row, shown) | {"mark": marks.get(str(row.pk), "")}
        # Minutes that were watched one after the other are one line.
        if row.of == WATCHED and lines and lines[-1]["label"] == line["label"] and lines[-1]["by"] == row.by:
            line |= {"minutes": lines[-1]["minutes"] + row.minutes, "at_min": lines.pop()["at_min"]}
        lines.append(line)
    return lines


def _worked_out(practice):
    work = made_new(practice)
    work.named = tuple(practice.named)
    found = debrief(work)
    return {
        "was": list(work.draw.codes), "named": list(found.named), "right": found.right, "minutes": found.minutes,
        **_known(practice, work.draw.codes), "asked": found.asked,
        "shortest": {"codes": list(found.shortest[0]), "minutes": found.shortest[1], "asked": found.shortest[2],
                     "path": [[_label(step.what, step.of), step.minutes] for step in found.path if step.what != core.NAMED]},
        "stopped": list(practice.steps.filter(what=core.STOPPED).values_list("says", flat=True)),
        "overrides": list(practice.steps.filter(what="override").values_list("says", flat=True)),
        "for_nothing": list(found.for_nothing), "gas_oz": found.gas_oz, "held": found.held,
        "hints": practice.steps.filter(what=HINT).count(), "forecasts": _forecasts(practice), "painted": _painted(practice),
        "skills": _skills(practice, found),
    }  # fmt: skip


def _known(practice, codes):
    """After how many minutes the standing stood clear at what it is, whatever else may have been beside it, and what was taken last before;
    None where it never did."""
    record, at_min = record_of(practice.call), {row.ref: row for row in practice.steps.exclude(ref="")}
    for event in record.events:
        row = at_min.get(event.ref)
        if row is None or event.undone:
            continue
        was = tell(record.upto(event.number)).course().was
        right = (one for one in was if (set(codes) <= set(one.codes) if codes else not one.codes))
        if sum(one.probability for one in right) >= SURE:
            return {"known_at_min": row.at_min + row.minutes, "gave_away": _label(row.what, row.of).lower()}
    return {"known_at_min": None, "gave_away": ""}


def _forecasts(practice):
    """What was expected of a check against what it then showed."""
    rows, said = [], None
    for step in practice.steps.filter(undone=False):
        if step.what == SAID:
            said = step
        elif said is not None and step.what == core.ASKED and step.of == said.of and step.value is not None:
            rows.append([step.of, said.value, step.value, said.says])
            said = None
    return rows


def _painted(practice):
    """The share of the faces painted that says what was there when each was looked at last before; None where none was."""
    drawn = {event.ref: event for event in record_of(practice.call).events if event.kind == "ice" and not event.undone}
    looked, shares = None, []
    for row in practice.steps.filter(undone=False):
        if row.what == SEEN and row.of == "face":
            looked = row.value
        rows = (drawn[row.ref].get("map") or {}).get("rows") if row.ref in drawn else None
        if looked is not None and rows:
            shares.append(alike(ice.parse(rows, {}), ice.parse(looked["rows"], {})))
    return sum(shares) / len(shares) if shares else None


def _skills(practice, found):
    """What the device of the learner keeps of it, by cause and by skill: each 1 where it was done well, else 0."""
    asked = practice.steps.filter(what=core.ASKED).exclude(value=None).count()
    return {
        "causes": {code: int(code in found.named) for code in found.codes},
        "labels": {code: causes.get(code).label for code in found.codes},
        "skills": {
            "found it": int(found.right), "safe": int(not practice.steps.filter(what=core.STOPPED).exists()),
            "few checks": int(asked <= MORE_ASKED * found.shortest[2]),
            "nothing for nothing": int(not found.for_nothing and not found.gas_oz),
            **({"holds a week": int(found.held)} if found.held is not None else {}),
        },
    }  # fmt: skip


def _label(what, of):
    if of in observations.REGISTRY:
        return observations.get(of).label
    if of in acts.ACTS:
        return acts.ACTS[of].label
    if of in PARAMETERS:
        return PARAMETERS[of].label
    if what == core.METERED:
        return f"Meter, {of}"
    if what in PUT_ON:
        return f"{PUT_ON[what]} {of.replace('_', ' ')}"
    if what == core.NAMED:
        return f"Named: {causes_in_words(of.split('+')) or 'nothing'}"
    return WORDS.get(of) or WORDS.get(what) or what.capitalize()


def line_of(row, shown):
    """A step as a line: its number, its words, what came of it, its minutes, when it was, who."""
    value = tuple(row.value) if isinstance(row.value, list) else row.value
    came = row.says
    if row.of in observations.REGISTRY and value is not None and row.what in (core.ASKED, core.PUT):
        came = observations.get(row.of).show(value, shown=shown)
    elif row.of in acts.ACTS and acts.ACTS[row.of].unit and value is not None:
        came = f"{value:g} {acts.ACTS[row.of].unit}"
    elif row.of in PARAMETERS and isinstance(value, float) and row.what in (core.SET, SEEN):
        came = shown.text(value, PARAMETERS[row.of].unit)
    elif row.what == SAID:
        came = f"{causes_in_words([row.says])}; expects {observations.get(row.of).show(value, shown=shown)}"
    elif row.what == core.WORSE:
        came = causes_in_words([row.of])
    label = "Stopped" if row.what == core.STOPPED else _label(row.what, row.of)
    return {
        "pk": row.pk, "what": row.what, "label": f"{label}:" if came else label, "came": came, "minutes": row.minutes, "at_min": row.at_min,
        "by": row.by, "undone": row.undone,
    }  # fmt: skip


def causes_in_words(codes):
    """Causes by their labels."""
    return " and ".join(causes.get(code).label for code in codes if code in causes.CATALOGUE)


def draw_words(practice):
    """What was drawn, once it may be told: each fault with how bad it was, and what was done before."""
    one = draw_of(practice.drawn)
    return [f"{causes.get(code).label}, {100 * severity:.0f} %" for code, severity in one.wrong], [
        acts.get(part, did).label.lower() for part, did, _ in one.before
    ]
