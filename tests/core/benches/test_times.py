"""Times of a visit by hand: at work, waiting, away, overtime over midnight and a weekend."""

from datetime import datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.report.times import FOLLOWS, MARKS, Day, spent

DAY = Day(7 * 60, 17 * 60)
THURSDAY = datetime(2026, 3, 5)


def at(hours, day=THURSDAY):
    return day + timedelta(hours=hours)


def test_a_visit_by_hand():
    marks = [(at(15), "arrived"), (at(16), "away"), (at(16.5), "back"), (at(17.5), "waiting"), (at(18), "back"), (at(18.25), "left")]
    told = spent(marks, at(20), DAY)
    assert told.minutes == {"work": 135.0, "waiting": 30.0, "away": 30.0} and told.total == 195.0 and not told.open
    # From five on: half an hour of work, half of waiting, a quarter of work.
    assert told.overtime == 75.0
    assert spent(marks, at(20)).overtime == 0.0


def test_over_midnight_and_on_a_saturday_all_is_overtime():
    assert spent([(at(23), "arrived"), (at(25), "left")], at(30), DAY).overtime == 120.0
    saturday = datetime(2026, 3, 7)
    assert spent([(at(10, saturday), "arrived"), (at(12, saturday), "left")], at(30, saturday), DAY).overtime == 120.0
    friday = datetime(2026, 3, 6)
    assert spent([(at(16, friday), "arrived"), (at(32, friday), "left")], at(40, friday), DAY).overtime == 15 * 60.0


def test_a_visit_that_goes_on_counts_to_now():
    told = spent([(at(9), "arrived")], at(10.5), DAY)
    assert told.open and told.minutes["work"] == 90.0 and spent([], at(10)).total == 0.0


@given(st.lists(st.tuples(st.floats(0, 90), st.sampled_from(sorted(MARKS))), max_size=8))
def test_overtime_is_never_more_than_the_time_and_time_never_more_than_there_was(rows):
    told = spent([(at(hours), what) for hours, what in rows], at(100), DAY)
    assert 0.0 <= told.overtime <= told.minutes["work"] + told.minutes["waiting"] + 1e-6
    first = min((hours for hours, _ in rows), default=100.0)
    assert told.total <= (100.0 - first) * 60.0 + 1e-6


@pytest.mark.parametrize("what", sorted(MARKS))
def test_after_every_mark_something_can_follow(what):
    assert FOLLOWS[what] and set(FOLLOWS[what]) <= set(MARKS)
