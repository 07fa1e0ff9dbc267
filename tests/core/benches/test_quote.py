"""A quote: priced to the cent by hand, typed money understood, and what is proposed for a cause."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.quote.price import Line, Terms, line_cents, money, parse_money, parse_quantity, total
from kettle.benches.quote.propose import HOURS, OPTIONS, of_change, proposed
from kettle.knowledge import causes
from kettle.knowledge.acts import ACTS
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError

FREEZER = resolve(UnitSpec("walk_in_freezer", "R-404A"))
TERMS = Terms(rate_cents=11_500, travel_cents=6_000, markup_pct=35.0, tax_pct=7.25, tax_labour=False)


def test_a_quote_by_hand():
    lines = [Line("Fan motor", "part", Decimal(2), 8_437), Line("Fan", "labour", Decimal("1.25")), Line("Travel", "travel", Decimal(1)),
             Line("Gasket", "part", Decimal(1))]  # fmt: skip
    # 2 x 84.37 x 1.35 = 227.799; 1.25 x 115.00 = 143.75; 60.00; the gasket has no price yet.
    assert [line_cents(line, TERMS) for line in lines] == [22_780, 14_375, 6_000, None]
    # Tax on the parts alone: 227.80 x 7.25 % = 16.5155.
    assert total(lines, TERMS) == (lambda s: s)(total(lines, TERMS)) and total(lines, TERMS).net == 43_155
    assert (total(lines, TERMS).tax, total(lines, TERMS).total, total(lines, TERMS).unpriced) == (1_652, 44_807, 1)
    assert total(lines, Terms(11_500, 6_000, 35.0, 7.25, True)).tax == 3_129
    assert (
        line_cents(Line("Fan", "labour", Decimal(1)), Terms()) is None
        and line_cents(Line("Fan", "labour", Decimal(1), 900), Terms()) == 900
    )


@pytest.mark.parametrize(("text", "cents"), [("45", 4500), ("45.5", 4550), ("45,50", 4550), ("1,234.50", 123_450), ("$ 1 234", 123_400),
                                             ("1,234", 123_400), ("0", 0), ("", None), (" ", None)])  # fmt: skip
def test_typed_money(text, cents):
    assert parse_money(text) == cents


@pytest.mark.parametrize("text", ["-4", "4.5.6", "free", "1e9", "99999999", "٣", "nan"])
def test_what_is_no_price(text):
    with pytest.raises(InputError):
        parse_money(text)
    with pytest.raises(InputError):
        parse_quantity(text)


@given(st.integers(0, 100_000_000))
def test_money_written_is_read_again(cents):
    assert parse_money(money(cents)) == cents


ROWS = st.lists(
    st.tuples(st.sampled_from(["part", "labour", "travel", "whole"]), st.decimals("0.25", 40, places=2), st.integers(0, 90_000))
)


@given(ROWS, st.floats(0, 100), st.floats(0, 30))
def test_a_total_is_net_and_tax_and_more_lines_never_cost_less(rows, markup, tax):
    terms = Terms(10_000, 5_000, markup, tax)
    lines = [Line("x", kind, quantity, cents) for kind, quantity, cents in rows]
    found = total(lines, terms)
    assert found.total == found.net + found.tax and found.net == sum(line_cents(line, terms) for line in lines)
    assert total(lines[:-1], terms).total <= found.total


def test_for_now_and_for_good_are_different_work_and_the_unit_anew_stands_beside():
    now, good, anew = proposed(FREEZER, ["txv_underfeeding"], [])
    assert (now.option, good.option, anew.option) == ("now", "good", "replace")
    assert [line.what for line in now.lines] == ["Valve run in, out and back", "Travel"]
    assert "Valve by refrigerant, capacity and equaliser" in [line.what for line in good.lines]
    labour = next(line for line in good.lines if line.kind == "labour")
    assert labour.quantity == Decimal("3.5") and anew.lines[0].kind == "whole"
    again = proposed(FREEZER, ["txv_underfeeding"], ["valve.exercised"])
    assert [one.option for one in again] == ["good", "replace"]
    assert proposed(FREEZER, [], []) == [] and proposed(FREEZER, ["moon"], []) == []


def whats(option):
    return [line.what for line in option.lines]


def test_short_of_gas_is_quoted_with_its_leak_searched_and_repaired():
    now, good, _ = proposed(FREEZER, ["undercharge"], [])
    assert whats(now)[0].startswith("Leak searched") and "Refrigerant added" in whats(now) and "Leak repaired" not in whats(now)
    hours = {line.what: line.quantity for line in good.lines if line.kind == "labour"}
    # The repair opens the circuit: nitrogen, a new drier and two hours of evacuating with it.
    assert hours["Leak repaired"] == Decimal("3.5") and {"Nitrogen", "Drier", "Refrigerant added"} <= set(whats(good))
    assert not any(what.startswith("Leak searched") for what in whats(proposed(FREEZER, ["undercharge"], [], leak_found=True)[1]))
    # Gas that went in leaves the leak to be quoted, and once.
    after = proposed(FREEZER, ["undercharge"], ["charge.added"])
    assert "Leak repaired" in whats(after[0]) and "Refrigerant added" not in whats(after[0])
    assert proposed(FREEZER, ["undercharge"], ["charge.added", "leak.repaired"]) == []


def test_a_label_charge_is_never_topped_up_for_now():
    small = resolve(UnitSpec("reach_in_cooler", "R-134a", critical_charge_oz=14))
    options = proposed(small, ["undercharge"], [])
    assert [one.option for one in options] == ["good", "replace"]
    assert "Charge weighed in" in whats(options[0]) and "Refrigerant added" not in whats(options[0])


def test_every_cause_that_work_can_cure_is_quoted_and_every_part_has_its_hours():
    assert {act.part for act in ACTS.values()} <= set(HOURS)
    curable = {code for act in ACTS.values() for code, share in act.removes.items() if share >= 0.3}
    for code in sorted(curable & set(causes.CATALOGUE)):
        for option in proposed(FREEZER, [code], []):
            assert option.option in OPTIONS and option.lines[-1].kind == "travel" and len(option.lines) >= 2, code


def test_a_part_changed_by_steps_is_quoted_with_what_they_need():
    lines = of_change("Compressor", ["Nitrogen with regulator", "", "Drier", "Drier"], 5.3)
    assert [line.what for line in lines] == [
        "Compressor",
        "Nitrogen with regulator",
        "Drier",
        "Compressor: changed, evacuated, run in",
        "Travel",
    ]
    assert lines[-2].quantity == Decimal("5.25")
