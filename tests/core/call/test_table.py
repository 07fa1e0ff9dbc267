"""Nothing can be forgotten: every kind answers every question, every act has its words, every observation bears on something."""

from dataclasses import fields

import pytest

from kettle.benches.prove import leaving, proofs
from kettle.call import carries, kinds
from kettle.call.kinds import KINDS, Silent
from kettle.judging.readings import READ_OFF
from kettle.knowledge import acts, causes, observations
from kettle.knowledge.observations.context import CONTEXT
from kettle.knowledge.quantities import QUANTITIES

QUESTIONS = ("hears", "says", "proves", "asks", "customer", "draws")


def test_a_kind_is_asked_all_there_is():
    assert {one.name for one in fields(kinds.Kind)} == {"code", "label", "carries", *QUESTIONS}


@pytest.mark.parametrize("code", KINDS)
@pytest.mark.parametrize("question", QUESTIONS)
def test_every_kind_answers_or_says_why_it_is_silent(code, question):
    answer = getattr(KINDS[code], question)
    if isinstance(answer, Silent):
        assert len(answer.reason) > 10 and not answer.reason.endswith(".")
    elif question in ("hears", "says", "proves"):
        assert callable(answer) and answer.__doc__
    elif question == "asks":
        assert answer.opens or answer.ends
        assert {*answer.opens, *answer.ends} <= set(leaving.KINDS)
    elif question == "customer":
        assert answer.parts and set(answer.parts) <= set(kinds.CUSTOMER)
    else:
        assert answer.on in (kinds.PICTURE, kinds.WIRING, kinds.FACE, kinds.DIAL, kinds.TIMELINE)


def test_every_kind_carries_a_model_of_its_own():
    models = [kind.carries for kind in KINDS.values()]
    assert len(set(models)) == len(models) and all(issubclass(one, carries.Carried) and one.__doc__ for one in models)


def test_what_can_be_left_is_opened_by_a_kind_and_what_opens_can_be_ended():
    opened = {code for kind in KINDS.values() if not isinstance(kind.asks, Silent) for code in kind.asks.opens}
    ended = {code for kind in KINDS.values() if not isinstance(kind.asks, Silent) for code in kind.asks.ends}
    # A box that nobody read is opened by nothing having happened.
    assert opened | {"box_not_read"} == set(leaving.KINDS) == ended


@pytest.mark.parametrize("code", acts.ACTS)
def test_every_act_has_a_sentence_a_proof_an_effect_and_a_customers_word(code):
    act = acts.ACTS[code]
    assert act.label and act.plain and not act.plain.endswith(".")
    assert act.removes or act.no_effect, "it puts something right, or says why it does not"
    assert not (act.removes and act.no_effect)
    asked = code in proofs.ASKS_NOTHING or act.part in proofs.BY_PART
    assert asked, "its part asks for proofs, or it is listed as asking for none"
    trade = ("txv", "superheat", "subcooling", "sst", "evaporator", "contactor", "solenoid", "psig", "termination")
    assert not any(word in act.plain.lower() for word in trade)


@pytest.mark.parametrize("key", observations.REGISTRY)
def test_every_observation_bears_on_a_cause_or_says_what_it_is_for(key):
    every = [effects for cause in causes.CATALOGUE.values() for effects in (cause.shows, *(shows for _, shows in cause.variants))]
    shown = {feature for effects in every for feature in effects}
    # What is told moves priors; how a box stands is worked out for every cause.
    told = {"complaint", "since_when", "last_touched", "held_warm_f"}
    needed = {need for feature in shown | told if feature in QUANTITIES for need in QUANTITIES[feature].needs}
    splits = {cause.splits[0] for cause in causes.CATALOGUE.values() if cause.splits}
    bears = key in shown | told | needed | splits or READ_OFF.get(key) in shown
    assert bears or key in CONTEXT
    assert not (bears and key in CONTEXT and key not in ("left_ice",)), "it bears on a cause: no reason is needed"


def test_every_cause_has_a_past():
    assert all(cause.was and cause.was.endswith(".") and cause.was != cause.plain for cause in causes.CATALOGUE.values())
