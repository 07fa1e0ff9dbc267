"""Addresses of the power bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.electrical.views import keep

urlpatterns = [
    path("power/measure/", keep.measure, name="measure"),
    path("power/windings/", keep.keep_pins, name="windings"),
    path("power/measurements/<int:pk>/undo/", keep.take_back, name="undo-measurement"),
    path("power/circuit/", keep.wiring, name="keep-wiring"),
    path("power/wire/", keep.wire, name="draw-wire"),
    path("power/circuit/<slug:part>/", keep.without, name="without-part"),
    path("power/start-gear/sheet/", keep.start_sheet, name="start-sheet"),
    path("power/start-gear/<slug:which>/", keep.start_wires, name="start-wires"),
    path("power/placed/", keep.put_there, name="put-there"),
    path("power/placed/<int:pk>/gone/", keep.gone, name="gone"),
    path("power/output/", keep.output, name="move-output"),
]
