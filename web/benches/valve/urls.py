"""Addresses of the valve bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.valve import views

urlpatterns = [
    path("valve/", views.valve, name="valve"),
]
