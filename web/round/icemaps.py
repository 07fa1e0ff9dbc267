"""The ice maps of a call as its screens show them."""

from kettle.benches.ice import map as ice
from web.logbook.calls.ice_shown import Shown, shown

# Brushes in their order: letter, form, word.
BRUSHES = [(letter, form, ice.FORM_WORDS[form]) for letter, form in ice.FORMS.items()]


class IceMaps:
    """The latest map of each stage and coil of a call."""

    def __init__(self, call, unit):
        self.call, self.unit = call, unit
        self.stored = {(d.stage, d.evaporator): d for d in call.icedrawings.all() if d.undone_at is None}

    @property
    def coils(self):
        return range(1, self.unit.evaporators + 1)

    def latest(self, stage, evaporator=1):
        """The latest stored map of a stage and coil as shown, None where there is none."""
        drawing = self.stored.get((stage, evaporator))
        return shown(drawing) if drawing else None

    @property
    def painted_before(self):
        """Whether the ice was painted as it was found."""
        return any(stage == "before" for stage, _ in self.stored)

    def to_paint(self, stage, evaporator):
        """The map to go on painting: the stored one, else a bare one that nobody looked at."""
        bare = Shown(["." * ice.COLUMNS] * ice.ROWS, {}, [], self.call.unit.face_ft2, painted=False)
        return self.latest(stage, evaporator) or bare

    def mass_lb(self, deep=ice.USUAL_DEPTH):
        """The ice to melt: all coils of the before-maps together, lb low and high; None without a map."""
        before = [d for (stage, _), d in self.stored.items() if stage == "before"]
        return ice.total_mass_lb([(ice.parse(d.rows, d.places), d.face_ft2) for d in before], deep)

    @property
    def pairs(self):
        """Before and after side by side, coil by coil."""
        return [(coil, self.latest("before", coil), self.latest("after", coil)) for coil in self.coils]


def painting(standing, stage):
    """What the painter of a stage needs: a map to go on with for each coil, the brushes."""
    coils = standing.ice.coils
    melted = stage == "before" and standing.call.melts.filter(undone_at=None, ended_at__isnull=False).exists()
    if melted:
        # What was there before is on record; painting it again would put the old ice back on the coil.
        return {"to_paint": [], "brushes": BRUSHES, "many": len(coils) > 1, "melted": True}
    return {
        "to_paint": [(coil, standing.ice.to_paint(stage, coil)) for coil in coils],
        "brushes": BRUSHES,
        "many": len(coils) > 1,
    }
