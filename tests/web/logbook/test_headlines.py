"""What the Board keeps of a judgement is what a fresh judgement says, whatever changed; and a call is judged once for it."""

from dataclasses import replace
from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.knowledge.measures import TRADE
from web.benches.valve.actions.turn_valve import turn_valve
from web.logbook.actions.change_band import change_band
from web.logbook.actions.hand_over import close_call
from web.logbook.actions.name_cause import name_cause
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.actions.save_unit import save_unit
from web.logbook.actions.undo_entry import last_reading, undo_entry
from web.logbook.calls import headlines, told_again
from web.logbook.calls.judging import course_of, judge_call, told_of
from web.logbook.models import Call, Headline, Reading, Unit


def told(call):
    """What the Board says of a call, and what a fresh judgement says."""
    [(_, line)] = headlines.headlines([Call.objects.get(pk=call.pk)])
    course = course_of(Call.objects.get(pk=call.pk))
    return (line.leader, line.holds), (headlines.headline_of(course)[0], len(course.now.holds))


@pytest.fixture
def watched(monkeypatch):
    """How often a call was judged for the Board."""
    judged = []
    monkeypatch.setattr(headlines, "told_of", lambda call: judged.append(call.pk) or told_of(call))
    return judged


def test_a_call_is_judged_once_until_something_changes(user, call, starved, watched, at_work):
    for _ in range(3):
        assert at_work.get(reverse("board")).status_code == 200
    assert watched == [call.pk]
    record_reading(user, call, "sight_glass", "flashing")
    at_work.get(reverse("board"))
    assert watched == [call.pk, call.pk]


def changes(user, call):
    """Everything that may move a judgement, as a person would do it."""
    unit = call.unit

    def sibling_read():
        other = Unit.objects.create(
            shop=unit.shop, site=unit.site, name="Other", kind=unit.kind, refrigerant=unit.refrigerant, plant="rack"
        )
        unit.plant = "rack"
        save_unit(user, unit, unit.site.name)
        beside = open_call(user, other)
        told(call)
        record_reading(user, beside, "ice_form", "hard_ice")

    def found_at_an_earlier_visit():
        earlier = open_call(user, unit, opened_at=timezone.now() - timedelta(days=9))
        name_cause(user, earlier, ["undercharge"])
        close_call(user, earlier, "not read again")

    return {
        "reading": lambda: record_reading(user, call, "receiver_level_pct", "5"),
        "undo": lambda: undo_entry(user, last_reading(call)),
        "turn": lambda: turn_valve(user, call, judge_call(call), "out", "0.5", "lower", "to see what it does"),
        "band": lambda: change_band(user, unit, "superheat_evap_f", "20", "60", "a valve of its own"),
        "sibling": sibling_read,
        "history": found_at_an_earlier_visit,
    }


@pytest.mark.parametrize("what", ["reading", "undo", "turn", "band", "sibling", "history"])
def test_whatever_changes_the_board_says_what_a_fresh_judgement_says(user, call, starved, what):
    kept, fresh = told(call)
    assert kept == fresh
    changes(user, call)[what]()
    kept, fresh = told(call)
    assert kept == fresh


def test_a_reading_that_grows_old_is_judged_anew(user, call, starved, watched):
    told(call)
    line = Headline.objects.get(call=call)
    assert timezone.now() < line.until < timezone.now() + timedelta(minutes=31)
    Reading.objects.filter(call=call).update(at=timezone.now() - timedelta(minutes=40))
    Headline.objects.update(until=timezone.now())
    kept, fresh = told(call)
    assert kept == fresh
    assert watched == [call.pk, call.pk]


def test_another_release_judges_anew(call, starved, watched, monkeypatch):
    told(call)
    monkeypatch.setattr(headlines, "code", lambda: "another")
    told(call)
    assert watched == [call.pk, call.pk]


def test_many_units_are_found_by_their_words(user, unit, at_work):
    Unit.objects.bulk_create(
        Unit(shop=unit.shop, site=unit.site, name=f"Room {n}", kind="walk_in_cooler", refrigerant="R-134a") for n in range(60)
    )
    page = at_work.get(reverse("board")).content.decode()
    assert "21 more: find them" in page
    assert "Room 59" in at_work.get(reverse("board"), {"q": "room 59"}).content.decode()


class TestToldAgain:
    """What a page is told of a call a moment after another: the same as long as nothing changed, and never what was before."""

    @pytest.fixture(autouse=True)
    def kept(self, settings):
        settings.TOLD_KEPT_S = 60.0
        told_again.forget()
        yield
        told_again.forget()

    @staticmethod
    def again(call):
        return told_again.told_again(Call.objects.get(pk=call.pk), TRADE)

    @pytest.mark.parametrize("what", ["reading", "undo", "turn", "band", "sibling", "history"])
    def test_whatever_changes_is_told_at_once(self, user, call, starved, what):
        before = self.again(call)
        assert self.again(call) is before
        changes(user, call)[what]()
        after, fresh = self.again(call), told_of(Call.objects.get(pk=call.pk))
        assert after is not before
        assert [(one.codes, one.probability) for one in after.course(1).left] == [
            (one.codes, one.probability) for one in fresh.course(1).left
        ]

    def test_a_closed_call_is_told_as_closed(self, user, call, starved):
        before = self.again(call)
        close_call(user, call, "they would not wait")
        assert self.again(call) is not before

    def test_it_grows_old_by_itself(self, call, settings):
        before = self.again(call)
        settings.TOLD_KEPT_S = 1e-9
        assert self.again(call) is not before

    def test_other_units_are_other_words_and_few_are_kept(self, call, monkeypatch):
        before = self.again(call)
        assert told_again.told_again(call, replace(TRADE, temperature="°C")) is not before
        assert self.again(call) is before
        monkeypatch.setattr(told_again, "MOST", 1)
        told_again.told_again(call, replace(TRADE, pressure="bar"))
        assert len(told_again._kept) == 1 and self.again(call) is not before
