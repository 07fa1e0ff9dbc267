"""A look that finds gone what was seen to be there opens a stage; hours bare after a melt speak for what was done about the door."""

import pytest

from tests.core.call.made import COOLER, FREEZER, did, happened, read, said, told

STANDS = (read("box_temp_f", 52, 2), read("compressor", "running", 2), read("evap_fan_supply_v", 229, 4), read("evap_fans", "stopped", 4))


def stages(*events):
    return len(told(COOLER, *events).call.staged.stages(1))


@pytest.mark.parametrize(
    ("events", "count"),
    [
        ((*STANDS, read("evap_fans", "running", 60)), 2),
        # Within five minutes another word puts a slip of the finger right.
        ((*STANDS, read("evap_fans", "running", 8)), 1),
        ((*STANDS, read("evap_fans", "running", 9)), 2),
        ((*STANDS, read("evap_fans", "some_stopped", 60)), 1),
        # Without its volts a fan that stands may only wait.
        ((*STANDS[:2], STANDS[3], read("evap_fans", "running", 60)), 1),
        ((*STANDS, did("evap_fan", "replaced", 30), read("evap_fans", "running", 60)), 2),
        ((*STANDS, read("evap_fans", "running", 60), read("evap_fans", "stopped", 90), read("evap_fans", "running", 120)), 3),
    ],
)
def test_a_stage_is_opened_by_what_is_gone(events, count):
    assert stages(*events) == count


def test_what_it_was_stays_and_nothing_is_left_of_it():
    call = told(COOLER, *STANDS, read("evap_fans", "running", 60))
    assert call.was.was[0].codes == ("evap_fan_failed",) and call.left[0].codes == ()
    look = call.record.standing[-1]
    assert call.call.staged.stage_of(look) == 1 and call.call.staged.stage_of(call.record.standing[-2]) == 0
    assert call.call.staged.steps == () and len(call.call.staged.openings) == 1
    assert "Coil fans: stopped." in said(call) and "running when looked at again, with nothing written down for it" in said(call)
    assert "Found right" not in said(call)


def test_of_two_coils_the_other_has_no_stage_of_its_own_fault():
    unit = FREEZER | {"coils": ["left", "right"]}
    events = [read("drain", "blocked", 2, on="left"), read("drain", "running", 60, on="right")]
    assert len(told(unit, *events).call.staged.stages(1)) == 1


def left_of_the_door(*events):
    iced = (read("ice_form", "heavy_frost", 2), read("ice_places", ["coil_whole"], 2), read("door_traffic", "heavy", 3),
            read("box_temp_f", 16, 3), happened("melt", 60, method="hose", minutes=40, all_clear=True))  # fmt: skip
    return sum(one.probability for one in told(FREEZER, *iced, *events).left if "door_infiltration" in one.codes)


def test_hours_bare_speak_against_the_door_and_minutes_do_not():
    nothing, minutes, hours = (left_of_the_door(*one) for one in ((), (read("ice_form", "none", 120),), (read("ice_form", "none", 500),)))
    assert hours < 0.7 * minutes and minutes == pytest.approx(nothing, abs=0.05)
    drawn = left_of_the_door(happened("ice", 500, form="light_frost", covers_pct=10, places=[]))
    assert drawn < 0.8 * minutes


ICED = (read("evap_fans", "stopped", 2), did("evap_fan", "replaced", 30))


@pytest.mark.parametrize(
    ("events", "stage"),
    [
        ((*ICED, read("ice_form", "heavy_frost", 40)), 0),
        ((*ICED, read("ice_form", "snow", 40)), 0),
        ((*ICED, read("ice_places", ["coil_whole"], 40)), 0),
        # A little frost comes at once, and a bare coil is news.
        ((*ICED, read("ice_form", "light_frost", 40)), 1),
        ((*ICED, read("ice_form", "none", 40)), 1),
        ((*ICED, read("ice_places", ["ceiling"], 40)), 1),
        # Four hours later it may have grown, and after a melt it has.
        ((*ICED, read("ice_form", "heavy_frost", 269)), 0),
        ((*ICED, read("ice_form", "heavy_frost", 270)), 1),
        ((read("ice_form", "hard_ice", 2), did("coil", "melted", 30), read("ice_form", "heavy_frost", 60)), 1),
    ],
)
def test_ice_that_was_not_melted_lay_there_before_what_was_done(events, stage):
    call = told(FREEZER, *events)
    key = call.record.standing[-1].get("key")
    seen = call.call.staged.stages(1)
    assert [place for place, facts in enumerate(seen) if key in facts][-1] == stage
