"""Watch a defrost from its start to its end; what was seen becomes observations."""

from datetime import timedelta

from django.db import transaction

from kettle.knowledge import observations
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import TRADE
from web import work_time
from web.accounts.access import require_same_shop, shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import action, on_call, require_open
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import DefrostWatch

SOURCE = "watched"
LONGEST_MIN = (1, 240)
MARKS = {"drip": "First drip", "clear": "Coil clear", "ended": "It ended"}
# What may be seen while one runs: fields of the form are observations.
SEEN = ("heater_rated_w", "heater_volts", "heater_amps", "compressor_in_defrost", "fans_in_defrost", "drain")


@on_call
def start_watch(user, call, program, expected, **when):
    """Begin to watch a defrost that starts now, under a program (or None) and with what the model expects."""
    running = call.defrostwatchs.filter(ended_by="", undone_at=None).first()
    if running is not None:
        return running
    kept = {"starts": list(program.starts_min), "figures": dict(program.values)} if program else {}
    watch = DefrostWatch.objects.create(call=call, by=user, program=kept, expected=expected or {}, **when)
    log.write(user, "start_watch", call, watch=watch.pk)
    return watch


def _running(user, watch):
    require_same_shop(user, watch)
    require_open(watch.call)
    if watch.is_over or watch.undone_at:
        raise InputError("This defrost is over")


@action
def mark_watch(user, watch, mark, now=None):
    """Note that a milestone was reached now."""
    _running(user, watch)
    if mark not in ("drip", "clear"):
        raise InputError(f"“{mark[:10]}” is not a milestone of a defrost")
    minutes = _minutes(watch, now)
    watch.marks = watch.marks | {mark: minutes}
    watch.save(update_fields=["marks"])
    log.write(user, "mark_watch", watch.call, watch=watch.pk, mark=mark, minutes=minutes)


@action
def end_watch(user, watch, ended_by, coil_after, typed, now=None):
    """The defrost ended: store by what and how the coil is, and record what was seen as observations.

    FieldErrors names each value that is wrong, and nothing is stored.
    """
    _running(user, watch)
    now = now or work_time.now()
    ran = _minutes(watch, now)
    found = {"defrost_ran_min": f"{ran:g}", "defrost_ended_by": ended_by, "coil_after_defrost": coil_after}
    found |= {key: typed.get(key, "") for key in SEEN if not _stands(watch, key, typed.get(key, ""))}
    if observations.get("defrost_starts").exists_on(watch.call.unit.resolved()):
        # One that was seen from start to end did start.
        found["defrost_starts"] = "yes"
    errors = {}
    with transaction.atomic():
        for key, value in found.items():
            if not value.strip():
                if key in ("defrost_ended_by", "coil_after_defrost"):
                    errors[key] = "Say it: the plan rests on it"
                continue
            try:
                record_reading(user, watch.call, key, value, source=SOURCE, at=now)
            except InputError as error:
                errors[key] = str(error)
        if errors:
            raise FieldErrors(errors)
        watch.marks = watch.marks | {"ended": ran}
        watch.ended_by, watch.coil_after = ended_by, coil_after
        watch.save(update_fields=["marks", "ended_by", "coil_after"])
        log.write(user, "end_watch", watch.call, watch=watch.pk, minutes=ran, ended_by=ended_by, coil_after=coil_after)
    return watch


def _stands(watch, key, typed):
    """Whether what the form says again was kept already while the defrost was watched."""
    kept = watch.call.readings.filter(key=key, undone_at=None, at__gte=watch.at).last()
    try:
        return kept is not None and typed.strip() != "" and observations.get(key).parse(typed, shown_to(watch.by)) == kept.value
    except InputError:
        return False


@action
def enter_watch(user, call, programs, typed, now=None):
    """Store a defrost that was watched without the clock: minutes to a clear coil and to its end, by what, and the coil.

    `programs` are those of the call by side, each with when it was kept: it ran by the one that stood when it began.

    FieldErrors names each value that is wrong, and nothing is stored.
    """
    now, errors, minutes = now or work_time.now(), {}, {}
    for mark, needed in (("clear", False), ("ended", True)):
        try:
            minutes[mark] = _typed_minutes(typed.get(f"{mark}_after", ""), MARKS[mark], needed)
        except InputError as error:
            errors[f"{mark}_after"] = str(error)
    if not errors and minutes["clear"] is not None and minutes["clear"] > minutes["ended"]:
        errors["clear_after"] = f"{MARKS['clear']}: it cannot be clear after its end"
    if errors:
        raise FieldErrors(errors)
    began = now - timedelta(minutes=minutes["ended"])
    ran_by = programs.get("found")
    if "left" in programs and (ran_by is None or programs["left"][0] <= began):
        ran_by = programs["left"]
    watch = start_watch(user, call, ran_by[1] if ran_by else None, {}, at=began)
    if minutes["clear"] is not None:
        mark_watch(user, watch, "clear", watch.at + timedelta(minutes=minutes["clear"]))
    return end_watch(user, watch, typed.get("defrost_ended_by", ""), typed.get("coil_after_defrost", ""), {}, now)


def _typed_minutes(text, label, needed):
    if not text.strip() and not needed:
        return None
    low, high = LONGEST_MIN
    try:
        value = TRADE.parse(text, "min")
    except InputError as error:
        raise InputError(f"{label}: {error}; allowed {low} to {high} min") from None
    if not low <= value <= high:
        raise InputError(f"{label}: {value:g} min is outside {low} to {high} min")
    return value


@action
def leave_watch(user, watch):
    """Give up watching a defrost; nothing is recorded of it."""
    _running(user, watch)
    watch.undone_at, watch.undone_by = work_time.now(), user
    watch.save(update_fields=["undone_at", "undone_by"])
    log.write(user, "leave_watch", watch.call, watch=watch.pk)


def _minutes(watch, now):
    return round(((now or work_time.now()) - watch.at).total_seconds() / 60.0, 1)
