"""Put on record what was put on a unit for the time being, and that it is gone."""

from kettle.knowledge.errors import FieldErrors, InputError
from web import work_time
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, on_call, require_open
from web.logbook.models import Placed

WHAT = dict(Placed.WHAT)
LONGEST_WHERE, LONGEST_DOES_NOT = 120, 200
MOST_PLACED = 60
# What has to be so before an output is moved.
OUTPUT_TICKS = {
    "load_fits": "The load is within the new output's rating",
    "logic_fits": "The new output's own logic is off, or does what this load needs",
    "maker_allows": "The maker of the controller allows it",
    "owner_agrees": "The owner knows and agrees",
}


@on_call
def place(user, call, what, where=""):
    """Store what was put there; InputError says what cannot be."""
    if what not in WHAT or what == "output_moved":
        raise InputError("Choose what was put there")
    where = where.strip()
    if len(where) > LONGEST_WHERE:
        raise InputError(f"Where: {len(where)} letters are more than {LONGEST_WHERE}")
    return _keep(user, call, what=what, where=where)


@on_call
def move_output(user, call, fields):
    """Store that a dead output was moved to a spare one for the time being; FieldErrors by field where something of the list is open."""
    wrong = {name: f"Not ticked: {words.lower()}" for name, words in OUTPUT_TICKS.items() if not fields.get(name)}
    told = {}
    for name, label, most in (("load", "What was moved", 40), ("from_output", "From", 30), ("to_output", "To", 30),
                              ("does_not", "What no longer happens by itself", LONGEST_DOES_NOT)):  # fmt: skip
        told[name] = fields.get(name, "").strip()
        if not 1 <= len(told[name]) <= most:
            wrong[name] = f"{label}: 1 to {most} letters"
    if wrong:
        raise FieldErrors(wrong)
    where = f"{told['load']} from {told['from_output']} to {told['to_output']}"
    return _keep(user, call, what="output_moved", where=where, does_not=told["does_not"])


def _keep(user, call, **fields):
    if call.left_there.filter(undone_at=None).count() >= MOST_PLACED:
        raise InputError(f"{call} holds {MOST_PLACED} things put there, which is all it can")
    kept = Placed.objects.create(call=call, by=user, **fields)
    log.write(user, "place", call, what=kept.what, where=kept.where)
    return kept


@action
def take_away(user, placed, call):
    """Say during a call that something is gone; nothing where it is already."""
    require_same_shop(user, placed)
    require_open(call)
    if placed.call.unit_id != call.unit_id:
        raise InputError("That was put on another unit")
    if placed.gone_at is None:
        placed.gone_at, placed.gone_by = work_time.now(), user
        placed.save(update_fields=["gone_at", "gone_by"])
        log.write(user, "take_away", call, what=placed.what, where=placed.where)
    return placed
