"""What a unit's label says: what was read last, the charge, and what everything is set to."""

from kettle.benches.defrost.program import ROLES, times
from kettle.judging.evidence import quantity_name
from kettle.knowledge.parameters import PARAMETERS
from web.logbook.calls.judging import facts_of_coils
from web.logbook.models import DefrostProgram, GasMove, SettingChange

READ = ("box_temp_f", "superheat_evap_f", "suction_psig", "discharge_psig", "subcooling_f", "compressor_amps")


def settings_left(unit):
    """The last change of each setting of a unit that stands, by its code."""
    changes = SettingChange.objects.filter(call__unit=unit, undone_at=None).select_related("call", "by").order_by("at", "pk")
    return {change.parameter: change for change in changes if change.parameter in PARAMETERS}


def label_of(unit, call, shown):
    """The groups of a label, each a title and its rows of name and value: read last, charge, set to. `call` is the last one, or None."""
    groups = (("Read", _read(call, shown) if call else []), ("Charge", _charge(unit, shown)), ("Set to", _set_to(unit, shown)))
    return [(title, rows) for title, rows in groups if rows]


def _read(call, shown):
    facts, rows = facts_of_coils(call, shown)[0], []
    for quantity in READ:
        value = facts.derived.get(quantity, facts.number(quantity))
        if value is not None:
            label, measure, decimals = quantity_name(quantity)
            rows.append((label, shown.text(value, measure, decimals)))
    return rows


def _charge(unit, shown):
    resolved = unit.resolved()
    rows = [("By its plate", shown.text(resolved.critical_charge_oz, "oz", 1))] if resolved.critical_charge_oz else []
    moves = GasMove.objects.filter(unit=unit, countered_by=None, counters=None).order_by("-day", "-pk")
    for kind, words in (("added", "Last in"), ("recovered", "Last out")):
        move = moves.filter(kind=kind).first()
        if move:
            rows.append((words, f"{shown.text(move.oz, 'oz', 1)}, {move.day:%-d %b %Y}"))
    return rows


def _set_to(unit, shown):
    """Every setting by what was left last, of itself or within a defrost program."""
    said = {"set_point": (None, "Set point", shown.text(unit.resolved().set_f, "°F", 0))}
    said |= {code: (change.at, PARAMETERS[code].label, change.as_left) for code, change in settings_left(unit).items()}
    program = DefrostProgram.objects.filter(call__unit=unit, undone_at=None).order_by("call__opened_at", "side", "at", "pk").last()
    if program:
        for code, value in program.figures.items():
            role = ROLES[code]
            key, kept = role.parameter or code, said.get(role.parameter or code)
            if kept is None or kept[0] < program.at:
                said[key] = (program.at, f"Defrost: {role.label.lower()}", shown.text(value, role.unit, 0))
        if program.starts:
            said["defrosts_per_day"] = (program.at, f"Defrosts, {len(program.starts)} a day", times(program.starts))
    return [(label, value) for _, label, value in said.values()]
