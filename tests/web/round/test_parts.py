"""Every fact has a place: the parts' sheets, everything taken, and words as they come to mind."""

import json
import re
from datetime import timedelta

import pytest
from django.urls import reverse
from django.utils import timezone

from kettle.knowledge import anatomy
from kettle.knowledge.errors import InputError
from web.benches.defrost.actions.keep_program import keep_program
from web.logbook.actions.keep_happened import keep_happened
from web.logbook.actions.open_call import open_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.calls.judging import told_of
from web.logbook.models import Act, Happened, Reading, Unit


@pytest.mark.parametrize("part", [part.code for part in anatomy.PARTS.values()])
def test_each_part_has_a_sheet_with_a_field_for_all_that_is_seen_of_it(call, at_work, part):
    response = at_work.get(reverse("part", args=[call.number, part]))
    unit = call.unit.resolved()
    if not anatomy.get(part).exists_on(unit):
        assert response.status_code == 404
        return
    body = response.content.decode()
    only_then = {"fan_delay", "someone_outside", "drip"}
    assert [e.key for e in anatomy.get(part).observed_on(unit) if f'id="look-{e.key}"' not in body and e.key not in only_then] == []
    assert all(act.label in body for act in anatomy.get(part).acts_on(unit))


def test_the_parts_are_shown_with_what_is_known(call, at_work, read_in):
    read_in(door_switch="open", moisture_dot="wet")
    body = at_work.get(reverse("parts", args=[call.number])).content.decode()
    assert "Door switch: open" in body and "Moisture dot: wet" in body and "Capillary tube" not in body


def test_a_field_on_a_sheet_keeps_and_corrects(call, at_work):
    for word in ("open", "made"):
        response = at_work.post(reverse("enter", args=[call.number, "door_switch"]),
                                {"door_switch": word, "stop": "judge", "view": "part"}, headers={"HX-Request": "true"})  # fmt: skip
        assert 'id="look-door_switch"' in response.content.decode() and "HX-Refresh" not in response
    assert [reading.value for reading in Reading.objects.all()] == ["open", "made"]


def test_everything_taken_is_listed_by_stage_and_taken_back(call, at_work, read_in, user):
    record_reading(user, call, "bulb", "loose", at=timezone.now() - timedelta(hours=1))
    at_work.post(reverse("done", args=[call.number]), {"act": "bulb.clamped"})
    read_in(box_temp_f="-3")
    body = at_work.get(reverse("taken", args=[call.number])).content.decode()
    found, after = body.index("As found"), body.index("After: bulb clamped")
    assert found < body.index("<b>loose</b>") < after < body.index("<b>−3.0 °F</b>")
    reading = Reading.objects.get(key="bulb")
    response = at_work.post(reverse("take-back", args=[call.number, "reading", reading.pk]))
    assert response.url == reverse("taken", args=[call.number])
    reading.refresh_from_db()
    assert reading.undone_at is not None


def test_every_kind_of_entry_taken_is_listed_named_and_taken_back_there(call, at_work, user):
    post = lambda name, **typed: at_work.post(reverse(name, args=[call.number]), typed)  # noqa: E731
    post("done", act="bulb.clamped")
    post("found", causes="txv_overfeeding")
    post("put-there", what="jumper", where="K3 to K4")
    post("microns", microns="480")
    taken = reverse("taken", args=[call.number])
    kinds = {"act": "Bulb clamped", "finding": "valve feeding too much", "placed": "K3 to K4", "vacuumreading": "480"}
    for what, words in kinds.items():
        body = at_work.get(taken).content.decode()
        named = re.search(rf'aria-label="Take back ([^"]*{words}[^"]*)"', body, re.IGNORECASE)
        assert named, (what, words)
        address = re.search(rf'action="([^"]*take-back/{what}/[0-9]+/)"', body)
        assert address, what
        assert at_work.post(address.group(1), {"back": "taken"}).url == taken
        assert named.group(1) not in at_work.get(taken).content.decode()


def test_a_program_taken_back_takes_its_settings_and_readings_along(call, at_work, user):
    found = {"starts": "6:00 18:00", "fail_safe_min": "20", "termination_f": "50"}
    keep_program(user, call, "found", found)
    keep_program(user, call, "left", found | {"fail_safe_min": "30"}, why="coil part iced")
    left = call.defrostprograms.get(side="left")
    at_work.post(reverse("take-back", args=[call.number, "defrostprogram", left.pk]), {"back": "taken"})
    assert not call.settingchanges.filter(undone_at=None).exists()
    first = call.defrostprograms.get(side="found")
    at_work.post(reverse("take-back", args=[call.number, "defrostprogram", first.pk]), {"back": "taken"})
    assert not call.readings.filter(undone_at=None).exists()


def test_what_more_hangs_on_or_of_another_call_is_not_taken_back_here(call, at_work, unit, user):
    other = open_call(user, Unit.objects.create(shop=unit.shop, name="Other", kind="reach_in_cooler", refrigerant="R-290"))
    reading = record_reading(user, other, "box_temp_f", "40")
    for what, pk in (("reading", reading.pk), ("partused", 1), ("controllertalk", 1), ("moon", 1)):
        assert at_work.post(reverse("take-back", args=[call.number, what, pk])).status_code == 404
    reading.refresh_from_db()
    assert reading.undone_at is None


def test_words_are_shown_before_they_are_kept(call, at_work):
    shown = at_work.get(reverse("heard", args=[call.number]), {"words": "suction 26F"}).content.decode()
    assert "Suction: 63.5 psig" in shown and not Reading.objects.exists()
    unseen = at_work.post(reverse("note", args=[call.number]), {"words": "suction 26F", "stop": "read"}).content.decode()
    assert "Suction: 63.5 psig" in unseen and not Reading.objects.exists(), "Enter before it was shown shows it"
    kept = at_work.post(reverse("note", args=[call.number]), {"words": "suction 26F", "meant": "Suction: 63.5 psig", "stop": "read"})
    reading = Reading.objects.get()
    assert (reading.key, round(reading.value, 1), reading.typed) == ("suction_psig", 63.5, "suction 26F")
    assert "Kept: Suction: 63.5 psig" in kept.content.decode() and 'id="tag-suction_psig"' in kept.content.decode()


def test_words_of_a_list_join_what_stands(call, at_work, read_in):
    read_in(ice_places=["door_frame"])
    at_work.post(reverse("note", args=[call.number]), {"words": "ice on ceiling", "meant": "Ice where: ceiling", "stop": "arrive"})
    assert Reading.objects.filter(key="ice_places").last().value == ["door_frame", "ceiling"]


def test_an_act_is_noted_too(call, at_work):
    answer = at_work.post(reverse("note", args=[call.number]), {"words": "drain cleared", "meant": "Done: drain cleared", "stop": "arrive"})
    assert Act.objects.get().code == "drain.cleared" and answer["HX-Refresh"] == "true"


def test_what_is_not_understood_or_must_wait_is_said(call, at_work, read_in):
    nothing = at_work.post(reverse("note", args=[call.number]), {"words": "qwrtz blorp", "stop": "read"}).content.decode()
    assert "In words" in nothing and not Happened.objects.exists(), "shown before it is kept"
    read_in(ice_form="hard_ice", ice_places=["coil_whole"])
    held = at_work.post(reverse("note", args=[call.number]), {"words": "suction 12", "meant": "Suction: 12.0 psig", "stop": "read"})
    assert "waits" in held.content.decode() and not Reading.objects.filter(key="suction_psig").exists()


def noted(at_work, call, words, *meant, **more):
    return at_work.post(reverse("note", args=[call.number]), {"words": words, "meant": list(meant), "stop": "read", **more})


def test_several_facts_of_one_sentence_are_kept_and_the_rest_stays(call, at_work):
    words = "glass clear, bulb insulated, lamp out in box"
    answer = noted(at_work, call, words, "Sight glass: clear", "In words, at box")
    assert Reading.objects.get().key == "sight_glass" and Reading.objects.get().typed == "glass clear"
    kept = Happened.objects.get()
    assert (kept.kind, kept.data) == ("note", {"text": "lamp out in box", "part": "box"})
    assert json.loads(answer["HX-Trigger"]) == {"noted": {"rest": "bulb insulated"}}, "what has to be chosen is not taken by Enter"
    noted(at_work, call, "bulb insulated", "Done: bulb insulated")
    assert not Act.objects.exists(), "an act that is only offered is not kept by Enter"
    noted(at_work, call, "bulb insulated", "Done: bulb insulated", piece=0)
    assert Act.objects.get().code == "bulb.insulated"


def test_what_is_refused_is_kept_as_words_only_where_that_was_tapped(call, at_work):
    shown = noted(at_work, call, "box 45 psig", "In words, at box").content.decode()
    assert "a pressure" in shown and not Happened.objects.exists()
    noted(at_work, call, "box 45 psig", "In words, at box", piece=0)
    assert Happened.objects.get().data["text"] == "box 45 psig" and not Reading.objects.exists()


def test_looks_temperatures_and_words_stand_at_their_part_and_in_the_report(call, at_work):
    noted(at_work, call, "compressor seized", "Seen: compressor seized")
    noted(at_work, call, "contactor 148F", "Contactor: 148.0 °F by thermometer")
    noted(at_work, call, "lamp out in box", "In words, at box")
    assert [row.kind for row in Happened.objects.order_by("pk")] == ["looked", "spot", "note"]
    assert "Compressor seized" in at_work.get(reverse("part", args=[call.number, "compressor"])).content.decode()
    assert "148.0 °F by thermometer" in at_work.get(reverse("part", args=[call.number, "contactor"])).content.decode()
    said = at_work.get(reverse("taken", args=[call.number])).content.decode()
    assert "Compressor seized" in said and "Box: lamp out in box" in said
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "lamp out in box" in report and "148.0 °F by thermometer" in report and "ompressor seized" in report
    row = Happened.objects.get(kind="looked")
    at_work.post(reverse("take-back", args=[call.number, "happened", row.pk]), {"back": "compressor"})
    row.refresh_from_db()
    assert row.undone_at is not None


def test_how_a_part_looked_is_tapped_on_its_sheet(call, at_work):
    at_work.post(reverse("looked", args=[call.number]), {"part": "evap_fan", "state": "tight", "stop": "read"})
    assert Happened.objects.get().data == {"part": "evap_fan", "state": "tight"}
    wrong = at_work.post(reverse("looked", args=[call.number]), {"part": "evap_fan", "state": "moon"}, follow=True).content.decode()
    assert "is not known" in wrong and Happened.objects.count() == 1
    assert at_work.post(reverse("looked", args=[call.number]), {"part": "moon", "state": "tight"}).status_code == 404


def test_words_beyond_their_length_and_other_kinds_are_refused(call, user):
    with pytest.raises(InputError, match="not kept here"):
        keep_happened(user, call, "retrofit", {"to": "R-449A"})
    with pytest.raises(InputError, match="Note"):
        keep_happened(user, call, "note", {"text": "x" * 5000})
    with pytest.raises(InputError, match="this unit has none"):
        keep_happened(user, call, "spot", {"part": "cap_tube", "temp_f": 50.0})
    assert not Happened.objects.exists()


def test_display_and_thermometer_of_different_times_are_no_pair(user, call):
    record_reading(user, call, "display_temp_f", "-4", at=timezone.now() - timedelta(hours=2))
    record_reading(user, call, "box_temp_f", "11")
    assert not Reading.objects.filter(key="sensor_error_f").exists()
    record_reading(user, call, "display_temp_f", "10")
    assert Reading.objects.get(key="sensor_error_f").value == -1.0


def test_what_was_told_is_asked_on_arrival(call, at_work):
    body = at_work.get(reverse("stop", args=[call.number, "arrive"]) + "?part=told").content.decode()
    assert "Called about" in body and "Last visit changed" in body and 'name="complaint"' in body


def test_how_warm_any_part_was_is_kept_on_its_sheet_by_thermometer_or_camera(at_work, call):
    sheet = at_work.get(reverse("part", args=[call.number, "contactor"])).content.decode()
    assert "How warm it is, °F" in sheet
    body = at_work.post(
        reverse("spot", args=[call.number]), {"part": "contactor", "temp": "168", "by": "camera"}, follow=True
    ).content.decode()
    assert "Contactor: 168.0 °F kept" in body and "168" in body
    told = " ".join(sentence.text for sentence in told_of(call).sentences)
    assert "168" in told and "contactor" in told.lower()
    refused = at_work.post(reverse("spot", args=[call.number]), {"part": "contactor", "temp": "hot", "by": "camera"}).content.decode()
    assert 'id="spot-contactor-error"' in refused and 'value="hot"' in refused
    far = at_work.post(reverse("spot", args=[call.number]), {"part": "contactor", "temp": "5000", "by": "camera"}).content.decode()
    assert "900" in far and call.happeneds.filter(kind="spot").count() == 1
    assert at_work.post(reverse("spot", args=[call.number]), {"part": "moon", "temp": "60"}).status_code == 404
