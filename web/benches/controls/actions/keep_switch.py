"""Keep a pressure switch as found and as left, both ends together."""

from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.logbook.actions.acting import on_call
from web.logbook.actions.change_setting import change_setting

ENDS = (("cut_in", "lp_cut_in"), ("cut_out", "lp_cut_out"))


@on_call
def keep_switch(user, call, found, left, why):
    """Store both ends as found and as left (`cut_in` and `cut_out`, as typed); FieldErrors by field, and nothing is stored then."""
    wrong, kept, at = {}, [], work_time.now()
    for end, code in ENDS:
        try:
            kept.append(change_setting(user, call, code, found.get(end, ""), left.get(end, ""), why, at=at))
        except FieldErrors as error:
            wrong |= {f"{end}_{name}" if name != "why" else "why": text for name, text in error.by_field.items()}
    if wrong:
        raise FieldErrors(wrong)
    if not kept:
        raise InputError("Nothing was changed")
    return kept
