"""Load the demo scenario through the same actions a person uses; what is there already is kept.

The scenario is data: scenario.json, an invented shop in an invented valley. Its circuits are given as
temperatures, so that their pressures come out of the refrigerant's own table.
"""

import json
from datetime import timedelta
from pathlib import Path

from django.contrib.auth import get_user_model
from django.db import transaction
from django.utils import timezone

from kettle.knowledge import refrigerants
from web.accounts.models import Member, Shop
from web.benches.charge.actions.weigh import weigh
from web.benches.controls.actions.watch_cycles import tap
from web.benches.defrost.actions.keep_program import keep_program
from web.benches.electrical.actions.keep_measurement import keep_measurement
from web.benches.ice.actions.keep_ice_map import keep_ice_map
from web.benches.prove.actions.watch_box import watch_box
from web.benches.quote.actions.quoting import keep_line, take_lines
from web.benches.quote.actions.stock import keep_part
from web.benches.quote.proposing import proposed_for
from web.benches.refrigerant.actions.record import do_step, keep_look, keep_microns
from web.benches.sets.actions.keep_set import keep_set
from web.benches.valve.actions.turn_valve import turn_valve
from web.demo.logs import keep_log
from web.logbook.actions.change_setting import change_setting
from web.logbook.actions.do_act import do_act
from web.logbook.actions.gas import keep_cylinder, keep_move
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.open_call import open_call
from web.logbook.actions.outcomes import answer_outcome, keep_outcome
from web.logbook.actions.place import OUTPUT_TICKS, move_output, place
from web.logbook.actions.price_terms import set_terms
from web.logbook.actions.promise import keep_promise, promise
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import judge_call
from web.logbook.calls.promises import open_on
from web.logbook.models import Device, Site, Unit
from web.round.standing import Standing

SCENARIO = json.loads(Path(__file__).with_name("scenario.json").read_text())
MINUTES_BETWEEN_READINGS = 1
# Where a simulated device answers before the demo started it.
NOT_STARTED = "127.0.0.1:9"
VISIT_MINUTES = 100
OPEN_SINCE_MINUTES = 32
TURNED_MINUTES_AGO = 4


@transaction.atomic
def load(now=None):
    """Load the scenario unless there is a shop, whatever it is called by now; times run back from `now`."""
    if Shop.objects.exists():
        return
    now = now or timezone.now()
    shop = Shop.objects.create(name=SCENARIO["shop"])
    people = {name: _person(shop, name, full_name) for name, full_name in SCENARIO["people"].items()}
    sites = {
        name: Site.objects.create(shop=shop, name=name, altitude_ft=altitude, **SCENARIO["hours"].get(name, {}))
        for name, altitude in SCENARIO["sites"].items()
    }
    for cylinder in SCENARIO["cylinders"]:
        made = keep_cylinder(people[SCENARIO["owner"]], cylinder["plate"])
        day = (timezone.localdate(now) - timedelta(days=cylinder["days_ago"])).isoformat()
        bought = {"kind": "bought", "cylinder": made.number, "amount": cylinder["bought"], "reason": cylinder["from"], "day": day}
        keep_move(people[SCENARIO["owner"]], bought)
    set_terms(people[SCENARIO["owner"]], SCENARIO["terms"])
    for part in SCENARIO["van"]:
        keep_part(people[SCENARIO["owner"]], part)
    visits, logs = [], []
    for entry in SCENARIO["units"]:
        unit = Unit.objects.create(
            shop=shop, site=sites[entry["site"]], name=entry["name"], notes=entry.get("notes", ""), wiring=entry.get("wiring", {}),
            **entry["plate"],
        )  # fmt: skip
        visits += [(unit, call) for call in entry["calls"]]
        logs += [(unit, log) for log in entry.get("logs", ())]
    for kind, device in SCENARIO["devices"].items():
        found = Device.objects.create(shop=shop, kind=kind, name=device["name"], address=NOT_STARTED, simulated=True)
        Unit.objects.filter(shop=shop, name=device["unit"]).update(**{kind: found})
    for unit, call in sorted(visits, key=lambda visit: (-visit[1]["days_ago"], visit[1]["hour"])):
        _visit(people[call["by"]], unit, call, now)
    for unit, log in logs:
        keep_log(people[SCENARIO["owner"]], unit, log, now)


def _person(shop, name, full_name):
    first, _, last = full_name.partition(" ")
    user = get_user_model().objects.create_user(name, password=SCENARIO["password"], first_name=first, last_name=last)
    Member.objects.create(user=user, shop=shop, owner=name == SCENARIO["owner"])
    return user


def _visit(user, unit, entry, now):
    start = now - timedelta(minutes=entry.get("open_since_min", OPEN_SINCE_MINUTES))
    if not entry["open"]:
        start = (now - timedelta(days=entry["days_ago"])).replace(hour=entry["hour"], minute=10, second=0, microsecond=0)
    call = open_call(user, unit, entry["complaint"], opened_at=start)
    if not entry["open"]:
        for one in open_on(unit, call):
            keep_promise(user, one, call)
    _looked(user, call, entry, start)
    _worked(user, call, entry, start, now)
    _on_the_circuit(user, call, entry, start)
    if "quote" in entry:
        _quoted(user, call, entry["quote"])
    _left(user, call, entry, start, now)


def _looked(user, call, entry, start):
    """What was read and seen, a minute each, and the ice as it lay."""
    unit = call.unit
    seen = entry["seen"] | (_readings(unit, **entry["circuit"]) if "circuit" in entry else {})
    for count, (key, value) in enumerate(seen.items(), start=1):
        typed = value if isinstance(value, (str, list)) else f"{value:g}"
        record_reading(user, call, key, typed, at=start + timedelta(minutes=count * MINUTES_BETWEEN_READINGS))
    for coil, readings in entry.get("seen_on", {}).items():
        for key, value in readings.items():
            count += 1
            at = start + timedelta(minutes=count * MINUTES_BETWEEN_READINGS)
            record_reading(user, call, key, value if isinstance(value, str) else f"{value:g}", evaporator=int(coil), at=at)
    for drawn in entry.get("ice", ()):
        at = start + timedelta(minutes=2 if drawn["stage"] == "before" else VISIT_MINUTES // 2)
        keep_ice_map(user, call, drawn["stage"], drawn["rows"], drawn["places"], at=at)


def _worked(user, call, entry, start, now):
    """What was turned, set, programmed and measured."""
    for moment in entry.get("moments", ()):
        _moment(user, call, moment, start + timedelta(minutes=moment["at_min"]))
    for program in entry.get("programs", ()):
        at = start + timedelta(minutes=program["at_min"])
        keep_program(user, call, program["side"], program["typed"], program.get("why", ""), at=at)
    for turn in entry.get("turns", ()):
        at = now - timedelta(minutes=TURNED_MINUTES_AGO)
        turn_valve(user, call, judge_call(call), turn["direction"], turn["turns"], turn["goal"], turn["reason"], at=at)
    for change in entry.get("settings", ()):
        at = start + timedelta(minutes=VISIT_MINUTES // 2)
        change_setting(user, call, change["parameter"], change["as_found"], change["as_left"], change["why"], at=at)
    for what, one, other, value, state in entry.get("measured", ()):
        keep_measurement(
            user, call, judge_call(call), call.unit.circuit(), what, one, other, value, state, at=start + timedelta(minutes=40)
        )
    for minutes, what, box in entry.get("cycles", ()):
        tap(user, call, what, {"box_f": f"{box:g}"}, at=start + timedelta(minutes=minutes))
    for what, where in entry.get("placed", ()):
        place(user, call, what, where)
    for moved in entry.get("moved", ()):
        move_output(user, call, moved | dict.fromkeys(OUTPUT_TICKS, "yes"))
    if "box" in entry:
        _box(user, call, entry["box"], start + timedelta(minutes=entry["box"]["at_min"]))


def _on_the_circuit(user, call, entry, start):
    """Where leaks were looked for, what was changed, how it was pumped down."""
    for place_code, heard, *reading in entry.get("leaks", ()):
        keep_look(user, call, judge_call(call).facts, place_code, heard, *reading)
    for part, *done in entry.get("changes", ()):
        for step in done:
            do_step(user, call, part, step)
    for minutes, microns, pump in entry.get("microns", ()):
        keep_microns(user, call, str(microns), pump == "on", at=start + timedelta(minutes=minutes))


def _quoted(user, call, prices):
    take_lines(user, call, proposed_for(call, Standing(call)))
    for line in call.quote.lines.filter(what__in=prices):
        typed = {"what": line.what, "option": line.option, "kind": line.kind, "quantity": f"{line.quantity:g}"}
        keep_line(user, call, typed | {"price": prices[line.what]}, line)


def _left(user, call, entry, start, now):
    """What was said in the end: words, promise, cause, and how it held."""
    call.left_there.update(at=start + timedelta(minutes=VISIT_MINUTES // 2))
    for name, text in entry.get("words", {}).items():
        setattr(call, name, text)
    if "next" in entry:
        due = timezone.localdate(now) + timedelta(days=entry["next"]["in_days"])
        promise(user, call, entry["next"]["why"][:1].upper() + entry["next"]["why"][1:], due, code=entry["next"].get("for", ""), at=start)
    if "cause" in entry:
        finding = name_cause(user, call, [entry["cause"]])
        finding.at = start + timedelta(minutes=VISIT_MINUTES // 3)
        finding.save(update_fields=["at"])
    if not entry["open"]:
        call.closed_at = start + timedelta(minutes=VISIT_MINUTES)
    call.save()
    if not entry["open"]:
        outcome = keep_outcome(call)
        if "held" in entry:
            answer_outcome(user, outcome, entry["held"])


def _moment(user, call, moment, at):
    """What was read, turned and kept as a set some minutes into a visit."""
    circuit = _readings(call.unit, **moment["circuit"]) if "circuit" in moment else {}
    for key, value in (moment.get("seen", {}) | circuit).items():
        record_reading(user, call, key, value if isinstance(value, str) else f"{value:g}", at=at)
    if "turn" in moment:
        turn = moment["turn"]
        turn_valve(user, call, judge_call(call), turn["direction"], turn["turns"], turn["goal"], turn["reason"], at=at)
    if "act" in moment:
        do_act(user, call, judge_call(call), moment["act"], moment.get("amount", ""), reason=moment.get("reason", ""), at=at)
    if "weighed" in moment:
        weigh(user, call, judge_call(call), moment["did"], moment["weighed"], at=at)
    if "set" in moment:
        keep_set(user, call, moment["set"], moment.get("good", False), at=at)


def _box(user, call, box, at):
    """The box watched down from a moment, and read some minutes after it."""
    watch_box(user, call, {name: f"{box[name]:g}" for name in ("from_f", "ambient_f")} | {"stock": box["stock"]}, at=at)
    for minutes, value in box["read"]:
        record_reading(user, call, "box_temp_f", float(value), at=at + timedelta(minutes=minutes))


def _readings(unit, sst, sct, superheat, gain, subcooling, discharge_above_sct):
    """The circuit of a visit as gauges and clamps show it, rounded as a technician reads them."""
    refrigerant, altitude = refrigerants.get(unit.refrigerant), unit.site.altitude_ft
    return {
        "suction_psig": round(refrigerant.dew_psig(sst, altitude), 1),
        "discharge_psig": round(refrigerant.bubble_psig(sct, altitude), 0),
        "suction_line_evap_f": round(sst + superheat, 1),
        "suction_line_comp_f": round(sst + superheat + gain, 1),
        "liquid_line_f": round(sct - subcooling, 1),
        "discharge_line_f": round(sct + discharge_above_sct, 0),
    }
