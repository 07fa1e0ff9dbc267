import json
from datetime import UTC, datetime, timedelta

import pytest

from devices.probes import PROBES, ProbeServer, circuit_at
from kettle.benches.probes import protocol as probes
from kettle.knowledge import observations
from kettle.knowledge.errors import InputError

NOW = datetime(2026, 3, 2, 6, 14, tzinfo=UTC)


def line(**changes):
    message = {"type": "reading", "probe": "T1", "label": "Clamp", "key": "suction_line_evap_f", "value": -2.1, "unit": "°F",
               "at": NOW.isoformat(), "battery_pct": 12}  # fmt: skip
    return json.dumps({key: value for key, value in (message | changes).items() if value is not None})


def test_a_reading_is_taken_in_its_stored_unit():
    live = probes.read_message(line(), NOW)
    assert (live.probe, live.key, live.value, live.battery_pct, live.battery_low) == ("T1", "suction_line_evap_f", -2.1, 12, True)
    assert probes.read_message(line(value=-20, unit="°C"), NOW).value == pytest.approx(-4)
    assert probes.read_message(line(key="suction_psig", value=2.1, unit="bar"), NOW).value == pytest.approx(30.458, abs=0.001)
    assert probes.read_message(line(battery_pct=None), NOW).battery_pct is None


def test_a_probe_is_live_late_then_lost():
    live = probes.read_message(line(), NOW)
    ages = {0: "live", 4.9: "live", 6: "late", 13: "lost"}
    assert {age: live.state(NOW + timedelta(seconds=age)) for age in ages} == ages
    ahead = probes.read_message(line(at=(NOW + timedelta(hours=1)).isoformat()), NOW)
    assert ahead.at == NOW


def test_greetings_and_later_kinds_are_passed_over_and_a_strange_version_is_not():
    assert probes.read_message('{"type": "hello", "protocol": "orange-kettle/probes", "version": 1}', NOW) is None
    assert probes.read_message('{"type": "weather"}', NOW) is None
    with pytest.raises(InputError, match="not orange-kettle/probes 1"):
        probes.read_message('{"type": "hello", "protocol": "orange-kettle/probes", "version": 9}', NOW)


@pytest.mark.parametrize(
    ("sent", "says"),
    [
        ("{", "not JSON"),
        ("[]", "not an object"),
        (line(key="suction_psi"), "nearest known key"),
        (line(value="warm"), "no figure"),
        (line(value=True), "no figure"),
        (line(key="sight_glass"), "no figure"),
        (line(value=900, unit="psig"), "no unit of this reading"),
        (line(key="suction_psig", value=9000, unit="psig"), "outside −14.7 to 700 psig"),
        (line(at="yesterday"), "ISO 8601"),
    ],
)
def test_a_line_that_is_not_sound_is_said_in_one_line(sent, says):
    with pytest.raises(InputError, match=says):
        probes.read_message(sent, NOW)


def test_the_simulated_set_speaks_the_protocol_and_goes_silent():
    server = ProbeServer(port=0, every_s=0.0)
    with server:
        server.silent.add("T1")
        messages = server.messages()
        assert probes.read_message(json.dumps(next(messages)), NOW) is None
        heard = [probes.read_message(json.dumps(next(messages)), datetime.now(UTC)) for _ in range(2 * (len(PROBES) - 1))]
    assert {live.probe for live in heard} == {probe.name for probe in PROBES} - {"T1"}
    true = circuit_at(0.0)
    assert all(observations.get(live.key) and live.value == pytest.approx(true[live.key], abs=4) for live in heard)
