"""Addresses of the controls bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.controls.views import alarms, controller, cycles, settings, switches

urlpatterns = [
    path("controls/", switches.controls, name="controls"),
    path("controls/keep/", switches.keep, name="keep-switch"),
    path("controls/days/", switches.days, name="keep-days"),
    path("controls/exchanged/", switches.exchanged, name="probe-exchanged"),
    path("controls/alarms/", alarms.standing_alarms, name="controller-alarms"),
    path("controls/cycles/hear/", cycles.hear, name="hear-cycles"),
    path("controls/cycles/<int:pk>/undo/", cycles.take_back, name="undo-cycle"),
    path("controls/cycles/<slug:what>/", cycles.tapped, name="tap-cycle"),
    path("setting/", settings.setting, name="setting"),
    path("controller/", controller.controller, name="controller"),
    path("controller/read/", controller.read, name="read-controller"),
    path("controller/take/", controller.take, name="take-controller"),
    path("controller/write/", controller.write, name="write-controller"),
    path("controller/defrost/", controller.start_defrost, name="controller-defrost"),
    path("controller/<slug:what>/", controller.service, name="controller-service"),
]
