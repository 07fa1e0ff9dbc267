"""Addresses of the defrost bench; the first parameter is the call's number."""

from django.urls import path

from web.benches.defrost.views import planned, programs, tries, watch

urlpatterns = [
    path("program/try/", tries.try_out, name="try-program"),
    path("program/<str:side>/", programs.keep, name="keep-program"),
    path("plan/", planned.plan, name="plan"),
    path("plan/ask/", planned.ask, name="ask-plan"),
    path("plan/<int:pk>/stop/", planned.stop, name="stop-plan"),
    path("watch/", watch.watch, name="watch"),
    path("watch/start/", watch.start, name="start-watch"),
    path("watch/end/", watch.end, name="end-watch"),
    path("watch/enter/", watch.enter, name="enter-watch"),
    path("watch/leave/", watch.leave, name="leave-watch"),
    path("watch/heater/", watch.heater, name="watch-heater"),
    path("watch/mark/<slug:mark>/", watch.mark, name="mark-watch"),
    path("hours/", programs.hours, name="hours"),
]
