"""Every observation and every act has one part of the unit it belongs to."""

from collections import Counter

import pytest

from kettle.knowledge import acts, anatomy, causes, observations
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.knowledge.errors import InputError
from kettle.knowledge.quantities import QUANTITIES
from kettle.knowledge.said import NAMES, SAID

FREEZER = resolve(UnitSpec(kind="walk_in_freezer", refrigerant="R-404A"))
BOTTLE = resolve(UnitSpec(kind="bottle_cooler", refrigerant="R-290", critical_charge_oz=4.6))


def test_every_observation_stands_on_exactly_one_part_and_every_act_on_a_known_one():
    placed = Counter(key for part in anatomy.PARTS.values() for key in part.keys)
    assert set(placed) == set(observations.REGISTRY) and set(placed.values()) == {1}
    assert set(acts.PARTS) <= set(anatomy.PARTS)
    assert {part.area for part in anatomy.PARTS.values()} == set(anatomy.AREAS)


def test_a_part_exists_where_the_unit_is_built_so():
    freezer, bottle = ({part.code for part in anatomy.on(unit)} for unit in (FREEZER, BOTTLE))
    assert {"valve", "bulb", "receiver", "heater"} <= freezer and "cap_tube" not in freezer
    assert "cap_tube" in bottle and not {"valve", "bulb", "receiver", "heater"} & bottle
    assert [act.did for act in anatomy.get("valve").acts_on(FREEZER)] and "turned_out" not in {
        act.did for act in anatomy.get("valve").acts_on(FREEZER)
    }, "turns are the bench's own"
    with pytest.raises(InputError, match="not known"):
        anatomy.get("rotor")


def test_an_electronic_valve_has_no_element_to_exercise():
    eev = resolve(UnitSpec(kind="walk_in_cooler", refrigerant="R-448A", metering="eev"))
    assert "exercised" not in {act.did for act in anatomy.get("valve").acts_on(eev)}


def test_how_much_of_an_act_is_checked_in_its_unit():
    added = acts.get("charge", "added")
    assert added.check(56.0) == 56.0 and acts.get("bulb", "clamped").check(3.0) is None
    for wrong in (0.0, -1.0, 4001.0):
        with pytest.raises(InputError, match="oz is outside 0 to 4000 oz"):
            added.check(wrong)


def test_words_of_the_trade_name_observations_and_words_that_exist():
    assert set(NAMES) <= set(observations.REGISTRY)
    for phrase, (key, word) in SAID.items():
        assert word in dict(observations.get(key).choices), phrase


def test_causes_split_by_words_that_exist():
    splits = [cause.splits for cause in causes.CATALOGUE.values() if cause.splits]
    assert len(splits) >= 2
    for key, remedies in splits:
        assert set(remedies) <= set(dict(observations.get(key).choices))


def test_what_puts_a_part_in_names_it_and_an_opened_circuit_names_its_drier():
    for act in acts.ACTS.values():
        if act.did.endswith("replaced"):
            assert act.spares, act.code
    assert acts.get("door", "gasket_replaced").spares == ("gasket by the door's size and profile",)
    assert {"drier", "nitrogen"} <= set(acts.get("valve", "replaced").spares)
    assert acts.get("condenser", "cleaned").spares == ()


def test_a_coil_without_a_bulb_is_read_at_its_outlet():
    valve, tube = (resolve(UnitSpec(kind="reach_in_cooler", refrigerant="R-134a", metering=how)) for how in ("txv", "cap_tube"))
    line, superheat = observations.get("suction_line_evap_f"), QUANTITIES["superheat_evap_f"]
    assert (line.on(valve).label, line.on(tube).label) == ("Line at bulb", "Coil outlet")
    assert superheat.meaning_on(valve).startswith("line at the bulb") and superheat.meaning_on(tube).startswith("coil outlet")
    assert observations.get("suction_psig").on(tube).label == "Suction"
