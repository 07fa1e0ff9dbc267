"""A figure with its unit: its span to the very edge, what is no figure, and what stands where nothing is typed."""

import re

import pytest
from django.forms import ValidationError

from kettle.knowledge.measures import TRADE
from web.round.asked import Asked, UnitField


@pytest.mark.parametrize(("unit", "typed", "value"), [
    ("°F diff", "0", 0.0), ("°F diff", "60", 60.0), ("°F", "−60", -60.0), ("°F", "145", 145.0), ("%", "100", 100.0), ("ft", "2,5", 2.5),
    ("psig", "-14.6", -14.6), ("", "1e9", 1e9), ("°F", "  ", None), ("°F", None, None),
])  # fmt: skip
def test_what_lies_in_its_span_is_taken_as_the_core_has_it(unit, typed, value):
    assert UnitField(unit, TRADE, label="TD").clean(typed) == value


@pytest.mark.parametrize(("unit", "typed", "says"), [
    ("°F diff", "60.1", "outside 0.* to 60"), ("°F diff", "-0.1", "outside"), ("°F", "145.5", "outside"),
    ("%", "100.1", "outside 0 to 100 %"),
    ("ft", "tea", "“tea” is not a figure in ft"), ("%", "nan", "not a figure in %"), ("", "inf", "not a figure$"),
    ("°F", "warm", "TD: “warm”"),
])  # fmt: skip
def test_what_does_not_is_said_with_its_label_its_range_and_its_unit(unit, typed, says):
    with pytest.raises(ValidationError) as refused:
        UnitField(unit, TRADE, label="TD").clean(typed)
    [message] = refused.value.messages
    assert message.startswith("TD: ")
    assert re.search(says, message), message


def test_a_bench_may_be_narrower_and_a_wrong_figure_stays_in_its_field():
    class Narrow(Asked):
        SPANS = {"psig": (-14.6, 700.0)}

    asked = Narrow({"cut_in": "701", "cut_out": "700"}, TRADE)
    assert (asked.figure("cut_in", "Cut-in", "psig", 40.0), asked.figure("cut_out", "Cut-out", "psig")) == (40.0, 700.0)
    assert asked.figure("hp_out", "Cut-out", "psig", 1.0) == 1.0 and list(asked.wrong) == ["cut_in"]
    [row] = asked.fields([("cut_in", "Cut-in", "psig", 40.0)])
    assert row[:4] == ("cut_in", "Cut-in", "psig", "701") and "Cut-in: 701" in row[4]
