"""Each benchmark of the core runs once, shortened, so that none of them rots; how fast it is, nobody asks here."""

import sys

import numpy as np
import pytest

from benchmarks import calibration, capillary, controls, core, plant, power, technician, timing, trends, yard


@pytest.fixture(autouse=True)
def once_each(monkeypatch):
    """Whatever is timed is done once."""
    for module in (core, plant):
        monkeypatch.setattr(module, "best", lambda act, number: timing.first(act))
    monkeypatch.setattr(capillary, "median", timing.first)


def printed(module, monkeypatch, capsys, *asked):
    monkeypatch.setattr(sys, "argv", ["benchmark", *asked])
    module.main()
    return capsys.readouterr().out


def test_the_look_ups_and_a_judgement(monkeypatch, capsys):
    monkeypatch.setattr(core, "ARRAY", 1000)
    told = printed(core, monkeypatch, capsys)
    assert "dew look-up of an array" in told and "course of 6 stages" in told


def test_a_day_of_a_plant_and_a_plan(monkeypatch, capsys):
    monkeypatch.setattr(plant, "HOURS", 1.0)
    monkeypatch.setattr(plant, "WANTED_S", {2: 1.0})
    assert printed(plant, monkeypatch, capsys).count("of what is wanted") == 3


def test_capillary_tubes_lie_near_the_published_correlation(monkeypatch, capsys):
    rows = [row for row in printed(capillary, monkeypatch, capsys).splitlines() if row.endswith("%")]
    away = [float(row.rsplit(None, 2)[1]) for row in rows]
    assert len(rows) == len(capillary.TUBES) and np.abs(away).max() < 40.0


def test_a_pressure_control_foretold(monkeypatch, capsys):
    monkeypatch.setattr(controls, "KINDS", ("bottle_cooler",))
    monkeypatch.setattr(controls, "TIMES", 1)
    assert "bottle_cooler" in printed(controls, monkeypatch, capsys)


def test_measurements_to_a_fault_of_one_circuit(monkeypatch, capsys):
    kind, circuit = next(iter(power.circuits().items()))
    monkeypatch.setattr(power, "circuits", lambda: {kind: circuit})
    told = printed(power, monkeypatch, capsys)
    assert kind in told and "protector behind a pole" in told


def test_every_cause_as_a_practice_call(monkeypatch, capsys):
    monkeypatch.setattr(yard, "ANSWERS", 1)
    told = printed(yard, monkeypatch, capsys, "--kinds", "walk_in_cooler", "--causes", "evap_fan_failed,no_call")
    assert "2 somebody calls about: found 2, solved in 1 answers each put right 2, " in told
    assert "right repair holds 2 of 2, wrong one holds 0 of 2" in told


def test_a_technician_who_does_as_he_is_told(monkeypatch, capsys):
    told = printed(technician, monkeypatch, capsys, "--kinds", "reach_in_cooler", "--causes", "evap_fan_failed")
    assert "on top 100.0%" in told and "harmful advice 0.00%" in told


def test_stated_chances_against_what_was_so(monkeypatch, capsys, tmp_path):
    monkeypatch.setattr(calibration, "EXPECTED", dict(list(calibration.EXPECTED.items())[:4]))
    job = "burnt_clock.json"
    (tmp_path / job).write_text((calibration.JOBS / job).read_text())
    monkeypatch.setattr(calibration, "JOBS", tmp_path)
    monkeypatch.setattr(calibration, "of_units", lambda every: [(0.95, True, False)] * every)
    told = printed(calibration, monkeypatch, capsys, "--every", "7")
    assert "simulated units: 7 answers" in told and "all together" in told


def test_a_log_read_judged_and_drawn(monkeypatch, capsys):
    monkeypatch.setattr(trends, "LARGEST_ROWS", 3000)
    told = printed(trends, monkeypatch, capsys, "--rows", "20000")
    assert "20,000 rows" in told
