"""What the screens of a call show, before any template."""

import pytest

from web.logbook.actions.do_act import do_act
from web.logbook.calls.judging import judge_call
from web.round.standing import Standing
from web.round.standing.sheets import sheets_of


def state(call, slug):
    return {stop.slug: found for stop, found in Standing(call).round("")}[slug]


def test_an_empty_call_says_so(standing):
    assert standing.headline == "Nothing judged yet"
    assert standing.taken_words == "0 of 13 taken"
    assert all(not card.value for card in standing.cards)
    assert standing.settling is None
    assert {found for _, found in standing.round("read")} == {"here", "open"}


def test_the_headline_is_the_leader_or_the_reading_to_resolve(call, starved, read_in):
    assert Standing(call).headline.startswith("Valve feeding too little")
    read_in(suction_line_evap_f="-55")
    assert Standing(call).headline == "A reading to resolve"
    assert Standing(call).tag("suction_line_evap_f").state == "wrong"


def test_once_hands_were_on_it_the_headline_is_what_is_left(user, call, starved, read_in):
    do_act(user, call, judge_call(call), "valve.element_replaced")
    assert Standing(call).headline.startswith("Left: valve feeding too little ")
    read_in(box_temp_f="-4", suction_psig="17", suction_line_evap_f="-9")
    was, percent = Standing(call).headline.rsplit(" ", 2)[0], Standing(call).left[0][1]
    assert was == "Was valve feeding too little, nothing left of it" and Standing(call).headline.endswith(f" {percent} %")


def test_a_display_that_is_off_is_a_question_until_it_is_the_cause(call, read_in):
    read_in(box_temp_f="1", display_temp_f="-5", compressor="running")
    assert Standing(call).headline == "A reading to resolve" and Standing(call).due == ()
    read_in(circuit_extra="nothing")
    assert Standing(call).headline.startswith("Thermostat or sensor off ")
    assert [cause.code for cause in Standing(call).due] == ["stat_calibration"]
    assert Standing(call).due_title == "Seen: put right"


def test_volts_and_fans_seen_locked_out_take_nothing_of_what_was_known(call, read_in):
    read_in(compressor="running", line_v_12="229")
    read_in(power_locked_out="yes")
    read_in(line_v_12="0", condenser_fans="stopped")
    volts, fan = Standing(call).tag("line_v_12"), Standing(call).tag("condenser_fans")
    assert (volts.value, volts.was) == (229.0, "")
    assert (fan.value, fan.was) == (None, "stopped")
    read_in(power_locked_out="no", line_v_12="0")
    assert Standing(call).tag("line_v_12").value == 0.0


def test_a_card_carries_value_mark_band_and_scale(call, starved):
    cards = {card.key: card for card in Standing(call).cards}
    superheat = cards["superheat_evap_f"]
    assert superheat.mark == ("▲", "high", "bad")
    assert superheat.band == "4 to 10"
    assert float(superheat.value) > 20
    assert superheat.scale.at_pct > superheat.scale.band_from_pct + superheat.scale.band_width_pct
    assert cards["subcooling_f"].mark[0] == "◐"
    assert "receiver" in cards["subcooling_f"].why
    assert not cards["amps_pct"].value


def test_an_impossible_superheat_is_marked_as_such(call, starved, read_in):
    read_in(suction_line_evap_f="-55")
    card = next(card for card in Standing(call).cards if card.key == "superheat_evap_f")
    assert card.mark == ("✕", "cannot be", "bad")


def test_holds_on_the_same_action_stand_under_one_title(call, read_in):
    read_in(box_temp_f="6", bulb="loose")
    titles = dict(Standing(call).holds)
    assert {hold.code for hold in titles["Valve stem"]} == {"box_far_from_set", "bulb_first"}


def test_the_round_fills_as_the_work_is_done(user, call, starved):
    assert state(call, "read") == "part"
    assert state(call, "arrive") == "part"
    assert state(call, "judge") == "part"
    assert state(call, "hand-over") == "open"
    call.found = "Something"
    assert state(call, "hand-over") == "part"
    assert state(call, "melt") == "open"
    assert state(call, "power") == "part"
    assert state(call, "prove") == "open"


@pytest.mark.parametrize("stop", ["read", "judge", "arrive"])
def test_a_key_has_one_field_on_every_screen(call, starved, stop):
    standing = Standing(call)
    asked = standing.next_tag(stop)
    assert (asked is None) == standing.has_field(stop, standing.next_check.key)


def drawn_on(call):
    """Every observation that the sheets behind the picture of a call's unit ask."""
    standing = Standing(call)
    codes = standing.picture().spots
    return {tag.entry.key for code in codes for sheet in sheets_of(standing, code) for tag in sheet.tags}


def test_arrive_asks_nothing_the_unit_has_not(call):
    assert {"sight_glass", "door", "inside_release"} <= drawn_on(call)
    call.unit.receiver = False
    assert "sight_glass" not in drawn_on(call)
    call.unit.kind = "reach_in_freezer"
    assert not {"inside_release", "strip_curtain", "bulb"} & drawn_on(call)


def test_a_rejected_entry_stays_in_its_field_beside_what_stands(call, starved):
    tag = Standing(call, {"suction_psig": ("900", "Suction: 900.0 psig is outside")}).tag("suction_psig")
    assert (tag.field_text, tag.error, tag.shown) == ("900", "900.0 psig is outside", "9.0 psig")


def test_a_second_evaporator_has_its_own_readings(call, read_in):
    from web.logbook.calls.judging import standing_readings
    from web.logbook.models import Reading

    (first,) = read_in(ice_form="none")
    Reading.objects.create(call=call, key="ice_form", value="hard_ice", by=first.by, evaporator=2)
    assert standing_readings(call)["ice_form"].value == "none"
    assert standing_readings(call, 2)["ice_form"].value == "hard_ice"
