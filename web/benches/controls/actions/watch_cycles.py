"""Tap the starts and stops of a compressor while a pressure control is watched."""

from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import format_number
from web.accounts.access import shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.models import SwitchMoment

MOST_MOMENTS = 200
BOX_F = (-60.0, 120.0)
PSIG = (-14.7, 400.0)


def _typed(user, typed, name, label, unit, span, wrong):
    text = typed.get(name, "").strip()
    if not text:
        return None
    try:
        value = shown_to(user).parse(text, unit)
    except InputError as error:
        wrong[name] = f"{label}: {error}"
        return None
    if not span[0] <= value <= span[1]:
        wrong[name] = f"{label}: {format_number(value)} {unit} is outside {format_number(span[0])} to {format_number(span[1])} {unit}"
    return value


@on_call
def tap(user, call, what, typed, **when):
    """Store a start or a stop now, with box and suction where they were typed; FieldErrors by field, and nothing is stored then.

    `when` may give `at`.
    """
    if what not in dict(SwitchMoment.WHAT):
        raise InputError(f"“{what[:20]}” is neither a start nor a stop")
    wrong = {}
    box = _typed(user, typed, "box_f", "Box", "°F", BOX_F, wrong)
    psig = _typed(user, typed, "psig", "Suction", "psig", PSIG, wrong)
    if wrong:
        raise FieldErrors(wrong)
    kept = call.switchmoments.filter(undone_at=None)
    if kept.count() >= MOST_MOMENTS:
        raise InputError(f"{call} holds {MOST_MOMENTS} starts and stops, which is all it can")
    last = kept.last()
    if last is not None and last.what == what:
        raise InputError(f"The last one tapped was a {what} too: tap what happened between, or take it back")
    made = SwitchMoment.objects.create(call=call, by=user, what=what, box_f=box, psig=psig, **when)
    log.write(user, "tap_cycle", call, what=what, box_f=box, psig=psig)
    return made


@on_call
def hear_cycles(user, call, moments, source):
    """Store the starts and stops that a device told by itself (when, what, °F, psig), each in its turn and later than what stands.

    One that is as the last, or not later than anything kept or taken back, is not told again. Returns how many were new.
    """
    rows = list(call.switchmoments.all())
    last, seen_till, new = next((one.what for one in reversed(rows) if one.undone_at is None), ""), rows[-1].at if rows else None, 0
    for at, what, box_f, psig in moments:
        if what == last or (seen_till is not None and at <= seen_till) or len(rows) + new >= MOST_MOMENTS:
            continue
        SwitchMoment.objects.create(call=call, by=user, what=what, box_f=box_f, psig=psig, at=at, source=source)
        last, seen_till, new = what, at, new + 1
    if new:
        log.write(user, "hear_cycles", call, moments=new, source=source)
    return new
