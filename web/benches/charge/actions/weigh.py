"""Put gas into a unit by the scale: the act, its weights, and what was read after it."""

from datetime import timedelta

from kettle.benches.charge.additions import by_scale
from kettle.knowledge import observations
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.do_act import do_act
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import Weighing

SCALE = (("before", "Cylinder before"), ("after", "Cylinder now"), ("lost", "Hose and tap"))
READ_AFTER = ("sight_glass", "compressor_amps")
LONGEST_CYLINDER = 40


@on_call
def weigh(user, call, judgement, did, typed, evaporator=None, **when):
    """Store gas that went in (`did` is added or weighed_in) with its scale, and glass and amps where they were read after it.

    FieldErrors by field, also for a reading that cannot be; nothing is stored then. `Held` where a hold blocks it and no reason is given.
    `when` may give `at`.
    """
    wrong, weights = {}, {}
    for name, label in SCALE:
        text = typed.get(name, "").strip()
        if not text and name == "lost":
            weights[name] = 0.0
            continue
        try:
            weights[name] = shown_to(user).parse(text, "oz")
        except InputError as error:
            wrong[name] = f"{label}: {error}"
    cylinder, form = typed.get("cylinder", "").strip(), typed.get("form", "")
    if len(cylinder) > LONGEST_CYLINDER:
        wrong["cylinder"] = f"Cylinder: at most {LONGEST_CYLINDER} letters"
    if form not in ("", *dict(Weighing.FORMS)):
        wrong["form"] = "It goes in as liquid or as vapour"
    if wrong:
        raise FieldErrors(wrong)
    went_in = by_scale(weights["before"], weights["after"], weights["lost"])
    act = do_act(user, call, judgement, f"charge.{did}", f"{went_in:.3f} oz", evaporator, reason=typed.get("reason", ""),
                 cylinder=cylinder, **when)  # fmt: skip
    Weighing.objects.create(
        act=act, cylinder=cylinder, before_oz=weights["before"], after_oz=weights["after"], lost_oz=weights["lost"], form=form
    )
    for key in READ_AFTER:
        if typed.get(key, "").strip() and observations.get(key).exists_on(judgement.facts.unit):
            try:
                record_reading(user, call, key, typed[key], at=act.at + timedelta(milliseconds=1))
            except InputError as error:
                raise FieldErrors({key: str(error)}) from None
    log.write(user, "weigh", call, did=did, went_in_oz=round(went_in, 2), cylinder=cylinder)
    return act
