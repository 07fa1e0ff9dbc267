"""Addresses of sets of readings; the first parameter is the call's number."""

from django.urls import path

from web.benches.sets import views

urlpatterns = [
    path("sets/", views.sets, name="sets"),
    path("sets/keep/", views.keep_set, name="keep-set"),
]
