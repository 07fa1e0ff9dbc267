"""The Programs stop: as found, as left, what goes against sense, hours."""

import pytest
from django.urls import reverse

from web.logbook.calls.judging import judge_call
from web.logbook.models import DefrostProgram, LogEntry, SettingChange

FOUND = {"starts": "8 a day", "fail_safe_min": "45", "termination_f": "55", "drip_min": "0", "fan_delay_f": "25"}
LEFT = FOUND | {"starts": "00:00 05:00 12:00 19:00", "fail_safe_min": "30", "drip_min": "3", "why": "clear after 24 min"}


def keep(client, call, side, typed):
    return client.post(reverse("keep-program", args=[call.number, side]), typed)


def page(client, call, **asked):
    return client.get(reverse("stop", args=[call.number, "programs"]), asked).content.decode()


def test_as_found_stands_for_what_was_read(at_work, user, call):
    keep(at_work, call, "found", FOUND)
    kept = DefrostProgram.objects.get()
    assert (kept.side, len(kept.starts), kept.figures["fail_safe_min"], kept.by) == ("found", 8, 45.0, user)
    seen = judge_call(call).facts.seen
    assert (seen["defrosts_per_day"], seen["defrost_set_min"], seen["termination_f"]) == (8.0, 45.0, 55.0)
    body = page(at_work, call)
    assert "8 a day" in body and "No drip" in body and "defrost 03:00, 45 min at most" in body


def test_as_left_needs_as_found_and_a_reason_and_its_changes_are_settings(at_work, call):
    refused = keep(at_work, call, "left", LEFT).content.decode()
    assert "Keep the program as found first" in refused and 'value="00:00 05:00 12:00 19:00"' in refused
    keep(at_work, call, "found", FOUND)
    assert "Why: say it" in keep(at_work, call, "left", LEFT | {"why": ""}).content.decode()
    keep(at_work, call, "left", LEFT)
    changed = {change.parameter: (change.as_found, change.as_left) for change in SettingChange.objects.all()}
    assert changed == {
        "defrosts_per_day": ("8 a day", "4 a day"),
        "fail_safe": ("45 min", "30 min"),
        "drip": ("0 min", "3 min"),
    }
    body = page(at_work, call)
    assert "4 a day" in body and "as found 03:00" in body and "● Nothing." in body
    assert LogEntry.objects.filter(action="keep_program").count() == 2


def test_a_wrong_value_is_said_beside_its_field_and_nothing_is_stored(at_work, call):
    body = keep(at_work, call, "found", FOUND | {"fail_safe_min": "999", "starts": "25:00"}).content.decode()
    assert "Fail-safe: 999.0 min is outside 1 to 240 min" in body and "no time of day" in body
    assert 'value="999"' in body and 'value="55"' in body
    assert not DefrostProgram.objects.exists()


def test_hours_are_the_sites_and_a_start_that_meets_a_delivery_is_told(at_work, call):
    at_work.post(reverse("hours", args=[call.number]), {"opens": "7", "closes": "18:30", "deliveries": "03:10, 13:00"})
    call.unit.site.refresh_from_db()
    assert (call.unit.site.opens_min, call.unit.site.deliveries_min) == (420, [190, 780])
    keep(at_work, call, "found", FOUND)
    assert "Meets a delivery: 03:00" in page(at_work, call)
    refused = at_work.post(reverse("hours", args=[call.number]), {"opens": "late"}, follow=True).content.decode()
    assert "no time of day" in refused


def test_programs_of_another_shop_are_out_of_reach(client, stranger, call):
    client.force_login(stranger)
    assert keep(client, call, "found", FOUND).status_code == 404
    assert client.post(reverse("hours", args=[call.number])).status_code == 404


@pytest.mark.parametrize("side", ["middle"])
def test_there_are_two_sides(at_work, call, side):
    assert "not one of found, left" in at_work.post(reverse("keep-program", args=[call.number, side]), FOUND, follow=True).content.decode()
