"""Addresses of refrigerant work on a call; the first parameter is the call's number."""

from django.urls import path

from web.benches.refrigerant.views import bench, keep

urlpatterns = [
    path("refrigerant/", bench.refrigerant, name="refrigerant"),
    path("refrigerant/leak/open/", keep.give_up, name="leak-open"),
    path("refrigerant/leak/<str:place>/<slug:heard>/", keep.look, name="leak-look"),
    path("refrigerant/microns/", keep.microns, name="microns"),
    path("refrigerant/microns/told/", keep.told_microns, name="told-microns"),
    path("refrigerant/microns/<int:pk>/undo/", keep.undo_microns, name="undo-microns"),
    path("refrigerant/nitrogen/", keep.nitrogen, name="nitrogen"),
    path("refrigerant/change/<slug:part>/<slug:step>/", keep.change_step, name="change-step"),
    path("refrigerant/first-start/", keep.first_start, name="first-start"),
    path("refrigerant/line/", keep.line_size, name="line-size"),
    path("refrigerant/another/", keep.another, name="another-refrigerant"),
    path("refrigerant/label/<str:name>/", bench.retrofit_label, name="retrofit-label"),
    path("refrigerant/recover/", keep.recover, name="recover"),
]
