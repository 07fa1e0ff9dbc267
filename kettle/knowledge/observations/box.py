"""What is seen of box, air, ice, water and doors, safety first."""

from typing import Final

from kettle.knowledge.observations.make import BOX_SEEN, COIL_HOLDS, LIVE, WALK_IN, choice, figure, temp
from kettle.knowledge.observations.model import Observation

# fmt: off
ENTRIES: Final[tuple[Observation, ...]] = (
    # Safety first
    choice("inside_release", "Inside release", "safety", "From inside, door pulled to, someone outside: does it open?", "works",
            "fails", only=WALK_IN),
    choice("latch_blocked", "Latch blocked", "safety", "Block the latch so that the door cannot shut on you", "yes", "no",
            minutes=0.5, only=WALK_IN),
    choice("power_locked_out", "Power locked out", "safety", "Lock, tag, and prove dead at the terminals", "yes", "no", minutes=3),
    choice("parts_protected", "Boards, sensors, fans covered", "safety", "Sheet and tape over boards, sensors and motors", "yes",
            "no", minutes=3),
    choice("left_ice", "Ice left at the last visit", "ice", "From the last visit's report", "yes", "no", tool="record", minutes=0.5),
    # Box and air
    temp("box_temp_f", "Box air", "box", "Own thermometer, mid-box, out of the coil's stream", 2, plausible=BOX_SEEN, fresh_min=45,
          spoils="standing in the coil's stream, by the door or a lamp, or not left long enough"),
    temp("return_air_f", "Return air", "box", "Probe where air enters the coil", plausible=BOX_SEEN, holds=COIL_HOLDS,
          per_evaporator=True),
    temp("supply_air_f", "Supply air", "box", "Probe where air leaves the coil, off the metal", holds=COIL_HOLDS,
          plausible={"cooler": (10, 70), "freezer": (-35, 60)}, spoils="touching metal, a dead spot beside the stream",
          per_evaporator=True),
    temp("product_temp_f", "Product", "box", "Probe between packs, two minutes", 3, plausible=BOX_SEEN, fresh_min=60,
          spoils="a dry probe, the outer pack, pulled out too soon"),
    temp("display_temp_f", "Display shows", "box", "Read what the controller shows", 0.5, tool="look", plausible=BOX_SEEN, fresh_min=45,
          spoils="a display held through defrost, or one that shows an average"),
    choice("box_trend", "Box is", "box", "Watch the box temperature for a few minutes", "falling", "steady", "rising", minutes=5),
    choice("siblings", "Other boxes on the same plant", "box", "Look at every box on the same condensing unit or rack",
            "all_ok=all fine", "also_bad=also bad", "none=no others", minutes=3),
    choice("warm_extent", "Warm where", "box", "Compare front, back, top and bottom", "whole_box", "part_of_box", minutes=2),
    # Ice and water
    choice("ice_form", "Ice on the coil", "ice", "Torch on the coil, front and back, before anything is melted",
            "none=bare", "light_frost", "heavy_frost", "hard_ice", "snow", per_evaporator=True),
    choice("ice_places", "Ice where", "ice", "Torch along coil, valve, pan, ceiling, frame and suction line",
            "coil_whole=whole coil", "coil_inlet_passes=first passes only", "coil_part=part of the coil",
            "coil_bottom=bottom of the coil", "valve_outlet=valve outlet", "distributor_tubes", "fan_guards", "ceiling",
            "drain_pan", "door_frame", "suction_line", "floor", many=True, per_evaporator=True),
    choice("melt_water", "Melt water", "ice", "Watch the water as it runs off", "clear", "cloudy_foaming=cloudy, foaming",
            per_evaporator=True),
    choice("drain", "Drain", "ice", "Pour a cup of water into the pan", "running", "slow", "blocked", "frozen", minutes=2,
            per_evaporator=True),
    choice("drain_pan", "Drain pan", "ice", "Look into the pan", "dry", "wet", "overflowing", per_evaporator=True),
    choice("drain_heater", "Drain heater", "ice", "Feel the drain line outside the pan", "none=has none", "warm", "cold",
            tool="feel", per_evaporator=True),
    # Airflow and doors
    choice("evap_fans", "Coil fans", "air", "Look at each fan: turning, and blowing the right way", "running",
            "some_stopped=some off", "stopped", "reversed=backwards", per_evaporator=True),
    choice("fans_still", "Fans standing still", "air", "Look at each fan, counted from the valve end", "none",
            *(f"fan_{n}=fan {n}" for n in range(1, 7)), many=True, per_evaporator=True),
    choice("air_weak_at", "Air felt weak at", "air", "Hand along the coil from the valve end, or at every door of a case", "nowhere",
            "left=valve end", "middle", "right=far end", *(f"door_{n}=door {n}" for n in range(1, 6)), many=True, minutes=2,
            per_evaporator=True),
    figure("evap_fan_supply_v", "Volts at the fan", "air", "V", 0, 600, "Meter at the fan's own leads, fan calling", 3,
            decimals=0, spoils=LIVE, per_evaporator=True),
    choice("evap_coil", "Coil face", "air", "Light through the fins; stock off the face", "clean", "dirty",
            "blocked_by_stock=stock on it", per_evaporator=True),
    choice("door", "Door", "air", "Paper in the gasket, light at the frame, let it close by itself", "good", "gasket_gap",
            "left_open", "misaligned", "closer_failed", minutes=2),
    choice("door_traffic", "Door traffic", "air", "Ask who goes in and how often", "light", "normal", "heavy", tool="ask"),
    choice("door_switch", "Door switch", "air", "Press it by hand: do the fans answer?", "made", "open", "none=has none"),
    choice("strip_curtain", "Strip curtain", "air", "Look", "present", "missing", "not_applicable=not needed", only=WALK_IN),
)
