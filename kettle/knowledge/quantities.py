"""The quantities worked out from readings: names, units, what each needs and what it means.

Definitions: field practice, as each `meaning` states. Superheat always uses the dew line, subcooling and condensing
temperature the bubble line.
"""

from dataclasses import dataclass
from typing import Any, Final


@dataclass(frozen=True)
class Quantity:
    """A quantity worked out: its key in the case format, names, unit, and the observations it needs."""

    key: str
    label: str
    unit: str
    needs: tuple[str, ...]
    meaning: str
    decimals: int = 1
    no_bulb: str = ""

    def meaning_on(self, unit: Any) -> str:
        """Return what it is on a unit: one whose coil is fed without a bulb is read at the coil's outlet (`no_bulb`)."""
        return self.no_bulb if self.no_bulb and unit.metering != "txv" else self.meaning


# fmt: off
QUANTITIES: Final[dict[str, Quantity]] = {q.key: q for q in (
    Quantity("sst_f", "SST", "°F", ("suction_psig",), "saturation (dew) at suction pressure"),
    Quantity("sct_f", "SCT", "°F", ("discharge_psig",), "saturation (bubble) at discharge pressure"),
    Quantity("sst_mid_f", "SST, mid-point", "°F", ("suction_psig",), "middle of dew and bubble at suction, for a blend with glide"),
    Quantity("sct_dew_f", "SCT, dew", "°F", ("discharge_psig",), "dew at discharge pressure, for a blend with glide"),
    Quantity("superheat_evap_f", "Superheat, coil", "°F diff", ("suction_psig", "suction_line_evap_f"),
             "line at the bulb − dew at suction", no_bulb="coil outlet − dew at suction"),
    Quantity("superheat_comp_f", "Superheat, comp.", "°F diff", ("suction_psig", "suction_line_comp_f"),
             "line at the compressor − dew at suction"),
    Quantity("line_gain_f", "Line gain", "°F diff", ("suction_psig", "suction_line_evap_f", "suction_line_comp_f"),
             "superheat at the compressor − superheat at the coil"),
    Quantity("subcooling_f", "Subcooling", "°F diff", ("discharge_psig", "liquid_line_f"),
             "bubble at liquid pressure − liquid line"),
    Quantity("td_f", "TD", "°F diff", ("suction_psig", "box_temp_f"), "return (or box) air − SST"),
    Quantity("delta_t_f", "Air delta-T", "°F diff", ("return_air_f", "supply_air_f"), "return air − supply air"),
    Quantity("split_f", "Split", "°F diff", ("discharge_psig", "ambient_f"), "SCT − air on the condenser"),
    Quantity("approach_f", "Approach", "°F diff", ("discharge_psig", "water_out_f"), "SCT − water leaving the condenser"),
    Quantity("rise_f", "Water rise", "°F diff", ("water_in_f", "water_out_f"), "water out − water in"),
    Quantity("ratio", "Ratio", "", ("suction_psig", "discharge_psig"), "absolute discharge ÷ absolute suction"),
    Quantity("volts_imbalance_pct", "Volts imbalance", "%", ("line_v_12", "line_v_23", "line_v_31"),
             "greatest deviation from the mean of the three ÷ mean"),
    Quantity("volts_off_pct", "Volts off", "%", ("line_v_12",),
             "furthest line voltage against the nameplate, without one the nearest usual supply", 0),
    Quantity("load_loss_v", "Lost over contactor", "V", ("line_v_12", "load_v_12"), "line volts − load volts of the worst pair", 0),
    Quantity("pole_drop_v", "Drop over a pole", "V", ("pole_drop_v_1",), "volts across the worst closed pole"),
    Quantity("winding_highest_ohm", "Highest winding", "Ω", ("winding_cs_ohm",), "largest of the winding readings"),
    Quantity("winding_mismatch_pct", "Windings do not add", "%", ("winding_cs_ohm", "winding_cr_ohm", "winding_sr_ohm"),
             "largest − the two smaller, against the largest", 0),
    Quantity("heater_pct", "Heater power", "%", ("heater_volts", "heater_amps", "heater_rated_w"), "measured ÷ rated watts", 0),
    Quantity("defrost_min_a_day", "Defrost a day as set", "min", ("defrosts_per_day", "defrost_set_min"),
             "starts a day × the minutes each may run: what the program as found gives the coil", 0),
    Quantity("stat_span_f", "Cut-in − cut-out", "°F diff", ("stat_cut_out_f", "stat_cut_in_f"), "differential as it was watched"),
    Quantity("stat_off_f", "Cycle off set", "°F diff", ("stat_cut_out_f", "stat_cut_in_f"), "middle of cut-in and cut-out − set"),
    Quantity("lp_cut_in_off_f", "LP cut-in off set", "°F diff", ("lp_cut_in_psig",), "saturation at LP cut-in − set temperature"),
    Quantity("lp_open_off_f", "LP switch open at", "°F diff", ("low_pressure_switch", "suction_psig"),
             "saturation at the suction at which the low-pressure switch stands open − set temperature"),
    Quantity("over_pump_down_psi", "Suction over pump-down", "psi", ("suction_psig",),
             "suction of a unit that runs on − what it pumps down to: a coil that gets no liquid at all is there in minutes"),
    Quantity("line_under_air_f", "Line at bulb under the air", "°F diff", ("suction_psig", "box_temp_f", "suction_line_evap_f"),
             "air − line at the bulb of a coil whose TD is wide: where no liquid boils at all the outlet takes the temperature of the air"),
    Quantity("liquid_drop_f", "Liquid line, drop to the valve", "°F diff", ("liquid_line_f", "liquid_line_valve_f"),
             "liquid leaving the condensing unit − liquid before the valve: colder there, it boils on its way, behind something narrow"),
    Quantity("product_over_air_f", "Product over the air", "°F diff", ("product_temp_f", "box_temp_f"),
             "product − box air: stock that came in warm is warmer than its air, stock that lay through a warm moment is colder"),
    Quantity("regulator_drop_psi", "Drop over the regulator", "psi", ("regulator_before_psig", "regulator_after_psig"),
             "pressure on the coil's side of the suction regulator − pressure behind it"),
    Quantity("amps_pct", "Amps", "%", ("compressor_amps",), "measured ÷ rated amps", 0),
    Quantity("rest_off_f", "At rest against box", "°F diff", ("compressor", "suction_psig", "box_temp_f"),
             "dew at suction of a unit that stands − box air: near it liquid lies in the coil, far below it was pumped down"),
    Quantity("held_warm_f", "Box stays off set", "°F diff", ("box_temp_f", "box_trend"),
             "box − set of a box that is not coming down: a box that falls is pulling down and says little"),
    Quantity("rest_over_air_f", "At rest over the air", "°F diff", ("resting_psig", "ambient_f"),
             "bubble at the head of a unit that stands − air on the condenser: above it there is air in with the gas"),
    Quantity("expected_head_psig", "Head expected", "psig", ("ambient_f",),
             "bubble at the air on the condenser + normal split, or what the head control holds", 0),
)}
# fmt: on
