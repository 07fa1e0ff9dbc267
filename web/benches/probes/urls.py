"""Addresses of the probes; the first parameter is the call's number."""

from django.urls import path

from web.benches.probes import views

urlpatterns = [
    path("probes/", views.probes, name="probes"),
    path("probes/take/", views.take, name="take-probes"),
]
