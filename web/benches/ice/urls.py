"""Addresses of the ice bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.ice import views

urlpatterns = [
    path("ice/", views.ice_map, name="ice"),
    path("melt/start/", views.start_melt, name="start-melt"),
    path("melt/pause/", views.pause_melt, name="pause-melt"),
    path("melt/resume/", views.resume_melt, name="resume-melt"),
    path("melt/end/", views.end_melt, name="end-melt"),
]
