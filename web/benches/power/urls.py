"""Addresses of the power bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.power import views

urlpatterns = [
    path("power/measure/", views.measure, name="measure"),
    path("power/windings/", views.keep_pins, name="windings"),
    path("power/measurements/<int:pk>/undo/", views.take_back, name="undo-measurement"),
]
