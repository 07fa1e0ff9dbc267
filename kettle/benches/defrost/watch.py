"""Watching a defrost: what to expect and when, by the model, and what the meter says of the heater."""

from dataclasses import dataclass
from typing import Final

from kettle.benches.defrost.program import Program
from kettle.benches.defrost.situation import Situation, plant_of, set_program
from kettle.benches.defrost.week import Span
from kettle.plant.rows import Figures
from kettle.plant.run import run, set_clock
from kettle.plant.state import at_rest

WATCHED_HOURS: Final = 48.0


@dataclass(frozen=True)
class Expected:
    """Minutes from the start to the first drip, to a clear coil and to the end, and whether time ends it rather than the coil."""

    first_drip_min: Span
    clear_min: Span
    end_min: Span
    by_time: bool


def expected(asked: Situation, program: Program) -> Expected | None:
    """Return what a defrost of a program should do on a unit, None where the program starts none within two days."""
    plant = plant_of(asked)
    starts = set_program(plant, program)
    state = at_rest(plant, outside_f=asked.outside_f)
    set_clock(state, starts)
    run(plant, WATCHED_HOURS, asked.outside_f, state, usual=asked.usual_day, starts_h=starts)
    if state.defrosts[0] == 0:
        return None
    seen = state.defrosts > 0

    def span(values: Figures) -> Span:
        return Span(float(values[0]), float(values[seen].min()), float(values[seen].max()))

    return Expected(span(state.last_drip_min), span(state.last_clear_min), span(state.last_defrost_min), bool(state.ended_by_time[0]))
