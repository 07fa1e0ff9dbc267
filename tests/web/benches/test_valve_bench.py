"""The valve bench on a call: the course drawn, turns learned, the next one, no answer, drift, the other way, electronic."""

from collections import deque
from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.benches.probes.hearing import Hearing
from kettle.knowledge import refrigerants
from web.benches.valve.actions.turn_valve import turn_valve
from web.benches.valve.series import series_of
from web.logbook.actions.do_act import do_act
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import judge_call
from web.logbook.models import Act, Device, ValveTurn


def page(client, call, **query):
    return client.get(reverse("valve", args=[call.number]), query).content.decode()


def post(client, name, call, **typed):
    return client.post(reverse(name, args=[call.number]), typed, follow=True).content.decode()


@pytest.fixture
def visit(user, unit, call):
    """Read superheats and turn the stem at minutes of a visit that began two hours ago."""
    began = timezone.now() - timedelta(hours=2)
    call.opened_at = began
    call.save()

    class Visit:
        def read(self, at_min, superheat, sst=-20.0, of=call, **more):
            at = of.opened_at + timedelta(minutes=at_min)
            psig = refrigerants.get("R-404A").dew_psig(sst)
            for key, value in {"suction_psig": psig, "suction_line_evap_f": sst + superheat, **more}.items():
                record_reading(user, of, key, f"{value:.2f}" if isinstance(value, float) else value, at=at)

        def turn(self, at_min, direction, turns, of=call):
            turn_valve(user, of, judge_call(of), direction, turns, reason="as shown", at=of.opened_at + timedelta(minutes=at_min))

    record_reading(user, call, "bulb", "tight_insulated", at=began)
    record_reading(user, call, "box_temp_f", "-4", at=began)
    return Visit()


def test_the_next_turn_is_proposed_from_what_this_valve_did(at_work, call, visit):
    visit.read(5, 26.0)
    body = page(at_work, call)
    assert "1 turn out, it opens: about 22.0 °F ± 2.0 after 15 min" in body and "usual, nothing learned yet" in body
    assert "Before the stem: strainer and solenoid" in body
    visit.read(5, 26.0, drier_drop_f=1.0, liquid_solenoid="open")
    assert "Before the stem" not in page(at_work, call)
    visit.turn(6, "out", "1")
    visit.read(25, 19.0)
    body = page(at_work, call)
    assert "learned from 1 turn" in body and "26.0 → 19.0 °F" in body and "1 turn out" in body
    # By hand: (4/1.8² + 7/(2·0.9²)) / (1/1.8² + 1/(2·0.9²)) = 6.0 °F a turn; one more turn lands at 13.
    assert "6.0 ± 1.0 °F a turn" in body and "1 turn out, it opens: about 13.0 °F" in body
    visit.turn(26, "out", "1")
    visit.read(45, 12.5)
    # Near: half a turn at most, about 9.
    assert "½ turn out, it opens: about 9" in page(at_work, call) and 'value="0.5"' in page(at_work, call)


def test_the_course_is_paired_from_line_and_suction_read_together(call, unit, visit):
    visit.read(5, 26.0)
    record_reading(call.opened_by, call, "suction_line_evap_f", "0", at=call.opened_at + timedelta(minutes=40))
    series = series_of(call, unit.resolved(), call.opened_by.member.shown)
    assert [round(one.superheat_f, 1) for one in series.points] == [26.0] and series.points[0].box_f == pytest.approx(-4.0)


def test_back_to_where_it_was_is_one_tap(at_work, call, visit):
    visit.read(5, 26.0)
    for at_min, turns in ((6, "1"), (30, "1"), (55, "0.5")):
        visit.turn(at_min, "out", turns)
    assert "2.5 turns out from where it was found" in page(at_work, call)
    post(at_work, "valve-back", call)
    assert [(one.direction, one.turns, one.reason) for one in ValveTurn.objects.order_by("pk")][3:] == [
        ("in", 2.0, "Back to where it was found"), ("in", 0.5, "Back to where it was found"),
    ]  # fmt: skip
    assert "where it was found" in page(at_work, call)
    assert "The stem stands where it was found" in post(at_work, "valve-back", call) and ValveTurn.objects.count() == 5


def test_two_turns_without_effect_lay_out_the_way_and_its_end(at_work, call, visit, user):
    visit.read(5, 30.0, drier_drop_f=1.0, liquid_solenoid="open")
    visit.turn(6, "out", "0.5")
    visit.read(25, 30.3)
    visit.turn(26, "out", "0.5")
    visit.read(45, 29.8)
    body = page(at_work, call)
    assert body.count("◐ no answer") == 2 and 'id="no-answer" open' in body and "liquid stands before the valve" in body
    record_reading(user, call, "valve_response", "none", at=call.opened_at + timedelta(minutes=50))
    assert "✓ Done: in, out, middle, set again" in page(at_work, call)
    do_act(user, call, judge_call(call), "valve.exercised", reason="the way through", at=call.opened_at + timedelta(minutes=55))
    assert "Does it answer now?" in page(at_work, call)
    record_reading(user, call, "valve_response", "as_expected", at=call.opened_at + timedelta(minutes=70))
    body = page(at_work, call)
    assert "Dirt, wax or ice inside" in body and "plan the replacement" in body and "Evacuation under 500 microns" in body


def test_exercised_leads_back_to_the_bench(at_work, call, visit):
    answer = at_work.post(reverse("done", args=[call.number]), {"act": "valve.exercised", "back": "valve", "reason": "the way through"})
    assert answer.url == reverse("valve", args=[call.number]) and Act.objects.filter(did="exercised").exists()


def test_a_valve_set_before_that_reads_otherwise_has_drifted(at_work, call, user, unit, visit):
    before = open_call(user, unit, "warm", opened_at=timezone.now() - timedelta(days=90))
    record_reading(user, before, "bulb", "tight_insulated", at=before.opened_at)
    visit.read(5, 20.0, of=before)
    visit.turn(6, "out", "1", of=before)
    visit.read(25, 7.0, of=before)
    assert "Drifted" not in page(at_work, call)
    visit.read(5, 18.0)
    body = page(at_work, call)
    assert "Drifted since last set: 7.0 °F then, 18.0 °F now" in body and str(before) in body


def test_a_valve_that_turns_the_other_way_says_so_everywhere(at_work, call, unit, visit):
    post(at_work, "valve-way", call, other_way="yes")
    unit.refresh_from_db()
    assert unit.stem_reversed and "clockwise, which opens this one" in page(at_work, call).lower()
    visit.read(5, 26.0)
    body = post(at_work, "turn-valve", call, direction="in", turns="0.5", goal="lower")
    assert "counter-clockwise, which closes this one" in body and "works against the goal" in body
    post(at_work, "valve-way", call)
    unit.refresh_from_db()
    assert not unit.stem_reversed


def test_superheat_taken_the_wrong_way_round_stops_the_turn(at_work, call, visit):
    visit.read(5, -50.0, sst=12.0)
    body = post(at_work, "turn-valve", call, direction="in", turns="0.5", goal="raise")
    assert "cannot be" in body and not ValveTurn.objects.exists()


def test_probes_draw_the_course_and_are_taken(at_work, call, unit, user, visit, monkeypatch):
    hearing = Hearing()
    for n in range(200):
        at = timezone.now() - timedelta(seconds=6 * (200 - n))
        for key, value in (("suction_psig", 20.0), ("suction_line_evap_f", -6.0), ("return_air_f", -3.0)):
            hearing.past.setdefault(key, deque()).append((at, value))
    hearing.latest = list
    unit.probes = Device.objects.create(shop=unit.shop, kind="probes", name="Van set", address="127.0.0.1:1")
    unit.save()
    monkeypatch.setattr("web.benches.valve.series.link", lambda device: hearing)
    monkeypatch.setattr("web.benches.valve.views.bench.link", lambda device: hearing)
    body = page(at_work, call)
    assert "● Settled" in body and "Take what Van set reads now" in body and 'hx-trigger="every 5s"' in body
    part = at_work.get(reverse("valve", args=[call.number]), headers={"HX-Request": "true", "HX-Target": "turns-drawn"}).content.decode()
    assert part.startswith('<div id="turns-drawn"') and "polyline" in part
    assert "none of these is in reach" in post(at_work, "valve-take", call)


def test_where_the_bulb_belongs_on_this_pipe(at_work, call, read_in):
    read_in(bulb_clock="bottom")
    body = page(at_work, call, size_in="0.625", run="level")
    assert "Between 10 and 2" in body and "It sits where it should not" in body
    assert "At 4 or 8" in page(at_work, call, size_in="1.375", run="level")
    wrong = page(at_work, call, size_in="huge")
    assert "is not a figure like" in wrong and 'value="huge"' in wrong


@pytest.mark.parametrize("value", ["-500", "1e30", "nan", "inf", "٣", "0", "9" * 300])
def test_no_figure_breaks_the_page(at_work, call, unit, value):
    page(at_work, call, size_in=value, run=value)
    unit.metering = "eev"
    unit.save()
    names = ("target_f", "shows_f", "opening_pct", "shows_psig", "own_psig", "shows_line_f", "own_line_f")
    assert "Target, opening and answer" in page(at_work, call, **dict.fromkeys(names, value))


def test_an_electronic_valve_is_held_against_gauge_and_clamp(at_work, call, unit, read_in):
    unit.metering = "eev"
    unit.save()
    read_in(suction_psig="20", suction_line_evap_f="-6")
    body = page(at_work, call, target_f="6", shows_psig="26", opening_pct="60")
    assert "transducer" in body and "An electronic valve has no stem" in body
    # What was typed holds for the visit.
    assert "transducer" in page(at_work, call)


def test_a_capillary_tube_has_nothing_to_turn_and_says_why(at_work, call, unit):
    unit.kind, unit.metering, unit.refrigerant = "reach_in_cooler", "cap_tube", "R-134a"
    unit.save()
    body = page(at_work, call)
    assert "A capillary tube has no stem" in body and "judged after a weighed charge" in body


def test_the_valve_of_another_shop_is_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    assert client.get(reverse("valve", args=[call.number])).status_code == 404
    for name in ("turn-valve", "valve-back", "valve-way", "valve-take"):
        assert client.post(reverse(name, args=[call.number]), {"direction": "in", "turns": "0.5"}).status_code == 404
