"""The picture of the unit: every part of every kind on it, large enough for a glove, its state in its shape."""

import re
from itertools import combinations

import pytest
from django.template.loader import render_to_string
from django.urls import reverse

from kettle.knowledge import anatomy, observations
from kettle.knowledge.equipment import BUILDS, KINDS, UnitSpec, builds_of, resolve
from tests.examples import some_of
from web.benches.ice.actions.keep_ice_map import keep_ice_map
from web.logbook.actions.do_act import do_act
from web.logbook.calls.judging import judge_call, told_of
from web.logbook.models import Call
from web.round.picture import HEIGHT, LEAST, PICTURES, WIDTH
from web.round.standing import Standing
from web.round.standing.picture import Picture, found_and_left

EVERY = [(kind, build.code) for kind in KINDS for build in builds_of(kind)]
# A target may reach this far into the next, in units of the canvas: less than two pixels.
REACH = 2.0


def unit_of(kind, **more):
    return resolve(UnitSpec(kind=kind, refrigerant="R-404A", **more))


def drawn(picture, pane):
    return render_to_string("round/picture/_pane.svg", {"picture": picture, "pane": pane, "printed": True})


def overlap(a, b):
    """How far two frames reach into each other, the lesser way."""
    wide = min(a["x"] + a["width"], b["x"] + b["width"]) - max(a["x"], b["x"])
    high = min(a["y"] + a["height"], b["y"] + b["height"]) - max(a["y"], b["y"])
    return min(wide, high)


def test_every_kind_has_a_picture_of_each_of_its_builds():
    assert set(PICTURES) == set(BUILDS)
    assert all(builds_of(kind) for kind in KINDS)
    assert len({picture.shell for picture in PICTURES.values()}) == len(PICTURES), "no two look alike"


@pytest.mark.parametrize(("kind", "build"), EVERY)
def test_every_part_of_every_kind_is_on_its_picture_and_large_enough(kind, build):
    for more in ({}, {"defrost": "electric"}, {"condensing": "water"}, {"metering": "txv"}, {"metering": "cap_tube"}):
        unit = unit_of(kind, **more)
        panes = Picture(unit, build, {}).panes
        behind = [part.code for pane in panes for one in pane.shown for part in one.spot.parts_on(unit)]
        assert sorted(behind) == sorted(part.code for part in anatomy.on(unit))
        for pane in panes:
            targets = [one.target for one in pane.shown]
            for target in targets:
                assert target["width"] >= LEAST and target["height"] >= LEAST
                assert target["x"] > -LEAST / 4 and target["x"] + target["width"] < WIDTH + LEAST / 4
                assert target["y"] >= 0 and target["y"] + target["height"] <= HEIGHT + LEAST / 4
            assert all(overlap(a, b) <= REACH for a, b in combinations(targets, 2)), (kind, build)


@pytest.mark.parametrize(("kind", "build"), EVERY)
def test_flags_stay_in_the_pane_and_off_each_other(kind, build):
    unit = unit_of(kind, defrost="electric")
    seen = {key: observations.get(key).choices[-1][0] for key in observations.REGISTRY if observations.get(key).choices}
    seen = {key: (value,) if observations.get(key).many else value for key, value in seen.items()}
    seen |= {"box_temp_f": 46.5, "display_temp_f": 45.0, "suction_psig": 12.3, "discharge_psig": 215.0, "heater_amps": 7.2}
    for pane in Picture(unit, build, seen).panes:
        flags = [{"x": f.x, "y": f.y, "width": f.width, "height": f.height} for one in pane.shown for f in one.flags]
        assert flags
        assert all(flag["x"] >= 0 and flag["x"] + flag["width"] <= WIDTH for flag in flags)
        assert all(overlap(a, b) <= REACH for a, b in combinations(flags, 2)), (kind, build)


@pytest.mark.parametrize("kind", some_of(["walk_in_freezer", "bottle_cooler", "provision_room_cooler"], 1))
def test_every_word_of_every_observation_can_be_drawn(kind):
    unit = unit_of(kind)
    blank = Picture(unit, "", {})
    plain = [drawn(blank, pane) for pane in blank.panes]
    changed = set()
    for entry in observations.REGISTRY.values():
        if not entry.exists_on(unit) or not anatomy.part_of(entry.key).exists_on(unit):
            continue
        for word in [code for code, _ in entry.choices] or [entry.low if entry.low > -1e9 else 0.0]:
            picture = Picture(unit, "", {entry.key: (word,) if entry.many else word})
            if [drawn(picture, pane) for pane in picture.panes] != plain:
                changed.add(entry.key)
    told = {entry.key for part in anatomy.on(unit) for entry in part.observed_on(unit)}
    assert changed == told, "what was said always shows"


@pytest.mark.parametrize(
    ("key", "word", "other"),
    [
        ("door", "left_open", "good"), ("door", "gasket_gap", "good"), ("evap_fans", "stopped", "running"),
        ("condenser_coil", "blocked", "clean"), ("drain_pan", "overflowing", "dry"), ("strip_curtain", "missing", "present"),
        ("compressor", "off", "running"), ("contactor", "in", "out"), ("power_locked_out", "yes", "no"),
        ("sight_glass", "flashing", "clear"),
        ("bulb", "loose", "tight_insulated"), ("ice_form", "hard_ice", "none"), ("start_parts", "capacitor_failed", "good"),
    ],
)  # fmt: skip
def test_a_state_has_its_own_shape_without_its_words(key, word, other):
    def shapes(value):
        picture = Picture(unit_of("walk_in_freezer"), "", {key: value})
        return [re.sub(r"<(rect class=\"flag|text)[^>]*>([^<]*</text>)?", "", drawn(picture, pane)) for pane in picture.panes]

    assert shapes(word) != shapes(other)


def test_a_part_is_dashed_until_something_was_said_and_says_it(call, at_work, read_in):
    page = at_work.get(reverse("stop", args=[call.number, "arrive"])).content.decode()
    assert re.search(r'class="picture-part unlooked[^>]*data-part="door"[^>]*aria-label="Door: not looked at"', page)
    read_in(door="gasket_gap", door_traffic="heavy", box_temp_f="12")
    page = at_work.get(reverse("stop", args=[call.number, "arrive"])).content.decode()
    assert re.search(
        r'class="picture-part looked unusual[^>]*data-part="door"[^>]*aria-label="Door: Door gasket gap; Door traffic heavy"', page
    )
    assert "gasket gap +1</text>" in page and "12°</text>" in page


def test_a_tap_brings_the_sheet_alone_and_an_entry_the_picture_anew(call, at_work):
    sheet = at_work.get(
        reverse("part", args=[call.number, "door"]), {"stop": "arrive"}, HTTP_HX_REQUEST="true", HTTP_HX_TARGET="part-sheet"
    )
    body = sheet.content.decode()
    assert body.strip().startswith("<div") and "<html" not in body
    assert 'name="door"' in body and 'value="door.gasket_replaced"' in body and "data-close-sheet" in body
    sent = {"door": "left_open", "stop": "arrive", "view": "part", "picture": "yes"}
    body = at_work.post(reverse("enter", args=[call.number, "door"]), sent, HTTP_HX_REQUEST="true").content.decode()
    assert 'id="picture" hx-swap-oob="true"' in body and "left open</text>" in body


def test_what_is_drawn_as_one_is_asked_together(call, at_work):
    body = at_work.get(reverse("stop", args=[call.number, "arrive"]), {"part": "timer"}).content.decode()
    assert 'name="defrosts_per_day"' in body and 'value="timer.set"' in body and "Done to it" in body


def test_as_found_and_as_left_are_two_pictures_in_report_and_history(user, call, at_work, read_in):
    read_in(door="gasket_gap", box_temp_f="12")
    keep_ice_map(user, call, "before", ["iiiiiiiiii"] * 5, {})
    assert list(found_and_left(call, told_of(Call.objects.get(pk=call.pk)))) == ["found"]
    do_act(user, Call.objects.get(pk=call.pk), judge_call(call), "door.gasket_replaced")
    pictures = found_and_left(call, told_of(Call.objects.get(pk=call.pk)))
    assert [title for title, _ in pictures.values()] == ["As found", "As it stands"]
    found, left = (" ".join(drawn(picture, pane) for pane in picture.panes) for _, picture in pictures.values())
    assert "gasket gap" in found and "✓ gasket repl" in left and "gasket gap" not in left
    report = at_work.get(reverse("report", args=[call.number])).content.decode()
    assert "As found" in report and "✓ gasket repl" in report
    image = at_work.get(reverse("unit-picture", args=[call.number, "left", "box"]))
    assert image.headers["Content-Type"] == "image/svg+xml" and b"<style>" in image.content and b"ice-i" in image.content
    assert at_work.get(reverse("unit-picture", args=[call.number, "left", "roof"])).status_code == 404
    assert reverse("unit-picture", args=[call.number, "left", "box"]) in at_work.get(reverse("unit", args=[call.unit.pk])).content.decode()


def test_a_picture_is_for_those_who_may_see_the_call(call, client, stranger):
    client.force_login(stranger)
    assert client.get(reverse("unit-picture", args=[call.number, "found", "box"])).status_code == 404


def test_the_ice_is_drawn_as_it_was_painted(user, call):
    keep_ice_map(user, call, "before", ["iiiii....."] * 5, {})
    cells = Standing(Call.objects.get(pk=call.pk)).picture().ice_cells
    coil = Standing(call).picture().spots["coil"]
    assert len(cells) == 25 and all(float(cell["x"]) < coil.width / 2 for cell in cells)
