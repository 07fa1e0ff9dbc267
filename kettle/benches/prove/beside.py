"""Found beside left: each figure as found and as left in one row, with its limits, whether it passes and whether it is settled."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from kettle.judging.evidence import quantity_name
from kettle.judging.facts import Facts
from kettle.judging.verdicts import Verdict
from kettle.knowledge.measures import TRADE, ShownUnits

# The rows, in the order a technician reads them.
ROWS: Final = ("box_temp_f", "return_air_f", "supply_air_f", "delta_t_f", "suction_psig", "sst_f", "td_f", "superheat_evap_f",
               "superheat_comp_f", "discharge_psig", "split_f", "approach_f", "subcooling_f", "compressor_amps", "amps_pct")  # fmt: skip
TRUSTED: Final = ("good", "weak")


@dataclass(frozen=True)
class Row:
    """A figure as found and as left, its limits in words, and state: pass, fail, waits or empty where it has no limits."""

    quantity: str
    label: str
    found: str
    left: str
    limits: str
    state: str


def beside(
    found: Facts,
    now: Facts,
    verdicts: Sequence[Verdict],
    before: Mapping[str, float],
    settled: bool,
    shown: ShownUnits = TRADE,
    done_min: float | None = None,
) -> list[Row]:
    """Return the rows that either side knows; `before` is what was worked out last before the acts, `settled` whether no clock runs.

    `done_min` is how many minutes ago the last act was: what was read before it is no figure as left.
    """
    told = {verdict.quantity: verdict for verdict in verdicts}
    rows = []
    for quantity in ROWS:
        was, left = _value(found, quantity), _value(now, quantity)
        if done_min is not None and quantity not in now.derived and now.ages_min.get(quantity, 0.0) > done_min:
            left = None
        was = before.get(quantity) if was is None else was
        if was is None and left is None:
            continue
        label, unit, decimals = quantity_name(quantity)
        verdict, state, limits = told.get(quantity), "", ""
        if verdict is not None:
            limits = f"{shown.figure(verdict.low, unit, decimals)} to {shown.figure(verdict.high, unit, decimals)}"
            state = "waits" if verdict.trust not in TRUSTED or not settled or left is None else "pass" if verdict.state == "ok" else "fail"
        found_words, left_words = ("" if value is None else shown.text(value, unit, decimals) for value in (was, left))
        rows.append(Row(quantity, label, found_words, left_words, limits, state))
    return rows


def _value(facts: Facts, quantity: str) -> float | None:
    return facts.derived.get(quantity, facts.number(quantity))
