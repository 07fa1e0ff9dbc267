"""What is seen after an act: what the act did not touch is seen again as it was, what proves it counts, and a third cause is found."""

import math
from types import SimpleNamespace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.judging.checks import PERSISTS
from kettle.judging.course import Done, judge_course
from kettle.judging.evidence import Feature, weigh
from kettle.judging.network import network_of
from kettle.judging.suspects import fold
from kettle.judging.ways import HARDLY_ANEW, carried, seen_again
from kettle.judging.weighing import first_and_again, worked_on
from kettle.knowledge.equipment import UnitSpec, resolve
from tests.core.judging.faults import COOLER, unit_of

UNIT = unit_of(COOLER)
NETWORK = network_of(UNIT, {"moment": "steady", "outside": "mild"})
REACH_IN = resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-134a", set_f=37.0, phases=1))


def shown(key, state, share=1.0):
    return Feature(key, {state: 1.0}, share, "")


def row(*codes):
    return np.array([NETWORK.rows[frozenset(codes)]])


@given(
    st.sampled_from(["td_f", "superheat_evap_f", "box_temp_f"]),
    st.sampled_from(["low", "ok", "high"]),
    st.sampled_from(["low", "ok", "high"]),
)
def test_where_nothing_of_it_changed_a_thing_is_seen_again_as_it_was(key, before, now):
    one = weigh(NETWORK, [shown(key, now)])
    rows = np.arange(NETWORK.inferred)
    again = np.broadcast_to(seen_again(NETWORK, key, before, now), len(NETWORK.members))[rows]
    assert carried(NETWORK, one, [before], rows, rows) == pytest.approx(again)


def test_what_was_never_seen_before_speaks_for_what_is_there_now():
    one = weigh(NETWORK, [shown("td_f", "high")])
    now = row("undercharge")
    assert carried(NETWORK, one, [""], row("undercharge", "door_seal"), now) == pytest.approx(one[0][1][now])


def test_what_a_repair_takes_away_is_hardly_seen_again_and_what_it_leaves_is():
    # A gap at the gasket beside gas that is short: gas does nothing for the gap, and everything for the glass.
    both, gap = row("undercharge", "door_seal"), row("door_seal")
    gap_again = carried(NETWORK, weigh(NETWORK, [shown("door", "gasket_gap")]), ["gasket_gap"], both, gap)
    assert gap_again == pytest.approx(math.log(PERSISTS))
    glass_again = carried(NETWORK, weigh(NETWORK, [shown("sight_glass", "flashing")]), ["flashing"], both, gap)
    glass_clear = carried(NETWORK, weigh(NETWORK, [shown("sight_glass", "clear")]), ["flashing"], both, gap)
    assert glass_again[0] < math.log(HARDLY_ANEW) < glass_clear[0] < 0.0


def test_half_a_share_counts_half():
    both, gap = row("undercharge", "door_seal"), row("door_seal")
    whole, half = (
        carried(NETWORK, weigh(NETWORK, [shown("door", "gasket_gap", share)]), ["gasket_gap"], both, gap) for share in (1.0, 0.5)
    )
    assert half == pytest.approx(whole / 2)


DEAD = {"box_temp_f": 88.0, "compressor": "humming", "contactor": "in", "line_v_12": 115.0, "load_v_12": 115.0, "winding_cs_ohm": 1e6,
        "start_parts": "good", "control_call": "calling", "door": "left_open", "door_traffic": "heavy", "evap_fans": "running"}  # fmt: skip
RUNS = {"box_temp_f": 56.0, "box_trend": "steady", "compressor": "running", "contactor": "in", "control_call": "calling",
        "door": "left_open", "door_traffic": "heavy", "evap_fans": "running", "ice_form": "none"}  # fmt: skip


def left_of(unit, stages, done):
    """How likely each cause is left, in all answers together."""
    found = {}
    for one in judge_course(unit, stages, done).left:
        for code in one.codes:
            found[code] = found.get(code, 0.0) + one.probability
    return found


def test_a_compressor_that_runs_after_it_was_replaced_is_not_blamed_for_a_door_that_stands_open_as_before():
    left = left_of(REACH_IN, [DEAD, RUNS], [Done("compressor", "replaced")])
    assert left.get("compressor_open_winding", 0.0) < 0.15 < 0.3 < left["door_infiltration"]


def test_a_figure_that_proves_an_act_and_came_right_ends_its_cause():
    found = {"box_temp_f": 46.0, "suction_psig": 38.0, "suction_line_evap_f": 40.0, "drier_drop_f": 14.0, "evap_fans": "running",
             "sight_glass": "flashing", "compressor": "running"}  # fmt: skip
    after = {"drier_drop_f": 0.3, "box_temp_f": 46.0}
    left = left_of(UNIT, [found, after], [Done("drier", "replaced")])
    not_read = left_of(UNIT, [found, {"box_temp_f": 46.0}], [Done("drier", "replaced")])
    assert left.get("liquid_restriction", 0.0) < 0.3 * not_read["liquid_restriction"]


STILL = {"box_temp_f": 52.0, "box_trend": "steady", "compressor": "running", "evap_fans": "running", "ice_form": "none",
         "suction_psig": 31.0, "suction_line_evap_f": 44.0, "drier_drop_f": 0.3, "sight_glass": "clear", "bulb": "tight_insulated",
         "control_call": "calling", "contactor": "in"}  # fmt: skip


def test_a_third_cause_is_found_beside_two_that_were_put_right():
    dead = {"box_temp_f": 70.0, "compressor": "humming", "contactor": "in", "line_v_12": 230.0, "line_v_23": 229.0, "line_v_31": 231.0,
            "load_v_12": 229.0, "load_v_23": 229.0, "load_v_31": 230.0, "winding_cs_ohm": 1e6, "power_locked_out": "yes",
            "control_call": "calling"}  # fmt: skip
    plugged = {"box_temp_f": 55.0, "box_trend": "steady", "compressor": "running", "evap_fans": "running", "drier_drop_f": 22.0,
               "sight_glass": "flashing", "suction_psig": 24.0, "suction_line_evap_f": 42.0, "ice_form": "none"}  # fmt: skip
    course = judge_course(UNIT, [dead, plugged, STILL], [Done("compressor", "replaced"), Done("drier", "replaced")])
    assert set(course.was[0].codes) == {"compressor_open_winding", "liquid_restriction", "txv_underfeeding"}
    assert course.left[0].codes == ("txv_underfeeding",)
    # What it leans on is the same to whoever asks why not, or what next.
    assert len(course.likely) == len(network_of(UNIT, {"moment": "steady", "outside": "mild"}, (), frozenset(), course.now.beyond).members)


BEYOND = frozenset({"undercharge", "door_seal"})
WIDE = network_of(UNIT, {"moment": "steady", "outside": "mild"}, (), frozenset(), BEYOND)


def test_beside_two_stands_each_third_that_goes_with_both():
    threes = [members for members in WIDE.members if len(members) == 3]
    assert len(threes) == len(WIDE.threes) == len(WIDE.members) - len(NETWORK.members)
    assert all({cause.code for cause in members} > BEYOND for members in threes)
    one = next(n for n, members in enumerate(WIDE.members) if {c.code for c in members} == {*BEYOND, "evap_fan_failed"})
    assert WIDE.log_prior[one] < WIDE.log_prior[WIDE.rows[BEYOND]] - math.log(3)
    assert WIDE.shape(one, "evap_fans")["stopped"] > 0.4 and WIDE.shape(one, "door")["gasket_gap"] > 0.5
    assert network_of(UNIT, {"moment": "steady", "outside": "mild"}, (), frozenset(), frozenset({"undercharge"})).members == NETWORK.members


def test_a_third_that_earns_nothing_is_counted_with_the_best_of_its_pairs():
    likelihood = np.zeros(len(WIDE.members))
    posterior = np.zeros(len(WIDE.members))
    three = WIDE.rows[frozenset({*BEYOND, "evap_fan_failed"})]
    posterior[three] = 1.0
    likelihood[WIDE.rows[BEYOND]] = 2.0
    for earned, where in ((3.0, WIDE.rows[BEYOND]), (3.5, three)):
        likelihood[three] = earned
        assert fold(WIDE, likelihood, posterior)[where] == pytest.approx(1.0)


def worked_with(**was):
    """A course of which each of some causes was there by itself with a chance, and was worked on."""
    folded = np.zeros(len(NETWORK.members))
    for code, chance in was.items():
        folded[NETWORK.rows[frozenset((code,))]] = chance
    return worked_on(SimpleNamespace(network=NETWORK, folded=folded), dict.fromkeys(was, ()))


def test_a_third_is_looked_for_beside_the_three_likeliest_that_were_worked_on():
    found = worked_with(undercharge=0.4, door_seal=0.3, drain_blocked=0.2, condenser_dirty=0.06, overcharge=0.04)
    assert found == {"undercharge", "door_seal", "drain_blocked"}


@pytest.mark.parametrize(("chance", "looked"), [(0.05, True), (0.049, False)])
def test_what_was_hardly_there_is_none_of_them(chance, looked):
    assert ("door_seal" in worked_with(undercharge=0.9, door_seal=chance)) == looked


def test_what_is_seen_again_of_a_unit_nobody_understands_worked_by_hand():
    features = [
        Feature("door", {"good": 1.0}, 0.5, ""),
        Feature("drain", {"blocked": 1.0}, 1.0, ""),
        Feature("compressor", {"off": 1.0}, 1.0, ""),
    ]
    stage = SimpleNamespace(weighed=[(one, np.zeros(1)) for one in features], last=["good", "running", ""])
    first, again = first_and_again([stage])
    assert [one.key for one, _ in first] == ["compressor"]
    assert again == pytest.approx(0.5 * math.log(0.88) + math.log(0.06))
