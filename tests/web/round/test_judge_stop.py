"""The Judge stop: suspects, what if, why not, what is held and taken on, what was found, schools, siblings' own data."""

import pytest
from django.urls import reverse

from tests.web.round.test_read import enter
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.headlines import headline_of
from web.logbook.calls.judging import judge_call
from web.logbook.calls.record import found_before
from web.logbook.models import Finding, LogEntry, Override, Reading, Unit
from web.round.standing import Standing


def judge_page(client, call, **asked):
    return client.get(reverse("stop", args=[call.number, "judge"]), asked).content.decode()


def test_suspects_evidence_and_what_tells_them_apart(at_work, call, starved):
    body = judge_page(at_work, call)
    for text in ("Valve feeding too little", "speaks for it", "To confirm", "Taken for", "the glass: clear here", "Checks that would"):
        assert text in body, text


ODD = {"ice_form": "snow", "coil_after_defrost": "clear", "drain": "frozen", "drain_pan": "dry", "condenser_fans": "reversed",
       "valve_sound": "silent", "sight_glass": "clear", "compressor_shell": "frosted", "crankcase_heater": "cold",
       "defrost_starts": "never", "defrost_ended_by": "termination", "oil_trace": "at_valve_stem", "compressor": "running",
       "box_trend": "rising",
       "high_pressure_switch": "open"}  # fmt: skip


def test_what_fits_none_of_the_known_causes_is_said_and_what_to_write_down(at_work, call, read_in):
    assert "something-else" not in judge_page(at_work, call)
    read_in(**ODD)
    card = judge_page(at_work, call).split('id="something-else"')[1].split("</section>")[0]
    percent = Standing(call).something_else_percent
    assert percent == "98"
    assert f"{percent} %" in card and "write down what does not fit" in card and "on a guess" in card
    assert all(text in card for text in judge_call(call).does_not_fit)
    assert Standing(call).headline == f"None of the known causes fits {percent} %"
    assert headline_of(Standing(call).course) == ("None of the known causes fits", judge_call(call).something_else)
    aside = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode().split('id="standing"')[1]
    assert f"{percent} % none of the known causes" in aside


def test_what_was_seen_is_put_right_first_with_its_act_and_others_beside_it(at_work, call, read_in):
    read_in(box_temp_f="12", ambient_f="80", compressor="running", condenser_coil="blocked", door="gasket_gap", evap_fans="running",
            suction_psig="9", suction_line_evap_f="-6", sight_glass="flashing", receiver_level_pct="4", ice_form="none")  # fmt: skip
    due = judge_page(at_work, call).split('id="due"')[1].split("<article")[0]
    assert "Seen: put right" in due and "Condenser dirty" in due and "Door does not seal" in due and "Charge low" not in due
    assert 'value="condenser.cleaned"' in due and 'value="door.gasket_replaced"' in due
    assert "Lock out and prove dead" in due, "the caution stands where the hands are"
    body = judge_page(at_work, call)
    assert {"Condenser dirty", "Door does not seal", "Charge low, a leak"} == set(judge_call(call).ranking[0].label.split(" + "))
    assert "Condenser dirty: seen." in body and "Charge low, a leak: by what was read." in body
    name = judge_call(call).ranking[0].name
    assert len(name.split("+")) == 3
    at_work.post(reverse("found", args=[call.number]), {"causes": name})
    assert sorted(Finding.objects.get().causes) == ["condenser_dirty", "door_seal", "undercharge"]
    aside = at_work.get(reverse("stop", args=[call.number, "read"])).content.decode().split('id="standing"')[1]
    assert "Seen: put right" in aside and "How, and what was done" in aside


def test_more_causes_than_can_be_are_not_named(at_work, call):
    six = "+".join(["undercharge", "door_seal", "condenser_dirty", "drain_blocked", "bulb_fault", "hot_stock"])
    body = at_work.post(reverse("found", args=[call.number]), {"causes": six}, follow=True).content.decode()
    assert "name one to 5" in body and not Finding.objects.exists()


def test_what_if_is_tried_without_storing(at_work, call, starved):
    count = Reading.objects.count()
    body = judge_page(at_work, call, what_if="drier_drop_f", value="14")
    then = body.split('id="then"')[1]
    assert "If Drop over drier 14.0 °F" in then
    assert then.index("Liquid line restricted") > 0
    assert Reading.objects.count() == count
    assert "is outside" in judge_page(at_work, call, what_if="drier_drop_f", value="900")
    assert "not known" in judge_page(at_work, call, what_if="nothing", value="1")
    assert "Would wait:" in judge_page(at_work, call, what_if="evap_fans", value="stopped")


def test_why_not_shows_the_evidence_of_any_cause(at_work, call, starved):
    body = judge_page(at_work, call, why="overcharge").split('id="why-not"')[1]
    assert "Too much charge" in body and "expected high" in body
    assert "nearest known" in judge_page(at_work, call, why="too_much")


@pytest.fixture
def iced(read_in):
    read_in(ice_form="hard_ice", box_temp_f="8")


def test_a_held_gauge_is_refused_until_it_is_taken_on_with_a_reason(at_work, user, call, iced):
    refused = enter(at_work, call, "suction_psig", "8.6").content.decode()
    assert "waits. An iced coil tells nothing" in refused and 'value="8.6"' in refused
    assert not Reading.objects.filter(key="suction_psig").exists()
    answer = at_work.post(reverse("override", args=[call.number]), {"action": "gauges", "reason": " "}, follow=True)
    assert "Reason: say it in" in answer.content.decode()
    at_work.post(reverse("override", args=[call.number]), {"action": "gauges", "reason": "hoses are on already"})
    taken = Override.objects.get()
    assert (taken.by, taken.holds, taken.reason) == (user, ["iced_coil"], "hoses are on already")
    enter(at_work, call, "suction_psig", "8.6")
    assert Reading.objects.filter(key="suction_psig").count() == 1
    assert "hoses are on already" in judge_page(at_work, call)
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "connecting gauges, although: An iced coil tells nothing" in report and "hoses are on already" in report
    at_work.post(reverse("take-back", args=[call.number, "override", taken.pk]))
    assert "waits." in enter(at_work, call, "discharge_psig", "200").content.decode()


def test_ohms_wait_for_the_lock_out(at_work, call, read_in):
    read_in(compressor="humming")
    assert "power locked out" in enter(at_work, call, "winding_ground_ohm", "400", stop="judge").content.decode()
    read_in(power_locked_out="yes")
    enter(at_work, call, "winding_ground_ohm", "400", stop="judge")
    assert {hold.code for hold in judge_call(call).holds} >= {"grounded_compressor"}
    assert "never switch it on again" in judge_page(at_work, call)


def test_what_nothing_holds_needs_no_taking_on(at_work, call, starved):
    answer = at_work.post(reverse("override", args=[call.number]), {"action": "gauges", "reason": "because"}, follow=True)
    assert "Nothing holds that any more" in answer.content.decode()
    assert not Override.objects.exists()


def test_a_cause_found_counts_at_the_next_visit_and_stands_in_the_report(at_work, user, unit, call, starved):
    at_work.post(reverse("found", args=[call.number]), {"causes": "txv_underfeeding"})
    assert Finding.objects.get().causes == ["txv_underfeeding"]
    assert "Found: Valve feeding too little" in at_work.get(reverse("report", args=[call.number])).content.decode()
    plain = at_work.get(reverse("explanation", args=[call.number])).content.decode()
    assert "The valve that feeds the coil lets too little refrigerant through." in plain
    following = open_call(user, unit)
    assert found_before(following) == ["txv_underfeeding"]
    assert found_before(call) == []
    answer = at_work.post(reverse("found", args=[call.number]), {"causes": "ghosts"}, follow=True).content.decode()
    assert "is not known" in answer
    assert LogEntry.objects.filter(action="name_cause").count() == 1


def test_schools_change_words_and_order_and_no_figure(at_work, user, call, starved):
    before = [(s.codes, s.probability) for s in judge_call(call).ranking]
    assert "A good valve never needs adjusting" in judge_page(at_work, call)
    at_work.post(reverse("schools"), {"valve": "tune", "work": "quote"})
    body = judge_page(at_work, call)
    assert "bring superheat to target" in body and "Quote it and have it approved" in body
    assert "A good valve never needs adjusting" not in body
    assert [(s.codes, s.probability) for s in judge_call(call).ranking] == before
    answer = at_work.post(reverse("schools"), {"valve": "never", "work": "quote"}, follow=True).content.decode()
    assert "choose one of the list" in answer


def test_siblings_speak_by_their_own_calls(user, unit, call, starved):
    unit.plant = "the rack"
    unit.save()
    other = Unit.objects.create(
        shop=unit.shop, site=unit.site, name="Freezer 8", kind=unit.kind, refrigerant="R-404A", set_f=-5, plant="the rack"
    )
    call.refresh_from_db()
    assert "siblings" not in judge_call(call).facts.seen
    theirs = open_call(user, other)
    for key, value in (("box_temp_f", "-4"), ("suction_psig", "17.5"), ("suction_line_evap_f", "-8")):
        record_reading(user, theirs, key, value)
    call.unit.refresh_from_db()
    assert judge_call(type(call).objects.get(pk=call.pk)).facts.seen["siblings"] == "all_ok"
    record_reading(user, theirs, "evap_fans", "stopped")
    assert judge_call(type(call).objects.get(pk=call.pk)).facts.seen["siblings"] == "also_bad"


def test_judging_another_shops_call_is_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    for name in ("override", "found"):
        assert client.post(reverse(name, args=[call.number])).status_code == 404
    assert client.get(reverse("explanation", args=[call.number])).status_code == 404
