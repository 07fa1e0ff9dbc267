"""Quantities worked out, each with its verdict and scale; and each coil with its superheat."""

from dataclasses import dataclass

from kettle.judging import verdicts
from kettle.judging.scale import scale
from kettle.knowledge.measures import format_number
from kettle.knowledge.quantities import QUANTITIES

# The quantities under the drawing, in their order.
CARDS = ("superheat_evap_f", "superheat_comp_f", "td_f", "delta_t_f", "split_f", "subcooling_f", "amps_pct", "expected_head_psig")
# A water-cooled unit has approach and rise where an air-cooled one has its split.
WATER_CARDS = {"split_f": "approach_f", "delta_t_f": "rise_f"}
# A quantity that moved less than this is what it was.
NEWS = 0.5
# (state, trust) -> mark, word, tone. A verdict trusted less has the half-filled mark and the watch tone.
MARKS = {
    ("low", "good"): ("▼", "low", "bad"),
    ("ok", "good"): ("●", "ok", "good"),
    ("high", "good"): ("▲", "high", "bad"),
    ("low", "weak"): ("◐", "low", "watch"),
    ("ok", "weak"): ("◐", "ok", "watch"),
    ("high", "weak"): ("◐", "high", "watch"),
    ("low", "none"): ("◌", "waits", "watch"),
    ("ok", "none"): ("◌", "waits", "watch"),
    ("high", "none"): ("◌", "waits", "watch"),
    ("impossible", "none"): ("✕", "cannot be", "bad"),
}


@dataclass
class Card:
    """One quantity worked out, with its verdict and scale where it has a band."""

    key: str
    label: str
    unit: str
    meaning: str
    value: str = ""
    mark: tuple = ()
    band: str = ""
    why: str = ""
    note: str = ""
    by_feel: bool = False
    scale: object = None
    was: str = ""


def cards_of(standing):
    """The card of each quantity, in their order; a water-cooled unit has some of its own."""
    verdicts = {verdict.quantity: verdict for verdict in standing.judgement.verdicts}
    return [_card(standing, WATER_CARDS.get(key, key) if standing.unit.condensing == "water" else key, verdicts) for key in CARDS]


def _card(standing, key, verdicts):
    quantity, verdict = QUANTITIES[key], verdicts.get(key)
    card = Card(key, quantity.label, standing.shown.label(quantity.unit), quantity.meaning_on(standing.unit))
    facts = standing.judgement.facts
    value = facts.derived.get(key)
    felt = facts.felt.get(key) if value is None else None
    before = standing.course.before.get(key)
    if before is not None and (value is None or abs(value - before) >= NEWS):
        card.was = standing.shown.figure(before, quantity.unit, quantity.decimals)
    if value is None and felt is None:
        return card
    if felt is not None:
        card.value = f"{standing.shown.figure(felt.value, quantity.unit, 0)} ± {standing.shown.figure(felt.spread, quantity.unit, 0)}"
        card.by_feel = True
    else:
        card.value = standing.shown.figure(value, quantity.unit, quantity.decimals)
    if key == "td_f" and "sst_mid_f" in facts.derived:
        # A blend's coil boils from bubble to dew: TD is told from dew, and what it is from the middle is said.
        card.note = f"from mid-point {standing.shown.figure(value + facts.derived['sst_f'] - facts.derived['sst_mid_f'], quantity.unit)}"
    ratio = facts.derived.get("ratio")
    if key == "expected_head_psig" and ratio is not None:
        card.note = f"ratio {format_number(ratio)}"
    if verdict is not None:
        card.mark = MARKS[(verdict.state, verdict.trust)]
        card.band = f"{standing.shown.figure(verdict.low, quantity.unit, 0)} to {standing.shown.figure(verdict.high, quantity.unit, 0)}"
        card.why = verdict.why
        card.scale = scale(verdict)
    return card


def coils_of(standing):
    """Each coil with its superheat, where the unit has several; empty where it has one."""
    if standing.unit.evaporators < 2:
        return []
    quantity = QUANTITIES["superheat_evap_f"]
    rows = []
    for number, facts in enumerate([standing.told.call.facts_now(coil) for coil in standing.told.call.coils], start=1):
        verdict = next((v for v in verdicts.on(facts) if v.quantity == quantity.key), None)
        value = f"{standing.shown.figure(verdict.value, quantity.unit, 0)}" if verdict else ""
        mark = MARKS[(verdict.state, verdict.trust)] if verdict else ("", "", "")
        word = "iced" if verdicts.coil_iced(facts) else "not read"
        rows.append({"number": number, "value": value, "unit": standing.shown.label(quantity.unit), "mark": mark, "word": word})
    return rows
