"""Words somebody chose for a sentence stand, and what changed on record meanwhile is marked beside them."""

from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.report.worded import LONGEST_KEY, Clause, shown, words_of

BOX = Clause("found", "Box found at 47.0 °F, set 38 °F.", ("reading:1",))
FANS = Clause("found", "Coil fans: stopped.", ("reading:2",))
FAN = Clause("done", "Fan replaced (the rear one).", ("act:3",))
LEFT = Clause("left", "As left: box 38.0 °F.", ("reading:9",))


def test_words_somebody_chose_stand_and_a_change_of_fact_is_marked_beside_them():
    worded = {"found:reading:1": ("found", BOX.text, "The milk stood at 47."), "found:reading:2": ("found", FANS.text, "")}
    stands = shown([LEFT, FAN, FANS, BOX], worded)
    assert [one.section for one in stands] == ["found", "found", "done", "left"]
    assert words_of(stands, "found") == "The milk stood at 47." and stands[0].left_out and not stands[1].now_says
    warmer = shown([Clause("found", "Box found at 52.0 °F, set 38 °F.", BOX.refs), FAN], worded)
    assert warmer[0].text == "The milk stood at 47." and warmer[0].now_says == "Box found at 52.0 °F, set 38 °F." and warmer[0].own
    gone = shown([FAN], worded)
    assert [(one.text, one.gone) for one in gone] == [("The milk stood at 47.", True), (FAN.text, False)]


def test_a_sentence_of_very_many_records_is_known_by_the_first_and_a_sum():
    refs = tuple(f"reading:{number}" for number in range(1000, 1060))
    one, other = Clause("found", "x.", refs), Clause("found", "x.", (*refs, "reading:2000"))
    assert len(one.key) <= LONGEST_KEY and one.key.startswith("found:reading:1000+") and one.key != other.key
    assert Clause("found", "x.", refs[:2]).key == "found:reading:1000+reading:1001"


@given(st.lists(st.sampled_from([BOX, FANS, FAN, LEFT]), unique=True))
def test_what_nobody_worded_stands_as_it_was_drafted(clauses):
    assert sorted(one.text for one in shown(clauses, {})) == sorted(one.text for one in clauses)
    assert not any(one.own or one.gone or one.left_out for one in shown(clauses, {}))
