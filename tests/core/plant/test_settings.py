"""Settings of a simulated unit's controls: read off a scale, set, and what stays as it was found beside them."""

import pytest

from kettle.knowledge.equipment import resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import psia_to_psig
from kettle.knowledge.parameters import PARAMETERS
from kettle.plant.observer import stand
from kettle.plant.observer.settings import PROGRAM, SETTINGS, set_to, setting
from kettle.plant.simulate import PRESETS


def rig(kind="walk_in_freezer", *wrong, hours=3.0):
    return stand(resolve(PRESETS[kind]), [(code, 1.0) for code in wrong], hours)


def test_a_scale_shows_what_the_plant_has():
    one = rig()
    assert setting(one, "set_point") == one.unit.set_f and setting(one, "fail_safe") == pytest.approx(35.0)
    assert setting(one, "demand") == 0.0 and setting(one, "anti_short_cycle") == pytest.approx(3.0)
    assert setting(one, "lp_cut_in") == pytest.approx(psia_to_psig(float(one.parts.lp_in_psia), one.unit.altitude_ft))
    assert setting(one, "lp_cut_in") > setting(one, "lp_cut_out")


def test_what_a_unit_has_not_reads_nothing():
    assert setting(rig("reach_in_cooler"), "lp_cut_in") is None
    assert setting(rig("walk_in_cooler"), "fan_delay") is None and setting(rig(), "fan_delay") is not None
    for ask in (lambda: setting(rig(), "refrigerant"), lambda: set_to(rig(), "tea", 1.0)):
        with pytest.raises(InputError, match="set_point"):
            ask()


def test_every_setting_that_can_be_read_can_be_set_and_reads_so():
    for code in SETTINGS:
        if code not in PARAMETERS:
            continue
        one = rig()
        before = setting(one, code)
        set_to(one, code, before + 1.0 if before is not None else 10.0)
        assert setting(one, code) == pytest.approx(before + 1.0 if before is not None else 10.0), code


def test_a_program_is_set_figure_by_figure_and_the_rest_stays_as_it_was_found():
    one = rig("walk_in_freezer", "defrost_too_little")
    found = {code: setting(one, code) for code in PROGRAM}
    assert found["fail_safe"] == pytest.approx(7.0) and found["defrosts_per_day"] == pytest.approx(2.0)
    set_to(one, "fail_safe", 40.0)
    one.do("timer", "set")
    assert "defrost_too_little" not in one.wrong
    assert setting(one, "fail_safe") == pytest.approx(40.0)
    assert setting(one, "defrosts_per_day") == pytest.approx(2.0), "nobody touched how often"
    set_to(one, "defrosts_per_day", 4.0)
    assert setting(one, "defrosts_per_day") == pytest.approx(4.0) and setting(one, "fail_safe") == pytest.approx(40.0)


def test_a_clock_that_stands_is_not_put_right_by_what_is_set_on_it():
    one = rig("walk_in_freezer", "defrost_never_starts")
    set_to(one, "defrosts_per_day", 6.0)
    assert float(one.parts.defrosts_per_day) == 0.0
    one.do("timer", "replaced")
    assert float(one.parts.defrosts_per_day) == pytest.approx(6.0)


def test_a_dial_is_read_where_it_is_set_also_while_it_is_turned_down():
    one = rig("walk_in_cooler")
    set_to(one, "set_point", 40.0)
    one.own["stat_turned_down"] = "yes"
    one.rebuild()
    assert setting(one, "set_point") == 40.0 and float(one.parts.set_f) == pytest.approx(25.0)
    assert one.look("stat_cut_in_f") == pytest.approx(40.0 + float(one.parts.differential_f) / 2.0, abs=2.0)


@pytest.mark.parametrize(("share", "left"), [(0.25, 0.75), (1.0, 0.0), (3.0, 0.0), (-1.0, 1.0)])
def test_a_share_of_the_ice_goes_and_the_rest_lies_where_it_lay(share, left):
    one = rig("walk_in_freezer", "defrost_never_starts", hours=30.0)
    before = one.state.frost_lb.copy()
    one.melt_off(share)
    assert one.state.frost_lb == pytest.approx(before * left) and float(before.sum()) > 0.5
