"""Addresses of the Prove stop; the first parameter is the call's number."""

from django.urls import path

from web.benches.prove.views import stop

urlpatterns = [
    path("prove/watch/", stop.watch, name="watch-box"),
    path("prove/box/", stop.read_box, name="read-box"),
    path("prove/remind/", stop.remind, name="remind"),
    path("prove/reminded/<int:pk>/", stop.reminded, name="reminded"),
    path("prove/seen/<slug:code>/", stop.proof, name="see-proof"),
]
