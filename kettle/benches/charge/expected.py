"""What a unit should run at this box and this air: by its bands, and by the plant model of a sound one."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

from kettle.knowledge.bands import HELD_SCT_F, default_band
from kettle.knowledge.equipment import Unit
from kettle.knowledge.measures import atmosphere_psia
from kettle.plant.parts import Plant
from kettle.plant.run import run
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

RUNS_H: Final = 0.35
# The thermostat is turned down so far that it runs while it is looked at, °F.
TURNED_DOWN_F: Final = 30.0
AMBIENT_F: Final = (-20.0, 125.0)
BOX_F: Final = (-40.0, 100.0)


@dataclass(frozen=True)
class Expected:
    """What a sound unit runs: by the plant psig, superheat and subcooling °F, % of rated amps; and how far each may lie from that.

    `suction_psig` to `subcooling_f` are spans that hold both the unit's band and the plant's figure; None where nothing is said.
    """

    suction_psig: tuple[float, float] | None
    head_psig: tuple[float, float] | None
    superheat_f: tuple[float, float] | None
    subcooling_f: tuple[float, float] | None
    plant_suction_psig: float
    plant_head_psig: float
    plant_superheat_f: float
    plant_subcooling_f: float
    plant_amps_pct: float


def expected(unit: Unit, box_f: float, ambient_f: float) -> Expected:
    """Return what a sound unit of this kind runs with the box and the air on its condenser at these temperatures, °F."""
    box, ambient = round(min(max(box_f, BOX_F[0]), BOX_F[1])), round(min(max(ambient_f, AMBIENT_F[0]), AMBIENT_F[1]))
    suction, head, superheat, subcooling, amps_pct = _by_plant(UnitKey(unit), box, ambient)
    if unit.head_control != "none":
        # What holds the head holds it, however little the plant model's condenser floods.
        head = max(head, unit.refrigerant.bubble_psig(HELD_SCT_F, unit.altitude_ft))
    by_air = None if unit.condensing == "water" else _span(unit, "split_f", ambient, 1.0, "bubble")
    return Expected(
        _holding(_span(unit, "td_f", box, -1.0, "dew"), suction), _holding(by_air, head),
        _holding(default_band(unit, "superheat_evap_f"), superheat), _holding(default_band(unit, "subcooling_f"), subcooling),
        suction, head, superheat, subcooling, amps_pct,
    )  # fmt: skip


def _holding(span: tuple[float, float] | None, figure: float) -> tuple[float, float] | None:
    """A span widened to the figure it is told beside: what is due is one thing with its doubt."""
    return (min(span[0], figure), max(span[1], figure)) if span else None


def _span(unit: Unit, quantity: str, of: float, sign: float, line: str) -> tuple[float, float] | None:
    band, r = default_band(unit, quantity), unit.refrigerant
    if band is None:
        return None
    # What holds the head in the cold holds it whatever the air is.
    held = HELD_SCT_F if quantity == "split_f" and unit.head_control != "none" else r.low_f
    at = sorted(min(max(of + sign * end, r.low_f, held), r.high_f) for end in band)
    psig = r.dew_psig if line == "dew" else r.bubble_psig
    return psig(at[0], unit.altitude_ft), psig(at[1], unit.altitude_ft)


@dataclass(frozen=True)
class UnitKey:
    """A unit as a key of a cache: what its plant is sized from."""

    unit: Unit

    def __hash__(self) -> int:
        unit = self.unit
        return hash((unit.kind.code, unit.refrigerant.name, unit.metering, unit.condensing, unit.receiver, unit.head_control, unit.set_f))


def turned_down(unit: Unit) -> Plant:
    """Return the plant of a sound unit that runs on while it is looked at: thermostat turned down, no pressure stops it."""
    plant = sized(unit)
    plant.parts.set_f[:] -= TURNED_DOWN_F
    plant.parts.by_pressure[:] = 0.0
    plant.parts.lp_in_psia[:] = plant.parts.lp_out_psia[:] = 0.0
    return plant


@lru_cache(maxsize=64)
def _by_plant(key: UnitKey, box_f: float, ambient_f: float) -> tuple[float, float, float, float, float]:
    unit = key.unit
    plant = turned_down(unit)
    state = at_rest(plant, air_f=box_f, outside_f=ambient_f)
    state.next_defrost_h[:] = 1e9
    course = run(plant, RUNS_H, ambient_f, state)
    f, air = course.flows, atmosphere_psia(unit.altitude_ft)
    return (
        float(f.suction_psia[0]) - air, float(f.discharge_psia[0]) - air, float(f.superheat_f[0]), float(f.subcooling_f[0]),
        100.0 * float(f.amps[0]) / float(plant.parts.rla_a[0]),
    )  # fmt: skip
