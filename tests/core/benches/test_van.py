"""A van's list: names compared as people write them, prices, what has to be got, what a repair takes."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.quote import van
from kettle.benches.quote.price import quantity_words
from kettle.benches.quote.van import Carried
from kettle.knowledge.acts import ACTS

VAN = [
    Carried("Fan motor 9 W", Decimal(1), Decimal(2), 4150), Carried("Fan motor 16 W", Decimal(2), Decimal(2), 6100),
    Carried("Relay", Decimal(3), Decimal(3), 1420), Carried("Drier", Decimal(0), Decimal(4)),
]  # fmt: skip


@pytest.mark.parametrize(("asked", "names"), [
    ("fan motor by volts, watts and turning", ["Fan motor 9 W", "Fan motor 16 W"]), ("FAN  MOTOR 9 w", ["Fan motor 9 W"]),
    ("relay by coil volts and contact load", ["Relay"]), ("relay and capacitors by the model", []),
    ("fan", ["Fan motor 9 W", "Fan motor 16 W"]),
])  # fmt: skip
def test_which_part_of_a_van_can_be_what_is_asked_for(asked, names):
    assert [one.what for one in van.fitting(VAN, asked)] == names


def test_a_price_is_known_where_only_one_can_be_meant():
    assert van.price_of(VAN, "Relay by coil volts") == 1420
    assert (
        van.price_of(VAN, "fan motor by volts") is None and van.price_of(VAN, "compressor") is None and van.price_of(VAN, "drier") is None
    )


def test_what_has_to_be_got():
    assert van.to_get(VAN) == [("Fan motor 9 W", Decimal(1)), ("Drier", Decimal(4))]


def test_what_was_done_takes_its_parts_but_no_tools_and_no_refrigerant():
    spares = [*ACTS["compressor.replaced"].spares, *ACTS["charge.recovered"].spares, *ACTS["evap_fan.replaced"].spares]
    assert van.proposed(spares, []) == ["compressor", "start parts", "drier", "nitrogen", "fan motor"]
    assert van.proposed(spares, ["Compressor", "Fan motor 9 W", "start parts"]) == ["drier", "nitrogen"]


def test_every_part_of_every_act_has_a_short_name():
    for act in ACTS.values():
        for what in act.spares:
            assert 3 <= len(van.short_name(what)) <= 40 and what.startswith(van.short_name(what))


@given(st.decimals("0.01", 1000, places=2))
def test_a_quantity_written_is_the_quantity(quantity):
    assert Decimal(quantity_words(quantity)) == quantity and "E" not in quantity_words(quantity)
