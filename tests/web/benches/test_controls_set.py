"""Controls set by computation: drawn, worked out, kept as found and as left, cycles watched, and what cannot be said beside its field."""

from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from web.benches.controls.actions.watch_cycles import tap
from web.logbook.judging import judge_call
from web.logbook.models import SettingChange, SwitchMoment


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


@pytest.mark.parametrize("value", ["-500", "1e30", "nan", "999", "-59", "144", "٣", "0"])
def test_no_figure_breaks_the_page(at_work, call, value):
    names = ("warmest_f", "coldest_f", "td_f", "cut_in", "cut_out", "coldest_met_f", "swing_in", "swing_out", "dial", "wanted",
             "sensor_ohm", "really", "before", "after", "coil_f", "held_f", "hp_out", "fan_1_in", "fan_1_out")  # fmt: skip
    for name in names:
        page(at_work, call, **{name: value})
    for use in ("thermostat", "pump_down"):
        assert "Low-pressure switch" in page(at_work, call, use=use, regulator="evaporator", **dict.fromkeys(names, value))


def test_the_sums_beside_it(at_work, call):
    assert "8.0 °F above its dial" in page(at_work, call, swing_in="44", swing_out="40", dial="34", wanted="36")
    assert "good" in page(at_work, call, curve="pt1000", sensor_ohm="1001", really="32").split('id="sensor"')[1][:600]
    assert "shut too far" in page(at_work, call, regulator="crankcase", before="60", after="5")
    assert "are left to the cut-out" in page(at_work, call, hp_out="330")


def test_both_ends_are_kept_together_or_not_at_all(at_work, call):
    typed = {"found_in": "60", "found_out": "20", "cut_in": "82", "cut_out": "48", "why": "froze bottles"}
    refused = at_work.post(reverse("keep-switch", args=[call.number]), typed | {"found_out": ""}, follow=True).content.decode()
    assert "write what it was" in refused and not SettingChange.objects.exists()
    at_work.post(reverse("keep-switch", args=[call.number]), typed)
    assert [(one.parameter, one.as_left) for one in SettingChange.objects.all()] == [("lp_cut_in", "82 psig"), ("lp_cut_out", "48 psig")]
    assert judge_call(call).facts.number("lp_cut_in_psig") == 82.0
    card = at_work.get(reverse("settings-card", args=[call.unit_id])).content.decode()
    assert "38 °F" in card and "froze bottles" in card and "60 psig" in card


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
    assert "fewer than 2 whole cycles" in at_work.post(reverse("close", args=[call.number]), {}, follow=True).content.decode()
    for minutes, what in ((1, "start"), (5, "stop"), (9, "start"), (14, "stop"), (19, "start")):
        tap(user, call, what, {}, at=timezone.now() + timedelta(minutes=minutes))
    at_work.post(reverse("close", args=[call.number]))
    call.refresh_from_db()
    assert not call.is_open


def test_alarms_that_settings_bring_up_are_told(at_work, call):
    assert "every defrost alarms" not in page(at_work, call)
    for code, left in (("alarm_delay", "20"), ("fail_safe", "30")):
        at_work.post(reverse("setting", args=[call.number]), {"parameter": code, "as_found": left, "as_left": left, "why": "as it was"})
    assert "every defrost alarms" in page(at_work, call)


def test_a_pump_down_switch_is_shown_over_the_year(at_work, call, unit):
    body = page(at_work, call, use="pump_down", cut_in="30", cut_out="5", coldest_met_f="20")
    assert "stays off" in body and "20 °F outside" in body and "● starts" in body


def test_a_turn_of_a_regulator_is_recorded_and_its_clock_runs(at_work, call, unit):
    unit.kind, unit.box_control, unit.metering = "walk_in_cooler", "thermostat", "txv"
    unit.save()
    body = page(at_work, call, regulator="evaporator", coil_f="24", before="90", after="40")
    assert "shut too far" in body and 'value="regulator.opened"' in body
    at_work.post(reverse("done", args=[call.number]), {"act": "regulator.opened", "amount": "1"})
    assert call.acts.filter(part="regulator", did="opened").exists()


def test_controls_of_another_shop_are_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    assert client.get(reverse("controls", args=[call.number])).status_code == 404
    assert client.get(reverse("settings-card", args=[call.unit_id])).status_code == 404
    assert client.post(reverse("tap-cycle", args=[call.number, "start"])).status_code == 404
