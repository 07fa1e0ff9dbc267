"""The circuit, quasi-steady in each step: compressor, condenser, charge, liquid line, expansion device, coil.

Suction pressure follows from the compressor taking what the expansion device lets through; the coil boils it off over as
much of its face as that needs, and what is left of the face makes the superheat. The charge is what it is: what is not in
coil and line stands in receiver or condenser, where it takes away surface.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kettle import amps
from kettle.plant.air import Figures, between
from kettle.plant.sizing import BTU_PER_PSI_FT3, COMPRESSOR_EFFICIENCY, SECTIONS, WETTED, Plant
from kettle.plant.state import State
from kettle.refrigerants import Refrigerant
from kettle.refrigerants.line import RANKINE

# Time constants, h: bulb, valve with its charge, condenser with its liquid.
BULB_H: Final = 30.0 / 3600.0
VALVE_H: Final = 600.0 / 3600.0
CONDENSER_H: Final = 45.0 / 3600.0
# How far suction moves in one step towards balance, and at most, °F.
BALANCE: Final = 0.8
BALANCING: Final = 2
LARGEST_MOVE_F: Final = 6.0
# ln p of a refrigerant rises by about this much a °F.
PER_F: Final = 0.021
# Superheat over which a valve goes from shut to open, as a share of its setting.
STROKE: Final = 2.0
EVENLY: Final = np.full(SECTIONS, 1.0 / SECTIONS)
# A capillary tube passes this much more for each °F of subcooling.
TUBE_FEELS: Final = 0.035
LEAST_OPEN: Final = 0.03
# Of the compressor's power, what heats the gas rather than the shell.
HEAT_KEPT: Final = 0.9
# Heat capacity of hot gas against that of cold vapour.
HOT_GAS: Final = 1.05
# Of the flow a worn compressor loses, this share of its work stays.
COMPRESSED_AGAIN: Final = 0.75
# Liquid standing in the condenser cools below saturation along this many transfer units a share of its volume.
SUBCOOLS: Final = 1.83
# A fouled condenser cools its liquid worse still: the lowest rows foul first.
FOULED: Final = 1.5
# The condenser's share of liquid that its own drainage holds, with a receiver behind it.
DRAINED: Final = 0.10
# A receiver is full at this share; beyond, liquid backs up.
RECEIVER_FULL: Final = 0.95


class Tables:
    """The refrigerant's properties at even temperatures, looked up all at once."""

    names = ("bubble", "dew", "liquid_lb_ft3", "vapor_lb_ft3", "liquid_btu_lb", "vapor_btu_lb", "liquid_btu_lbf", "vapor_btu_lbf")

    def __init__(self, refrigerant: Refrigerant, step_f: float = 1.0) -> None:
        self.low, self.step = refrigerant.low_f, step_f
        nodes = np.arange(refrigerant.low_f, refrigerant.high_f + step_f / 2, step_f)
        lines = [
            np.log(getattr(refrigerant, name).psia_of(between(nodes, self.low, refrigerant.high_f - 1e-6))) for name in ("bubble", "dew")
        ]
        self.table = np.stack([*lines, *(getattr(refrigerant, name).of(nodes) for name in self.names[2:])])
        self.table[:2, 0] = self.table[:2, 1] - PER_F * step_f
        self.last = len(nodes) - 2

    def at(self, temperature_f: Figures) -> Figures:
        """Return the properties (rows in the order of `names`, pressures in psia) at temperatures in °F."""
        place = (temperature_f - self.low) / self.step
        i = np.minimum(np.maximum(place.astype(np.int64), 0), self.last)
        found: Figures = self.table[:, i] + (place - i) * (self.table[:, i + 1] - self.table[:, i])
        found[:2] = np.exp(found[:2])
        return found


@dataclass
class Flows:
    """What the circuit does in a step: flow lb/h, heats Btu/h, temperatures °F, shares of one."""

    flow_lb_h: Figures
    covered: Figures
    superheat_f: Figures
    flooding: Figures
    subcooling_f: Figures
    liquid_f: Figures
    valve_inlet_f: Figures
    suction_line_f: Figures
    discharge_line_f: Figures
    work_btu_h: Figures
    amps: Figures
    suction_psia: Figures
    discharge_psia: Figures
    flash: Figures
    receiver_share: Figures
    valve_lb_h: Figures


def step(plant: Plant, tables: Tables, s: State, coolant_f: Figures, air_conductance: Figures, dt_h: float) -> Flows:
    """Move suction, head, bulb and valve of every variant through one step of `dt_h` and return what flowed.

    `coolant_f` is the air or water entering the condenser; `air_conductance` the coil's air side by section, Btu/h°F.
    """
    on = s.running
    high = tables.at(s.sct_f)
    pc, liquid_density, liquid_heat, liquid_cp = high[0], high[2], high[4], high[6]
    head = pc + plant.air_psi

    flooded, short, receiver_share = _charge(plant, s, liquid_density, coolant_f)
    base = np.where(plant.receiver_ft3 > 0, DRAINED, 0.22)
    surface = between((1.0 - flooded) / (1.0 - base), 0.05, 1.2)
    effect = 1.0 - np.exp(-plant.condenser * surface / plant.condenser_flow)
    passes = SUBCOOLS * flooded * (plant.condenser / plant.condenser_clean) ** FOULED
    subcooling = np.maximum(s.sct_f - coolant_f, 0.0) * (1.0 - np.exp(-passes)) * (1.0 - short)
    liquid_f = s.sct_f - subcooling

    inlet_psi = np.maximum(head - plant.liquid_drop_psi * on, 1.0)
    inlet_saturated = s.sct_f - np.log(np.maximum(pc / np.maximum(inlet_psi - plant.air_psi, 1.0), 1e-6)) / (PER_F * 0.75)
    opening = np.where(np.isnan(plant.valve_stuck), s.opening, plant.valve_stuck)
    latent = tables.at(s.sst_f)[5] - liquid_heat
    flash = between((liquid_f - inlet_saturated) * liquid_cp / np.maximum(latent, 1.0), 0.0, 0.6) + 0.25 * short
    valve_inlet_f = np.minimum(liquid_f, inlet_saturated)
    feed = plant.valve * opening * plant.solenoid_open * (1.0 - 0.5 * short) / (1.0 + 9.0 * flash)
    if plant.unit.metering == "cap_tube":
        feed = feed * (1.0 + TUBE_FEELS * (subcooling - 9.0))

    # Suction stands where the compressor takes what the valve lets through; a regulator holds some of it back.
    for _ in range(BALANCING):
        low = tables.at(s.sst_f)
        pe = low[1]
        through = feed * np.sqrt(liquid_density * np.maximum(inlet_psi - pe, 0.0))
        suction = pe * np.exp(-PER_F * plant.regulator_f)
        ratio = np.maximum(head / suction, 1.0)
        volumetric = np.maximum(1.0 + plant.clearance - plant.clearance * ratio ** (1.0 / amps.EXPONENT), 0.0) * plant.efficiency
        superheated = 1.0 + (s.bulb_f - plant.bulb_error_f + plant.suction_gain_f) / (s.sst_f + RANKINE)
        taken = plant.swept_ft3_h * volumetric * low[3] * (suction / pe) / np.maximum(superheated, 0.9) * on
        move = BALANCE * (through * on - taken) / (0.03 * taken + 0.006 * through + 1e-6)
        s.sst_f = between(s.sst_f + on * between(move, -LARGEST_MOVE_F, LARGEST_MOVE_F), tables.low + 2.0, 95.0)
    s.sst_f = np.where(on > 0, s.sst_f, s.sst_f + 0.25 * (s.metal_f @ EVENLY - s.sst_f))
    vapor_heat, vapor_cp = low[5], low[7]

    # The coil: boiled off over as much of the face as it needs, section by section from the valve.
    entering = s.air_f[:, None]
    whole = 1.0 / (1.0 / np.maximum(air_conductance, 1e-9) + SECTIONS / plant.coil_refrigerant[:, None])
    most = np.maximum(whole * (entering - s.sst_f[:, None]), 1e-9)
    inlet_heat = liquid_heat - liquid_cp * (s.sct_f - valve_inlet_f)
    need = taken * np.maximum(vapor_heat - inlet_heat, 1.0)
    before = np.cumsum(most, axis=1) - most
    covered = between((need[:, None] - before) / most, 0.0, 1.0) * on[:, None]
    wetted = covered @ EVENLY
    flooding = between((need - most.sum(axis=1)) / np.maximum(need, 1e-9), 0.0, 1.0) * on
    room = np.maximum(s.air_f - s.sst_f, 0.0)
    superheat = room * (1.0 - np.exp(-plant.vapor_side * (1.0 - wetted) / np.maximum(taken * vapor_cp, 1e-6)))

    # Bulb and valve, each after its own time.
    s.wetted = np.where(on > 0, s.wetted + 0.5 * (wetted - s.wetted), s.wetted)
    felt = superheat + plant.bulb_error_f
    s.bulb_f = s.bulb_f + (felt - s.bulb_f) * (1.0 - np.exp(-dt_h / BULB_H))
    setting = np.maximum(plant.superheat_set_f, 0.5)
    wanted = between(0.5 + (s.bulb_f - setting) / (STROKE * setting), LEAST_OPEN, 1.0)
    moved = s.opening + (wanted - s.opening) * (1.0 - np.exp(-dt_h / VALVE_H))
    s.opening = np.ones_like(wanted) if plant.unit.metering == "cap_tube" else np.where(on > 0, moved, s.opening)

    # Gas that leaks back is compressed again: a worn compressor saves less power than it loses flow.
    power = (
        amps_power(volumetric / np.maximum(plant.efficiency, 0.05) ** COMPRESSED_AGAIN, suction, ratio)
        * plant.swept_ft3_h
        * BTU_PER_PSI_FT3
        / COMPRESSOR_EFFICIENCY
        * on
    )
    rejected = taken * (vapor_heat + vapor_cp * (superheat + plant.suction_gain_f) - inlet_heat) + power
    natural = coolant_f + rejected / np.maximum(plant.condenser_flow * effect, 1e-6)
    s.rejected_btu_h = rejected / np.maximum(plant.condenser_flow * (1.0 - np.exp(-plant.condenser / plant.condenser_flow)), 1e-6)
    s.sct_f = s.sct_f + (np.where(on > 0, natural, coolant_f) - s.sct_f) * (1.0 - np.exp(-dt_h / CONDENSER_H))
    s.sct_f = between(s.sct_f, tables.low + 4.0, tables.low + (tables.last + 1) * tables.step)
    drawn = plant.rla_a * (amps.IDLE_SHARE + (1.0 - amps.IDLE_SHARE) * power / plant.rated_power_btu_h) * on
    line_f = s.sst_f + np.where(flooding > 0.02, np.maximum(superheat + plant.suction_gain_f - 25.0 * flooding, 0.0),
                                superheat + plant.suction_gain_f)  # fmt: skip
    discharge = line_f + HEAT_KEPT * power / np.maximum(taken * HOT_GAS * vapor_cp, 1e-6)
    return Flows(
        flow_lb_h=taken, covered=covered, superheat_f=superheat, flooding=flooding, subcooling_f=subcooling, liquid_f=liquid_f,
        valve_inlet_f=valve_inlet_f, suction_line_f=line_f, discharge_line_f=np.where(on > 0, np.minimum(discharge, 330.0), s.shell_f),
        work_btu_h=power, amps=drawn, suction_psia=suction, discharge_psia=head, flash=flash, receiver_share=receiver_share,
        valve_lb_h=through,
    )  # fmt: skip


def amps_power(volumetric: Figures, suction_psia: Figures, ratio: Figures) -> Figures:
    """Return power per swept volume, psi, as `kettle.amps.compression_power` has it, for arrays."""
    share = (amps.EXPONENT - 1.0) / amps.EXPONENT
    power: Figures = volumetric * suction_psia / share * (ratio**share - 1.0)
    return power


def _charge(plant: Plant, s: State, liquid_density: Figures, coolant_f: Figures) -> tuple[Figures, Figures, Figures]:
    """Where the charge stands: share of the condenser under liquid, how far the liquid line lacks, share of the receiver."""
    condenser_lb, receiver_lb = plant.condenser_ft3 * liquid_density, plant.receiver_ft3 * liquid_density
    coil_lb = plant.evaporator_lb * (0.35 + 0.65 * s.wetted / WETTED)
    left = plant.charge_lb - coil_lb - plant.line_lb
    has_receiver = plant.receiver_ft3 > 0
    # A head control backs liquid up until the head stands: the active share shrinks to what the wanted split leaves.
    held = between(1.0 - s.rejected_btu_h / np.maximum(plant.head_held_f - coolant_f, 1e-6), DRAINED, 0.9)
    backed = np.where((plant.head_held_f > coolant_f) & (s.running > 0), held, DRAINED)
    stored = left - backed * condenser_lb
    over = np.maximum(stored - RECEIVER_FULL * receiver_lb, 0.0)
    lacking = np.maximum(-stored, 0.0)
    flooded = np.where(has_receiver, backed + over / condenser_lb - lacking / condenser_lb, left / condenser_lb)
    short = np.where(has_receiver, lacking / (0.6 * plant.line_lb), (0.10 - flooded) / 0.14)
    share = np.where(has_receiver, between(stored / np.maximum(receiver_lb, 1e-9), 0.0, 1.0), 0.0)
    return between(flooded, 0.0, 0.9), between(short, 0.0, 1.0), share
