"""Logs made by the plant model, with the truth of what ran in them; and doors opened on them."""

import numpy as np

from kettle.knowledge import refrigerants
from kettle.plant import faults
from kettle.plant.run import run
from kettle.plant.simulate import preset
from kettle.plant.state import at_rest
from kettle.trends.series import Trend

EVERY_S = 30.0
SETTLE_H = 10.0


def logged(kind, wrong=(), hours=48.0, step_min=2.0, roles=("box_f", "coil_f", "suction_psig", "amps"), seed=1, outside_f=85.0):
    """A log of a preset with faults, and what was true: (Trend, runs of the compressor, defrosts), each as (start, end) in seconds."""
    plant = preset(kind)
    state = at_rest(plant, outside_f=outside_f)
    run(plant, 1.0, outside_f, state)
    for code, severity in wrong:
        faults.apply(plant, state, code, severity)
    run(plant, SETTLE_H, outside_f, state)
    course = run(plant, hours, outside_f, state, every_s=EVERY_S)
    at = course.hours * 3600.0
    series = {name: values[:, 0] for name, values in course.series.items()}
    r, chance = refrigerants.get(plant.unit.refrigerant.name), np.random.default_rng(seed)
    every = int(round(step_min * 60.0 / EVERY_S))
    columns = {
        "box_f": series["air_f"] + chance.normal(0.0, 0.1, len(at)),
        "supply_f": series["supply_f"] + chance.normal(0.0, 0.1, len(at)),
        "coil_f": series["coil_f"] + chance.normal(0.0, 0.1, len(at)),
        "suction_psig": np.array([r.dew_psig(min(float(f), 120.0)) for f in series["sst_f"]]) + chance.normal(0.0, 0.3, len(at)),
        "amps": series["amps"] + chance.normal(0.0, 0.05, len(at)) * (series["running"] > 0),
        "compressor": series["running"],
        "defrost": series["defrosting"],
    }  # fmt: skip
    kept = slice(0, None, every)
    trend = Trend(at[kept], {role: np.round(columns[role][kept], 2) for role in roles})
    return trend, stretches(at, series["running"] > 0), stretches(at, series["defrosting"] > 0)


def stretches(at, on):
    """Where something was on, as (start, end) in seconds; what was on at either end of the log is left out."""
    edge = np.diff(on.astype(int))
    starts, ends = at[1:][edge > 0], at[1:][edge < 0]
    return [(float(start), float(ends[ends > start][0])) for start in starts if (ends > start).any()]


def told_right(true, found, within_s):
    """The share of true stretches that were found with both ends within so long, and how many found are none."""
    right = sum(any(abs(a - c) <= within_s and abs(b - d) <= within_s for c, d in found) for a, b in true)
    false = sum(not any(c < b and d > a for a, b in true) for c, d in found)
    return right / len(true) if true else 1.0, false
