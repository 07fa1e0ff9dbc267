"""Keep a scenario for the shop, lay a closed call open as one, put one away."""

from django.utils import timezone

from kettle.knowledge.errors import InputError
from kettle.yard import scenario as core
from web.accounts.access import require_same_shop, shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.calls.judging import facts_by_stage, told_of
from web.logbook.models import Call
from web.yard.actions.begin import PLATE
from web.yard.models import Scenario

MOST = 500


@action
def keep_scenario(user, one):
    """Store a checked scenario for everybody of the shop."""
    shop = shop_of(user)
    if Scenario.objects.filter(shop=shop, gone_at=None).count() >= MOST:
        raise InputError(f"The shop keeps {MOST} scenarios, which is all it can: put some away first")
    kept = Scenario.objects.create(shop=shop, by=user, title=one.title, told=one.model_dump(exclude_none=True))
    log.write(user, "keep_scenario", shop=shop, scenario=kept.pk, title=kept.title)
    return kept


@action
def put_away(user, kept):
    """Take a scenario off the shop's list; practice calls on it stay."""
    require_same_shop(user, kept)
    kept.gone_at = timezone.now()
    kept.save(update_fields=["gone_at"])
    log.write(user, "put_away_scenario", shop=kept.shop, scenario=kept.pk, title=kept.title)


def laid_open(call: Call, title, story):
    """A closed call as a scenario: its figures by stage and what was found; whose it was, where and when are left out.

    InputError for one that is open, or says too little.
    """
    if call.is_open:
        raise InputError("Close the call first: an exercise is made of what it came to")
    told = told_of(call)
    if len(told.record.coils) > 1:
        raise InputError("A unit with several coils cannot be laid open yet")
    stages = [dict(facts.seen) for _, facts in facts_by_stage(told)] + [dict(told.call.facts_now(1).seen)]
    found = []
    for entry in call.findings.filter(undone_at=None):
        found = [*dict.fromkeys([*found, *entry.causes])]
    spec = call.unit.spec()
    plate = core.Plate(**{name: value for name in PLATE if name in core.Plate.model_fields and (value := getattr(spec, name)) is not None},
                       altitude_ft=spec.altitude_ft)  # fmt: skip
    return core.laid_open(title, story, plate, stages, found[: core.MOST_FAULTS])
