"""Addresses of the pressure ladder."""

from django.urls import path

from web.benches.pressure_chart import views

urlpatterns = [
    path("ladder/", views.ladder, name="ladder"),
    path("ladder/card/", views.card, name="ladder-card"),
]
