"""The charge bench: the answer and its lines, gas in by the scale, a label charge, the receiver's level, the winter charge, a warm day."""

import re

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.call import tell
from tests.examples import some_of
from web.logbook.calls.record import record_of
from web.logbook.models import Act, GasMove, Reading, Weighing

SCALE = {"cylinder": "C-17", "before": "402.5", "after": "394", "lost": "0.5", "form": "liquid"}


def page(client, call, **query):
    return client.get(reverse("charge", args=[call.number]), query).content.decode()


def call_told(call):
    return tell(record_of(call))


def post(client, name, call, **typed):
    return client.post(reverse(name, args=[call.number]), typed, follow=True).content.decode()


@pytest.fixture
def cleared(read_in):
    """A freezer that is short, with everything nearer cleared."""
    read_in(
        ice_form="none", evap_fans="running", condenser_coil="clean", condenser_fans="running", ambient_f="82", box_temp_f="-2",
        sight_glass="flashing", receiver_level_pct="5", leak_test="none_found", suction_psig="8", suction_line_evap_f="-6",
        condenser_blocking="none", bulb="tight_insulated",
    )  # fmt: skip


def test_the_answer_names_what_comes_first(at_work, call, read_in):
    assert "Not yet. Ice: nobody looked" in page(at_work, call)
    read_in(ice_form="hard_ice", ice_places=["coil_whole"])
    assert "No, first this. Ice: melt it all" in page(at_work, call)
    assert "No, first this. Ice" in at_work.get(reverse("stop", args=[call.number, "correct"])).content.decode()


def test_gas_goes_in_by_the_scale_and_what_was_read_after_it_stands_beside(at_work, call, cleared):
    assert "Yes, in small additions" in page(at_work, call)
    body = post(at_work, "charge-add", call, **SCALE, sight_glass="clear", compressor_amps="8.1")
    assert "8.0 oz kept" in body and "Stop: the glass is clear after 8.0 oz" in body and "C-17" in body
    act = Act.objects.get(part="charge", did="added")
    assert act.value == pytest.approx(8.0) and act.weighing.before_oz == 402.5 and act.weighing.form == "liquid"
    assert Reading.objects.get(key="compressor_amps").value == 8.1


@pytest.mark.parametrize(("change", "field", "says"), [
    ({"after": "410"}, "after", "nothing has left it"), ({"before": "heavy"}, "before", "Cylinder before: “heavy”"),
    ({"lost": "90"}, "lost", "is outside 0 to 16 oz"), ({"compressor_amps": "9000"}, "compressor_amps", "9000"),
    ({"before": ""}, "before", "Cylinder before"),
])  # fmt: skip
def test_a_scale_that_cannot_be_is_said_beside_its_field_and_nothing_is_kept(at_work, call, cleared, change, field, says):
    body = post(at_work, "charge-add", call, **SCALE | change)
    assert f'id="{field}-error"' in body and says in body and 'value="C-17"' in body
    assert not Act.objects.exists() and not Weighing.objects.exists() and not Reading.objects.filter(key="compressor_amps").exists()


def test_a_hold_asks_for_a_reason_and_keeps_what_was_typed(at_work, call, read_in):
    read_in(ice_form="hard_ice", ice_places=["coil_whole"])
    body = post(at_work, "charge-add", call, **SCALE)
    assert "To keep it all the same give the reason" in body and 'value="402.5"' in body and not Act.objects.exists()
    post(at_work, "charge-add", call, **SCALE, reason="flush of a new coil")
    assert Act.objects.filter(did="added").exists() and call.overrides.exists()


def test_pounds_and_ounces_are_understood(at_work, call, cleared):
    post(at_work, "charge-add", call, before="25 lb 2 oz", after="24 lb 10 oz")
    assert Act.objects.get().value == pytest.approx(8.0)


def test_the_flooding_valve_is_said_before_a_pound_is_added(at_work, call, cleared, read_in):
    read_in(suction_line_evap_f="-31", receiver_level_pct="40")
    body = page(at_work, call)
    assert "Not short: the valve" in body and "amps, pump-down reached" in body


def test_where_no_scale_stands_gas_is_kept_by_eye_and_said_so_everywhere(at_work, call, cleared):
    assert "No scale here" in page(at_work, call)
    body = post(at_work, "charge-by-eye", call, by="eye", oz="", sight_glass="few_bubbles")
    assert "Kept, marked as without a scale" in body and "Gas by eye in" in body
    act = Act.objects.get()
    assert act.by_eye and act.value is None and not GasMove.objects.exists() and Reading.objects.get(key="sight_glass", at__gt=act.at)
    told = call_told(call)
    assert any("added by eye, without a scale" in text for text in told.said("done"))


def test_by_the_amps_the_estimate_is_worked_out_and_goes_into_the_ledger_as_one(at_work, call, cleared, read_in, unit):
    unit.compressor_rla_a, unit.metering, unit.receiver = 9.0, "cap_tube", False
    unit.save()
    read_in(box_temp_f="12", compressor_amps="5.0")
    body = post(at_work, "charge-by-eye", call, by="amps", compressor_amps="5.9", reason="capillary, by its amps")
    act = Act.objects.get(did="added")
    assert "marked as without a scale" in body and act.by_eye and act.value and act.note == "by the amps, 5.0 to 5.9 A"
    move = GasMove.objects.get()
    assert move.oz == act.value and move.reason == "an estimate: no scale"
    assert any(f"about {act.value:.0f} oz (by the amps, 5.0 to 5.9 A)" in text for text in call_told(call).said("done"))


@pytest.mark.parametrize(("typed", "field", "says"), [
    ({"by": "amps"}, "compressor_amps", "as they stand now, A"), ({"oz": "lots"}, "oz", "lots"),
    ({"oz": "9000"}, "oz", "outside 0 to 4000"),
    ({"compressor_amps": "900"}, "compressor_amps", "900"),
])  # fmt: skip
def test_what_cannot_be_is_said_beside_its_field_without_a_scale_too(at_work, call, cleared, typed, field, says):
    body = post(at_work, "charge-by-eye", call, **{"by": "eye", "oz": "12", "cylinder": "C-17"} | typed)
    assert f'id="{field}-error"' in body and says in body and 'value="C-17"' in body and not Act.objects.exists()


@pytest.fixture
def critical(unit):
    unit.kind, unit.refrigerant, unit.metering, unit.receiver = "reach_in_cooler", "R-134a", "cap_tube", False
    unit.critical_charge_oz, unit.defrost, unit.box_control, unit.head_control = 8.0, "", "", ""
    unit.save()


def test_a_label_charge_is_weighed_in_to_the_tenth(at_work, call, critical):
    assert "weigh in 8.0 oz" in page(at_work, call)
    body = post(at_work, "charge-weigh", call, before="60", after="51.4", lost="0.2", reason="box warm, all else cleared")
    assert "8.4 oz in. 0.4 oz over" in body and "the suction" not in body
    at_work.post(reverse("take-back", args=[call.number, "act", Act.objects.get().pk]))
    assert "8.4 oz in" not in page(at_work, call)


def test_what_should_run_stands_beside_what_runs(at_work, call, cleared):
    body = page(at_work, call)
    assert "It should run" in body and "8 psig" in body and "box −2 °F, air on the condenser 82 °F" in body


def test_at_rest_and_the_winter_charge_are_worked_out_by_address(at_work, call, unit):
    unit.refrigerant, unit.head_control, unit.receiver = "R-404A", "mixing_valve", True
    unit.save()
    body = page(at_work, call, rest_psig="220", pipe_f="75", held_f="80", split_f="15", ambient_f="20", volume_ft3="0.3", summer_lb="20")
    assert "air, or another gas" in body and "15.6 lb" in body and "75 %" in body
    # It holds for the visit.
    assert "15.6 lb" in page(at_work, call)
    wrong = page(at_work, call, volume_ft3="lots", held_f="500", rest_psig="−500")
    assert "“lots” is not a figure" in wrong and 'id="held_f-error"' in wrong and 'id="rest_psig-error"' in wrong


@pytest.mark.parametrize(("place", "value"), list(enumerate(["-500", "1e30", "nan", "inf", "999", "-59", "144", "٣", "0", "0.01"])))
def test_no_figure_breaks_the_page(at_work, call, unit, place, value):
    unit.head_control, unit.receiver = "mixing_valve", True
    unit.save()
    names = ("rest_psig", "pipe_f", "volume_ft3", "tube_ft", "bore_in", "summer_lb", "split_f", "held_f", "ambient_f", "summer_level",
             "length_in", "diameter_in", "liquid_f")  # fmt: skip
    for name in some_of(names, 2, place):
        assert "May gas be added?" in page(at_work, call, **{name: value})
    assert "May gas be added?" in page(at_work, call, **dict.fromkeys(names, value))


def test_the_receivers_level_is_kept_and_counted_in_pounds(at_work, call, unit):
    unit.refrigerant, unit.receiver = "R-404A", True
    unit.save()
    post(at_work, "charge-level", call, level_pct="50")
    # 24 in of 6 in across, half full of R-404A at 100 °F: 0.5 x 0.393 ft³ x 61.7 lb/ft³ = 12.1 lb.
    assert re.search(r"is 12\.[012] lb of liquid", page(at_work, call, length_in="24", diameter_in="6", liquid_f="100"))
    assert "outside" in post(at_work, "charge-level", call, level_pct="140")


def test_a_warm_day_is_promised(at_work, call):
    post(at_work, "charge-warm-day", call, day="2020-01-01")
    assert not call.follow_ups.exists()
    post(at_work, "charge-warm-day", call, day=timezone.localdate().isoformat())
    assert "above 70 °F" in call.follow_ups.get().why


def test_the_charge_of_another_shop_is_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    for name in ("charge-add", "charge-weigh", "charge-level", "charge-warm-day"):
        assert client.post(reverse(name, args=[call.number]), SCALE).status_code == 404
    assert client.get(reverse("charge", args=[call.number])).status_code == 404
