"""Addresses of the logbook."""

from django.urls import path

from web.logbook import views

urlpatterns = [
    path("", views.board, name="board"),
    path("units/new/", views.edit_unit, name="new-unit"),
    path("units/<int:pk>/", views.unit_page, name="unit"),
    path("units/<int:pk>/plate/", views.edit_unit, name="edit-unit"),
    path("calls/new/", views.new_call, name="new-call"),
    path("quick-look/", views.quick_look, name="quick-look"),
    path("case/", views.import_case, name="import-case"),
    path("calls/<int:number>/keep/", views.keep, name="keep"),
    path("calls/<int:number>/case.json", views.export_case, name="export-case"),
]
