"""What stands beside the drawing of the stop Power: each panel with what it needs."""

from dataclasses import replace

from django.utils import timezone

from kettle.electrical import capacitors, dead, heaters, start_gear, truth, windings
from kettle.electrical.presets import circuit_of
from kettle.electrical.solve import solve
from kettle.electrical.wiring import CONTROLS, ENDS_BY, FANS_BY, HEATERS_BY, HERTZ, JOINT, POLES, SHAPES, START_GEAR, from_data
from kettle.judging.electrics import imbalance_pct
from kettle.knowledge import amps as expected
from kettle.knowledge import observations
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import TRADE, format_number, ohms_text
from web import work_time
from web.benches.electrical.actions.keep_windings import FIELDS
from web.logbook.actions.place import OUTPUT_TICKS, WHAT
from web.logbook.calls.left_behind import left_before, still_there
from web.logbook.models import Reading as ReadingRow

CAPACITOR = (
    ("cap_uf", "Printed", "µF"),
    ("cap_pct", "Tolerance", "%"),
    ("cap_measured", "Meter shows", "µF"),
    ("cap_amps", "or amps through it", "A"),
    ("cap_volts", "and volts over it", "V"),
)
OUTPUT_FIELDS = (
    ("load", "What was moved", "coil fans"),
    ("from_output", "From", "FAN"),
    ("to_output", "To", "AUX"),
    ("does_not", "What no longer happens by itself", "fans stopping in a defrost"),
)
MARK_WORDS = {"found": "found", "suspect": "under suspicion", "good": "cleared"}
INSULATION_SHOWN = 8


def part_context(request, circuit, state, marks):
    """The card of the part that was tapped: what it should show, and how to measure it."""
    key = request.GET.get("part", "")
    if not circuit.has(key):
        return {"part_card": None}
    part = circuit.part(key)
    solved = solve(circuit, state)
    across = float(solved.between(part.a, part.b)[0])
    through = float(solved.through(key)[0])
    rows = [(f"Volts across it, {part.a} to {part.b}", f"{across:.0f} V")]
    if part.kind in ("winding", "motor", "heater", "pole", "coil", "capacitor", "clock"):
        rows.append(("Amps through it", f"{through:.1f} A"))
    if part.kind not in ("capacitor", "output"):
        rows.append(("Ohms alone, locked out, a lead off", ohms_text(part.dc_ohm or part.ohm.real)))
    return {"part_card": part, "part_rows": rows, "part_mark": MARK_WORDS.get(marks.get(key, ""), "nothing measured on it yet")}


def order_context(circuit, readings, facts):
    """The order of a dead unit, with what was measured of it and what it comes to."""
    steps = dead.along(circuit, readings)
    pulled = {"in": True, "out": False}.get(facts.seen.get("contactor"))
    return {
        "order": [
            (step, _figure(step.what, step.expected), "" if step.measured is None else _figure(step.what, step.measured)) for step in steps
        ],
        "order_says": dead.comes_to(circuit, steps, pulled) if any(step.measured is not None for step in steps) else "",
    }


def _figure(what, value):
    return f"{value:.1f} A" if what == "amps" else f"{value:.0f} V" if value >= 10 or value == 0 else f"{value:.1f} V"


def truth_context(circuit, readings, facts):
    """The truth table of timer, controller outputs and relays."""
    rows = truth.table(circuit, readings)
    runs = {"running": True, "off": False}.get(facts.seen.get("compressor_in_defrost"))
    table = [
        (row, [(cell, f"{cell.expected:.0f} V", "" if cell.measured is None else _figure("volts", cell.measured)) for cell in row.cells])
        for row in rows
    ]
    return {
        "truth": table,
        "truth_says": truth.comes_to(circuit, rows, runs, facts.number("heater_amps")),
        "symbol": dict(observations.get("control_call").choices).get(facts.seen.get("control_call"), ""),
        "timer_clock": timezone.localtime(work_time.now()) if circuit.has("timer_motor") else None,
        "truth_common": circuit.common,
    }


def heaters_context(standing, circuit, readings):
    """The bank of heaters: what is right, what was measured, what each element is."""
    if standing.unit.defrost != "electric":
        return {"bank": None}
    wiring, facts = from_data(standing.call.unit.wiring), standing.judgement.facts
    rated = facts.number("heater_rated_w") or wiring.bank.rated_w
    shape = wiring.bank.shape_on(standing.unit.phases)
    measured_v, amps = facts.number("heater_volts"), facts.number("heater_amps")
    bank = heaters.heater_bank(measured_v or circuit.volts, rated, wiring.bank.elements, standing.unit.phases, amps, wiring.bank.shape)
    took = {frozenset((r.one, r.other)): r.value for r in readings if r.what == "ohms"}
    clamped = {r.one: r.value for r in readings if r.what == "amps" and r.state == "defrosting"}
    elements = [part for part in circuit.parts if part.key.startswith("element_") and part.kind == "heater"]
    ohms = [took.get(frozenset((part.a, part.b))) for part in elements]
    ground = [took.get(frozenset((part.a, circuit.ground))) for part in elements]
    rows = [
        (
            part.label,
            "" if ohm is None else ohms_text(ohm),
            said,
            "" if earth is None else windings.to_ground(earth).says,
            f"{clamped[part.key]:.1f} A" if part.key in clamped else "",
        )
        for part, ohm, said, earth in zip(elements, ohms, heaters.cold(ohms, bank.element_ohms), ground, strict=True)
    ]
    across = next((took[pair] for pair in _bank_pairs(circuit) if pair in took), None)
    right = heaters.bank_ohm(wiring.bank.elements, bank.element_ohms, shape)
    together = "" if across is None else ohms_text(across)
    says = "" if across is None else heaters.bank_says(across, wiring.bank.elements, bank.element_ohms, shape)
    return {
        "bank": bank,
        "bank_rows": [("All together", together, says, "", "" if amps is None else f"{amps:.1f} A"), *rows],
        "bank_words": f"{wiring.bank.elements} elements, {rated:.0f} W in all, {SHAPES[shape]}",
        "bank_right": f"{ohms_text(bank.element_ohms)} each, {ohms_text(right)} all together, "
        f"{bank.expected_amps:.1f} A a leg at {measured_v or circuit.volts:.0f} V",
        "bank_says": "" if amps is None or not measured_v else heaters.telling(bank, wiring.bank.elements, amps),
        "bank_read": [(key, standing.tag(key)) for key in ("heater_rated_w", "heater_volts", "heater_amps")],
    }


def _bank_pairs(circuit):
    """The two points between which a whole bank is measured: its fed side and its way back, or two of its legs."""
    ends = [key for key in ("HL", "H1") if any(point.key == key for point in circuit.points)]
    others = [circuit.common, "H2"]
    return [frozenset((one, other)) for one in ends for other in others]


def windings_context(standing, typed):
    """The windings on record in words, the fields for new ones, and the insulation readings of every visit."""
    facts, phases = standing.judgement.facts, standing.unit.phases
    ohms = [facts.number(key) for key in ("winding_cs_ohm", "winding_sr_ohm", "winding_cr_ohm")]
    ground = facts.number("winding_ground_ohm")
    said = []
    if None not in ohms:
        said.append((windings.three_phase if phases == 3 else windings.single_phase)(*ohms).says)
    if ground is not None:
        said.append(windings.to_ground(ground).says)
    shell = facts.seen.get("compressor_shell")
    if windings.maybe_overload(ohms, phases):
        said.append(windings.cool_down(shell if isinstance(shell, str) else ""))
    history = ReadingRow.objects.filter(call__unit=standing.call.unit_id, key="winding_ground_ohm", undone_at=None).select_related("call")
    return {
        "pins": [(name, label, typed.get(name, ""), "") for name, label in FIELDS.items()],
        "windings_say": said,
        "insulation": [(row.at, row.call.number, ohms_text(row.value)) for row in history.order_by("-at")[:INSULATION_SHOWN]],
        "circuit_phases": phases,
    }


def capacitor_context(request, circuit):
    """The sum of a capacitor, where it was asked for; nothing of it is kept."""
    typed = {name: request.GET.get(name, "") for name, _, _ in CAPACITOR}
    found = {"capacitor_fields": [(name, label, typed[name], unit) for name, label, unit in CAPACITOR]}
    by_sum = typed["cap_amps"] and typed["cap_volts"]
    if not (typed["cap_uf"] and typed["cap_pct"] and (typed["cap_measured"] or by_sum)):
        return found
    try:
        given = {name: TRADE.parse(typed[name], unit) for name, _, unit in CAPACITOR if typed[name]}
        uf = given["cap_measured"] if "cap_measured" in given else capacitors.uf_of(given["cap_amps"], given["cap_volts"], circuit.hz)
        told = capacitors.judged(uf, given["cap_uf"], given["cap_pct"], given["cap_pct"])
    except InputError as error:
        return found | {"capacitor_error": str(error)}
    return found | {"capacitor_says": told.says}


def amps_context(standing, readings):
    """The compressor's amps against its rating and against what is right at the pressures it runs at; balance of volts."""
    facts, unit = standing.judgement.facts, standing.unit
    rows, rla, amps = [], unit.compressor_rla_a, facts.number("compressor_amps")
    sst, sct = facts.derived.get("sst_f"), facts.derived.get("sct_f")
    if rla and sst is not None and sct is not None:
        rows.append(("Right at these pressures", f"about {expected.expected_a(rla, unit.refrigerant, sst, sct, unit.kind.freezer):.1f} A"))
    if rla:
        rows.append(("Rated", f"{rla:g} A"))
        rows.append(("Locked rotor, or the moment of starting", f"about {expected.locked_a(rla):.0f} A"))
    if amps is not None:
        rows.append(("Measured", f"{amps:g} A"))
    says = expected.amps_say(amps, rla) if amps is not None and rla else ""
    clamped = {r.one: r.value for r in readings if r.what == "amps" and r.state == "calling"}
    legs = [clamped.get(f"lead_{n}") for n in (1, 2, 3)]
    legs_say = ""
    if None not in legs and min(legs) > 0:
        legs_say = f"{format_number(imbalance_pct(legs), 1)} % out of balance; it follows the volts several-fold"
    line = [facts.number(f"line_v_{pair}") for pair in ("12", "23", "31")]
    balance = ""
    if unit.phases == 3 and None not in line and min(line) > 0:
        pct = imbalance_pct(line)
        heat = capacitors.extra_heat_pct(min(pct, 100.0))
        over = ". Over the limit: the supply first" if pct > capacitors.IMBALANCE_LIMIT_PCT else ""
        balance = (
            f"{format_number(pct, 1)} % out of balance, {format_number(capacitors.IMBALANCE_LIMIT_PCT, 0)} % is the limit; "
            f"windings run {format_number(heat, 0)} % hotter{over}"
        )
    return {
        "amps_rows": rows,
        "amps_says": says,
        "legs_say": legs_say,
        "balance_says": balance,
        "balance_over": "Over the limit" in balance,
    }


def wiring_context(call, typed):
    """The fields of what is known of the circuit."""
    wiring = from_data(call.unit.wiring).as_data()
    shown = {name: typed.get(name, str(value)) for name, value in wiring.items() if name not in ("without", "wires")}
    shown["relay"] = typed.get("relay", "yes" if wiring["relay"] else "no")
    without = wiring["without"]
    labels = {
        part.key: part.label for part in circuit_of(call.unit.resolved(), replace(from_data(call.unit.wiring), without=frozenset())).parts
    }
    return {
        "wiring": shown,
        "wiring_choices": {
            "shape": SHAPES.items(), "start_gear": START_GEAR.items(), "control": CONTROLS.items(), "poles": POLES.items(),
            "hz": HERTZ.items(), "heaters_by": HEATERS_BY.items(), "fans_by": FANS_BY.items(), "ends_by": ENDS_BY.items(),
        },
        "wiring_wires": [(one, " to ".join(one.split(JOINT))) for one in wiring["wires"]],
        "wiring_without": [(key, labels.get(key, key).lower()) for key in without],
        "wiring_errors": {},
    }  # fmt: skip


def start_gear_context(call, phases):
    """The wires of the start gear, as found and as run, drawn, with every difference from how they should join."""
    if phases != 1:
        return {"start": None}
    gear = from_data(call.unit.wiring).start_gear
    terminals = {one.key: one for one in start_gear.TERMINALS[gear]}
    sides = []
    for which, title in (("found", "As found"), ("new", "For the new parts")):
        row = call.startwirings.filter(undone_at=None, which=which, gear=gear).last()
        wires = [tuple(wire) for wire in row.wires] if row else []
        drawn = [(n, a, b, terminals[a], terminals[b]) for n, (a, b) in enumerate(wires, 1)]
        sides.append({
            "which": which, "title": title, "wires": drawn, "kept": row,
            "differences": start_gear.differences(gear, wires) if row else [],
        })  # fmt: skip
    return {
        "start": gear,
        "start_words": START_GEAR[gear],
        "start_terminals": list(terminals.values()),
        "start_boxes": [start_gear.outline(box) for box in start_gear.BOXES[gear]],
        "start_jobs": [(job, [terminals[end].label for end in group]) for job, group in start_gear.JOINED[gear]],
        "start_sides": sides,
    }


def placed_context(call):
    """What was put on the unit and is still there, with what can be put on record."""
    return {
        "still_there": still_there(call),
        "left_before": left_before(call),
        "placed_choices": [(code, label) for code, label in WHAT.items() if code != "output_moved"],
        "output_fields": [(name, label, "", hint, "") for name, label, hint in OUTPUT_FIELDS],
        "output_ticks": [(name, words, False, "") for name, words in OUTPUT_TICKS.items()],
    }
