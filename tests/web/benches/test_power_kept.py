"""What stop Power keeps beside measurements: the circuit with its unit, start gear, what is still there, moved outputs, live work."""

from types import SimpleNamespace

import pytest
from django.urls import reverse

from kettle.electrical.start_gear import usual
from web.accounts.models import Member
from web.logbook.actions.do_act import do_act
from web.logbook.actions.open_call import open_call
from web.logbook.actions.override_hold import override_hold
from web.logbook.actions.place import place, take_away
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import judge_call, told_of
from web.logbook.models import LogEntry, Measurement, Placed, StartWiring
from web.round.views.pages import next_leads

MOVED = {"load": "coil fans", "from_output": "FAN", "to_output": "AUX", "does_not": "stopping in a defrost"}
TICKS = dict.fromkeys(("load_fits", "logic_fits", "maker_allows", "owner_agrees"), "on")


def power(client, call, **query):
    return client.get(reverse("stop", args=[call.number, "power"]), query).content.decode()


def measure(client, call, **data):
    asked = {"what": "volts", "one": "K1", "other": "L2", "value": "229", "state": "calling", **data}
    return client.post(reverse("measure", args=[call.number]), asked, follow=True).content.decode()


def keep_circuit(client, call, **said):
    return client.post(reverse("keep-wiring", args=[call.number]), said, follow=True).content.decode()


@pytest.fixture
def three_phase(unit):
    unit.phases = 3
    unit.save()


@pytest.fixture
def one_phase(unit):
    unit.phases = 1
    unit.save()


@pytest.mark.usefixtures("three_phase")
def test_what_is_corrected_stays_with_the_unit_and_on_its_next_call(at_work, call, user, unit):
    assert "LP" in power(at_work, call, part="lp_switch") and "Not on this unit" in power(at_work, call, part="lp_switch")
    at_work.post(reverse("without-part", args=[call.number, "lp_switch"]))
    keep_circuit(at_work, call, fans="5", control="transformer")
    later = open_call(user, unit, "again")
    body = power(at_work, later)
    assert "No low-pressure switch" in body and "Coil fan 5" in body and 'data-point="V"' in body
    assert LogEntry.objects.filter(action="keep_wiring").count() == 2
    at_work.post(reverse("without-part", args=[later.number, "lp_switch"]), {"back": "1"})
    assert "No low-pressure switch" not in power(at_work, later)
    assert "is not in this circuit" in at_work.post(reverse("without-part", args=[later.number, "boiler"]), follow=True).content.decode()


@pytest.mark.usefixtures("three_phase")
def test_a_wrong_count_is_said_beside_its_field_and_nothing_is_kept(at_work, call, unit):
    body = keep_circuit(at_work, call, fans="40", control="transformer")
    assert "“40” is not a whole number from 1 to 12" in body and 'value="40"' in body
    unit.refresh_from_db()
    assert unit.wiring == {}


@pytest.mark.usefixtures("one_phase")
def test_start_gear_is_kept_compared_and_printed(at_work, call):
    wires = [wire for wire in usual("potential") if set(wire) != {"1", "SC2"}] + [("2", "SC2")]
    sent = ",".join("-".join(wire) for wire in wires)
    body = at_work.post(reverse("start-wires", args=[call.number, "found"]), {"wires": sent}, follow=True).content.decode()
    assert "goes round the relay" in body and StartWiring.objects.get().wires == [list(wire) for wire in wires]
    sheet = at_work.get(reverse("start-sheet", args=[call.number])).content.decode()
    assert "relay 2 → start capacitor, other side" in sheet and "By function" not in sheet
    right = ",".join("-".join(wire) for wire in usual("potential"))
    body = at_work.post(reverse("start-wires", args=[call.number, "new"]), {"wires": right}, follow=True).content.decode()
    assert "By function it is as it should be" in body
    for bad, says in (("T1-9", "is not on this start gear"), ("T1-T1", "Both ends"), ("T1-C-R-S", "A wire has two ends")):
        refused = at_work.post(reverse("start-wires", args=[call.number, "new"]), {"wires": bad}, follow=True).content.decode()
        assert says in refused
    assert at_work.post(reverse("start-wires", args=[call.number, "third"]), {"wires": right}).status_code == 302
    assert StartWiring.objects.filter(which="third").count() == 0


@pytest.mark.usefixtures("three_phase")
def test_a_three_phase_compressor_has_no_start_gear_sheet(at_work, call):
    assert at_work.get(reverse("start-sheet", args=[call.number])).status_code == 404


@pytest.mark.usefixtures("three_phase")
def test_a_call_is_closed_only_when_what_was_put_there_is_gone_or_left_with_a_reason(at_work, call, user, unit):
    at_work.post(reverse("put-there", args=[call.number]), {"what": "jumper", "where": "K3 to K4", "from": "hand-over"})
    record_reading(user, call, "power_locked_out", "yes")
    refused = at_work.post(reverse("close", args=[call.number]), {"reason": ""}, follow=True).content.decode()
    assert "Still there: jumper for now: K3 to K4" in refused and "power is still locked out" in refused
    call.refresh_from_db()
    assert call.is_open
    at_work.post(reverse("close", args=[call.number]), {"reason": "new switch on Friday"})
    call.refresh_from_db()
    assert not call.is_open and Placed.objects.get().left_why == "new switch on Friday"
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "Jumper: K3 to K4" in report and "new switch on Friday" in report
    later = open_call(user, unit, "switch is here")
    arrive = at_work.get(reverse("stop", args=[later.number, "arrive"])).content.decode()
    assert f"Left by {call}" in arrive and "Jumper: K3 to K4" in arrive
    at_work.post(reverse("gone", args=[later.number, Placed.objects.get().pk]))
    placed = Placed.objects.get()
    assert placed.gone_at and placed.gone_by == user
    assert "Left by" not in at_work.get(reverse("stop", args=[later.number, "arrive"])).content.decode()
    at_work.post(reverse("close", args=[later.number]), {"reason": "only the jumper was taken out"})
    later.refresh_from_db()
    assert not later.is_open


@pytest.mark.usefixtures("three_phase")
def test_an_output_is_moved_only_with_the_whole_list_and_is_marked_until_undone(at_work, call, user, unit):
    refused = at_work.post(reverse("move-output", args=[call.number]), MOVED | {"load_fits": "on"}).content.decode()
    assert "Not ticked: the owner knows and agrees" in refused and 'value="AUX"' in refused and not Placed.objects.exists()
    at_work.post(reverse("move-output", args=[call.number]), MOVED | TICKS)
    assert str(Placed.objects.get()) == "Temporary: output moved: coil fans from FAN to AUX"
    for address in (reverse("board"), reverse("unit", args=[unit.pk]), reverse("report", args=[call.number])):
        assert "coil fans from FAN to AUX" in at_work.get(address).content.decode(), address
    assert "stopping in a defrost" in at_work.get(reverse("report", args=[call.number])).content.decode()
    take_away(user, Placed.objects.get(), call)
    assert "from FAN to AUX" not in at_work.get(reverse("board")).content.decode()


@pytest.mark.usefixtures("three_phase")
def test_ohms_wait_for_the_lock_out_unless_taken_on_with_a_reason(at_work, call, user):
    assert "locked out and proved dead" in measure(at_work, call, what="ohms", one="K3", other="K4", value="0.3", state="calling")
    record_reading(user, call, "compressor", "humming")
    override_hold(user, call, judge_call(call), "resistance_test", "fuses pulled, no lock on this panel")
    body = measure(at_work, call, what="ohms", one="K3", other="K4", value="0.3", state="calling")
    assert Measurement.objects.get().what == "ohms" and "mean nothing" in body, "kept with the slip said beside it"


@pytest.mark.usefixtures("three_phase")
def test_a_slip_is_said_beside_the_measurement_and_goes_once_the_path_is_proved_fed(at_work, call):
    assert "measure K3 to L2 too" in measure(at_work, call, one="K3", other="K4", value="0")
    assert "measure K3 to L2 too" not in measure(at_work, call, one="K3", other="L2", value="229")


@pytest.mark.usefixtures("three_phase")
def test_the_order_of_a_dead_unit_is_filled_by_what_was_measured(at_work, call, user):
    for key, value in (("compressor", "humming"), ("contactor", "in"), ("control_call", "calling"), ("line_v_12", "231"),
                       ("line_v_23", "230"), ("line_v_31", "230"), ("pole_drop_v_2", "198")):  # fmt: skip
        record_reading(user, call, key, value)
    body = power(at_work, call)
    assert "Drop over pole 2: nearly the whole line&#x27;s volts" in body


@pytest.mark.usefixtures("three_phase")
def test_amps_in_the_clamp_are_the_compressors_and_the_heaters(at_work, call, unit):
    unit.defrost = "electric"
    unit.save()
    measure(at_work, call, what="amps", one="lead_1", other="", value="8.2")
    measure(at_work, call, what="amps", one="defrost_pole", other="", value="4.1", state="defrosting")
    assert call.readings.get(key="compressor_amps").value == 8.2 and call.readings.get(key="heater_amps").value == 4.1
    assert Measurement.objects.count() == 2
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "Measured in the wiring" in report and "Compressor lead 1" in report and "8.2 A" in report


@pytest.mark.usefixtures("three_phase")
def test_whoever_is_not_down_for_live_work_does_not_measure_live(at_work, call, user):
    Member.objects.filter(user=user).update(live_work=False)
    assert "those the shop put down for it" in measure(at_work, call)
    entered = at_work.post(
        reverse("enter", args=[call.number, "line_v_12"]), {"line_v_12": "231", "stop": "judge", "view": "part"}
    ).content.decode()
    assert "those the shop put down for it" in entered and not call.readings.filter(key="line_v_12").exists()
    record_reading(user, call, "power_locked_out", "yes")
    measure(at_work, call, what="ohms", one="K3", other="K4", value="0.3", state="locked_out")
    assert Measurement.objects.get().what == "ohms", "behind the lock-out anybody may measure"


def test_the_owner_puts_people_down_for_live_work_and_nobody_else(at_work, call, user):
    member = user.member
    assert at_work.post(reverse("no-live-person", args=[member.pk])).status_code == 403
    Member.objects.filter(pk=member.pk).update(owner=True)
    at_work.post(reverse("no-live-person", args=[member.pk]))
    member.refresh_from_db()
    assert not member.live_work and "no live work" in at_work.get(reverse("shop")).content.decode()
    at_work.post(reverse("live-person", args=[member.pk]))
    member.refresh_from_db()
    assert member.live_work and LogEntry.objects.filter(action="live_work").count() == 2


@pytest.mark.usefixtures("three_phase")
def test_insulation_is_shown_visit_by_visit(at_work, call, user, unit):
    record_reading(user, call, "power_locked_out", "yes")
    record_reading(user, call, "winding_ground_ohm", "2 M")
    later = open_call(user, unit, "again")
    record_reading(user, later, "power_locked_out", "yes")
    record_reading(user, later, "winding_ground_ohm", "600 k")
    body = power(at_work, later)
    assert "2.0 MΩ" in body and "600 kΩ" in body and "Insulation to ground, visit by visit" in body


def test_what_was_put_there_belongs_to_its_shop(client, stranger, call, user):
    placed = place(user, call, "gauges", "")
    client.force_login(stranger)
    assert client.post(reverse("gone", args=[call.number, placed.pk])).status_code == 404
    assert client.post(reverse("put-there", args=[call.number]), {"what": "jumper"}).status_code == 404
    placed.refresh_from_db()
    assert placed.gone_at is None


@pytest.mark.usefixtures("three_phase")
def test_a_pressure_switch_found_open_by_the_meter_is_known_to_the_judgement_until_it_is_taken_back(at_work, call, user):
    for key, word in (("compressor", "off"), ("contactor", "out"), ("control_call", "calling")):
        record_reading(user, call, key, word)
    ends = next((part.a, part.b) for part in call.unit.circuit().parts if part.key == "lp_switch")
    measure(at_work, call, one=ends[0], other=ends[1], value="228")
    assert not call.readings.filter(key="low_pressure_switch").exists(), "what it tells is worked out, not written down beside it"
    assert judge_call(call).facts.is_("low_pressure_switch", "open")
    at_work.post(reverse("undo-measurement", args=[call.number, Measurement.objects.get(other=ends[1]).pk]))
    call.refresh_from_db()
    assert not judge_call(call).facts.is_("low_pressure_switch", "open")


@pytest.mark.usefixtures("one_phase")
def test_a_capacitor_by_its_microfarads_or_by_amps_and_volts(at_work, call):
    # 2652 · 1.5 A / 115 V = 34.6 µF.
    assert "good" in power(at_work, call, cap_uf="35", cap_pct="6", cap_measured="34").split('id="capacitor"')[1][:900]
    assert "34.6 µF" in power(at_work, call, cap_uf="35", cap_pct="6", cap_amps="1.5", cap_volts="115")
    assert "weak" in power(at_work, call, cap_uf="35", cap_pct="6", cap_measured="20")
    assert "µF" in power(at_work, call, cap_uf="much", cap_pct="6", cap_measured="20")


@pytest.mark.usefixtures("one_phase")
def test_a_volts_check_leads_to_the_points_of_this_units_own_circuit(at_work, call):
    """With a second pole the load is measured between the two, not to neutral."""

    def leads():
        call.unit.refresh_from_db()
        return next_leads(SimpleNamespace(call=call, next_check=SimpleNamespace(key="load_v_12")))

    assert set(leads()) == {"T1", "N"}
    keep_circuit(at_work, call, poles="2")
    assert set(leads()) == {"T1", "T2"}
    measure(at_work, call, one="T1", other="T2", value="114")
    assert call.readings.get(key="load_v_12").value == 114.0, "an observation of its own"


@pytest.mark.parametrize(
    ("kind", "phases", "volts", "gone"),
    [
        ("walk_in_freezer", 3, 230, ("contactor_coil", "defrost_coil")), ("walk_in_freezer", 1, 230, ("contactor_coil", "winding_run")),
        ("reach_in_cooler", 1, 115, ("start_relay", "winding_start")), ("walk_in_cooler", 3, 208, ("winding_1", "solenoid")),
        ("display_freezer", 1, 240, ("defrost_coil", "timer_motor")), ("reach_in_freezer", 1, 230, ("overload", "pole_2")),
    ],
)  # fmt: skip
def test_no_part_that_is_tapped_away_takes_the_pages_with_it(at_work, call, unit, kind, phases, volts, gone):
    unit.kind, unit.phases, unit.nameplate_v, unit.metering = kind, phases, volts, "txv"
    unit.save()
    there = {part.key for part in unit.circuit().parts}
    for part in gone:
        if part in there:
            at_work.post(reverse("without-part", args=[call.number, part]))
    for state in ("calling", "defrosting", "locked_out"):
        body = at_work.get(reverse("stop", args=[call.number, "power"]) + f"?state={state}")
        assert body.status_code == 200 and "it has one" in body.content.decode().lower()
    for name in ("report", "report-pdf"):
        assert at_work.get(reverse(name, args=[call.number])).status_code == 200
    at_work.post(reverse("without-part", args=[call.number, gone[0]]), {"back": "1"})
    unit.refresh_from_db()
    assert gone[0] not in unit.wiring.get("without", [])


def test_a_wire_that_was_found_is_drawn_taken_into_account_and_taken_away(at_work, call, unit):
    unit.kind, unit.phases, unit.nameplate_v, unit.defrost = "walk_in_freezer", 1, 230, "electric"
    unit.save()
    address = reverse("draw-wire", args=[call.number])
    at_work.post(address, {"one": "K1", "other": "F2"})
    unit.refresh_from_db()
    assert unit.wiring["wires"] == ["F2-K1"] and unit.circuit().has("wire_F2_K1")
    body = at_work.get(reverse("stop", args=[call.number, "power"])).content.decode()
    assert "A wire from F2 to K1" in body
    for wrong, says in (({"one": "K1", "other": "K1"}, "two different"), ({"one": "F2", "other": "K1"}, "joined by a wire"),
                        ({"one": "K1", "other": "Q"}, "not in this circuit")):  # fmt: skip
        assert says in at_work.post(address, wrong, follow=True).content.decode()
    at_work.post(address, {"gone": "F2-K1"})
    unit.refresh_from_db()
    assert unit.wiring["wires"] == []


def test_what_was_measured_before_a_repair_is_before(at_work, call, user):
    call.unit.phases = 3
    call.unit.save()
    at_work.post(reverse("measure", args=[call.number]), {"what": "volts", "one": "K1", "other": "K2", "value": "0", "state": "calling"})
    assert "before the repair" not in at_work.get(reverse("stop", args=[call.number, "power"])).content.decode()
    do_act(user, call, judge_call(call), "contactor.replaced")
    assert "before the repair" in at_work.get(reverse("stop", args=[call.number, "power"])).content.decode()


def test_no_way_through_is_a_reading_and_lifted_leads_go_with_it(at_work, call, user):
    record_reading(user, call, "power_locked_out", "yes")
    asked = {"what": "ohms", "one": "K1", "other": "K2", "state": "locked_out", "value": "OL", "lifted": "yes"}
    at_work.post(reverse("measure", args=[call.number]), asked)
    kept = Measurement.objects.get()
    assert kept.lifted and "K1 to K2: OL" in at_work.get(reverse("stop", args=[call.number, "power"])).content.decode()
    at_work.post(reverse("measure", args=[call.number]), asked | {"what": "volts", "value": "OL", "state": "calling"})
    assert Measurement.objects.count() == 1, "volts that are not there are 0"
    event = told_of(call).record.all_of("measured")[-1]
    assert event.data["value"] == "OL" and event.data["lifted"] is True


def test_the_drawing_tells_what_points_show_on_the_volts_that_come_in(at_work, call, user):
    call.unit.nameplate_v, call.unit.phases = 230, 3
    call.unit.save()
    plate = at_work.get(reverse("stop", args=[call.number, "power"])).context["dots"]
    for key, value in (("line_v_12", "196"), ("line_v_23", "195"), ("line_v_31", "197")):
        record_reading(user, call, key, value)
    low = at_work.get(reverse("stop", args=[call.number, "power"])).context["dots"]
    shown = lambda dots: next(float(should) for dot, _, should, _ in dots if dot.key == "L1")  # noqa: E731
    assert shown(plate) > 225 and 190 < shown(low) < 200
