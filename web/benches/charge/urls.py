"""Addresses of the charge bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.charge.views import keep, page

urlpatterns = [
    path("charge/", page.charge, name="charge"),
    path("charge/add/", keep.add, {"did": "added"}, name="charge-add"),
    path("charge/weigh/", keep.add, {"did": "weighed_in"}, name="charge-weigh"),
    path("charge/by-eye/", keep.without_scale, name="charge-by-eye"),
    path("charge/level/", keep.level, name="charge-level"),
    path("charge/warm-day/", keep.warm_day, name="charge-warm-day"),
]
