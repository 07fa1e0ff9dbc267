"""What was done to a part: entered where it happens, with its clock, undone, in the report and in the case file."""

import json
from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle import case
from web.benches.ice.actions.keep_ice_map import keep_ice_map
from web.logbook.actions.do_act import Held, do_act
from web.logbook.actions.import_case import import_case
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.case_files import case_text
from web.logbook.calls.courses import acts_of
from web.logbook.calls.judging import course_of, judge_call, settling_until, told_of
from web.logbook.models import Act, Call, Finding, Melt, Override, Reading, SettingChange


def fresh(call):
    return Call.objects.get(pk=call.pk)


def share(answers, code):
    return sum(one.probability for one in answers if code in one.codes)


def act(client, call, code, **typed):
    return client.post(reverse("done", args=[call.number]), {"act": code, "stop": "judge", **typed})


@pytest.fixture
def overfed(call, read_in):
    """A loose bulb, liquid at the compressor, an hour ago."""
    read_in(
        box_temp_f="0", suction_psig="26", suction_line_evap_f="-6", suction_line_comp_f="-3", discharge_psig="225", liquid_line_f="88",
        ambient_f="76", evap_fans="running", bulb="loose", compressor_shell="sweating", compressor="running",
    )  # fmt: skip
    Reading.objects.filter(call=call).update(at=timezone.now() - timedelta(hours=1))
    return call


def test_a_bulb_put_right_lifts_its_hold_starts_the_clock_and_proves_it(user, overfed, at_work, read_in):
    before = judge_call(fresh(overfed))
    assert before.ranking[0].codes == ("bulb_fault",) and "bulb_first" in {hold.code for hold in before.holds}
    assert act(at_work, overfed, "bulb.clamped").url == reverse("part", args=[overfed.number, "bulb"])
    told = course_of(fresh(overfed))
    holds = {hold.code for hold in told.now.holds}
    assert "bulb_first" not in holds and "settling" in holds and settling_until(told_of(fresh(overfed))) > timezone.now()
    assert any("read 15 min later" in text for left in told.left for text in left.to_prove)
    Act.objects.update(at=timezone.now() - timedelta(minutes=25))
    read_in(suction_psig="17", suction_line_evap_f="-12", suction_line_comp_f="4", box_temp_f="-3")
    proved = course_of(fresh(overfed))
    assert share(proved.was, "bulb_fault") > share(before.ranking, "bulb_fault")
    assert proved.left[0].codes == () and proved.left[0].probability > 0.7
    judge_page = at_work.get(reverse("stop", args=[overfed.number, "judge"])).content.decode()
    assert "As found" in judge_page and "After: bulb clamped" in judge_page and "Nothing left of it" in judge_page
    assert "up, as it should" in judge_page
    report = at_work.get(reverse("report", args=[overfed.number])).content.decode()
    assert "Bulb clamped" in report and "Nothing of it is left by what we see now." in report
    assert "nothing left of it" in at_work.get(reverse("board")).content.decode()
    plain = at_work.get(reverse("explanation", args=[overfed.number])).content.decode()
    assert "What we changed" in plain and "How it is now" in plain


def test_an_act_taken_back_was_never_done(overfed, at_work):
    act(at_work, overfed, "bulb.clamped")
    kept = Act.objects.get()
    at_work.post(reverse("take-back", args=[overfed.number, "act", kept.pk]), {"back": "bulb"})
    assert acts_of(fresh(overfed)) == [] and "bulb_first" in {hold.code for hold in judge_call(fresh(overfed)).holds}
    assert settling_until(told_of(fresh(overfed))) is None


def test_gas_waits_for_its_hold_or_a_reason(user, call, read_in, at_work):
    read_in(evap_fans="stopped", box_temp_f="12")
    page = act(at_work, call, "charge.added", amount="24").content.decode()
    assert "waits" in page and "Reason; it goes into the report" in page and not Act.objects.exists()
    with pytest.raises(Held):
        do_act(user, fresh(call), judge_call(fresh(call)), "charge.added", "24")
    act(at_work, call, "charge.added", amount="1 lb 8 oz", reason="fans wait for gas")
    assert Act.objects.get().value == 24.0 and Override.objects.get().reason == "fans wait for gas"


@pytest.mark.parametrize(
    ("code", "typed", "words"),
    [
        ("charge.recovered", {}, "say how much"),
        ("charge.recovered", {"amount": "none"}, "is not a number"),
        ("charge.recovered", {"amount": "99999"}, "outside 0 to 4000"),
        ("bulb.sung_to", {}, "cannot be done to bulb"),
        ("cap_tube.replaced", {}, "not known"),
        ("bulb.clamped", {"note": "x" * 301}, "at most 300"),
    ],
)
def test_what_is_wrong_with_an_act_is_said_and_nothing_kept(call, at_work, code, typed, words):
    response = act(at_work, call, code, **typed)
    body = response.content.decode() if response.status_code == 200 else at_work.get(response.url).content.decode()
    assert words in body or "not built so" in body and not Act.objects.exists()


def test_acts_are_the_shops_own_and_of_open_calls(client, stranger, call, user, at_work):
    client.force_login(stranger)
    assert act(client, call, "bulb.clamped").status_code == 404
    client.force_login(user)
    Call.objects.update(closed_at=timezone.now())
    act(client, call, "bulb.clamped")
    assert not Act.objects.exists()


def test_a_reading_from_inside_the_clock_never_counts_as_settled(user, overfed):
    do_act(user, overfed, judge_call(fresh(overfed)), "bulb.clamped", at=timezone.now() - timedelta(minutes=20))
    record_reading(user, overfed, "suction_psig", "17", at=timezone.now() - timedelta(minutes=14))
    record_reading(user, overfed, "suction_line_evap_f", "-12", at=timezone.now() - timedelta(minutes=14))
    assert "superheat_evap_f" not in judge_call(fresh(overfed)).facts.derived
    record_reading(user, overfed, "suction_psig", "17")
    record_reading(user, overfed, "suction_line_evap_f", "-12")
    assert "superheat_evap_f" in judge_call(fresh(overfed)).facts.derived


def test_settings_are_acts_and_observations_and_leave_both_when_taken_back(user, call, at_work):
    at_work.post(reverse("setting", args=[call.number]),
                 {"parameter": "fail_safe", "as_found": "20", "as_left": "35", "why": "coil not clear"})  # fmt: skip
    told = [(r.key, r.value) for r in Reading.objects.filter(undone_at=None)]
    assert told == [("defrost_set_min", 20.0), ("defrost_set_min", 35.0)]
    assert [(step.part, step.did) for step in acts_of(fresh(call))] == [("timer", "set")]
    assert judge_call(fresh(call)).facts.seen["defrost_set_min"] == 35.0
    at_work.post(reverse("take-back", args=[call.number, "setting", SettingChange.objects.get().pk]))
    assert not Reading.objects.filter(undone_at=None).exists() and acts_of(fresh(call)) == []


def test_a_case_file_carries_the_course_out_and_in(user, overfed, at_work, read_in):
    do_act(user, overfed, judge_call(fresh(overfed)), "bulb.clamped", at=timezone.now() - timedelta(minutes=30))
    read_in(suction_psig="17", suction_line_evap_f="-12")
    written = case_text(fresh(overfed))
    assert [row["did"] for row in json.loads(written)["events"] if row["kind"] == "act"] == ["clamped"]
    back = import_case(user, written)
    one, other = course_of(fresh(overfed)), course_of(fresh(back))
    assert [step.part for step in acts_of(fresh(back))] == ["bulb"]
    assert share(other.was, "bulb_fault") == pytest.approx(share(one.was, "bulb_fault"), abs=0.02)


def test_a_case_file_without_times_keeps_its_stages(user):
    body = {
        "format": case.FORMAT, "version": 1, "unit": {"kind": "walk_in_freezer", "refrigerant": "R-404A"},
        "acts": [{"part": "drain", "did": "thawed"}, {"part": "drain_heater", "did": "replaced"}],
        "observations": [{"key": "drain", "value": "frozen"}, {"key": "drain", "value": "running", "stage": 1},
                         {"key": "drain_heater", "value": "warm", "stage": 2}],
    }  # fmt: skip
    call = import_case(user, json.dumps(body))
    assert told_of(call).call.staged.stages() == ({"drain": "frozen"}, {"drain": "running"}, {"drain_heater": "warm"})
    assert course_of(call).done[1].did == "replaced"


def test_several_findings_stand_side_by_side(call, at_work, read_in):
    read_in(evap_fans="stopped", drain="blocked")
    for code in ("evap_fan_failed", "drain_blocked"):
        at_work.post(reverse("found", args=[call.number]), {"causes": code})
    page = at_work.get(reverse("stop", args=[call.number, "judge"])).content.decode()
    assert "Found: Coil fan failed" in page and "Found: Drain blocked or frozen" in page and Finding.objects.count() == 2


def test_why_not_speaks_of_the_whole_course(user, overfed, at_work):
    do_act(user, overfed, judge_call(fresh(overfed)), "bulb.clamped")
    page = at_work.get(reverse("stop", args=[overfed.number, "judge"]) + "?why=txv_overfeeding").content.decode()
    assert "Compressor shell: sweating" in page.split('id="why-not"')[1]


def close(client, call, **typed):
    client.post(reverse("close", args=[call.number]), typed)
    return Call.objects.get(pk=call.pk)


def test_a_call_does_not_close_over_what_was_done_for_now_without_a_word(user, call, at_work):
    do_act(user, call, judge_call(call), "condenser.blocked_on_purpose")
    page = at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    assert "The condenser is still blocked on purpose" in page
    assert close(at_work, call).is_open and close(at_work, call, reason="x").is_open
    closed = close(at_work, call, reason="cold night, back at seven")
    assert not closed.is_open and "The condenser is still blocked on purpose" in Override.objects.get().texts
    assert "closing the call" in at_work.get(reverse("report", args=[call.number])).content.decode()


def test_what_was_taken_away_again_is_no_doubt(user, call, at_work):
    for code in ("condenser.blocked_on_purpose", "condenser.unblocked"):
        do_act(user, fresh(call), judge_call(fresh(call)), code)
    page = at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    assert "still blocked on purpose" not in page and "The box was not read with an own thermometer" in page


def test_a_call_does_not_close_over_drawn_ice_without_a_word(user, call, at_work):
    keep_ice_map(user, call, "before", ["iiiiiiiiii"] * 5, {})
    assert close(at_work, call).is_open
    assert "Ice is left on the coil" in at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    assert not close(at_work, call, reason="they stop it tonight").is_open


def test_after_a_melt_the_old_ice_is_not_painted_again(user, call, at_work):
    keep_ice_map(user, call, "before", ["iiiiiiiiii"] * 5, {})
    assert 'data-ice="' in at_work.get(reverse("stop", args=[call.number, "arrive"]) + "?part=coil").content.decode()
    Melt.objects.create(call=call, by=user, method="warm_water", ended_at=timezone.now(), clear=True)
    body = at_work.get(reverse("stop", args=[call.number, "arrive"]) + "?part=coil").content.decode()
    assert 'data-ice="' not in body and "The ice as it was found" in body


def test_the_painter_of_a_second_coil_keeps_its_coil(call, at_work):
    call.unit.evaporators = 2
    call.unit.save()
    body = at_work.get(reverse("stop", args=[call.number, "arrive"]) + "?part=coil").content.decode()
    assert body.count('hx-vals=\'{"coil": "2"}\'') == 1
    answer = at_work.post(reverse("ice", args=[call.number]), {"stage": "before", "coil": "2", "rows": "/".join(["i" * 10] * 5)},
                          headers={"HX-Request": "true"}).content.decode()  # fmt: skip
    assert 'id="ice-reading-before-2"' in answer


def test_turns_and_findings_belong_to_their_coil(user, call, at_work, read_in):
    call.unit.evaporators = 2
    call.unit.save()
    read_in(drain="blocked")
    at_work.post(reverse("found", args=[call.number]), {"causes": "bulb_fault", "coil": "2"})
    assert Finding.objects.get().evaporator == 2
    act(at_work, call, "bulb.clamped", coil="2")
    assert Act.objects.get().evaporator == 2
    one, other = course_of(fresh(call), coil=1), course_of(fresh(call), coil=2)
    assert "bulb" not in one.now.facts.seen and other.now.facts.seen["bulb"] == "tight_insulated"
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "Coil by coil" in report and "Bulb loose or misplaced, coil 2" in report
