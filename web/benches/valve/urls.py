"""Addresses of the valve bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.valve.views import bench, stem

urlpatterns = [
    path("valve/", bench.valve, name="valve"),
    path("valve/turn/", stem.turn, name="turn-valve"),
    path("valve/back/", stem.back, name="valve-back"),
    path("valve/way/", stem.way, name="valve-way"),
    path("valve/take/", bench.take, name="valve-take"),
]
