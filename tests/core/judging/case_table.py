"""What each fault does to a circuit and what eyes, hands and meter find with it: cause or causes -> (plate, readings)."""

from tests.core.judging.case_circuits import (
    BOTTLE,
    COLD_ROOM,
    COOL_ROOM,
    DISPLAY_COOLER,
    DISPLAY_FREEZER,
    GAS_CASE,
    GAS_FREEZER,
    OUTDOOR,
    OUTDOOR_COOLER,
    REACH_IN,
    REACH_IN_FREEZER,
    WALK_IN_COOLER,
    WALK_IN_FREEZER,
)
from tests.core.judging.case_circuits import (
    running as R,
)
from tests.core.judging.case_circuits import (
    stopped as S,
)

# fmt: off
# cause or causes -> cases: (plate, readings).
CASES = {
    "door_infiltration": [
        (WALK_IN_COOLER, {"box_temp_f": 44, "ice_form": "hard_ice", "ice_places": ["coil_whole", "ceiling"], "door": "left_open",
                          "door_traffic": "heavy", "strip_curtain": "missing", "evap_fans": "running", "drain": "running"}),
        (WALK_IN_FREEZER, {"box_temp_f": 4, "ice_form": "snow", "ice_places": ["coil_whole", "ceiling", "floor"], "door_traffic": "heavy",
                           "strip_curtain": "missing", "evap_fans": "running", "heater_volts": 230, "heater_amps": 13.0,
                           "heater_rated_w": 5200})],
    "door_seal": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=39, door="gasket_gap", ice_places=["door_frame"], warm_extent="part_of_box")),
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, door="misaligned", ice_places=["door_frame", "floor"]))],
    "hot_stock": [
        (DISPLAY_COOLER, R(DISPLAY_COOLER, box=44, td=19, superheat=12, amps=92, box_trend="falling", door_traffic="heavy")),
        (BOTTLE, R(BOTTLE, box=52, td=27, superheat=15, split=31, amps=96, box_trend="falling"))],
    "evap_fan_failed": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=46, td=38, superheat=1, amps=60, evap_fans="stopped", evap_fan_supply_v=229,
                           ice_form="heavy_frost", ice_places=["coil_whole"])),
        (DISPLAY_FREEZER, R(DISPLAY_FREEZER, box=9, td=27, superheat=3, amps=58, evap_fans="some_stopped", evap_fan_supply_v=231,
                            warm_extent="part_of_box"))],
    "evap_fan_no_power": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=47, td=36, superheat=1, evap_fans="stopped", evap_fan_supply_v=0, door_switch="open")),
        (REACH_IN_FREEZER, R(REACH_IN_FREEZER, box=14, td=40, superheat=2, evap_fans="stopped", evap_fan_supply_v=2,
                             ice_form="heavy_frost", ice_places=["coil_whole"]))],
    "fan_delay_waiting": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=21, td=44, superheat=3, evap_fans="stopped", evap_fan_supply_v=1, fan_delay="waits_cold")),
        (DISPLAY_FREEZER, R(DISPLAY_FREEZER, box=24, td=47, superheat=4, evap_fans="stopped", fan_delay="waits_cold"))],
    "evap_airflow_low": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=42, td=24, superheat=2, evap_coil="dirty", return_air_f=42, supply_air_f=22)),
        (DISPLAY_FREEZER, R(DISPLAY_FREEZER, box=7, td=27, superheat=2, evap_coil="blocked_by_stock", air_weak_at=["door_3"],
                            return_air_f=7, supply_air_f=-12))],
    "defrost_never_starts": [
        (WALK_IN_FREEZER, {"box_temp_f": 8, "ice_form": "heavy_frost", "ice_places": ["coil_whole"], "defrost_starts": "never",
                           "evap_fans": "running"}),
        (DISPLAY_FREEZER, {"box_temp_f": 11, "ice_form": "heavy_frost", "ice_places": ["coil_whole", "fan_guards"],
                           "defrost_starts": "never", "siblings": "all_ok", "evap_fans": "running"})],
    "defrost_heater_open": [
        (WALK_IN_FREEZER, {"box_temp_f": 3, "ice_form": "hard_ice", "ice_places": ["coil_part"], "coil_after_defrost": "part_iced",
                           "defrost_ended_by": "time", "heater_volts": 229, "heater_amps": 8.6, "heater_rated_w": 5200}),
        (REACH_IN_FREEZER, {"box_temp_f": 9, "ice_form": "hard_ice", "ice_places": ["coil_whole"], "coil_after_defrost": "iced",
                            "defrost_ended_by": "time", "heater_volts": 231, "heater_amps": 0.0, "heater_rated_w": 900})],
    "heater_grounded": [
        (WALK_IN_FREEZER, {"box_temp_f": 19, "ice_form": "heavy_frost", "ice_places": ["coil_whole"], "compressor": "off",
                           "breaker": "trips_at_once", "power_locked_out": "yes", "heater_ground_ohm": 14.0}),
        (REACH_IN_FREEZER, {"box_temp_f": 12, "ice_form": "hard_ice", "ice_places": ["coil_whole"], "coil_after_defrost": "iced",
                            "breaker": "trips_warm", "heater_ground_ohm": 900.0})],
    "defrost_too_little": [
        (WALK_IN_FREEZER, {"box_temp_f": 2, "ice_form": "hard_ice", "ice_places": ["coil_bottom"], "coil_after_defrost": "part_iced",
                           "defrost_ended_by": "time", "door_traffic": "light", "strip_curtain": "present", "evap_fans": "running",
                           "heater_volts": 230, "heater_amps": 13.2, "heater_rated_w": 5200}),
        (WALK_IN_COOLER, {"box_temp_f": 41, "ice_form": "hard_ice", "ice_places": ["coil_bottom", "coil_part"],
                          "coil_after_defrost": "part_iced", "defrost_ended_by": "time", "door": "good", "door_traffic": "normal",
                          "evap_fans": "running"})],
    "defrost_too_much": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, defrosts_per_day=8, defrost_ran_min=45, ice_places=["ceiling", "fan_guards"],
                            coil_after_defrost="clear", defrost_ended_by="time", termination_f=55)),
        (DISPLAY_FREEZER, R(DISPLAY_FREEZER, box=4, defrosts_per_day=10, ice_places=["ceiling"], coil_after_defrost="clear",
                            defrost_ended_by="termination"))],
    "defrost_not_terminating": [
        (WALK_IN_FREEZER, {"box_temp_f": 1, "defrost_ended_by": "time", "defrost_ran_min": 60, "coil_after_defrost": "clear",
                           "ice_places": ["ceiling", "fan_guards"], "controller_alarm": "sensor_fault", "defrosts_per_day": 4}),
        (DISPLAY_FREEZER, {"box_temp_f": 6, "defrost_ended_by": "time", "defrost_ran_min": 70, "coil_after_defrost": "clear",
                           "defrosts_per_day": 3, "siblings": "all_ok"})],
    "compressor_runs_in_defrost": [
        (WALK_IN_FREEZER, {"box_temp_f": 4, "compressor_in_defrost": "running", "ice_form": "hard_ice", "ice_places": ["coil_whole"],
                           "coil_after_defrost": "iced", "heater_volts": 230, "heater_amps": 13.0, "heater_rated_w": 5200}),
        (REACH_IN_FREEZER, {"box_temp_f": 10, "compressor_in_defrost": "running", "ice_form": "heavy_frost",
                            "coil_after_defrost": "part_iced", "contactor_face": "burnt"})],
    "drain_blocked": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, drain="frozen", drain_pan="overflowing", drain_heater="cold",
                            ice_places=["drain_pan", "floor"])),
        (REACH_IN, R(REACH_IN, drain="blocked", drain_pan="overflowing"))],
    # With hot gas the coil is whole or not at all: nothing gets hot, so every section keeps its ice.
    "hot_gas_valve_shut": [
        (GAS_FREEZER, {"box_temp_f": 7, "ice_form": "hard_ice", "ice_places": ["coil_whole"], "coil_after_defrost": "iced",
                       "defrost_ended_by": "time", "defrost_starts": "yes", "evap_fans": "running", "hot_gas_valve": "stays_shut"}),
        (GAS_CASE, {"box_temp_f": 12, "ice_form": "heavy_frost", "ice_places": ["coil_whole"], "coil_after_defrost": "iced",
                    "defrost_ended_by": "time", "defrost_starts": "yes", "siblings": "all_ok", "hot_gas_valve": "stays_shut"})],
    # Gas that goes round is drawn again: suction up, the box warm over a coil hardly colder than it, the low side fills once pumped down.
    "hot_gas_valve_leaking": [
        (GAS_FREEZER, R(GAS_FREEZER, box=9, td=4, split=14, superheat=13, gain=16, amps=84, pump_down_rise_psi=14,
                        hot_gas_valve="lets_by")),
        (GAS_CASE, R(GAS_CASE, box=11, td=5, split=17, superheat=12, gain=15, amps=86, hot_gas_valve="lets_by", siblings="all_ok"))],
    "frame_heater_dead": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, ice_places=["door_frame"], frame_heater="cold")),
        (DISPLAY_FREEZER, R(DISPLAY_FREEZER, box=2, ice_places=["door_frame"], frame_heater="cold"))],
    # Little water leaves hot: its rise doubles, the head follows it, the approach stays what the tubes make it.
    "water_flow_low": [
        (COOL_ROOM, R(COOL_ROOM, box=39, water_f=(68.0, 97.0), split=10, lift=74, amps=104)),
        (COLD_ROOM, R(COLD_ROOM, box=2, water_f=(74.0, 101.0), split=9, lift=82, amps=98, water_valve="stays_shut"))],
    # Cold water at full flow: next to no rise, the head down, the glass no longer full.
    "water_valve_open": [
        (COOL_ROOM, R(COOL_ROOM, water_f=(58.0, 61.0), split=7, amps=62, water_valve="stays_open")),
        (COLD_ROOM, R(COLD_ROOM, box=3, water_f=(55.0, 58.0), split=6, amps=57, superheat=12, sight_glass="few_bubbles",
                      water_valve="stays_open"))],
    # The call has its volts, the contactor none for minutes; liquid that stood in the coil comes with the start.
    "delay_timer_left": [
        (DISPLAY_FREEZER, S(14, circuit_extra="delay_timer", contactor="out", controller_alarm="low_superheat", siblings="all_ok")),
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=6, superheat=1, circuit_extra="delay_timer", controller_alarm="low_superheat"))],
    "residual_ice": [
        (WALK_IN_COOLER, {"box_temp_f": 41, "left_ice": "yes", "ice_form": "hard_ice", "ice_places": ["coil_part"],
                          "evap_fans": "running", "door": "good"}),
        (WALK_IN_FREEZER, {"box_temp_f": 2, "left_ice": "yes", "ice_form": "hard_ice", "ice_places": ["coil_bottom"],
                           "coil_after_defrost": "clear", "defrost_ended_by": "termination"})],
    "undercharge": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=6, td=26, split=14, superheat=25, subcooling=0.5, amps=52, sight_glass="flashing",
                            receiver_level_pct=8)),
        (REACH_IN, R(REACH_IN, box=46, td=40, split=18, superheat=30, subcooling=1, amps=56, ice_places=["coil_inlet_passes"])),
        (COLD_ROOM, R(COLD_ROOM, box=9, td=26, split=5, superheat=24, subcooling=0.5, amps=54, sight_glass="few_bubbles",
                      receiver_level_pct=10, siblings="also_bad"))],
    "overcharge": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, split=40, subcooling=22, amps=108, receiver_level_pct=96)),
        (REACH_IN, R(REACH_IN, box=41, td=12, split=44, superheat=1, subcooling=22, amps=110, suction_line_feel="frosted",
                     compressor_shell="sweating"))],
    "noncondensables": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, split=44, subcooling=20, lift=95, amps=112)),
        (COOL_ROOM, R(COOL_ROOM, split=27, subcooling=17, lift=98, amps=113))],
    "liquid_restriction": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=4, td=31, split=17, superheat=27, subcooling=9, amps=58, drier_drop_f=12,
                            receiver_level_pct=80)),
        (COOL_ROOM, R(COOL_ROOM, box=45, td=28, split=7, superheat=25, subcooling=10, amps=60, drier_drop_f=9, siblings="all_ok",
                      receiver_level_pct=78))],
    "cap_tube_restricted": [
        (REACH_IN, R(REACH_IN, box=48, td=50, split=18, superheat=38, subcooling=19, amps=50, drier_drop_f=0, valve_sound=None)),
        (BOTTLE, R(BOTTLE, box=52, td=52, split=17, superheat=40, subcooling=20, amps=48, drier_drop_f=0.4, leak_test="none_found"))],
    "txv_underfeeding": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, td=32, split=18, superheat=27, subcooling=6, amps=58, drier_drop_f=0.5)),
        (COOL_ROOM, R(COOL_ROOM, box=42, td=28, split=7, superheat=25, subcooling=7, drier_drop_f=0, valve_response="none",
                      siblings="all_ok"))],
    "txv_overfeeding": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, td=8, superheat=1, gain=3, lift=38, amps=88, compressor_shell="frosted",
                            suction_line_feel="frosted")),
        (COLD_ROOM, R(COLD_ROOM, box=3, td=7, superheat=1, gain=3, lift=36, amps=90, compressor_shell="sweating", siblings="all_ok"))],
    "bulb_fault": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, td=8, superheat=1, gain=3, lift=38, amps=88, bulb="loose",
                            compressor_shell="sweating")),
        (DISPLAY_COOLER, R(DISPLAY_COOLER, box=37, td=11, superheat=2, gain=4, lift=40, amps=88, bulb="uninsulated"))],
    "liquid_solenoid_closed": [
        (COLD_ROOM, {"box_temp_f": 18, "liquid_solenoid": "closed_no_pull", "valve_sound": "silent", "suction_line_feel": "warm",
                     "siblings": "all_ok", "ice_form": "none", "evap_fans": "running", "box_trend": "rising"}),
        (DISPLAY_FREEZER, {"box_temp_f": 22, "liquid_solenoid": "closed_pulled", "valve_sound": "silent", "ice_form": "none",
                           "siblings": "all_ok", "evap_fans": "running", "sight_glass": "clear"})],
    "solenoid_leaking": [
        (WALK_IN_FREEZER, {"box_temp_f": -4, "compressor": "short_cycling", "pump_down_low_psig": 2, "pump_down_rise_psi": 18,
                           "liquid_solenoid": "stuck_open", "evap_fans": "running"}),
        (COOL_ROOM, {"box_temp_f": 38, "compressor": "short_cycling", "pump_down_rise_psi": 25, "pump_down_low_psig": 3,
                     "siblings": "all_ok"})],
    "condenser_dirty": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=0, split=42, subcooling=2, lift=85, amps=108, condenser_coil="blocked")),
        (COOL_ROOM, R(COOL_ROOM, box=41, split=26, subcooling=2, lift=82, amps=106, water_in_f=73, water_out_f=78))],
    "condenser_fan_failed": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=41, split=50, subcooling=2, lift=85, amps=116, condenser_fans="stopped",
                           condenser_coil="dusty")),
        (REACH_IN, R(REACH_IN, box=44, td=17, split=56, subcooling=4, lift=80, amps=116, condenser_fans="stopped",
                     compressor="running"))],
    "head_control_stuck_bypass": [
        (OUTDOOR, R(OUTDOOR, box=3, outside=85, split=27, superheat=14, subcooling=-1, td=16, sight_glass="flashing",
                    head_control="bypassing_when_warm")),
        (OUTDOOR | {"kind": "walk_in_cooler", "refrigerant": "R-448A", "set_f": 36, "defrost": "off_cycle"},
         R(WALK_IN_COOLER, box=40, outside=80, split=31, superheat=13, subcooling=0, sight_glass="few_bubbles",
           head_control="bypassing_when_warm", altitude_ft=None))],
    "head_control_not_holding": [
        (OUTDOOR, R(OUTDOOR, box=3, outside=25, split=12, td=24, superheat=22, gain=9, subcooling=1, amps=48, sight_glass="flashing",
                    head_control="not_holding_when_cold")),
        (OUTDOOR_COOLER, R(OUTDOOR_COOLER, box=41, outside=30, split=14, td=25, superheat=21, subcooling=1, amps=52,
                           sight_glass="few_bubbles", head_control="not_holding_when_cold"))],
    "winter_charge_short": [
        (OUTDOOR, R(OUTDOOR, box=4, outside=20, split=64, td=25, superheat=24, subcooling=0.5, amps=58, sight_glass="flashing",
                    receiver_level_pct=5, head_control="normal", leak_test="none_found")),
        (OUTDOOR | {"kind": "walk_in_cooler", "refrigerant": "R-404A", "set_f": 36, "defrost": "off_cycle"},
         R(OUTDOOR | {"kind": "walk_in_cooler", "set_f": 36}, box=42, outside=35, split=50, td=26, superheat=23, subcooling=0.5, amps=58,
           sight_glass="flashing", receiver_level_pct=6, head_control="normal", leak_test="none_found", ice_form="none"))],
    "compressor_inefficient": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=12, td=4, split=8, superheat=9, subcooling=3, amps=46, pump_down_low_psig=22)),
        (REACH_IN, R(REACH_IN, box=48, td=9, split=12, superheat=10, subcooling=5, amps=45, compressor_shell="hot"))],
    "compressor_overload": [
        (WALK_IN_COOLER, S(52, compressor="tripping", compressor_shell="hot", contactor="in", line_v_12=231, line_v_23=230, line_v_31=229,
                           load_v_12=230, load_v_23=230, load_v_31=229, pole_drop_v_1=0.2, pole_drop_v_2=0.1, pole_drop_v_3=0.2,
                           winding_ground_ohm=2e7, power_locked_out="yes", siblings="none")),
        (REACH_IN, S(50, compressor="off", compressor_shell="hot", contactor="in", line_v_12=116, winding_cs_ohm=4.1, winding_cr_ohm=1.4,
                     winding_sr_ohm=5.5, winding_ground_ohm=5e7, start_parts="good", power_locked_out="yes"))],
    "compressor_grounded": [
        (WALK_IN_COOLER, S(55, winding_ground_ohm=12, power_locked_out="yes", contactor="out")),
        (BOTTLE, S(60, winding_ground_ohm=400, power_locked_out="yes", control_call="no_power"))],
    "compressor_open_winding": [
        (REACH_IN, S(51, compressor="humming", compressor_shell="cold", contactor="in", winding_cs_ohm=1e6, winding_cr_ohm=1.4,
                     winding_sr_ohm=1e6, winding_ground_ohm=3e7, power_locked_out="yes")),
        (WALK_IN_FREEZER, S(25, contactor="in", compressor_shell="cold", winding_cs_ohm=2e6, winding_cr_ohm=2e6, winding_sr_ohm=0.9,
                            pole_drop_v_1=0.1, pole_drop_v_2=0.2, pole_drop_v_3=0.1, power_locked_out="yes"))],
    "contactor_pole_open": [
        (WALK_IN_FREEZER, S(22, compressor="humming", contactor="in", contactor_face="burnt", line_v_12=231, line_v_23=230, line_v_31=230,
                            load_v_12=228, load_v_23=120, load_v_31=118, pole_drop_v_1=0.2, pole_drop_v_2=0.3, pole_drop_v_3=131)),
        (WALK_IN_COOLER, S(54, compressor="off", contactor="in", pole_drop_v_1=229, pole_drop_v_2=0.4, pole_drop_v_3=0.2,
                           line_v_12=229, line_v_23=230, line_v_31=228))],
    "start_parts_failed": [
        (REACH_IN, S(49, compressor="humming", contactor="in", start_parts="capacitor_failed", compressor_shell="hot", line_v_12=116)),
        (BOTTLE, S(58, compressor="tripping", start_parts="relay_failed", winding_cs_ohm=4.6, winding_cr_ohm=1.5, winding_sr_ohm=6.1,
                   winding_ground_ohm=4e7, power_locked_out="yes", line_v_12=117))],
    "voltage_problem": [
        (WALK_IN_COOLER, S(50, compressor="tripping", line_v_12=231, line_v_23=204, line_v_31=214, pole_drop_v_1=0.2, pole_drop_v_2=0.2,
                           pole_drop_v_3=0.1, siblings="also_bad", compressor_shell="hot")),
        (REACH_IN, S(47, compressor="humming", line_v_12=96, contactor="chattering", siblings="also_bad"))],
    "no_call": [
        (WALK_IN_COOLER, S(48, control_call="satisfied", contactor="out", display_temp_f=48, sensor_error_f=0, siblings="all_ok")),
        (DISPLAY_FREEZER, S(20, control_call="no_power", contactor="out", siblings="all_ok"))],
    "stat_calibration": [
        (WALK_IN_COOLER, {"box_temp_f": 43, "display_temp_f": 36, "sensor_error_f": -7, "control_call": "satisfied", "compressor": "off",
                          "stat_cut_out_f": 41, "stat_cut_in_f": 45, "siblings": "none"}),
        (REACH_IN, {"box_temp_f": 30, "display_temp_f": 37, "sensor_error_f": 7, "control_call": "calling", "compressor": "running",
                    "stat_cut_out_f": 29, "stat_cut_in_f": 33, "evap_fans": "running"})],
    "sensor_mixup": [
        (COOL_ROOM, {"box_temp_f": 46, "display_temp_f": 2, "sensor_error_f": -44, "controller_alarm": "sensor_fault",
                     "siblings": "also_bad"}),
        (DISPLAY_FREEZER, {"box_temp_f": -9, "display_temp_f": 6, "sensor_error_f": 15, "controller_alarm": "sensor_fault",
                           "siblings": "also_bad"})],
    "lp_control_misset": [
        (BOTTLE, {"box_temp_f": 48, "compressor": "off", "lp_cut_in_psig": 58, "lp_cut_out_psig": 22, "low_pressure_switch": "open",
                  "evap_fans": "running"}),
        (WALK_IN_FREEZER, {"box_temp_f": 6, "compressor": "short_cycling", "lp_cut_in_psig": 33, "lp_cut_out_psig": 28,
                           "low_pressure_switch": "open", "ambient_f": 40})],
    "short_cycle": [
        (WALK_IN_COOLER, {"box_temp_f": 36, "compressor": "short_cycling", "stat_cut_out_f": 35.6, "stat_cut_in_f": 36.4,
                          "pump_down_rise_psi": 1}),
        (DISPLAY_COOLER, {"box_temp_f": 35.5, "compressor": "short_cycling", "stat_cut_out_f": 35.2, "stat_cut_in_f": 35.9,
                          "siblings": "all_ok"})],
    "suction_regulator_shut": [
        (COOL_ROOM, R(COOL_ROOM, box=47, td=32, split=4, superheat=30, gain=12, amps=52, pump_down_low_psig=0, siblings="all_ok",
                      return_air_f=47, supply_air_f=44)),
        (COLD_ROOM, R(COLD_ROOM, box=12, td=28, split=3, superheat=26, gain=12, amps=50, pump_down_low_psig=1, siblings="all_ok",
                      return_air_f=12, supply_air_f=9))],
    "wrong_parameters": [
        (DISPLAY_COOLER | {"metering": "eev"}, R(DISPLAY_COOLER | {"metering": "eev"}, box=41, td=22, superheat=19, bulb=None,
                                                controller_alarm="low_superheat", siblings="all_ok")),
        (WALK_IN_COOLER | {"metering": "eev"}, R(WALK_IN_COOLER | {"metering": "eev"}, box=40, td=8, superheat=2, bulb=None,
                                                controller_alarm="low_superheat", sensor_error_f=5, siblings="all_ok"))],
    # Two at once.
    "condenser_dirty+undercharge": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=44, td=24, split=34, superheat=22, subcooling=0.3, amps=88, condenser_coil="blocked",
                           sight_glass="flashing", receiver_level_pct=8))],
    "defrost_too_much+txv_underfeeding": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, td=29, superheat=25, subcooling=6, amps=58, drier_drop_f=0, defrosts_per_day=9,
                            defrost_ran_min=50, coil_after_defrost="clear", ice_places=["ceiling", "fan_guards"]))],
    "evap_fan_no_power+undercharge": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=50, td=38, superheat=14, subcooling=0.4, split=15, amps=50, evap_fans="stopped",
                           evap_fan_supply_v=0, door_switch="open", sight_glass="flashing", receiver_level_pct=6,
                           oil_trace="at_valve_stem", leak_test="found"))],
    "condenser_fan_failed+evap_airflow_low": [
        (REACH_IN, R(REACH_IN, box=48, td=36, superheat=2, split=52, subcooling=4, amps=110, condenser_fans="stopped",
                     evap_coil="blocked_by_stock"))],
    "door_infiltration+defrost_heater_open": [
        (WALK_IN_FREEZER, {"box_temp_f": 8, "ice_form": "hard_ice", "ice_places": ["coil_whole", "ceiling", "door_frame"],
                           "door": "left_open", "door_traffic": "heavy", "strip_curtain": "missing", "coil_after_defrost": "iced",
                           "heater_volts": 230, "heater_amps": 4.4, "heater_rated_w": 5200})],
    "bulb_fault+condenser_dirty": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=41, td=8, superheat=1, gain=3, split=41, subcooling=3, lift=58, amps=112, bulb="loose",
                           condenser_coil="blocked", compressor_shell="sweating"))],
    "drain_blocked+door_seal": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, drain="frozen", drain_pan="overflowing", drain_heater="cold", door="gasket_gap",
                            ice_places=["drain_pan", "floor", "door_frame"]))],
    "txv_underfeeding+condenser_dirty": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=-1, td=31, superheat=27, split=38, subcooling=6, amps=86, drier_drop_f=0.4,
                            condenser_coil="blocked"))],
    "undercharge+defrost_too_much": [
        (DISPLAY_FREEZER, R(DISPLAY_FREEZER, box=10, td=28, superheat=26, split=14, subcooling=0.4, amps=50, sight_glass="flashing",
                            receiver_level_pct=7, defrosts_per_day=10, defrost_ran_min=48, coil_after_defrost="clear",
                            ice_places=["ceiling", "fan_guards"]))],
    "stat_calibration+condenser_dirty": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=31, split=41, subcooling=2, lift=84, amps=108, condenser_coil="blocked", display_temp_f=38,
                           sensor_error_f=7))],
    "compressor_inefficient+condenser_dirty": [
        (WALK_IN_COOLER, R(WALK_IN_COOLER, box=47, td=4, split=37, subcooling=2, lift=100, amps=84, condenser_coil="blocked",
                           pump_down_low_psig=25, compressor_shell="hot"))],
    "evap_fan_failed+drain_blocked": [
        (WALK_IN_FREEZER, R(WALK_IN_FREEZER, box=9, td=30, superheat=2, evap_fans="some_stopped", evap_fan_supply_v=230, drain="frozen",
                            drain_pan="overflowing", drain_heater="cold", ice_places=["drain_pan", "floor"]))],
    # Nothing wrong.
    "": [(plate, R(plate, drain="running", door="good")) for plate in (WALK_IN_FREEZER, WALK_IN_COOLER, REACH_IN, REACH_IN_FREEZER,
                                                                        DISPLAY_FREEZER, DISPLAY_COOLER, BOTTLE, COOL_ROOM)],
}
# What little is known early in a call: cause -> (plate, readings).
EARLY = {
    "evap_fan_failed": (WALK_IN_FREEZER, {"box_temp_f": 8, "evap_fans": "stopped"}),
    "condenser_dirty": (WALK_IN_COOLER, {"condenser_coil": "blocked", "box_temp_f": 42}),
    "undercharge": (WALK_IN_COOLER, {"sight_glass": "flashing", "box_temp_f": 43, "evap_fans": "running"}),
    "bulb_fault": (WALK_IN_FREEZER, {"bulb": "loose"}),
    "txv_overfeeding": (WALK_IN_COOLER, {"compressor_shell": "frosted", "suction_line_feel": "frosted", "bulb": "tight_insulated",
                                         "evap_fans": "running", "evap_coil": "clean"}),
    "condenser_fan_failed": (REACH_IN, {"condenser_fans": "stopped", "compressor": "tripping"}),
    "compressor_inefficient": (WALK_IN_FREEZER, {"pump_down_low_psig": 25, "box_temp_f": 10}),
    "liquid_restriction": (WALK_IN_FREEZER, {"drier_drop_f": 11}),
    "drain_blocked": (WALK_IN_COOLER, {"drain_pan": "overflowing", "ice_places": ["floor"]}),
    "contactor_pole_open": (WALK_IN_COOLER, {"compressor": "humming", "contactor": "in", "pole_drop_v_1": 0.2, "pole_drop_v_2": 118}),
}
# fmt: on
