"""An opened circuit is a state: what opened it, what it still lacks, and what gas may go in."""

import pytest

from tests.core.call.made import COOLER, did, happened, read, told

PLATE = COOLER | {"label_charge_oz": 64}
OUT = happened("weighed", 10, did="recovered", before_oz=100, after_oz=160, cylinder="R1")
HELD = happened("nitrogen", 40, start_psig=150, start_f=70, now_psig=150, now_f=70, minutes=30)
FELL = happened("nitrogen", 40, start_psig=150, start_f=70, now_psig=120, now_f=70, minutes=30)
LOW, STOOD = happened("vacuum", 90, microns=420, pump=True), happened("vacuum", 102, microns=700, pump=False)
ROSE = happened("vacuum", 102, microns=1500, pump=False)
IN = happened("weighed", 120, did="weighed_in", before_oz=200, after_oz=136, cylinder="404-1")


def codes(call):
    return [one.code for one in call.leave]


@pytest.mark.parametrize(
    ("events", "missing"),
    [
        ((OUT,), ("a pressure test", "a vacuum")),
        ((OUT, HELD), ("a vacuum",)),
        ((OUT, FELL), ("a pressure test", "a vacuum")),
        ((OUT, HELD, LOW), ("a vacuum",)),
        ((OUT, HELD, LOW, ROSE), ("a vacuum",)),
        ((OUT, HELD, LOW, STOOD), ()),
        # What was tested before it was opened again says nothing of it.
        ((HELD, LOW, STOOD, did("drier", "replaced", 110)), ("a pressure test", "a vacuum")),
    ],
)
def test_what_an_opened_circuit_lacks(events, missing):
    call = told(PLATE, *events)
    lacks = call.call.opened.missing
    assert len(lacks) == len(missing) and all(one.startswith(begins) for one, begins in zip(lacks, missing, strict=True))
    assert ("opened_circuit" in codes(call)) == bool(missing)


def test_a_stem_or_a_nut_tightened_and_part_of_the_gas_taken_out_open_nothing():
    a_little = happened("weighed", 10, did="recovered", before_oz=100, after_oz=112)
    call = told(PLATE, did("leak", "repaired", 5), a_little)
    assert not call.call.opened.by and "opened_circuit" not in codes(call)


def test_gas_goes_in_only_where_it_was_held_and_dry_and_stops_at_the_plate():
    assert told(PLATE, OUT).charge.may == "first"
    assert "nitrogen" in told(PLATE, OUT).charge.text
    assert "vacuum" in told(PLATE, OUT, HELD).charge.text
    dry = told(PLATE, OUT, HELD, LOW, STOOD).charge
    assert dry.may == "yes" and "64" in dry.text
    full = told(PLATE, OUT, HELD, LOW, STOOD, IN).charge
    assert full.may == "stop" and "64" in full.text
    short = happened("weighed", 120, did="weighed_in", before_oz=200, after_oz=170)
    assert told(PLATE, OUT, HELD, LOW, STOOD, short).charge.may != "stop"


def test_without_a_plate_a_circuit_is_empty_once_it_was_opened_or_pumped_after_the_gas_was_out():
    assert not told(COOLER, OUT).call.opened.emptied
    for after in (HELD, LOW, did("drier", "replaced", 30)):
        call = told(COOLER, OUT, after)
        assert call.call.opened.emptied and call.call.opened.empty
    # What went in before the pump ran was a part of it.
    back = happened("weighed", 20, did="added", before_oz=100, after_oz=90)
    assert not told(COOLER, OUT, back, LOW).call.opened.emptied
    assert "as such units hold" in told(COOLER, OUT, HELD, LOW, STOOD).charge.text


def test_a_circuit_that_is_filled_again_is_not_held_for_the_warm_box_it_has_without_gas():
    seen = [read(key, word, 1) for key, word in (("box_temp_f", 52), ("ice_form", "none"), ("evap_fans", "running"), ("ambient_f", 84),
                                                 ("condenser_coil", "clean"), ("condenser_fans", "running"))]  # fmt: skip
    some = happened("weighed", 120, did="added", before_oz=200, after_oz=160, cylinder="404-1")
    half = told(COOLER, *seen, OUT, HELD, LOW, STOOD, some)
    assert half.charge.may == "yes" and "compressor off" in half.charge.text
    more = happened("weighed", 125, did="added", before_oz=160, after_oz=120, cylinder="404-1")
    bubbles = told(COOLER, *seen, OUT, HELD, LOW, STOOD, some, more, read("sight_glass", "flashing", 140))
    assert bubbles.charge.may == "yes" and "still bubbles" in bubbles.charge.text
    # The same box, its circuit never emptied: first the load.
    warm = told(COOLER, *seen, read("sight_glass", "flashing", 2), read("receiver_level_pct", 5, 3),
                happened("weighed", 20, did="added", before_oz=200, after_oz=190), read("sight_glass", "flashing", 40))  # fmt: skip
    assert warm.charge.may == "first" and "Load" in warm.charge.text


def test_on_an_open_circuit_no_stem_is_turned_and_nothing_is_asked_that_needs_it_running():
    call = told(PLATE, read("box_temp_f", 44, 1), OUT)
    assert call.valve().may == "no"
    assert not {"suction_psig", "suction_line_evap_f", "discharge_psig", "sight_glass"} & {one.key for one in call.next_checks()}
    assert call.runs.state != "should_run"


def test_its_steps_and_tests_are_written_as_done():
    call = told(PLATE, OUT, HELD, LOW, STOOD, IN)
    done = " ".join(call.said("done"))
    for words in ("recovered into cylinder R1: 60", "150", "Evacuated to 420 microns", "700 microns", "weighed in from cylinder 404-1: 64"):
        assert words in done, (words, done)


def test_gas_into_a_capillary_is_not_enough_while_its_suction_stands_low():
    unit = {"name": "x", "kind": "bottle_cooler", "refrigerant": "R-134a", "set_f": 37}
    seen = [read(key, word, 1) for key, word in (("box_temp_f", 52), ("ambient_f", 88), ("suction_psig", 3), ("leak_test", "none_found"))]
    gas = did("charge", "added", 20, value=3)
    low = told(unit, *seen, gas, read("suction_psig", 9, 40), read("box_temp_f", 44, 41))
    assert low.charge.may == "yes" and "are due at this box" in low.charge.text
    right = told(unit, *seen, gas, read("suction_psig", 24, 40), read("box_temp_f", 44, 41))
    assert right.charge.may == "stop"
