"""What runs, and why: a lock-out before all, a defrost before what was seen, off for a reason before should run."""

import pytest

from tests.core.call.made import COOLER, REACH_IN, happened, read, told

OFF, WARM = read("compressor", "off", 2), read("box_temp_f", 47, 1)
OUT = happened("weighed", 3, did="recovered", before_oz=100, after_oz=160)


@pytest.mark.parametrize(
    ("events", "state"),
    [
        ((), "unknown"),
        ((read("compressor", "running", 1),), "running"),
        ((read("compressor", "running", 1), read("power_locked_out", "yes", 2)), "locked_out"),
        ((OFF, read("control_call", "in_defrost", 3)), "defrosting"),
        ((OFF, read("control_call", "calling", 3)), "should_run"),
        ((read("compressor", "humming", 1),), "should_run"),
        ((read("compressor", "tripping", 1),), "should_run"),
        ((OFF, read("control_call", "satisfied", 3)), "off_rightly"),
        ((WARM, OFF), "should_run"),
        ((read("box_temp_f", 36, 1), OFF), "off_rightly"),
    ],
)
def test_what_runs(events, state):
    call = told(COOLER, *events)
    assert call.runs.state == state, call.runs
    assert call.runs.why and call.runs.words


def test_an_open_circuit_rests_however_warm_the_box():
    call = told(REACH_IN | {"label_charge_oz": 8}, WARM, OFF, OUT)
    assert call.runs.state == "resting" and "open" in call.runs.why
