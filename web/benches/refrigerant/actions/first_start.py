"""Keep what was read after the first start of a new compressor, and how its suction line stands to its stub."""

from kettle.benches.refrigerant.compressor import FIRST_MIN, OIL, line_and_stub
from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.accounts.access import shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import FirstStartReading

FIGURES = (("start_amps", "Amps", "A", (0.0, 400.0)), ("start_suction", "Suction", "psig", (-14.6, 300.0)),
           ("start_discharge", "Discharge", "psig", (-14.6, 800.0)))  # fmt: skip


@on_call
def keep_first_start(user, call, typed):
    """Store amps, suction, discharge and oil at 1, 10 or 30 minutes; the latest of a minute stands. FieldErrors by field."""
    shown, wrong, values = shown_to(user), {}, {}
    for name, label, unit, (low, high) in FIGURES:
        try:
            values[name] = shown.parse(typed.get(name, ""), unit)
        except InputError as error:
            wrong[name] = f"{label}: {error}"
            continue
        if not low <= values[name] <= high:
            wrong[name] = f"{label}: {shown.text(values[name], unit)} is outside {shown.span(low, high, unit)}"
    minute, oil = typed.get("minute", ""), typed.get("oil", "")
    if minute not in {str(one) for one in FIRST_MIN}:
        wrong["minute"] = "After: choose 1, 10 or 30 min"
    if oil not in OIL:
        wrong["oil"] = f"Oil: choose one of {', '.join(OIL.values())}"
    if wrong:
        raise FieldErrors(wrong)
    call.firststartreadings.filter(minute=int(minute), undone_at=None).update(undone_by=user, undone_at=work_time.now())
    made = FirstStartReading.objects.create(
        call=call, by=user, minute=int(minute), amps=values["start_amps"], suction_psig=values["start_suction"],
        discharge_psig=values["start_discharge"], oil=oil,
    )  # fmt: skip
    log.write(user, "first_start", call, minute=made.minute, amps=made.amps)
    return made


@on_call
def keep_line_size(user, call, line_in, stub_in):
    """Store whether the suction line is smaller than its stub (inches) as an observation; returns what it means. FieldErrors by field."""
    word, says = line_and_stub(line_in, stub_in)
    record_reading(user, call, "suction_line_size", word)
    return says
