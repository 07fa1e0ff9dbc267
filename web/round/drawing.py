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
        if unit.metering != "txv":
            places = [replace(place, label="Coil outlet") if place.label == "Line at bulb" else place for place in places]
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

BY_STOP = {"read": CIRCUIT}
