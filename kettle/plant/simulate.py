"""Presets by kind, with faults, run to a moment at which a technician would read them."""

from dataclasses import dataclass
from typing import Final

from kettle.knowledge import observations
from kettle.knowledge.equipment import UnitSpec, check_choice, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.observations import Value
from kettle.plant import faults
from kettle.plant.observer import Rig
from kettle.plant.parts import Plant
from kettle.plant.run import Course, run
from kettle.plant.sizing import sized
from kettle.plant.state import at_rest

# Refrigerant and plate of each kind's preset.
PRESETS: Final[dict[str, UnitSpec]] = {
    spec.kind: spec
    for spec in (
        UnitSpec("walk_in_cooler", "R-448A", compressor_rla_a=9.4, phases=3, defrost="timed_air"),
        UnitSpec("walk_in_freezer", "R-404A", compressor_rla_a=14.0, phases=3),
        UnitSpec("reach_in_cooler", "R-134a", compressor_rla_a=5.0, phases=1),
        UnitSpec("reach_in_freezer", "R-404A", compressor_rla_a=7.0, phases=1),
        UnitSpec("prep_rail", "R-290", compressor_rla_a=3.6, phases=1),
        UnitSpec("display_cooler", "R-449A", compressor_rla_a=11.0, phases=3),
        UnitSpec("display_freezer", "R-404A", compressor_rla_a=21.0, phases=3),
        UnitSpec("bottle_cooler", "R-134a", compressor_rla_a=4.2, phases=1),
        UnitSpec("provision_room_cooler", "R-404A", compressor_rla_a=18.0, phases=3),
        UnitSpec("provision_room_freezer", "R-404A", compressor_rla_a=18.0, phases=3),
    )
}
# What one round of reading takes.
READ: Final = (
    "box_temp_f", "product_temp_f", "compressor", "evap_fans", "condenser_fans", "condenser_coil", "ambient_f", "ice_form",
    "suction_psig", "discharge_psig", "suction_line_evap_f", "suction_line_comp_f", "liquid_line_f", "discharge_line_f", "drier_drop_f",
    "compressor_amps", "return_air_f", "supply_air_f", "water_in_f", "water_out_f", "sight_glass", "receiver_level_pct", "bulb",
)  # fmt: skip
HOURS: Final = (0.5, 240.0)
OUTSIDE_F: Final = (-20.0, 120.0)
# A circuit is read when it has run this long; the wait for it is at most so many hours more.
READ_AFTER_H: Final = 9.0 / 60.0
LONGEST_WAIT_H: Final = 2.0
WAITS_H: Final = 1.0 / 60.0


@dataclass(frozen=True)
class Simulated:
    """A run of a preset: the plant, its course, and what would be read at the end."""

    plant: Plant
    course: Course
    observations: dict[str, Value]


def parse_fault(text: str) -> tuple[str, float]:
    """Return code and severity of "code" or "code:0.5"; InputError for what is not known or outside 0 to 1."""
    code, _, grade = text.partition(":")
    faults.get(code)
    try:
        severity = float(grade) if grade else 1.0
    except ValueError:
        raise InputError(f"severity “{grade[:20]}” of {code} is not a number from 0 to 1") from None
    if not 0.0 <= severity <= 1.0:
        raise InputError(f"severity {severity:g} of {code} is outside 0 to 1")
    return code, severity


def preset(kind: str) -> Plant:
    """Return the sound plant of a kind; InputError names the nearest one."""
    return sized(resolve(PRESETS[check_choice("kind", kind)]))


def simulate(
    kind: str, wrong: list[tuple[str, float]], hours: float = 24.0, outside_f: float = 85.0, seed: int = 1, wrong_from_h: float = 0.0
) -> Simulated:
    """Run a preset with faults (code, severity) from an hour on and read it; deterministic for a seed.

    Raises InputError for a kind or fault that is not known, or figures outside their range.
    """
    begins = ("the faults' hour", wrong_from_h, (0.0, hours), "h")
    for label, value, (low, high), unit in (("hours", hours, HOURS, "h"), ("ambient", outside_f, OUTSIDE_F, "°F"), begins):
        if not low <= value <= high:
            raise InputError(f"{label} {value:g} is outside {low:g} to {high:g} {unit}")
    plant = preset(kind)
    state = at_rest(plant, outside_f=outside_f)
    sound = run(plant, wrong_from_h, outside_f, state) if wrong_from_h > 0 else None
    for code, severity in wrong:
        faults.apply(plant, state, code, severity)
    course = sound
    if hours > wrong_from_h:
        after = run(plant, hours - wrong_from_h, outside_f, state)
        course = after if sound is None else sound.followed_by(after)
    assert course is not None
    waited = 0.0
    while waited < LONGEST_WAIT_H and plant.parts.can_run[0] > 0 and not _readable(course):
        course = course.followed_by(run(plant, WAITS_H, outside_f, state))
        waited += WAITS_H
    return Simulated(plant, course, _read(Rig(plant.unit, outside_f, dict(wrong), seed, plant, course)))


def _read(rig: Rig) -> dict[str, Value]:
    """What one round of reading takes, and what the faults show at their own parts."""
    marked = tuple(key for code in rig.wrong for key in faults.get(code).seen)
    keys = [key for key in dict.fromkeys((*READ, *marked)) if observations.get(key).exists_on(rig.unit)]
    return {key: value for key in keys if (value := rig.look(key)) is not None}


def _readable(course: Course) -> bool:
    s = course.state
    return bool(s.running[0] > 0 and s.since_start_h[0] >= READ_AFTER_H and s.fans[0] > 0 and s.liquid_call[0] > 0)
