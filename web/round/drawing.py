"""The refrigeration circuit as a drawing: where each measuring point's tag sits on it.

Coordinates are those of the drawing's own canvas; the screen and the printed report use the same ones.
"""

from dataclasses import dataclass

from kettle import observations

WIDTH, HEIGHT = 740, 436
TAG_WIDTH, TAG_HEIGHT = 112, 54


@dataclass(frozen=True)
class Place:
    """A tag's place: its short label, top left corner and width, and the point on the circuit it measures."""

    key: str
    label: str
    x: int
    y: int
    point: tuple[int, int]
    width: int = TAG_WIDTH

    @property
    def css(self):
        """The place as shares of the canvas, for a tag laid over the drawing."""
        return {
            "left": f"{100 * self.x / WIDTH:.3f}%",
            "top": f"{100 * self.y / HEIGHT:.3f}%",
            "width": f"{100 * self.width / WIDTH:.3f}%",
            "height": f"{100 * TAG_HEIGHT / HEIGHT:.3f}%",
        }


# In the order a technician takes them.
PLACES = (
    Place("box_temp_f", "Box air", 18, 370, (50, 385)),
    Place("return_air_f", "Return air", 70, 140, (110, 172)),
    Place("supply_air_f", "Supply air", 190, 140, (216, 172)),
    Place("evap_fans", "Coil fans", 136, 370, (160, 228)),
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
    Place("suction_psig", "Suction", 404, 312, (424, 300), 118),
    Place("discharge_psig", "Discharge", 618, 134, (604, 146)),
    Place("suction_line_evap_f", "Line at bulb", 250, 232, (326, 300), 130),
    Place("suction_line_comp_f", "Line at comp.", 404, 232, (484, 300), 118),
    Place("liquid_line_f", "Liquid line", 404, 140, (402, 109)),
    Place("drier_drop_f", "Drier drop", 216, 38, (272, 109)),
    Place("discharge_line_f", "Disch. line", 618, 194, (604, 210)),
    Place("compressor_amps", "Amps", 618, 314, (570, 356)),
)


def places_for(unit):
    """The tags that exist on a unit (a resolved unit of the core), in order."""
    return [place for place in PLACES if observations.get(place.key).exists_on(unit)]
