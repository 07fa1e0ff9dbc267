"""Record refrigerant work on a call: a leak search, microns, a standing test, the steps of a change, gas recovered."""

from datetime import timedelta

from django.utils import timezone

from kettle.benches.prove.promised import LEAK_OPEN
from kettle.benches.refrigerant import change, leaks, vacuum
from kettle.benches.refrigerant.cylinders import came_out, lb, limit_lb, room
from kettle.benches.refrigerant.nitrogen import stood
from kettle.knowledge import refrigerants
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import format_number
from web import work_time
from web.accounts.access import shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.do_act import do_act
from web.logbook.actions.promise import promise
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import ChangeStep, LeakLook, StandingTest, VacuumReading, Weighing

MOST = 400
NOTE = 120
SHORTEST, LONGEST_NAME, LONGEST_WHY = 3, 60, 200
# A leak left open is looked at again after so long, days.
AGAIN_DAYS = 30
# Of what a vacuum gauge tells one reading in so many minutes is kept.
EVERY_MIN = 1.0
TEST = (("start_psig", "Pressure at the start", "psig"), ("start_f", "Temperature at the start", "°F"),
        ("now_psig", "Pressure now", "psig"), ("now_f", "Temperature now", "°F"))  # fmt: skip


def _room(rows, call):
    if rows.count() >= MOST:
        raise InputError(f"{call} holds {MOST} of these, which is all it can")


@on_call
def keep_look(user, call, facts, place, heard, typed=""):
    """Store what a place gave, and what the detector read there; a search that names one is the observation *leak found*.

    A place of one coil of several names it (`leaks.code_of`). FieldErrors for a reading that is none. The background is kept as a place of
    its own.
    """
    if place not in (*(one.code for one in leaks.places_on(facts.unit)), leaks.BACKGROUND) or heard not in leaks.HEARD:
        raise InputError("Choose a place, and what it gave")
    field = "background" if place == leaks.BACKGROUND else "reading"
    reading = _detector(typed, field)
    if place == leaks.BACKGROUND and reading is None:
        raise FieldErrors({field: "Background: what the detector reads in the air there, 0 where it is silent"})
    _room(call.leaklooks, call)
    coil = None if place == leaks.BACKGROUND else leaks.coil_of(place)
    made = LeakLook.objects.create(
        call=call, by=user, place=place.partition(leaks.OF_COIL)[0], heard=heard, reading=reading, evaporator=coil,
    )  # fmt: skip
    looked = looks_of(call)
    found = leaks.found(facts.unit, facts, looked, readings_of(call))
    if found.places and not facts.is_("leak_test", "found"):
        record_reading(user, call, "leak_test", "found")
    elif not found.places and all(looked.get(one.code) == "no" for one in leaks.in_order(facts.unit, facts)):
        record_reading(user, call, "leak_test", "none_found")
    log.write(user, "leak_look", call, place=place, heard=heard)
    return made


def _detector(typed, field):
    if not typed.strip():
        return None
    low, high = leaks.READING
    try:
        value = float(typed.strip().replace(",", "."))
    except ValueError:
        raise FieldErrors({field: f"Detector: “{typed[:20]}” is not a number"}) from None
    if not low <= value <= high:
        raise FieldErrors({field: f"Detector: {typed[:20]} is outside {low:g} to {high:g}, in whatever unit it shows"})
    return value


def looks_of(call):
    """What each place gave last (place -> word), the background left out."""
    return {one.of: one.heard for one in call.leaklooks.filter(undone_at=None) if one.place != leaks.BACKGROUND}


def readings_of(call):
    """What the detector read at each place last, and in the air (place -> figure)."""
    last = {one.of: one.reading for one in call.leaklooks.filter(undone_at=None)}
    return {place: reading for place, reading in last.items() if reading is not None}


@on_call
def give_up_leak(user, call, judgement, typed):
    """Store that a customer has a leak left open: who decided and why, and when it is looked at again; FieldErrors by field."""
    who, why, wrong = typed.get("who", "").strip(), typed.get("why_open", "").strip(), {}
    if not SHORTEST <= len(who) <= LONGEST_NAME:
        wrong["who"] = f"Who decided: {SHORTEST} to {LONGEST_NAME} letters"
    if not SHORTEST <= len(why) <= LONGEST_WHY:
        wrong["why_open"] = f"Why: {SHORTEST} to {LONGEST_WHY} letters"
    if wrong:
        raise FieldErrors(wrong)
    act = do_act(user, call, judgement, "leak.given_up", note=f"{who}: {why}")
    again = timezone.localdate(work_time.now()) + timedelta(days=AGAIN_DAYS)
    promise(user, call, f"The leak left open: {LEAK_OPEN.what.lower()}", again, LEAK_OPEN.why, LEAK_OPEN.code)
    return act


@on_call
def keep_microns(user, call, typed, pump, **when):
    """Store a reading of the vacuum gauge; FieldErrors by field. `when` may give `at`."""
    low, high = vacuum.MICRONS
    try:
        value = float(typed.strip().replace(",", ""))
    except ValueError:
        raise FieldErrors({"microns": f"Microns: “{typed[:20]}” is not a number"}) from None
    if not low <= value <= high:
        raise FieldErrors({"microns": f"Microns: {format_number(value, 0)} is outside {low:g} to {high:g}"})
    _room(call.vacuumreadings, call)
    made = VacuumReading.objects.create(call=call, by=user, microns=value, pump=pump, **when)
    log.write(user, "keep_microns", call, microns=value, pump=pump)
    return made


@on_call
def keep_told(user, call, told, pump, source):
    """Store what a vacuum gauge told by itself ((moment, microns) in their order), one reading in `EVERY_MIN`; returns how many."""
    last, kept = call.vacuumreadings.last(), 0
    for at, value in told:
        if last is None or (at - last.at).total_seconds() >= EVERY_MIN * 60.0:
            _room(call.vacuumreadings, call)
            last, kept = VacuumReading.objects.create(call=call, by=user, microns=value, pump=pump, at=at), kept + 1
    if kept:
        log.write(user, "keep_told", call, microns=kept, source=source)
    return kept


@on_call
def keep_test(user, call, typed):
    """Store a standing-pressure test; FieldErrors by field, and nothing is stored then."""
    shown, wrong, values = shown_to(user), {}, {}
    for name, label, unit in TEST:
        try:
            values[name] = shown.parse(typed.get(name, ""), unit)
        except InputError as error:
            wrong[name] = f"{label}: {error}"
    try:
        values["minutes"] = float(typed.get("minutes", "").strip().replace(",", "."))
    except ValueError:
        wrong["minutes"] = f"Stood: “{typed.get('minutes', '')[:20]}” is not a number of minutes"
    if wrong:
        raise FieldErrors(wrong)
    stood(**values, altitude_ft=call.unit.resolved().altitude_ft)
    _room(call.standingtests, call)
    made = StandingTest.objects.create(call=call, by=user, **values)
    log.write(user, "standing_test", call, **values)
    return made


@on_call
def do_step(user, call, part, step, note=""):
    """Tick a step of a change with what was noted of it; nothing where it is done already."""
    if step not in {one.code for one in change.steps(part, call.unit.resolved())}:
        raise InputError("That is no step of this change")
    standing = call.changesteps.filter(part=part, step=step, undone_at=None).first()
    if standing is None:
        standing = ChangeStep.objects.create(call=call, by=user, part=part, step=step, note=note.strip()[:NOTE])
        log.write(user, "change_step", call, part=part, step=step)
    return standing


@on_call
def recover(user, call, judgement, typed):
    """Store gas recovered into a cylinder by the scale; FieldErrors by field, and nothing is stored then."""
    shown, wrong, weights = shown_to(user), {}, {}
    for name, label in (("before", "Cylinder before"), ("after", "Cylinder now")):
        try:
            weights[name] = shown.parse(typed.get(name, ""), "oz")
        except InputError as error:
            wrong[name] = f"{label}: {error}"
    if wrong:
        raise FieldErrors(wrong)
    got, cylinder = came_out(weights["before"], weights["after"]), typed.get("cylinder", "").strip()
    act = do_act(user, call, judgement, "charge.recovered", f"{got:.3f} oz", cylinder=cylinder)
    Weighing.objects.create(act=act, cylinder=cylinder[:40], before_oz=weights["before"], after_oz=weights["after"])
    return act


def overfull(call, cylinder_number, gross_oz):
    """What is wrong with how full a cylinder is by the scale, in words; empty where it has no stamped tare and capacity, or all is well."""
    cylinder = call.shop.cylinders.filter(number=cylinder_number.strip(), tare_lb__isnull=False, water_lb__isnull=False).first()
    if cylinder is None:
        return ""
    limit = limit_lb(refrigerants.get(cylinder.refrigerant), cylinder.water_lb)
    found = room(limit, max(lb(gross_oz), cylinder.tare_lb), cylinder.tare_lb)
    if not found.over:
        return ""
    return f"{cylinder} is over its limit by {format_number(-found.left_lb)} lb: take some out before it warms up"
