import contextlib
import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle import case
from kettle.judging.course import judge_course
from kettle.knowledge.errors import InputError
from tests.examples import at_most

GOOD = {
    "format": "orange-kettle/case",
    "version": 1,
    "unit": {"name": "Cooler 2", "kind": "walk_in_cooler", "refrigerant": "R-448A", "set_f": 36, "bands": {"td_f": [7, 13]}},
    "observations": [
        {"key": "suction_psig", "value": 31.0, "at": "2026-03-02T06:14:00Z", "source": "gauge"},
        {"key": "ice_places", "value": ["coil_inlet_passes"]},
    ],
}


def text(**changes):
    return json.dumps(GOOD | changes)


def with_unit(**changes):
    return text(unit=GOOD["unit"] | changes)


def seen(*entries):
    return text(observations=list(entries))


def test_a_case_is_read_and_written_back_the_same():
    read = case.read(text())
    assert read.standing() == {"suction_psig": 31.0, "ice_places": ("coil_inlet_passes",)}
    assert case.read(case.write(read)) == read
    assert json.loads(case.write(read))["observations"][0]["at"] == "2026-03-02T06:14:00Z"


def test_observations_may_be_a_plain_object():
    assert case.read(text(observations={"suction_psig": 31, "sight_glass": "clear"})).standing() == {
        "suction_psig": 31.0,
        "sight_glass": "clear",
    }


def test_the_latest_stands_whatever_the_order_in_the_file():
    late = {"key": "box_temp_f", "value": 40, "at": "2026-03-02T08:00:00+02:00"}
    early = {"key": "box_temp_f", "value": 44, "at": "2026-03-02T05:00:00Z"}
    assert case.read(seen(late, early)).standing()["box_temp_f"] == 40.0
    untimed = [{"key": "box_temp_f", "value": 44}, {"key": "box_temp_f", "value": 41}]
    assert case.read(seen(*untimed)).standing()["box_temp_f"] == 41.0


def test_each_evaporator_has_its_own_observations():
    two = text(
        unit=GOOD["unit"] | {"evaporators": 2},
        observations=[
            {"key": "ice_form", "value": "none", "on": 1},
            {"key": "ice_form", "value": "hard_ice", "on": 2},
            {"key": "suction_psig", "value": 50},
        ],
    )
    assert case.read(two).standing(1) == {"ice_form": "none", "suction_psig": 50.0}
    assert case.read(two).standing(2)["ice_form"] == "hard_ice"


@pytest.mark.parametrize(
    ("source", "says"),
    [
        ("", "not JSON"),
        ("[]", "not a case file"),
        ("{" * 50_000, "not JSON|nested"),
        ("[" * 200_000, "nested too deep"),
        (b"\xff\xfe\x00", "UTF-8"),
        ('{"format": "orange-kettle/case", "format": "x"}', "“format” twice"),
        (text(format="other"), "not a case file"),
        (text(version=2), "version 2"),
        (text(version="1"), 'version "1"'),
        (text(extra=1), "extra.*nearest known key"),
        (with_unit(kimd="x"), "kimd.*nearest known key is “kind”"),
        (with_unit(kind="walkin_cooler"), "walkin_cooler.*walk_in_cooler"),
        (with_unit(refrigerant="R-999"), "R-999.*known"),
        (with_unit(metering="txw"), "nearest known is “txv”"),
        (with_unit(set_f=500), "500.*-60 to 80 °F"),
        (with_unit(set_f="36"), "set_f"),
        (with_unit(phases=2), "phases"),
        (with_unit(bands={"td_f": [13, 7]}), "low end 13"),
        (with_unit(bands={"tdf": [1, 2]}), "“tdf” has no band.*td_f"),
        (with_unit(bands={"td_f": [1]}), "bands"),
        (with_unit(receiver="yes"), "receiver"),
        (seen({"key": "suction_psi", "value": 1}), "suction_psi”.*suction_psig"),
        (seen({"key": "suction_psig", "value": 900}), "suction_psig.*900.0 psig.*700 psig"),
        (seen({"key": "suction_psig", "value": "31"}), "suction_psig"),
        (seen({"key": "suction_psig", "value": True}), "suction_psig|value"),
        (seen({"key": "sight_glass", "value": "cloudy"}), "sight_glass.*cloudy.*clear"),
        (seen({"key": "ice_places", "value": ["roof"]}), "roof.*coil_whole"),
        (seen({"key": "suction_psig", "value": 31, "sorce": "x"}), "sorce.*“source”"),
        (seen({"key": "suction_psig", "value": 31, "at": "yesterday"}), "at"),
        (seen({"key": "suction_psig", "value": 31, "at": 12}), "ISO 8601"),
        (seen({"key": "suction_psig", "value": 31, "on": 1}), "whole unit"),
        (seen({"key": "ice_form", "value": "none", "on": 2}), "“on” is 2"),
        (text().replace("31.0", "NaN"), "NaN"),
        (text().replace("31.0", "Infinity"), "Infinity"),
        ("x" * 2_000_001, "larger than 2 MB"),
        ('{"format": "orange-kettle/case", "version": 1}', "unit: required"),
    ],
)  # fmt: skip
def test_anything_unsound_gets_one_clear_line(source, says):
    with pytest.raises(InputError, match=says) as caught:
        case.read(source)
    assert "\n" not in str(caught.value)
    assert len(str(caught.value)) < 500


LEAVES = st.none() | st.booleans() | st.floats() | st.text(max_size=9)
KEYS = st.sampled_from(["key", "value", "at", "on", "unit", "kind", "x"])
SHAPES = st.recursive(LEAVES, lambda inner: st.lists(inner, max_size=3) | st.dictionaries(KEYS, inner, max_size=4))


@at_most(80)
@given(SHAPES)
def test_hostile_shapes_never_crash(shape):
    for name in ("unit", "observations"):
        with contextlib.suppress(InputError):
            case.read(text(**{name: shape}))


def test_the_published_schema_is_the_one_of_the_code():
    made = case.schema()
    assert made["$id"] == "orange-kettle/case/1"
    assert made["$defs"]["CaseUnit"]["required"] == ["kind", "refrigerant"]
    assert made["$defs"]["CaseUnit"]["additionalProperties"] is False
    published = (Path(__file__).parents[2] / "docs" / "case.schema.json").read_text()
    assert json.loads(published) == json.loads(json.dumps(made)), "docs/case.schema.json: python -m kettle schema > docs/case.schema.json"


def test_the_answer_has_the_shape_of_the_format():
    read = case.read(text())
    answer = case.answer(judge_course(read.resolved(), read.stages()))
    assert list(answer) == ["derived", "verdicts", "problems", "holds", "ranking", "was", "left", "next_checks", "assumed"]
    assert set(answer["ranking"][0]) == {"causes", "probability", "for", "against", "confirm", "correct", "caution"}
    assert set(answer["next_checks"][0]) == {"key", "text", "gain_bits", "minutes"}
    assert answer["derived"]["sst_f"] == pytest.approx(7.9, abs=0.1)
    assert json.loads(json.dumps(answer)) == answer


SMALL = {"format": "orange-kettle/case", "version": 1, "unit": {"kind": "walk_in_freezer", "refrigerant": "R-404A"}}


@pytest.mark.parametrize("ends", ["[-1e400, 1e400]", "[1e308, -1e308]", "[-1e308, 1e308]", "[12, 6]"])
def test_a_band_that_is_none_is_named(ends):
    unit = {**SMALL["unit"], "bands": {"superheat_evap_f": "ends"}}
    text = json.dumps({**SMALL, "unit": unit}).replace('"ends"', ends)
    with pytest.raises(InputError, match="superheat_evap_f"):
        case.read(text)


@pytest.mark.parametrize("at", ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-12:00"])
def test_a_time_at_the_edge_of_the_calendar_is_refused(at):
    text = json.dumps({**SMALL, "observations": [{"key": "box_temp_f", "value": 4, "at": at}]})
    with pytest.raises(InputError, match="year"):
        case.read(text)


def test_more_observations_than_a_visit_has_are_refused():
    rows = [{"key": "box_temp_f", "value": 4}] * (case.MOST_OBSERVATIONS + 1)
    with pytest.raises(InputError, match="2000"):
        case.read(json.dumps({**SMALL, "observations": rows}))
