"""Addresses of the benches."""

from django.urls import path

from web.benches.views import ladder

urlpatterns = [
    path("ladder/", ladder.ladder, name="ladder"),
    path("ladder/card/", ladder.card, name="ladder-card"),
]
