"""What is left at the end of a visit: every kind of it has answers, and what they come to."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.prove import leaving
from kettle.benches.prove.leaving import ANSWERS, KINDS, Doubt
from kettle.benches.prove.promised import NOT_PROVED, PROPOSALS, QUOTE, TEMPORARY

AIR = Doubt("proof:air", "proof", "Not proved: air felt at every section")
QUOTED = Doubt("quote", "quote", "The quote waits for an answer")
GAUGE = Doubt("placed:4", "placed", "Still there: gauges")


def test_every_kind_has_answers_of_the_table_and_a_promise_that_exists():
    for kind in KINDS.values():
        assert len(kind.answers) >= 2 and set(kind.answers) <= set(ANSWERS) and kind.promises.code in PROPOSALS
    assert {code for kind in KINDS.values() for code in kind.answers} == set(ANSWERS)


def test_what_has_an_answer_of_its_own_goes_by_it_and_the_rest_by_the_reason():
    given_answers = {"quote": "later", "placed:4": "needed", "proof:air": "later"}
    # A proof cannot be answered later: that is of quotes.
    assert leaving.unanswered([AIR, QUOTED, GAUGE], given_answers) == (AIR,)
    told = leaving.reasons([AIR, QUOTED, GAUGE], given_answers, "shop shut")
    assert told == {"shop shut": (AIR,), "They answer later, I ask again": (QUOTED,), "Needed until it is put right": (GAUGE,)}
    assert leaving.promised([AIR, QUOTED, GAUGE], given_answers) == (NOT_PROVED, QUOTE)


def test_only_who_says_so_comes_back():
    assert leaving.promised([GAUGE], {"placed:4": "needed"}) == ()
    assert leaving.promised([GAUGE], {"placed:4": "again"}) == (TEMPORARY,)
    assert leaving.promised([AIR, Doubt("proof:water", "proof", "x")], {"proof:air": "no_wait"}) == (NOT_PROVED,)


DOUBTS = st.lists(st.builds(Doubt, st.text("abc:", min_size=1, max_size=4), st.sampled_from(sorted(KINDS)), st.just("x")),
                  max_size=6, unique_by=lambda one: one.key)  # fmt: skip


@given(DOUBTS, st.dictionaries(st.text("abc:", min_size=1, max_size=4), st.sampled_from([*ANSWERS, "", "nonsense"])), st.just("why"))
def test_every_doubt_has_one_reason_and_nothing_else_has(doubts, answered, rest):
    told = leaving.reasons(doubts, answered, rest)
    assert sorted(one.key for ones in told.values() for one in ones) == sorted(one.key for one in doubts)
    assert (rest in told) == bool(leaving.unanswered(doubts, answered))


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_a_doubt_takes_its_own_answers_alone(kind):
    doubt = Doubt("x", kind, "x")
    assert {code for code in ANSWERS if doubt.takes(code)} == set(KINDS[kind].answers) and not doubt.takes("")
