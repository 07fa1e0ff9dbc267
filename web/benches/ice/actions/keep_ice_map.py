"""Keep an ice map, and with it the observations it stands for."""

from kettle.benches.ice import map as ice
from kettle.knowledge.errors import InputError
from web.logbook.actions import log
from web.logbook.actions.acting import on_call
from web.logbook.actions.record_reading import record_reading
from web.logbook.models import IceDrawing

SOURCE = "ice map"


@on_call
def keep_ice_map(user, call, stage, rows, places, oil=(), evaporator=1, **when):
    """Check, read and store a map; its form, its places and any oil become readings of that coil.

    `rows` are letters, `places` form by place, `oil` cells as (row, column). InputError stores nothing.
    """
    if stage not in dict(IceDrawing.STAGES):
        raise InputError(f"Ice map: “{stage[:20]}” is not one of before, after")
    count = call.unit.resolved().evaporators
    if not 1 <= evaporator <= count:
        raise InputError(f"Ice map: coil {evaporator} is outside 1 to {count}")
    drawn = ice.parse(rows, places)
    if any(not (0 <= row < ice.ROWS and 0 <= column < ice.COLUMNS) for row, column in oil):
        raise InputError("Ice map: an oil mark lies off the coil")
    read = ice.read(drawn, call.unit.face_ft2)
    on = {"evaporator": evaporator if count > 1 else None, "source": SOURCE} | when
    record_reading(user, call, "ice_form", read.ice_form, **on)
    record_reading(user, call, "ice_places", list(read.ice_places), **on)
    if oil:
        record_reading(user, call, "melt_water", "cloudy_foaming", **on)
        record_reading(user, call, "oil_trace", "at_coil", **{**on, "evaporator": None})
    drawing = IceDrawing.objects.create(
        call=call, by=user, stage=stage, evaporator=evaporator, rows=list(drawn.rows), places=dict(drawn.places),
        oil=[list(cell) for cell in oil], face_ft2=call.unit.face_ft2, **when,
    )  # fmt: skip
    log.write(user, "keep_ice_map", call, stage=stage, pattern=read.pattern.code, covered_pct=round(read.covered_pct))
    return drawing
