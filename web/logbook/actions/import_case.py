"""Open a call from a case file: all of it or nothing."""

from datetime import timedelta
from decimal import Decimal

from kettle import case
from kettle.benches.defrost.program import parse_clock
from kettle.benches.refrigerant.compressor import FIRST_MIN
from kettle.benches.refrigerant.leaks import BY_CODE
from kettle.benches.report.times import MARKS
from kettle.call.hears import moved_oz
from kettle.call.says import set_words
from web import work_time
from web.accounts.access import shop_of
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.actions.open_call import open_call
from web.logbook.calls.measured import OPEN_OHM
from web.logbook.calls.record import INSTANT, PLATES
from web.logbook.models import (
    Act,
    ChangeStep,
    ControllerTalk,
    DefrostProgram,
    DefrostWatch,
    Finding,
    FirstStartReading,
    FollowUp,
    Happened,
    IceDrawing,
    LeakLook,
    Leaving,
    Measurement,
    Melt,
    Override,
    PartUsed,
    Placed,
    ProofSeen,
    Reading,
    SettingChange,
    StandingTest,
    StartWiring,
    TimeMark,
    Unit,
    VacuumReading,
    ValveTurn,
    Weighing,
)

SOURCE = "case file"
STEP = timedelta(minutes=1)
LONGEST_STEP_NOTE, LONGEST_ACT_NOTE = 120, 300


@action
def import_case(user, content):
    """Read a case file of either version and open a call on a unit without a site; InputError where the file is not sound."""
    record = case.read_call(content)
    call = open_call(user, _unit(user, record))
    call.told_with = {"beside": list(record.beside), "found_before": list(record.found_before), "quotes_first": record.quotes_first}
    times = _times(record, work_time.now())
    call.opened_at = min([call.opened_at, *times])
    call.save(update_fields=["told_with", "opened_at"])
    for event, at in zip(record.events, times, strict=True):
        write = WRITERS.get(event.kind)
        undone = {"undone_at": at, "undone_by": user} if event.undone else {}
        if write is None or not write(call, event, {"call": call, "by": user, "at": at, **undone}):
            Happened.objects.create(call=call, by=user, at=at, kind=event.kind, data=dict(event.data), evaporator=event.on, **undone)
    if record.unit_now.refrigerant != record.unit.refrigerant:
        # The unit goes on with what it was changed to; the call began with what it had.
        call.told_with = {**call.told_with, "refrigerant": record.unit.refrigerant.name}
        call.save(update_fields=["told_with"])
        Unit.objects.filter(pk=call.unit_id).update(refrigerant=record.unit_now.refrigerant.name)
        call.unit.refresh_from_db()
    for plate in PLATES:
        if getattr(record.unit_now, plate) != getattr(record.unit, plate):
            call.told_with = {**call.told_with, plate: getattr(record.unit, plate)}
            call.save(update_fields=["told_with"])
            Unit.objects.filter(pk=call.unit_id).update(**{plate: getattr(record.unit_now, plate)})
            call.unit.refresh_from_db()
    log.write(user, "import_case", call, events=len(record.events))
    return call


def _unit(user, record):
    """The unit of a record, without a site."""
    unit, fields = record.unit, {}
    for name in ("metering", "condensing", "receiver", "head_control", "defrost", "box_control", "set_f", "differential_f",
                 "critical_charge_oz", "compressor_rla_a", "nameplate_v", "phases", "altitude_ft"):  # fmt: skip
        if name not in unit.assumed and getattr(unit, name) is not None:
            fields[name] = getattr(unit, name)
    if "evaporators" not in unit.assumed:
        fields["evaporators"] = unit.evaporators
    return Unit.objects.create(
        shop=shop_of(user), name=unit.name or "From a case file", kind=unit.kind.code, refrigerant=unit.refrigerant.name,
        bands={quantity: list(band) for quantity, band in unit.bands.items()}, wiring=record.wiring.as_data(),
        coil_names=list(record.coils) if any(record.coils) else [], label_charge_oz=record.label_charge_oz, **fields,
    )  # fmt: skip


def _times(record, now):
    """When each event was: the file's own times where they keep its order, else one after another by the minute; none in the future.

    A file without clocks has its acts a minute apart, and what was seen between two of them in between, so that each lies in its stage.
    """
    said = [event.at for event in record.events]
    if all(at is not None for at in said) and (record.clocked or said == sorted(said)):
        return [min(at, now) for at in said]
    acts = sum(event.kind == "act" for event in record.events)
    moment, found = now - STEP * (acts + 1), []
    for event in record.events:
        moment += STEP if event.kind == "act" else timedelta(milliseconds=20)
        found.append(moment)
    return found


# Each kind that has a table of its own: put it down there and say so; False where it holds more than the table does.


def _reading(call, event, row):
    value = event.data["value"]
    Reading.objects.create(**row, key=event.data["key"], value=list(value) if isinstance(value, tuple) else value,
                           typed=event.get("typed", ""), source=event.get("source", SOURCE), evaporator=event.on)  # fmt: skip
    return True


def _measured(call, event, row):
    d = event.data
    if d["what"] == "microfarads" or ("lifted" in d and (d["what"] != "ohms" or not d["lifted"])):
        return False
    value = OPEN_OHM if d["value"] == "OL" else d["value"]
    if d["value"] != "OL" and value >= OPEN_OHM:
        return False
    Measurement.objects.create(**row, what=d["what"], one=d["one"], other=d.get("other", ""), value=value, state=d["state"],
                               lifted=d.get("lifted", False))  # fmt: skip
    return True


def _ice(call, event, row):
    painted = event.get("map")
    if painted is None or "form" in event.data or "covers_pct" in event.data:
        return False
    side = event.get("side") or ("after" if call.melts.exists() or call.happeneds.filter(kind="melt").exists() else "before")
    IceDrawing.objects.create(
        **row, stage=side, evaporator=event.on or 1, rows=list(painted["rows"]), places=dict(painted.get("places", {})),
        oil=painted.get("oil") or [], face_ft2=event.get("face_ft2", call.unit.face_ft2),
    )  # fmt: skip
    return True


def _melt(call, event, row):
    if event.on is not None or "places" in event.data:
        return False
    at = row["at"] + INSTANT
    Melt.objects.create(**{**row, "at": at}, method=event.get("method", ""), ended_at=at + timedelta(minutes=event.get("minutes", 0.0)),
                        clear=event.get("all_clear"), reason=event.get("left_why", ""))  # fmt: skip
    return True


def _act(call, event, row):
    d = event.data
    turned = {"turned_in": "in", "turned_out": "out"}.get(d["did"]) if d["part"] == "valve" else None
    if turned and "note" not in d and "value" in d:
        objections = [d["against"]] if d.get("against") else []
        ValveTurn.objects.create(**row, direction=turned, turns=d["value"], objections=objections, reason=d.get("reason", ""),
                                 evaporator=event.on)  # fmt: skip
        return True
    by_eye = d.get("by_eye", False)
    unsaid = d["part"] == "charge" and "value" not in d
    if (
        "against" in d
        or "reason" in d
        or (unsaid and not by_eye)
        or (by_eye and d["part"] != "charge")
        or len(d.get("note", "")) > LONGEST_ACT_NOTE
    ):
        return False
    Act.objects.create(**row, part=d["part"], did=d["did"], value=d.get("value"), note=d.get("note", ""), evaporator=event.on,
                       by_eye=by_eye)  # fmt: skip
    return True


def _weighed(call, event, row):
    d = event.data
    if d.get("refrigerant", call.unit.refrigerant) != call.unit.refrigerant or len(d.get("note", "")) > LONGEST_ACT_NOTE:
        return False
    act = Act.objects.create(**row, part="charge", did=d["did"], value=moved_oz(event), note=d.get("note", ""), evaporator=event.on)
    Weighing.objects.create(act=act, cylinder=d.get("cylinder", ""), before_oz=d["before_oz"], after_oz=d["after_oz"],
                            lost_oz=d.get("lost_oz", 0.0), form=d.get("form", ""))  # fmt: skip
    return True


def _program(call, event, row):
    d = event.data
    DefrostProgram.objects.create(**row, side=d["side"], starts=[parse_clock(one) for one in d.get("starts", ())],
                                  figures=dict(d.get("figures", {})), why=d.get("why", ""))  # fmt: skip
    return True


def _setting(call, event, row):
    d = event.data
    if "found" not in d or "left" not in d or any("not set" in set_words(event, side) for side in ("found", "left")):
        return False
    SettingChange.objects.create(**row, parameter=d["parameter"], as_found=set_words(event, "found"), as_left=set_words(event, "left"),
                                 why=d.get("why", ""))  # fmt: skip
    return True


def _watched(call, event, row):
    d = event.data
    if event.on is not None or "fans" in d or "minutes" not in d:
        return False
    began = row["at"] - timedelta(minutes=d["minutes"])
    DefrostWatch.objects.create(**{**row, "at": began}, marks={**d.get("marks", {}), "ended": d["minutes"]}, ended_by=d["ended_by"],
                                coil_after=d.get("coil_after", ""))  # fmt: skip
    return True


def _fields(model, *names, **most):
    """A writer of a row whose fields are what the event carries; `most` are lengths a text may not pass."""

    def write(call, event, row):
        if event.on is not None or any(len(str(event.get(name, ""))) > length for name, length in most.items()):
            return False
        model.objects.create(**row, **{name: event.data[name] for name in names if name in event.data})
        return True

    return write


def _leak_look(call, event, row):
    of_coil = event.data["place"] in BY_CODE and BY_CODE[event.data["place"]].belongs == "coil"
    if event.on is not None and not of_coil:
        return False
    names = [name for name in ("place", "heard", "reading") if name in event.data]
    LeakLook.objects.create(**row, **{name: event.data[name] for name in names}, evaporator=event.on)
    return True


def _step(call, event, row):
    if event.on is not None or len(event.get("note", "")) > LONGEST_STEP_NOTE:
        return False
    ChangeStep.objects.create(**row, part=event.data["of"], step=event.data["step"], note=event.get("note", ""))
    return True


def _first_start(call, event, row):
    d = event.data
    if d["minute"] not in FIRST_MIN:
        return False
    FirstStartReading.objects.create(**row, minute=int(d["minute"]), amps=d["amps"], suction_psig=d["suction_psig"],
                                     discharge_psig=d["discharge_psig"], oil=d["oil"])  # fmt: skip
    return True


def _placed(call, event, row):
    if "since" in event.data:
        return False
    Placed.objects.create(**row, what=event.data["what"], where=event.get("where", "")[:120], does_not=event.get("does_not", "")[:200])
    return True


def _gone(call, event, row):
    mine = call.left_there.filter(what=event.data["what"], gone_at=None, undone_at=None)
    same = mine.filter(where=event.get("where", "")).last() or mine.last()
    if same is None or event.undone:
        return False
    same.gone_at, same.gone_by = row["at"], row["by"]
    same.save(update_fields=["gone_at", "gone_by"])
    return True


def _found(call, event, row):
    Finding.objects.create(**row, causes=list(event.data["causes"]), evaporator=event.on)
    return True


def _seen(call, event, row):
    ProofSeen.objects.create(**row, code=event.data["proof"])
    return True


def _left_so(call, event, row):
    what = f"{event.data['what']}@{event.on}" if event.on is not None and "@" not in event.data["what"] else event.data["what"]
    Leaving.objects.create(**row, key=what[:60], answer=event.get("answer", ""), reason=event.get("reason", "")[:300])
    return True


def _promise(call, event, row):
    FollowUp.objects.create(shop_id=call.shop_id, unit_id=call.unit_id, call=call, by=row["by"], at=row["at"], due=event.data["due"],
                            what=event.data["what"][:200], why=event.get("why", "")[:200], code=event.get("code", "")[:16],
                            let_go="taken back" if event.undone else "")  # fmt: skip
    return True


def _used(call, event, row):
    amount = event.get("amount", 1.0)
    if not isinstance(amount, int | float):
        return False
    PartUsed.objects.create(**row, what=event.data["what"][:80], quantity=Decimal(str(round(amount, 2))))
    return True


def _note(call, event, row):
    about = event.get("about")
    if about is None:
        return False
    setattr(call, about, event.data["text"])
    call.save(update_fields=[about])
    return True


def _time(call, event, row):
    if event.data["what"] not in MARKS or "minutes" in event.data:
        return False
    TimeMark.objects.create(**row, what=event.data["what"])
    return True


WRITERS = {
    "reading": _reading, "measured": _measured, "ice": _ice, "melt": _melt, "act": _act, "weighed": _weighed, "program": _program,
    "setting": _setting, "watched": _watched, "leak_look": _leak_look,
    "nitrogen": _fields(StandingTest, "start_psig", "start_f", "now_psig", "now_f", "minutes"),
    "vacuum": _fields(VacuumReading, "microns", "pump"), "step": _step, "first_start": _first_start,
    "wires": _fields(StartWiring, "which", "gear", "wires"), "placed": _placed, "gone": _gone, "found": _found,
    "override": _fields(Override, "action", "holds", "texts", "reason", reason=300), "seen": _seen, "left_so": _left_so,
    "promise": _promise, "used": _used, "note": _note, "time": _time,
    "talked": _fields(ControllerTalk, "settings", "wrote", "refused", "complaint", "reason", "simulated"),
}  # fmt: skip
