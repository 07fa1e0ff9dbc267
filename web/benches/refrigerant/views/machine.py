"""The compressor and the capillary tube on the bench: does it pump, what should it do, its first half hour, line and tube."""

from kettle.benches.refrigerant import capillary, compressor
from kettle.knowledge import refrigerants
from kettle.knowledge.errors import FieldErrors
from web.benches.refrigerant.actions.first_start import FIGURES

TUBE = (("length_ft", "Length", "ft", None), ("bore_in", "Bore", "in", None), ("tube_sct", "Condensing", "°F", 105.0),
        ("tube_sst", "Evaporating", "°F", None), ("tube_sc", "Subcooling", "°F diff", 15.0),
        ("other_bore", "Other bore", "in", None), ("capacity", "Compressor", "Btu/h", None),
        ("chart_ft", "Chart says", "ft", None), ("chart_sst", "Chart's evaporating", "°F", None),
        ("chart_sct", "Chart's condensing", "°F", None))  # fmt: skip
LINE = (("line_in", "Suction line, inside", "in"), ("stub_in", "Stub, inside", "in"))


def tube(asked, standing, wrong):
    """What the tube passes, and the length another bore, refrigerant or capacity wants."""
    unit = standing.unit
    if unit.metering != "cap_tube":
        return {"tube_fields": []}
    derived = standing.judgement.facts.derived
    chart_sst, chart_sct = capillary.CHART_F[unit.kind.freezer]
    stands = {
        "chart_sst": chart_sst,
        "chart_sct": chart_sct,
        "tube_sst": capillary.usual_sst_f(unit.set_f),
        "tube_sct": derived.get("sct_f"),
        "tube_sc": derived.get("subcooling_f"),
    }
    figures = {name: asked.figure(name, label, what, stands.get(name) or usual) for name, label, what, usual in TUBE}
    other = asked.typed.get("tube_gas", "")
    gas = refrigerants.get(other) if other in refrigerants.catalogue() else unit.refrigerant
    says = []
    try:
        says = _tube_says(unit, gas, figures, derived)
    except FieldErrors as error:
        names = {"sct_f": "tube_sct", "sst_f": "tube_sst", "subcooling_f": "tube_sc"}
        wrong.update({names.get(name, name): text for name, text in error.by_field.items()})
    fields = asked.fields((name, label, what, figures[name]) for name, label, what, _ in TUBE)
    return {"tube_fields": fields, "tube_says": says, "tube_gas": gas.name, "refrigerant_names": list(refrigerants.catalogue())}


def _tube_says(unit, gas, figures, derived):
    length, bore, sct, sst, sc, other, capacity, chart_ft, chart_sst, chart_sct = figures.values()
    if None in (sct, sst, sc):
        return []
    says, r, at = [], unit.refrigerant, (sct, sst, sc)
    bore_then = other if other is not None else bore
    if None not in (length, bore):
        flow = capillary.flow(r, length, bore, *at)
        carries = capillary.capacity_of(r, flow.lb_h, *at)
        says.append(f"It passes {flow.lb_h:.1f} lb/h and carries {carries:.0f} Btu/h; "
                    f"a thousandth of bore is {flow.less_lb_h:.1f} to {flow.more_lb_h:.1f} lb/h")  # fmt: skip
        if other is not None or gas is not r:
            same = capillary.length_for(gas, capillary.flow_for(gas, carries, *at), bore_then, *at)
            with_it = "" if gas is r else f" capacity with {gas.name}"
            says.append(f"The same{with_it} through {bore_then:g} in: {same:.1f} ft")
    if capacity is not None and bore_then is not None:
        wanted = capillary.length_for(gas, capillary.flow_for(gas, capacity, *at), bore_then, *at)
        says.append(f"{capacity:.0f} Btu/h with {gas.name} through {bore_then:g} in: {wanted:.1f} ft")
        now = derived.get("sst_f")
        if None not in (length, bore, now) and derived.get("sct_f") is not None:
            passes = capillary.flow(r, length, bore, sct, now, sc).lb_h
            says.append(capillary.plugged_or_wrong(r, passes, capacity, at[:2][::-1], sct, now, sc))
    if None not in (chart_ft, chart_sst, chart_sct, bore_then):
        says += capillary.by_chart(gas, chart_ft, bore_then, (chart_sst, chart_sct), *at, capacity)
    return says


def pumping(standing):
    """Whether it pumps, by what was pumped down."""
    facts = standing.judgement.facts
    lowest, rise = facts.number("pump_down_low_psig"), facts.number("pump_down_rise_psi")
    known = lowest is not None and rise is not None
    return {"pumping": compressor.pumping(standing.unit, lowest, rise, standing.shown) if known else None}


def maker(asked, standing, wrong):
    """What the maker's polynomial gives at today's temperatures, and what was measured against it."""
    facts, shown, says = standing.judgement.facts, standing.shown, []
    text = asked.typed.get("coefficients", "")
    sst = asked.figure("maker_sst", "Evaporating", "°F", facts.derived.get("sst_f"))
    sct = asked.figure("maker_sct", "Condensing", "°F", facts.derived.get("sct_f"))
    measured = asked.figure("measured", "Measured", "")
    if text.strip() and sst is not None and sct is not None:
        try:
            due = compressor.by_maker([float(word) for word in text.replace(";", " ").split()], sst, sct)
            says.append(f"Due at {shown.text(sst, '°F', 0)} and {shown.text(sct, '°F', 0)}: {due:.4g}")
            if measured is not None and due > 0.0:
                says.append(compressor.against(due, measured, "Measured"))
        except FieldErrors as error:
            wrong.update(error.by_field)
        except (ValueError, OverflowError):
            wrong["coefficients"] = "Coefficients: ten figures with spaces between"
    fields = asked.fields(
        (("maker_sst", "Evaporating", "°F", sst), ("maker_sct", "Condensing", "°F", sct), ("measured", "Measured", "", measured))
    )
    return {"maker_fields": fields, "maker_says": says, "coefficients": text}


def first_start(call, standing, typed, wrong):
    """The first half hour of a new compressor: what was read, what is wrong with it, which minute is next."""
    rows = list(call.firststartreadings.filter(undone_at=None).order_by("minute"))
    read = [compressor.FirstStart(one.minute, one.amps, one.suction_psig, one.discharge_psig, one.oil) for one in rows]
    due = next((minute for minute in compressor.FIRST_MIN if minute not in {one.minute for one in rows}), compressor.FIRST_MIN[-1])
    shown = standing.shown
    return {
        "first_rows": [
            (one, shown.text(one.amps, "A", 1), shown.text(one.suction_psig, "psig", 0), shown.text(one.discharge_psig, "psig", 0))
            for one in rows
        ],
        "first_open": rows or wrong or call.changesteps.filter(part="compressor", undone_at=None).exists(),
        "first_says": compressor.first_start(standing.unit, read),
        "first_done": len(rows) == len(compressor.FIRST_MIN),
        "first_minutes": [(minute, str(minute) == (typed.get("minute") or str(due))) for minute in compressor.FIRST_MIN],
        "first_oil": compressor.OIL.items(),
        "first_fields": [(name, label, shown.label(unit), typed.get(name, ""), wrong.get(name, "")) for name, label, unit, _ in FIGURES],
    }  # fmt: skip


def line(standing, typed, wrong):
    """Whether the suction line is as its stub, and the form to say so."""
    word = standing.judgement.facts.seen.get("suction_line_size")
    return {"line_word": word, "line_fields": [(name, label, unit, typed.get(name, ""), wrong.get(name, "")) for name, label, unit in LINE]}
