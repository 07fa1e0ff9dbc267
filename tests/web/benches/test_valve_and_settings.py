from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.actions.undo_entry import undo_entry
from web.logbook.calls.judging import judge_call, settling_until, told_of
from web.logbook.calls.record import record_of
from web.logbook.models import SettingChange, Unit, ValveTurn


def turn(client, call, **data):
    return client.post(reverse("turn-valve", args=[call.number]), {"turns": "0.5", **data}, follow=True)


def test_a_turn_toward_the_goal_is_recorded_and_starts_the_clock(at_work, call, starved):
    turn(at_work, call, direction="out", goal="lower")
    recorded = ValveTurn.objects.get()
    assert (recorded.direction, recorded.turns, recorded.objections) == ("out", 0.5, [])
    assert timedelta(minutes=14) < settling_until(told_of(call)) - timezone.now() < timedelta(minutes=15)
    assert "settling" in {hold.code for hold in judge_call(call).holds}
    page = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert "15 min" in page
    assert 'hx-trigger="every 20s"' in page


def test_a_turn_against_the_goal_needs_a_reason(at_work, call, starved):
    body = turn(at_work, call, direction="in", goal="lower").content.decode()
    assert "works against the goal" in body
    assert "turn out, counter-clockwise" in body
    assert not ValveTurn.objects.exists()
    assert 'value="0.5"' in body
    turn(at_work, call, direction="in", goal="lower", reason="this valve turns the other way")
    recorded = ValveTurn.objects.get()
    assert recorded.reason == "this valve turns the other way"
    assert recorded.objections
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "this valve turns the other way" in report
    assert "works against the goal" in report


def test_a_hold_blocks_the_stem_until_a_reason_is_given(at_work, call, starved, read_in):
    read_in(bulb="loose")
    body = turn(at_work, call, direction="out", goal="lower").content.decode()
    assert "Valve stem must wait" in body
    assert not ValveTurn.objects.exists()


@pytest.mark.parametrize(
    ("data", "says"),
    [
        ({"direction": "out", "turns": "9"}, "outside 0.125 to 2 turns"),
        ({"direction": "out", "turns": "x"}, "not a number"),
        ({"direction": "up"}, "not one of in, out"),
    ],
)
def test_nonsense_is_said_beside_the_field(at_work, call, starved, data, says):
    assert says in turn(at_work, call, **data).content.decode()
    assert not ValveTurn.objects.exists()


def test_a_capillary_tube_has_no_stem(at_work, call):
    call.unit.metering = "cap_tube"
    call.unit.save()
    assert "no stem" in turn(at_work, call, direction="in").content.decode()
    assert not ValveTurn.objects.exists()


def test_readings_from_before_the_turn_keep_their_weight_and_later_ones_wait(user, at_work, call, starved):
    before = judge_call(call).ranking
    turn(at_work, call, direction="out", goal="lower")
    now = judge_call(call)
    assert now.ranking[0].codes == before[0].codes and now.ranking[0].probability == pytest.approx(before[0].probability, abs=0.02)
    assert "superheat_evap_f" not in {v.quantity for v in now.verdicts}, "what was read before the turn is past"
    page = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode()
    assert "</span>, read it again" in page and "was 9" in page, "and is shown as what it was"
    record_reading(user, call, "suction_psig", "10")
    record_reading(user, call, "suction_line_evap_f", "-14")
    assert {v.quantity: v.trust for v in judge_call(call).verdicts}["superheat_evap_f"] == "none"


def test_taking_a_turn_back_stops_the_clock(at_work, call, starved):
    turn(at_work, call, direction="out", goal="lower")
    at_work.post(reverse("take-back", args=[call.number, "turn", ValveTurn.objects.get().pk]))
    assert settling_until(told_of(call)) is None
    assert ValveTurn.objects.get().undone_at is not None
    assert at_work.post(reverse("take-back", args=[call.number, "turn", 999])).status_code == 404
    assert at_work.post(reverse("take-back", args=[call.number, "roof", 1])).status_code == 404


def test_a_setting_is_kept_as_found_and_as_left(at_work, call):
    data = {"parameter": "fail_safe", "as_found": "45", "as_left": "30", "why": "clears in 24 min"}
    at_work.post(reverse("setting", args=[call.number]), data)
    change = SettingChange.objects.get()
    assert (change.as_found, change.as_left, change.why) == ("45 min", "30 min", "clears in 24 min")
    assert "45 min" in at_work.get(reverse("unit", args=[call.unit_id])).content.decode()


def test_a_differential_is_put_on_the_plate_and_earlier_calls_keep_theirs(at_work, call, user):
    was = call.unit.resolved()
    before = open_call(user, call.unit)
    data = {"parameter": "differential", "as_found": "3", "as_left": "6", "why": "started every four minutes"}
    at_work.post(reverse("setting", args=[call.number]), data)
    # A dial that is off is set to what makes the box right: what is wanted of the box stays.
    data = {"parameter": "set_point", "as_found": "-5", "as_left": "-12", "why": "the dial is seven off"}
    at_work.post(reverse("setting", args=[call.number]), data)
    call.refresh_from_db()
    unit = Unit.objects.get(pk=call.unit_id)
    assert (unit.differential_f, unit.resolved().set_f) == (6.0, was.set_f)
    # As found it was what it was; what is judged now is what it is set to.
    record = record_of(call)
    assert (record.unit.differential_f, record.unit_now.differential_f, record.unit_now.set_f) == (was.differential_f, 6.0, was.set_f)
    before.refresh_from_db()
    assert record_of(before).unit_now.differential_f == was.differential_f
    undo_entry(user, SettingChange.objects.get(parameter="differential"))
    assert Unit.objects.get(pk=call.unit_id).differential_f == was.differential_f


def test_an_interlock_and_a_probe_role_are_settings_that_put_right_what_was_found(at_work, call, read_in):
    read_in(circuit_extra="interlock_not_wired", controller_alarm="open_control_circuit")
    assert told_of(call).left[0].codes == ("wrong_parameters",)
    at_work.post(reverse("setting", args=[call.number]),
                 {"parameter": "interlock", "as_found": "wired", "as_left": "none", "why": "none is wired"})  # fmt: skip
    told = told_of(call)
    assert "circuit_extra" not in told.now(1).facts.seen
    assert [step.did.code for step in told.call.staged.steps] == ["parameters.interlock_set"]
    assert told.left[0].probability < 0.25


def test_a_wrong_setting_names_each_field_and_keeps_what_was_typed(at_work, call):
    data = {"parameter": "fail_safe", "as_found": "", "as_left": "999", "why": "x"}
    body = at_work.post(reverse("setting", args=[call.number]), data).content.decode()
    assert "As found: write what it was" in body
    assert "As left: 999 min is outside 0 to 240 min" in body
    assert "Why: say it in 3 to 300 letters" in body
    assert 'value="999"' in body
    assert not SettingChange.objects.exists()
