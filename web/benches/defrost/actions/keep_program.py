"""Keep a defrost program as found, then as left; what changed in between stands as settings with its reason."""

from kettle.benches.defrost.program import ROLES, clock, read_program
from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import shown_to
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.change_setting import change_setting
from web.logbook.actions.reasons import LETTERS, is_said
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import DefrostProgram
from web.logbook.models.records import SIMULATED

SOURCE = "program"
# Observations a program as found stands for.
STANDS_FOR = {"fail_safe_min": "defrost_set_min", "termination_f": "termination_f"}


@on_call
def keep_program(user, call, side, typed, why="", source=SOURCE, **when):
    """Check and store one side of a program; FieldErrors names each value that is wrong, and nothing is stored.

    As left needs the program as found, and a reason; every value that differs becomes a setting as found and as left.
    """
    if side not in dict(DefrostProgram.SIDES):
        raise InputError(f"Program: “{side[:10]}” is not one of found, left")
    shown = shown_to(user)
    program, errors = read_program(typed, call.unit.resolved(), shown)
    starts, values = list(program.starts_min), dict(program.values)
    found = call.defrostprograms.filter(undone_at=None, side="found").last()
    if side == "left" and found is None:
        errors["starts"] = "Keep the program as found first: nothing may be changed that was not read"
    if side == "left" and not is_said(why):
        errors["why"] = f"Why: say it in {LETTERS}"
    if errors:
        raise FieldErrors(errors)
    if side == "found" and source.endswith(SIMULATED):
        why = "read from a simulated controller"
    kept = DefrostProgram.objects.create(call=call, by=user, side=side, starts=starts, figures=values, why=why.strip(), **when)
    if side == "found":
        _stand_for(user, call, kept, source, when)
    else:
        _record_changes(user, call, found, kept, shown, {"at": kept.at})
    log.write(user, "keep_program", call, side=side, starts=[clock(start) for start in starts], **values)
    return kept


def _stand_for(user, call, kept, source, when):
    """What a program as found says as observations."""
    record_reading(user, call, "defrosts_per_day", str(len(kept.starts)), source=source, **when)
    for code, key in STANDS_FOR.items():
        if code in kept.figures:
            unit = ROLES[code].unit
            record_reading(user, call, key, f"{kept.figures[code]:.2f} {unit}", source=source, **when)


def _record_changes(user, call, found, left, shown, when):
    """Every value that differs, as a setting as found and as left."""
    if len(found.starts) != len(left.starts):
        change_setting(user, call, "defrosts_per_day", str(len(found.starts)), str(len(left.starts)), left.why, **when)
    for code, role in ROLES.items():
        before, after = found.figures.get(code), left.figures.get(code)
        if role.parameter and before is not None and after is not None and before != after:
            sides = (f"{shown.edit(value, role.unit)}" for value in (before, after))
            change_setting(user, call, role.parameter, *sides, left.why, **when)
