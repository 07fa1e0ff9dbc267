import re

import pytest
from django.urls import reverse

from kettle.knowledge.equipment import UnitSpec, resolve
from web.logbook.calls.judging import judge_call
from web.logbook.models import LogEntry, Reading
from web.round.drawing import CIRCUIT, TAG_HEIGHT
from web.round.standing import Standing


def enter(client, call, key, value, stop="read", view="", **headers):
    sent = {key: value, "stop": stop, "view": view}
    return client.post(reverse("enter", args=[call.number, key]), sent, HTTP_HX_REQUEST="true", **headers)


def test_an_entry_is_stored_with_time_and_person_and_answers_with_its_consequences(at_work, user, call):
    enter(at_work, call, "suction_psig", "8.6")
    body = enter(at_work, call, "suction_line_evap_f", "-1,5").content.decode()
    reading = Reading.objects.get(key="suction_line_evap_f")
    assert (reading.value, reading.typed, reading.by, reading.call) == (-1.5, "-1,5", user, call)
    assert 'id="tag-suction_line_evap_f"' in body
    assert 'value="-1.5"' in body
    for part in ("quantities", "standing", "round", "undo", "facts"):
        assert f'id="{part}" ' in body or f'id="{part}"' in body
    assert body.count("hx-swap-oob") == 5
    assert "30.2" in body or "30.3" in body
    assert LogEntry.objects.filter(action="record_reading", by=user, call=call).count() == 2


def test_vacuum_is_understood_and_shown_in_inches(at_work, call):
    body = enter(at_work, call, "suction_psig", "5 inHg").content.decode()
    assert "5.0 inHg" in body
    assert "Suction is in vacuum" in body


@pytest.mark.parametrize(("typed", "says"), [("900", "outside −14.7 to 700 psig"), ("cold", "is not a number"), ("", "is not a number")])
def test_bad_input_gets_one_message_beside_the_field_and_stores_nothing(at_work, call, read_in, typed, says):
    read_in(suction_psig="8.6", box_temp_f="3")
    body = enter(at_work, call, "suction_psig", typed).content.decode()
    assert says in body
    assert "Still stands: 8.6 psig" in body
    assert f'value="{typed}"' in body
    assert Reading.objects.count() == 2


def test_a_word_not_on_the_list_is_refused(at_work, call):
    assert "is not one of" in enter(at_work, call, "sight_glass", "cloudy").content.decode()
    assert at_work.post(reverse("enter", args=[call.number, "no_such"]), {}).status_code == 404
    assert not Reading.objects.exists()


def test_the_latest_stands_history_is_kept_and_undo_takes_back_one(at_work, call, read_in):
    read_in(suction_psig="8.6")
    read_in(suction_psig="9.4")
    assert judge_call(call).facts.seen["suction_psig"] == 9.4
    body = at_work.post(reverse("undo", args=[call.number]), {"stop": "read"}, HTTP_HX_REQUEST="true").content.decode()
    assert 'value="8.6"' in body
    assert judge_call(call).facts.seen["suction_psig"] == 8.6
    assert Reading.objects.count() == 2
    assert Reading.objects.get(value=9.4).undone_by is not None
    at_work.post(reverse("undo", args=[call.number]))
    at_work.post(reverse("undo", args=[call.number]))
    assert judge_call(call).facts.seen == {}


def test_ice_places_take_several(at_work, call):
    enter(at_work, call, "ice_places", ["coil_bottom", "drain_pan"], stop="arrive")
    assert Reading.objects.get().value == ["coil_bottom", "drain_pan"]


def test_the_asked_check_is_answered_in_the_standing(at_work, call, starved):
    page = at_work.get(reverse("stop", args=[call.number, "judge"])).content.decode()
    key = Standing(call).next_check.key
    assert f'id="look-{key}"' in page or f'id="in-{key}"' in page
    body = enter(at_work, call, "drier_drop_f", "0.5", stop="judge", HTTP_HX_TARGET="standing").content.decode()
    assert body.lstrip().startswith("<aside")
    assert Reading.objects.filter(key="drier_drop_f").exists()


def fields(client, call):
    return re.findall(
        r'<(?:input|select) id="in-[^>]* name="(\w+)"', client.get(reverse("stop", args=[call.number, "read"])).content.decode()
    )


def test_every_field_carries_its_key_as_name(at_work, call):
    expected = [place.key for place in CIRCUIT.places if not place.key.startswith("water")]
    assert fields(at_work, call) == expected


@pytest.mark.parametrize(
    ("build", "without", "with_"),
    [
        ({"metering": "cap_tube", "receiver": False}, {"bulb", "sight_glass", "receiver_level_pct"}, {"ambient_f"}),
        ({"condensing": "water"}, {"ambient_f", "condenser_coil", "condenser_fans"}, {"water_in_f", "water_out_f"}),
    ],
)
def test_the_drawing_leaves_out_what_the_unit_has_not(at_work, call, build, without, with_):
    for name, value in build.items():
        setattr(call.unit, name, value)
    call.unit.save()
    shown = set(fields(at_work, call))
    assert not without & shown
    assert with_ <= shown


@pytest.mark.parametrize("condensing", ["air", "water"])
def test_tags_stay_on_the_canvas_and_off_each_other(condensing):
    drawing = CIRCUIT
    unit = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", condensing=condensing))
    boxes = [(p.x, p.y, p.x + p.width, p.y + TAG_HEIGHT) for p in drawing.places_for(unit)]
    for i, (x1, y1, x2, y2) in enumerate(boxes):
        assert x1 >= 0
        assert y1 >= 0
        assert x2 <= drawing.width
        assert y2 <= drawing.height
        for a1, b1, a2, b2 in boxes[i + 1 :]:
            assert x2 <= a1 or a2 <= x1 or y2 <= b1 or b2 <= y1


def test_a_closed_call_takes_nothing_more(at_work, call):
    at_work.post(reverse("close", args=[call.number]), {"reason": "nobody there, back tomorrow"})
    assert "is closed" in enter(at_work, call, "suction_psig", "10").content.decode()
    assert not Reading.objects.exists()


def test_pages_cost_few_queries(at_work, call, starved, django_assert_max_num_queries):
    with django_assert_max_num_queries(16):
        at_work.get(reverse("stop", args=[call.number, "read"]))


def test_display_and_own_thermometer_give_the_sensor_error(user, at_work, call, read_in):
    read_in(display_temp_f="34")
    assert "sensor_error_f" not in judge_call(call).facts.seen
    body = enter(at_work, call, "box_temp_f", "37.5", stop="arrive", view="part").content.decode()
    assert judge_call(call).facts.seen["sensor_error_f"] == -3.5
    assert "off −3.5°" in at_work.get(reverse("stop", args=[call.number, "arrive"])).content.decode()
    assert "The display is −3.5 °F off" in body
    at_work.post(reverse("undo", args=[call.number]), {"stop": "arrive"})
    assert "sensor_error_f" not in judge_call(call).facts.seen
    assert judge_call(call).facts.seen["display_temp_f"] == 34.0


def test_a_fan_found_standing_still_stops_the_judging_of_superheat(at_work, call):
    enter(at_work, call, "fans_still", ["fan_2"], stop="arrive")
    judgement = judge_call(call)
    assert judgement.facts.seen["evap_fans"] == "some_stopped"
    assert "fans_not_running" in {hold.code for hold in judgement.holds}
    at_work.post(reverse("undo", args=[call.number]), {"stop": "arrive"})
    assert judge_call(call).facts.seen == {}
