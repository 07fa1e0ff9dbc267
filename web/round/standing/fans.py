"""How many coil fans a unit is drawn with."""

FANS = {"walk_in": 3, "provision_room": 3}
USUAL_FANS = 2


def fans_of(unit):
    """The fans of a unit's coil that are drawn, and offered one by one."""
    return next((count for word, count in FANS.items() if unit.kind.code.startswith(word)), USUAL_FANS)
