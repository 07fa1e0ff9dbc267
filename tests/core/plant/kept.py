"""A plant kept running in a box that does not change: for what the circuit alone does."""

from kettle.plant.simulate import preset


def kept_running(kind):
    """Return a sound plant that is never satisfied, its box too large to move, no defrosts, no pressure switches; and its air, °F."""
    plant = preset(kind)
    p = plant.parts
    air = float(p.set_f[0])
    for name in ("air_btu_f", "product_btu_f", "core_btu_f", "structure_btu_f"):
        p[name] *= 1e6
    p.set_f -= 60.0
    p.defrosts_per_day = p.infiltration_lb_h = p.lp_out_psia = 0.0
    p.hp_out_psia = 1e4
    return plant, air
