"""Addresses of the pressure ladder."""

from django.urls import path

from web.benches.ladder import views

urlpatterns = [
    path("ladder/", views.ladder, name="ladder"),
    path("ladder/card/", views.card, name="ladder-card"),
]
