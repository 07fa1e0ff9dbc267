"""Planning on the Programs stop: tried out as it is changed, asked for, stopped, taken; a watched defrost; hours that count."""

from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.benches.defrost.program import Program
from kettle.benches.defrost.situation import UNWATCHED, WATCHED
from web.benches.defrost import planning
from web.benches.defrost.actions.keep_program import keep_program
from web.benches.defrost.actions.plan_defrosts import ask_plan, stop_plan
from web.benches.defrost.actions.watch_defrost import end_watch, mark_watch, start_watch
from web.logbook.actions.open_call import open_call
from web.logbook.calls.judging import judge_call
from web.logbook.models import DefrostPlan, DefrostWatch, LogEntry

FOUND = {"starts": "8 a day", "fail_safe_min": "45", "termination_f": "85", "drip_min": "0", "fan_delay_f": "40", "alarm_delay_min": "20"}


@pytest.fixture
def found(user, call):
    return keep_program(user, call, "found", FOUND)


def try_out(client, call, typed, **act):
    return client.post(reverse("try-program", args=[call.number]), typed | act).content.decode()


def asking(client, call, **typed):
    return client.post(reverse("ask-plan", args=[call.number]), typed, follow=True).content.decode()


def test_a_program_is_tried_out_in_the_model_and_nothing_is_stored(at_work, call, found):
    body = try_out(at_work, call, FOUND | {"starts": "4 a day", "fail_safe_min": "25", "termination_f": "55"})
    assert "frost at worst" in body and 'class="trace left"' in body and 'class="trace found"' in body
    assert "of frost at worst, box" in body and "As left: to set right" in body
    assert call.defrostprograms.count() == 1
    assert "heats on for" in try_out(at_work, call, FOUND)


def test_what_a_hand_does_on_the_dial_comes_back_in_the_fields(at_work, call, found):
    typed = FOUND | {"starts": "02:00 14:00"}
    assert 'data-starts="02:05 14:00"' in try_out(at_work, call, typed, act="nudge", place="0", by="1")
    assert 'data-starts="03:00 14:00"' in try_out(at_work, call, typed, act="nudge", place="0", by="1", whole_hours="on")
    assert 'data-fail-safe="46"' in try_out(at_work, call, typed, act="longer", place="0", by="1")
    assert 'data-starts="14:00"' in try_out(at_work, call, typed, act="remove", place="0")
    assert 'data-starts="02:00 08:00 14:00"' in try_out(at_work, call, typed, act="add")
    # From 06:00 at the right to noon at the foot is six hours.
    moved = try_out(at_work, call, typed, act="move", place="0", from_x="400", from_y="250", to_x="250", to_y="400")
    assert 'data-starts="08:00 14:00"' in moved
    assert "not in the program" in try_out(at_work, call, typed, act="remove", place="9")
    assert "could not be read off the dial" in try_out(at_work, call, typed, act="move", place="0", from_x="here")
    assert "Fail-safe" in try_out(at_work, call, typed | {"fail_safe_min": "999"})


def test_a_plan_is_worked_out_shown_and_taken_into_as_left(at_work, call, found):
    body = asking(at_work, call, whole_hours="on")
    plan = DefrostPlan.objects.get()
    assert (plan.state, plan.share, plan.asked["whole_hours"]) == ("done", 1.0, True)
    assert {choice["code"] for choice in plan.result["choices"]} == {"found", "few_long", "many_short", "as_needed", "demand"}
    assert "Few and long" in body and "less heat into the box than as found" in body and plan.result["take"] in body
    taken = at_work.get(reverse("stop", args=[call.number, "programs"]), {"take": "few_long"}).content.decode()
    few = next(choice for choice in plan.result["choices"] if choice["code"] == "few_long")
    assert "Taken from the plan" in taken and f'value="{few["values"]["fail_safe_min"]:.0f}"' in taken
    # 25 min and 3 of drip, 15 over, on fives.
    assert few["values"]["fail_safe_min"] == 25 and 'value="45">' in taken.split('id="left-alarm_delay_min"')[1][:200]
    assert "planned: few and long" in taken and call.defrostprograms.count() == 1
    assert list(LogEntry.objects.values_list("action", flat=True))[0] == "ask_plan"


def test_a_wrong_limit_is_said_and_nothing_is_asked(at_work, call, found):
    assert "must lie over the set −5 °F" in asking(at_work, call, box_limit_f="-20")
    assert "is not a number" in asking(at_work, call, box_limit_f="cold")
    assert not DefrostPlan.objects.exists()


def test_a_plan_can_be_stopped_and_one_cut_off_says_so(at_work, user, call, found, monkeypatch):
    with monkeypatch.context() as waits:
        waits.setattr(planning, "work", lambda pk: None)
        body = asking(at_work, call)
    plan = DefrostPlan.objects.get()
    assert "Stop" in body and 'value="0"' in body
    polled = at_work.get(reverse("plan", args=[call.number]), headers={"HX-Request": "true"}).content.decode()
    assert "every 400ms" in polled
    DefrostPlan.objects.update(touched_at=timezone.now() - timedelta(minutes=5))
    assert "cut off" in at_work.get(reverse("plan", args=[call.number]), headers={"HX-Request": "true"}).content.decode()
    at_work.post(reverse("stop-plan", args=[call.number, plan.pk]))
    plan.refresh_from_db()
    assert plan.state == "stopped"
    # A stopped plan is left as it is; one stopped while it is worked on ends at its next step.
    planning.work(plan.pk)
    plan.refresh_from_db()
    assert (plan.state, plan.result) == ("stopped", {})
    other = ask_plan(user, call, {})
    situation_of = planning.situation_of
    monkeypatch.setattr(planning, "situation_of", lambda *given: stop_plan(user, other) or situation_of(*given))
    planning.work(other.pk)
    other.refresh_from_db()
    assert (other.state, other.result) == ("stopped", {})


def test_a_plan_that_breaks_says_so_and_one_asked_anew_replaces_it(at_work, user, call, found, monkeypatch):
    plan = ask_plan(user, call, {})
    monkeypatch.setattr(planning, "situation_of", lambda *given: None)
    with pytest.raises(AttributeError):
        planning.work.call_local(plan.pk)
    plan.refresh_from_db()
    assert plan.state == "failed"
    assert "The plan failed" in at_work.get(reverse("stop", args=[call.number, "programs"])).content.decode()


def test_a_coil_nothing_clears_is_told_so(at_work, call, found, read_in):
    read_in(heater_rated_w="5200", heater_volts="230", heater_amps="1")
    body = asking(at_work, call)
    assert "No program wins" in body and "Put the heater right" in body and "over 4 h" in body
    assert "over 4 h" in try_out(at_work, call, FOUND)


def test_a_unit_without_defrost_cannot_be_planned(at_work, call):
    call.unit.defrost = "none"
    call.unit.save()
    assert "no defrost to plan" in asking(at_work, call)


def test_a_defrost_is_watched_from_start_to_end_and_lands_in_the_observations(at_work, user, call, found):
    at_work.post(reverse("start-watch", args=[call.number]))
    watch = DefrostWatch.objects.get()
    assert watch.expected["clear_min"][1] <= watch.expected["clear_min"][0] <= watch.expected["clear_min"][2]
    at_work.post(reverse("start-watch", args=[call.number]), follow=True)
    assert DefrostWatch.objects.get() == watch, "a second start finds the first"
    DefrostWatch.objects.update(at=timezone.now() - timedelta(minutes=17))
    at_work.post(reverse("mark-watch", args=[call.number, "clear"]))
    body = at_work.get(reverse("watch", args=[call.number])).content.decode()
    assert "17" in body and "● 17 min" in body
    figures = {"heater_rated_w": "5200", "heater_volts": "230", "heater_amps": "15.1"}
    share = at_work.post(reverse("watch-heater", args=[call.number]), figures).content.decode()
    assert "67 %" in share and "Elements are open" in share
    assert "power/?state=defrosting#heaters" in body, "element by element it is on Power"
    refused = at_work.post(reverse("end-watch", args=[call.number]), {"heater_volts": "9999"}).content.decode()
    assert "Say it" in refused and 'value="9999"' in refused and not call.readings.filter(key="defrost_ran_min").exists()
    ended = {"defrost_ended_by": "termination", "coil_after_defrost": "clear", "fans_in_defrost": "off", "drain": "running",
             "compressor_in_defrost": "off", "heater_rated_w": "5200", "heater_volts": "230", "heater_amps": "22.6"}  # fmt: skip
    at_work.post(reverse("end-watch", args=[call.number]), ended)
    call.refresh_from_db()
    facts = judge_call(call).facts
    assert facts.seen["defrost_ran_min"] == pytest.approx(17, abs=0.3)
    assert (facts.seen["defrost_ended_by"], facts.seen["drain"], facts.seen["fans_in_defrost"]) == ("termination", "running", "off")
    assert facts.derived["heater_pct"] == pytest.approx(100, abs=1)
    assert not call.defrostwatchs.filter(ended_by="").exists()


def test_a_defrost_seen_without_the_clock_is_entered(at_work, call, found):
    refused = at_work.post(reverse("enter-watch", args=[call.number]), {"clear_after": "40", "ended_after": "31"}).content.decode()
    assert "cannot be clear after its end" in refused and 'value="40"' in refused
    assert "Say it" in at_work.post(reverse("enter-watch", args=[call.number]), {"ended_after": "31"}).content.decode()
    assert "outside 1 to 240 min" in at_work.post(reverse("enter-watch", args=[call.number]), {"ended_after": "500"}).content.decode()
    assert not DefrostWatch.objects.exists() and not call.readings.filter(key="defrost_ran_min").exists()
    seen = {"clear_after": "22", "ended_after": "31", "defrost_ended_by": "termination", "coil_after_defrost": "clear"}
    at_work.post(reverse("enter-watch", args=[call.number]), seen)
    watch = DefrostWatch.objects.get()
    assert (watch.marks["clear"], watch.marks["ended"], watch.program["starts"][1]) == (22.0, 31.0, 180)


def test_watched_defrosts_of_the_unit_fit_the_plan(user, call, found):
    before = planning.situation_of(call, judge_call(call).facts)
    start = timezone.now() - timedelta(hours=1)
    watch = start_watch(user, call, planning.program_of(found), {}, at=start)
    mark_watch(user, watch, "clear", start + timedelta(minutes=22))
    end_watch(user, watch, "termination", "clear", {}, start + timedelta(minutes=31))
    after = planning.situation_of(call, judge_call(call).facts)
    assert (before.moisture_spread, after.moisture_spread, after.watched) == (UNWATCHED, WATCHED, 1)
    assert after.moisture > before.moisture


def test_a_watch_can_be_left_and_is_out_of_reach_of_others(at_work, user, stranger, call, client):
    start_watch(user, call, None, {})
    assert "nothing can be expected" in at_work.get(reverse("watch", args=[call.number])).content.decode()
    assert at_work.post(reverse("mark-watch", args=[call.number, "tea"])).status_code == 302
    at_work.post(reverse("leave-watch", args=[call.number]))
    assert DefrostWatch.objects.get().undone_at is not None
    client.force_login(stranger)
    for name in ("start-watch", "end-watch", "leave-watch", "ask-plan", "try-program", "read-controller", "write-controller"):
        assert client.post(reverse(name, args=[call.number])).status_code == 404
    assert client.get(reverse("watch", args=[call.number])).status_code == 404


def test_the_clock_asks_for_itself_and_nothing_is_worked_out_of_half_a_meter_reading(at_work, user, call, found):
    start_watch(user, call, planning.program_of(found), {"clear_min": [15, 12, 20]}, at=timezone.now() - timedelta(minutes=40))
    line = at_work.get(reverse("watch", args=[call.number]), headers={"HX-Request": "true"}).content.decode()
    assert line.lstrip().startswith("<section") and "◐ late, expected 12 to 20 min" in line
    share = at_work.post(reverse("watch-heater", args=[call.number]), {"heater_volts": "230"}).content.decode()
    assert "%" not in share


def test_only_a_choice_of_the_plan_can_be_taken_and_plans_of_others_are_out_of_reach(at_work, client, stranger, call, found):
    asking(at_work, call)
    plan = DefrostPlan.objects.get()
    assert "Taken from the plan" not in at_work.get(reverse("stop", args=[call.number, "programs"]), {"take": "tea"}).content.decode()
    client.force_login(stranger)
    assert client.get(reverse("plan", args=[call.number])).status_code == 404
    assert client.post(reverse("stop-plan", args=[call.number, plan.pk])).status_code == 404


def test_a_plan_that_waited_begins_when_its_turn_comes(user, unit, found):
    first, second = (ask_plan(user, open_call(user, unit), {}) for _ in range(2))
    assert (first.state, second.state) == ("working", "waiting")
    planning.work(second.pk)
    second.refresh_from_db()
    assert second.state == "waiting" and not planning.cut_off(second)
    assert [later.args for later in planning.queue.scheduled()] == [(second.pk,)], "it asks again"
    DefrostPlan.objects.filter(pk=first.pk).update(state="done")
    planning.work(second.pk)
    second.refresh_from_db()
    assert second.state == "done" and second.result["choices"]


def test_what_is_seen_while_it_runs_is_kept_as_it_is_seen_and_not_twice(at_work, call, found):
    at_work.post(reverse("start-watch", args=[call.number]))
    DefrostWatch.objects.update(at=timezone.now() - timedelta(minutes=17))
    at_work.post(reverse("enter", args=[call.number, "heater_amps"]), {"heater_amps": "15.1", "stop": "programs", "view": "part"})
    at_work.post(reverse("mark-watch", args=[call.number, "drip"]))
    page = at_work.get(reverse("watch", args=[call.number])).content.decode()
    assert 'value="15.1"' in page, "a mark takes nothing away"
    at_work.post(reverse("end-watch", args=[call.number]),
                 {"heater_amps": "15.1", "defrost_ended_by": "time", "coil_after_defrost": "part_iced"})  # fmt: skip
    assert call.readings.filter(key="heater_amps").count() == 1
    assert call.readings.get(key="defrost_starts").value == "yes", "one that was watched did start"


def test_one_seen_without_the_clock_ran_by_the_program_of_its_time(at_work, user, call, found):
    keep_program(user, call, "left", FOUND | {"starts": "02:00 10:00 18:00"}, why="coil clears sooner")
    at_work.post(reverse("enter-watch", args=[call.number]),
                 {"ended_after": "30", "clear_after": "22", "defrost_ended_by": "time", "coil_after_defrost": "clear"})  # fmt: skip
    kept = {entry.side: entry for entry in call.defrostprograms.all()}
    assert DefrostWatch.objects.get().program["starts"] == kept["found"].starts
    DefrostWatch.objects.all().delete()
    type(kept["left"]).objects.filter(side="left").update(at=timezone.now() - timedelta(hours=2))
    at_work.post(reverse("enter-watch", args=[call.number]),
                 {"ended_after": "30", "defrost_ended_by": "time", "coil_after_defrost": "clear"})  # fmt: skip
    assert DefrostWatch.objects.get().program["starts"] == kept["left"].starts


def test_a_watch_that_never_saw_the_coil_clear_is_told_whole(at_work, call, found):
    at_work.post(reverse("enter-watch", args=[call.number]),
                 {"ended_after": "31", "defrost_ended_by": "time", "coil_after_defrost": "part_iced"})  # fmt: skip
    assert "after 31 min" in at_work.get(reverse("report", args=[call.number])).content.decode()


def test_a_figure_of_the_program_has_one_place(at_work, call, found):
    answer = at_work.post(reverse("setting", args=[call.number]),
                          {"parameter": "fail_safe", "as_found": "20", "as_left": "30", "why": "part iced"})  # fmt: skip
    assert "change it on Programs" in answer.content.decode() and not call.settingchanges.exists()


def test_a_coil_found_iced_disproves_its_program_until_something_is_mended(at_work, user, call, found, read_in):
    read_in(ice_form="hard_ice", ice_places=["coil_whole"])
    asked = planning.situation_of(call, judge_call(call).facts)
    assert asked.disproved[0][1] == "the coil was found iced by it" and asked.fit[0].startswith("Found iced")
    assert "Leave it as it was found" not in asking(at_work, call)
    assert (
        planning.against_by_site(call, judge_call(call).facts, Program((0,), {"fail_safe_min": 1.0, "termination_f": 40.0}))
        == "the coil was found iced by it"
    )
    stop = at_work.get(reverse("stop", args=[call.number, "programs"])).content.decode()
    assert "The coil was found iced by it" in stop
    at_work.post(reverse("done", args=[call.number]), {"act": "heater.replaced"})
    assert planning.situation_of(call, judge_call(call).facts).disproved == ()
    assert planning.against_by_site(call, judge_call(call).facts, Program((0,), {"fail_safe_min": 1.0, "termination_f": 40.0})) == ""


def test_the_program_as_left_is_a_row_of_the_plan(at_work, call, found):
    at_work.post(reverse("keep-program", args=[call.number, "left"]),
                 {"starts": "3 a day", "fail_safe_min": "35", "termination_f": "55", "why": "clears in 25"})  # fmt: skip
    body = asking(at_work, call)
    assert "<b>As found</b>" in body and "<b>As left</b>" in body and 'aria-label="Take as left"' not in body


def test_a_melt_keeps_what_the_ice_said(at_work, user, call, found, read_in):
    read_in(ice_form="hard_ice", ice_places=["coil_whole"])
    before = planning.situation_of(call, judge_call(call).facts)
    read_in(ice_form="none")
    after = planning.situation_of(call, judge_call(call).facts)
    assert (after.moisture, after.disproved) == (before.moisture, before.disproved)
