"""What was done on the screens of a practice call, as steps of its unit: each kind of event that changes a unit, and what it costs."""

from kettle.benches.defrost.program import ROLES
from kettle.knowledge import acts, observations, parameters
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE
from kettle.plant.observer.rig import OWN_DOING
from kettle.plant.observer.settings import SETTINGS, setting
from kettle.yard import practice as core
from kettle.yard.put_there import part_of, way_of
from web.logbook.models.records import SETTING, WORKED_OUT
from web.yard.filling import FIRST_PULL_MIN

PROGRAM = "program"
# What costs so many minutes where the core's tables say nothing of it.
LOOK_MIN, WORK_MIN, PAINT_MIN = 2.0, 10.0, 2.0
MINUTES = {
    "leak_look": LOOK_MIN, "step": WORK_MIN, "first_start": 2.0, "ice": PAINT_MIN, "cycle": 1.0,
    "looked": 1.0, "spot": 1.0,
}  # fmt: skip


def steps_of(work, event):
    """The steps an event of the record comes to: (what, of, value, minutes); empty where it neither changes a unit nor takes time."""
    tell = KINDS.get(event.kind)
    if tell is not None:
        return tell(work, event)
    return [(event.kind, "", None, MINUTES[event.kind])] if event.kind in MINUTES else []


def _reading(work, event):
    key, value, source = event.get("key"), event.get("value"), event.get("source")
    if source in (WORKED_OUT, SETTING) or (source or "").startswith(PROGRAM):
        return []
    if key in OWN_DOING:
        return [(core.PUT, key, value, core.PUT_MIN)]
    return [(core.ASKED, key, value, observations.get(key).minutes)]


def _act(work, event):
    act = acts.get(event.get("part"), event.get("did"))
    value = event.get("value")
    return [(core.DID, act.code, float(value) if act.unit and value is not None else 1.0 if act.unit else None, core.minutes_of(act))]


def _weighed(work, event):
    went = event.get("before_oz") - event.get("after_oz") - (event.get("lost_oz") or 0.0)
    amount = abs(went)
    return [(core.DID, f"charge.{event.get('did')}", round(amount, 3), core.WITHOUT_PARTS_MIN)]


def _setting(work, event):
    code = event.get("parameter")
    parameter = parameters.get(code)
    if code in SETTINGS and not parameter.text:
        try:
            return [(core.SET, code, TRADE.parse(event.get("left"), parameter.unit), core.SET_MIN)]
        except InputError:
            return []
    part, did = parameter.act
    able = part and acts.get(part, did).exists_on(work.rig.unit)
    return [(core.DID, f"{part}.{did}", None, core.SET_MIN)] if able else []


def _program(work, event):
    """A program as left: each figure that is another than the unit's own; the first takes the time of all."""
    if event.get("side") != "left":
        return [("looked", "program", None, core.SET_MIN)]
    left = {"defrosts_per_day": float(len(event.get("starts") or ()))}
    for role, value in (event.get("figures") or {}).items():
        code = ROLES[role].parameter or {"pump_down_min": "pump_down"}.get(role, "")
        if code in SETTINGS and code in parameters.PARAMETERS:
            left[code] = float(value)
    changed = [(code, value) for code, value in left.items() if _differs(setting(work.rig, code), value)]
    return [(core.SET, code, value, core.SET_MIN if place == 0 else 0.0) for place, (code, value) in enumerate(changed)]


def _differs(stands, value):
    return stands is None or abs(stands - value) > 0.05


def _measured(work, event):
    points = f"{event.get('what')} {event.get('one')} {event.get('other') or ''}".strip()
    return [(core.METERED, points, event.get("value"), core.MEASURED_MIN)]


def _placed(work, event):
    """A jumper, a lifted lead, a moved output: on the part its words name; what names none changes nothing."""
    part = part_of(work.rig.wired.circuit, event.get("what"), event.get("where") or "")
    if not part:
        return [("looked", event.get("what"), None, core.MEASURED_MIN)]
    return [(core.PLACED, part, way_of(work.rig, event.get("what"), part), core.MEASURED_MIN)]


def _gone(work, event):
    part = part_of(work.rig.wired.circuit, event.get("what"), event.get("where") or "")
    return [(core.GONE, part, None, core.MEASURED_MIN)] if part in work.rig.put else []


def _vacuum(work, event):
    """A look at the vacuum gauge; the first comes after the pump has run for a while."""
    first = not work.practice.steps.filter(what="vacuum", undone=False).exists()
    of = "pump on" if event.get("pump") else "shut off"
    return [("vacuum", of, float(event.get("microns")), FIRST_PULL_MIN if first else 1.0)]


def _nitrogen(work, event):
    return [("nitrogen", "", None, float(event.get("minutes")))]


KINDS = {
    "vacuum": _vacuum, "nitrogen": _nitrogen, "placed": _placed, "gone": _gone,
    "reading": _reading, "act": _act, "weighed": _weighed, "setting": _setting, "program": _program, "measured": _measured,
}  # fmt: skip
