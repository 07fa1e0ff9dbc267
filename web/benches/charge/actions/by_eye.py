"""Put gas into a unit where no scale stands: by eye or by its amps, the amount an estimate and marked as one."""

from datetime import timedelta

from kettle.benches.charge.missing import went_in_oz
from kettle.knowledge import observations
from kettle.knowledge.errors import FieldErrors, InputError
from kettle.knowledge.measures import format_number
from web.accounts.access import shown_to
from web.benches.charge.actions.weigh import LONGEST_CYLINDER, READ_AFTER
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.do_act import do_act
from web.logbook.actions.record_reading import record_reading

BY = (("eye", "by the glass, the frost, the feel"), ("amps", "by the compressor's amps"))


@on_call
def by_eye(user, call, judgement, typed, **when):
    """Store gas that went in without a scale, with an estimate where one is typed or the amps give one.

    FieldErrors by field; nothing is stored then. `Held` where a hold blocks it and no reason is given. `when` may give `at`.
    """
    shown, wrong = shown_to(user), {}
    how = typed.get("by", "eye")
    if how not in dict(BY):
        wrong["by"] = "Gone by: by eye or by the amps"
    if len(typed.get("cylinder", "").strip()) > LONGEST_CYLINDER:
        wrong["cylinder"] = f"Cylinder: at most {LONGEST_CYLINDER} letters"
    now = None
    if typed.get("compressor_amps", "").strip():
        try:
            now = observations.get("compressor_amps").parse(typed["compressor_amps"], shown)
        except InputError as error:
            wrong["compressor_amps"] = str(error)
    elif how == "amps":
        wrong["compressor_amps"] = "Compressor amps: as they stand now, A; by them it went in"
    if wrong:
        raise FieldErrors(wrong)
    oz, note = typed.get("oz", "").strip(), ""
    before = judgement.facts.number("compressor_amps")
    if how == "amps":
        note = (
            f"by the amps, {format_number(before, 1)} to {format_number(now, 1)} A" if before else f"by the amps, {format_number(now, 1)} A"
        )
        estimate = _estimate(judgement.facts, before, now)
        if not oz and estimate is not None:
            oz = f"{estimate:.0f} oz"
    try:
        act = do_act(user, call, judgement, "charge.added", oz, note=note, reason=typed.get("reason", ""),
                     cylinder=typed.get("cylinder", ""), by_eye=True, **when)  # fmt: skip
    except FieldErrors:
        raise
    except InputError as error:
        raise FieldErrors({"oz": str(error)}) from None
    for key in READ_AFTER:
        if typed.get(key, "").strip() and observations.get(key).exists_on(judgement.facts.unit):
            try:
                record_reading(user, call, key, typed[key], at=act.at + timedelta(milliseconds=1))
            except InputError as error:
                raise FieldErrors({key: str(error)}) from None
    log.write(user, "by_eye", call, oz=act.value, by=how)
    return act


def _estimate(facts, before, now):
    """About how much went in by what the amps rose, oz; None where they do not tell."""
    rated, box, air = facts.unit.compressor_rla_a, facts.number("box_temp_f"), facts.number("ambient_f")
    if not rated or before is None or box is None or air is None:
        return None
    found = went_in_oz(facts.unit, box, air, 100.0 * before / rated, 100.0 * now / rated)
    return None if found is None or found[0] < 1.0 else found[0]
