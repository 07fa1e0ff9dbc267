"""A call file: read whole or refused in one line, written and read again the same, its schema published."""

import json
import subprocess
import sys
from pathlib import Path

import pytest

from kettle import case
from kettle.call import tell
from kettle.call.kinds import KINDS
from kettle.knowledge.errors import InputError
from tests.core.call.made import COOLER, did, happened, read, record, text

ROOT = Path(__file__).parents[3]
WRONG = [
    ({"kind": "raeding", "key": "suction_psig", "value": 30.0}, r"event 1: kind “raeding” is not known; the nearest known is “reading”"),
    ({"key": "suction_psig"}, r"event 1: kind: required, and missing"),
    (read("suction_psi", 30.0), r"event 1 \(reading\): .*the nearest known key is “suction_psig”"),
    (read("suction_psig", 9000.0), r"event 1 \(reading\): suction_psig: .*9000.* psig is outside -?.*14\.7 to 700 psig"),
    (read("bulb", "looose"), r"event 1 \(reading\): bulb: .*“looose” is not one of tight_insulated"),
    (read("suction_psig", 30.0, on=1), r"event 1 \(reading\): suction_psig belongs to the whole unit"),
    (read("bulb", "loose", on="left"), r"event 1 \(reading\): on: “left” is no coil of this unit"),
    ({**read("bulb", "loose"), "colour": "red"}, r"event 1 \(reading\): .*unknown key of reading “colour”"),
    (did("valve", "melted"), r"event 1 \(act\): “melted” cannot be done to valve"),
    (did("valv", "replaced"), r"event 1 \(act\): part “valv” is not known; the nearest known is “valve”"),
    (happened("measured", what="volts", one="K9", other="L2", value=1.0), r"event 1 \(measured\): point “K9” is not in this circuit"),
    (happened("measured", what="volts", one="L1", other="L1", value=1.0), r"event 1 \(measured\): both leads are on one point"),
    (happened("measured", what="volts", one="L1", other="N", value=2000.0), r"2000 V is outside 0 to 1000 V"),
    (happened("measured", what="amps", one="L1", value="OL"), r"OL is a reading of ohms, not of amps"),
    (happened("vacuum", microns=0.2), r"event 1 \(vacuum\): microns: 0.2 microns is outside 1 to 2e\+06 microns"),
    (happened("melt", method="axe"), r"event 1 \(melt\): method: method “axe” is not known"),
    (happened("ice", covers_pct=10.0), r"event 1 \(ice\): form: required where there is no map"),
    (happened("ice", map={"rows": ["x"]}), r"event 1 \(ice\): map: Ice map: it has 5 rows of 10 cells"),
    (happened("program", side="found", figures={"fail_safe": 20.0}), r"the nearest known is “fail_safe_min”"),
    (happened("program", side="found", starts=["25:00"]), r"“25:00” is no time of day"),
    (happened("setting", parameter="lp_cut_in", found=22.0, left=900.0), r"left: 900 is outside -14.7 to 250 psig"),
    (happened("promise", due="soon", what="look"), r"“soon” is no day"),
    (happened("leak_look", place="roof", heard="no"), r"place “roof” is not known"),
    (happened("override", holds=["iced"], reason="had to"), r"hold “iced” is not known; the nearest known is “iced_coil”"),
    ({**read("bulb", "loose"), "at": "yesterday"}, r"event 1: at: "),
    ({**read("bulb", "loose"), "at": "0900-01-01T00:00:00"}, r"event 1: at: the year 900 is outside 1990 to 2100"),
]


@pytest.mark.parametrize(("event", "says"), WRONG, ids=[f"{n}-{one.get('kind', 'none')}" for n, (one, _) in enumerate(WRONG)])
def test_what_is_wrong_is_told_in_one_line_with_event_key_range_and_unit(event, says):
    with pytest.raises(InputError, match=says) as told:
        case.read_call(text(COOLER, event))
    assert "\n" not in str(told.value)


@pytest.mark.parametrize(
    ("unit", "says"),
    [
        ({**COOLER, "coils": ["a", "a"]}, "two have one name"),
        ({**COOLER, "coils": ["a", "b"], "evaporators": 3}, "2 are named, but evaporators says 3"),
        ({**COOLER, "circuit": {"element": 3}}, "“element” is not known; the nearest known is “elements”"),
        ({**COOLER, "circuit": {"element_w": 2.0}}, "2 is outside 20 to 6000 W|“2” is outside 20 to 6000 W"),
        ({**COOLER, "found_before": ["ghosts"]}, "cause “ghosts” is not known"),
        ({**COOLER, "set_f": 900}, "900.* is outside -60 to 80|outside −60 to 80"),
    ],
)
def test_a_unit_that_cannot_be_is_refused(unit, says):
    with pytest.raises(InputError, match=says):
        case.read_call(text(unit))


WHOLE = (
    happened("note", at=0, text="called at five", about="complaint"), read("box_temp_f", 47.0, source="probe"),
    happened("ice", form="hard_ice", covers_pct=80.0, places=["coil_whole"], on="yard"),
    happened("melt", method="hot_water", minutes=40.0, all_clear=True, on="yard"),
    happened("measured", what="ohms", one="S", other="G", value="OL", state="locked_out"),
    happened("looked", part="evap_fan", state="spins_free"), did("valve", "turned_in", value=0.25, on="yard", undone=True),
    happened("weighed", did="added", refrigerant="R-448A", before_oz=400.0, after_oz=390.0, cylinder="A1", form="liquid"),
    happened("retrofit", to="R-449A", oil="POE"), happened("placed", what="jumper", where="2 to 4"), happened("gone", what="jumper"),
    happened("found", causes=["undercharge"]), happened("seen", proof="air"), happened("sibling", name="Cooler 1", state="ok"),
    happened("left_so", what="leak_open", answer="knows", reason="weekend"), happened("promise", due="2026-03-09", what="look again"),
    happened("used", what="drier", amount=1.0), happened("time", what="arrive"),
)  # fmt: skip
TWO = {**COOLER, "coils": ["street", "yard"], "label_charge_oz": 160.0, "beside": ["Cooler 1"], "found_before": ["undercharge"],
       "circuit": {"fans": 3}, "quotes_first": True}  # fmt: skip


def test_a_call_written_and_read_again_tells_the_same_to_the_word():
    first = record(TWO, *WHOLE)
    data = case.data_of(first, {name: TWO[name] for name in COOLER})
    again = case.read_call(case.write_call(data))
    one, other = ([(e.kind, e.on, e.undone, e.at, dict(e.data)) for e in record.events] for record in (first, again))
    assert one == other
    assert case.answer_of(tell(again)) == case.answer_of(tell(first))
    assert data["unit"]["circuit"] == {"fans": 3} and data["events"][2]["on"] == "yard" and data["events"][6]["undone"] is True


def test_the_schemas_are_published_as_the_code_has_them():
    published = json.loads((ROOT / "docs" / "call.schema.json").read_text())
    made = json.loads(json.dumps(case.schema(2)))
    assert published == made, "python -m kettle schema --version 2 > docs/call.schema.json"
    assert made["$id"] == "orange-kettle/case/2" and len(made["properties"]["events"]["items"]["oneOf"]) == len(KINDS)
    with pytest.raises(InputError, match="version 3 of the case format"):
        case.schema(3)


def test_the_page_lists_the_codes_of_the_code():
    done = subprocess.run([sys.executable, "tools/describe_call.py", "--check"], cwd=ROOT, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr


def _run(*arguments, given=""):
    done = subprocess.run([sys.executable, "-m", "kettle", *arguments], cwd=ROOT, input=given, capture_output=True, text=True, check=False)
    return done.returncode, done.stdout, done.stderr


def test_the_command_tells_a_call_after_some_of_its_events():
    given = text(COOLER, read("box_temp_f", 47.0, at=0), read("evap_fans", "stopped"), did("evap_fan", "replaced"))
    status, out, _ = _run("call", "-", "--json", "--after", "2", given=given)
    told = json.loads(out)
    assert status == 0 and told["events"] == 2 and told["at"] == "2026-03-02T06:01:00Z"
    assert {"runs", "was", "left", "holds", "problems", "next_checks", "coils", "verdicts", "derived", "charge", "valve", "leads", "prove",
            "leave", "may_leave", "said", "customer"} <= set(told)  # fmt: skip
    status, words, _ = _run("call", "-", given=given)
    assert status == 0 and "What was done:" in words and "Fan replaced." in words and "Not to be left so:" in words
    status, _, wrong = _run("call", "-", "--after", "9", given=given)
    assert status == 2 and wrong == "kettle: --after: 9 is outside 0 to 3 events\n"
    status, _, wrong = _run("call", "-", given=given.replace("stopped", "stoped"))
    assert status == 2 and wrong.startswith("kettle: event 2 (reading): evap_fans:") and wrong.count("\n") == 1
