"""The picture of a unit as it is built: each part says what the plate says of it, or what is usual."""

from kettle.knowledge.equipment import CHOICES, LIMITS
from kettle.knowledge.measures import TRADE
from web.logbook.units.plate import GROUPS, LEADS_TO
from web.round.standing.picture import Picture, Shown

SAID = {"set_f": "set {}", "differential_f": "diff {}", "evaporators": "{} coils", "phases": "{} phase"}
FIELDS = {part: fields for part, _, fields in GROUPS}


class PlatePicture(Picture):
    """A unit drawn by its plate alone."""

    def __init__(self, unit, build, shown=TRADE):
        super().__init__(unit, build, {}, shown)

    def _shown(self, spot, parts):
        part = LEADS_TO.get(spot.code, spot.code)
        fields = FIELDS.get(part, ())
        own = [name for name in fields if name not in self.unit.assumed and getattr(self.unit, name, None) is not None]
        told = [words for name in fields if spot.code not in LEADS_TO and (words := self._plate_words(name))]
        shown = Shown(spot, parts[0].label, True, bool(own), "; ".join(told) or "as usual", self._flags(spot.flag, told) if fields else [])
        shown.leads_to = part if fields else ""
        return shown

    def _plate_words(self, name):
        value = getattr(self.unit, name, None)
        if value is None or value == "none" or (name == "evaporators" and value == 1) or name == "receiver":
            return ""
        if name in CHOICES:
            return CHOICES[name][value]
        return SAID.get(name, "{}").format(self.shown_in.plain(value, LIMITS[name][2]))
