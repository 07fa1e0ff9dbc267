"""Controls set by computation: drawn, worked out, kept as found and as left, cycles watched, and what cannot be said beside its field."""

from collections import deque
from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.benches.probes.hearing import Hearing
from tests.examples import some_of
from web.benches.controls.actions.watch_cycles import tap
from web.logbook.actions.hand_over import doubts
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import judge_call
from web.logbook.models import ControllerTalk, Device, SettingChange, SwitchMoment


@pytest.fixture(autouse=True)
def by_pressure(unit):
    unit.kind, unit.refrigerant, unit.box_control, unit.set_f, unit.differential_f = (
        "bottle_cooler",
        "R-404A",
        "suction_pressure",
        36.0,
        4.0,
    )
    unit.metering, unit.defrost, unit.altitude_ft, unit.phases = "", "", 0.0, 1
    unit.save()


def page(client, call, **query):
    return client.get(reverse("controls", args=[call.number]), query).content.decode()


def test_the_switch_is_proposed_drawn_and_foretold(at_work, call):
    body = page(at_work, call, warmest_f="38", coldest_f="34", td_f="20")
    assert "Proposed: cut-in 82, cut-out 47.8" in body and 'data-end="cut_in"' in body
    assert "A hot day, 100 °F outside" in body and "By the model of a sound unit" in body
    assert "stands as warm, and R-404A at 82 psig" in body


@pytest.mark.parametrize(("query", "says"), [
    ({"cut_in": "40", "cut_out": "48"}, "it can never run"), ({"cut_in": "60", "cut_out": "20"}, "never lets the coil thaw"),
    ({"cut_in": "900"}, "Cut-in: 900"), ({"warmest_f": "hot"}, "Warmest air: “hot”"), ({"coldest_f": "60"}, "not below the warmest"),
    ({"swing_in": "40", "swing_out": "44", "dial": "36"}, "is not above the cut-out"),
    ({"sensor_ohm": "3", "really": "32"}, "open, shorted"),
    ({"use": "pump_down", "cut_in": "10", "cut_out": "-3"}, "air is drawn in"),
])  # fmt: skip
def test_what_cannot_be_is_said_and_stays_in_its_field(at_work, call, query, says):
    body = page(at_work, call, **query)
    assert says in body
    if "cut_in" in query and query["cut_in"] != "900":
        assert f'value="{query["cut_in"]}"' in body


@pytest.mark.parametrize(("place", "value"), list(enumerate(["-500", "1e30", "nan", "999", "-59", "144", "٣", "0"])))
def test_no_figure_breaks_the_page(at_work, call, place, value):
    names = ("warmest_f", "coldest_f", "td_f", "cut_in", "cut_out", "coldest_met_f", "swing_in", "swing_out", "dial", "wanted",
             "sensor_ohm", "really", "before", "after", "coil_f", "held_f", "hp_out", "fan_1_in", "fan_1_out")  # fmt: skip
    for name in some_of(names, 3, place):
        page(at_work, call, **{name: value})
    for use in ("thermostat", "pump_down"):
        assert "Low-pressure switch" in page(at_work, call, use=use, regulator="evaporator", **dict.fromkeys(names, value))


def test_the_sums_beside_it(at_work, call):
    assert "8.0 °F above its dial" in page(at_work, call, swing_in="44", swing_out="40", dial="34", wanted="36")
    assert "good" in page(at_work, call, curve="pt1000", sensor_ohm="1001", really="32").split('id="sensor"')[1][:600]
    assert "shut too far" in page(at_work, call, regulator="crankcase", before="60", after="5")
    assert "are left to the cut-out" in page(at_work, call, hp_out="330")
    assert "On a hot roof: from 100 °F" in page(at_work, call, hp_out="265")


def test_both_ends_are_kept_together_or_not_at_all(at_work, call):
    typed = {"found_in": "60", "found_out": "20", "cut_in": "82", "cut_out": "48", "why": "froze bottles"}
    refused = at_work.post(reverse("keep-switch", args=[call.number]), typed | {"found_out": ""}, follow=True).content.decode()
    assert "write what it was" in refused and not SettingChange.objects.exists()
    at_work.post(reverse("keep-switch", args=[call.number]), typed)
    assert [(one.parameter, one.as_left) for one in SettingChange.objects.all()] == [("lp_cut_in", "82 psig"), ("lp_cut_out", "48 psig")]
    assert judge_call(call).facts.number("lp_cut_in_psig") == 82.0
    card = at_work.get(reverse("settings-card", args=[call.unit_id])).content.decode()
    assert "38 °F" in card and "froze bottles" in card and "60 psig" in card


def test_after_it_was_kept_the_switch_still_shows_what_it_was_found_at(at_work, call):
    typed = {"found_in": "60", "found_out": "20", "cut_in": "82", "cut_out": "48", "why": "froze bottles"}
    at_work.post(reverse("keep-switch", args=[call.number]), typed)
    body = page(at_work, call)
    assert 'name="found_in"' in body and all(f'value="{figure}"' in body for figure in ("60", "20", "82", "48"))
    at_work.post(reverse("keep-switch", args=[call.number]), typed | {"found_in": "82", "found_out": "48", "cut_in": "84", "cut_out": "46"})
    body = page(at_work, call)
    # A second step does not make what the first one left the state as found.
    assert 'value="60"' in body and 'value="84"' in body and 'value="82"' not in body


def test_cycles_are_tapped_and_after_two_it_says_what_to_move(at_work, call, user):
    assert "before anything is moved" not in page(at_work, call)
    begun = timezone.now() - timedelta(hours=2)
    for minutes, what, box in ((0, "start", "38"), (12, "stop", "30"), (30, "start", "38.4"), (43, "stop", "29.5"), (61, "start", "38.2")):
        tap(user, call, what, {"box_f": box}, at=begun + timedelta(minutes=minutes))
    body = page(at_work, call, warmest_f="38", coldest_f="34", td_f="20")
    assert "It stops at 29.5 °F, 34.0 °F is wanted: cut-out up by" in body and "12 min" in body and "18 min" in body
    twice = at_work.post(reverse("tap-cycle", args=[call.number, "start"]), {}, follow=True).content.decode()
    assert "was a start too" in twice and SwitchMoment.objects.count() == 5
    wrong = at_work.post(reverse("tap-cycle", args=[call.number, "stop"]), {"box_f": "900"}, follow=True).content.decode()
    assert "Box: 900" in wrong and SwitchMoment.objects.count() == 5
    at_work.post(reverse("undo-cycle", args=[call.number, SwitchMoment.objects.last().pk]))
    assert SwitchMoment.objects.filter(undone_at=None).count() == 4


def test_a_set_control_is_left_only_after_two_cycles_or_with_a_reason(at_work, call, user):
    typed = {"found_in": "60", "found_out": "20", "cut_in": "82", "cut_out": "48", "why": "froze bottles"}
    at_work.post(reverse("keep-switch", args=[call.number]), typed)
    assert "Not proved: cycles inside their limits" in at_work.post(reverse("close", args=[call.number]), {}, follow=True).content.decode()
    for minutes, what in ((1, "start"), (5, "stop"), (9, "start"), (14, "stop"), (19, "start")):
        tap(user, call, what, {}, at=timezone.now() + timedelta(minutes=minutes))
    at_work.post(reverse("close", args=[call.number]))
    assert call.follow_ups.count() == 0
    record_reading(user, call, "box_temp_f", call.unit.resolved().set_f, at=timezone.now() + timedelta(minutes=20))
    at_work.post(reverse("close", args=[call.number]))
    call.refresh_from_db()
    assert not call.is_open and call.outcome.done == ["pressure_control.adjusted"]


def test_alarms_that_settings_bring_up_are_told(at_work, call):
    assert "every defrost alarms" not in page(at_work, call)
    for code, left in (("alarm_delay", "20"), ("fail_safe", "30")):
        at_work.post(reverse("setting", args=[call.number]), {"parameter": code, "as_found": left, "as_left": left, "why": "as it was"})
    assert "every defrost alarms" in page(at_work, call)


def test_a_pump_down_switch_is_shown_over_the_years_days_of_its_site(at_work, call, unit):
    assert "In winter" not in page(at_work, call, use="pump_down", cut_in="30", cut_out="5")
    refused = at_work.post(reverse("keep-days", args=[call.number]), {"site_coldest_f": "-20", "site_hottest_f": "-15"}).content.decode()
    assert "Hottest day: −15.0 °F" in refused and 'value="-15"' in refused
    at_work.post(reverse("keep-days", args=[call.number]), {"site_coldest_f": "-20", "site_hottest_f": "100"})
    body = page(at_work, call, use="pump_down", cut_in="30", cut_out="5", coldest_met_f="20")
    assert "stays off" in body and "20 °F outside" in body and "● starts" in body
    assert "In winter: where the low side is below" in body and "this site sees −20 °F" in body


def test_a_turn_of_a_regulator_is_recorded_and_its_clock_runs(at_work, call, unit):
    unit.kind, unit.box_control, unit.metering = "walk_in_cooler", "thermostat", "txv"
    unit.save()
    body = page(at_work, call, regulator="evaporator", coil_f="24", before="90", after="40")
    assert "shut too far" in body and 'value="regulator.opened"' in body
    at_work.post(reverse("done", args=[call.number]), {"act": "regulator.opened", "amount": "1"})
    assert call.acts.filter(part="regulator", did="opened").exists()


def hear(client, call):
    return client.post(reverse("hear-cycles", args=[call.number]), {"warmest_f": "38", "coldest_f": "34"}).content.decode()


@pytest.fixture
def heard(call, unit, user, monkeypatch):
    """Probes that heard four cycles of suction since the call was opened: the hearing of the core behind a link of its own."""
    began = timezone.now() - timedelta(hours=3)
    call.opened_at = began
    call.save()
    hearing, at = Hearing(), 0.0
    for level, minutes in ((82.0, 5), *((48.0, 12), (82.0, 20)) * 3, (48.0, 6)):
        for step in range(minutes * 10):
            at += 6.0
            value = level + (0.2 if step % 2 else -0.2)
            for key, figure in (("suction_psig", value), ("return_air_f", 36.0)):
                hearing.past.setdefault(key, deque()).append((began + timedelta(seconds=at), figure))
    unit.probes = Device.objects.create(shop=unit.shop, kind="probes", name="Van set", address="127.0.0.1:1", simulated=True)
    unit.save()
    monkeypatch.setattr("web.benches.controls.views.cycles.probes.link", lambda device: hearing)
    return hearing


def test_cycles_are_taken_by_themselves_from_probes_once(at_work, call, heard):
    assert "Take them from Van set" in page(at_work, call) and not SwitchMoment.objects.exists()
    body = hear(at_work, call)
    kept = list(SwitchMoment.objects.values_list("what", "box_f", "source"))
    assert [what for what, _, _ in kept[:4]] == ["start", "stop", "start", "stop"] and len(kept) >= 6
    assert kept[1][1:] == (36.0, "probes, simulated") and "by the probes, simulated" in body
    assert "It starts at 36.0 °F, 38.0 °F is wanted" in body
    hear(at_work, call)
    assert SwitchMoment.objects.count() == len(kept)
    # One taken back is not told again.
    at_work.post(reverse("undo-cycle", args=[call.number, SwitchMoment.objects.last().pk]))
    hear(at_work, call)
    assert SwitchMoment.objects.filter(undone_at=None).count() == len(kept) - 1
    assert "Starts and stops are taken by themselves" in page(at_work, call)


def test_a_closed_call_hears_nothing_more(at_work, call, heard):
    call.closed_at = timezone.now()
    call.save()
    assert "taken by themselves" not in hear(at_work, call) and not SwitchMoment.objects.exists()


def test_a_controller_tells_its_state_and_its_alarms(at_work, call, stand_in):
    hear(at_work, call)
    assert SwitchMoment.objects.count() <= 1
    # It may have been in its state since before the call; a second look tells nothing twice.
    call.opened_at = timezone.now() - timedelta(hours=12)
    call.save()
    hear(at_work, call)
    hear(at_work, call)
    assert [one.source for one in SwitchMoment.objects.all()] == ["controller"]
    assert "No alarm stands" in at_work.get(reverse("controller-alarms", args=[call.number])).content.decode()
    stand_in.controller.settings["probe_2"] = 0.0
    assert "Stands now: Coil sensor" in at_work.get(reverse("controller-alarms", args=[call.number])).content.decode()


def test_an_alarm_is_translated_and_unknown_words_are_said(at_work, call):
    assert "Coil sensor" in page(at_work, call, shows="P2").split("What is it?")[1].split("<details")[0]
    assert "Not known here" in page(at_work, call, shows="zz")


def test_what_came_back_otherwise_is_not_confirmed_until_it_is(call, user):
    def talk(minutes, wrote, settings):
        ControllerTalk.objects.create(call=call, by=user, wrote=wrote, settings=settings, at=timezone.now() + timedelta(minutes=minutes))

    def unconfirmed():
        return [one.of for one in doubts(call) if one.code == "unconfirmed"]

    talk(1, {"start_1": 150.0}, {"start_1": 120.0, "drip_min": 3.0})
    assert unconfirmed() == ["start_1"] and any("Not confirmed: start 1" in one.text for one in doubts(call))
    talk(2, {"start_1": 120.0}, {"start_1": 120.0, "drip_min": 3.0})
    assert unconfirmed() == []
    talk(3, {"drip_min": 5.0}, {})
    assert unconfirmed() == ["drip_min"]


def test_probes_told_apart_by_warming_are_kept(at_work, call):
    typed = {"warmed": "box", "was_box": "36", "now_box": "36.5", "was_coil": "20", "now_coil": "55"}
    assert "they are exchanged" in page(at_work, call, **typed)
    assert "at least one display" in page(at_work, call, was_box="36", now_coil="50")
    at_work.post(reverse("probe-exchanged", args=[call.number]))
    assert "probe_wrong_role" in str(judge_call(call).facts.seen.get("circuit_extra"))


def test_a_thermostat_in_another_air_and_its_starts_by_the_model(at_work, call, unit):
    unit.box_control = "thermostat"
    unit.save()
    body = page(at_work, call, swing_in="38", swing_out="34", dial="36", wanted="36", swing_box="42")
    assert "colder air than the box" in body and "A hot day, 100 °F at the condenser" in body and "starts an hour" in body


def test_working_one_sum_out_loses_nothing_typed_in_another(at_work, call):
    body = page(at_work, call, swing_in="38", cut_in="70", shows="P2")
    swing_form = body.split('action="#swing"')[1].split("</form>")[0]
    assert 'name="cut_in" value="70"' in swing_form and 'name="shows" value="P2"' in swing_form
    assert swing_form.count('name="swing_in"') == 1


def test_what_is_wanted_holds_for_the_whole_visit(at_work, call, user):
    page(at_work, call, warmest_f="41", coldest_f="35")
    begun = timezone.now() - timedelta(hours=1)
    for minutes, what, box in ((0, "start", "40.8"), (12, "stop", "35.2"), (30, "start", "41")):
        tap(user, call, what, {"box_f": box}, at=begun + timedelta(minutes=minutes))
    body = page(at_work, call)
    assert 'value="41"' in body and 'value="35"' in body
    assert 'value="38"' in page(at_work, call, warmest_f="38") and 'value="38"' in page(at_work, call)


def test_a_run_that_stops_before_the_box_is_cold_is_told(at_work, call, unit):
    unit.refrigerant = "R-134a"
    unit.save()
    assert "stops before the box is cold" in page(at_work, call, cut_in="36", cut_out="24")
    assert "stops before the box is cold" not in page(at_work, call, cut_in="36", cut_out="13")


def test_what_is_refused_in_keeping_stays_typed_beside_its_field(at_work, call):
    typed = {"found_in": "60", "found_out": "", "cut_in": "82", "cut_out": "48", "why": "x"}
    body = at_work.post(reverse("keep-switch", args=[call.number]), typed).content.decode()
    assert 'id="found_out-error"' in body and 'id="why-error"' in body and 'value="60"' in body and 'value="x"' in body


def test_a_lifted_leg_is_on_the_list_of_what_is_left(at_work, call):
    at_work.post(reverse("put-there", args=[call.number]), {"what": "lifted_lead", "where": "compressor leg", "from": "controls"})
    assert any("lead lifted for now: compressor leg" in one.text for one in doubts(call))


def test_controls_of_another_shop_are_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    assert client.get(reverse("controls", args=[call.number])).status_code == 404
    assert client.get(reverse("settings-card", args=[call.unit_id])).status_code == 404
    assert client.post(reverse("tap-cycle", args=[call.number, "start"])).status_code == 404
    assert client.post(reverse("hear-cycles", args=[call.number])).status_code == 404
    assert client.post(reverse("keep-days", args=[call.number]), {"site_coldest_f": "0"}).status_code == 404
