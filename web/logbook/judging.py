"""From what is stored on a call to what the core is asked, and back as a case file."""

from django.utils import timezone

from kettle import case
from kettle.judging.coils import judge_coil, state_of
from kettle.judging.course import as_found, judge_course, standing_at
from kettle.judging.facts import SETTLING_MIN
from kettle.judging.readings import work_out
from kettle.judging.siblings import together
from kettle.knowledge import observations
from kettle.knowledge.acts import RUNNING
from kettle.knowledge.units import TRADE
from web.logbook.actions.name_cause import found_before
from web.logbook.actions.override_hold import taken_on
from web.logbook.courses import acts_of, stage_at, taken_while_settling

# What the clocks of a call say by themselves.
CLOCKS = ("adjusted_min", "settled_min")


def standing_readings(call, evaporator=1, until=None):
    """The readings that stand, by key: the latest of each that was not taken back, as seen from one evaporator.

    `until` leaves out what was taken later.
    """
    standing = {}
    for reading in call.readings.all():
        of_coil = not observations.get(reading.key).per_evaporator or (reading.evaporator or 1) == evaporator
        if reading.undone_at is None and of_coil and (until is None or reading.at <= until):
            standing[reading.key] = reading
    return standing


def value_of(reading):
    """A stored reading's value as the core takes it."""
    value = tuple(reading.value) if isinstance(reading.value, list) else reading.value
    return observations.get(reading.key).check(value)


def settling_step(call, steps=None):
    """The act whose settling clock runs longest, or ran when the call was closed; None where none does. `steps` where they are known."""
    steps, now = acts_of(call) if steps is None else steps, call.closed_at or timezone.now()
    running = [step for step in steps if step.settled_at and step.settled_at > now]
    return max(running, key=lambda step: step.settled_at, default=None)


def settling_until(call, steps=None):
    """When the settling clock of what was done last runs out; None where it is not running, or had run out before the call was closed."""
    step = settling_step(call, steps)
    return step.settled_at if step else None


def minutes_left(until, now=None):
    """Whole minutes until a moment, at least 1; from `now` on where it is another than this one."""
    return max(1, -(-int((until - (now or timezone.now())).total_seconds()) // 60))


def judge_call(call, shown=TRADE, coil=1, what_if=None):
    """Judge one coil of a call, in words of the given units: how it stands now, and what it was by every stage of its course.

    `what_if` (key -> checked value) stands as if it had been read; nothing is stored.

    A running settling clock counts as an observation: it holds the next turn, and readings taken while it runs are
    readings of a circuit that has not settled. What was read before the turn keeps its weight.
    """
    return course_of(call, shown, coil, what_if).now


def course_of(call, shown=TRADE, coil=1, what_if=None):
    """The course of one coil of a call: what it was, and what is left after what was done."""
    unit, steps = call.unit.resolved(), acts_of(call)
    seen, ages = _by_coil(call, unit, steps)
    number = min(coil, unit.evaporators)
    if what_if:
        seen[number - 1] |= what_if
    overridden, history = frozenset(taken_on(call)), found_before(call)
    now = judge_coil(unit, seen, number, ages, shown, history, overridden, answers=not steps)
    if not steps:
        return as_found(now)
    stages = _stages(call, unit, number, steps)
    stages[-1] |= {key: value for key, value in now.facts.seen.items() if key in CLOCKS} | (what_if or {})
    if "siblings" in now.facts.seen:
        stages[0].setdefault("siblings", now.facts.seen["siblings"])
    told = judge_course(unit, stages, [step.on_coil(number) for step in steps], ages[number - 1], shown, history, overridden)
    # Verdicts and holds are of what stands; what it was, and what settles it, of the whole course.
    return told.standing_as(now, history, overridden)


def _stages(call, unit, coil, steps):
    """What was seen of a coil in each stage, key -> value: the latest of each that was not taken back."""
    now = call.closed_at or timezone.now()
    stages = [{} for _ in range(len(steps) + 1)]
    for reading in call.readings.all():
        entry = observations.get(reading.key)
        of_coil = entry.exists_on(unit) and (not entry.per_evaporator or (reading.evaporator or 1) == coil)
        if reading.undone_at is None and of_coil and not taken_while_settling(steps, reading.key, reading.at, now):
            stages[stage_at(steps, reading.at)][reading.key] = value_of(reading)
    return stages


def facts_by_stage(call, coil=1, shown=TRADE):
    """What stood on one coil in each stage before the one that stands, with the act that ended it: (step, facts)."""
    unit, steps = call.unit.resolved(), acts_of(call)
    stages, done = _stages(call, unit, coil, steps), [step.on_coil(coil) for step in steps]
    return [(step, work_out(unit, standing_at(stages, done, place), None, shown)) for place, step in enumerate(steps)]


def _standing(call, unit, coil, steps):
    return standing_at(_stages(call, unit, coil, steps), [step.on_coil(coil) for step in steps], len(steps))


def facts_of_coils(call, shown=TRADE):
    """What is known of each coil of a call, in their order, without judging it."""
    unit = call.unit.resolved()
    return [work_out(unit, seen, ages, shown) for seen, ages in zip(*_by_coil(call, unit, acts_of(call)), strict=True)]


def _by_coil(call, unit, steps):
    """What stands on each coil and how old it is, in the order of the coils; ages end where a call was closed."""
    now, clock = call.closed_at or timezone.now(), settling_step(call, steps)
    all_seen, all_ages = [], []
    beside = _siblings_seen(call)
    for coil in range(1, unit.evaporators + 1):
        standing = standing_readings(call, coil)
        seen = beside | _standing(call, unit, coil, steps)
        if clock is not None:
            seen["adjusted_min"] = max(0.0, SETTLING_MIN - minutes_left(clock.settled_at, now))
            if any(reading.at > clock.at for key, reading in standing.items() if key in RUNNING):
                seen["settled_min"] = seen["adjusted_min"]
        all_seen.append(seen)
        all_ages.append({key: max(0.0, (now - reading.at).total_seconds() / 60.0) for key, reading in standing.items() if key in seen})
    return all_seen, all_ages


def _siblings_seen(call):
    """What the other boxes on the same plant say, from their own calls in progress where nobody noted it on this one."""
    siblings = list(call.unit.siblings) if call.unit.plant else []
    if not siblings:
        return {}
    noted = {entry.unit_id: entry.state for entry in call.siblingstates.all() if entry.undone_at is None}
    states = [noted.get(unit.pk) or _own_state(unit) for unit in siblings]
    says = together(states).observation
    return {"siblings": says} if says else {}


def _own_state(unit):
    """How a unit does by its own call in progress; None where it has none or too little is read."""
    for call in unit.calls.filter(closed_at=None).prefetch_related("readings")[:1]:
        standing = standing_readings(call)
        return state_of(work_out(unit.resolved(), {key: value_of(reading) for key, reading in standing.items()}))
    return None


def case_of(call):
    """The call as a case file: the unit as stored and every observation that was not taken back."""
    spec = call.unit.spec()
    fields = {name: getattr(spec, name) for name in case.CaseUnit.model_fields if name != "bands"}
    fields["name"] = spec.name[: case.LONGEST_NAME]
    bands = {quantity: list(band) for quantity, band in spec.bands.items()}
    unit = case.CaseUnit(**{name: value for name, value in fields.items() if value is not None}, bands=bands)
    rows = [
        case.CaseObservation(key=r.key, value=r.value, at=r.at, source=r.source, on=r.evaporator)
        for r in call.readings.all()
        if r.undone_at is None
    ]
    rows = rows[-case.MOST_OBSERVATIONS :]
    done = [case.CaseAct(part=s.part, did=s.did, value=s.value, on=s.coil, at=s.at) for s in acts_of(call)][-case.MOST_ACTS :]
    return case.Case(format=case.FORMAT, version=case.VERSION, unit=unit, acts=done, observations=rows)
