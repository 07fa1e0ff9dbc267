"""Flow of a capillary tube: homogeneous, adiabatic, choked (Stoecker and Jones, Refrigeration and Air Conditioning, 1982, ch. 13).

Liquid first by friction alone, then two phases marched down in pressure: enthalpy and velocity together stay, what friction and
acceleration take of each step of pressure is the length it needs; where a step needs none the flow is choked. Friction after Churchill
(1977), viscosity of the mixture after McAdams (1942).
"""

from dataclasses import dataclass
from functools import lru_cache
from math import pi
from typing import Any, Final

import numpy as np

from kettle.knowledge import amps, refrigerants
from kettle.knowledge.errors import FieldErrors
from kettle.knowledge.measures import format_number
from kettle.knowledge.refrigerants import Refrigerant

GC: Final = 32.174
FT_LBF_PER_BTU: Final = 778.169
PSF: Final = 144.0
NODES: Final = 90
ROUGH_IN: Final = 1.6e-5
# Loss of the entrance, velocity heads.
ENTRANCE: Final = 1.5
BORE_IN: Final = (0.02, 0.12)
FEET: Final = (0.5, 30.0)
SUBCOOLING_F: Final = (0.0, 60.0)
BISECTIONS: Final = 24
FLUX: Final = (20.0, 6000.0)
# Bores are drawn to about a thousandth of an inch.
TOLERANCE_IN: Final = 0.001
USUAL_TD_F: Final = 20.0
# Tubes and the method differ by some 15 %; beyond this a flow is another.
DOUBT: Final = 0.25
CAPACITY: Final = (100.0, 60_000.0)
# Suction gas comes to the compressor so much warmer than it boiled, °F.
WARMED_F: Final = 25.0


@dataclass(frozen=True)
class Flow:
    """What a tube passes, lb/h; whether it is choked, and what a thousandth of an inch more or less of bore changes, lb/h."""

    lb_h: float
    choked: bool
    less_lb_h: float
    more_lb_h: float


def usual_sst_f(set_f: float) -> float:
    """Return the evaporating temperature a self-contained unit runs at by its set temperature where nobody read it, °F."""
    return set_f - USUAL_TD_F


def _friction(reynolds: Any, rough: float) -> Any:
    """Darcy's factor after Churchill (1977), for every Reynolds number."""
    a = (2.457 * np.log(1.0 / ((7.0 / reynolds) ** 0.9 + 0.27 * rough))) ** 16
    return 8.0 * ((8.0 / reynolds) ** 12 + (a + (37530.0 / reynolds) ** 16) ** -1.5) ** (1.0 / 12.0)


@lru_cache(maxsize=128)
def _nodes(name: str, top_f: float, low_psia: float) -> tuple[Any, ...]:
    """Properties at even steps of pressure from where it begins to boil down to a pressure."""
    r = refrigerants.get(name)
    top = r.bubble.psia_at(top_f)
    psia = np.geomspace(top, min(low_psia, 0.999 * top), NODES)
    liquid_f, vapor_f = r.bubble.temperatures_f_of(psia), r.dew.temperatures_f_of(psia)
    liquid_f, vapor_f = (np.where(np.isnan(t), r.low_f, t) for t in (liquid_f, vapor_f))
    return (
        psia * PSF, 1.0 / r.liquid_lb_ft3.of(liquid_f), 1.0 / r.vapor_lb_ft3.of(vapor_f), r.liquid_btu_lb.of(liquid_f),
        r.vapor_btu_lb.of(vapor_f), r.liquid_lb_fth.of(liquid_f) / 3600.0, r.vapor_lb_fth.of(vapor_f) / 3600.0,
    )  # fmt: skip


def _length(flux: float, bore_ft: float, nodes: tuple[Any, ...], inlet_psf: float) -> tuple[float, bool]:
    """The length at which a flux (lb/ft²s) is choked, or comes down to the lowest pressure; ft, and whether it was choked."""
    psf, v_liquid, v_vapor, h_liquid, h_vapor, mu_liquid, mu_vapor = nodes
    rough = ROUGH_IN / 12.0 / bore_ft
    head = flux**2 * v_liquid[0] / (2.0 * GC)
    single = (inlet_psf - psf[0] - ENTRANCE * head) / (_friction(flux * bore_ft / mu_liquid[0], rough) * head / bore_ft)
    # Without subcooling it boils in its entrance: no length of liquid then.
    single = max(float(single), 0.0)
    # Enthalpy and velocity: h + (G v)²/2 stays; a quadratic in quality.
    k = flux**2 / (2.0 * GC * FT_LBF_PER_BTU)
    dv, dh = v_vapor - v_liquid, h_vapor - h_liquid
    a, b = k * dv**2, dh + 2.0 * k * v_liquid * dv
    c = h_liquid - h_liquid[0] + k * (v_liquid**2 - v_liquid[0] ** 2)
    quality = np.clip((-b + np.sqrt(np.maximum(b**2 - 4.0 * a * c, 0.0))) / (2.0 * a), 0.0, 1.0)
    volume = v_liquid + quality * dv
    mu = 1.0 / (quality / mu_vapor + (1.0 - quality) / mu_liquid)
    factor = _friction(flux * bore_ft / mu, rough)
    mean_v, mean_f = (volume[1:] + volume[:-1]) / 2.0, (factor[1:] + factor[:-1]) / 2.0
    step = (psf[:-1] - psf[1:] - flux**2 * (volume[1:] - volume[:-1]) / GC) / (mean_f * flux**2 * mean_v / (2.0 * GC * bore_ft))
    choked = np.flatnonzero(step <= 0.0)
    end = int(choked[0]) if len(choked) else len(step)
    return float(single + step[:end].sum()), bool(len(choked))


def _flux(length_ft: float, bore_in: float, nodes: tuple[Any, ...], inlet_psf: float) -> tuple[float, bool]:
    low, high = FLUX
    for _ in range(BISECTIONS):
        middle = (low + high) / 2.0
        if _length(middle, bore_in / 12.0, nodes, inlet_psf)[0] > length_ft:
            low = middle
        else:
            high = middle
    return (low + high) / 2.0, _length((low + high) / 2.0, bore_in / 12.0, nodes, inlet_psf)[1]


def _checked(length_ft: float, bore_in: float, sct_f: float, sst_f: float, subcooling_f: float, r: Refrigerant) -> None:
    wrong = {}
    for name, label, value, span, unit in (
        ("length_ft", "Length", length_ft, FEET, "ft"), ("bore_in", "Bore", bore_in, BORE_IN, "in"),
        ("subcooling_f", "Subcooling", subcooling_f, SUBCOOLING_F, "°F"), ("sct_f", "Condensing", sct_f, (r.low_f + 40.0, r.high_f), "°F"),
        ("sst_f", "Evaporating", sst_f, (r.low_f, sct_f - 10.0), "°F"),
    ):  # fmt: skip
        if not span[0] <= value <= span[1]:
            wrong[name] = (
                f"{label}: {format_number(value, 3)} {unit} is outside {format_number(span[0], 2)} to {format_number(span[1], 2)} {unit}"
            )
    if wrong:
        raise FieldErrors(wrong)


def _passes(r: Refrigerant, length_ft: float, bore_in: float, sct_f: float, sst_f: float, subcooling_f: float) -> tuple[float, bool]:
    nodes = _nodes(r.name, round(sct_f - subcooling_f, 2), round(r.dew.psia_at(sst_f), 3))
    flux, choked = _flux(length_ft, bore_in, nodes, r.bubble.psia_at(sct_f) * PSF)
    return flux * pi * (bore_in / 24.0) ** 2 * 3600.0, choked


def flow(r: Refrigerant, length_ft: float, bore_in: float, sct_f: float, sst_f: float, subcooling_f: float) -> Flow:
    """Return what a capillary tube passes; length ft, bore in, condensing (bubble) and evaporating (dew) °F, subcooling at its inlet °F.

    FieldErrors by field. Good to some 10 to 15 %: tubes differ as much among themselves.
    """
    _checked(length_ft, bore_in, sct_f, sst_f, subcooling_f, r)
    found, choked = _passes(r, length_ft, bore_in, sct_f, sst_f, subcooling_f)
    less, more = (_passes(r, length_ft, bore_in + off, sct_f, sst_f, subcooling_f)[0] for off in (-TOLERANCE_IN, TOLERANCE_IN))
    return Flow(found, choked, less, more)


def length_for(r: Refrigerant, lb_h: float, bore_in: float, sct_f: float, sst_f: float, subcooling_f: float) -> float:
    """Return the length of a bore that passes a flow, ft (lb/h, in, °F); FieldErrors for what cannot be."""
    _checked(FEET[0], bore_in, sct_f, sst_f, subcooling_f, r)
    nodes = _nodes(r.name, round(sct_f - subcooling_f, 2), round(r.dew.psia_at(sst_f), 3))
    flux = lb_h / 3600.0 / (pi * (bore_in / 24.0) ** 2)
    length, _ = _length(flux, bore_in / 12.0, nodes, r.bubble.psia_at(sct_f) * PSF)
    if not FEET[0] <= length <= FEET[1]:
        told = f"{format_number(lb_h, 1)} lb/h through {format_number(bore_in, 3)} in would need {format_number(length, 1)} ft"
        raise FieldErrors({"bore_in": f"Bore: {told}, outside {FEET[0]:g} to {FEET[1]:g} ft"})
    return length


def _heat_btu_lb(r: Refrigerant, sct_f: float, sst_f: float, subcooling_f: float) -> float:
    return float(r.vapor_btu_lb.at(sst_f) - r.liquid_btu_lb.at(sct_f - subcooling_f))


def flow_for(r: Refrigerant, capacity_btu_h: float, sct_f: float, sst_f: float, subcooling_f: float) -> float:
    """Return the flow that carries a capacity, lb/h (Btu/h, °F): capacity over what a pound takes up; FieldErrors for what cannot be."""
    _checked(FEET[0], BORE_IN[0], sct_f, sst_f, subcooling_f, r)
    low, high = CAPACITY
    if not low <= capacity_btu_h <= high:
        told = format_number(capacity_btu_h, 0)
        raise FieldErrors({"capacity": f"Capacity: {told} Btu/h is outside {low:,.0f} to {high:,.0f} Btu/h"})
    return capacity_btu_h / _heat_btu_lb(r, sct_f, sst_f, subcooling_f)


def capacity_of(r: Refrigerant, lb_h: float, sct_f: float, sst_f: float, subcooling_f: float) -> float:
    """Return the capacity a flow carries, Btu/h (lb/h, °F)."""
    return lb_h * _heat_btu_lb(r, sct_f, sst_f, subcooling_f)


def _taken(r: Refrigerant, sct_f: float, sst_f: float) -> float:
    """What a compressor takes, of its swept volume: density at its suction by volumetric efficiency, lb/ft³ (clearance of `amps`)."""
    ratio = r.bubble.psia_at(sct_f) / r.dew.psia_at(sst_f)
    warmed = 1.0 + WARMED_F / (sst_f + 459.67)
    return float(max(1.0 + amps.CLEARANCE - amps.CLEARANCE * ratio ** (1.0 / amps.EXPONENT), 0.05) * r.vapor_lb_ft3.at(sst_f) / warmed)


def plugged_or_wrong(
    r: Refrigerant, passes_lb_h: float, rated_btu_h: float, rated_f: tuple[float, float], sct_f: float, sst_f: float, subcooling_f: float
) -> str:
    """Return whether a starved coil has a plugged tube or a wrong one, in words, after a weighed charge.

    `passes_lb_h` is what the tube as measured should pass now, `rated_btu_h` the compressor's capacity at `rated_f` (evaporating,
    condensing), °F. A compressor takes what its swept volume holds at this suction; a tube in order passes the same.
    """
    rated = flow_for(r, rated_btu_h, rated_f[1], rated_f[0], subcooling_f)
    takes = rated * _taken(r, sct_f, sst_f) / _taken(r, rated_f[1], rated_f[0])
    told = f"The compressor takes {format_number(takes, 1)} lb/h here, this tube should pass {format_number(passes_lb_h, 1)}"
    if passes_lb_h > (1.0 + DOUBT) * takes:
        return f"{told}: it passes less than it should, plugged"
    if passes_lb_h < (1.0 - DOUBT) * takes:
        return f"{told}: more comes through than it should. Length, bore or readings again"
    if sst_f < rated_f[0] - USUAL_TD_F / 2.0:
        return f"{told}: it passes what it can, and that is too little. Not plugged, the wrong tube"
    return f"{told}: tube and compressor agree"


# Charts of tubes are drawn for such evaporating and condensing temperatures, °F, freezers (True) and others; usual figures of the trade.
CHART_F: Final[dict[bool, tuple[float, float]]] = {False: (20.0, 120.0), True: (-10.0, 120.0)}
CHART_FIELDS: Final = {"length_ft": "chart_ft", "sst_f": "chart_sst", "sct_f": "chart_sct"}
# What a tube is shortened by at a time while it starves, ft; two lengths closer than this are one.
CUT_FT: Final = 0.5


def by_chart(
    r: Refrigerant, chart_ft: float, bore_in: float, chart_f: tuple[float, float], sct_f: float, sst_f: float, subcooling_f: float,
    capacity_btu_h: float | None = None,
) -> list[str]:  # fmt: skip
    """Return how the length of a trade's chart stands to the one worked out for this unit, why they differ, and which to cut, in words.

    `chart_f` is what the chart is drawn for (evaporating, condensing), `capacity_btu_h` what the compressor gives at this unit's own
    temperatures where that is known. The same tube passes another flow at other temperatures, and the compressor takes another; the longer
    of two is cut, since a tube is shortened and never lengthened. FieldErrors by field for what cannot be.
    """
    try:
        at_chart = flow(r, chart_ft, bore_in, chart_f[1], chart_f[0], subcooling_f).lb_h
    except FieldErrors as error:
        raise FieldErrors({CHART_FIELDS.get(name, name): text for name, text in error.by_field.items()}) from None
    here = flow(r, chart_ft, bore_in, sct_f, sst_f, subcooling_f).lb_h
    there, yours = (f"{format_number(one[0], 0)} and {format_number(one[1], 0)} °F" for one in (chart_f, (sst_f, sct_f)))
    says = [
        f"The chart's {format_number(chart_ft, 1)} ft are for {there}, evaporating and condensing: there they pass "
        f"{format_number(at_chart, 1)} lb/h, at your {yours} {format_number(here, 1)}"
    ]
    # Without its capacity the compressor is taken to be the one the chart's tube fits.
    by_swept = at_chart * _taken(r, sct_f, sst_f) / _taken(r, chart_f[1], chart_f[0])
    takes = by_swept if capacity_btu_h is None else flow_for(r, capacity_btu_h, sct_f, sst_f, subcooling_f)
    wanted = length_for(r, takes, bore_in, sct_f, sst_f, subcooling_f)
    says.append(f"The compressor takes {format_number(takes, 1)} lb/h at yours: {format_number(wanted, 1)} ft of this bore")
    if abs(wanted - chart_ft) < CUT_FT:
        return [*says, f"Both agree: cut {format_number(max(wanted, chart_ft), 1)} ft"]
    why = []
    if abs(sst_f - chart_f[0]) >= 1.0:
        why.append(f"yours boils {format_number(abs(sst_f - chart_f[0]), 0)} °F {'colder' if sst_f < chart_f[0] else 'warmer'}")
    if abs(sct_f - chart_f[1]) >= 1.0:
        why.append(f"its head is {format_number(abs(sct_f - chart_f[1]), 0)} °F {'lower' if sct_f < chart_f[1] else 'higher'}")
    if not why:
        why.append("this compressor is of another size than the chart's tube is for")
    longer, which = (wanted, "worked out") if wanted > chart_ft else (chart_ft, "of the chart")
    return [
        *says,
        f"Why they differ: {', '.join(why)}",
        f"Cut {format_number(longer, 1)} ft, the one {which}. Weigh the charge in, read suction with the box near set, and take off "
        f"{format_number(CUT_FT, 1)} ft at a time while it starves. What is too short cannot be made longer",
    ]  # fmt: skip
