"""What can be left at the end of a visit: every kind of it has answers of its own, and a promise that exists."""

from kettle.benches.prove.leaving import ANSWERS, KINDS
from kettle.benches.prove.promised import PROPOSALS


def test_every_kind_has_answers_of_the_table_and_a_promise_that_exists():
    for kind in KINDS.values():
        assert len(kind.answers) >= 2 and set(kind.answers) <= set(ANSWERS) and kind.promises.code in PROPOSALS
    assert {code for kind in KINDS.values() for code in kind.answers} == set(ANSWERS)


def test_only_two_answers_promise_to_come_again():
    assert {code for code, one in ANSWERS.items() if one.again} == {"again", "later"}
