"""A turn of the stem, what it brought, and what its answer or none says of the valve."""

from math import log

import pytest

from kettle.call import turns as stem
from tests.core.call.made import FREEZER, did, read, told

AS_FOUND = (read("suction_psig", 9.4, 1), read("suction_line_evap_f", -8, 1))


def turned(way, line, psig=9.4, value=0.5):
    call = told(
        FREEZER, *AS_FOUND, did("valve", way, 5, value=value), read("suction_psig", psig, 30), read("suction_line_evap_f", line, 30)
    )
    [turn] = stem.turns(call.call.staged)
    return turn


@pytest.mark.parametrize(
    ("way", "line", "answered"),
    [
        ("turned_out", -8.0, False), ("turned_out", -9.0, False), ("turned_out", -10.0, True),
        # The wrong way is no answer, however far.
        ("turned_out", -3.0, False), ("turned_in", -3.0, True), ("turned_in", -12.0, False),
    ],
)  # fmt: skip
def test_an_answer_is_a_move_of_a_degree_and_a_half_the_way_it_should(way, line, answered):
    assert turned(way, line).answered is answered


def test_a_turn_nobody_read_after_has_no_answer_yet_and_says_nothing():
    call = told(FREEZER, *AS_FOUND, did("valve", "turned_out", 5, value=0.5))
    [turn] = stem.turns(call.call.staged)
    assert turn.answered is None and stem.testimony(turn) is None and stem.without_answer(call.call.staged) == 0


def test_no_answer_speaks_for_a_stuck_valve_and_an_answer_against_it():
    none, moved = stem.testimony(turned("turned_out", -8)), stem.testimony(turned("turned_out", -14))
    # Half of the stuck ones and one in eight of all others do not answer.
    assert none.causes["txv_underfeeding"] - none.rest == pytest.approx(log(0.5 / 0.12))
    assert moved.causes["txv_underfeeding"] - moved.rest == pytest.approx(log(0.5 / 0.88))
    assert "no answer" in none.text and "½ turn" in none.text and "it answered" in moved.text


def test_turned_in_without_an_answer_speaks_of_other_causes():
    told_in = stem.testimony(turned("turned_in", -8))
    assert "txv_overfeeding" in told_in.causes and "txv_underfeeding" not in told_in.causes


def test_turns_without_an_answer_count_in_a_row_and_not_from_before_the_valve_was_opened():
    again = (did("valve", "turned_out", 35, value=0.5), read("suction_psig", 9.4, 55), read("suction_line_evap_f", -8, 55))
    first = (*AS_FOUND, did("valve", "turned_out", 5, value=0.5), read("suction_psig", 9.4, 30), read("suction_line_evap_f", -8, 30))
    assert stem.without_answer(told(FREEZER, *first).call.staged) == 1
    assert stem.without_answer(told(FREEZER, *first, *again).call.staged) == 2
    opened = (did("valve", "exercised", 60), read("suction_psig", 9.4, 80), read("suction_line_evap_f", -8, 80))
    assert stem.without_answer(told(FREEZER, *first, *again, *opened).call.staged) == 0
    answered = (did("valve", "turned_out", 35, value=0.5), read("suction_psig", 11, 55), read("suction_line_evap_f", -14, 55))
    assert stem.without_answer(told(FREEZER, *first, *answered).call.staged) == 0


@pytest.mark.parametrize(
    ("turns", "words"),
    [(0.125, "⅛ turn"), (0.25, "¼ turn"), (0.75, "¾ turn"), (1.0, "1 turn"), (1.5, "1½ turns"), (2.0, "2 turns"), (0.3, "0.3 turn"),
     (1.3, "1.3 turns")],
)  # fmt: skip
def test_turns_are_said_as_a_technician_says_them(turns, words):
    assert stem.turn_words(turns) == words
