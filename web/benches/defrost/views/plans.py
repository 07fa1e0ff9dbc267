"""A plan as it is shown: its programs side by side, in the person's units; one of them taken."""

from kettle.benches.defrost.edit import over
from kettle.benches.defrost.program import HEATED, OWN, Program, times
from kettle.knowledge.measures import format_number
from web.benches.defrost import planning
from web.logbook.models.defrosts import AT_WORK

# Columns of the plan: figure, heading, unit, decimals.
COLUMNS = (
    ("frost_lb", "frost at worst", "lb", 1),
    ("clear_min", "clears in", "min", 0),
    ("margin_min", "to spare", "min", 0),
    ("box_peak_f", "box peak", "°F", 0),
    ("heat_kwh", "heat a day", "kWh", 1),
    ("left_lb", "ice after a week", "lb", 1),
)
ALSO = (
    ("over_limit_min", "box too warm {} a day", "min", 0),
    ("power_kwh", "{} a day in all", "kWh", 0),
    ("ceiling_lb", "{} to ceiling and guards in the week", "lb", 1),
    ("runs_on_min", "goes on {} once it is clear", "min", 0),
)
NEVER = {"middle": "over 4 h", "range": ""}


def _figure(span, unit, decimals, shown):
    """A figure as assumed, and its range where that is another."""
    middle, low, high = (shown.figure(value, unit, decimals) for value in span)
    if unit == "lb" and span[2] == 0:
        return {"middle": "none", "range": ""}
    return {"middle": f"{middle} {shown.label(unit)}", "range": f"{low} to {high}" if low != high else ""}


def _choice(kept, columns, shown):
    figures, minutes = kept["figures"], kept["values"].get("fail_safe_min")
    starts = format_number(figures["starts_a_day"][0], 0 if figures["starts_a_day"][0] == round(figures["starts_a_day"][0]) else 1)
    length = f" × {minutes:.0f} min" if minutes else ""
    kept = kept | {"at": times(kept["starts"])}
    told = {name: _figure(figures[name], unit, decimals, shown) for name, _, unit, decimals in columns}
    if not kept["clears"]:
        told["clear_min"] = NEVER
    if not minutes:
        told["margin_min"] = {"middle": "–", "range": ""}
    cells = [(heading, told[name]) for name, heading, _, _ in columns]
    also = [text.format(shown.text(figures[name][0], unit, decimals)) for name, text, unit, decimals in ALSO]
    at_times = f"{starts}{length}" if kept["starts"] or kept["values"].get("demand_pct") else "no starts"
    return kept | {"cells": cells, "also": also, "times": at_times, "is_own": kept["code"] in OWN}


def short_figures(outlook, shown):
    """What a program comes to, in short: label and figure."""
    found = [
        ("frost at worst", shown.text(outlook.frost_lb.middle, "lb")),
        ("clears in", f"{outlook.clear_min.middle:.0f} min" if outlook.clears else NEVER["middle"]),
        ("box peak", shown.text(outlook.box_peak_f.middle, "°F", 0)),
    ]
    heat = outlook.heat_kwh.middle
    return [*found, ("heat a day", f"{format_number(heat)} kWh")] if heat else found


def plan_context(call, shown, typed=None, errors=None):
    """The last plan of a call as it is shown, and the fields that ask for one."""
    plan = call.defrostplans.filter(undone_at=None).exclude(state="stopped").last()
    result = plan.result if plan else {}
    # A defrost by air puts no heat of its own into the box.
    columns = [column for column in COLUMNS if call.unit.resolved().defrost in HEATED or column[0] != "heat_kwh"]
    return {
        "plan": plan,
        "plan_cut_off": plan is not None and planning.cut_off(plan),
        "plan_at_work": plan is not None and plan.state in AT_WORK and not planning.cut_off(plan),
        "percent": round(100 * plan.share) if plan else 0,
        "choices": [_choice(kept, columns, shown) for kept in result.get("choices", ())],
        "headings": [heading for _, heading, _, _ in columns],
        "width": len(columns) + 2,
        "result": result,
        "asked": typed if typed is not None else _asked(plan, shown),
        "plan_errors": errors or {},
        "limit_unit": shown.label("°F"),
        "heated": call.unit.resolved().defrost in HEATED,
    }


def _asked(plan, shown):
    asked = plan.asked if plan else {}
    limit = asked.get("box_limit_f")
    return asked | {"box_limit_f": shown.edit(limit, "°F") if limit is not None else ""}


def taken(plan, code, found):
    """The program of a choice of the plan over the one as found, and a reason for it; or None."""
    for kept in plan.result.get("choices", ()) if plan else ():
        if kept["code"] == code:
            planned = Program(tuple(kept["starts"]), kept["values"])
            clear, heat = kept["figures"]["clear_min"][0], kept["figures"]["heat_kwh"][0]
            return over(found, planned), f"planned: {kept['label'].lower()}, clears in {clear:.0f} min, {heat:.1f} kWh a day"
    return None
