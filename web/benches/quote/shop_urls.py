"""Addresses of one's van."""

from django.urls import path

from web.benches.quote.views import van

urlpatterns = [
    path("van/", van.my_van, name="van"),
    path("van/keep/", van.keep, name="add-van-part"),
    path("van/keep/<int:pk>/", van.keep, name="van-part"),
    path("van/filled/", van.filled, name="fill-van"),
]
