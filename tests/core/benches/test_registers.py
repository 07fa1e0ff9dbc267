"""The register map of the case controller."""

from datetime import datetime
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pymodbus.client import ModbusTcpClient

from devices.controller import AS_FOUND, Controller, serve_in_background
from kettle.benches.controls import registers
from kettle.benches.controls.registers import LIVE, REGISTERS, checks, live_of, program_settings, settings_of, starts_of
from kettle.benches.defrost.program import ROLES
from kettle.knowledge.errors import InputError


@given(st.sampled_from(sorted(REGISTERS)), st.floats(0, 1))
def test_a_figure_survives_its_register(role, share):
    register = REGISTERS[role]
    value = register.low + share * (register.high - register.low)
    raw = register.raw(value)
    assert 0 <= raw <= 0xFFFF
    assert register.value(raw) == pytest.approx(value, abs=0.5 / register.scale + 1e-9)


def test_addresses_are_each_used_once_and_inside_what_is_read():
    settings, live = [r.address for r in REGISTERS.values()], [r.address for r in LIVE.values()]
    assert len(set(settings + live)) == len(settings + live)
    assert max(settings) < registers.FIRST_SETTING + registers.SETTINGS_COUNT
    assert min(live) == registers.FIRST_LIVE and max(live) == registers.FIRST_LIVE + registers.LIVE_COUNT - 1
    assert set(registers.PROGRAM_ROLES) <= set(ROLES) & set(REGISTERS)


def test_words_negative_figures_and_times_of_day():
    # −5.0 °F at a scale of ten is −50, in two's complement 65486.
    assert REGISTERS["set_point"].raw(-5.0) == 65486
    assert REGISTERS["set_point"].text(-5.0) == "−5 °F"
    assert REGISTERS["start_1"].text(150) == "02:30" and REGISTERS["start_1"].text(-1) == "unused"
    assert REGISTERS["unit_type"].text(1) == "walk-in freezer" and "unknown" in REGISTERS["unit_type"].text(9)
    with pytest.raises(InputError, match="Fail-safe: 300 min is outside 5 to 90 min"):
        REGISTERS["fail_safe_min"].raw(300)
    with pytest.raises(InputError, match="in place of 42"):
        settings_of([0] * 3)


def test_a_program_fills_the_starts_or_says_that_it_has_too_many():
    settings = program_settings((120, 600), {"fail_safe_min": 25.0, "alarm_delay_min": 60.0})
    assert (settings["start_2"], settings["start_3"]) == (600.0, registers.UNUSED)
    assert starts_of(settings) == (120, 600)
    with pytest.raises(InputError, match="holds 8"):
        program_settings(tuple(range(9)), {})


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"refrigerant": 2.0}, "plate says R-404A"),
        ({"unit_type": 0.0}, "believes it runs a walk-in cooler"),
        ({"alarm_delay_min": 20.0}, "shorter than a defrost"),
        ({"alarm_high": 2.0}, "rings in every cycle"),
        ({"probe_2": 0.0}, "only end by time"),
        ({"service_mode": 1.0}, "service mode"),
    ],
)
def test_settings_against_sense_are_told(change, says):
    sound = dict(AS_FOUND) | {"alarm_delay_min": 60.0}
    assert checks(sound, "R-404A", "walk-in freezer") == []
    assert says in " ".join(checks(sound | change, "R-404A", "walk-in freezer"))


def told(controller):
    now = controller.registers()
    return live_of([now[address] for address in range(registers.FIRST_LIVE, registers.FIRST_LIVE + registers.LIVE_COUNT)])


def test_the_stand_in_lives_on_the_model_and_takes_writes_in_service_mode_alone():
    # Half past ten: between two starts, whenever the test is run.
    controller = Controller(now=datetime(2026, 5, 4, 10, 30))
    live = told(controller)
    assert -8 < live["box_f"] < 15 and live["last_defrost_min"] > 10 and LIVE["last_ended_by"].text(live["last_ended_by"]) == "temperature"
    fail_safe, service, start_2 = (REGISTERS[role].address for role in ("fail_safe_min", "service_mode", "start_2"))
    assert controller.write(fail_safe, 30) is None
    assert controller.write(service, 1) == 1
    assert controller.write(fail_safe, 30) == 30 and controller.write(fail_safe, 300) is None and controller.write(7, 1) is None
    # Half past is kept on the hour, without a word.
    assert controller.write(start_2, 150) == 120
    assert controller.write(registers.START_DEFROST, 1) == 0
    assert controller._state(controller.state[0]) == "defrosting"
    assert told(controller)["state_min"] < 1
    controller.state.since_start_h, controller.state.defrosting, controller.state.running = 0.25, 0.0, 1.0
    controller.state.fans = 1.0
    assert (told(controller)["state"], told(controller)["state_min"]) == (float(registers.STATES.index("cooling")), 15.0)
    assert controller.plant.parts.fail_safe_min[0] == 30


def test_without_a_coil_probe_the_stand_in_alarms_and_ends_by_time():
    controller = Controller(settings={"probe_2": 0.0, "fail_safe_min": 20.0, "interlock": 0.0})
    live = told(controller)
    assert registers.alarms_of(live)[:2] == ["auxiliary probe fault", "open control circuit"]
    assert registers.alarm_seen(live) == "sensor_fault" and registers.alarm_seen({"alarms": 0.0}) == "none"
    assert set(registers.ALARMS_SEEN) == set(registers.ALARMS)
    assert LIVE["last_ended_by"].text(live["last_ended_by"]) == "time" and live["last_defrost_min"] == pytest.approx(20, abs=1)


def test_the_documented_map_is_the_one_both_ends_read():
    lines = Path("docs/controller.md").read_text().splitlines()
    told = {
        line.split("|")[2].strip(" `"): int(line.split("|")[1])
        for line in lines
        if line.startswith("|") and line.split("|")[1].strip().isdigit()
    }
    assert told == {role: register.address for table in (REGISTERS, LIVE) for role, register in table.items()}


def test_the_stand_in_refuses_what_the_page_says_it_refuses():
    server = serve_in_background(settings={"service_mode": 1.0})
    client = ModbusTcpClient("127.0.0.1", port=server.port, timeout=3, retries=0)
    try:
        assert client.connect()
        assert client.read_holding_registers(500, count=2, device_id=1).exception_code == 2
        assert client.write_register(LIVE["box_f"].address, 0, device_id=1).exception_code == 3
        assert client.write_register(REGISTERS["fail_safe_min"].address, 4, device_id=1).exception_code == 3
        assert not client.write_registers(REGISTERS["fail_safe_min"].address, [30, 550], device_id=1).isError()
        read = settings_of(client.read_holding_registers(0, count=42, device_id=1).registers)
        assert (read["fail_safe_min"], read["termination_f"]) == (30.0, 55.0)
    finally:
        client.close()
        server.stop()


def test_the_freezer_of_the_stand_in_lives_on_by_the_clock():
    controller = Controller(speed=3600.0)
    before = float(controller.state.hours[0])
    controller.asked -= 2.0
    controller.advance()
    # Two seconds at 3,600 times are two hours.
    assert controller.state.hours[0] - before == pytest.approx(2.0, abs=0.2)
