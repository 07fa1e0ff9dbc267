"""Stop Power: measurements kept where they were taken, observations where they belong, and what cannot be one said beside the field."""

import pytest
from django.urls import reverse

from web.logbook.actions.record_reading import record_reading
from web.logbook.models import LogEntry, Measurement


@pytest.fixture(autouse=True)
def three_phase(unit):
    unit.phases = 3
    unit.save()


def page(client, call, state=""):
    return client.get(reverse("stop", args=[call.number, "power"]) + (f"?state={state}" if state else "")).content.decode()


def measure(client, call, **data):
    asked = {"what": "volts", "one": "K1", "other": "L2", "value": "229", "state": "calling", **data}
    return client.post(reverse("measure", args=[call.number]), asked, follow=True)


def test_the_circuit_is_drawn_with_what_each_point_should_have_and_where_to_measure(at_work, call, user):
    record_reading(user, call, "compressor", "off")
    record_reading(user, call, "control_call", "calling")
    body = page(at_work, call)
    assert 'data-point="K3"' in body and "K3 228 V to L2 is right here: behind the low-pressure switch" in body
    assert "Leads next" in body and "Calling · now" in body
    assert "Measuring live" in body
    assert "K3 0 V to L2 is right here: behind the low-pressure switch" in page(at_work, call, "defrosting")


def test_a_measurement_is_kept_with_its_points_and_its_state(at_work, call):
    body = measure(at_work, call, state="calling").content.decode()
    kept = Measurement.objects.get()
    assert (kept.what, kept.one, kept.other, kept.value, kept.state) == ("volts", "K1", "L2", 229.0, "calling")
    assert "K1 to L2" in body and LogEntry.objects.filter(action="keep_measurement").count() == 1


def test_volts_that_are_an_observation_go_there(at_work, call):
    measure(at_work, call, one="L1", other="L2", value="231")
    assert not Measurement.objects.exists()
    reading = call.readings.get(key="line_v_12")
    assert reading.value == 231.0


def test_a_pole_is_found_by_two_readings_and_comes_to_its_cause(at_work, call, user):
    record_reading(user, call, "compressor", "humming")
    record_reading(user, call, "contactor", "in")
    measure(at_work, call, one="L1", other="L2", value="229")
    body = measure(at_work, call, one="L1", other="T1", value="198").content.decode()
    assert "Contactor pole 1: pole does not make" in body and "It comes to <b>contactor pole burnt open</b>" in body
    judged = at_work.get(reverse("stop", args=[call.number, "judge"])).content.decode()
    assert "Contactor pole burnt open" in judged


@pytest.mark.parametrize(
    ("data", "says"),
    [
        ({"value": "lots"}, "is not a number"),
        ({"value": "2300"}, "outside 0 to 1000 V"),
        ({"one": "Q9"}, "is not in this circuit"),
        ({"other": "K1"}, "on one point"),
        ({"what": "ohms", "state": "locked_out"}, "Ohms wait for the lock-out"),
        ({"what": "ohms"}, "locked out and proved dead"),
        ({"what": "furlongs"}, "volts, amps or ohms"),
    ],
)
def test_what_cannot_be_is_said_beside_the_field_and_nothing_typed_is_lost(at_work, call, data, says):
    body = measure(at_work, call, **data).content.decode()
    assert says in body and 'id="measure-error"' in body
    assert f'value="{data.get("value", "229")}"' in body
    assert not Measurement.objects.exists()


def test_ohms_are_taken_once_it_is_locked_out(at_work, call, user):
    record_reading(user, call, "power_locked_out", "yes")
    assert "Locked out · now" in page(at_work, call)
    measure(at_work, call, what="ohms", one="C1", other="C2", value="2.4", state="locked_out")
    assert Measurement.objects.get().what == "ohms"


def test_a_clamp_goes_round_one_lead(at_work, call):
    measure(at_work, call, what="amps", one="element_1", other="", value="4.7", state="defrosting")
    kept = Measurement.objects.get()
    assert (kept.one, kept.other) == ("element_1", "")
    assert "Element 1" in page(at_work, call, "defrosting") and "All together" in page(at_work, call, "defrosting")


def test_a_measurement_is_taken_back_and_no_longer_tells(at_work, call):
    measure(at_work, call, value="0")
    kept = Measurement.objects.get()
    at_work.post(reverse("undo-measurement", args=[call.number, kept.pk]))
    kept.refresh_from_db()
    assert kept.undone_at is not None
    assert "K1 to L2" not in page(at_work, call).split("In the circuit")[1]


def test_another_shop_reaches_neither_page_nor_measurement(client, call, stranger, at_work):
    measure(at_work, call)
    client.force_login(stranger)
    kept = Measurement.objects.get()
    assert client.get(reverse("stop", args=[call.number, "power"])).status_code == 404
    assert client.post(reverse("undo-measurement", args=[call.number, kept.pk])).status_code == 404
    assert client.post(reverse("measure", args=[call.number]), {"what": "volts"}).status_code == 404


def pins(client, call, *ohms):
    asked = dict(zip(("pins_12", "pins_23", "pins_31", "pins_shell"), ohms, strict=True))
    return client.post(reverse("windings", args=[call.number]), asked, follow=True).content.decode()


def test_windings_in_any_order_are_kept_under_their_names(at_work, call, user, unit):
    unit.phases = 1
    unit.save()
    record_reading(user, call, "power_locked_out", "yes")
    body = pins(at_work, call, "1.3", "5.5", "4.2", "5 M")
    assert "Common is 1, run 2, start 3" in body and "over 1 MΩ: good" in body
    kept = {reading.key: reading.value for reading in call.readings.all()}
    assert (kept["winding_cr_ohm"], kept["winding_sr_ohm"], kept["winding_cs_ohm"]) == (1.3, 5.5, 4.2)
    assert kept["winding_ground_ohm"] == 5e6


def test_an_open_overload_is_said_and_nothing_is_taken_with_power_on(at_work, call, user, unit):
    unit.phases = 1
    unit.save()
    assert "Ohms wait for the lock-out" in pins(at_work, call, "1.3", "5.5", "4.2", "5 M")
    assert not call.readings.filter(key__startswith="winding").exists()
    record_reading(user, call, "power_locked_out", "yes")
    assert "overload: let it cool" in pins(at_work, call, "open", "5.5", "OL", "5 M")


def test_each_wrong_pin_is_said_beside_its_field_and_nothing_is_half_kept(at_work, call, user):
    record_reading(user, call, "power_locked_out", "yes")
    body = pins(at_work, call, "1.8", "many", "1.8", "-4")
    assert "Pins 2–3: “many” is not a number" in body and "Lowest pin to shell" in body and 'value="many"' in body
    assert not call.readings.filter(key__startswith="winding").exists()


def test_a_capacitor_is_worked_out_by_amps_and_volts(at_work, call, unit):
    unit.phases = 1
    unit.save()
    at = reverse("stop", args=[call.number, "power"])
    body = at_work.get(at, {"cap_amps": "5", "cap_volts": "370", "cap_uf": "35", "cap_pct": "6"}).content.decode()
    assert "35.8 µF against 32.9 to 37.1 µF: good" in body
    wrong = at_work.get(at, {"cap_amps": "5000", "cap_volts": "370", "cap_uf": "35", "cap_pct": "6"}).content.decode()
    assert "above 0 to 200 A" in wrong and 'value="5000"' in wrong


def test_the_next_check_leads_to_its_two_points_on_the_drawing(at_work, call, user):
    for key, word in (("compressor", "humming"), ("contactor", "in"), ("control_call", "calling"), ("box_temp_f", "40")):
        record_reading(user, call, key, word)
    body = at_work.get(reverse("stop", args=[call.number, "judge"])).content.decode()
    link = f"{reverse('stop', args=[call.number, 'power'])}?one=L1&other=L2"
    assert link.replace("&", "&amp;") in body or link in body
    chosen = at_work.get(link).content.decode()
    assert '<option value="L1" selected>' in chosen and '<option value="L2" selected>' in chosen


def test_no_volts_at_heaters_that_rightly_rest_are_no_heater_volts(at_work, call):
    measure(at_work, call, one="H1", other="L2", value="0", state="calling")
    assert not call.readings.filter(key="heater_volts").exists() and Measurement.objects.get().value == 0.0
    measure(at_work, call, one="H1", other="L2", value="228", state="defrosting")
    assert call.readings.get(key="heater_volts").value == 228.0


def test_a_fan_is_measured_on_the_coil_chosen(at_work, call, unit):
    unit.evaporators = 2
    unit.save()
    measure(at_work, call, one="M1", other="L2", value="229", coil="2")
    assert call.readings.get(key="evap_fan_supply_v").evaporator == 2
