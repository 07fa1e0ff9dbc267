"""An ice map as it is drawn: on Arrive and Melt, in the unit's history and in the report."""

from dataclasses import dataclass

from kettle.benches.ice import draw
from kettle.benches.ice import map as ice
from kettle.knowledge.measures import format_number


@dataclass
class Shown:
    """A map drawn: its cells, its places with their forms, and what the core reads in it."""

    rows: list
    places: dict
    oil: list
    face_ft2: float
    title: str = ""
    painted: bool = True

    width, height, cell, left, top = draw.WIDTH, draw.HEIGHT, draw.CELL, draw.LEFT, draw.TOP

    @property
    def cells(self):
        oil = {tuple(cell) for cell in self.oil}
        return [
            {"row": r, "column": c, "x": x, "y": y, "letter": letter, "words": ice.FORM_WORDS[ice.FORMS[letter]], "oil": (r, c) in oil}
            for r, c, x, y, letter in draw.cells(self.rows)
        ]

    @property
    def place_marks(self):
        """Every place beyond the face: code, label, letter (empty for not looked at), words."""
        marks = []
        for code, place in ice.PLACES.items():
            form = self.places.get(code)
            words = ice.FORM_WORDS[form] if form else "not looked"
            marks.append((code, place.label, ice.LETTERS[form] if form else "", words))
        return marks

    @property
    def iced_places(self):
        return [(label, words) for _, label, letter, words in self.place_marks if letter not in ("", ".")]

    @property
    def reading(self):
        return ice.read(ice.parse(self.rows, self.places), self.face_ft2)

    @property
    def covered(self):
        return format_number(self.reading.covered_pct, 0)

    @property
    def mass_words(self):
        drawn = ice.parse(self.rows, self.places)
        low, high = ice.mass_lb(drawn, self.face_ft2)[0], ice.mass_lb(drawn, self.face_ft2, ice.USUAL_DEPTH)[1]
        return f"about {format_number(low, 0)} to {format_number(high, 0)} lb" if high >= 0.5 else "next to nothing"


def shown(drawing):
    """A stored drawing as it is shown."""
    title = f"{drawing.get_stage_display()}, {drawing.at:%H:%M}"
    return Shown(drawing.rows, drawing.places, drawing.oil, drawing.face_ft2, title)
