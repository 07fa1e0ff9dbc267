"""Addresses of a call's report."""

from django.urls import path

from web.reports import views

urlpatterns = [
    path("report/", views.report, name="report"),
    path("picture/<slug:stage>/<slug:pane>.svg", views.unit_picture, name="unit-picture"),
    path("report.pdf", views.report_pdf, name="report-pdf"),
]
