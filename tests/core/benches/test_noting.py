"""Words as they come to mind are understood as what the registry knows, and a gauge may be read as a temperature."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kettle.benches.noting import LONGEST, hear
from kettle.benches.noting.phrases import names_of
from kettle.judging.readings import as_typed
from kettle.knowledge import anatomy, observations, refrigerants
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.measures import ShownUnits
from kettle.knowledge.said import VERBS
from tests.core.benches.phrases import PHRASES

FREEZER = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A"))
GAS = resolve(UnitSpec(kind="display_freezer", refrigerant="R-404A", defrost="hot_gas"))
WATER = resolve(UnitSpec(kind="provision_room_cooler", refrigerant="R-404A"))
COOLER = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", altitude_ft=2000))


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("door switch open", "Door switch: open"),
        ("heater 7.2", "Heater amps: 7.2 A"),
        ("no gas at glass", "Sight glass: empty"),
        ("the fans are dead", "Coil fans: stopped"),
        ("bubbles in the glass", "Sight glass: few bubbles"),
        ("drain heater cold", "Drain heater: cold"),
        ("head 260", "Discharge: 260.0 psig"),
        ("discharge 291", "Discharge: 291.0 psig"),
        ("discharge pressure 188", "Discharge: 188.0 psig"),
        ("discharge 214F", "Discharge line: 214.0 °F"),
        ("bulb clamped", "Done: bulb clamped"),
        ("ice on ceiling", "Ice where: ceiling"),
        ("box 47", "Box air: 47.0 °F"),
        ("water foams", "Melt water: cloudy, foaming"),
        ("L2 L3 228", "Line volts 2–3: 228 V"),
        ("load L2 L3 139", "Load volts 2–3: 139 V"),
        ("load T1 T2 219", "Load volts 1–2: 219 V"),
        ("no EPR", "Suction regulator: has none"),
        ("regulator fitted", "Suction regulator: fitted"),
        ("megger 200k", "Winding to ground: 200 kΩ"),
    ],
)
def test_what_technicians_say_is_understood_first(typed, words):
    unit = COOLER if "heater 7" not in typed else resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A"))
    if "discharge" in typed:
        unit = resolve(UnitSpec(kind="bottle_cooler", refrigerant="R-134a"))
    assert hear(typed, unit)[0].choices[0].words == words


def test_what_is_like_nothing_is_not_guessed():
    (words,) = hear("qwrtz blorp", COOLER)
    assert words.choices == () and words.as_words == "In words"
    assert hear("   ", COOLER) == () and hear("17", COOLER) == ()


def test_a_bare_figure_under_suction_is_its_pressure_and_with_a_degree_its_saturation():
    assert hear("suction 52", COOLER)[0].sure.value == 52.0
    heard = hear("suction 26F", COOLER)[0].sure
    expected = refrigerants.get("R-448A").dew_psig(26.0, 2000)
    assert heard.code == "suction_psig" and heard.value == pytest.approx(expected, abs=0.01)
    assert hear("suction -3C", COOLER, ShownUnits(temperature="°C"))[0].sure.value == pytest.approx(
        refrigerants.get("R-448A").dew_psig(26.6, 2000), abs=0.02
    )


def test_the_liquid_side_is_read_at_bubble_and_what_lies_off_the_table_is_refused():
    head, resting = observations.get("discharge_psig"), observations.get("resting_psig")
    bubble = refrigerants.get("R-448A").bubble_psig(104.0, 2000)
    assert as_typed(head, "104 °F", COOLER) == pytest.approx(bubble, abs=0.01) == as_typed(resting, "40C", COOLER)
    with pytest.raises(InputError, match="Discharge"):
        as_typed(head, "900F", COOLER)
    assert as_typed(observations.get("box_temp_f"), "3C", COOLER) == pytest.approx(37.4), "a temperature stays one"


@given(st.text(max_size=200))
def test_whatever_is_typed_is_answered_with_sound_values_or_nothing(text):
    for piece in hear(text, COOLER):
        for heard in piece.choices:
            assert heard.words and 0 < heard.alike <= 100
            if heard.entry:
                assert heard.entry.check(list(heard.value) if isinstance(heard.value, tuple) else heard.value) == heard.value


def test_only_so_much_is_read():
    assert hear("door switch open " + "x" * (10 * LONGEST), COOLER) == hear(("door switch open " + "x" * (10 * LONGEST))[:LONGEST], COOLER)


@pytest.mark.parametrize(
    ("typed", "words"),
    [
        ("compressor not running", "Compressor: off"),
        ("comp not running", "Compressor: off"),
        ("fans not running", "Coil fans: stopped"),
        ("no bubbles in the glass", "Sight glass: clear"),
        ("drain not running", "Drain: blocked"),
        ("no ice", "Ice on the coil: bare"),
        ("no leak", "Leak test: none found"),
        ("power locked out", "Power locked out: yes"),
        ("latch blocked", "Latch blocked: yes"),
    ],
)
def test_what_is_not_so_is_never_heard_as_so(typed, words):
    assert hear(typed, COOLER)[0].sure.words == words


def test_words_that_fit_nothing_of_a_phrase_count_against_it():
    assert "Compressor: off" not in [heard.words for heard in hear("drain not running", COOLER)[0].choices]


def _taken(typed):
    """How each piece of what was typed is taken, as the table of phrases has it."""
    found = []
    for piece in hear(typed, FREEZER):
        if piece.refusal:
            found.append(f"! {piece.refusal}")
        elif piece.choices:
            found.append(f"{'=' if piece.sure else '?'} {' | '.join(one.words for one in piece.choices)}")
        else:
            found.append(f'" {piece.as_words}')
    return " // ".join(found)


OF_OTHER_BUILDS = (
    (GAS, "hot gas valve stuck open", "Hot-gas valve: lets gas by while it cools"),
    (GAS, "no hot gas in defrost", "Hot-gas valve: stays shut"),
    (GAS, "hot gas solenoid coil replaced", "Done: hot-gas valve coil replaced"),
    (WATER, "scale in the condenser", "Seen: scale in the condenser's tubes"),
    (WATER, "water valve stuck open", "Water valve: runs on, head low"),
    (WATER, "water strainer plugged", "Seen: water strainer plugged"),
    (WATER, "water regulating valve adjusted", "Done: water valve adjusted"),
    (WATER, "water out 97", "Water out: 97.0 °F"),
)


@pytest.mark.parametrize(("unit", "typed", "words"), OF_OTHER_BUILDS)
def test_parts_that_few_units_have_are_understood_where_they_are(unit, typed, words):
    assert [piece.sure.words for piece in hear(typed, unit)] == [words]


@pytest.mark.parametrize(("typed", "taken"), PHRASES)
def test_what_technicians_type_is_understood_offered_or_kept_as_words(typed, taken):
    found = _taken(typed)
    assert found == taken if not taken.startswith("!") else found.startswith(taken)


@given(
    st.sampled_from(sorted(anatomy.PARTS)),
    st.sampled_from(("warm", "dead", "on", "good", "out of adjustment", "iced", "new", "bad")),
    st.data(),
)
def test_no_act_is_heard_where_nobody_said_it_was_done(part, state, data):
    name = data.draw(st.sampled_from(names_of(part)))
    for piece in hear(f"{name} {state}", COOLER):
        assert not any(one.act for one in piece.choices)


@given(st.sampled_from(sorted(anatomy.PARTS)), st.sampled_from(sorted(VERBS)), st.data())
def test_an_act_that_is_kept_by_enter_is_of_the_part_that_was_named(part, verb, data):
    name = data.draw(st.sampled_from(names_of(part)))
    for piece in hear(f"{name} {verb}", COOLER):
        if piece.sure and piece.sure.act:
            assert name.lower() in {one.lower() for one in names_of(piece.sure.act.part)} | {piece.sure.act.label.lower()}


def test_a_unit_of_another_quantity_is_refused_with_both_named():
    (piece,) = hear("box 45 psig", COOLER)
    assert piece.choices == () and "psig" in piece.refusal and "a pressure" in piece.refusal and "°F" in piece.refusal
    (coarse,) = hear("vacuum 29.9 inHg", COOLER)
    assert "about 500 micron" in coarse.refusal and "micron gauge" in coarse.refusal


def test_two_words_for_one_thing_are_both_asked():
    pieces = hear("bulb loose, bulb uninsulated", COOLER)
    assert [one.choices[0].words for one in pieces] == ["Bulb: loose", "Bulb: uninsulated"] and not any(one.sure for one in pieces)


def test_the_coil_that_was_named_is_the_one_it_is_kept_for():
    several = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A", evaporators=3))
    (piece,) = hear("coil 2 iced solid", several)
    assert piece.coil == 2 and piece.sure.words == "Ice on the coil: hard ice"
    assert hear("coil 4 iced solid", several)[0].coil is None


def test_an_unusual_figure_is_asked_before_it_is_kept():
    assert hear("box 145", COOLER)[0].sure is None and hear("box 145", COOLER)[0].choices[0].words == "Box air: 145.0 °F"
