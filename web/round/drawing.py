"""The drawings of a call: where each tag sits on them.

Coordinates are those of a drawing's own canvas; the screen and the printed report use the same ones.
"""

from dataclasses import dataclass, replace

from kettle.knowledge import anatomy, observations

TAG_WIDTH, TAG_HEIGHT = 112, 54
# Lines a technician who works by feel tells by hand: the clamp's tag -> the one by touch in its place.
FELT = {
    "suction_line_evap_f": "coil_outlet_feel",
    "suction_line_comp_f": "suction_line_feel",
    "liquid_line_f": "liquid_line_feel",
    "discharge_line_f": "discharge_line_feel",
}


@dataclass(frozen=True)
class Place:
    """A tag's place: its short label, top left corner and width, and the point on the drawing it belongs to."""

    key: str
    label: str
    x: int
    y: int
    point: tuple[int, int] = (0, 0)
    width: int = TAG_WIDTH


@dataclass(frozen=True)
class Spot:
    """A part drawn: where a tap opens its sheet."""

    part: str
    x: int
    y: int
    width: int
    height: int

    @property
    def label(self):
        """What the part is called."""
        return anatomy.get(self.part).label


@dataclass(frozen=True)
class Drawing:
    """A canvas and the tags on it, in the order a technician takes them."""

    slug: str
    width: int
    height: int
    places: tuple[Place, ...]
    spots: tuple[Spot, ...] = ()

    def spots_for(self, unit):
        """The parts drawn that exist on a unit."""
        return [spot for spot in self.spots if anatomy.get(spot.part).exists_on(unit)]

    def places_for(self, unit, by_feel=False):
        """The tags that exist on a unit (a resolved unit of the core), in order; by feel, lines are told by touch."""
        places = [replace(place, key=FELT[place.key]) if by_feel and place.key in FELT else place for place in self.places]
        return [place for place in places if observations.get(place.key).exists_on(unit)]

    def css(self, place):
        """A place as shares of the canvas, for a tag laid over the drawing."""
        return {
            "left": f"{100 * place.x / self.width:.3f}%",
            "top": f"{100 * place.y / self.height:.3f}%",
            "width": f"{100 * place.width / self.width:.3f}%",
            "height": f"{100 * TAG_HEIGHT / self.height:.3f}%",
        }


CIRCUIT = Drawing(
    "circuit",
    740,
    436,
    (
        Place("box_temp_f", "Box air", 16, 370, (50, 385), 106),
        Place("return_air_f", "Return air", 70, 140, (110, 172)),
        Place("supply_air_f", "Supply air", 190, 140, (216, 172)),
        Place("evap_fans", "Coil fans", 126, 370, (160, 228), 120),
        Place("ice_form", "Ice on coil", 250, 370, (160, 332), 130),
        Place("ambient_f", "Entering air", 618, 74, (680, 45)),
        Place("condenser_coil", "Condenser", 412, 18, (440, 45)),
        Place("condenser_fans", "Its fans", 618, 14, (572, 45)),
        # A water-cooled condenser has these in their place.
        Place("water_in_f", "Water in", 618, 14, (680, 45)),
        Place("water_out_f", "Water out", 618, 74, (572, 45)),
        Place("compressor", "Compressor", 618, 254, (570, 300)),
        Place("sight_glass", "Sight glass", 96, 38, (152, 109)),
        Place("receiver_level_pct", "Level", 494, 84, (456, 109), 100),
        Place("bulb", "Bulb", 250, 312, (272, 300), 130),
        Place("suction_psig", "Suction", 398, 312, (424, 300), 130),
        Place("discharge_psig", "Discharge", 618, 134, (604, 146)),
        Place("suction_line_evap_f", "Line at bulb", 250, 232, (326, 300), 130),
        Place("suction_line_comp_f", "Comp. line", 404, 232, (484, 300), 118),
        Place("liquid_line_f", "Liquid line", 404, 140, (402, 109)),
        Place("drier_drop_f", "Drier drop", 216, 38, (272, 109)),
        Place("discharge_line_f", "Disch. line", 618, 194, (604, 210)),
        Place("compressor_amps", "Amps", 618, 314, (570, 356)),
    ),
    (
        Spot("valve", 14, 182, 48, 52),
        Spot("cap_tube", 14, 182, 48, 52),
        Spot("evap_fan", 102, 206, 120, 44),
        Spot("coil", 82, 252, 158, 76),
        Spot("bulb", 272, 286, 54, 24),
        Spot("glass", 130, 88, 44, 42),
        Spot("drier", 244, 92, 54, 34),
        Spot("receiver", 412, 92, 76, 34),
        Spot("condenser", 412, 14, 110, 60),
        Spot("condenser_fan", 530, 14, 80, 60),
        Spot("compressor", 528, 266, 80, 90),
    ),
)

# The box with its coil, door and drain, and the condensing unit, by hand and eye.
BOX = Drawing(
    "box",
    740,
    322,
    (
        Place("box_temp_f", "Box, own", 18, 94, (50, 120), 110),
        Place("display_temp_f", "Display", 134, 94, (200, 120), 138),
        Place("warm_extent", "Warm where", 278, 94, (330, 120), 136),
        Place("valve_sound", "Valve sounds", 18, 16, (60, 40), 122),
        Place("evap_fans", "Coil fans", 148, 16, (200, 40), 122),
        Place("evap_coil", "Coil face", 278, 16, (330, 40), 136),
        Place("door", "Door", 18, 178, (70, 210), 122),
        Place("door_traffic", "Door traffic", 18, 258, (70, 285), 122),
        Place("strip_curtain", "Curtain", 148, 178, (190, 210), 122),
        Place("inside_release", "Inside release", 148, 258, (190, 285), 122),
        Place("drain", "Drain", 278, 178, (330, 210), 136),
        Place("drain_pan", "Drain pan", 278, 258, (330, 285), 136),
        Place("condenser_coil", "Condenser", 456, 16, (500, 40), 126),
        Place("condenser_fans", "Its fans", 598, 16, (650, 40), 126),
        Place("suction_line_feel", "Suction line", 456, 94, (500, 120), 126),
        Place("sight_glass", "Sight glass", 598, 94, (650, 120), 126),
        Place("compressor", "Compressor", 456, 178, (500, 210), 126),
        Place("compressor_shell", "Its shell", 598, 178, (650, 210), 126),
        Place("oil_trace", "Oil", 456, 258, (500, 285), 126),
        Place("leak_test", "Leak test", 598, 258, (650, 285), 126),
    ),
)
BY_STOP = {"read": CIRCUIT, "arrive": BOX}
