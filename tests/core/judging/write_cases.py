"""Write the case files of tests/core/judging/cases: python -m tests.core.judging.write_cases

Each case is written from what the circuit physically does, as temperatures against the air or water around it, and what
eyes, hands and meter find with it; never from the tables of causes. Pressures come from the refrigerant's own saturation at
the site's altitude, and every figure carries the scatter of a field reading.
"""

import json
import random
from pathlib import Path

from kettle import case
from tests.core.judging.case_table import CASES, EARLY

FOLDER = Path(__file__).parent / "cases"

GAUGES = ("suction_psig", "discharge_psig")
NOISE = {"psig": 0.006, "f": 0.5}


def holds_of(readings):
    """The holds that what was found must bring about, by the trade's own rules."""
    found = set()
    on_coil = {"coil_whole", "coil_inlet_passes", "coil_part", "coil_bottom"}
    if readings.get("ice_form") in ("hard_ice", "heavy_frost", "snow") and on_coil & set(readings.get("ice_places", on_coil)):
        found.add("iced_coil")
    if readings.get("evap_fans") in ("stopped", "some_stopped"):
        found.add("fans_not_running")
    if readings.get("condenser_coil") == "blocked":
        found.add("condenser_blocked")
    if readings.get("condenser_fans") == "stopped":
        found.add("condenser_fan_stopped")
    if readings.get("winding_ground_ohm", 1e9) < 1e5:
        found.add("grounded_compressor")
    if readings.get("heater_ground_ohm", 1e9) < 1e5:
        found.add("grounded_heater")
    return sorted(found)


def scattered(readings, chance):
    """Readings as a gauge and a clamp show them: a little off, and rounded."""
    found = {}
    for key, value in readings.items():
        if isinstance(value, bool) or not isinstance(value, (int, float)):
            found[key] = value
        elif key in GAUGES:
            found[key] = round(value * (1 + chance.gauss(0, NOISE["psig"])), 1)
        elif key.endswith("_f") and key not in ("sensor_error_f", "stat_cut_in_f", "stat_cut_out_f"):
            found[key] = round(value + chance.gauss(0, NOISE["f"]), 1)
        else:
            found[key] = round(value, 1)
    return found


def written(name, plate, readings):
    """One case file's content."""
    chance = random.Random(name)
    unit = {key: value for key, value in plate.items() if value is not None}
    body = {"format": case.FORMAT, "version": case.VERSION, "unit": {"name": name} | unit, "observations": scattered(readings, chance)}
    case.read(json.dumps(body))
    return json.dumps(body, indent=1, ensure_ascii=False) + "\n"


def main():
    """Write every case and the list of what each must come to."""
    for old in FOLDER.glob("*.json"):
        old.unlink()
    expected = {}
    for codes, cases in CASES.items():
        for count, (plate, readings) in enumerate(cases, start=1):
            name = f"{codes or 'healthy'}-{count}"
            (FOLDER / f"{name}.json").write_text(written(name, plate, readings))
            expected[name] = {"causes": codes.split("+") if codes else [], "early": False, "holds": holds_of(readings)}
    for code, (plate, readings) in EARLY.items():
        name = f"early-{code}"
        (FOLDER / f"{name}.json").write_text(written(name, plate, readings))
        expected[name] = {"causes": [code], "early": True, "holds": holds_of(readings)}
    (FOLDER / "expected.json").write_text(json.dumps(expected, indent=1) + "\n")


if __name__ == "__main__":
    main()
