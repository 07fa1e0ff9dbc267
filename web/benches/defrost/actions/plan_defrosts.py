"""Ask for a week of programs, and stop asking."""

from datetime import timedelta

from kettle.knowledge.equipment import LIMITS
from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.accounts.access import require_same_shop, shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import action, on_call
from web.logbook.models import DefrostPlan
from web.logbook.models.defrosts import AT_WORK

BOX_LIMIT = "box_limit_f"
MOST_OF_SHOP = 2
# A plan nobody has worked on for so long was cut off.
CUT_OFF = timedelta(seconds=60)


def has_room(user, shop_id):
    """Whether a plan of a person may be worked on now: one of each person, two of a shop, so that the pages keep their turn."""
    since = work_time.now() - CUT_OFF
    working = DefrostPlan.objects.filter(state="working", undone_at=None, touched_at__gte=since, call__shop=shop_id)
    return working.count() < MOST_OF_SHOP and not working.filter(by=user).exists()


@on_call
def ask_plan(user, call, typed):
    """Check what the plan must keep to and store that it is asked for; FieldErrors names what is wrong, and nothing is stored.

    A plan of the call that is still worked on is stopped. Returns the row; who calls begins the work, or lets it wait.
    """
    shown, asked = shown_to(user), {"whole_hours": bool(typed.get("whole_hours")), "can_demand": bool(typed.get("can_demand"))}
    if typed.get(BOX_LIMIT, "").strip():
        low, high, unit, _ = LIMITS["set_f"]
        try:
            limit = shown.parse(typed[BOX_LIMIT], unit)
        except InputError as error:
            raise FieldErrors({BOX_LIMIT: f"Box at most: {error}; allowed {shown.span(low, high, unit)}"}) from None
        if not low <= limit <= high or limit <= call.unit.resolved().set_f:
            over = shown.text(call.unit.resolved().set_f, unit, 0)
            raise FieldErrors({BOX_LIMIT: f"Box at most: it must lie over the set {over}, up to {shown.text(high, unit, 0)}"})
        asked[BOX_LIMIT] = limit
    call.defrostplans.filter(state__in=AT_WORK).update(state="stopped")
    plan = DefrostPlan.objects.create(call=call, by=user, asked=asked, state="working" if has_room(user, call.shop_id) else "waiting")
    log.write(user, "ask_plan", call, plan=plan.pk, **asked)
    return plan


@action
def stop_plan(user, plan):
    """Stop a plan that is being worked on."""
    require_same_shop(user, plan)
    if DefrostPlan.objects.filter(pk=plan.pk, state__in=AT_WORK).update(state="stopped"):
        log.write(user, "stop_plan", plan.call, plan=plan.pk)
