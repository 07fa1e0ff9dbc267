"""Read a controller's settings into a call, and write some of them; only what was read back counts as written."""

from kettle.benches.controls.registers import REGISTERS, alarm_seen, not_this_unit
from kettle.knowledge.equipment import CHOICES
from kettle.knowledge.errors import InputError
from web.accounts.access import require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action, outside, require_open
from web.logbook.actions.reasons import LETTERS, is_said
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.controller_talks import last_read
from web.logbook.models import ControllerTalk

SOURCE = "controller"


@outside
def read_controller(user, call, controller):
    """Read all settings and store them, and the alarm that stands as what was seen; InputError says that the connection failed, and
    nothing is stored."""
    require_same_shop(user, call)
    require_open(call)
    settings, live = controller.settings(), controller.live()
    return _keep_read(user, call, settings, live, controller.simulated)


@action
def _keep_read(user, call, settings, live, simulated):
    require_open(call)
    talk = ControllerTalk.objects.create(call=call, by=user, settings=settings, simulated=simulated)
    if not strangeness(call, talk):
        record_reading(user, call, "controller_alarm", alarm_seen(live), source=source_of(talk))
    log.write(user, "read_controller", call, talk=talk.pk)
    return talk


def source_of(talk):
    """How a reading says which controller it is from."""
    return f"{SOURCE}, simulated" if talk.simulated else SOURCE


def strangeness(call, talk):
    """Why a controller that was read does not look like this unit's."""
    unit = call.unit.resolved()
    return not_this_unit(talk.settings, unit.refrigerant.name, CHOICES["kind"][unit.kind.code])


@outside
def write_controller(user, call, controller, wanted, reason=""):
    """Write settings that differ from what stands, one by one, then read all of them back and store what came of it.

    A lost connection ends the writing; what was not read back is stored as unknown, never as written. Raises InputError where
    the call was never read from the controller, where it does not look like this unit's and no reason is given, or nothing differs.
    """
    require_same_shop(user, call)
    require_open(call)
    before = last_read(call)
    if before is None:
        raise InputError("Read the controller first: nothing may be changed that was not read")
    strange = strangeness(call, before)
    if strange and not is_said(reason):
        raise InputError(f"This does not look like the unit's controller. {strange[0]}. Say in {LETTERS} why it is to be written to")
    changes = {role: value for role, value in wanted.items() if before.settings.get(role) != value}
    if not changes:
        raise InputError("The controller holds this already: nothing was written")
    talk = ControllerTalk(call=call, by=user, wrote=changes, reason=reason.strip() if strange else "", simulated=controller.simulated)
    for role, value in changes.items():
        try:
            controller.write(role, value)
        except InputError as error:
            talk.refused[role] = str(error)
            if controller.lost:
                talk.complaint = str(error)[:300]
                break
    if not talk.complaint:
        try:
            talk.settings = controller.settings()
        except InputError as error:
            talk.complaint = f"Written, but not read back: {error}"[:300]
    return _keep_written(user, call, talk)


@action
def _keep_written(user, call, talk):
    """What was written was written: it is kept even where somebody closed the call meanwhile."""
    talk.save()
    log.write(user, "write_controller", call, talk=talk.pk, wrote=talk.wrote, refused=talk.refused, complaint=talk.complaint,
              reason=talk.reason)  # fmt: skip
    return talk


@outside
def start_defrost(user, call, controller):
    """Have the controller start a defrost now; InputError where it refuses or is lost."""
    require_same_shop(user, call)
    require_open(call)
    controller.start_defrost()
    _log_started(user, call, controller.simulated)


@action
def _log_started(user, call, simulated):
    log.write(user, "start_defrost", call, simulated=simulated)


def outcomes(talk, shown):
    """What came of each setting written: label, wanted, read back, and a mark with words."""
    found = []
    for role, wanted in talk.wrote.items():
        register = REGISTERS[role]
        read = talk.settings.get(role)
        if role in talk.refused:
            mark = ("✕", "bad", "refused" if talk.settings else "not known")
        elif read is None:
            mark = ("✕", "bad", "not known")
        elif read != wanted:
            mark = ("◐", "watch", "kept its own value")
        else:
            mark = ("●", "good", "confirmed")
        back = register.text(read, shown) if read is not None else "–"
        found.append({"label": register.label, "wanted": register.text(wanted, shown), "read": back, "mark": mark,
                      "why": talk.refused.get(role, "")})  # fmt: skip
    return found
