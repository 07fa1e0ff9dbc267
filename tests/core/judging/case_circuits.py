"""Circuits the case files are written from: plates, what a sound circuit runs at, readings running and stopped."""

from kettle.knowledge import refrigerants

WALK_IN_FREEZER = {"kind": "walk_in_freezer", "refrigerant": "R-404A", "set_f": -5, "compressor_rla_a": 14.0, "nameplate_v": 230,
                   "phases": 3, "metering": "txv", "receiver": True, "defrost": "electric"}  # fmt: skip
WALK_IN_COOLER = {"kind": "walk_in_cooler", "refrigerant": "R-448A", "set_f": 36, "compressor_rla_a": 9.4, "nameplate_v": 230,
                  "phases": 3, "metering": "txv", "receiver": True, "defrost": "timed_air", "altitude_ft": 4200}  # fmt: skip
REACH_IN = {"kind": "reach_in_cooler", "refrigerant": "R-134a", "set_f": 37, "compressor_rla_a": 5.0, "nameplate_v": 115, "phases": 1,
            "metering": "cap_tube", "receiver": False}  # fmt: skip
REACH_IN_FREEZER = {"kind": "reach_in_freezer", "refrigerant": "R-404A", "set_f": 0, "compressor_rla_a": 7.0, "nameplate_v": 230,
                    "phases": 1, "metering": "txv", "receiver": False, "defrost": "electric"}  # fmt: skip
DISPLAY_FREEZER = {"kind": "display_freezer", "refrigerant": "R-404A", "set_f": 0, "compressor_rla_a": 21.0, "nameplate_v": 230,
                   "phases": 3, "metering": "txv", "receiver": True, "defrost": "electric"}  # fmt: skip
DISPLAY_COOLER = {"kind": "display_cooler", "refrigerant": "R-449A", "set_f": 35, "compressor_rla_a": 11.0, "nameplate_v": 230,
                  "phases": 3, "metering": "txv", "receiver": True}  # fmt: skip
BOTTLE = {"kind": "bottle_cooler", "refrigerant": "R-134a", "set_f": 38, "compressor_rla_a": 4.2, "nameplate_v": 115, "phases": 1,
          "metering": "cap_tube", "receiver": False, "box_control": "suction_pressure"}  # fmt: skip
COLD_ROOM = {"kind": "provision_room_freezer", "refrigerant": "R-404A", "set_f": 0, "compressor_rla_a": 18.0, "nameplate_v": 460,
             "phases": 3, "altitude_ft": 6900}  # fmt: skip
COOL_ROOM = {"kind": "provision_room_cooler", "refrigerant": "R-404A", "set_f": 38, "compressor_rla_a": 18.0, "nameplate_v": 460,
             "phases": 3, "altitude_ft": 6900}  # fmt: skip
GAS_FREEZER = WALK_IN_FREEZER | {"defrost": "hot_gas"}
GAS_CASE = DISPLAY_FREEZER | {"defrost": "hot_gas"}
OUTDOOR = WALK_IN_FREEZER | {"head_control": "mixing_valve"}
OUTDOOR_COOLER = WALK_IN_COOLER | {"head_control": "fan_cycling"}
# What a sound circuit runs at: TD, split (approach on water), superheat, gain, subcooling, lift of the discharge line, amps %.
RUNS = {
    "walk_in_freezer": (11, 18, 7, 13, 4, 62, 74), "walk_in_cooler": (11, 23, 8, 13, 4, 60, 78),
    "reach_in_cooler": (21, 27, 9, 13, 9, 58, 78), "reach_in_freezer": (18, 25, 7, 14, 9, 64, 74),
    "display_freezer": (13, 22, 7, 14, 4, 62, 75), "display_cooler": (15, 26, 8, 14, 4, 60, 78),
    "bottle_cooler": (21, 27, 9, 12, 9, 58, 78), "provision_room_freezer": (10, 9, 7, 13, 4, 62, 74),
    "provision_room_cooler": (11, 9, 8, 12, 4, 60, 78),
}  # fmt: skip


def running(plate, box=None, outside=82.0, td=None, split=None, superheat=None, gain=None, subcooling=None, lift=None, amps=None,
            water_f=(68.0, 79.0), **seen):  # fmt: skip
    """Readings of a running circuit; what is not given runs as on a sound unit."""
    usual = dict(zip(("td", "split", "superheat", "gain", "subcooling", "lift", "amps"), RUNS[plate["kind"]], strict=True))
    given = {"td": td, "split": split, "superheat": superheat, "gain": gain, "subcooling": subcooling, "lift": lift, "amps": amps}
    at = usual | {name: value for name, value in given.items() if value is not None}
    water = plate["kind"].startswith("provision")
    refrigerant, altitude = refrigerants.get(plate["refrigerant"]), plate.get("altitude_ft", 0)
    box = plate["set_f"] + 0.6 if box is None else box
    coolant = water_f[1] if water else outside
    sst, sct = box - at["td"], coolant + at["split"]
    read = {
        "box_temp_f": box,
        "suction_psig": refrigerant.dew_psig(sst, altitude),
        "discharge_psig": refrigerant.bubble_psig(sct, altitude),
        "suction_line_evap_f": sst + at["superheat"],
        "suction_line_comp_f": sst + at["superheat"] + at["gain"],
        "liquid_line_f": sct - at["subcooling"],
        "discharge_line_f": sct + at["lift"],
        "compressor_amps": plate["compressor_rla_a"] * at["amps"] / 100.0,
        "compressor": "running",
        "evap_fans": "running",
        "ice_form": "light_frost" if plate["set_f"] < 20 else "none",
    }
    if water:
        read |= {"water_in_f": water_f[0], "water_out_f": coolant}
    else:
        read |= {"ambient_f": outside, "condenser_fans": "running", "condenser_coil": "clean"}
    if plate.get("receiver", water):
        read |= {"sight_glass": "clear", "receiver_level_pct": 50.0}
    if plate.get("metering", "txv") == "txv":
        read |= {"bulb": "tight_insulated"}
    return {key: value for key, value in (read | seen).items() if value is not None}


def stopped(box, **seen):
    """What is found at a unit whose compressor does not run."""
    return {"box_temp_f": box, "compressor": "off", "control_call": "calling", "box_trend": "rising"} | seen


R, S = running, stopped
