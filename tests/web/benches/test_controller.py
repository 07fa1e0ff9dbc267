"""The case controller on a call, against the simulated one: read, taken as found, written and read back, refused, lost."""

import pytest
from django.core.exceptions import PermissionDenied
from django.urls import reverse

from web.benches.defrost.actions.keep_program import keep_program
from web.logbook.actions.devices import choose_device
from web.logbook.calls.controller_talks import in_service, last_read
from web.logbook.models import ControllerTalk, DefrostProgram, Device, Unit


def page(client, call):
    return client.get(reverse("controller", args=[call.number])).content.decode()


def post(client, name, call, *more):
    return client.post(reverse(name, args=[call.number, *more]), follow=True).content.decode()


def test_all_settings_are_read_checked_and_taken_as_found(at_work, call, stand_in):
    assert "Read all settings" in page(at_work, call)
    body = post(at_work, "read-controller", call)
    assert "All settings are read" in body and "−5 °F" in body and "coil, end of defrost" in body
    assert "Alarm delay 20 min is shorter than a defrost" in body
    live = at_work.get(reverse("controller", args=[call.number]), headers={"HX-Request": "true"}).content.decode()
    assert "Coil probe" in live and "°F" in live
    assert call.readings.get(key="controller_alarm").value == "none"
    assert "is kept as found" in post(at_work, "take-controller", call)
    kept = DefrostProgram.objects.get()
    assert kept.side == "found" and len(kept.starts) == 8
    assert (kept.figures["fail_safe_min"], kept.figures["termination_f"], kept.figures["alarm_delay_min"]) == (45, 85, 20)


@pytest.fixture
def in_hand(at_work, user, call, stand_in):
    """Read, as found and as left kept; the controller is still out of service mode."""
    post(at_work, "read-controller", call)
    post(at_work, "take-controller", call)
    left = {"starts": "02:30 10:00 18:00", "fail_safe_min": "30", "termination_f": "55", "drip_min": "3", "fan_delay_f": "25",
            "pump_down_min": "0", "demand_pct": "0", "alarm_delay_min": "60"}  # fmt: skip
    keep_program(user, call, "left", left, "planned")
    return call


def test_as_left_is_written_only_in_service_mode_and_read_back(at_work, in_hand, stand_in):
    call = in_hand
    assert "Put the controller in service mode first" in post(at_work, "write-controller", call)
    assert not ControllerTalk.objects.exclude(wrote={}).exists()
    body = post(at_work, "controller-service", call, "service")
    assert "1 confirmed" in body and "It is in service mode" in body
    body = post(at_work, "write-controller", call)
    # It keeps whole hours, without a word: 02:30 comes back as 02:00 and is not called written.
    assert "1 of" in body and "kept its own value" in body and "02:30" in body
    talk = ControllerTalk.objects.exclude(wrote={}).last()
    assert (talk.wrote["start_1"], talk.settings["start_1"], talk.settings["fail_safe_min"]) == (150.0, 120.0, 30.0)
    assert stand_in.controller.settings["fail_safe_min"] == 30
    # Every stop of the call warns until it is left.
    stop = at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()
    assert "in service mode" in stop
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "was left in service mode" in report and "<b>02:30</b>, kept its own value 02:00" in report
    assert "<b>8 a day</b>, at 00:00 03:00 06:00" in report and "<b>3 a day</b>, at 02:30 10:00 18:00" in report
    post(at_work, "controller-service", call, "leave")
    assert not in_service(call)
    assert "in service mode" not in at_work.get(reverse("stop", args=[call.number, "hand-over"])).content.decode()


def test_a_refused_value_is_shown_and_the_rest_goes_on(at_work, user, in_hand):
    call = in_hand
    post(at_work, "controller-service", call, "service")
    left = {"starts": "02:00", "fail_safe_min": "200", "termination_f": "55"}
    keep_program(user, call, "left", left, "much too long")
    body = post(at_work, "write-controller", call)
    assert "200 min is outside 5 to 90 min" in body and "refused" in body
    talk = ControllerTalk.objects.exclude(wrote={}).last()
    assert set(talk.refused) == {"fail_safe_min"} and talk.settings["fail_safe_min"] == 45 and talk.settings["termination_f"] == 55


def test_a_lost_connection_is_said_and_nothing_counts_as_written(at_work, in_hand, stand_in):
    call = in_hand
    post(at_work, "controller-service", call, "service")
    stand_in.stop()
    body = post(at_work, "write-controller", call)
    assert "does not answer" in body and "Nothing counts as written" in body and "not known" in body
    talk = ControllerTalk.objects.exclude(wrote={}).last()
    assert talk.settings == {} and talk.complaint
    assert last_read(call).settings["fail_safe_min"] == 45 and in_service(call)
    assert "does not answer" in post(at_work, "read-controller", call)
    live = at_work.get(reverse("controller", args=[call.number]), headers={"HX-Request": "true"}).content.decode()
    assert "Lost." in live


def test_a_defrost_is_started_in_service_mode_alone(at_work, in_hand, stand_in):
    call = in_hand
    assert "No defrost was started" in post(at_work, "controller-defrost", call)
    post(at_work, "controller-service", call, "service")
    assert "told to start a defrost" in post(at_work, "controller-defrost", call)
    assert stand_in.controller.state.defrosting[0] == 1


def test_nothing_is_written_before_it_was_read_or_where_nothing_differs(at_work, user, call, stand_in):
    assert "Keep a program as left first" in post(at_work, "write-controller", call)
    assert "Read the controller first" in post(at_work, "controller-service", call, "service")
    assert "Read the controller first" in post(at_work, "take-controller", call)
    post(at_work, "read-controller", call)
    assert "nothing was written" in post(at_work, "controller-service", call, "leave")


def test_without_a_controller_one_of_the_shop_is_chosen(at_work, user, call, stand_in):
    device = call.unit.shop.devices.get()
    choose_device(user, call.unit, "controller", None)
    assert "This unit has no controller" in page(at_work, call)
    assert at_work.post(reverse("read-controller", args=[call.number])).status_code == 404
    answer = at_work.post(reverse("choose-controller", args=[call.number]), {"device": device.pk}, follow=True)
    assert "Read all settings" in answer.content.decode()


def test_a_controller_of_another_shop_is_out_of_reach(at_work, stranger, call, stand_in):
    theirs = Device.objects.create(shop=stranger.member.shop, name="Theirs", kind="controller", address="127.0.0.1:9")
    unit = Unit.objects.create(shop=stranger.member.shop, name="X", kind="prep_rail", refrigerant="R-290")
    choose_device(stranger, unit, "controller", theirs)
    assert at_work.post(reverse("choose-controller", args=[call.number]), {"device": theirs.pk}).status_code == 404
    with pytest.raises(PermissionDenied):
        choose_device(stranger, call.unit, "controller", theirs)
    call.unit.refresh_from_db()
    assert call.unit.controller.name == "Test controller"


def test_what_a_simulated_controller_says_is_marked(at_work, user, call, stand_in):
    call.unit.shop.devices.update(simulated=True)
    assert "is simulated" in page(at_work, call)
    post(at_work, "read-controller", call)
    post(at_work, "take-controller", call)
    assert {r.source for r in call.readings.all()} == {"controller, simulated"}
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "Simulated, not measured" in report and "Fail-safe set" in report
    assert '"source": "controller, simulated"' in at_work.get(reverse("export-case", args=[call.number])).content.decode()


def test_a_controller_that_is_not_this_units_is_written_to_with_a_reason_alone(at_work, in_hand):
    call = in_hand
    Unit.objects.filter(pk=call.unit_id).update(refrigerant="R-448A")
    assert "does not look like the unit" in page(at_work, call)
    assert "Say in 3 to 300 letters" in post(at_work, "controller-service", call, "service")
    assert not in_service(call)
    address = reverse("controller-service", args=[call.number, "service"])
    assert "confirmed" in at_work.post(address, {"reason": "refilled with R-448A last year"}, follow=True).content.decode()
    assert ControllerTalk.objects.last().reason == "refilled with R-448A last year"
    assert "refilled with R-448A last year" in at_work.get(reverse("report", args=[call.number])).content.decode()
