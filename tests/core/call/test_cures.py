"""What waits to be put right: seen, settled, or a valve that answers to nothing."""

from kettle.call import cures
from tests.core.call.made import COOLER, did, read, told

STARVED = [read(key, value, 1) for key, value in (
    ("box_temp_f", 53), ("evap_fans", "running"), ("sight_glass", "clear"), ("suction_psig", 12), ("suction_line_evap_f", 46),
    ("bulb", "tight_insulated"), ("drier_drop_f", 0.4),
)]  # fmt: skip
ONE = (did("valve", "turned_out", 10, value=0.5), read("suction_line_evap_f", 46, 30))
TWO = (*ONE, did("valve", "turned_out", 31, value=0.5), read("suction_psig", 12, 50), read("suction_line_evap_f", 46, 51))


def test_two_turns_without_an_answer_are_followed_by_doing_not_by_asking():
    once, twice = told(COOLER, *STARVED, *ONE), told(COOLER, *STARVED, *TWO)
    assert not cures.stuck(once.call.judged) and once.next_checks()
    assert [cause.code for cause in cures.due(twice.call.judged)] == ["txv_underfeeding"] and twice.next_checks() == ()
    steps = cures.stuck_steps(twice.call.judged)
    assert "both stops" in steps[0] and [text for text in steps if "element" in text] and "the valve" in steps[-1]


def test_what_was_tried_of_it_is_not_told_again_and_an_answer_ends_it():
    tried = told(COOLER, *STARVED, *TWO, did("valve", "exercised", 60), read("suction_line_evap_f", 46, 80))
    assert not any("both stops" in text for text in cures.stuck_steps(tried.call.judged))
    answered = (*ONE, did("valve", "turned_out", 31, value=0.5), read("suction_psig", 18, 50), read("suction_line_evap_f", 36, 51))
    assert cures.stuck(told(COOLER, *STARVED, *answered).call.judged) == ()
