"""Following the volts: python -m benchmarks.power

How many measurements reach each single fault of every preset, of plates on two hot legs and of heaters straight on their clock, beside
walking from the supply on; how many reach a pole behind which a protector opened; and how long a large circuit takes.
"""

from dataclasses import replace
from statistics import mean
from time import perf_counter

import numpy as np

from kettle.electrical import measure, solve
from kettle.electrical.circuit import STATES
from kettle.electrical.faults import every_fault, single_faults
from kettle.electrical.presets import circuit_of
from kettle.electrical.wiring import Bank, Wiring
from kettle.knowledge.equipment import resolve
from kettle.plant.simulate import PRESETS

SURE, MOST = 0.9, 25
# What is seen, heard or felt without a meter: what turns, pulls or is warm.
VISIBLE = ("compressor", "contactor_coil", "condenser_fan", "fan_1", "fan_2", "solenoid", "crankcase_heater", "drain_heater")
TRIED = ("calling", "defrosting", "off")


def shows_in(circuit, faults, place):
    """Return the first state in which a fault changes what works, and the loads that can be seen there; None where nothing does."""
    for state in TRIED:
        solved = solve.solve(circuit, state, faults)
        if (solved.works[place] != solved.works[0]).any():
            return state
    return None


def follow(circuit, faults, place):
    """Follow the proposals to one fault; return how many measurements it took to name its part, None where it shows nowhere."""
    state = shows_in(circuit, faults, place)
    if state is None:
        return None
    solved = solve.solve(circuit, state, faults)
    loads = [load for load in VISIBLE if load in circuit.motors or any(part.key == load for part in circuit.parts)]
    seen = [measure.Seen(load, bool(solved.runs(load)[place]), state) for load in loads]
    readings, measured, at = [], set(), {"panel"}
    while len(readings) < MOST:
        every, likely = measure.standing(circuit, readings, seen)
        same = [n for n, fault in enumerate(every) if faults[place].part in {one.part for one in fault.each}]
        if likely[same].sum() >= SURE:
            break
        leads = measure.next_leads(circuit, every, likely, state, at, 1, measured)
        if not leads:
            break
        lead = leads[0]
        if lead.what == "amps":
            measured.add(frozenset((lead.one,)))
            at.add(circuit.point(circuit.part(lead.one).a).place)
            value = float(solved.through(lead.one)[place])
        else:
            measured.add(frozenset((lead.one, lead.other)))
            at |= {circuit.point(key).place for key in (lead.one, lead.other)}
            value = float(solved.between(lead.one, lead.other)[place])
        readings.append(measure.Reading(lead.what, lead.one, lead.other, value, state))
    return len(readings), likely[same].sum() >= SURE


def walk(circuit, faults, place):
    """How many points lie between the supply and the first one that is not as it should be, measured one by one against the common."""
    state = shows_in(circuit, faults, place)
    if state is None:
        return None
    common = circuit.common
    solved = solve.solve(circuit, state, faults)
    count = 0
    for one, other in [(point.key, common) for point in circuit.points if point.key not in ("G", "Y")]:
        count += 1
        shown = solved.between(one, other)
        if abs(shown[place] - shown[0]) > measure.VOLTS_SHARE * shown[0] + measure.LEAST_VOLTS:
            break
    return count


def large():
    """A three-phase freezer with many fans and elements, for time: points, faults, milliseconds."""
    circuit = circuit_of(resolve(PRESETS["walk_in_freezer"]), Wiring(Bank(14), fans=12))
    faults = tuple(every_fault(circuit))[:150]
    solve.solve(circuit, "off", faults)
    begun = perf_counter()
    solve.solve(circuit, "calling", faults).between("L1", "T1")
    return len(circuit.points), len(faults), 1000.0 * (perf_counter() - begun)


def circuits():
    """The usual circuit of every preset, of plates on two hot legs, and with heaters straight on their clock."""
    found = {kind: circuit_of(resolve(spec)) for kind, spec in PRESETS.items()}
    for kind, volts in (("walk_in_freezer", 230.0), ("reach_in_freezer", 208.0), ("walk_in_cooler", 240.0)):
        unit = resolve(replace(PRESETS[kind], phases=1, nameplate_v=volts))
        found[f"{kind}, two hot legs"] = circuit_of(unit)
        if unit.defrost == "electric":
            found[f"{kind}, heaters on the clock"] = circuit_of(replace(unit, box_control="thermostat"), Wiring(heaters_by="direct"))
    gas = resolve(replace(PRESETS["display_freezer"], defrost="hot_gas", box_control="thermostat"))
    found["display_freezer, hot gas by a clock"] = circuit_of(gas)
    return found


def behind_poles():
    """Print how many measurements name a pole behind which one, two or all windings are open."""
    circuit = circuit_of(resolve(PRESETS["walk_in_freezer"]))
    faults = every_fault(circuit)
    places = [n for n, one in enumerate(faults) if one.part.startswith("pole_") and one.also and one.also.part.startswith("winding_")]
    found = [(follow(circuit, faults, place), faults[place].key) for place in places]
    reached = [one[0] for one, _ in found if one is not None]
    wrong = [key for one, key in found if one is not None and not one[1]]
    print(f"protector behind a pole: {len(reached)} faults, {mean(reached):.2f} measurements; not named {len(wrong)}")


def main():
    """Print both figures by kind, and the time."""
    every, walked, unnamed, hidden = [], [], [], 0
    for kind, circuit in circuits().items():
        faults = single_faults(circuit)
        found = [(follow(circuit, faults, place), walk(circuit, faults, place), faults[place].key) for place in range(1, len(faults))]
        hidden += sum(one is None for one, _, _ in found)
        reached = [(one[0], steps) for one, steps, _ in found if one is not None]
        unnamed += [f"{kind} {key}" for one, _, key in found if one is not None and not one[1]]
        every += [one for one, _ in reached]
        walked += [steps for _, steps in reached]
        followed, steps = (mean(one[n] for one in reached) for n in (0, 1))
        print(f"{kind:34} {len(faults):3} faults: {followed:.1f} measurements, walking {steps:.1f}")
    print(f"all: {mean(every):.2f} measurements (4 wanted), walking {mean(walked):.2f}; most {max(every)}")
    print(f"part not named beyond doubt: {len(unnamed)} of {len(every)}; {hidden} show in none of {', '.join(TRIED)}")
    behind_poles()
    points, faults, took = large()
    print(f"{points} points, {faults} faults, solved in {took:.0f} ms: {took / 100.0:.2f} of the 100 ms wanted")
    assert np.isfinite(took) and set(TRIED) <= set(STATES)


if __name__ == "__main__":
    main()
