"""Addresses of a call's stops; the first parameter is the call's number."""

from django.urls import path

from web.round import views

urlpatterns = [
    path("", views.call_home, name="call"),
    path("entry/<str:key>/", views.enter, name="enter"),
    path("undo/", views.undo, name="undo"),
    path("standing/<slug:stop>/", views.standing, name="standing"),
    path("valve/", views.valve, name="valve"),
    path("setting/", views.setting, name="setting"),
    path("take-back/<str:what>/<int:pk>/", views.take_back, name="take-back"),
    path("close/", views.close, name="close"),
    path("<slug:stop>/", views.stop, name="stop"),
]
