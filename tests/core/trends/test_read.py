"""What is read from a log, against the truth of logs made by the plant model and of logs made by hand."""

import numpy as np
import pytest

from kettle.benches.trends import tiles
from kettle.benches.trends.read import Program, read
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.measures import MARKED, ShownUnits, worded
from kettle.plant import faults
from kettle.trends import air, cycles, defrosts
from kettle.trends.series import Trend, joined, pieces
from tests.core.trends.made import logged, told_right

COOLER, FREEZER = resolve(UnitSpec("walk_in_cooler", "R-448A")), resolve(UnitSpec("walk_in_freezer", "R-404A"))
HEATED, COLD = ("walk_in_freezer", "reach_in_freezer", "display_freezer"), ("walk_in_cooler", "display_cooler")
# Every fault of doors and defrosts. Where the heater gives nothing or the compressor runs along, a coil's sensor shows no defrost: only
# the defrost's own state does.
FAULTS = ("door_infiltration", "door_seal", "hot_stock", "defrost_too_little", "defrost_too_much", "defrost_not_terminating",
          "drain_blocked", "residual_ice", "defrost_never_starts")  # fmt: skip
HIDDEN = ("defrost_heater_open", "compressor_runs_in_defrost")
BY_STATE, BY_SENSOR = ("box_f", "compressor", "defrost"), ("box_f", "coil_f", "amps")


def share(kinds, wrongs, roles, step_min):
    """Shares of true cycles and defrosts found with both ends inside two minutes, or half a step and one where that is more."""
    within = max(120.0, 30.0 * step_min + 60.0)
    right, count = np.zeros(2), np.zeros(2)
    for kind in kinds:
        for wrong in (None, *wrongs):
            if wrong and not faults.possible(wrong, FREEZER if kind in HEATED else COOLER):
                continue
            trend, ran, defrosted = logged(kind, [(wrong, 0.8)] if wrong else [], hours=36.0, step_min=step_min, roles=roles)
            # A run that falls between two rows is in no log.
            ran = [one for one in ran if one[1] - one[0] > 120.0 * step_min]
            found = [(one.begins_s, one.ends_s) for one in cycles.runs(trend)[1]]
            melted = [(one.begins_s, one.ends_s) for one in defrosts.defrosts(trend, kind in HEATED)]
            for n, (true, told) in enumerate(((ran, found), (defrosted, melted))):
                right[n] += told_right(true, told, within)[0] * len(true)
                count[n] += len(true)
    assert count.min() > 20
    return right / count


def test_cycles_and_defrosts_are_found_by_their_states():
    assert share(HEATED[:2] + COLD[:1], (*FAULTS[:5], *HIDDEN), BY_STATE, 2.0).min() >= 0.99


def test_cycles_and_heated_defrosts_are_found_by_amps_and_the_coils_sensor():
    assert share(HEATED, FAULTS, BY_SENSOR, 2.0).min() >= 0.95


def test_longer_steps_find_less_and_how_much_is_stated():
    # At 15 minutes over nine of ten, at 30 few: docs/decisions.md has the figures.
    quarter, half = (share(HEATED, FAULTS[:3], BY_SENSOR, step) for step in (15.0, 30.0))
    assert quarter.min() >= 0.9 and 0.05 <= half.min() < 0.4


def test_an_air_defrost_without_its_state_shows_its_end_and_hides_its_start_in_the_pause():
    trend, _, true = logged("walk_in_cooler", hours=48.0, roles=("box_f", "amps"))
    found = defrosts.defrosts(trend, heated=False)
    # One that begins while the compressor runs makes a pause hardly longer than usual: those are missed, none is made up.
    assert len(found) >= 0.5 * len(true)
    for one in found:
        assert any(begin - 1800.0 <= one.begins_s <= begin + 120.0 and abs(one.ends_s - end) <= 420.0 for begin, end in true)


def test_what_ended_a_defrost():
    trend, _, true = logged("walk_in_freezer", hours=40.0, roles=BY_SENSOR)
    assert {one.ended_by for one in defrosts.defrosts(trend, True, termination_f=55.0)} == {"termination"}
    trend, _, true = logged("walk_in_freezer", [("defrost_not_terminating", 1.0)], hours=40.0, roles=("box_f", "coil_f", "defrost"))
    by_time = defrosts.defrosts(trend, True, fail_safe_min=(true[0][1] - true[0][0]) / 60.0)
    assert {one.ended_by for one in by_time} == {"time"} and all(one.back_min is not None for one in by_time[:-1])


def series(days=1.0, step_min=2.0, base=36.0, seed=3):
    """A box that cycles by hand: a saw tooth of 3 °F, 12 min down and 18 up, with 0.05 °F of noise."""
    at = np.arange(0.0, days * 86_400.0, step_min * 60.0)
    minute = at / 60.0 % 30.0
    saw = np.where(minute < 12.0, 1.5 - minute / 4.0, -1.5 + (minute - 12.0) / 6.0)
    return at, base + saw + np.random.default_rng(seed).normal(0.0, 0.05, len(at))


def test_cycles_by_the_air_alone():
    at, value = series()
    told = cycles.cycling(Trend(at, {"box_f": value}))
    assert told.read_from == "the turns of the air"
    assert told.on_min == pytest.approx(12.0, abs=2.0) and told.starts_h == pytest.approx(2.0, abs=0.1)
    assert (told.low_f, told.high_f) == (pytest.approx(34.5, abs=0.2), pytest.approx(37.5, abs=0.2)) and not told.short


def test_doors_are_seen_in_air_that_leaps_and_not_in_its_cycles():
    at, value = series(days=2.0)
    opened = np.arange(3600.0, at[-1] - 7200.0, 5 * 3600.0 + 400.0)
    for moment in opened:
        after = at - moment
        value += np.where(after > 0, 6.0 * np.minimum(after / 240.0, 1.0) * np.exp(-np.maximum(after - 240.0, 0.0) / 500.0), 0.0)
    found = air.doors(Trend(at, {"box_f": value}))
    assert sum(any(abs(one.begins_s - moment) < 360.0 for one in found) for moment in opened) >= 0.9 * len(opened)
    assert len(found) <= len(opened) + 1
    assert air.doors(Trend(*(lambda a, v: (a, {"box_f": v}))(*series(days=2.0)))) == []
    state = np.where(at % 7200.0 < 240.0, 1.0, 0.0)
    assert len(air.doors(Trend(at, {"box_f": value, "door": state}))) == pytest.approx(23, abs=1)


def test_a_slow_drift_hours_above_and_a_gap_that_counts_as_nothing():
    at, value = series(days=20.0, step_min=15.0)
    drifting = Trend(at, {"box_f": value + at / 86_400.0 * 0.25})
    told = air.drift(drifting)
    assert told.sure and told.f_per_day == pytest.approx(0.25, abs=0.03)
    assert not air.drift(Trend(at, {"box_f": value})).sure
    warm = np.where((at > 86_400.0) & (at <= 86_400.0 + 7200.0), 50.0, 36.0)
    assert air.hours_above(Trend(at, {"box_f": warm}), 41.0)[0] == pytest.approx(2.0, abs=0.26)
    kept = (at < 86_400.0 + 3600.0) | (at > 3 * 86_400.0)
    hours, known = air.hours_above(Trend(at[kept], {"box_f": warm[kept]}), 41.0)
    assert hours == pytest.approx(0.75, abs=0.3) and known < 20 * 24 - 40 and len(pieces(at[kept], 3600.0)) == 2


def test_a_sensor_that_stands_still_or_jumps():
    at, value = series(days=2.0)
    stuck, leapt = value.copy(), value.copy()
    stuck[300:600] = stuck[300]
    leapt[700:] += 20.0
    [still] = air.standing_still(Trend(at, {"box_f": stuck}), "box_f")
    assert still.minutes == pytest.approx(600.0, abs=4.0)
    [jump] = air.jumps(Trend(at, {"box_f": leapt}), "box_f")
    assert jump.by_f == pytest.approx(20.0, abs=1.0) and jump.begins_s == at[699]
    assert air.jumps(Trend(at, {"box_f": value}), "box_f") == []


def test_a_pull_down_and_a_sibling():
    at = np.arange(0.0, 2 * 86_400.0, 120.0)
    falling = 36.0 + 24.0 * np.exp(-at / 5400.0) + np.random.default_rng(5).normal(0.0, 0.1, len(at))
    [down] = air.pull_downs(Trend(at, {"box_f": falling}))
    assert down.by_f == pytest.approx(24.0, abs=1.0) and down.begins_s < 600.0
    warmer, shared = air.against_sibling(Trend(at, {"box_f": falling + 4.0}), Trend(at, {"box_f": falling}))
    assert warmer == pytest.approx(4.0) and shared > 0.99


def test_a_coil_that_clogs_is_told_by_its_growing_recovery():
    at = np.arange(0.0, 6 * 86_400.0, 120.0)
    box, state = np.full(len(at), -5.0), np.zeros(len(at))
    for n, begin in enumerate(np.arange(7200.0, at[-1] - 20_000.0, 21_600.0)):
        recovery = 1200.0 + 110.0 * n
        inside, after = (at >= begin) & (at < begin + 1200.0), at - begin - 1200.0
        state[inside] = 1.0
        box[inside] = -5.0 + 9.0 * (at[inside] - begin) / 1200.0
        back = (after >= 0) & (after < recovery)
        box[back] = -5.0 + 9.0 * (1.0 - after[back] / recovery)
    trend = Trend(at, {"box_f": box + np.random.default_rng(2).normal(0.0, 0.1, len(at)), "defrost": state})
    told = read(trend, FREEZER, 10.0, Program(per_day=6.0))
    codes = {one.code: one for one in told.findings}
    assert "the coil clogs" in codes["clogs"].says and codes["clogs"].keys == {"coil_after_defrost": "part_iced"}
    assert "every 6.0 h" in codes["defrosts"].says and codes["defrosts"].keys["defrosts_per_day"] == 4
    assert "4.0 h are programmed" in codes["not_as_programmed"].says
    steady = Trend(at, {"box_f": np.where(state > 0, 2.0, -5.0), "defrost": state})
    assert "clogs" not in {one.code for one in read(steady, FREEZER, 10.0).findings}


def test_findings_are_of_the_unit_and_carry_what_they_stand_for():
    trend, _, _ = logged("walk_in_freezer", [("defrost_never_starts", 1.0)], hours=40.0, roles=("box_f", "coil_f", "amps"))
    told = {one.code: one for one in read(trend, FREEZER, 10.0).findings}
    assert told["no_defrost"].keys == {"defrost_starts": "never"}
    at = np.arange(0.0, 6 * 3600.0, 30.0)
    short = Trend(at, {"box_f": np.full(len(at), 36.0), "compressor": (at % 300.0 < 120.0).astype(float)})
    assert {one.code: one for one in read(short, COOLER, 45.0).findings}["short_cycles"].keys == {"compressor": "short_cycling"}
    assert all(0.0 < one.sure <= 1.0 and one.begins_s <= one.ends_s for one in told.values())


def test_what_is_kept_is_worded_for_whoever_reads_it():
    at, value = series(days=20.0, step_min=15.0)
    told = read(Trend(at, {"box_f": value + at / 86_400.0 * 0.9}), COOLER, 45.0, shown=MARKED)
    kept = {one.code: one.says for one in told.findings}
    assert "°F" in worded(kept["above"]) and "above 45.0 °F" in worded(kept["above"])
    assert "above 7.2 °C" in worded(kept["above"], ShownUnits(temperature="°C"))
    assert "0.50 K warmer a day" in worded(kept["drifts"], ShownUnits(temperature="°C"))


def test_tiles_keep_every_peak_and_leave_gaps_open():
    at, value = series(days=30.0)
    value[5000] = 99.0
    kept = (at < 10 * 86_400.0) | (at > 12 * 86_400.0)
    trend = Trend(at[kept], {"box_f": value[kept]})
    cut = tiles.tile(trend, at[0], at[-1], 600)
    least, mean, most = cut.bands["box_f"]
    assert len(cut.at_s) <= 602 and max(v for v in most if v is not None) == 99.0
    assert mean.count(None) == 1 and all(a <= b <= c for a, b, c in zip(least, mean, most, strict=True) if b is not None)
    near = tiles.tile(trend, at[100], at[130], 600)
    assert len(near.at_s) == 32
    drawn = tiles.drawn(trend, ("box_f",), at[0], at[-1], [(at[0], at[50], "defrost")])
    assert drawn.lines[0][0] == "Box air" and drawn.lines[0][2].count("M") == 2 and drawn.marks[0][1] >= 2.0


def test_logs_of_one_unit_join_in_order():
    a = Trend(np.array([0.0, 60.0, 120.0]), {"box_f": np.array([1.0, 2.0, 3.0])})
    b = Trend(np.array([120.0, 180.0]), {"amps": np.array([7.0, 8.0])})
    both = joined([a, b])
    assert both.at_s.tolist() == [0.0, 60.0, 120.0, 180.0]
    assert both.values["box_f"][2] == 3.0 and both.values["amps"][2] == 7.0 and np.isnan(both.values["box_f"][3])
    assert joined([]).count == 0 and joined([a]) is a
