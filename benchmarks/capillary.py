"""A capillary tube's flow against the published correlation of the ASHRAE handbook's form (Bittle and Pate 1998), and how long it takes.

Run: python -m benchmarks.capillary. No measured flows are cited: these are seven tubes of five refrigerants inside the correlation's range.
"""

from benchmarks.timing import median
from kettle.benches.refrigerant import capillary
from kettle.knowledge import refrigerants

# Refrigerant, length ft, bore in, condensing, evaporating and subcooling °F.
TUBES = (
    ("R-134a", 10.0, 0.031, 110.0, 10.0, 20.0), ("R-134a", 7.0, 0.026, 110.0, -10.0, 10.0), ("R-134a", 10.0, 0.042, 120.0, 20.0, 20.0),
    ("R-404A", 8.0, 0.042, 110.0, 0.0, 20.0), ("R-290", 10.0, 0.036, 110.0, 15.0, 20.0), ("R-22", 5.0, 0.050, 115.0, 40.0, 15.0),
    ("R-600a", 10.0, 0.031, 100.0, -10.0, 15.0),
)  # fmt: skip
WANTED_S = 0.020


def published_flow(r, length_ft, bore_in, sct_f, subcooling_f):
    """Flow by the published dimensionless correlation for subcooled inlets, lb/h."""
    at, d, joule = sct_f - subcooling_f, bore_in / 12.0, 778.169 * 32.174 * 3600.0**2
    v, mu, mu_gas = 1.0 / r.liquid_lb_ft3.at(at), r.liquid_lb_fth.at(at), r.vapor_lb_fth.at(at)
    scale = d**2 / (v * mu) ** 2
    pi_2 = scale * (r.vapor_btu_lb.at(at) - r.liquid_btu_lb.at(at)) * joule
    pi_4 = scale * v * r.bubble.psia_at(sct_f) * 144.0 * 32.174 * 3600.0**2
    pi_5 = scale * r.liquid_btu_lbf.at(at) * subcooling_f * joule
    pi_6, pi_7 = 1.0 / (r.vapor_lb_ft3.at(at) * v), (mu - mu_gas) / mu_gas
    pi_8 = 1.8925 * (length_ft / d) ** -0.484 * pi_2**-0.824 * pi_4**1.369 * pi_5**0.0187 * pi_6**0.773 * pi_7**0.265
    return pi_8 * d * mu


def main():
    """Print each tube's flow beside the correlation's, and the time as a share of what is wanted."""
    for name, feet, bore, sct, sst, subcooling in TUBES:
        r = refrigerants.get(name)
        flow = capillary.flow(r, feet, bore, sct, sst, subcooling).lb_h
        told = published_flow(r, feet, bore, sct, subcooling)
        print(f"{name:8} {feet:4.0f} ft {bore:.3f} in: {flow:6.2f} lb/h, correlation {told:6.2f}, {100.0 * (flow / told - 1.0):+.0f} %")
    r = refrigerants.get("R-134a")
    took = median(lambda: capillary.flow(r, 10.0, 0.031, 110.0, 10.0, 20.0))
    print(f"one flow with its tolerance: {took / WANTED_S:.2f} of 20 ms")


if __name__ == "__main__":
    main()
