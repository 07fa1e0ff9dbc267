"""From what is stored on a call to what the core is asked, and back as a case file."""

from datetime import timedelta

from django.utils import timezone

from kettle import case, observations
from kettle.facts import SETTLING_MIN
from kettle.judge import judge
from kettle.valve.adjust import SETTLE_MIN

# What a turn of the stem unsettles.
UNSETTLED = ("suction_psig", "suction_line_evap_f", "suction_line_comp_f")


def standing_readings(call, evaporator=1):
    """The readings that stand, by key: the latest of each that was not taken back, as seen from one evaporator."""
    standing = {}
    for reading in call.readings.all():
        if reading.undone_at is None and reading.evaporator in (None, evaporator):
            standing[reading.key] = reading
    return standing


def settling_until(call):
    """When the settling clock of the last valve turn runs out; None where it is not running."""
    turn = call.valveturns.filter(undone_at=None).last()
    if turn is None or not call.is_open:
        return None
    until = turn.at + timedelta(minutes=SETTLE_MIN)
    return until if until > timezone.now() else None


def minutes_left(until):
    """Whole minutes until a moment, at least 1."""
    return max(1, -(-int((until - timezone.now()).total_seconds()) // 60))


def judge_call(call):
    """Judge a call from its standing readings.

    A running settling clock counts as an observation: it holds the next turn, and readings taken while it runs are
    readings of a circuit that has not settled. What was read before the turn keeps its weight.
    """
    seen, standing = {}, standing_readings(call)
    for key, reading in standing.items():
        value = tuple(reading.value) if isinstance(reading.value, list) else reading.value
        seen[key] = observations.get(key).check(value)
    until = settling_until(call)
    if until is not None:
        seen["adjusted_min"] = max(0.0, SETTLING_MIN - minutes_left(until))
        turned_at = until - timedelta(minutes=SETTLE_MIN)
        if any(standing[key].at > turned_at for key in UNSETTLED if key in standing):
            seen["settled_min"] = seen["adjusted_min"]
    return judge(call.unit.resolved(), seen)


def case_of(call):
    """The call as a case file: the unit as stored and every observation that was not taken back."""
    spec = call.unit.spec()
    fields = {name: getattr(spec, name) for name in case.CaseUnit.model_fields if name != "bands"}
    bands = {quantity: list(band) for quantity, band in spec.bands.items()}
    unit = case.CaseUnit(**{name: value for name, value in fields.items() if value is not None}, bands=bands)
    rows = [
        case.CaseObservation(key=r.key, value=r.value, at=r.at, source=r.source, on=r.evaporator)
        for r in call.readings.all()
        if r.undone_at is None
    ]
    return case.Case(format=case.FORMAT, version=case.VERSION, unit=unit, observations=rows)
