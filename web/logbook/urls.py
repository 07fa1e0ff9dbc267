"""Addresses of the logbook."""

from django.urls import path

from web.logbook.views import board, calls, case_files, me, units

urlpatterns = [
    path("", board.board, name="board"),
    path("me/", me.me, name="me"),
    path("me/schools/", me.schools, name="schools"),
    path("me/by-feel/", me.by_feel, name="by-feel"),
    path("units/new/", units.edit_unit, name="new-unit"),
    path("units/<int:pk>/", units.unit_page, name="unit"),
    path("units/<int:pk>/plate/", units.edit_unit, name="edit-unit"),
    path("units/<int:pk>/bands/", units.unit_bands, name="unit-bands"),
    path("calls/new/", calls.new_call, name="new-call"),
    path("quick-look/", calls.quick_look, name="quick-look"),
    path("calls/<int:number>/keep/", calls.keep, name="keep"),
    path("case/", case_files.preview_case, name="preview-case"),
    path("case/open/", case_files.import_case, name="import-case"),
    path("case/schema.json", case_files.schema, name="case-schema"),
    path("calls/<int:number>/case.json", case_files.export_case, name="export-case"),
]
