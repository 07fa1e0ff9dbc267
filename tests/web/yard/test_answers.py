"""Everything can be asked of a practice unit on the screens of a real call, nothing is given, and what is done is done to it."""

import pytest

from kettle.knowledge import observations
from kettle.yard.leaking import leaks_at
from web.benches.ice.actions.melt import not_clear
from web.yard.models import Practice

READY = ("power_locked_out", "parts_protected", "latch_blocked", "someone_outside")


def ready(at):
    for key in READY:
        if observations.get(key).exists_on(at.core.rig.unit):
            at.take(key, **{key: "yes"})
    at.take("inside_release")
    at.take("drain")


def test_a_field_is_taken_from_the_unit_whatever_was_sent(practise):
    at = practise("fan-dead")
    answer = at.take("box_temp_f", box_temp_f="12")
    assert answer.status_code == 200 and "take-tag" in answer.content.decode() and "yard-live" in answer.content.decode()
    assert at.value("box_temp_f") == pytest.approx(66.0, abs=3.0)
    assert at.steps() == [("asked", "box_temp_f", False)]
    assert 'type="text"' not in at.page("read/").partition('id="note"')[2].partition("circuit-drawing")[2].split("tag-box_temp_f")[1][:900]
    many = at.take("ice_places")
    assert many.status_code == 200 and at.value("ice_places") == ["coil_whole"]


def test_the_same_look_by_the_core_and_on_the_screens_is_one(practise):
    at = practise("short-of-gas")
    at.yard("thermostat/", which="down")
    for key in ("suction_psig", "discharge_psig", "liquid_line_f", "sight_glass", "compressor_amps", "condenser_coil", "season"):
        there = at.core.looked(key)[0]
        at.take(key)
        seen = at.value(key)
        assert seen == (pytest.approx(there, rel=1e-4) if isinstance(there, float) else there), key


@pytest.mark.parametrize(("code", "key", "least"), [("winding-open", "winding_cs_ohm", 1e6), ("short-of-gas", "winding_ground_ohm", 1e7)])
def test_ohms_without_a_way_are_kept_too(practise, code, key, least):
    """A figure so large that a meter writes no power of ten for it."""
    at = practise(code)
    at.take("power_locked_out", power_locked_out="yes")
    at.take(key)
    assert at.value(key) == pytest.approx(at.core.looked(key)[0], rel=1e-4) and at.value(key) >= least


def test_what_cannot_be_had_now_says_why_and_takes_its_time(practise):
    at = practise("no-call")
    answer = at.take("suction_line_evap_f")
    assert answer.headers["HX-Refresh"] == "true" and at.value("suction_line_evap_f") is None
    assert "cannot be had while the compressor stands" in at.page("read/")
    assert Practice.objects.get(pk=at.practice.pk).minutes == observations.get("suction_line_evap_f").minutes
    assert at.take("water_in_f").status_code in (200, 204) and at.value("water_in_f") is None


def test_what_would_hurt_is_stopped_explained_and_counted(practise):
    at = practise("fan-dead")
    page = at.act("evap_fan.replaced").content.decode()
    assert "Stopped: Fan replaced" in page and "lock it out first" in page and at.call.acts.count() == 0
    at.take("power_locked_out", power_locked_out="yes")
    page = at.act("evap_fan.replaced").content.decode()
    assert "Fan replaced: kept" in page and "evap_fan_failed" not in at.core.rig.wrong
    assert Practice.objects.get(pk=at.practice.pk).minutes == pytest.approx(48.0)
    assert [what for what, _, _ in at.steps()] == ["stopped", "put", "did"]


def test_a_hold_that_stops_something_is_counted_and_one_taken_on_is_too(practise):
    at = practise("iced-all-over")
    at.take("ice_form")
    assert "waits" in at.take("suction_psig").content.decode() and at.value("suction_psig") is None
    assert [step for step in at.steps() if step[0] == "stopped"] == [("stopped", "", False)]
    assert "iced coil" in at.practice.steps.get(what="stopped").says.lower()
    at.post("override/", action="gauges", reason="to see it once")
    taken = at.practice.steps.filter(what="override")
    assert taken.count() == at.call.overrides.count() > 0


def test_an_act_that_is_taken_back_was_never_done_but_took_its_time(practise):
    at = practise("dirty-condenser")
    at.take("power_locked_out", power_locked_out="yes")
    at.act("condenser.cleaned")
    assert "condenser_dirty" not in at.core.rig.wrong
    minutes = Practice.objects.get(pk=at.practice.pk).minutes
    at.post(f"take-back/act/{at.call.acts.get().pk}/")
    assert "condenser_dirty" in at.core.rig.wrong and ("did", "condenser.cleaned", True) in at.steps()
    assert Practice.objects.get(pk=at.practice.pk).minutes == minutes


def test_gas_and_turns_act_by_their_amount(practise):
    at = practise("short-of-gas")
    charge = float(at.core.rig.parts.charge_lb)
    at.post("charge/add/", before="400", after="368", cylinder="", reason="to see it", sight_glass="clear")
    assert float(at.core.rig.parts.charge_lb) == pytest.approx(charge + 2.0, abs=0.01)
    assert at.value("sight_glass") is None, "it is looked at by itself"
    at.take("power_locked_out", power_locked_out="yes")
    at.post("valve/turn/", direction="out", turns="0.5", reason="to see it")
    assert float(at.core.rig.parts.stem_turns) == pytest.approx(-0.5)


def test_a_program_is_read_off_and_what_is_left_works_from_then_on(practise):
    at = practise("too-little")
    at.post("program/found/", starts="1", fail_safe_min="99")
    found = at.call.defrostprograms.get(side="found")
    assert len(found.starts) == 2 and found.figures["fail_safe_min"] == pytest.approx(7.0) and found.figures["termination_f"] == 55.0
    at.post("program/left/", starts="3 9 15 21", fail_safe_min="35", termination_f="55", drip_min="3", fan_delay_f="25", why="as it needs")
    rig = at.core.rig
    assert float(rig.parts.fail_safe_min) == pytest.approx(35.0) and float(rig.parts.defrosts_per_day) == pytest.approx(4.0)
    assert float(rig.parts.termination_f) == pytest.approx(55.0) and "defrost_too_little" not in rig.wrong


def test_a_setting_is_read_off_and_set(practise):
    at = practise("cut-in-high")
    at.post("setting/", parameter="lp_cut_in", as_left="40", why="it was never reached")
    change = at.call.settingchanges.get()
    assert change.as_left == "40 psig" and float(change.as_found.split()[0]) > 100.0
    assert "lp_control_misset" not in at.core.rig.wrong
    page = at.yard("setting/", parameter="differential").content.decode()
    assert "Differential: " in page and "°F" in page


def test_the_meter_shows_the_circuit(practise):
    at = practise("pole-open")
    at.take("contactor")
    at.post("power/measure/", what="volts", one="L1", other="T1", value="7")
    at.post("power/measure/", what="volts", one="L1", other="L2", value="7")
    assert (
        at.value("pole_drop_v_1") == pytest.approx(at.core.metered("volts", "L1", "T1"), rel=0.05)
        and at.value("pole_drop_v_1") > 100.0
        and at.value("line_v_12") == pytest.approx(230.0, abs=8.0)
    )
    stopped = at.post("power/measure/", what="ohms", one="T1", other="T2", value="7").content.decode()
    assert "locked out" in stopped
    at.take("power_locked_out", power_locked_out="yes")
    at.post("power/windings/", pins_12="9", state="locked_out")
    assert 0.1 < at.value("winding_cs_ohm") < 50.0 and at.value("winding_ground_ohm") > 1e6
    at.post("power/measure/", what="ohms", one="T1", other="T2", value="7", state="locked_out")
    kept = at.call.measurements.get()
    assert kept.what == "ohms" and kept.value != 7.0 and kept.state == "locked_out"


def test_ice_is_looked_at_painted_melted_and_what_is_left_is_seen(practise):
    at = practise("iced-all-over")
    at.take("ice_form")
    assert "Look at the face" in at.page("parts/coil/")
    at.yard("face/")
    page = at.page("parts/coil/")
    assert "What you see. Paint it below." in page and "Back of the coil: <b>" in page
    there = at.practice.steps.get(of="face").value["rows"]
    at.post("ice/", stage="before", coil="1", rows="/".join(there))
    ready(at)
    at.post("melt/start/", method="hose", supply="warm", coil_place="open")
    needs, ice = at.core.melts_in_min("hose"), at.core.ice_lb
    assert at.core.melting == "hose" and ice > 5.0
    at.yard("pass/", minutes=str(max(1, round(needs / 2))))
    assert 0.2 * ice < at.core.ice_lb < 0.8 * ice, "half of its time melts half of it"
    at.post("melt/pause/")
    half = at.core.ice_lb
    at.yard("pass/", minutes="15")
    assert at.core.ice_lb == pytest.approx(half, rel=0.1) and at.core.melting == ""
    at.post("melt/resume/")
    at.yard("pass/", minutes=str(round(needs) + 1))
    at.yard("face/")
    bare = at.practice.steps.filter(of="face").last().value
    assert set("".join(bare["rows"])) == {"."}
    looked = {f"place-{code}": "." for code in ("coil_back", "inside_corners")}
    at.post("ice/", stage="after", coil="1", rows="/".join(bare["rows"]), **looked)
    assert not_clear(at.call) == []
    at.post("melt/end/")
    assert at.call.melts.get().clear and at.core.done[-1].part == "coil" and at.core.melting == ""


def test_a_leak_is_heard_where_it_is(practise):
    at = practise("find-the-leak")
    place = leaks_at(at.core.draw, at.core.rig)
    other = "compressor" if place != "compressor" else "lines"
    at.post(f"refrigerant/leak/{other}/twice/")
    at.post(f"refrigerant/leak/{place}/no/")
    heard = dict(at.call.leaklooks.values_list("place", "heard"))
    assert heard == {other: "no", place: "twice"}
    at.post(f"refrigerant/leak/{place}/bubbles/")
    assert at.call.leaklooks.filter(place=place).last().heard == "bubbles" and at.value("leak_test") == "found"


def test_words_that_would_be_a_reading_are_none_and_acts_in_words_are_done(practise):
    at = practise("fan-dead")
    answer = at.client.post(f"{at.at}/note/", {"words": "suction 26", "meant": "Suction, gauge 26 psig"}, HTTP_HX_REQUEST="true")
    assert answer.headers.get("HX-Refresh") == "true" and at.value("suction_psig") is None
    assert "taken, not typed" in at.page("read/")
    at.client.post(f"{at.at}/note/", {"words": "smells of onions", "meant": "A note"}, HTTP_HX_REQUEST="true")
    assert at.practice.steps.filter(what="asked").count() == 0


def test_the_thermostat_lets_it_run_and_probes_stay_in_sight(practise):
    at = practise("dial-off")
    page = at.yard("thermostat/", which="down").content.decode()
    assert "Thermostat down: It runs." in page and at.core.rig.running
    assert at.core.rig.own["stat_turned_down"] == "yes" and "Thermostat back" in page
    at.yard("probes/", on="yes")
    page = at.page("read/")
    assert "What the probes read now" in page and at.value("suction_psig") is None, "nothing is on record by being in sight"
    assert "What the probes read now" not in at.yard("probes/", on="no").content.decode()
    at.yard("thermostat/", which="back")
    assert "stat_turned_down" not in at.core.rig.own


def test_two_hands_on_one_call_are_one_unit(practise, teacher):
    from tests.web.conftest import Reader
    from tests.web.yard.conftest import AtPractice
    from web.yard.actions.begin import join

    at = practise("fan-dead")
    join(teacher, at.practice.key.lower(), "partner")
    other = Reader()
    other.force_login(teacher)
    two = AtPractice(other, at.practice)
    at.take("evap_fans")
    seen = at.client.get(f"{at.base}/yard/bar/").content.decode()
    stamp = seen.partition("seen=")[2].partition('"')[0]
    assert at.client.get(f"{at.base}/yard/bar/", {"seen": stamp}).status_code == 204
    two.take("box_temp_f")
    assert "stopped" in two.page("read/") and at.client.get(f"{at.base}/yard/bar/", {"seen": stamp}).status_code == 200
    assert [row.by for row in at.practice.steps.all()] == [at.practice.learner, teacher]


def test_refrigerant_work_answers_by_what_is_in_the_circuit(practise):
    at = practise("find-the-leak")
    refused = at.post("refrigerant/microns/", microns="400", pump="on").content.decode()
    assert "Gas stands in it" in refused and at.call.vacuumreadings.count() == 0
    inside = float(at.core.rig.parts.charge_lb) * 16.0
    at.post("refrigerant/recover/", before="320", after="321")
    act = at.call.acts.get(did="recovered")
    assert act.value == pytest.approx(inside, rel=0.01) and at.core.rig.parts.charge_lb < 0.1 * at.core.sound_charge_lb
    assert "Nothing comes out" in at.post("refrigerant/recover/", before="320", after="321").content.decode()
    at.post("refrigerant/nitrogen/", start_psig="150", start_f="70", minutes="60", now_psig="150", now_f="70")
    test = at.call.standingtests.get()
    assert test.now_f == pytest.approx(at.core.rig.outside_f) and test.now_psig < 150.0 + 15.0
    for _ in range(5):
        at.post("refrigerant/microns/", microns="1", pump="on")
        at.yard("pass/", minutes="15")
    pulled = list(at.call.vacuumreadings.values_list("microns", flat=True))
    assert pulled == sorted(pulled, reverse=True) and 20_000 < pulled[0] < 60_000 and pulled[-1] > 1500.0, "it leaks"
    at.take("power_locked_out", power_locked_out="yes")
    at.act("leak.repaired", reason="found")
    at.yard("pass/", minutes="60")
    at.post("refrigerant/microns/", microns="1", pump="on")
    at.post("refrigerant/microns/", microns="1", pump="off")
    at.yard("pass/", minutes="15")
    at.post("refrigerant/microns/", microns="1", pump="off")
    last = list(at.call.vacuumreadings.values_list("microns", flat=True))[-2:]
    assert last[0] < 500.0 and last[0] < last[1] < 800.0


def test_a_jumper_and_a_lifted_lead_act_on_the_unit_while_they_are_there(practise):
    at = practise("pole-open")
    part = at.core.rig.wired.fault.part
    name = at.core.rig.wired.circuit.part(part).label
    said = at.post("power/placed/", what="jumper", where=name).content.decode()
    assert "lock it out first" in said and not at.core.rig.put
    at.take("power_locked_out", power_locked_out="yes")
    assert "takes away what protects" in at.post("power/placed/", what="jumper", where="fuse 1").content.decode()
    at.post("power/placed/", what="jumper", where=name)
    at.post("power/placed/", what="jumper", where="somewhere")
    at.take("power_locked_out", power_locked_out="no")
    assert at.core.rig.put and at.core.rig.parts.can_run == 1, "past the pole it runs"
    assert [what for what, _, _ in at.steps()] == ["stopped", "put", "stopped", "placed", "looked", "put"]
    lies = at.call.left_there.get(where=name)
    at.post(f"power/placed/{lies.pk}/gone/")
    assert not at.core.rig.put and at.core.rig.parts.can_run == 0
    at.take("power_locked_out", power_locked_out="yes")
    at.post("power/placed/", what="lifted_lead", where="contactor coil")
    assert at.core.rig.put == {"contactor_coil": "open"}


def test_probes_are_watched_minute_by_minute_until_somebody_stops(practise):
    at = practise("bulb-loose")
    assert "yard-trace" not in at.yard("watch/").content.decode() and not at.practice.steps.exists(), "none are on"
    at.yard("probes/", on="yes")
    before = at.core.minutes
    bodies = [at.yard("watch/").content.decode() for _ in range(3)]
    assert at.core.minutes == before + 3.0
    assert all("Stop watching" in body and "<polyline" in body for body in bodies) and len(set(bodies)) == 3
    again = at.client.post(f"{at.base}/yard/watch/", HTTP_HX_TARGET="yard-figures").content.decode()
    assert "Stop watching" not in again and "hx-swap-oob" in again and "9 min in" in again
    assert "Stop watching" not in at.client.get(f"{at.base}/yard/bar/").content.decode()
    at.yard("name/", cause="bulb_fault")
    path = at.client.get(f"{at.base}/yard/debrief/").content.decode()
    assert path.count("Probes watched") == 1, "what was watched is one line"
    assert "Stop watching" not in at.yard("watch/").content.decode(), "it is over"
