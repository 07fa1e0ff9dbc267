"""The write-up drafted: each kind of fact said once, with its records; words somebody chose stand, and what changed is marked."""

from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.report import draft as core
from kettle.benches.report.draft import Fact, draft, shown, words_of
from kettle.benches.report.plain import DID, WATCH_FOR, YOU_CAN, told
from kettle.knowledge import causes
from kettle.knowledge.acts import ACTS

BOX = Fact("reading:1", "reading", {"label": "Box", "word": "47.0 °F", "figure": True, "set": "38 °F"})
FANS = Fact("reading:2", "reading", {"label": "Coil fans", "word": "stopped"})
FAN = Fact("act:3", "act", {"label": "Fan replaced", "amount": "", "note": "the rear one"})
TURN = Fact("turn:4", "act", {"label": "Valve turned in", "amount": "½ turn", "coil": 2})


def setting(ref, label, found, left, why="clear after 24 min"):
    return Fact(ref, "setting", {"changes": [(label, found, left)], "why": why})


def test_sentences_in_the_order_of_work_with_their_records():
    told = draft([FAN, BOX, FANS, TURN, Fact("finding:5", "cause", {"label": "coil fan failed"})])
    assert [(one.section, one.text) for one in told] == [
        ("found", "Box found at 47.0 °F, set 38 °F."), ("found", "Coil fans: stopped."), ("found", "The cause: coil fan failed."),
        ("done", "Fan replaced (the rear one)."), ("done", "Valve turned in on coil 2, ½ turn."),
    ]  # fmt: skip
    assert told[0].refs == ("reading:1",) and told[0].key == "found:reading:1"


def test_settings_of_one_reason_are_one_sentence_and_the_same_twice_is_said_once():
    told = draft([setting("setting:1", "Defrosts", "8 a day", "4 a day"), setting("setting:2", "Fail-safe", "45 min", "30 min"),
                  setting("setting:3", "Set point", "36", "34", "too warm"), FAN, Fact("act:9", "act", dict(FAN.data))])  # fmt: skip
    assert [one.text for one in told] == [
        "Defrosts from 8 a day to 4 a day; fail-safe from 45 min to 30 min, because clear after 24 min.",
        "Set point from 36 to 34, because too warm.", "Fan replaced (the rear one).",
    ]  # fmt: skip
    assert told[0].refs == ("setting:1", "setting:2") and told[2].refs == ("act:3", "act:9")


def test_words_somebody_chose_stand_and_a_change_of_fact_is_marked_beside_them():
    clauses = draft([BOX, FANS, FAN])
    worded = {"found:reading:1": ("found", "Box found at 47.0 °F, set 38 °F.", "The milk stood at 47."),
              "found:reading:2": ("found", "Coil fans: stopped.", "")}  # fmt: skip
    stands = shown(clauses, worded)
    assert words_of(stands, "found") == "The milk stood at 47." and stands[1].left_out and not stands[0].now_says
    warmer = draft([Fact("reading:1", "reading", {**BOX.data, "word": "52.0 °F"}), FAN])
    changed = shown(warmer, worded)
    assert changed[0].text == "The milk stood at 47." and changed[0].now_says == "Box found at 52.0 °F, set 38 °F."
    gone = shown(draft([FAN]), worded)
    assert [(one.text, one.gone) for one in gone] == [("The milk stood at 47.", True), ("Fan replaced (the rear one).", False)]


def test_every_kind_that_must_be_said_has_its_words():
    assert set(core.MUST_BE_SAID) <= set(core.SAID) and {section for section, _ in core.SAID.values()} == set(core.SECTIONS)
    facts = [
        Fact("override:1", "override", {"what": "Connecting gauges", "holds": "critically charged", "reason": "no other way"}),
        Fact("proof:at_set", "proof", {"label": "box at set", "says": "36.0 °F", "proved": True}),
        Fact("proof:air", "proof", {"label": "air felt", "says": "", "proved": False}),
        Fact("placed:1", "left_there", {"words": "jumper: 2 to 4"}), Fact("act:5:left", "leak_open", {"note": "cook: weekend"}),
        Fact("followup:1", "promise", {"due": "4 March", "what": "the glass again"}),
    ]  # fmt: skip
    assert [one.text for one in draft(facts)] == [
        "Connecting gauges although advised to wait (critically charged), because no other way.", "Proved: box at set, 36.0 °F.",
        "Not proved: air felt.", "Still there: jumper: 2 to 4.", "The leak is left open on the customer's word (cook: weekend).",
        "We come back by 4 March: the glass again.",
    ]  # fmt: skip


ANY = st.sampled_from([BOX, FANS, FAN, TURN, setting("setting:1", "A", "1", "2"), setting("setting:2", "B", "1", "2")])


@given(st.lists(ANY, max_size=8))
def test_no_sentence_without_a_record_and_no_record_without_a_sentence(facts):
    told = draft(facts)
    assert {ref for one in told for ref in one.refs} == {fact.ref for fact in facts}
    assert all(one.refs and one.text.endswith(".") and one.text[0].isupper() for one in told)


def test_the_customer_is_told_of_every_act_in_plain_words_and_of_nothing_else():
    assert set(DID) == set(ACTS)
    trade = ("txv", "superheat", "subcooling", "sst", "evaporator", "contactor", "solenoid", "psig", "termination")
    assert not [words for words in DID.values() if any(word in words.lower() for word in trade)]
    assert set(YOU_CAN) | set(WATCH_FOR) <= set(causes.CATALOGUE)
    say = told(["door_infiltration", "door_infiltration"], ["coil.melted", "door.curtain_hung", "coil.melted"])
    assert say.did == ("We melted the ice off the cooling coil.", "We hung a strip curtain in the doorway.")
    assert say.wrong == (causes.get("door_infiltration").plain,) and any("strip curtain" in words for words in say.you_can)
    assert len(say.watch) == 2 and told([], []).did == () and len(told([], []).watch) == 1
