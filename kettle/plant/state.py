"""What changes while a plant runs."""

from typing import Any

import numpy as np

from kettle.plant.air import humidity_at_saturation
from kettle.plant.parts import Plant
from kettle.plant.rows import Figures, Sections, rows


class State:
    """The state of a plant: temperatures °F, masses lb, humidity lb/lb, times h; flags are 0 or 1.

    Coil metal, frost (its mass and the room it takes) and the denser ice of part-defrosts are by section.
    """

    hours: float
    air_f: float
    humidity: float
    product_f: float
    core_f: float
    structure_f: float
    felt_f: float
    metal_f: Sections
    frost_lb: Sections
    frost_ft3: Sections
    ice_lb: Sections
    # Water: on the coil by section, in the pan, frozen there and in the line, run over, drained; frost on ceiling and guards.
    wet_lb: Sections
    pan_lb: float
    pan_ice_lb: float
    line_ice_lb: float
    floor_lb: float
    drained_lb: float
    ceiling_lb: float
    # Circuit.
    sst_f: float
    sct_f: float
    wetted: float
    behind: float
    rejected_f: float
    opening: float
    bulb_f: float
    shell_f: float
    boil_btu: float
    condenser_fan: float
    # Controls.
    running: float
    calling: float
    liquid_call: float
    fans: float
    since_start_h: float
    since_stop_h: float
    starts: float
    next_defrost_h: float
    emptying_h: float
    hp_open: float
    defrosting: float
    defrost_h: float
    since_defrost_h: float
    dripping_h: float
    fans_wait_h: float
    td_f: float
    clean_td_f: float
    # The defrost under way and the last one: ice at its start, minutes to the first drip and to clear (0 where not yet).
    began_lb: float
    drip_at_min: float
    clear_at_min: float
    last_began_lb: float
    last_drip_min: float
    last_clear_min: float
    last_defrost_min: float
    last_left_lb: float
    ended_by_time: float
    # Tallies since `wipe_tallies`.
    defrosts: float
    by_time: float
    clear_min: float
    ran_min: float
    worst_clear_min: float
    worst_frost_lb: float
    worst_blocked: float
    worst_left_lb: float
    peak_f: float
    over_limit_h: float
    defrost_btu: float
    defrost_kwh: float
    kwh: float


def at_rest(plant: Plant, air_f: float | Figures | None = None, outside_f: float = 85.0) -> Any:
    """Return plants that have stood for a while with the box at a temperature (set temperature where none is given)."""
    p = plant.parts
    s = rows(State, plant.count)
    box = p.set_f + 1.0 if air_f is None else np.broadcast_to(np.asarray(air_f, dtype=float), (plant.count,))
    for name in ("air_f", "product_f", "core_f", "felt_f"):
        s[name] = box
    s.humidity = [0.85 * humidity_at_saturation(float(f)) for f in box]
    s.structure_f, s.metal_f, s.sst_f = box + 1.0, box[:, None], box - 5.0
    s.sct_f, s.shell_f, s.wetted, s.opening, s.bulb_f = outside_f, outside_f, 0.5, 0.4, 10.0
    s.since_stop_h, s.liquid_call, s.condenser_fan, s.fans, s.clean_td_f = 1.0, 1.0, 1.0, 1.0, 99.0
    s.next_defrost_h = np.where(p.defrosts_per_day > 0, 12.0 / np.maximum(p.defrosts_per_day, 1e-9), np.inf)
    wipe_tallies(s)
    return s


def wipe_tallies(state: Any) -> None:
    """Begin the tallies anew."""
    names = (
        "defrosts",
        "by_time",
        "clear_min",
        "ran_min",
        "worst_clear_min",
        "worst_frost_lb",
        "worst_blocked",
        "worst_left_lb",
        "over_limit_h",
    )
    for name in (*names, "defrost_btu", "defrost_kwh", "kwh", "drained_lb"):
        state[name] = 0.0
    state.peak_f = -99.0
