"""The circuit, quasi-steady in each step: compressor, condenser, charge, liquid line, expansion device, coil.

Suction pressure follows from the compressor taking what the expansion device lets through; the coil boils it off over as
much of its face as that needs, and what is left of the face makes the superheat. The charge is what it is: what is not in
coil and line stands in receiver or condenser, where it takes away surface. Coil, bulb and valve each follow after a while:
with a valve too large for the load that loop hunts.
"""

from typing import Final

import numpy as np

from kettle.knowledge.amps import EXPONENT, IDLE_SHARE
from kettle.knowledge.refrigerants import Refrigerant
from kettle.knowledge.refrigerants.line import RANKINE
from kettle.plant.compiled import compiled
from kettle.plant.parts import Parts
from kettle.plant.rows import SECTIONS, Figures, Sections
from kettle.plant.sizing import BTU_PER_PSI_FT3, WETTED, compressor_efficiency
from kettle.plant.state import State

# Time constants, h: liquid in the coil, bulb, power head, the motor of an electronic valve, condenser with its liquid.
COIL_H: Final = 25.0 / 3600.0
BULB_H: Final = 100.0 / 3600.0
VALVE_H: Final = 25.0 / 3600.0
ELECTRONIC_H: Final = 240.0 / 3600.0
CONDENSER_H: Final = 45.0 / 3600.0
STANDING_H: Final = 210.0 / 3600.0
# How far suction moves in one step towards balance, and at most, °F.
BALANCE: Final = 0.8
BALANCING: Final = 2
LARGEST_MOVE_F: Final = 6.0
# ln p of a refrigerant rises by about this much a °F.
PER_F: Final = 0.021
# Superheat over which a valve goes from shut to open, as a share of its setting; what a turn of its stem adds, °F.
STROKE: Final = 2.0
TURN_F: Final = 4.0
# A capillary tube passes this much more for each °F of subcooling.
TUBE_FEELS: Final = 0.035
LEAST_OPEN: Final = 0.03
# A tube floods only as far as its charge goes: liquid that leaves the coil stands behind it, in suction line and accumulator, and is
# missed in the condenser until the tube draws gas too. As coils full of it for all of the flow; judgement.
BEHIND_COIL: Final = 3.0
BEHIND_H: Final = 30.0 / 60.0
COIL_FILLS_H: Final = 10.0 / 60.0
# Of the compressor's power, what heats the gas rather than the shell.
HEAT_KEPT: Final = 0.75
# The mean heat capacity of hot gas lies between that of saturated vapour at its pressure and that of cold vapour, falling fast as it
# heats up: inverse squares, weighed so (fitted to the equations of state of R-134a, R-404A and R-290, within 2 °F).
HOT_GAS: Final = 0.83
# Of the flow a worn compressor loses, this share of its work stays.
COMPRESSED_AGAIN: Final = 0.75
# Liquid standing in the condenser cools below saturation along this many transfer units a share of its volume.
SUBCOOLS: Final = 1.83
# A fouled condenser cools its liquid worse still: the lowest rows foul first.
FOULED: Final = 1.5
# The condenser's share of liquid that its own drainage holds, with a receiver behind it and without.
DRAINED: Final = 0.10
STANDS: Final = 0.22
# A receiver is full at this share; beyond, liquid backs up.
RECEIVER_FULL: Final = 0.95
# Air that a standing condenser fan still lets through.
STILL_CONDENSER: Final = 0.25
# Rows of the table of properties.
BUBBLE, DEW, LIQUID_LB_FT3, VAPOR_LB_FT3, LIQUID_BTU_LB, VAPOR_BTU_LB, LIQUID_BTU_LBF, VAPOR_BTU_LBF = range(8)
TABLE_STEP_F: Final = 1.0


class Flows:
    """What the circuit did in a step: flow lb/h, heats Btu/h, temperatures °F, shares of one."""

    covered: Sections
    air_side: Sections
    air_share: float
    supply_f: float
    flow_lb_h: float
    valve_lb_h: float
    superheat_f: float
    flooding: float
    subcooling_f: float
    liquid_f: float
    valve_inlet_f: float
    suction_line_f: float
    discharge_line_f: float
    work_btu_h: float
    power_w: float
    amps: float
    suction_psia: float
    discharge_psia: float
    flash: float
    flooded: float
    short: float
    receiver_share: float
    coolant_f: float
    rise_f: float


def table_of(refrigerant: Refrigerant) -> Figures:
    """Return the properties along saturation from `refrigerant.low_f` on, every `TABLE_STEP_F`: rows as named above.

    Pressures stand as their logarithm, ln psia.
    """
    nodes = np.arange(refrigerant.low_f, refrigerant.high_f + TABLE_STEP_F / 2, TABLE_STEP_F)
    held = np.clip(nodes, refrigerant.low_f, refrigerant.high_f - 1e-6)
    lines = [np.log(line.psia_of(held)) for line in (refrigerant.bubble, refrigerant.dew)]
    names = ("liquid_lb_ft3", "vapor_lb_ft3", "liquid_btu_lb", "vapor_btu_lb", "liquid_btu_lbf", "vapor_btu_lbf")
    table: Figures = np.stack([*lines, *(getattr(refrigerant, name).of(nodes) for name in names)])
    table[:2, 0] = table[:2, 1] - PER_F * TABLE_STEP_F
    return table


@compiled
def look_up(table: Figures, low_f: float, row: int, temperature_f: float) -> float:
    """Return a property at a temperature in °F (pressures in psia); beyond the table its end segment is continued."""
    place = (temperature_f - low_f) / TABLE_STEP_F
    i = min(max(int(place), 0), table.shape[1] - 2)
    value = table[row, i] + (place - i) * (table[row, i + 1] - table[row, i])
    return float(np.exp(value)) if row <= DEW else float(value)


@compiled
def _place_charge(p: Parts, s: State, f: Flows, liquid_density: float, coolant_f: float) -> None:
    """Where the charge stands: share of the condenser under liquid, how far the liquid line lacks, share of the receiver."""
    condenser_lb, receiver_lb = p.condenser_ft3 * liquid_density, p.receiver_ft3 * liquid_density
    left = p.charge_lb - p.evaporator_lb * (0.35 + 0.65 * (s.wetted + s.behind) / WETTED) - p.line_lb
    if p.receiver_ft3 <= 0:
        flooded, short, share = left / condenser_lb, (DRAINED - left / condenser_lb) / 0.14, 0.0
    else:
        backed = DRAINED
        if p.head_held_f > coolant_f and s.running > 0:
            # A head control backs liquid up until the head stands: the active share shrinks to what the split wanted leaves.
            backed = min(max(1.0 - s.rejected_f / (p.head_held_f - coolant_f), DRAINED), 0.9)
        stored = left - backed * condenser_lb
        over, lacking = max(stored - RECEIVER_FULL * receiver_lb, 0.0), max(-stored, 0.0)
        flooded = backed + (over - lacking) / condenser_lb
        short, share = lacking / (0.6 * p.line_lb), min(max(stored / receiver_lb, 0.0), 1.0)
    f.flooded, f.short, f.receiver_share = min(max(flooded, 0.0), 0.9), min(max(short, 0.0), 1.0), share


@compiled
def _move_valve(p: Parts, s: State, superheat_f: float, dt_h: float) -> None:
    """Bulb and valve, each after its own time; a tube does not move."""
    s.bulb_f += (superheat_f + p.bulb_error_f - s.bulb_f) * (1.0 - np.exp(-dt_h / BULB_H))
    setting = max(p.superheat_set_f + TURN_F * p.stem_turns, 0.5)
    if p.tube > 0:
        s.opening = 1.0
    elif p.electronic > 0:
        s.opening = min(max(s.opening + (s.bulb_f - setting) / (STROKE * setting) * dt_h / ELECTRONIC_H, LEAST_OPEN), 1.0)
    else:
        wanted = min(max(0.5 + (s.bulb_f - setting) / (STROKE * setting), LEAST_OPEN), 1.0) if p.element > 0 else LEAST_OPEN
        s.opening += (wanted - s.opening) * (1.0 - np.exp(-dt_h / VALVE_H))


@compiled
def _condense(p: Parts, s: State, f: Flows, coolant_f: float) -> tuple[float, float]:
    """Liquid out of the condenser; what flows through it, Btu/h°F, and the share of its flow that reaches it."""
    flow = p.condenser_flow * (s.condenser_fan + STILL_CONDENSER * (1.0 - s.condenser_fan))
    surface = min(max((1.0 - f.flooded) / (1.0 - (DRAINED if p.receiver_ft3 > 0 else STANDS)), 0.05), 1.2)
    passes = SUBCOOLS * f.flooded * (p.condenser / p.condenser_clean) ** FOULED
    f.subcooling_f = max(s.sct_f - coolant_f, 0.0) * (1.0 - np.exp(-passes)) * (1.0 - f.short)
    f.liquid_f = s.sct_f - f.subcooling_f
    return flow, 1.0 - np.exp(-p.condenser * surface / flow)


@compiled
def _feed(p: Parts, s: State, f: Flows, liquid_cp: float, latent: float, inlet_saturated_f: float) -> float:
    """What valve or tube would let through at a drop of one, by what reaches it: liquid, or liquid with bubbles."""
    f.flash = min(max((f.liquid_f - inlet_saturated_f) * liquid_cp / max(latent, 1.0), 0.0), 0.6) + 0.25 * f.short
    f.valve_inlet_f = min(f.liquid_f, inlet_saturated_f)
    opening = s.opening if np.isnan(p.valve_stuck) else p.valve_stuck
    solenoid = max(p.solenoid_open * s.liquid_call, p.solenoid_leak)
    feed = p.valve * opening * solenoid * (1.0 - 0.5 * f.short) / (1.0 + 9.0 * f.flash)
    if p.tube > 0:
        feed *= max(1.0 + TUBE_FEELS * (f.subcooling_f - 9.0), 0.1)
    return float(feed)


@compiled
def _run_down(
    p: Parts, s: State, table: Figures, low_f: float, feed: float, liquid_density: float, inlet_psi: float, head: float
) -> tuple[float, float, float, float, float]:
    """Suction where the compressor takes what the valve lets through; a regulator holds some of it back.

    Returns what it takes and what comes through, lb/h, suction, psia, the ratio of pressures and the share of its swept room it fills.
    """
    taken = through = volumetric = suction = 0.0
    ratio = 1.0
    for _ in range(BALANCING):
        pe = look_up(table, low_f, DEW, s.sst_f)
        through = feed * np.sqrt(liquid_density * max(inlet_psi - pe, 0.0))
        suction = pe * np.exp(-PER_F * p.regulator_f)
        ratio = max(head / suction, 1.0)
        volumetric = max(1.0 + p.clearance - p.clearance * ratio ** (1.0 / EXPONENT), 0.0) * p.efficiency
        superheated = max(1.0 + (s.bulb_f - p.bulb_error_f + p.suction_gain_f) / (s.sst_f + RANKINE), 0.9)
        taken = p.swept_ft3_h * volumetric * look_up(table, low_f, VAPOR_LB_FT3, s.sst_f) * (suction / pe) / superheated
        move = BALANCE * (through - taken) / (0.03 * taken + 0.006 * through + 1e-6)
        s.sst_f = min(max(s.sst_f + min(max(move, -LARGEST_MOVE_F), LARGEST_MOVE_F), low_f + 2.0), 95.0)
    return taken, through, suction, ratio, volumetric


@compiled
def _boil(p: Parts, s: State, f: Flows, taken: float, need: float, vapor_cp: float, dt_h: float) -> None:
    """The coil: boiled off over as much of the face as it needs, section by section from the valve; superheat behind it."""
    on = s.running > 0
    unmet, wetted = need, 0.0
    for k in range(SECTIONS):
        whole = 1.0 / (1.0 / max(f.air_side[k], 1e-9) + SECTIONS / p.coil_refrigerant)
        most = max(whole * (s.air_f - s.sst_f), 1e-9)
        f.covered[k] = min(max(unmet / most, 0.0), 1.0) if on else 0.0
        wetted += f.covered[k] / SECTIONS
        unmet -= most
    f.flooding = min(max(unmet / need, 0.0), 1.0) if need > 0 else 0.0
    if on:
        s.wetted += (wetted - s.wetted) * (1.0 - np.exp(-dt_h / COIL_H))
    # At rest what stood behind the coil boils off in the warm line; what floods in the first minutes of a run the coil itself takes up.
    stands = BEHIND_COIL * f.flooding if on and p.tube > 0 and s.since_start_h > COIL_FILLS_H else 0.0
    s.behind += (stands - s.behind) * (1.0 - np.exp(-dt_h / BEHIND_H))
    bare = max(1.0 - s.wetted, 0.0)
    f.superheat_f = max(s.air_f - s.sst_f, 0.0) * (1.0 - np.exp(-p.vapor_side * bare / max(taken * vapor_cp, 1e-6))) if on else 0.0
    if on:
        _move_valve(p, s, f.superheat_f, dt_h)


@compiled
def _lines(p: Parts, s: State, f: Flows, table: Figures, low_f: float, taken: float, pc: float, vapor_heat: float, vapor_cp: float) -> None:
    """Suction and discharge line: from the suction line's heat and the work, back to a temperature over saturated vapour at the head."""
    wet_back = 25.0 * f.flooding if f.flooding > 0.02 else 0.0
    f.suction_line_f = s.sst_f + max(f.superheat_f + p.suction_gain_f - wet_back, 0.0)
    in_gas = vapor_heat + vapor_cp * (f.suction_line_f - s.sst_f) + HEAT_KEPT * f.work_btu_h / max(taken, 1e-6)
    dew_f = s.sct_f + np.log(pc / look_up(table, low_f, DEW, s.sct_f)) / (PER_F * 0.75)
    hot_cp = 1.0 / np.sqrt(HOT_GAS / look_up(table, low_f, VAPOR_BTU_LBF, dew_f) ** 2 + (1.0 - HOT_GAS) / vapor_cp**2)
    hot = dew_f + (in_gas - look_up(table, low_f, VAPOR_BTU_LB, dew_f)) / hot_cp
    f.discharge_line_f = min(hot, 330.0) if s.running > 0 else s.shell_f


@compiled
def step(p: Parts, s: State, f: Flows, table: Figures, low_f: float, coolant_f: float, dt_h: float) -> None:
    """Move suction, head, coil, bulb and valve through one step of `dt_h`; what flowed stands in `f`.

    `coolant_f` is the air or water entering the condenser; the coil's air side by section stands in `f` already.
    """
    on = s.running > 0
    pc = look_up(table, low_f, BUBBLE, s.sct_f)
    liquid_density, liquid_heat = look_up(table, low_f, LIQUID_LB_FT3, s.sct_f), look_up(table, low_f, LIQUID_BTU_LB, s.sct_f)
    liquid_cp = look_up(table, low_f, LIQUID_BTU_LBF, s.sct_f)
    head = pc + p.air_psi

    _place_charge(p, s, f, liquid_density, coolant_f)
    flow, effect = _condense(p, s, f, coolant_f)
    inlet_psi = max(head - (p.liquid_drop_psi if on else 0.0), 1.0)
    inlet_saturated = s.sct_f - np.log(max(pc / max(inlet_psi - p.air_psi, 1.0), 1e-6)) / (PER_F * 0.75)
    feed = _feed(p, s, f, liquid_cp, look_up(table, low_f, VAPOR_BTU_LB, s.sst_f) - liquid_heat, inlet_saturated)

    taken = through = volumetric = 0.0
    ratio = 1.0
    suction = look_up(table, low_f, DEW, s.sst_f) * np.exp(-PER_F * p.regulator_f)
    if on:
        taken, through, suction, ratio, volumetric = _run_down(p, s, table, low_f, feed, liquid_density, inlet_psi, head)
    else:
        # Pumped out, the pressure stays where it is, but for what leaks in.
        leaks = 1.0
        if p.pump_down > 0 and s.liquid_call == 0:
            leaks = min(20.0 * max(p.solenoid_open * s.liquid_call, p.solenoid_leak), 1.0)
        metal = (s.metal_f[0] + s.metal_f[1] + s.metal_f[2] + s.metal_f[3]) / SECTIONS
        s.sst_f += (metal - s.sst_f) * (1.0 - np.exp(-dt_h / STANDING_H)) * leaks

    vapor_heat, vapor_cp = look_up(table, low_f, VAPOR_BTU_LB, s.sst_f), look_up(table, low_f, VAPOR_BTU_LBF, s.sst_f)
    inlet_heat = liquid_heat - liquid_cp * (s.sct_f - f.valve_inlet_f)
    _boil(p, s, f, taken, taken * max(vapor_heat - inlet_heat, 1.0), vapor_cp, dt_h)

    # Gas that leaks back is compressed again: a worn compressor saves less power than it loses flow.
    share = (EXPONENT - 1.0) / EXPONENT
    work = volumetric / max(p.efficiency, 0.05) ** COMPRESSED_AGAIN * suction / share * (ratio**share - 1.0)
    f.work_btu_h = work * p.swept_ft3_h * BTU_PER_PSI_FT3 / compressor_efficiency(ratio)
    rejected = taken * (vapor_heat + vapor_cp * (f.superheat_f + p.suction_gain_f) - inlet_heat) + f.work_btu_h
    s.rejected_f = rejected / (flow * (1.0 - np.exp(-p.condenser / flow)))
    natural = coolant_f + (rejected / max(flow * effect, 1e-6) if on else 0.0)
    s.sct_f += (natural - s.sct_f) * (1.0 - np.exp(-dt_h / CONDENSER_H))
    s.sct_f = min(max(s.sct_f, low_f + 4.0), low_f + (table.shape[1] - 1) * TABLE_STEP_F)
    f.amps = p.rla_a * (IDLE_SHARE + (1.0 - IDLE_SHARE) * f.work_btu_h / p.rated_power_btu_h) if on else 0.0
    _lines(p, s, f, table, low_f, taken, pc, vapor_heat, vapor_cp)
    f.flow_lb_h, f.valve_lb_h, f.suction_psia, f.discharge_psia = taken, through, suction, head
    f.coolant_f, f.rise_f = coolant_f, rejected / flow
