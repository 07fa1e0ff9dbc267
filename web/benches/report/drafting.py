"""What a call holds, as the core writes it up: each record with its reference; and the sentences as they stand."""

from kettle.benches.ice import map as ice
from kettle.benches.prove.proofs import PROVED
from kettle.benches.report.draft import Fact, draft, shown
from kettle.judging import verdicts
from kettle.judging.evidence import quantity_name
from kettle.judging.holds import ACTIONS
from kettle.knowledge import causes, observations
from kettle.knowledge.causes.usual import USUAL
from kettle.knowledge.parameters import PARAMETERS
from kettle.knowledge.units import format_number
from web.logbook.courses import acts_of
from web.logbook.judging import facts_by_stage
from web.logbook.left_behind import still_there
from web.logbook.measured import measured_words
from web.logbook.models import DefrostProgram
from web.logbook.proving import READ_FOR, proofs_of

# A word seen on fewer sound units than this is worth writing down.
UNUSUAL = 0.25
NOT_WRITTEN = ("told", "safety")
STATES = {"low": "low", "high": "high"}
TRUSTED = ("good", "weak")
MOST_MEASURED = 8


def facts_of(call, standing):
    """Everything of a call that its write-up is made of, in the order of work."""
    steps = acts_of(call)
    return [*_found(call, standing, steps), *_done(call, standing, steps), *_advice(call)]


def _found(call, standing, steps):
    first_act = min((step.at for step in steps), default=None)
    as_found = {}
    for reading in call.readings.all():
        if reading.undone_at is None and (first_act is None or reading.at < first_act):
            as_found[reading.key] = reading
    unit, told = standing.unit, []
    box = as_found.get("box_temp_f")
    if box is not None:
        words = {"label": "Box", "word": standing.shown.text(float(box.value), "°F"), "figure": True, "set": standing.set_words}
        told.append(Fact(f"reading:{box.pk}", "reading", words))
    drawn = call.icedrawings.filter(undone_at=None, stage="before").order_by("at").last()
    if drawn is not None:
        told += _ice(drawn)
    for key, reading in as_found.items():
        entry = observations.get(key)
        if entry.is_number or entry.group in NOT_WRITTEN or not isinstance(reading.value, str) or (drawn and entry.group == "ice"):
            continue
        usual = USUAL.get(key, {})
        if usual.get(reading.value, 1.0) < UNUSUAL and reading.value != max(usual, key=usual.get):
            own = entry.on(unit)
            told.append(Fact(f"reading:{reading.pk}", "reading", {"label": own.label, "word": dict(own.choices)[reading.value].lower()}))
    told += _out_of_band(call, standing, as_found)
    rows = call.measurements.filter(undone_at=None)
    told += [
        Fact(f"measured:{row.pk}", "measured", {"where": where, "value": value})
        for row, (where, value, _) in zip(rows[:MOST_MEASURED], measured_words(call), strict=False)
    ]
    for finding in call.findings.filter(undone_at=None).order_by("at"):
        labels = " and ".join(causes.get(code).label.lower() for code in finding.causes)
        told.append(Fact(f"finding:{finding.pk}", "cause", {"label": labels}))
    return told


def _ice(drawn):
    painted = ice.parse(drawn.rows, drawn.places)
    read = ice.read(painted, drawn.face_ft2)
    if read.ice_form == "none":
        return []
    places = [ice.PLACES[code].label for code, form in (drawn.places or {}).items() if form and form != "none"]
    form = ice.FORM_WORDS.get(read.ice_form, read.ice_form)
    return [Fact(f"ice:{drawn.pk}", "ice", {"form": form, "covered": format_number(read.covered_pct, 0), "places": places})]


def _out_of_band(call, standing, as_found):
    stages = facts_by_stage(call, standing.coil, standing.shown)
    facts = stages[0][1] if stages else standing.judgement.facts
    found = []
    for one in verdicts.on(facts):
        source = as_found.get(READ_FOR.get(one.quantity, one.quantity))
        if one.state not in STATES or one.trust not in TRUSTED or source is None or one.quantity == "box_temp_f":
            continue
        label, unit, decimals = quantity_name(one.quantity)
        limits = f"{standing.shown.figure(one.low, unit, decimals)} to {standing.shown.text(one.high, unit, decimals)}"
        # Insulation wants a million ohms and more: nobody reads that as limits.
        limits = "" if unit == "Ω" else limits
        words = {"label": label, "value": standing.shown.text(one.value, unit, decimals), "state": one.state, "limits": limits}
        found.append(Fact(f"reading:{source.pk}:{one.quantity}", "verdict", words))
    return found


def _done(call, standing, steps):
    told, coils = [], standing.unit.evaporators > 1
    for step in steps:
        if step.kept_as == "setting":
            continue
        name = type(step.entry).__name__.lower()
        if isinstance(step.entry, DefrostProgram):
            told.append(Fact(f"{name}:{step.entry.pk}", "program", _program(call, step.entry)))
            continue
        amount = standing.shown.plain(step.value, step.act.unit) if step.value is not None else ""
        note, coil = step.aside[:1].lower() + step.aside[1:], step.coil if coils else None
        told.append(Fact(f"{name}:{step.entry.pk}", "act", {"label": step.act.label, "amount": amount, "note": note, "coil": coil}))
    for change in call.settingchanges.filter(undone_at=None).order_by("at"):
        if change.as_found != change.as_left:
            changed = (PARAMETERS[change.parameter].label, change.as_found, change.as_left)
            told.append(Fact(f"setting:{change.pk}", "setting", {"changes": [changed], "why": change.why}))
    told += [Fact(f"partused:{one.pk}", "part", {"parts": [str(one)]}) for one in call.partuseds.filter(undone_at=None)]
    for taken in call.overrides.filter(undone_at=None).order_by("at"):
        what, left_so = ACTIONS.get(taken.action, taken.action), taken.action == "close"
        holds = "; ".join(text[:1].lower() + text[1:] for text in taken.texts)
        told.append(Fact(f"override:{taken.pk}", "override", {"what": what, "holds": holds, "reason": taken.reason, "left_so": left_so}))
    # Of a call closed before proofs were kept nobody can say that they were missing.
    if steps and (call.is_open or hasattr(call, "outcome")):
        for one in proofs_of(call, standing.judgement.verdicts, standing.shown):
            label = one.kind.label if one.kind.label[:2].isupper() else one.kind.label[:1].lower() + one.kind.label[1:]
            words = {"label": label, "says": one.says, "proved": one.state == PROVED}
            told.append(Fact(f"proof:{one.kind.code}", "proof", words))
    return told


def _program(call, left):
    found = call.defrostprograms.filter(undone_at=None, side="found").order_by("at").last()
    return {"found": _starts(found), "left": _starts(left)}


def _starts(program):
    minutes = (program.figures or {}).get("fail_safe_min")
    length = f" of at most {minutes:g} min" if minutes else ""
    return f"{len(program.starts)} a day{length}"


def _advice(call):
    told = []
    for act in call.acts.filter(undone_at=None, part="leak", did="given_up"):
        told.append(Fact(f"act:{act.pk}:left", "leak_open", {"note": act.note}))
    told += [Fact(f"placed:{one.pk}", "left_there", {"words": str(one).lower()}) for one in still_there(call)]
    for one in call.follow_ups.filter(let_go="").order_by("due"):
        told.append(Fact(f"followup:{one.pk}", "promise", {"due": f"{one.due:%-d %B}", "what": one.what[:1].lower() + one.what[1:]}))
    return told


def sentences_of(call, standing):
    """The write-up of a call as it stands: drafted, and where somebody worded a sentence, as it was worded."""
    worded = {one.key: (one.section, one.drafted, one.text) for one in call.wordings.all()}
    return shown(draft(facts_of(call, standing)), worded)
