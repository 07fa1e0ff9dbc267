"""Write the hand-over of a call, and close it."""

from datetime import date, timedelta

from django.utils import timezone

from kettle.benches.controls.registers import REGISTERS
from kettle.benches.ice import map as ice
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, require_open
from web.logbook.actions.merging import changed
from web.logbook.actions.override_hold import SHORTEST_REASON
from web.logbook.controller_talks import in_service, unconfirmed
from web.logbook.judging import standing_readings
from web.logbook.left_behind import STANDING_WORDS, left_before, still_there
from web.logbook.models import Override

WORDS = {"complaint": "Complaint", "changed": "What changed", "found": "What was found", "done": "What was done", "advice": "Advice",
         "declined": "Declined by the customer"}  # fmt: skip
FIELDS = (*WORDS, "next_visit", "next_visit_why")
LONGEST = 4000
FURTHEST_DAYS = 730


@action
def write_hand_over(user, call, fields, was=None):
    """Store the words of the hand-over that were changed; FieldErrors by field, also for one that another changed meanwhile (`was` is
    what the form showed), and nothing is stored then."""
    require_same_shop(user, call)
    require_open(call)
    call.refresh_from_db(fields=[*WORDS, "next_visit", "next_visit_why"])
    fields = changed({name: fields[name] for name in FIELDS if name in fields}, was or {}, standing_words(call), _writer(call, user))
    if not fields:
        return
    errors, values = {}, {}
    for name, label in WORDS.items():
        if name in fields:
            values[name] = fields[name].strip()
            if len(values[name]) > LONGEST:
                errors[name] = f"{label}: {len(values[name])} letters are more than {LONGEST}"
    if "next_visit" in fields:
        try:
            values["next_visit"] = _visit_day(fields["next_visit"])
        except InputError as error:
            errors["next_visit"] = str(error)
    if "next_visit_why" in fields:
        values["next_visit_why"] = fields["next_visit_why"].strip()[:200]
    if errors:
        raise FieldErrors(errors)
    for name, value in values.items():
        setattr(call, name, value)
    call.save(update_fields=list(values))
    log.write(user, "write_hand_over", call, **values)


def standing_words(call):
    """The words of the hand-over as a form shows them."""
    day = call.next_visit.isoformat() if call.next_visit else ""
    return {**{name: getattr(call, name) for name in WORDS}, "next_visit": day, "next_visit_why": call.next_visit_why}


def _writer(call, user):
    """Who wrote on the hand-over last, if that was another."""
    line = call.log.filter(action="write_hand_over").exclude(by=user).select_related("by").first()
    return line.by.get_full_name() or line.by.username if line else None


CYCLES = 2
# What is done for the visit only, and what ends it.
LEFT_FOR_NOW = (
    (("evap_fan", "delay_bridged"), ("evap_fan", "delay_set"), "The fan delay is bridged"),
    (("condenser", "blocked_on_purpose"), ("condenser", "unblocked"), "The condenser is still blocked on purpose"),
)


def doubts(call):
    """What should not be left so when a visit ends, in words."""
    found = []
    if in_service(call):
        found.append("The controller is in service mode: take it out first, nobody can from here afterwards")
    found += [f"Not confirmed: {REGISTERS[role].label.lower()} was written to the controller and did not come back so"
              for role in unconfirmed(call) if role != "service_mode"]  # fmt: skip
    drawn = {(drawing.evaporator): drawing for drawing in call.icedrawings.filter(undone_at=None).order_by("at", "pk")}
    iced = [number for number, one in drawn.items() if ice.read(ice.parse(one.rows, one.places), one.face_ft2).ice_form in ice.ICED_FORMS]
    if iced and not call.melts.filter(undone_at=None, ended_at__isnull=False).exists():
        found.append("Ice is drawn on the coil, and nothing says that it was melted or left on purpose")
    standing = [(act.part, act.did) for act in call.acts.filter(undone_at=None)]
    found += [words for done, undone, words in LEFT_FOR_NOW if done in standing and undone not in standing[standing.index(done) :]]
    said = standing_readings(call)
    found += [words for key, word, words in STANDING_WORDS if key in said and said[key].value == word]
    found += unwatched(call)
    found += [f"Still there: {one}" for one in still_there(call)]
    found += [f"Still there since {one.call}: {one}" for one in left_before(call)]
    return tuple(found)


def unwatched(call):
    """What has to be watched before one leaves: two whole cycles of a pressure control that was set on this call as the only thermostat."""
    set_here = call.settingchanges.filter(undone_at=None, parameter__in=("lp_cut_in", "lp_cut_out")).order_by("at").last()
    if set_here is None or call.unit.resolved().box_control != "suction_pressure":
        return []
    starts = call.switchmoments.filter(undone_at=None, what="start", at__gte=set_here.at).count()
    return [] if starts > CYCLES else [f"The pressure control was set and fewer than {CYCLES} whole cycles were watched since"]


@action
def close_call(user, call, reason=""):
    """End the visit; InputError where something should not be left so and no reason says why it is."""
    require_same_shop(user, call)
    require_open(call)
    found, reason = doubts(call), reason.strip()
    if found and not SHORTEST_REASON <= len(reason) <= 300:
        raise InputError(f"{'. '.join(found)}. To leave it so, say why in {SHORTEST_REASON} to 300 letters")
    if found:
        Override.objects.create(call=call, by=user, action="close", holds=["left_so"], texts=list(found), reason=reason)
    for one in (*still_there(call), *left_before(call)):
        one.left_why = reason
        one.save(update_fields=["left_why"])
    call.closed_at = timezone.now()
    call.save(update_fields=["closed_at"])
    log.write(user, "close_call", call, left_so=list(found), reason=reason)


def _visit_day(text):
    if not text.strip():
        return None
    today = timezone.localdate()
    last = today + timedelta(days=FURTHEST_DAYS)
    try:
        day = date.fromisoformat(text.strip())
    except ValueError:
        raise InputError(f"Next visit: “{text[:20]}” is not a date like {today}") from None
    if not today <= day <= last:
        raise InputError(f"Next visit: {day} is outside {today} to {last}")
    return day
